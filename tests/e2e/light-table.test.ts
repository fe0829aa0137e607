/** The light table and the trace stage as they are used: magnifier, dragging, nudging, sliders, leaving out. */
import { fitOf, type Job, type Mark, type Picture, type Piece } from '@nuvet/core/job';
import { apply } from '@nuvet/core/plane';
import { symmetriesOf } from '@nuvet/core/trace';
import { demoJobs, fullSheetScene, linesScene, plateScene, pngOf, type Scene, scanScene, smoothScene } from '@nuvet/truth';
import type { Page } from 'playwright-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { placementOf, wholeSheet } from '../../apps/web/src/table/view.ts';
import { settled } from './browser.ts';
import { drivenPage } from './driven-page.ts';
import { address, jobOf, jobWith, json } from './server.ts';

const scan = scanScene(demoJobs[3]?.scene as Scene, { dpi: 200, tiltDegrees: 1, seed: 13 });
let page: Page;
let id: string;
const errors = drivenPage((opened) => {
  page = opened;
});
const job = async (): Promise<Job> => jobOf(id);
const end = (mark: Mark | undefined) => mark?.points[1] ?? { x: Number.NaN, y: Number.NaN };
const table = () => page.getByRole('application', { name: 'Light table' });
beforeAll(async () => {
  ({ id } = await jobWith('Otter at the table', await pngOf(scan.picture, 200)));
});

describe('marks', () => {
  it('are made with two clicks and a magnifier, given up with Escape, dragged, and nudged by arrow keys', async () => {
    await page.goto(`${address}/jobs/${id}?stage=true-up`);
    await settled(page);
    const box = await table().boundingBox();
    if (!box) throw new Error('there is no light table');
    const click = (x: number, y: number) => page.mouse.click(box.x + box.width * x, box.y + box.height * y);
    await table().focus();
    await page.keyboard.press('p');
    await click(0.5, 0.3);
    await page.getByText('Click the other end.').waitFor();
    await page.keyboard.press('Escape');
    await page.getByText('Click one end of a line that must be upright.').waitFor();
    expect((await job()).pictures[0]?.marks).toEqual([]);
    await page.keyboard.press('Escape');

    await page.getByRole('button', { name: 'Distance', exact: true }).click();
    await page.mouse.move(box.x + box.width * 0.4, box.y + box.height * 0.5);
    await page.locator('canvas').nth(3).waitFor();
    await click(0.4, 0.5);
    await click(0.6, 0.5);
    await settled(page);
    const [made] = (await job()).pictures[0]?.marks ?? [];
    expect(made?.kind).toBe('check');

    await table().focus();
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('Shift+ArrowDown');
    await settled(page);
    const [nudged] = (await job()).pictures[0]?.marks ?? [];
    expect(end(nudged).x - end(made).x).toBeCloseTo(1, 6);
    expect(end(nudged).y - end(made).y).toBeCloseTo(0.1, 6);

    const picture = (await job()).pictures[0] as Picture;
    const placement = placementOf(wholeSheet(fitOf(picture).sheetBox, { width: box.width, height: box.height }), fitOf(picture));
    const from = apply(placement, end(nudged));
    await page.mouse.move(box.x + from.x, box.y + from.y);
    await page.mouse.down();
    await page.mouse.move(box.x + from.x + 40, box.y + from.y - 25, { steps: 6 });
    await page.mouse.up();
    await settled(page);
    const [dragged] = (await job()).pictures[0]?.marks ?? [];
    expect(end(dragged).x - end(nudged).x).toBeGreaterThan(20);
    expect(dragged?.points[0]).toEqual(made?.points[0]);
    await page.keyboard.press('Delete');
    await settled(page);
    expect((await job()).pictures[0]?.marks).toEqual([]);

    // And by keyboard alone: a level line of 30 screen pixels.
    await page.mouse.move(5, 5);
    await table().focus();
    await page.keyboard.press('l');
    await page.keyboard.press('Enter');
    for (let k = 0; k < 3; k++) await page.keyboard.press('ArrowRight');
    await page.keyboard.press('Enter');
    await settled(page);
    const [typed] = (await job()).pictures[0]?.marks ?? [];
    expect(typed?.kind).toBe('level');
    // Both ends may have gone to an edge nearby.
    const long = (end(typed).x - (typed?.points[0]?.x ?? 0)) * Math.hypot(placement.a, placement.b);
    expect(Math.abs(long - 30)).toBeLessThan(28);
    await page.keyboard.press('Control+z');
    await settled(page);
    expect(errors).toEqual([]);
  });
});

describe('the trace', () => {
  it('follows its settings, keeps what was left out, and fills files with the rest', async () => {
    await page.goto(`${address}/jobs/${id}?stage=trace`);
    const rows = page.getByRole('table', { name: 'Pieces' }).locator('tbody tr');
    await expect.poll(() => rows.count()).toBe(3);
    await settled(page);
    await page.getByRole('button', { name: 'Exclude Piece 2' }).click();
    await settled(page);
    const points = async () => Number(await rows.first().locator('td').nth(4).textContent());
    const before = await points();
    await page.getByLabel('Tolerance').last().fill('1 mm');
    await page.getByLabel('Tolerance').last().press('Enter');
    await expect.poll(points).toBeLessThan(before);
    await expect.poll(async () => (await job()).traces[0]?.settings.toleranceMm).toBe(1);
    expect((await job()).traces[0]?.pieces.map((p) => p.leftOut)).toEqual([false, true, false]);
    // A slider that comes back to where it was leaves the job, and what is shown, as they were.
    const [held, revision] = [await points(), async () => ((await json('GET', `/api/jobs/${id}`)).body as { revision: number }).revision];
    const unchanged = await revision();
    await page.getByLabel('Tolerance').first().focus();
    await page.keyboard.press('PageUp');
    await page.keyboard.press('PageDown');
    await page.waitForTimeout(1500);
    expect([await points(), await revision(), (await job()).traces[0]?.settings.toleranceMm]).toEqual([held, unchanged, 1]);
    await page.getByLabel('Threshold').focus();
    for (let k = 0; k < 5; k++) await page.keyboard.press('ArrowLeft');
    await expect.poll(async () => (await job()).traces[0]?.settings.threshold).toBeTypeOf('number');
    await page.getByRole('button', { name: /^Make ready/ }).click();
    await page.getByRole('button', { name: 'Files', exact: true }).click();
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'DXF: download' }).click()]);
    expect(download.suggestedFilename()).toBe('Otter-at-the-table-outlines.dxf');
    expect(errors).toEqual([]);
  });
  it('takes what is meant: middles with creases, one edge of a line, this one alone; and makes a piece exactly mirrored', async () => {
    const drawn = await jobWith('Lines', await pngOf(scanScene(linesScene, { dpi: 300, tiltDegrees: 0.8, seed: 6 }).picture, 300));
    const now = async () => jobOf(drawn.id);
    await page.goto(`${address}/jobs/${drawn.id}?stage=trace`);
    const rows = page.getByRole('table', { name: 'Pieces' }).locator('tbody tr');
    await expect.poll(() => rows.count()).toBeGreaterThan(0);
    await page.getByRole('button', { name: 'Middle of lines' }).click();
    await expect.poll(() => rows.count()).toBe(linesScene.middles.length);
    await expect.poll(async () => (await now()).traces[0]?.pieces.filter((p) => p.purpose === 'score').length).toBe(linesScene.dashed);
    expect((await now()).traces[0]?.pieces.every((p) => Math.abs((p.strokeMm ?? 0) - linesScene.penMm) < 0.03)).toBe(true);
    await page.getByRole('button', { name: 'Drawn line' }).click();
    await expect.poll(async () => (await now()).traces[0]?.settings.take).toBe('line-outer');
    await page.getByRole('button', { name: 'Inner edge' }).click();
    await expect.poll(async () => (await now()).traces[0]?.settings.take).toBe('line-inner');
    await page.getByRole('button', { name: 'Uneven light' }).click();
    await expect.poll(async () => (await now()).traces[0]?.settings.threshold).toBe('local');
    await settled(page);

    const plate = await jobWith('Plate', await pngOf(scanScene(plateScene, { dpi: 300, seed: 6 }).picture, 300));
    const plateNow = async () => await jobOf(plate.id);
    await page.goto(`${address}/jobs/${plate.id}?stage=trace`);
    await expect.poll(() => rows.count()).toBe(1);
    await settled(page);
    const box = await table().boundingBox();
    if (!box) throw new Error('there is no light table');
    // Accuracy: the worst place is named, and a tolerance chosen from the chart is taken.
    await page.getByText(/^At most 0\.\d+ mm from the picture’s edge, not counting soft corners, with \d+ points\.$/).waitFor();
    await page.getByRole('switch', { name: 'Colour by distance' }).click();
    await page.getByRole('button', { name: 'Compare tolerances' }).click();
    // Lines, arcs, circles and an ellipse are the same at any tolerance: there is one thing to choose.
    await page.getByRole('button', { name: /^Tolerance / }).waitFor();
    expect(await page.getByRole('button', { name: /^Tolerance / }).count()).toBe(1);
    await page.getByRole('button', { name: 'Pick pieces' }).click();
    // The oval lies in the sheet's middle.
    await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2);
    await expect.poll(async () => (await plateNow()).traces[0]?.pieces[0]?.holes.length).toBe(4);
    await page.getByRole('button', { name: 'Pick pieces' }).click();
    await rows.first().click();
    await page.getByRole('button', { name: 'Average' }).first().click();
    await page.getByText('exactly').first().waitFor();
    const [piece] = (await plateNow()).traces[0]?.pieces ?? [];
    const [mirror] = symmetriesOf(piece as Piece, 0.05);
    expect(mirror?.worst).toBeLessThan(1e-3);

    const smooth = await jobWith('Pebble and leaf', await pngOf(scanScene(smoothScene, { dpi: 300, seed: 6 }).picture, 300));
    await page.goto(`${address}/jobs/${smooth.id}?stage=trace`);
    await expect.poll(() => rows.count()).toBe(4);
    await settled(page);
    await page.getByRole('button', { name: 'Compare tolerances' }).click();
    await page.getByRole('button', { name: /^Tolerance 0\.5 mm: / }).click();
    const wanted = async () => (await jobOf(smooth.id)).traces[0]?.settings.toleranceMm;
    await expect.poll(wanted).toBe(0.5);
    expect(errors).toEqual([]);
  });
  it('of a 35-megapixel sheet of 150 shapes finds every one, and the picture is drawn from its finest tiles close by', async () => {
    const sheet = scanScene(fullSheetScene(), { dpi: 600, tiltDegrees: 0.5, seed: 2 });
    const large = await jobWith('Full sheet', await pngOf(sheet.picture, 600));
    const levels = new Set<string>();
    page.on('request', (request) => {
      const level = /tiles\/(\d+)\//.exec(request.url())?.[1];
      if (level) levels.add(level);
    });
    await page.goto(`${address}/jobs/${large.id}?stage=trace`);
    await page.getByText('150 pieces').first().waitFor();
    expect(levels.has('0')).toBe(false);
    // Rows of the list are painted once they come into sight.
    const last = page.getByRole('table', { name: 'Pieces' }).locator('tbody tr').last().locator('td').first(); // biome-ignore format: one line
    const isPainted = () => last.evaluate((cell) => cell.checkVisibility({ contentVisibilityAuto: true }));
    expect(await isPainted()).toBe(false);
    await last.scrollIntoViewIfNeeded();
    await expect.poll(isPainted).toBe(true);
    // A slider's move shows a first look, then the finished outlines; taking them in draws nothing again.
    await settled(page);
    await page.evaluate(() => performance.clearMarks());
    await page.getByLabel('Tolerance').first().focus();
    await page.keyboard.press('PageUp');
    const tolerance = async () => (await jobOf(large.id)).traces[0]?.settings.toleranceMm;
    await expect.poll(tolerance).toBeGreaterThan(0.1);
    await settled(page);
    expect(await page.evaluate(() => performance.getEntriesByName('outlines painted').length)).toBe(2);
    const box = await table().boundingBox();
    if (!box) throw new Error('there is no light table');
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    for (let k = 0; k < 8; k++) await page.mouse.wheel(0, -400);
    await expect.poll(() => levels.has('0')).toBe(true);
    expect(errors).toEqual([]);
  });
});
