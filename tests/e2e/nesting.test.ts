/** Copies on sheets as a new user would: counts, a layout that is kept and undone, each sheet in hand, and files a sheet. */
import { readFileSync } from 'node:fs';
import { readDxf } from '@nuvet/core/formats';
import { circlePath, pathBox } from '@nuvet/core/plane';
import { finished } from '@nuvet/core/steps';
import { unzipSync } from 'fflate';
import type { Download, Page } from 'playwright-core';
import { expect, it } from 'vitest';
import { settled } from './browser.ts';
import { drivenPage } from './driven-page.ts';
import { address, boxPath, jobOf, jobOfOutlines } from './server.ts';

let page: Page;
drivenPage((opened) => {
  page = opened;
});
const button = (name: string | RegExp) => page.getByRole('button', { name, exact: true });
const panel = (name: string) => page.getByRole('group', { name: 'Laser' }).getByRole('button', { name, exact: true });
const typed = async (label: RegExp, value: string): Promise<void> => {
  const field = page.getByRole('textbox', { name: label }).first();
  await field.fill(value);
  await field.press('Enter');
};

it('copies lie on two sheets, each goes into a file of its own, and what does not fit is named', async () => {
  const id = await jobOfOutlines('Lantern feet', [
    { name: 'Foot', paths: [boxPath(0, 0, 60, 40)] },
    { name: 'Cap', paths: [circlePath({ x: 120, y: 20 }, 20)] },
  ]);
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await panel('Nest').click();
  await page.getByText('Nothing is laid out yet: parts are cut where they are drawn.').waitFor();
  await typed(/^Copies of Foot/, '7');
  await typed(/^Copies of Cap/, '4');
  await typed(/^Wide 1/, '200');
  await typed(/^High/, '100');
  await typed(/^Time for it/, '2');
  await button('Lay out').click();
  await button('Lay out again').waitFor({ timeout: 30_000 });
  await settled(page);
  const { layout } = (await jobOf(id)).making;
  expect([layout?.laid?.copies.length, layout?.laid?.sheets.length]).toEqual([11, 2]);
  // The table shows the sheet in hand.
  await panel('Cut').click();
  await page.getByRole('combobox', { name: 'Sheet to make' }).click();
  await page.getByRole('option', { name: 'Sheet 2 of 2' }).click();
  await panel('Files').click();
  const [download] = await Promise.all([page.waitForEvent('download') as Promise<Download>, button('DXF: download').click()]);
  const files = unzipSync(new Uint8Array(readFileSync((await download.path()) as string)));
  const names = Object.keys(files).sort();
  expect(names.map((name) => name.replace(/.*-(sheet-\d\.dxf)$/, '$1'))).toEqual(['sheet-1.dxf', 'sheet-2.dxf']);
  const outlines = names.flatMap((name) => {
    const { outlines: read } = finished(readDxf(new TextDecoder().decode(files[name])));
    for (const { path } of read) expect(pathBox(path).maxX <= 195.01 && pathBox(path).maxY <= 95.01).toBe(true);
    return read;
  });
  expect(outlines.length).toBe(11);
  // The sets of all processes have every sheet, too, whichever process is open.
  await button('Add a process').click();
  await button('Add Plan sheet').click();
  await page.getByRole('group', { name: 'Plan sheet' }).getByRole('button', { name: 'Files', exact: true }).click();
  const [sets] = await Promise.all([page.waitForEvent('download') as Promise<Download>, button('Download the sets of all processes as a zip').click()]); // biome-ignore format: one line
  const all = Object.keys(unzipSync(new Uint8Array(readFileSync((await sets.path()) as string))));
  expect(all.filter((name) => /^1 Laser.*sheet-2\.dxf$/.test(name)).length).toBe(1);
  expect(all.filter((name) => /^2 Plan sheet.*\.pdf$/.test(name)).length).toBe(1);
  await page.getByRole('button', { name: 'Laser', exact: true }).click();
  // One that no sheet takes is told, and the others are laid out; then all as drawn again, and back by undo.
  await panel('Nest').click();
  await typed(/^Wide 1/, '58');
  await typed(/^High/, '54');
  await button('Lay out').click();
  await page.getByText(/Larger than every sheet: Foot/).waitFor({ timeout: 90_000 });
  await button('Cut as drawn, without sheets').click();
  await settled(page);
  expect((await jobOf(id)).making.layout).toBe(null);
  await page.keyboard.press('Control+z');
  await settled(page);
  expect((await jobOf(id)).making.layout?.laid?.copies.length).toBe(4);
});
