/** What a new user does, from a dropped scan to files at true size, and back again after a reload. */
import { readFileSync } from 'node:fs';
import { type Path, type Point, pathBox, shift, transformedPath } from '@nuvet/core/plane';
import { greyPicture } from '@nuvet/core/raster';
import { fitTrueUp, type TrueUpMark } from '@nuvet/core/trueup';
import { demoJobs, deviationOf, pngOf, type Scene, scanScene, screenedScan, starScene } from '@nuvet/truth';
import type { Download, Page } from 'playwright-core';
import { expect, it } from 'vitest';
import { dxfSeenByEzdxf, svgSeen } from '../unit/outside-readers.ts';
import { clickInPicture, dropFile } from './bench-hand.ts';
import { settled } from './browser.ts';
import { drivenPage } from './driven-page.ts';
import { address, jobOf, jobWith } from './server.ts';

const scene = demoJobs[0]?.scene as Scene;
const scan = scanScene(scene, { dpi: 300, tiltDegrees: 2.3, noise: 5, seed: 77 });
const size = { widthPx: scan.picture.width, heightPx: scan.picture.height };
function mark(name: string): [Point, Point] {
  const ends = scene.marks?.[name];
  if (!ends) throw new Error(`the scene has no mark ${name}`);
  return [scan.at(ends[0] as Point), scan.at(ends[1] as Point)];
}

let page: Page;
const errors = drivenPage((opened) => {
  page = opened;
});

async function downloaded(word: string): Promise<string> {
  const [download] = await Promise.all([
    page.waitForEvent('download') as Promise<Download>,
    page.getByRole('button', { name: word }).click(),
  ]);
  return (await download.path()) as string;
}

it('a tilted scan of unknown size becomes an SVG and a DXF of 130 x 190 mm, and all is there after a reload', async () => {
  await page.goto(address);
  // The file states a wrong resolution, as many do.
  await dropFile(page, 'heron sketch.png', 'image/png', await pngOf(scan.picture, 72));
  await page.waitForURL(/\/jobs\/[0-9a-f-]+/);
  await page.getByRole('application', { name: 'Light table' }).waitFor();
  await settled(page);

  await page.getByRole('button', { name: 'Known length', exact: true }).click();
  const unsized = fitTrueUp(size, [], 72);
  const [a, b] = mark('rule');
  const clickedA = await clickInPicture(page, unsized, a);
  const clickedB = await clickInPicture(page, unsized, b);
  const field = page.getByLabel('Its true length');
  await field.waitFor();
  await field.fill('6in');
  await field.press('Enter');
  await page.getByText('= 152.40 mm · 6 in').waitFor();
  const known: TrueUpMark = { kind: 'known-length', id: 'known', points: [clickedA, clickedB], stated: [152.4] };

  await page.getByRole('application', { name: 'Light table' }).focus();
  await page.keyboard.press('l');
  const sized = fitTrueUp(size, [known], null);
  const [c, d] = mark('level');
  await clickInPicture(page, sized, c);
  await clickInPicture(page, sized, d);
  await expect.poll(() => page.getByText(/^−2\.[23]\d°$/).count()).toBe(1);

  await page.getByRole('button', { name: 'Next: trace' }).click();
  await page.getByRole('table', { name: 'Pieces' }).waitFor();
  await settled(page);
  expect(await page.getByRole('table', { name: 'Pieces' }).locator('tbody tr').count()).toBe(1);

  await page.getByRole('button', { name: 'Next: prove' }).click();
  await page.getByText('nothing would spoil the cut').waitFor();
  await page.getByRole('button', { name: 'Next: make ready' }).click();
  await page.getByRole('button', { name: 'Files', exact: true }).click();
  const svg = svgSeen(readFileSync(await downloaded('SVG: download'), 'utf8'));
  const [dxf] = dxfSeenByEzdxf(await downloaded('DXF: download'));
  for (const [width, height] of [[svg.widthMm, svg.heightMm], dxf?.max ?? []] as const) {
    expect(Math.abs((width as number) - 130)).toBeLessThan(0.1);
    expect(Math.abs((height as number) - 190)).toBeLessThan(0.1);
  }
  expect(dxf).toMatchObject({ version: 'AC1015', insunits: 4, errors: [], fixes: [] });
  const truth = scene.pieces.flatMap((p) => [p.outer, ...p.holes]);
  expect(dxf?.outlines).toHaveLength(truth.length);
  expect(dxf?.outlines.every((o) => o.closed)).toBe(true);
  const box = pathBox(truth[0] as Path);
  const home = truth.map((path) => transformedPath(path, shift(-box.minX, -box.minY)));
  const read = (dxf?.outlines ?? []).map(({ points }): Path => {
    const at = (k: number): Point => ({ x: points[k % points.length]?.[0] as number, y: points[k % points.length]?.[1] as number });
    return {
      start: at(0),
      segments: points.map(([, , bulge], k) =>
        bulge === 0 ? { kind: 'line', to: at(k + 1) } : { kind: 'arc', to: at(k + 1), sweep: 4 * Math.atan(bulge) },
      ),
      closed: true,
    };
  });
  expect(deviationOf(read, home).rmsMm).toBeLessThan(0.1);

  await page.reload();
  await page.getByRole('button', { name: 'Files', exact: true }).click();
  await page.getByRole('button', { name: 'SVG: download' }).waitFor();
  await page.getByRole('button', { name: /^True up/ }).click();
  expect(await page.getByLabel('Its true length').inputValue()).toBe('6in');
  expect(await page.getByText(/^−2\.[23]\d°$/).count()).toBe(1);
  expect(errors).toEqual([]);
});

it('undo from the keyboard reaches back to the beginning of the job, also across the reload, and redo comes back', async () => {
  const undo = page.getByRole('button', { name: 'Undo' });
  await page.getByRole('application', { name: 'Light table' }).focus();
  for (let k = 0; k < 5; k++) {
    await page.keyboard.press('Control+z');
    await settled(page);
  }
  await page.getByText('Drop a scan or photo here').waitFor();
  expect(await undo.isDisabled()).toBe(true);
  for (let k = 0; k < 5; k++) {
    await page.keyboard.press('Control+Shift+z');
    await settled(page);
  }
  await page.getByRole('button', { name: /^Trace: 1 piece, all closed/ }).waitFor();
  expect(errors).toEqual([]);
});

it('a print in dots is traced as the figures that they fill, and a click traces every dot', async () => {
  const { picture, mmPerPx } = screenedScan(107);
  const { id } = await jobWith('Lantern from a newspaper', await pngOf(picture, 25.4 / mmPerPx));
  await page.goto(`${address}/jobs/${id}?stage=trace`);
  await page.getByText(/^Printed in dots 1\.\d\d mm apart/).waitFor();
  const { traces } = await jobOf(id);
  expect(traces.map(({ pieces }) => pieces.length)).toEqual([screenedScan(107).scene.pieces.length]);
  await page.getByRole('button', { name: 'Keep dots' }).click();
  await page.getByText('Dots and grain are traced as they are.').waitFor();
  await settled(page);
  await page.getByRole('button', { name: 'Smooth them' }).click();
  await page.getByText(/^Printed in dots/).waitFor();
});

it('the dark border of a scan is excluded as it is traced, and a click includes it', async () => {
  const { width, height, data } = scanScene(starScene, { dpi: 100, seed: 5 }).picture;
  const lid = data.map((v, k) => (k % width < 12 || Math.floor(k / width) > height - 9 ? 25 : v));
  const { id } = await jobWith('Lantern star', await pngOf(greyPicture(lid, width, height), 100));
  await page.goto(`${address}/jobs/${id}?stage=trace`);
  await page.getByText('The dark border of the scan is excluded.').waitFor();
  await page.getByRole('button', { name: /^Trace: 1 piece/ }).waitFor();
  await page.getByRole('button', { name: 'Include', exact: true }).click();
  await page.getByText('The dark border of the scan is included.').waitFor();
  await page.getByRole('button', { name: /^Trace: 2 pieces/ }).waitFor();
  // Traced anew it stays as it was chosen.
  await page.getByRole('button', { name: 'Retrace', exact: true }).click();
  await settled(page);
  const { traces } = await jobOf(id);
  expect(traces.flatMap(({ pieces }) => pieces.map(({ leftOut }) => leftOut))).toEqual([false, false]);
});
