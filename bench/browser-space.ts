/** A body's formers in space, turned with the pointer, in headless Chromium without a graphics card: how long its frames are. */
import type { Page } from 'playwright-core';
import { settled } from '../tests/e2e/browser.ts';
import { framesWhile } from './frames.ts';

const moves = 90;

export async function measureSpace(page: Page, address: string): Promise<void> {
  await page.goto(address);
  await page.getByText('Paddle-otter float').click();
  await page.getByRole('application', { name: 'Light table' }).waitFor();
  await settled(page);
  await page.getByRole('button', { name: /^Make ready:/ }).click();
  await page.getByRole('button', { name: 'In space', exact: true }).click();
  const canvas = page.getByRole('img', { name: /body in space/ }).locator('canvas');
  await canvas.waitFor();
  await settled(page);
  const box = await canvas.boundingBox();
  if (!box) throw new Error('the body is not to be seen');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  const { median, high } = await framesWhile(page, async () => {
    for (let k = 0; k < moves; k++) {
      await page.mouse.move(x + 2 * k, y + 30 * Math.sin(k / 8));
      await page.waitForTimeout(12);
    }
  });
  await page.mouse.up();
  console.log(
    `${'25 formers in space, turned'.padEnd(40)} frames of ${median.toFixed(1)} ms, 95 % within ${high.toFixed(1)} ms (33 asked)`,
  );
}
