/** The panels of correcting: corners, arranging, copies, joining, bands, what is shown; driven as a person would. */
import { type Drawn, drawnPieces, type Job, masterOf, type Piece } from '@nuvet/core/job';
import { distance, type Path, type Point, pathArea, pathBox, stepsOf } from '@nuvet/core/plane';
import { measured } from '@nuvet/core/shape';
import type { Page } from 'playwright-core';
import { beforeEach, expect, it } from 'vitest';
import { toScreen, wholeSheet } from '../../apps/web/src/table/view.ts';
import { settled } from './browser.ts';
import { drivenPage } from './driven-page.ts';
import { address, jobOf, json } from './server.ts';

let page: Page;
let id = '';
const errors = drivenPage((opened) => {
  page = opened;
});
beforeEach(async () => {
  const { body } = await json('POST', '/api/jobs', { name: 'Panels', pictureIds: [] });
  id = (body as { id: string }).id;
  await page.goto(`${address}/jobs/${id}`);
  await button('Draw without a picture').click();
  await table().waitFor();
});

const table = () => page.getByRole('application', { name: 'Light table' });
const button = (name: string | RegExp) => page.getByRole('button', { name, exact: typeof name === 'string' });
const drawnList = () => page.getByRole('list', { name: 'Drawn' }).getByRole('button');
const job = async (): Promise<Job> => jobOf(id);
const pieces = async (): Promise<Piece[]> => drawnPieces(await job());
const boxes = async () => (await pieces()).map(({ outer }) => pathBox(outer));

async function click(...places: readonly (readonly [number, number])[]): Promise<void> {
  const box = await table().boundingBox();
  if (!box) throw new Error('there is no light table');
  const view = wholeSheet({ minX: 0, minY: 0, maxX: 200, maxY: 150 }, { width: box.width, height: box.height });
  await page.keyboard.down('Alt');
  for (const [x, y] of places) {
    const at: Point = toScreen(view, { x, y });
    await page.mouse.click(box.x + at.x, box.y + at.y);
  }
  await page.keyboard.up('Alt');
}

async function drag(from: Point, to: Point): Promise<void> {
  const box = await table().boundingBox();
  if (!box) throw new Error('there is no light table');
  const view = wholeSheet({ minX: 0, minY: 0, maxX: 200, maxY: 150 }, { width: box.width, height: box.height });
  const [a, b] = [toScreen(view, from), toScreen(view, to)];
  await page.keyboard.down('Alt');
  await page.mouse.move(box.x + a.x, box.y + a.y);
  await page.mouse.down();
  await page.mouse.move(box.x + (a.x + b.x) / 2, box.y + (a.y + b.y) / 2);
  await page.mouse.move(box.x + b.x, box.y + b.y);
  await page.mouse.up();
  await page.keyboard.up('Alt');
}

async function type(label: string | RegExp, text: string): Promise<void> {
  const field = page.getByLabel(label, { exact: typeof label === 'string' }).last();
  await field.fill(text);
  await field.press('Enter');
}

/** A rectangle of exactly 60 x 40 mm about 70, 70. */
async function rectangle(): Promise<void> {
  await button('Rectangle').click();
  await click([40, 50], [100, 90]);
  await type('Width, mm', '60 mm');
  await type('Height, mm', '40 mm');
  // Saved, so that what is read of the job next is the rectangle as it was typed.
  const sides = async () => (await boxes()).map(({ minX, minY, maxX, maxY }) => [maxX - minX, maxY - minY].map((mm) => mm.toFixed(9)));
  await expect.poll(sides).toEqual([['60.000000000', '40.000000000']]);
}

it('corners are rounded live, the largest radius is said, and frozen they are plain', async () => {
  await rectangle();
  await button('Correct').click();
  await button('Corners').click();
  await page.getByText('The largest that fits all of them is 20.00 mm.').waitFor();
  await type('Radius, mm', '8 mm');
  await button('Round its corners, live').click();
  await expect.poll(async () => pathArea((await pieces())[0]?.outer as Piece['outer'])).toBeCloseTo(2400 - (4 - Math.PI) * 64, 6);
  await type('Size, mm', '5 mm');
  await expect.poll(async () => pathArea((await pieces())[0]?.outer as Piece['outer'])).toBeCloseTo(2400 - (4 - Math.PI) * 25, 6);
  await button('Convert to plain outlines').click();
  await expect.poll(async () => (await job()).drawn[0]?.live).toEqual([]);
  expect((await pieces())[0]?.outer.segments).toHaveLength(8);
  expect(errors).toEqual([]);
});

it('things are moved, turned, brought to a width, mirrored, copied in a grid and brought in line by figures', async () => {
  await rectangle();
  await button('Correct').click();
  await button('Arrange').click();
  const [before] = await boxes();
  await type('Right, mm', '12.5 mm');
  await button('Move').click();
  await expect.poll(async () => ((await boxes())[0]?.minX ?? 0) - (before?.minX ?? 0)).toBeCloseTo(12.5, 9);
  // Moved it is still told by its measures.
  expect((await job()).drawn[0]?.source.kind).toBe('figure');
  await button('Turn').click();
  await expect.poll(async () => ((await boxes())[0]?.maxX ?? 0) - ((await boxes())[0]?.minX ?? 0)).toBeCloseTo(40, 6);
  await type('To width, mm', '20 mm');
  await expect.poll(async () => ((await boxes())[0]?.maxY ?? 0) - ((await boxes())[0]?.minY ?? 0)).toBeCloseTo(30, 6);
  await button('Left to right').click();
  await type(/^Gap/, '4 mm');
  await button('Copy').click();
  await expect.poll(async () => (await boxes()).length).toBe(3);
  const copies = (await boxes()).map(({ minX }) => minX).sort((a, b) => a - b);
  expect((copies[1] ?? 0) - (copies[0] ?? 0)).toBeCloseTo(24, 6);
  await drawnList().nth(0).click();
  await drawnList()
    .nth(1)
    .click({ modifiers: ['Shift'] });
  await drawnList()
    .nth(2)
    .click({ modifiers: ['Shift'] });
  await button('Align').click();
  await expect.poll(async () => new Set((await boxes()).map(({ minX }) => minX.toFixed(6))).size).toBe(1);
  expect(errors).toEqual([]);
});

it('sides that nearly meet are listed, joined into one closed outline, and a line becomes a band', async () => {
  await button('Line').click();
  await click([40, 40], [120, 40], [120.8, 40.6], [120, 100], [119.4, 100.7], [40, 41.2]);
  await expect.poll(async () => (await pieces()).length).toBe(3);
  await button('Correct').click();
  await button('Join ends').click();
  await page.getByRole('heading', { name: '3 open lines' }).waitFor();
  await type(/^Maximum gap/, '0.2 mm');
  await button('No ends this close').waitFor();
  await type(/^Maximum gap/, '2 mm');
  await button('Join 3 pairs of ends').click();
  await expect.poll(async () => (await pieces()).map(({ outer }) => outer.closed)).toEqual([true]);
  await button('Draw').click();
  await button('Line').click();
  await click([20, 120], [80, 120]);
  await button('Correct').click();
  await button('Offset').click();
  await type('Total width, mm', '6 mm');
  await button('Thicken the line (stays live)').click();
  const areas = async () => (await pieces()).map(({ outer }) => pathArea(outer));
  await expect.poll(async () => Math.min(...(await areas()))).toBeLessThan(60.5 * 6 + Math.PI * 9);
  expect(Math.min(...(await areas()))).toBeGreaterThan(59.5 * 6 + Math.PI * 9);
  expect(errors).toEqual([]);
});

it('an end is led on to the next thing, a hole is cut out live, and both ways of looking can be chosen', async () => {
  await rectangle();
  await button('Circle').click();
  await click([70, 70], [78, 70]);
  await type('Radius, mm', '8 mm');
  await button('Line').click();
  await click([10, 70], [25, 70]);
  await button('Correct').click();
  await button('Trim').click();
  await page.keyboard.down('Shift');
  await click([24.5, 70]);
  await page.keyboard.up('Shift');
  await expect.poll(async () => Math.max(...(await pieces()).filter(({ outer }) => !outer.closed).map(({ outer }) => pathBox(outer).maxX))).toBeCloseTo(40, 0); // biome-ignore format: one line
  await button('Live').click();
  await drawnList().filter({ hasText: 'Rectangle' }).click();
  await drawnList()
    .filter({ hasText: 'Circle' })
    .click({ modifiers: ['Shift'] });
  await button('Subtract the others from Rectangle 1, live').click();
  await expect.poll(async () => (await pieces()).find(({ name }) => name === 'Rectangle 1')?.holes.length).toBe(1);
  expect(await pieces()).toHaveLength(2);
  await page.getByRole('combobox', { name: 'On the table' }).click();
  await page.getByRole('option', { name: 'outlines only' }).click();
  await page.getByRole('checkbox', { name: 'Curvature comb on the selected line' }).check();
  await settled(page);
  expect(errors).toEqual([]);
});

it('a length and an angle are kept while a corner is dragged; a gap follows the stock', async () => {
  await click([40, 40], [100, 42], [104, 90], [40, 88]);
  await button('Close it').click();
  await button('Correct').click();
  await drawnList().first().click();
  // The lower side: 80 mm from now on.
  await click([70, 41]);
  await button('Lock the length').click();
  await type('Length of segment 1, mm', '80 mm');
  const side = async (index: number): Promise<number> => {
    const drawn = (await job()).drawn[0];
    const [path] = drawn ? masterOf(drawn, (await job()).making.stock.thicknessMm).paths : [];
    const step = path && stepsOf(path)[index];
    return step ? distance(step.from, step.segment.to) : Number.NaN;
  };
  await expect.poll(() => side(0)).toBeCloseTo(80, 6);
  const before = (await job()).drawn[0];
  const [master] = before ? masterOf(before, null).paths : [];
  const corner = master?.segments[1]?.to as Point;
  await click([corner.x, corner.y]);
  await type('Angle, °', '90');
  await page.getByRole('list', { name: 'Locked dimensions' }).getByRole('listitem').nth(1).waitFor();
  await drag(corner, { x: corner.x + 14, y: corner.y + 9 });
  await expect.poll(async () => (await job()).drawn[0]?.source).not.toEqual(before?.source);
  expect(await side(0)).toBeCloseTo(80, 6);
  const [after] = masterOf((await job()).drawn[0] as Drawn, null).paths;
  expect(Math.abs(measured(after as Path, { kind: 'turn', point: 2, turn: 0 }))).toBeCloseTo(Math.PI / 2, 6);
  // Emptied, a measure follows the stock, of which nothing is known yet.
  const field = page.getByLabel('Length of segment 1, mm');
  await field.fill('');
  await field.press('Enter');
  await page.getByText(/thickness is not known yet/).waitFor();
  await page.getByRole('button', { name: 'Unlock: Angle at point 3' }).click();
  await expect.poll(async () => (await job()).drawn[0]?.held?.length).toBe(1);
  expect(errors).toEqual([]);
});

it('a bridge is seen before it is made, and a guide runs midway between two lines', async () => {
  await button('Line').click();
  await click([30, 40], [90, 40], [30, 80], [90, 80]);
  await page.getByRole('combobox', { name: 'Curve passes' }).click();
  await page.getByRole('option', { name: 'midway between two straight lines' }).click();
  await page.locator('.MuiPopover-root').waitFor({ state: 'detached' });
  await click([50, 40], [50, 80]);
  await expect.poll(async () => (await job()).drawn.length).toBe(3);
  const guide = (await boxes())[2];
  expect((await job()).drawn.map(({ purpose }) => purpose)).toEqual(['cut', 'cut', 'guide']);
  expect([guide?.minY, guide?.maxY]).toEqual([expect.closeTo(60, 0), expect.closeTo(60, 0)]);
  await button('Undo').click();
  await button('Correct').click();
  await button('Join ends').click();
  await type('Maximum gap, mm', '41 mm');
  await page.getByRole('combobox', { name: 'Join with' }).click();
  await page.getByRole('option', { name: 'by a smooth curve' }).click();
  await page.locator('.MuiPopover-root').waitFor({ state: 'detached' });
  const before = await table().screenshot();
  await page.getByRole('slider', { name: 'Handle length at the first end' }).fill('1.1');
  await expect.poll(async () => (await table().screenshot()).equals(before)).toBe(false);
  expect((await job()).drawn).toHaveLength(2);
  expect(errors).toEqual([]);
});

it('a figure that is half placed outlasts a reload', async () => {
  await button('Rectangle').click();
  await click([40, 50]);
  await page.goto(`${address}/jobs/${id}?stage=trace`);
  await table().waitFor();
  await expect.poll(() => page.getByText('Click two opposite corners.').isVisible()).toBe(true);
  await click([100, 90]);
  await expect.poll(async () => (await boxes()).length).toBe(1);
  const [box] = await boxes();
  expect([box?.minX, box?.maxY]).toEqual([expect.closeTo(40, 0), expect.closeTo(90, 0)]);
  // What is done is not taken up again.
  await page.reload();
  await table().waitFor();
  await settled(page);
  expect(await page.evaluate(() => sessionStorage.length)).toBe(0);
  expect(errors).toEqual([]);
});
