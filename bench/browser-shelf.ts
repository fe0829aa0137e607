/**
 * A CSV of 5,000 tools with ten faulty lines in headless Chromium: how long until all others are on the shelf and shown, and the
 * longest time that the main thread is held meanwhile.
 */
import type { Page } from 'playwright-core';
import { framesWhile } from './frames.ts';

const lines = Array.from({ length: 5000 }, (_, k) => `Bench tool ${k},end mill,${k % 500 === 7 ? 'wide' : '3.175'},2`);
const csv = Buffer.from(['name,kind,diameterMm,flutes', ...lines].join('\n'));

export async function measureShelf(page: Page, address: string): Promise<void> {
  await page.goto(`${address}/shelf`);
  await page.getByRole('tab', { name: /^Tools/ }).click();
  await page.getByRole('grid').waitFor();
  const started = performance.now();
  const frames = await framesWhile(page, async () => {
    await page.getByLabel('Bring in CSV').last().setInputFiles({ name: 'tools.csv', mimeType: 'text/csv', buffer: csv });
    await page.getByText(/4990 lines brought in/).waitFor({ timeout: 60_000 });
  });
  const s = ((performance.now() - started) / 1000).toFixed(1);
  const faulty = await page.getByText(/^Line \d+: /).count();
  console.log(
    `${'CSV of 5,000 tools, ten lines faulty'.padEnd(40)} ${s} s; ${faulty} listed; longest task ${frames.longestTask.toFixed(0)} ms`,
  );
  await page.getByRole('button', { name: 'Undo' }).click();
  await page.getByLabel('There is nothing to undo.').waitFor({ timeout: 60_000 });
}
