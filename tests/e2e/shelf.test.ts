/** The shelf as a person uses it: a table that is typed in, CSV, and jobs that follow what was measured. */
import { readFileSync } from 'node:fs';
import { readGcode, readHpgl } from '@nuvet/core/formats';
import { piecesToMake } from '@nuvet/core/job';
import { heightOf, pathBox } from '@nuvet/core/plane';
import type { ShelfItem } from '@nuvet/core/shelf';
import { unzipSync } from 'fflate';
import type { Download, Page } from 'playwright-core';
import { describe, expect, it } from 'vitest';
import { polylinesSeenByDxfParser } from '../unit/outside-readers.ts';
import { settled } from './browser.ts';
import { drivenPage } from './driven-page.ts';
import { address, boxPath, jobOf, jobOfOutlines, json } from './server.ts';

let page: Page;
drivenPage((opened) => {
  page = opened;
});

const button = (name: string | RegExp) => page.getByRole('button', { name, exact: true });
const shelf = async (kind: string): Promise<ShelfItem[]> => (await json('GET', `/api/shelf?kind=${kind}`)).body;
const named = async (kind: string, name: string) => (await shelf(kind)).find(({ value }) => value.name === name);
const row = (name: string) => page.getByRole('row').filter({ hasText: name });
/** Types into a cell of the table, as text, and leaves it with Enter. */
async function typeIn(name: string, field: string, text: string): Promise<void> {
  await row(name).locator(`[data-field="${field}"]`).dblclick();
  const input = page.locator('.MuiDataGrid-cell--editing input');
  await input.fill(text);
  await input.press('Enter');
}
async function openShelf(tab: 'Materials' | 'Tools' | 'Machines'): Promise<void> {
  await page.goto(`${address}/shelf`);
  await page.getByRole('tab', { name: tab }).click();
  await page.getByRole('grid').waitFor();
}

describe('the table', () => {
  it('is typed in as people say lengths, sorted and searched; a wrong word is said at the place and changes nothing', async () => {
    await openShelf('Materials');
    await typeIn('Walnut, 6 mm', 'measuredMm', '1/4"');
    await expect.poll(async () => (await named('material', 'Walnut, 6 mm'))?.value).toMatchObject({ measuredMm: 6.35 });
    await typeIn('Walnut, 6 mm', 'sheets', '450x150x2; 12in x 6in x 1');
    await expect
      .poll(async () => (await named('material', 'Walnut, 6 mm'))?.value)
      .toMatchObject({ sheets: [{ widthMm: 450, heightMm: 150, count: 2 }, { count: 1 }] });
    await row('Walnut, 6 mm').locator('[data-field="measuredMm"]').dblclick();
    await page.getByRole('textbox', { name: 'Measured, mm' }).fill('wide');
    await page.getByRole('textbox', { name: 'Measured, mm' }).press('Enter');
    await expect.poll(() => page.getByRole('textbox', { name: 'Measured, mm' }).getAttribute('aria-invalid')).toBe('true');
    await page
      .getByRole('alert')
      .filter({ hasText: /^Measured: .*wide/ })
      .waitFor();
    await page.getByRole('textbox', { name: 'Measured, mm' }).press('Escape');
    expect((await named('material', 'Walnut, 6 mm'))?.value).toMatchObject({ measuredMm: 6.35 });
    await page.getByRole('button', { name: 'inches' }).click();
    await row('Walnut, 6 mm').getByText('1/4', { exact: true }).waitFor();
    await page.getByLabel('Search by name').fill('foam');
    await expect.poll(() => row('Walnut, 6 mm').count()).toBe(0);
    await row('Foam board, 2 in').waitFor();
  });
  it('takes new ones, copies and removes them, and undoes each', async () => {
    await openShelf('Tools');
    await button('Add a tool').click();
    await row('New tool').waitFor();
    await typeIn('New tool', 'name', 'Weir drill');
    await row('Weir drill').waitFor();
    await button('Duplicate').click();
    await row('Weir drill, copy').waitFor();
    await button('Remove').click();
    await expect.poll(() => row('Weir drill, copy').count()).toBe(0);
    await button('Undo').click();
    await row('Weir drill, copy').waitFor();
    for (const [label, left] of [
      ['Undo: adding Weir drill, copy', 13],
      ['Undo: the change of New tool', 13],
      ['Undo: adding New tool', 12],
    ] as const) {
      await page.getByLabel(label, { exact: true }).waitFor();
      await button('Undo').click();
      await expect.poll(async () => (await shelf('tool')).length).toBe(left);
    }
    await page.getByLabel('There is nothing to undo.').waitFor();
    expect(await button('Undo').isDisabled()).toBe(true);
  });
  it('a CSV of 5,000 tools with ten faulty lines brings 4,990 in and lists ten; it comes back out, and is undone in one step', async () => {
    await openShelf('Tools');
    const lines = Array.from({ length: 5000 }, (_, k) => `Bulk ${k},end mill,${k % 500 === 7 ? 'wide' : '3.175'},2`);
    const text = ['name,kind,diameterMm,flutes', ...lines].join('\n');
    await page
      .getByLabel('Bring in CSV')
      .last()
      .setInputFiles({ name: 'tools.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
    await page.getByText(/4990 lines brought in, in [\d.]+ s; 10 could not be read\./).waitFor();
    await page.getByText(/^Line 9: diameterMm: /).waitFor();
    expect(await page.getByText(/^Line \d+: diameterMm: /).count()).toBe(10);
    expect(await shelf('tool')).toHaveLength(12 + 4990);
    const [download] = await Promise.all([page.waitForEvent('download') as Promise<Download>, button('Download CSV').click()]);
    const out = readFileSync((await download.path()) as string, 'utf8');
    expect(out.trim().split('\r\n')).toHaveLength(1 + 12 + 4990);
    await button('Undo').click();
    await expect.poll(async () => (await shelf('tool')).length).toBe(12);
  });
});

it('a material measured as 2.87 mm: slots follow, the kerf comes from the gauge, files for two machines come as one zip', async () => {
  const id = await jobOfOutlines('Weir gate', [{ name: 'Plate', paths: [boxPath(0, 0, 120, 80)] }]);
  const slot = { kind: 'slot', from: { x: 30, y: 40 }, to: { x: 90, y: 40 }, width: null, play: 0, ends: 'flat' };
  const drawn = { id: 'slot', name: 'Slot', purpose: 'cut', leftOut: false, source: { kind: 'figure', figure: slot }, live: [] };
  await json('POST', `/api/jobs/${id}/edits`, { base: 2, steps: [{ step: 'do', command: { do: 'draw', drawn } }] });
  const slotMm = async () => {
    const [plate] = piecesToMake(await jobOf(id));
    return heightOf(pathBox(plate?.holes[0] ?? boxPath(0, 0, 1, 1)));
  };
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await button('Open the shelf').click();
  await page.getByRole('dialog').or(page.getByLabel('Shelf')).first().waitFor();
  await button('Use Birch plywood, 3 mm').click();
  await expect.poll(slotMm).toBeCloseTo(3.1, 9);
  // What was taken at once is undone at once.
  const made = async () =>
    (({ stock, processes }) => [stock.name, stock.thicknessMm, processes[0]?.settings.kerfMm])((await jobOf(id)).making);
  await button('Undo').click();
  await expect.poll(made).toEqual([null, null, undefined]);
  await button('Redo').click();
  await expect.poll(made).toEqual(['Birch plywood, 3 mm', 3.1, 0.15]);
  await button('Open the shelf').click();
  await page.getByRole('tab', { name: 'Machines: laser' }).click();
  await button('Use Heron Lane laser').click();
  await expect.poll(async () => (await jobOf(id)).making.processes[0]?.machine.name).toBe('Heron Lane laser');

  // Measured anew at the shelf: the job says so, and takes it over by choice.
  await openShelf('Materials');
  await typeIn('Birch plywood, 3 mm', 'measuredMm', '2.87');
  await row('Birch plywood, 3 mm').getByText('2.87', { exact: true }).waitFor();
  await row('Birch plywood, 3 mm').getByText('Birch plywood, 3 mm').click();
  await page.getByRole('link', { name: 'Weir gate' }).waitFor();
  expect(await slotMm()).toBeCloseTo(3.1, 9);
  await page.getByRole('link', { name: 'Weir gate' }).click();
  await page.getByText(/The shelf has a newer Birch plywood, 3 mm: 2\.87 mm/).waitFor();
  await button('Take it over').click();
  await expect.poll(slotMm).toBeCloseTo(2.87, 9);
  await expect.poll(() => page.getByText(/The shelf has a newer/).count()).toBe(0);

  await button('Find the kerf with a gauge').click();
  await page.getByRole('combobox', { name: 'The tab just fits the slot with' }).click();
  await page.getByRole('option', { name: '3 ticks: 9.70 mm' }).click();
  await settled(page);
  await button('Put thickness, kerf and settings on the shelf').click();
  await page.getByText('Birch plywood, 3 mm is on the shelf.').waitFor();
  expect((await named('material', 'Birch plywood, 3 mm'))?.value).toMatchObject({
    measuredMm: 2.87,
    onMachines: [{ machine: 'Heron Lane laser', kerfMm: 0.15 }],
  });

  await button('Add a process').click();
  await button('Add Knife').click();
  await page.getByRole('combobox', { name: 'Machine' }).fill('Roll knife, 600 mm');
  await page.getByRole('combobox', { name: 'Machine' }).press('Enter');
  await expect.poll(async () => (await jobOf(id)).making.processes[1]?.machine.files).toEqual(['hpgl']);
  await button('Files').click();
  await page.getByText('Example: Weir-gate-cut.hpgl').waitFor();
  const [download] = await Promise.all([
    page.waitForEvent('download') as Promise<Download>,
    button('Download the sets of all processes as a zip').click(),
  ]);
  const files = unzipSync(readFileSync((await download.path()) as string));
  expect(Object.keys(files).sort()).toEqual([
    '1 Laser, Heron Lane laser/Weir-gate-cut.gcode',
    '1 Laser, Heron Lane laser/Weir-gate-outlines.dxf',
    '2 Knife, Roll knife, 600 mm/Weir-gate-cut.hpgl',
  ]);
  const text = (ending: string) => Buffer.from(Object.entries(files).find(([name]) => name.endsWith(ending))?.[1] ?? []).toString();
  // The laser's outlines are half a kerf out, and its slot half a kerf in; the knife's are as drawn.
  const heights = polylinesSeenByDxfParser(text('.dxf'))
    .map(({ vertices }) => spanOf(vertices.map(({ y }) => y)))
    .sort((a, b) => a - b);
  expect(heights[0]).toBeCloseTo(2.87 - 0.15, 3);
  expect(heights[1]).toBeCloseTo(80.15, 3);
  const sizes = (toolpaths: readonly { path: Parameters<typeof pathBox>[0] }[]) =>
    toolpaths.map(({ path }) => heightOf(pathBox(path))).sort((a, b) => a - b);
  expect(sizes(readGcode(text('.gcode')).toolpaths).map((mm) => mm.toFixed(2))).toEqual(['2.72', '80.15']);
  expect(Math.max(...sizes(readHpgl(text('.hpgl')).toolpaths))).toBeCloseTo(80, 1);
});

const spanOf = (values: readonly number[]): number => Math.max(...values) - Math.min(...values);
