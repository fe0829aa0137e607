/** Drawing and correcting by hand, as a new user would; every DXF read back: closed, the right count, the right sizes. */
import { readFileSync } from 'node:fs';
import { type Drawn, drawnPieces, fitOf, type Picture } from '@nuvet/core/job';
import { apply, type Path, type Point, pathArea, pathBox } from '@nuvet/core/plane';
import { plateScene, pngOf, scanScene } from '@nuvet/truth';
import type { Download, Page } from 'playwright-core';
import { expect, it } from 'vitest';
import { placementOf, toScreen, wholeSheet } from '../../apps/web/src/table/view.ts';
import { dxfSeenByEzdxf } from '../unit/outside-readers.ts';
import { settled } from './browser.ts';
import { drivenPage } from './driven-page.ts';
import { address, jobOf, jobWith, json } from './server.ts';

let page: Page;
const errors = drivenPage((opened) => {
  page = opened;
});

const table = () => page.getByRole('application', { name: 'Light table' });
const button = (name: string) => page.getByRole('button', { name, exact: true });

/** The sheet that a job without pictures shows. */
const emptySheet = { minX: 0, minY: 0, maxX: 200, maxY: 150 };

async function newDrawing(name: string): Promise<string> {
  const { body } = await json('POST', '/api/jobs', { name, pictureIds: [] });
  const { id } = body as { id: string };
  await page.goto(`${address}/jobs/${id}`);
  await button('Draw without a picture').click();
  await table().waitFor();
  return id;
}

async function inWindow(p: Point): Promise<Point> {
  const box = await table().boundingBox();
  if (!box) throw new Error('there is no light table');
  const q = toScreen(wholeSheet(emptySheet, { width: box.width, height: box.height }), p);
  return { x: box.x + q.x, y: box.y + q.y };
}

/** Clicks on places of the sheet, mm, held off from snapping so that they land where they are meant to. */
async function click(...places: readonly (readonly [number, number])[]): Promise<void> {
  await page.keyboard.down('Alt');
  for (const [x, y] of places) {
    const at = await inWindow({ x, y });
    await page.mouse.move(at.x, at.y, { steps: 2 });
    await page.mouse.click(at.x, at.y);
  }
  await page.keyboard.up('Alt');
}

async function clickNear(x: number, y: number, modifiers: ('Shift' | 'Alt')[] = []): Promise<void> {
  const at = await inWindow({ x, y });
  for (const key of modifiers) await page.keyboard.down(key);
  await page.mouse.move(at.x, at.y, { steps: 2 });
  await page.mouse.click(at.x, at.y);
  for (const key of modifiers) await page.keyboard.up(key);
}

async function drag(from: readonly [number, number], to: readonly [number, number]): Promise<void> {
  const [a, b] = [await inWindow({ x: from[0], y: from[1] }), await inWindow({ x: to[0], y: to[1] })];
  await page.keyboard.down('Alt');
  await page.mouse.move(a.x, a.y);
  await page.mouse.down();
  await page.mouse.move(b.x, b.y, { steps: 5 });
  await page.mouse.up();
  await page.keyboard.up('Alt');
}

const typeInto = async (label: string | RegExp, text: string): Promise<void> => {
  const field = page.getByLabel(label).last();
  await field.fill(text);
  await field.press('Enter');
};

/** The DXF of a job as an outside reader sees it: closed polylines and their overall size. */
async function dxfOf(id: string): Promise<{ closed: number; open: number; width: number; height: number }> {
  await settled(page);
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await button('Files').click();
  const [download] = await Promise.all([page.waitForEvent('download') as Promise<Download>, button('DXF: download').click()]);
  const file = (await download.path()) as string;
  expect(readFileSync(file, 'utf8')).toContain('AC1015');
  const [seen] = dxfSeenByEzdxf(file);
  if (!seen) throw new Error('ezdxf saw nothing');
  expect([...seen.errors, ...seen.fixes]).toEqual([]);
  const closed = seen.outlines.filter((outline) => outline.closed).length;
  return { closed, open: seen.outlines.length - closed, width: seen.max[0] - seen.min[0], height: seen.max[1] - seen.min[1] };
}

const pointsIn = async (id: string): Promise<number> => {
  const source = (await jobOf(id)).drawn[0]?.source;
  return source?.kind === 'points' ? source.points.length : 0;
};

it('Backspace takes one point back, Escape and a reload none; drawing goes on from the end', async () => {
  const id = await newDrawing('Kept');
  await click([100, 20], [130, 30], [140, 70]);
  await drag([125, 100], [115, 110]);
  await click([100, 130]);
  await expect.poll(() => pointsIn(id)).toBe(5);
  await table().press('Backspace');
  await expect.poll(() => pointsIn(id)).toBe(4);
  await table().press('Escape');
  await click([60, 60]);
  // That began another outline; the first stands as it was.
  await expect.poll(async () => (await jobOf(id)).drawn.length).toBe(2);
  await table().press('Backspace');
  await expect.poll(async () => (await jobOf(id)).drawn.length).toBe(1);
  await settled(page);
  await page.reload();
  await button('Draw').click();
  await table().waitFor();
  expect(await pointsIn(id)).toBe(4);
  // The connection is lost in the middle of drawing: what is drawn waits, and is kept when it is back.
  await page.context().setOffline(true);
  await page.getByRole('list', { name: 'Drawn' }).getByRole('button').first().click();
  await table().focus();
  const box = await table().boundingBox();
  if (!box) throw new Error('there is no light table');
  for (const [x, y] of [[0.1, 0.1], [0.2, 0.1], [0.2, 0.2]] as const) await page.mouse.click(box.x + x * box.width, box.y + y * box.height); // biome-ignore format: one line
  await page.locator('[data-saving="no-connection"]').waitFor();
  await page.context().setOffline(false);
  await settled(page);
  await expect.poll(async () => (await jobOf(id)).drawn.length).toBe(2);
  const second = (await jobOf(id)).drawn[1]?.source;
  expect(second?.kind === 'points' && second.points.length).toBe(3);
});

it('half a heron is drawn and mirrored about its axis; it closes by itself and is exported at its size', async () => {
  const id = await newDrawing('Half a heron');
  await click([100, 20], [130, 40], [135, 80], [100, 130]);
  await table().press('Enter');
  await button('Correct').click();
  await button('Live').click();
  await button('Mirror about an axis').click();
  await click([100, 20], [100, 130]);
  const chosen = page.getByRole('group', { name: 'Selection' });
  // The clicks land on whole screen pixels: the ends are off the axis by what a pixel is, and that is said.
  await expect.poll(async () => (await jobOf(id)).drawn[0]?.live.length).toBe(1);
  const axis = (await jobOf(id)).drawn[0]?.live[0] as Extract<Drawn['live'][number], { kind: 'mirror' }>;
  expect(Math.abs(axis.a.x - axis.b.x)).toBeLessThan(0.4);
  await chosen.waitFor();
  const [piece] = drawnPieces(await jobOf(id));
  expect(piece?.outer.closed).toBe(true);
  const seen = await dxfOf(id);
  expect(seen.closed).toBe(1);
  expect(seen.width).toBeCloseTo(70, 0);
  expect(seen.height).toBeCloseTo(110, 0);
});

it('one arm of a six-fold star is drawn, turned, its overlap united, exported', async () => {
  const id = await newDrawing('Star of six');
  await click([92, 70], [108, 70], [106, 130], [94, 130], [92, 70]);
  await expect.poll(async () => drawnPieces(await jobOf(id))[0]?.outer.closed).toBe(true);
  await button('Correct').click();
  await button('Live').click();
  await button('Turned copies about a centre').click();
  await click([100, 75]);
  await expect.poll(async () => drawnPieces(await jobOf(id)).length).toBe(1);
  const [star] = drawnPieces(await jobOf(id));
  expect(star?.holes).toHaveLength(0);
  const seen = await dxfOf(id);
  expect(seen.closed).toBe(1);
  expect(seen.height).toBeCloseTo(2 * Math.hypot(55, 6) * Math.cos(Math.atan2(6, 55)), 0);
});

it('rings of a badge come by offset, each five millimetres farther out', async () => {
  const id = await newDrawing('Badge rings');
  await button('Circle').click();
  await click([100, 75], [115, 75]);
  await typeInto('Radius, mm', '15 mm');
  await button('Correct').click();
  await button('Offset').click();
  await typeInto('Distance, mm', '5');
  await typeInto(/^Rings/, '3');
  await button('3 rings, live').click();
  const radii = async () => {
    const outlines = drawnPieces(await jobOf(id)).flatMap(({ outer, holes }) => [outer, ...holes]);
    return outlines.map((path) => Math.sqrt(Math.abs(pathArea(path)) / Math.PI)).sort((a, b) => a - b);
  };
  await expect.poll(radii).toEqual([15, 20, 25, 30].map((r) => expect.closeTo(r, 6)));
  const seen = await dxfOf(id);
  expect(seen.closed).toBe(4);
  expect(seen.width).toBeCloseTo(60, 3);
});

it('a cuff is laid flat with its two holes where they belong', async () => {
  const id = await newDrawing('Cuff');
  await button('Arc').click();
  await click([60, 60], [100, 100], [140, 60]);
  await button('Circle').click();
  const cuff = (await jobOf(id)).drawn[0]?.source as Extract<Drawn['source'], { kind: 'figure' }>;
  const arc = cuff.figure as Extract<typeof cuff.figure, { kind: 'arc' }>;
  expect(Math.abs(arc.sweep)).toBeCloseTo(Math.PI, 1);
  // Snapped onto the arc by the ring that says so.
  for (const [x, y] of [[71.7, 88.3], [128.3, 88.3]] as const) {
    await clickNear(x, y);
    await clickNear(x + 5, y, ['Alt']);
  } // biome-ignore format: a table
  await button('Correct').click();
  await button('Live').click();
  await page.getByRole('list', { name: 'Drawn' }).getByRole('button', { name: /Arc 1/ }).click();
  await typeInto('Strip’s width, mm', '25');
  await button('Unroll to a flat strip, with everything on it').click();
  await expect.poll(async () => (await jobOf(id)).drawn.some(({ name }) => name === 'Strip 1')).toBe(true);
  const strip = drawnPieces(await jobOf(id)).find(({ name }) => name === 'Strip 1');
  expect(strip?.holes).toHaveLength(2);
  const box = pathBox(strip?.outer as NonNullable<typeof strip>['outer']);
  expect(box.maxX - box.minX).toBeCloseTo(Math.PI * 40, 0);
  expect(box.maxY - box.minY).toBeCloseTo(25, 6);
  const middles = strip?.holes.map((hole) => (pathBox(hole).minX + pathBox(hole).maxX) / 2 - box.minX).sort((a, b) => a - b) ?? [];
  expect((middles[0] ?? 0) / (box.maxX - box.minX)).toBeCloseTo(0.25, 1);
  expect((middles[1] ?? 0) / (box.maxX - box.minX)).toBeCloseTo(0.75, 1);
  // It follows: a wider strip, and a mark drawn on it goes back to the cuff, where it is on the strip again.
  await typeInto('Strip’s width, mm', '30');
  const now = async () => drawnPieces(await jobOf(id)).find(({ name }) => name === 'Strip 1');
  await expect.poll(async () => pathBox((await now())?.outer as NonNullable<typeof strip>['outer']).maxY - box.minY).toBeCloseTo(30, 6); // biome-ignore format: one line
  await button('Draw').click();
  await button('Circle').click();
  await clickNear(100, 27, ['Alt']);
  await clickNear(103, 27, ['Alt']);
  await button('Correct').click();
  await button('Live').click();
  await page
    .getByRole('list', { name: 'Drawn' })
    .getByRole('button', { name: /Strip 1/ })
    .click();
  await button('Bring 1 from the strip to the line').click();
  await expect.poll(async () => (await now())?.holes.length).toBe(3);
  const marks = (await jobOf(id)).drawn.flatMap(({ source }) =>
    source.kind === 'figure' && source.figure.kind === 'circle' ? [source.figure.centre] : [],
  );
  for (const { x, y } of marks) expect(Math.hypot(x - 100, y - 60)).toBeCloseTo(40, 0);
});

it('slots follow the stock’s thickness, all at once', async () => {
  const id = await newDrawing('Push-together joint');
  await button('Slot').click();
  await click([60, 60], [85, 60], [120, 60], [145, 60]);
  await page.getByText('This slot follows the stock, whose thickness is not known yet').waitFor();
  await typeInto(/Stock’s thickness/, '4');
  const areas = async () => drawnPieces(await jobOf(id)).map(({ outer }) => pathBox(outer).maxY - pathBox(outer).minY);
  await expect.poll(areas).toEqual([expect.closeTo(4.5, 6), expect.closeTo(4.5, 6)]);
  await typeInto(/Stock’s thickness/, '3.1');
  await expect.poll(areas).toEqual([expect.closeTo(3.6, 6), expect.closeTo(3.6, 6)]);
  expect((await dxfOf(id)).closed).toBe(2);
});

it('points are dragged, added and taken away; an overshoot is trimmed and the ends are joined', async () => {
  const id = await newDrawing('Correcting');
  await button('Rectangle').click();
  await click([60, 40], [140, 100]);
  await button('Correct').click();
  await clickNear(100, 40);
  // A corner is dragged up.
  await drag([140, 100], [150, 110]);
  await expect
    .poll(async () => pathBox((drawnPieces(await jobOf(id))[0] as { outer: Parameters<typeof pathBox>[0] }).outer).maxX)
    .toBeCloseTo(150, 0);
  const at = await inWindow({ x: 60, y: 70 });
  await page.mouse.dblclick(at.x, at.y);
  await expect.poll(async () => drawnPieces(await jobOf(id))[0]?.outer.segments.length).toBe(5);
  await table().press('Delete');
  await expect.poll(async () => drawnPieces(await jobOf(id))[0]?.outer.segments.length).toBe(4);
  await button('Draw').click();
  await button('Line').click();
  await click([40, 60], [170, 60]);
  await button('Correct').click();
  await button('Trim').click();
  // What stands out to the right of the rectangle goes.
  await clickNear(164, 60);
  await expect.poll(async () => drawnPieces(await jobOf(id)).filter(({ outer }) => !outer.closed).map(({ outer }) => Math.round(pathBox(outer).maxX))).toEqual([expect.any(Number)]); // biome-ignore format: one line
  const [line] = drawnPieces(await jobOf(id)).filter(({ outer }) => !outer.closed);
  expect(pathBox((line as { outer: Parameters<typeof pathBox>[0] }).outer).maxX).toBeLessThan(152);
  expect(errors).toEqual([]);
});

it('pieces are united, cut along a line, and undone to what they were', async () => {
  const id = await newDrawing('Combining');
  await button('Rectangle').click();
  await click([40, 40], [100, 80]);
  await button('Circle').click();
  await click([100, 60], [120, 60]);
  await button('Correct').click();
  await button('Combine').click();
  const list = page.getByRole('list', { name: 'Drawn' }).getByRole('button');
  await list.nth(0).click();
  await list.nth(1).click({ modifiers: ['Shift'] });
  await button('Unite').click();
  await expect.poll(async () => (await jobOf(id)).drawn.length).toBe(1);
  const [one] = drawnPieces(await jobOf(id));
  expect(pathArea((one as { outer: Parameters<typeof pathArea>[0] }).outer)).toBeCloseTo(2400 + (Math.PI * 400) / 2, -2);
  await button('Cut along a line').click();
  await click([30, 60], [150, 60]);
  await expect.poll(async () => (await jobOf(id)).drawn.length).toBe(2);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect.poll(async () => (await jobOf(id)).drawn.map(({ source }) => source.kind)).toEqual(['figure', 'figure']);
  expect(errors).toEqual([]);
});

it('a motif is fitted to a measured length, exchanged twice at the same place, and one of one’s own kept on the shelf', async () => {
  const id = await newDrawing('Motifs');
  const shelf = page.getByRole('list', { name: 'Shelf' });
  await shelf.getByRole('button', { name: 'Fish' }).click();
  await click([60, 75], [140, 75]);
  const sizes = async () => {
    const [piece] = drawnPieces(await jobOf(id));
    const box = piece && pathBox(piece.outer);
    return box ? [box.maxX - box.minX, (box.minX + box.maxX) / 2] : [];
  };
  await expect.poll(async () => (await jobOf(id)).drawn.map(({ name }) => name)).toEqual(['Fish 1']);
  const [width, middle] = (await sizes()) as [number, number];
  expect(width).toBeCloseTo(80, 0);
  for (const name of ['Wave', 'Ferry boat']) {
    await shelf.getByRole('button', { name }).click();
    await expect.poll(async () => (await jobOf(id)).drawn.map((d) => d.name)).toEqual([`${name} 1`]);
    const whole = drawnPieces(await jobOf(id)).map(({ outer }) => pathBox(outer));
    expect(Math.max(...whole.map((b) => b.maxX)) - Math.min(...whole.map((b) => b.minX))).toBeCloseTo(width, 6);
    expect((Math.max(...whole.map((b) => b.maxX)) + Math.min(...whole.map((b) => b.minX))) / 2).toBeCloseTo(middle, 6);
  }
  const name = `Boat of ours ${id.slice(0, 6)}`;
  await page.getByLabel('Keep it as').fill(name);
  await page.getByLabel('Tags').fill('river, ours');
  await button('Save to the motif shelf').click();
  await shelf.getByRole('button', { name }).waitFor();
  const { body } = await json('GET', '/api/motifs');
  const own = (body as { id: string; name: string; tags: string[]; paths: unknown[] }[]).find((m) => m.name === name);
  expect(own).toMatchObject({ tags: ['river', 'ours'], paths: [{}, {}, {}] });
  expect((await json('DELETE', `/api/motifs/${own?.id}`)).status).toBe(204);
  expect((await json('DELETE', `/api/motifs/${own?.id}`)).status).toBe(404);
  expect((await dxfOf(id)).closed).toBe(3);
  expect(errors).toEqual([]);
});

it('an outline drawn roughly over a scan comes closer to the picture on request', async () => {
  const scan = scanScene(plateScene, { dpi: 150, tiltDegrees: 0, seed: 8 });
  const { id } = await jobWith('Rough plate', await pngOf(scan.picture, 150));
  await page.goto(`${address}/jobs/${id}?stage=trace`);
  await page.getByRole('table', { name: 'Pieces' }).waitFor();
  await settled(page);
  const fit = fitOf((await jobOf(id)).pictures[0] as Picture);
  const box = await table().boundingBox();
  if (!box) throw new Error('there is no light table');
  const placement = placementOf(wholeSheet(fit.sheetBox, { width: box.width, height: box.height }), fit);
  await button('Draw').click();
  await page.keyboard.down('Alt');
  for (const [x, y] of [[14, 14], [106, 16], [104, 76], [16, 74], [14, 14]] as const) {
    const at = apply(placement, scan.at({ x, y }));
    await page.mouse.click(box.x + at.x, box.y + at.y);
  } // biome-ignore format: corners of the plate, two millimetres off
  await page.keyboard.up('Alt');
  await expect.poll(async () => drawnPieces(await jobOf(id))[0]?.outer.closed).toBe(true);
  await button('Correct').click();
  await button('Closer to the picture').click();
  const truth = (plateScene.pieces[0] as { outer: Path }).outer;
  await expect.poll(async () => Math.abs(Math.abs(pathArea((drawnPieces(await jobOf(id))[0] as { outer: Path }).outer)) - pathArea(truth))).toBeLessThan(20); // biome-ignore format: one line
  expect(errors).toEqual([]);
});
