/** A tray for tools as a new user would: a photograph on the scale card, trued up without a click, traced, heights typed, a drawer arranged. */
import { readFileSync } from 'node:fs';
import { readDxf } from '@nuvet/core/formats';
import { pathBox } from '@nuvet/core/plane';
import { finished } from '@nuvet/core/steps';
import { foundersSheet, foundersTools, jpegOf, photographScene } from '@nuvet/truth';
import type { Download, Page } from 'playwright-core';
import { expect, it } from 'vitest';
import { settled } from './browser.ts';
import { drivenPage } from './driven-page.ts';
import { address, jobOf, jobWithFile } from './server.ts';

let page: Page;
drivenPage((opened) => {
  page = opened;
});

const button = (name: string | RegExp) => page.getByRole('button', { name, exact: true });
const typed = async (label: string, value: string): Promise<void> => {
  const field = page.getByRole('textbox', { name: label, exact: true });
  await field.fill(value);
  await field.press('Enter');
};

it('tools photographed on the scale card lie in a drawer, each at its true size, and come out as sheets to cut', async () => {
  const photo = photographScene(foundersSheet, { widthPx: 2400, heightPx: 1800, tiltDegrees: 14, leanDegrees: 250, focalShare: 1.1, seed: 61 }, foundersTools.flatMap(({ parts }) => parts)); // biome-ignore format: one line
  const { id } = await jobWithFile('tools.jpg', new Uint8Array(await jpegOf(photo.picture, 72)));
  await page.goto(`${address}/jobs/${id}?stage=true-up`);
  await expect.poll(async () => (await jobOf(id)).pictures[0]?.marks.some(({ kind }) => kind === 'scale-card')).toBe(true);
  await page.goto(`${address}/jobs/${id}?stage=trace`);
  await expect.poll(async () => (await jobOf(id)).traces[0]?.pieces.length ?? 0).toBeGreaterThan(4);
  await settled(page);
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await button('Add a process').click();
  await button('Add Tool tray').click();
  await page.getByText('Each object').waitFor();
  await page.getByText(/above the sheet, ±/).waitFor();
  // The card's markers and the table around the paper are no tools: five are listed.
  await expect.poll(() => page.getByRole('textbox', { name: /^Height of / }).count()).toBe(5);
  const name = (
    (await page
      .getByRole('textbox', { name: /^Height of / })
      .first()
      .getAttribute('aria-label')) ?? ''
  ).replace('Height of ', '');
  const first = (await jobOf(id)).traces[0]?.pieces.find((piece) => piece.name === name);
  await typed(`Height of ${first?.name}`, '34 mm');
  await settled(page);
  const settings = async () => (await jobOf(id)).making.processes.find(({ process }) => process === 'tray')?.settings as { objects?: { pieceId: string; heightMm: number | null; place: object | null }[] }; // biome-ignore format: one line
  expect((await settings()).objects).toMatchObject([{ pieceId: first?.id, heightMm: 34, place: null }]);
  await button('Drawer').click();
  await typed('Wide, mm', '600');
  await typed('Long, mm', '460');
  await settled(page);
  // A pocket is dragged, then nudged by an arrow key.
  const pocket = page.getByRole('button', { name: new RegExp(`: ${first?.name}$`) });
  const box = await pocket.boundingBox();
  if (!box) throw new Error('the pocket is not to be seen');
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 20, y - 12, { steps: 4 });
  await page.mouse.up();
  await settled(page);
  const placed = async () => (await settings()).objects?.find(({ pieceId }) => pieceId === first?.id)?.place as { at: { x: number } } | null; // biome-ignore format: one line
  const before = (await placed())?.at.x as number;
  expect(before).toBeGreaterThan(0);
  await pocket.press('ArrowRight');
  await settled(page);
  expect((await placed())?.at.x).toBeCloseTo(before + 1, 6);
  await button('Files').click();
  const [download] = await Promise.all([page.waitForEvent('download') as Promise<Download>, button('DXF: download').click()]);
  const { outlines } = finished(readDxf(readFileSync((await download.path()) as string, 'utf8')));
  const largest = outlines.map(({ path }) => pathBox(path)).reduce((a, b) => (b.maxX - b.minX > a.maxX - a.minX ? b : a));
  expect([largest.maxX - largest.minX, largest.maxY - largest.minY]).toEqual([expect.closeTo(600, 2), expect.closeTo(460, 2)]);
});
