/** Milling as a new user would: tools from the shelf, operations, a trial run, programs for each tool. */
import { readFileSync } from 'node:fs';
import { circlePath, reversedPath } from '@nuvet/core/plane';
import { MillingInterpreter } from '@nuvet/cutter/milling-interpreter';
import { unzipSync } from 'fflate';
import type { Download, Page } from 'playwright-core';
import { expect, it } from 'vitest';
import { toScreen, wholeSheet } from '../../apps/web/src/table/view.ts';
import { settled } from './browser.ts';
import { drivenPage } from './driven-page.ts';
import { address, boxPath, jobOf, jobOfOutlines } from './server.ts';

let page: Page;
drivenPage((opened) => {
  page = opened;
});

const button = (name: string | RegExp) => page.getByRole('button', { name, exact: true });
const section = (title: string) => page.locator('section').filter({ has: page.getByRole('heading', { name: title, exact: true }) });
const typed = async (label: string | RegExp, value: string): Promise<void> => {
  const field = page.getByRole('textbox', { name: label }).first();
  await field.fill(value);
  await field.press('Enter');
};
const take = async (tool: string): Promise<void> => {
  await page.getByLabel('Take a tool from the shelf').click();
  await page.getByRole('option', { name: tool, exact: true }).click();
  await page.getByRole('group', { name: tool }).waitFor();
};

it('a badge is planned from its purposes, changed, tried, and handed over as a program for each tool', async () => {
  const id = await jobOfOutlines('Lantern badge', [
    { name: 'Badge', paths: [circlePath({ x: 60, y: 60 }, 40), reversedPath(circlePath({ x: 60, y: 92 }, 3))] },
    { name: 'River', purpose: 'pocket', paths: [boxPath(40, 52, 40, 14)] },
    { name: 'Ring', purpose: 'engrave', paths: [circlePath({ x: 60, y: 60 }, 36)] },
  ]);
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await button('Add a process').click();
  await button('Add CNC').click();
  await page.getByText('Choose the tools that you have at hand.').waitFor();
  await take('V-bit, 60°');
  await take('End mill, 3.175 mm');
  // Without a thickness nothing is cut through, and it says so.
  await page.getByText(/How thick is the stock\?/).waitFor();
  await typed(/^Measured thickness/, '6');
  for (const name of ['1 Follow', '2 Pocket', '3 Holes', '4 Profile']) await page.getByRole('listitem', { name }).waitFor();
  await page.getByText('These follow the purposes of the pieces.').waitFor();
  // A step of nothing is refused at its field; a depth is typed, and the list is then the maker's own.
  await page.getByRole('group', { name: 'End mill, 3.175 mm' }).getByRole('button', { name: /^End mill/ }).click(); // biome-ignore format: one line
  await typed(/^Stepdown/, '0');
  await page.getByRole('alert').filter({ hasText: /more than zero|above 0|greater/i }).first().waitFor(); // biome-ignore format: one line
  await typed(/^Stepdown/, '1.2');
  await button('Details of 2 Pocket').click();
  await typed(/^Depth/, '2.5');
  await page.getByText('This list is your own.').waitFor();
  await button('Move 2 Pocket up').click();
  await page.getByRole('listitem', { name: '1 Pocket' }).waitFor();
  await page.getByRole('listitem', { name: '1 Pocket' }).getByText(/2.5 mm deep/).waitFor(); // biome-ignore format: one line
  await settled(page);
  const kept = (await jobOf(id)).making.processes.find(({ process }) => process === 'cnc');
  const operations = kept?.settings.operations as { kind: string }[];
  expect(operations.map(({ kind }) => kind)).toEqual(['pocket', 'follow', 'holes', 'profile']);
  await button('Trial run').click();
  await page.getByText('Taken off').waitFor();
  expect(await page.getByText('Gouges').locator('..').textContent()).toMatch(/none/);
  await page.getByRole('img', { name: 'The stock as it is milled, in space' }).waitFor();
  const slider = page.getByRole('slider', { name: 'Time' });
  await slider.focus();
  await slider.press('Home');
  await page.getByText(/^0\.0 s of /).waitFor();
  await button('Files').click();
  const [download] = await Promise.all([page.waitForEvent('download') as Promise<Download>, button('G-code: download').click()]);
  const files = Object.entries(unzipSync(readFileSync((await download.path()) as string)));
  expect(files.map(([name]) => name.replace(/^.*program/, 'program'))).toEqual([
    'program-1-end-mill-3.175-mm.gcode',
    'program-2-v-bit-60.gcode',
    'program-3-end-mill-3.175-mm.gcode',
  ]);
  for (const [, bytes] of files) {
    const interpreter = new MillingInterpreter();
    const read = new TextDecoder().decode(bytes).split('\n').map((line) => interpreter.read(line)); // biome-ignore format: one line
    expect(read.some((one) => one !== null && 'stop' in one && one.stop === 'end')).toBe(true);
  }
  await button('Operations').click();
  await button('Plan it from the purposes').click();
  await page.getByRole('listitem', { name: '1 Follow' }).waitFor();
});

it('its tabs are dragged, and its trial stands in Prove', async () => {
  const id = await jobOfOutlines('Plate', [
    { name: 'Plate', paths: [boxPath(10, 10, 60, 40), reversedPath(circlePath({ x: 58, y: 30 }, 5))] },
    { name: 'Bay', purpose: 'pocket', paths: [boxPath(18, 18, 24, 20)] },
    { name: 'Ring', purpose: 'engrave', paths: [circlePath({ x: 30, y: 28 }, 4)] },
  ]);
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await button('Add a process').click();
  await button('Add CNC').click();
  await take('V-bit, 60°');
  await take('End mill, 3.175 mm');
  await typed(/^Measured thickness/, '4');
  const profile = page.getByRole('listitem', { name: /Profile$/ });
  await profile.waitFor();
  await settled(page);
  // The tab on the lower edge, a tool's radius below it, goes along it.
  await profile.getByRole('button', { name: /^Details of/ }).click();
  await page.getByText('Drag a tab on the table to where it should hold.').waitFor();
  const table = page.getByRole('application', { name: 'Light table' });
  const box = (await table.boundingBox()) as { x: number; y: number; width: number; height: number };
  const tabs = async (): Promise<{ x: number; y: number }[] | null> => {
    const kept = (await jobOf(id)).making.processes.find(({ process }) => process === 'cnc');
    const operations = (kept?.settings.operations ?? []) as { kind: string; tabs?: { places: { x: number; y: number }[] | null } }[];
    return operations.find(({ kind }) => kind === 'profile')?.tabs?.places ?? null;
  };
  const view = wholeSheet({ minX: 10, minY: 10, maxX: 70, maxY: 50 }, { width: box.width, height: box.height });
  const onScreen = (p: { x: number; y: number }): [number, number] => {
    const { x, y } = toScreen(view, p);
    return [box.x + x, box.y + y];
  };
  await page.mouse.move(...onScreen({ x: 17.5, y: 10 - 3.175 / 2 }));
  await page.mouse.down();
  await page.mouse.move(...onScreen({ x: 26, y: 8 }), { steps: 4 });
  await page.mouse.up();
  await settled(page);
  const places = await tabs();
  expect(places).toHaveLength(4);
  expect(places?.some(({ x, y }) => Math.abs(x - 26) < 0.3 && Math.abs(y - 10) < 1e-6)).toBe(true);
  await page.getByText('These tabs were placed by hand.').waitFor();
  // Prove tells what the trial finds; a click goes there.
  await page.getByRole('button', { name: /^Prove/ }).first().click(); // biome-ignore format: one line
  const tried = section('CNC, tried');
  await tried.getByText('Taken off').waitFor();
  expect(await tried.getByText('Gouges').locator('..').textContent()).toMatch(/none/);
  await tried.getByRole('button', { name: 'Show' }).first().click(); // biome-ignore format: one line
  await page.getByRole('img', { name: 'The stock as it is milled, in space' }).waitFor();
});
