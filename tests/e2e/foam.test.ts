/** A body of foam as a new user would: two views, boards as they measure, a shell, and formers to cut. */
import { readFileSync } from 'node:fs';
import { circlePath, transformedPath } from '@nuvet/core/plane';
import type { ShelfItem } from '@nuvet/core/shelf';
import type { Download, Page } from 'playwright-core';
import { expect, it } from 'vitest';
import { settled } from './browser.ts';
import { drivenPage } from './driven-page.ts';
import { address, boxPath, jobOf, jobOfOutlines, json } from './server.ts';

let page: Page;
drivenPage((opened) => {
  page = opened;
});

const button = (name: string | RegExp) => page.getByRole('button', { name, exact: true });
const reading = (name: string) => page.getByText(name, { exact: true }).locator('xpath=following-sibling::*');
const panel = (name: string) => page.getByRole('group', { name: 'Foam' }).getByRole('button', { name, exact: true });
const typed = async (label: RegExp, value: string): Promise<void> => {
  const field = page.getByRole('textbox', { name: label }).first();
  await field.fill(value);
  await field.press('Enter');
};
/** The starter of boards of foam, as the shelf has it. */
async function foamBoard(): Promise<ShelfItem<'material'>> {
  const { body } = await json('GET', '/api/shelf');
  return (body as ShelfItem<'material'>[]).find(({ value: { name } }) => name === 'Foam board, 2 in') as ShelfItem<'material'>;
}
const view = (a: number, b: number, y: number) => transformedPath(circlePath({ x: 0, y: 0 }, 1), { a, b: 0, c: 0, d: b, e: 320, f: y });

it('two views become formers as thick as the boards measure; a shell, and a list to cut by', async () => {
  const id = await jobOfOutlines('Reed float', [
    { name: 'Side', paths: [view(300, 50, 60)] },
    { name: 'Above', paths: [view(306, 70, 240)] },
    { name: 'Front', paths: [boxPath(400, 400, 117, 75)] },
  ]);
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await button('Add a process').click();
  await button('Add Foam').click();
  await page.getByText('What it measures').waitFor();
  // The longer one was taken for the side: say which is which.
  await page.getByRole('combobox', { name: 'From the side' }).click();
  await page.getByRole('option', { name: 'Side', exact: true }).click();
  await expect.poll(() => reading('Long').textContent()).toMatch(/600/);
  await page.getByText(/The view from above is drawn .*12/).waitFor();
  await panel('Formers').click();
  await button('Add boards').click();
  await typed(/^Board 1/, '58');
  await page.getByRole('img', { name: 'All formers, from the nose aft' }).waitFor();
  await expect.poll(() => reading('Largest step to sand').textContent()).toMatch(/mm/);
  await typed(/^Shell at least/, '15');
  await typed(/^Layers 1/, '21');
  await page.getByRole('alert').getByText('At most 20.').waitFor();
  await typed(/^Layers 1/, '1');
  await settled(page);
  const { settings } = (await jobOf(id)).making.processes.find(({ process }) => process === 'foam') ?? {};
  expect(settings).toMatchObject({ sideId: 'd0', boards: [{ thicknessMm: 58, count: null }], shellMm: 15 });
  // How thin is thin enough: a click on the chart takes that many slices.
  await page.getByRole('button', { name: /^12 slices of 50/ }).click();
  await settled(page);
  expect((await jobOf(id)).making.processes.find(({ process }) => process === 'foam')?.settings).toMatchObject({
    boards: [{ thicknessMm: 50, count: null }],
  });
  await typed(/^Board 1/, '58');
  // A section is drawn: a point beside its widest place dragged in, and the body holds less.
  await panel('Body').click();
  const holds = async () => Number.parseFloat((await reading('Holds').textContent()) ?? '');
  await expect.poll(holds).toBeGreaterThan(1);
  const before = await holds();
  await panel('Sections').click();
  await button('Add a section').click();
  const point = page.getByRole('button', { name: 'Point 3', exact: true });
  await point.waitFor();
  await settled(page);
  const box = await point.boundingBox();
  if (!box) throw new Error('the point is not to be seen');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x - 120, box.y + box.height / 2, { steps: 4 });
  await page.mouse.up();
  await settled(page);
  await panel('Body').click();
  await expect.poll(holds).toBeLessThan(before * 0.98);
  await panel('Sections').click();
  await button('Remove section 1').click();
  await settled(page);
  // A view from the front is a view of its own: an outline of another shape, another size, and both are said.
  await panel('Body').click();
  const byRule = await holds();
  await page.getByRole('combobox', { name: 'From the front' }).click();
  await page.getByRole('option', { name: 'Front', exact: true }).click();
  await page.getByText(/view from the front is drawn 20.* narrower and 25.* lower/).waitFor();
  await expect.poll(holds).toBeGreaterThan(byRule * 1.2);
  await page.getByRole('combobox', { name: 'From the front' }).click();
  await page.getByRole('option', { name: /None: sections by rule/ }).click();
  await settled(page);
  // Laid out on the sheets that the shelf has of this foam; what is left of them is kept there, and taken back by Undo.
  await panel('Sheets').click();
  await button('Lay out on its sheets').click();
  await settled(page);
  expect((await jobOf(id)).making.processes.find(({ process }) => process === 'foam')?.settings).toMatchObject({
    sheets: [{ widthMm: 1250, heightMm: 600, boardMm: 58, count: 4 }],
  });
  await page.getByText(/^1 sheet, \d+ % used$/).waitFor();
  await button('Keep the leftover').click();
  await page.getByText(/Foam board, 2 in: sheets counted down/).waitFor();
  expect((await foamBoard()).value).toMatchObject({
    sheets: [{ widthMm: 1250, heightMm: 600, count: 3 }],
    leftovers: [{ name: 'Reed float, leftover 1' }],
  });
  await button('Undo').last().click();
  await expect.poll(async () => (await foamBoard()).value.leftovers.length).toBe(0);
  // Formers are sent to the wire, one block after another; each is measured before the next one is asked for.
  await panel('Wire').click();
  await page.getByRole('img', { name: /^Former 1 in its block/ }).waitFor();
  await page.getByRole('combobox', { name: 'Runs' }).click();
  await page.getByRole('option', { name: /1,?000 times/ }).click();
  await button('Cut').click();
  for (const former of [1, 2]) {
    await page.getByText(`Put in: foam for former ${former + 1}, 58`).waitFor();
    await expect.poll(() => reading(`Former ${former}`).textContent()).toMatch(/mm/);
    expect(Number.parseFloat((await reading(`Former ${former}`).textContent()) ?? '')).toBeLessThan(0.05);
    if (former === 1) await button('It is in').click();
  }
  await button('Stop').click();
  await panel('In space').click();
  await page
    .getByRole('img', { name: /body in space/ })
    .locator('canvas')
    .waitFor();
  await panel('Files').click();
  const [download] = await Promise.all([page.waitForEvent('download') as Promise<Download>, button('Cut list: download').click()]);
  const rows = readFileSync((await download.path()) as string, 'utf8')
    .trim()
    .split(/\r\n/);
  expect(rows.length).toBe(1 + 11);
  expect(rows[1]).toMatch(/^1,58\.000,0\.000,58\.000/);
});
