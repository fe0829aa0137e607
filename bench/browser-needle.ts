/** The needle runs along a quilt's line of more than ten thousand stitches in headless Chromium: how long its frames are. */
import type { Page } from 'playwright-core';
import { settled } from '../tests/e2e/browser.ts';
import { framesWhile } from './frames.ts';

const shownMs = 4000;

export async function measureNeedle(page: Page, address: string): Promise<void> {
  await page.goto(address);
  await page.getByText('Mill Race block').click();
  await page.getByRole('application', { name: 'Light table' }).waitFor();
  await settled(page);
  await page.getByRole('button', { name: /^Make ready:/ }).click();
  await page.getByRole('button', { name: 'Quilting line', exact: true }).click();
  await page.getByText('What it comes to').waitFor();
  const stitches = await page.getByText('Stitches in all', { exact: true }).locator('xpath=following-sibling::*').textContent();
  const { median, high, work } = await framesWhile(page, async () => {
    await page.getByRole('button', { name: 'Run the needle' }).click();
    await page.waitForTimeout(shownMs);
  });
  console.log(`${`the needle along ${stitches} stitches`.padEnd(40)} frames of ${median.toFixed(1)} ms, 95 % within ${high.toFixed(1)} ms (16.7 asked); ${work.toFixed(1)} ms of work each`); // biome-ignore format: one line
}
