/** A solid as a new user would: a thickness, rounded edges, one outline cut out, a base, and a file for the printer. */
import { readFileSync } from 'node:fs';
import { readGlb, readStl, writePng } from '@nuvet/core/formats';
import { circlePath } from '@nuvet/core/plane';
import { openEdges, sizeOf } from '@nuvet/core/solid';
import type { Download, Page } from 'playwright-core';
import { expect, it } from 'vitest';
import { settled } from './browser.ts';
import { drivenPage } from './driven-page.ts';
import { address, boxPath, jobOf, jobOfOutlines, jobWith, json } from './server.ts';

let page: Page;
drivenPage((opened) => {
  page = opened;
});
const button = (name: string | RegExp) => page.getByRole('button', { name, exact: true });
const reading = (name: string) => page.getByText(name, { exact: true }).locator('xpath=following-sibling::*');
const panel = (name: string) => page.getByRole('group', { name: 'Solid' }).getByRole('button', { name, exact: true });
const typed = async (label: RegExp, value: string): Promise<void> => {
  const field = page.getByRole('textbox', { name: label }).first();
  await field.fill(value);
  await field.press('Enter');
};
const pick = async (label: string, option: string, k = 0): Promise<void> => {
  await page.getByRole('combobox', { name: label }).nth(k).click();
  await page.getByRole('option', { name: option, exact: true }).click();
};

it('outlines become a solid with rounded edges on a base, and an STL that holds just that', async () => {
  const id = await jobOfOutlines('Lantern tag', [
    { name: 'Plate', paths: [boxPath(0, 0, 60, 40)] },
    { name: 'Bay', paths: [circlePath({ x: 30, y: 20 }, 10)] },
  ]);
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await button('Add a process').click();
  await button('Add Solid').click();
  await page.getByRole('img', { name: /solid in space/ }).locator('canvas').waitFor(); // biome-ignore format: one line
  await typed(/^To/, '5');
  await button('Make an outline otherwise').click();
  await pick('Otherwise 1', 'Bay');
  await pick('It is', 'Cut out', 1);
  // A height that nothing is: said, and the one before stays.
  await typed(/^To/, '900');
  await page.getByRole('alert').getByText('At most 500 mm.').waitFor();
  await typed(/^To/, '5');
  await pick('Upper edge', 'Rounded');
  await typed(/^By/, '30');
  await page.getByText(/edges of .Plate. have no room for 30/).waitFor();
  await typed(/^By/, '2');
  await panel('Base').click();
  await pick('Base', 'A plate under all');
  await settled(page);
  expect((await jobOf(id)).making.processes.find(({ process }) => process === 'solid')?.settings).toMatchObject({
    body: { toMm: 5, top: { kind: 'round', sizeMm: 2 } },
    rules: [{ pieceId: 'd1', how: 'cut' }],
    base: { marginMm: 3, thicknessMm: 2 },
  });
  await panel('Print').click();
  await expect.poll(() => reading('Size').textContent()).toBe('66.00 x 46.00 x 7.00 mm');
  await panel('Files').click();
  const [download] = await Promise.all([page.waitForEvent('download') as Promise<Download>, button('STL: download').click()]);
  const mesh = readStl(new Uint8Array(readFileSync((await download.path()) as string)));
  expect(openEdges(mesh)).toBe(0);
  // Less the bay, and what a round of 2 mm takes off the upper edge: (1 - pi / 4) r² along it, less still in the corners.
  const { volumeMm3 } = sizeOf(mesh);
  const whole = 60 * 40 * 5 + (66 * 46 - (4 - Math.PI) * 9) * 2;
  const bay = Math.PI * 100 * 5;
  const round = (1 - Math.PI / 4) * 4 * 200;
  expect(volumeMm3).toBeLessThan(whole - bay - 0.9 * round);
  expect(volumeMm3).toBeGreaterThan(whole - bay - 1.2 * round);
});

it('a star is pushed together of two halves, a ball is told whether it passes, and layers are looked through', async () => {
  const id = await jobOfOutlines('Lantern cross', [{ name: 'Cross', paths: [boxPath(0, 0, 70, 50)] }]);
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await button('Add a process').click();
  await button('Add Solid').click();
  await page.getByRole('img', { name: /solid in space/ }).locator('canvas').waitFor(); // biome-ignore format: one line
  await typed(/^To/, '4');
  await panel('Base').click();
  await button('Push two together').click();
  await pick('Pairs are shown', 'Pushed together');
  await panel('Print').click();
  await page.getByText(/The pair goes together, with 0\.50 mm/).waitFor();
  await expect.poll(() => reading('Layers').textContent()).toBe('20');
  await page.getByRole('slider', { name: 'Cut open at' }).press('Home');
  await page.getByText('Layer 1 of 20').waitFor();
  // Two plates less a slot each: 4.5 mm wide, from the middle to an edge.
  await expect.poll(() => reading('Its area').textContent()).toBe(`${((2 * (70 * 50 - 4.5 * 25.05)) / 100).toFixed(2)} cm²`);
  await typed(/^Ball that passes/, '9.5');
  await page.getByText(/The ball does not pass everywhere: the narrowest passage is 4\.50 mm/).waitFor();
  await panel('Files').click();
  const [download] = await Promise.all([page.waitForEvent('download') as Promise<Download>, button('GLB: download').click()]);
  expect(readGlb(new Uint8Array(readFileSync((await download.path()) as string))).length).toBe(2);
  await settled(page);
});

it('an outline over a picture becomes a relief as high as the picture is light', async () => {
  // 30 x 20 mm, black at its left and white at its right.
  const data = Uint8Array.from({ length: 60_000 }, (_, k) => Math.round((255 * ((k % 300) + 0.5)) / 300));
  const { id } = await jobWith('Dune', writePng({ width: 300, height: 200, data }, 10));
  const drawn = { id: 'd0', name: 'Tile', purpose: 'cut', leftOut: false, source: { kind: 'paths', paths: [boxPath(0, 0, 30, 20)] }, live: [] }; // biome-ignore format: one line
  expect((await json('POST', `/api/jobs/${id}/edits`, { base: 2, steps: [{ step: 'do', command: { do: 'draw', drawn } }], wanted: false })).status).toBe(200); // biome-ignore format: one line
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await button('Add a process').click();
  await button('Add Solid').click();
  await panel('Base').click();
  await button('Add a relief').click();
  await typed(/^White is at/, '5');
  await panel('Print').click();
  // Twice as high in the middle as at black: 30 x 20 x (1 + 5) / 2.
  await expect.poll(() => reading('Volume').textContent()).toMatch(/^1\.(79|80|81) ml$/);
  await panel('Files').click();
  const [download] = await Promise.all([page.waitForEvent('download') as Promise<Download>, button('STL: download').click()]);
  const mesh = readStl(new Uint8Array(readFileSync((await download.path()) as string)));
  expect(openEdges(mesh)).toBe(0);
  expect(sizeOf(mesh).middle[0] / 30).toBeGreaterThan(0.6);
  await settled(page);
});
