/** Many outlines on the table: laid where the view moves, sharp again once it rests, and where they belong while one is dragged. */
import { workBoxOf } from '@nuvet/core/job';
import { type Path, type Point, polygonPath } from '@nuvet/core/plane';
import type { Page } from 'playwright-core';
import sharp from 'sharp';
import { expect, it } from 'vitest';
import { toScreen, wholeSheet } from '../../apps/web/src/table/view.ts';
import { settled } from './browser.ts';
import { drivenPage } from './driven-page.ts';
import { address, jobOf, jobOfOutlines } from './server.ts';

let page: Page;
drivenPage((opened) => {
  page = opened;
});

/** A star of 100 sides about a place. */
const star = (cx: number, cy: number): Path =>
  polygonPath(
    Array.from({ length: 100 }, (_, k) => ({
      x: cx + (5 + (k % 2)) * Math.cos((2 * Math.PI * k) / 100),
      y: cy + (5 + (k % 2)) * Math.sin((2 * Math.PI * k) / 100),
    })),
  );
const table = () => page.getByRole('application', { name: 'Light table' });

/** The table, or a part of it, as grey pixels. */
async function seen(part?: { left: number; top: number; width: number; height: number }): Promise<Buffer> {
  const whole = sharp(await table().screenshot()).greyscale();
  const cut = part && {
    left: Math.round(part.left),
    top: Math.round(part.top),
    width: Math.round(part.width),
    height: Math.round(part.height),
  };
  return (cut ? whole.extract(cut) : whole).raw().toBuffer();
}

/** The share of pixels that differ plainly. */
function differing(a: Buffer, b: Buffer): number {
  let count = 0;
  for (let k = 0; k < a.length; k++) if (Math.abs((a[k] as number) - (b[k] as number)) > 24) count++;
  return count / a.length;
}

it('6,000 segments, panned and zoomed there and back, look as they did; one dragged moves alone', async () => {
  const outlines = Array.from({ length: 60 }, (_, k) => ({
    name: `Star ${k}`,
    paths: [star(10 + 16 * (k % 10), 10 + 16 * Math.floor(k / 10))],
  }));
  const id = await jobOfOutlines('Starry lantern', outlines);
  await page.goto(`${address}/jobs/${id}?stage=trace`);
  await table().waitFor();
  await settled(page);
  const box = await table().boundingBox();
  if (!box) throw new Error('there is no light table');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.waitForTimeout(300);
  const before = await seen();
  for (const by of [-120, -120, -120]) await page.mouse.wheel(0, by);
  await page.waitForTimeout(600);
  expect(differing(before, await seen())).toBeGreaterThan(0.01);
  for (const by of [120, 120, 120]) await page.mouse.wheel(0, by);
  await page.waitForTimeout(600);
  expect(differing(before, await seen())).toBeLessThan(0.002);
  // One is dragged: it goes along at once, the others stay as they are.
  await page.getByRole('button', { name: 'Correct', exact: true }).click();
  await page.getByRole('button', { name: 'Arrange', exact: true }).click();
  await page
    .getByRole('list', { name: 'Drawn' })
    .getByRole('button', { name: /^Star 0/ })
    .click();
  const view = wholeSheet(workBoxOf(await jobOf(id)), { width: box.width, height: box.height });
  const at = toScreen(view, { x: 10, y: 10 });
  await page.mouse.move(box.x + at.x, box.y + at.y);
  await page.waitForTimeout(400);
  const [own, others] = [await seen({ left: 0, top: at.y - 40, width: at.x, height: 80 }), await seen(besides(at, box))];
  await page.mouse.down();
  for (const by of [-4, -12, -20]) await page.mouse.move(box.x + at.x + by, box.y + at.y);
  await page.waitForTimeout(60);
  expect(differing(own, await seen({ left: 0, top: at.y - 40, width: at.x, height: 80 }))).toBeGreaterThan(0.02);
  expect(differing(others, await seen(besides(at, box)))).toBeLessThan(0.002);
  await page.mouse.up();
  await page.waitForTimeout(500);
  expect(differing(others, await seen(besides(at, box)))).toBeLessThan(0.002);
});

/** All that lies above a place and well to the right of it. */
const besides = (at: Point, { width }: { width: number }) => ({ left: at.x + 60, top: 0, width: width - at.x - 60, height: at.y - 60 });
