/** What a person leads the trace to: colours, a part of the picture, a way along an edge, relations, accepting. */
import { fitOf, type Job, type Picture, type Piece } from '@nuvet/core/job';
import { apply, type Path, type Box as PlaneBox, pathArea, pathBox, pathLength, stepsOf } from '@nuvet/core/plane';
import { withPointsMoved } from '@nuvet/core/shape';
import { badgeSheet, colourPngOf, deviationOf, plateScene, pngOf, type Scan, scanColours, scanScene, smoothScene } from '@nuvet/truth';
import type { Page } from 'playwright-core';
import { expect, it } from 'vitest';
import { placementOf, wholeSheet } from '../../apps/web/src/table/view.ts';
import { settled } from './browser.ts';
import { drivenPage } from './driven-page.ts';
import { address, jobOf, jobWith, json } from './server.ts';

let page: Page;
const errors = drivenPage((opened) => {
  page = opened;
});

const piecesOf = async (id: string): Promise<readonly Piece[]> => (await jobOf(id)).traces[0]?.pieces ?? [];
const table = () => page.getByRole('application', { name: 'Light table' });
const rows = () => page.getByRole('table', { name: 'Pieces' }).locator('tbody tr');

/** From the picture's pixels to the window, while the whole sheet is shown. */
async function windowPlaces(job: Job): Promise<(p: { x: number; y: number }) => { x: number; y: number }> {
  const box = await table().boundingBox();
  if (!box) throw new Error('there is no light table');
  const fit = fitOf(job.pictures[0] as Picture);
  const placement = placementOf(wholeSheet(fit.sheetBox, { width: box.width, height: box.height }), fit);
  return (p) => {
    const q = apply(placement, p);
    return { x: box.x + q.x, y: box.y + q.y };
  };
}

it('colours become pieces of several purposes; one is let go, one given another purpose', async () => {
  const { picture } = scanColours(badgeSheet, { dpi: 200, tiltDegrees: 1, seed: 3 });
  const { id } = await jobWith('Badge', await colourPngOf(picture, 200));
  await page.goto(`${address}/jobs/${id}?stage=trace`);
  await expect.poll(() => rows().count()).toBeGreaterThan(0);
  await page.getByRole('button', { name: 'By colour' }).click();
  await expect.poll(async () => (await piecesOf(id)).length).toBe(6);
  expect(new Set((await piecesOf(id)).map(({ colour }) => colour)).size).toBe(4);
  await settled(page);
  const meant = page.getByRole('group', { name: 'Colours to trace' });
  const amber = (await jobOf(id)).traces[0]?.settings.colours.find(({ hex }) => hex.startsWith('#e'))?.hex as string;
  await meant.getByRole('checkbox', { name: `${amber} ` }).click();
  await expect.poll(async () => (await piecesOf(id)).some(({ colour }) => colour === amber)).toBe(false);
  const [first] = (await jobOf(id)).traces[0]?.settings.colours ?? [];
  await meant.getByRole('combobox', { name: `Purpose of ${first?.hex}` }).click();
  await page.getByRole('option', { name: 'stitch' }).click();
  await expect
    .poll(async () => (await piecesOf(id)).filter(({ colour }) => colour === first?.hex).every(({ purpose }) => purpose === 'stitch'))
    .toBe(true);
  // Back to darkness: colours are let go.
  await page.getByRole('button', { name: 'Automatic' }).click();
  await expect.poll(async () => (await jobOf(id)).traces[0]?.settings.colours).toEqual([]);
  expect(errors).toEqual([]);
});

const scanned = (): Scan => scanScene(plateScene, { dpi: 150, tiltDegrees: 0, seed: 8 });

it('a way along the edge of a plate, closed at its start, is a piece like any other and outlasts a new trace', async () => {
  const scan = scanned();
  const { id } = await jobWith('Plate by hand', await pngOf(scan.picture, 150));
  await page.goto(`${address}/jobs/${id}?stage=trace`);
  await expect.poll(() => rows().count()).toBe(1);
  await settled(page);
  await page.getByRole('button', { name: 'Along the edge' }).click();
  const at = await windowPlaces(await jobOf(id));
  const clicks = [[60, 15], [105, 40], [70, 75], [15, 50], [60, 15]].map(([x, y]) => at(scan.at({ x: x as number, y: y as number }))); // biome-ignore format: one line
  for (const [k, { x, y }] of clicks.entries()) {
    await page.mouse.move(x, y, { steps: 5 });
    await page.mouse.click(x, y);
    const said =
      k === 0
        ? 'Move along the edge and click to set an anchor.'
        : k < 4
          ? `${k} ${k === 1 ? 'part' : 'parts'} held.`
          : 'Click where the outline begins.';
    await page.getByText(said).waitFor();
  }
  await expect.poll(async () => (await piecesOf(id)).length).toBe(2);
  const [found, led] = (await piecesOf(id)) as [Piece, Piece];
  expect(led).toMatchObject({ byHand: true, outer: { closed: true } });
  expect(deviationOf([led.outer], [found.outer]).worstMm).toBeLessThan(0.1);
  // A part is taken back with Backspace, and what is held is kept by Escape.
  await page.mouse.click((clicks[0] as { x: number }).x, (clicks[0] as { y: number }).y);
  await page.getByText('Move along the edge and click to set an anchor.').waitFor();
  for (const k of [1, 2] as const) {
    await page.mouse.click((clicks[k] as { x: number }).x, (clicks[k] as { y: number }).y);
    await page.getByText(`${k} ${k === 1 ? 'part' : 'parts'} held.`).waitFor();
  }
  await table().focus();
  await page.keyboard.press('Backspace');
  await page.getByText('1 part held.').waitFor();
  await page.keyboard.press('Escape');
  await expect.poll(async () => (await piecesOf(id)).length).toBe(3);
  const one = (await piecesOf(id)).at(-1) as Piece;
  expect(one.outer.closed).toBe(false);
  // Clicks as quick as can be, and the end at once: no part of them is lost.
  for (const { x, y } of clicks.slice(0, 3)) await page.mouse.click(x, y);
  await page.getByRole('button', { name: 'Finish open' }).click();
  await expect.poll(async () => (await piecesOf(id)).length).toBe(4);
  expect(pathLength((await piecesOf(id)).at(-1)?.outer as Path)).toBeGreaterThan(1.5 * pathLength(one.outer));
  await page.getByRole('button', { name: 'Retrace' }).click();
  await settled(page);
  expect((await piecesOf(id)).filter(({ byHand }) => byHand)).toHaveLength(3);
  expect(errors).toEqual([]);
});

it('of an outline that a hand has changed in part another tolerance fits the rest anew; the hand’s segments stay', async () => {
  const scan = scanScene(smoothScene, { dpi: 150, noise: 4, seed: 3 });
  const { id } = await jobWith('Changed in part', await pngOf(scan.picture, 150));
  await page.goto(`${address}/jobs/${id}?stage=trace`);
  await expect.poll(() => rows().count()).toBe(4);
  await settled(page);
  const before = (await piecesOf(id)).find((piece) => piece.outer.segments.length > 5) as Piece;
  const outer = withPointsMoved(before.outer, [2], { x: 1.5, y: 1 });
  const { revision } = (await json('GET', `/api/jobs/${id}`)).body as { revision: number };
  const command = { do: 'reshape', pieceId: before.id, outer, holes: before.holes };
  await json('POST', `/api/jobs/${id}/edits`, { base: revision, steps: [{ step: 'do', command }] });
  await page.reload();
  await settled(page);
  const now = async () => (await piecesOf(id)).find(({ edited }) => edited) as Piece;
  expect((await now()).touched?.[0]).toEqual([1, 2]);
  const tolerance = page.getByLabel('Tolerance').last();
  await tolerance.fill('1.5 mm');
  await tolerance.press('Enter');
  await expect.poll(async () => (await now()).outer.segments.length).toBeLessThan(outer.segments.length);
  const kept = await now();
  const [steps, was] = [stepsOf(kept.outer), stepsOf(outer)];
  const touched = kept.touched?.[0] ?? [];
  expect(touched.map((k) => steps[k]?.segment.to.x)).toEqual(
    [was[1]?.segment.to.x, was[2]?.segment.to.x].map((x) => expect.closeTo(x as number, 9)),
  );
  expect(pathArea(kept.outer) / pathArea(outer)).toBeCloseTo(1, 1);
  await settled(page);
  expect(errors).toEqual([]);
});

it('a box limits the trace; relations are found, one kind refused, the rest made exact; Enter goes on to prove', async () => {
  const scan = scanned();
  const { id } = await jobWith('Plate in part', await pngOf(scan.picture, 150));
  await page.goto(`${address}/jobs/${id}?stage=trace`);
  await expect.poll(() => rows().count()).toBe(1);
  await settled(page);
  await page.getByRole('button', { name: 'Look for level, parallel, equal …' }).click();
  const found = page.getByRole('group', { name: 'Relations found' });
  await found.getByRole('checkbox', { name: 'plumb' }).click();
  await found.getByRole('button', { name: 'Make exact' }).click();
  await page.getByText(/^\d+ relations hold exactly now\.$/).waitFor();
  await settled(page);
  const sides = stepsOf(((await piecesOf(id))[0] as Piece).outer).flatMap(({ from, segment }) =>
    segment.kind === 'line' ? [{ x: Math.abs(segment.to.x - from.x), y: Math.abs(segment.to.y - from.y) }] : [],
  );
  for (const { x, y } of sides) if (x > y) expect(y).toBeLessThan(1e-8);
  expect((await piecesOf(id))[0]?.edited).toBe(true);

  await page.getByRole('button', { name: 'Limit the area' }).click();
  const at = await windowPlaces(await jobOf(id));
  for (const corner of [
    { x: 10, y: 10 },
    { x: 60, y: 80 },
  ]) {
    const { x, y } = at(scan.at(corner)); // biome-ignore format: one line
    await page.mouse.click(x, y);
  }
  const boxNow = async (): Promise<PlaneBox> => pathBox(((await piecesOf(id))[0] as Piece).outer);
  await expect.poll(async () => (await boxNow()).maxX - (await boxNow()).minX).toBeLessThan(50);
  await page.getByRole('button', { name: 'Trace all again' }).click();
  await expect.poll(async () => Math.round((await boxNow()).maxX - (await boxNow()).minX)).toBe(90);
  expect(pathArea(((await piecesOf(id))[0] as Piece).outer)).toBeGreaterThan(5000);
  await settled(page);
  await table().focus();
  await page.keyboard.press('Enter');
  await page.waitForURL(/stage=prove/);
  expect(errors).toEqual([]);
});
