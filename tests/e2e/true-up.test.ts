/** Pictures brought in every way and trued up by marks, each then measured with the interface's own tool. */
import { readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathData } from '@nuvet/core/formats';
import { fitOf, type Job, type Picture, sheetBoxOf } from '@nuvet/core/job';
import { type Point, project } from '@nuvet/core/plane';
import { type GreyPicture, greyPicture } from '@nuvet/core/raster';
import { jpegOf, onScaleCard, type Photo, photographScene, plateScene, pngOf, scanScene } from '@nuvet/truth';
import { PDFDocument } from 'pdf-lib';
import type { Page } from 'playwright-core';
import { describe, expect, it } from 'vitest';
import { clickInPicture, dropFile, measured } from './bench-hand.ts';
import { settled } from './browser.ts';
import { drivenPage } from './driven-page.ts';
import { address, jobOf, jobWithFile } from './server.ts';

let page: Page;
const errors = drivenPage((opened) => {
  page = opened;
});

const job = async (): Promise<Job> => {
  const id = /jobs\/([0-9a-f-]+)/.exec(page.url())?.[1];
  return jobOf(id as string);
};
const pictureNow = async (k = 0): Promise<Picture> => (await job()).pictures[k] as Picture;

/** A job of a picture, open where it is trued up. Dropping one on the list of jobs is driven in other files. */
async function newJob(name: string, bytes: Buffer): Promise<void> {
  const { id } = await jobWithFile(name, bytes);
  await page.goto(`${address}/jobs/${id}?stage=true-up`);
  await page.getByRole('application', { name: 'Light table' }).waitFor();
  await settled(page);
}

/** Drops a file on the list of jobs and waits for its job. */
async function dropped(name: string, bytes: Buffer): Promise<void> {
  await page.goto(address);
  await dropFile(page, name, '', bytes);
  await page.waitForURL(/\/jobs\/[0-9a-f-]+/);
  await page.getByRole('application', { name: 'Light table' }).waitFor();
  await settled(page);
}

/** Takes a tool from the tray, clicks its places in the picture, types what is stated. */
async function mark(word: string, places: readonly Point[], stated: Record<string, string> = {}, k = 0): Promise<void> {
  const state = await job();
  const fit = fitOf(state.pictures[k] as Picture);
  await page.getByRole('button', { name: word, exact: true }).click();
  for (const p of places) await clickInPicture(page, fit, p, sheetBoxOf(state));
  for (const [label, text] of Object.entries(stated)) {
    const field = page.getByLabel(label, { exact: true }).last();
    await field.waitFor();
    await field.fill(text);
    await field.press('Enter');
  }
  await settled(page);
}

/** The plate's width, measured on the sheet. */
async function plateWidth(at: (p: Point) => Point, k = 0): Promise<number> {
  const state = await job();
  const fit = fitOf(state.pictures[k] as Picture);
  const onSheet = (p: Point) => project(fit.projection, at(p));
  return measured(page, sheetBoxOf(state), onSheet({ x: 15, y: 45 }), onSheet({ x: 105, y: 45 }));
}

const [left, right, low, high] = [{ x: 15, y: 45 }, { x: 105, y: 45 }, { x: 60, y: 15 }, { x: 60, y: 75 }]; // biome-ignore format: the plate's sides

describe('pictures', () => {
  it('from a phone, on its side by its orientation: stands upright, is brought to size, measures right', async () => {
    const scan = scanScene(plateScene, { dpi: 250, seed: 3 });
    await newJob('phone.jpg', await jpegOf(onItsSide(scan.picture), 72, 6));
    const picture = await pictureNow();
    expect([picture.widthPx, picture.heightPx]).toEqual([scan.picture.width, scan.picture.height]);
    expect(picture.resolution).toMatchObject({ dpi: 72, trusted: false });
    await page.getByText('size not known yet').waitFor();
    await mark('Known length', [left, right].map(scan.at), { 'Its true length': '9 cm' });
    await page.getByText(/The whole picture comes out 12\.\d cm wide: /).waitFor();
    expect(Math.abs((await measured(page, fitOf(await pictureNow()).sheetBox, ...tall(await pictureNow(), scan.at))) - 60)).toBeLessThan(
      0.15,
    );
  });

  it('two of one object, of different fineness, come to one scale and can lie datum on datum', async () => {
    const [front, back] = [scanScene(plateScene, { dpi: 200, seed: 4 }), scanScene(plateScene, { dpi: 130, tiltDegrees: 2, seed: 5 })];
    await newJob('front.png', await pngOf(front.picture, null));
    await mark('Known length', [left, right].map(front.at), { 'Its true length': '90 mm' });
    await dropFile(page, 'back.png', 'image/png', await pngOf(back.picture, null));
    await page.getByText('2 pictures').first().waitFor();
    await settled(page);
    await page.getByRole('button', { name: /^True up/ }).click();
    await settled(page);
    await mark('Known length', [low, high].map(back.at), { 'Its true length': '60 mm' }, 1);
    expect(Math.abs((await plateWidth(back.at, 1)) - 90)).toBeLessThan(0.3);
    await page.getByRole('button', { name: /^Bring in/ }).click();
    await page.getByRole('button', { name: 'Lock: front.png' }).click();
    await page.getByRole('button', { name: 'Align datums' }).click();
    await settled(page);
    // The locked one can be chosen from the list, and neither moved nor marked.
    await page.getByRole('button', { name: 'front.png', exact: true }).click();
    expect(await page.getByRole('button', { name: 'Move', exact: true }).isDisabled()).toBe(true);
    await page.getByRole('button', { name: 'back.png', exact: true }).click();
    expect(await page.getByRole('button', { name: 'Move', exact: true }).isDisabled()).toBe(false);
    await page.getByRole('button', { name: 'Hide: back.png (H)' }).click();
    await settled(page);
    expect((await job()).pictures.map((p) => [p.hidden, p.locked, p.place])).toEqual([
      [false, true, { x: 0, y: 0 }],
      [true, false, { x: 0, y: 0 }],
    ]);
    expect(errors).toEqual([]);
  });

  it('pasted from the clipboard: starts a job, states its size by its resolution, measures right', async () => {
    const scan = scanScene(plateScene, { dpi: 200, seed: 6 });
    await page.goto(address);
    await page.waitForLoadState('networkidle');
    await page.evaluate(
      async (base64) => {
        const data = new DataTransfer();
        const bytes = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
        data.items.add(new File([bytes], 'clip.png', { type: 'image/png' }));
        window.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
      },
      (await pngOf(scan.picture, 200)).toString('base64'),
    );
    await page.waitForURL(/\/jobs\/[0-9a-f-]+/);
    await settled(page);
    expect((await pictureNow()).name).toBe('clip.png');
    expect(Math.abs((await plateWidth(scan.at)) - 90)).toBeLessThan(0.3);
  });
});

describe('marks', () => {
  it('a wrong unit is found among three lengths, set aside, and mended with one click', async () => {
    const scan = scanScene(plateScene, { dpi: 200, seed: 7 });
    await newJob('units.png', await pngOf(scan.picture, null));
    await mark('Known length', [left, right].map(scan.at), { 'Its true length': '90 mm' });
    await mark('Known length', [low, high].map(scan.at), { 'Its true length': '6' });
    await page.getByText(/“6” and the other mark contradict each other. This one would agree if it were centimetres/).waitFor();
    await page
      .getByText(/marks disagree/)
      .first()
      .waitFor();
    await page.getByRole('button', { name: 'Make it 6 cm' }).click();
    await expect.poll(() => page.getByText(/contradict each other/).count()).toBe(0);
    await settled(page);
    expect((await pictureNow()).marks[1]?.stated).toEqual([{ text: '6 cm', value: 60 }]);
    expect(Math.abs((await plateWidth(scan.at)) - 90)).toBeLessThan(0.3);
  });

  it('a photograph with a frame: perspective is recommended, it is laid flat, measures right, and is traced flat', async () => {
    const photo = photographScene(
      { ...plateScene, widthMm: 180, heightMm: 130 },
      { widthPx: 1800, heightPx: 1400, tiltDegrees: 24, seed: 9 },
    );
    await newJob('angle.jpg', await jpegOf(photo.picture, 72));
    const corners = [{ x: 0, y: 130 }, { x: 180, y: 130 }, { x: 180, y: 0 }, { x: 0, y: 0 }]; // biome-ignore format: corners
    await mark('Frame', corners.map(photo.at), { 'Its true width': '18 cm', 'Its true height': '13 cm' });
    await page.getByText('recommended: perspective').waitFor();
    await page.getByText('Show the photograph as taken').waitFor();
    await settled(page);
    expect(Math.abs((await plateWidth(photo.at)) - 90)).toBeLessThan(0.4);
    await page.getByRole('button', { name: 'Next: trace' }).click();
    const rows = page.getByRole('table', { name: 'Pieces' }).locator('tbody tr');
    await expect.poll(() => rows.count()).toBeGreaterThan(0);
    await settled(page);
    const widths = (await rows.locator('td:nth-child(2)').allTextContents()).map(Number);
    expect(Math.min(...widths.map((w) => Math.abs(w - 90)))).toBeLessThan(0.3);
    expect(errors).toEqual([]);
  });

  it('a photograph with the scale card is trued up without a click, and measures right', async () => {
    const photo: Photo = photographScene(onScaleCard(plateScene, { x: 45, y: 100 }), {
      widthPx: 1700,
      heightPx: 2300,
      tiltDegrees: 26,
      turnDegrees: 6,
      seed: 4,
    });
    await newJob('card.jpg', await jpegOf(photo.picture, 72));
    await page.getByLabel('Its check line measures').waitFor();
    await page.getByText('Show the photograph as taken').waitFor();
    await settled(page);
    const onCard = (p: Point) => photo.at({ x: p.x + 45, y: p.y + 100 });
    expect(Math.abs((await plateWidth(onCard)) - 90) / 90).toBeLessThan(0.006);
    expect(errors).toEqual([]);
  });

  it('suggestions: a crooked scan is straightened by one click, and undone as one step', async () => {
    const scan = scanScene(plateScene, { dpi: 150, tiltDegrees: 1.7, seed: 12 });
    await newJob('crooked.png', await pngOf(scan.picture, 150));
    await page.getByRole('button', { name: /^Turn by −1\.[67]\d°$/ }).click();
    await expect.poll(() => page.getByText(/^−1\.[67]\d°$/).count()).toBeGreaterThan(0);
    await settled(page);
    expect((await pictureNow()).marks).toHaveLength(1);
    await page.keyboard.press('Control+z');
    await settled(page);
    expect((await pictureNow()).marks).toEqual([]);
  });

  it('a mark can be typed: its places in pixels, to a hundredth', async () => {
    const scan = scanScene(plateScene, { dpi: 150, seed: 15 });
    await newJob('typed.png', await pngOf(scan.picture, 150));
    await mark('Known length', [left, right].map(scan.at), { 'Its true length': '90 mm' });
    await page.getByLabel('Its true length').focus();
    const field = page.getByLabel('Point 2, x, px');
    await field.fill('123.45');
    await field.press('Enter');
    await expect.poll(async () => (await pictureNow()).marks[0]?.points[1]?.x).toBe(123.45);
    await field.fill('twelve');
    await field.press('Enter');
    await page.getByRole('alert').filter({ hasText: 'A number is needed.' }).waitFor();
    expect((await pictureNow()).marks[0]?.points[1]?.x).toBe(123.45);
    expect(errors).toEqual([]);
  });

  it('three corners of a frame in one line are refused with a word, and nothing is lost', async () => {
    const scan = scanScene(plateScene, { dpi: 150, seed: 14 });
    await newJob('line.png', await pngOf(scan.picture, 150));
    await mark('Known length', [left, right].map(scan.at), { 'Its true length': '90 mm' });
    // On blank paper, where nothing is snapped to.
    const places = [{ x: 4, y: 5 }, { x: 60, y: 5 }, { x: 116, y: 5 }, { x: 60, y: 86 }]; // biome-ignore format: three in line
    await mark('Frame', places.map(scan.at));
    await page.getByText('Three corners of the frame lie in one line.').waitFor();
    expect((await pictureNow()).marks.map((m) => m.kind)).toEqual(['known-length']);
  });
});

describe('documents', () => {
  it('one page of a PDF at a chosen resolution measures as it was drawn', async () => {
    const pdf = await PDFDocument.create();
    const mm = 72 / 25.4;
    pdf.addPage([210 * mm, 297 * mm]);
    const drawn = pdf.addPage([210 * mm, 297 * mm]);
    // Drawn with y down from a point of the page, 120 mm from its left and 200 from its lower edge.
    for (const { outer } of plateScene.pieces) drawn.drawSvgPath(pathData(outer, 0), { x: 20 * mm, y: 200 * mm, scale: mm });
    await page.goto(address);
    await dropFile(page, 'plate.pdf', 'application/pdf', Buffer.from(await pdf.save()));
    await page.getByRole('button', { name: 'Page 2', exact: true }).waitFor();
    await page.getByRole('button', { name: 'Page 1', exact: true }).click();
    await page.getByRole('button', { name: 'Page 2', exact: true }).click();
    await page.getByRole('button', { name: 'Bring in', exact: true }).click();
    await page.waitForURL(/\/jobs\/[0-9a-f-]+/);
    await settled(page);
    const picture = await pictureNow();
    expect(picture).toMatchObject({
      name: 'plate.pdf, page 2',
      widthPx: 2480,
      heightPx: 3508,
      resolution: { dpi: 300, source: 'pdf', trusted: true },
    });
    const box = fitOf(picture).sheetBox;
    expect(Math.abs((await measured(page, box, { x: 35, y: 155 }, { x: 125, y: 155 })) - 90)).toBeLessThan(0.3);
    expect(errors).toEqual([]);
  });

  it('a DXF die line in inches: cut and crease told apart, at its true size', async () => {
    const line = (layer: string, a: number[], b: number[]) => `0\nLINE\n8\n${layer}\n10\n${a[0]}\n20\n${a[1]}\n11\n${b[0]}\n21\n${b[1]}\n`;
    const p = [[0, 0], [5, 0], [5, 3], [0, 3]]; // biome-ignore format: corners
    const entities =
      p.map((a, k) => line('CUT', a, p[(k + 1) % 4] as number[])).join('') +
      line('CREASE', [1, 0], [1, 3]) +
      line('CREASE', [4, 0], [4, 3]);
    const text = `0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n1\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`;
    await dropped('tray.dxf', Buffer.from(text));
    const card = page.locator('[data-drawing="tray.dxf"]');
    await card.getByText('127.00 mm · 5 in').waitFor();
    await card.getByText('76.20 mm · 3 in').waitFor();
    await card.getByText('3 outlines, 2 open').waitFor();
    await card.getByText('inches').waitFor();
    await page.getByRole('button', { name: /^Make ready/ }).click();
    await page.getByRole('button', { name: 'Files', exact: true }).click();
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'SVG: download' }).click()]);
    const path = join(tmpdir(), `nuvet-tray-${process.pid}.svg`);
    writeFileSync(path, readFileSync(await download.path()));
    expect(readFileSync(path, 'utf8')).toMatch(/width="127mm" height="76\.2mm"/);
    expect(errors).toEqual([]);
  });

  it('the stand-in scanner: a part of its bed comes in at the resolution asked for', async () => {
    await page.goto(address);
    await newJob('start.png', await pngOf(scanScene(plateScene, { dpi: 75 }).picture, 75));
    await page.getByRole('button', { name: /^Bring in/ }).click();
    await page.getByRole('button', { name: 'Scanner' }).click();
    await page.getByRole('button', { name: 'Preview' }).click();
    const bed = page.getByLabel('Preview of the bed');
    await bed.waitFor();
    await bed.scrollIntoViewIfNeeded();
    await page.getByRole('button', { name: 'Scan', exact: true }).click();
    await page.getByText('2 pictures').first().waitFor();
    await settled(page);
    expect(await pictureNow(1)).toMatchObject({ resolution: { dpi: 300, source: 'scanner', trusted: true } });
    expect(errors).toEqual([]);
  });
});

/** The plate's height on the sheet, as two places. */
function tall(picture: Picture, at: (p: Point) => Point): [Point, Point] {
  const fit = fitOf(picture);
  return [project(fit.projection, at(low)), project(fit.projection, at(high))];
}

/** The pixels as a phone held upright stores them: the first row is the right side of what is seen. */
function onItsSide({ width, height, data }: GreyPicture): GreyPicture {
  const stored = new Uint8Array(data.length);
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) stored[(width - 1 - x) * height + y] = data[y * width + x] as number;
  return greyPicture(stored, height, width);
}
