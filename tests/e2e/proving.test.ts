/** Proving a job as a person at the bench would: findings mended by their buttons, sizes pinned, bridges dragged, a proof sheet. */
import { readFileSync } from 'node:fs';
import { circlePath, type Path, type Point, reversedPath } from '@nuvet/core/plane';
import { PDFDocument } from 'pdf-lib';
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
const p = (x: number, y: number): Point => ({ x, y });
const line = (x0: number, y0: number, x1: number, y1: number): Path => ({
  start: p(x0, y0),
  segments: [{ kind: 'line', to: p(x1, y1) }],
  closed: false,
});

async function inWindow(of: { minX: number; minY: number; maxX: number; maxY: number }, at: Point): Promise<Point> {
  const frame = await page.getByRole('application', { name: 'Light table' }).boundingBox();
  if (!frame) throw new Error('there is no light table');
  const q = toScreen(wholeSheet(of, { width: frame.width, height: frame.height }), at);
  return { x: frame.x + q.x, y: frame.y + q.y };
}

it('each finding says what and where, a click goes there, a button mends it, and the verdict stands at the top', async () => {
  const id = await jobOfOutlines('Weir gate', [
    { name: 'Gate', paths: [boxPath(0, 0, 120, 80), reversedPath(circlePath(p(60, 40), 20))] },
    { name: 'Hub', paths: [circlePath(p(60, 40), 12)] },
    { name: 'Twin', paths: [boxPath(120, 10, 40, 30)] },
    { name: 'Fold', paths: [line(10, 70, 50, 70)] },
  ]);
  await page.goto(`${address}/jobs/${id}?stage=prove`);
  await page.getByRole('button', { name: /^Prove: 1 to mend, 2 to look at/ }).waitFor();
  await page.getByText('Fold is an open line with no purpose set.').waitFor();
  await button('A crease').click();
  await page.getByText('Hub lies loose in a hole of Gate and would drop out.').waitFor();
  await button(/^Go to: Gate and Twin share 30 mm/).click();
  await button('Cut it once').click();
  await page.getByRole('button', { name: /^Prove: 1 to look at/ }).waitFor();
  await button('Bridge it').click();
  await page.getByText('nothing would spoil the cut').waitFor();
  await page.getByRole('button', { name: /^Prove: no problems/ }).waitFor();
  await settled(page);
  const { proof, drawn } = await jobOf(id);
  expect(proof.bridges.length).toBe(2);
  expect(drawn.find((d) => d.name === 'Fold')?.purpose).toBe('score');
  // Undo takes each back again.
  await button('Undo').click();
  await page.getByText('Hub lies loose in a hole of Gate and would drop out.').waitFor();
  await button('Let it drop out').click();
  await page.getByText('nothing would spoil the cut').waitFor();
  await page.getByText('1: show again').click();
  await button('Bridge it').waitFor();
});

it('a bridge is dragged along its outlines, and all are made as wide as is typed', async () => {
  const id = await jobOfOutlines('Ring', [
    { name: 'Plate', paths: [boxPath(0, 0, 100, 80), reversedPath(circlePath(p(50, 40), 30))] },
    { name: 'Boss', paths: [circlePath(p(50, 40), 18)] },
  ]);
  await page.goto(`${address}/jobs/${id}?stage=prove`);
  await button('Bridge it').click();
  await settled(page);
  const [before] = (await jobOf(id)).proof.bridges;
  if (!before) throw new Error('no bridge');
  const sheet = { minX: 0, minY: 0, maxX: 100, maxY: 80 };
  const from = await inWindow(sheet, before.from);
  // Round the boss by a right angle.
  const turned = p(50 - (before.from.y - 40), 40 + (before.from.x - 50));
  const to = await inWindow(sheet, turned);
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move((from.x + to.x) / 2, (from.y + to.y) / 2, { steps: 4 });
  await page.mouse.move(to.x, to.y, { steps: 4 });
  await page.mouse.up();
  await expect
    .poll(async () =>
      Math.hypot(
        ((await jobOf(id)).proof.bridges[0]?.from.x ?? 0) - turned.x,
        ((await jobOf(id)).proof.bridges[0]?.from.y ?? 0) - turned.y,
      ),
    )
    .toBeLessThan(0.8);
  const moved = (await jobOf(id)).proof.bridges[0];
  // It stays on the boss.
  expect(Math.hypot((moved?.from.x ?? 0) - 50, (moved?.from.y ?? 0) - 40)).toBeCloseTo(18, 3);
  await page.getByLabel(/^Width of all bridges/).fill('2.5');
  await page.getByLabel(/^Width of all bridges/).press('Enter');
  await expect.poll(async () => (await jobOf(id)).proof.bridges.map((h) => h.widthMm)).toEqual([2.5, 2.5]);
});

it('a size that must come out is pinned by two clicks, typed, told when it is off, and holds once it is right', async () => {
  const id = await jobOfOutlines('Shelf', [{ name: 'Board', paths: [boxPath(0, 0, 138.4, 63.5)] }]);
  await page.goto(`${address}/jobs/${id}?stage=prove`);
  await page.getByText('nothing would spoil the cut').waitFor();
  await button('Required size').click();
  const sheet = { minX: 0, minY: 0, maxX: 138.4, maxY: 63.5 };
  for (const at of [p(0, 0), p(138.4, 0)]) {
    const q = await inWindow(sheet, at);
    await page.mouse.move(q.x, q.y);
    await page.mouse.click(q.x, q.y);
  }
  const size = page.getByRole('group', { name: 'Size 1' });
  await size.getByText('138.40 mm').waitFor();
  await size.getByLabel('Must be').fill('138.1');
  await size.getByLabel('Must be').press('Enter');
  await size.getByLabel('Tolerance ±').fill('0.2');
  await size.getByLabel('Tolerance ±').press('Enter');
  await page.getByText('“Size 1” is 138.40 mm and must be 138.10 mm ± 0.20 mm: 0.30 mm too large.').waitFor();
  await page.getByRole('button', { name: /^Prove: 1 to mend/ }).waitFor();
  expect(await button('Next: make ready').isEnabled()).toBe(false);
  await size.getByLabel('Tolerance ±').fill('0.3');
  await size.getByLabel('Tolerance ±').press('Enter');
  await page.getByText('nothing would spoil the cut').waitFor();
  await button('Required overall').click();
  await page.getByRole('group', { name: 'Overall height' }).getByText('63.50 mm').waitFor();
});

it('stock that is too small is told; the proof sheet is one page that names the job, its pieces and what was found', async () => {
  const id = await jobOfOutlines('Mill sign', [
    { name: 'Sign', paths: [boxPath(0, 0, 500, 200)] },
    { name: 'Sliver', paths: [boxPath(0, 210, 60, 0.1)] },
  ]);
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await page.getByLabel('Sheet width').fill('400');
  await page.getByLabel('Sheet width').press('Enter');
  await page.getByLabel('Sheet height').fill('300');
  await page.getByLabel('Sheet height').press('Enter');
  await button('Prove').click();
  await page.getByText('Sign is larger than the stock of 400 mm x 300 mm.').waitFor();
  await button('Exclude it').click();
  await settled(page);
  const [download] = await Promise.all([page.waitForEvent('download') as Promise<Download>, button('Proof sheet').click()]);
  expect(download.suggestedFilename()).toBe('Mill-sign-proof.pdf');
  const pdf = await PDFDocument.load(readFileSync((await download.path()) as string));
  expect(pdf.getPageCount()).toBe(1);
  expect(pdf.getTitle()).toBe('Proof: Mill sign');
  const { getDocument, VerbosityLevel } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const opened = await getDocument({
    data: new Uint8Array(readFileSync((await download.path()) as string)),
    verbosity: VerbosityLevel.ERRORS,
    isEvalSupported: false,
  }).promise;
  const text = (await (await opened.getPage(1)).getTextContent()).items.map((item) => ('str' in item ? item.str : '')).join(' ');
  await opened.loadingTask.destroy();
  for (const said of ['Mill sign', 'Sign', '500.00 x 200.00', '1400.0', '1000.00', 'larger than the stock']) expect(text).toContain(said);
});
