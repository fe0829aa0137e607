/** How few actions lead from the list of jobs to a checked DXF at true size: a drop, two clicks, a length, one button. */
import { fitTrueUp } from '@nuvet/core/trueup';
import { demoJobs, pngOf, type Scene, scanScene } from '@nuvet/truth';
import type { Download, Page } from 'playwright-core';
import { expect, it } from 'vitest';
import { dxfSeenByEzdxf } from '../unit/outside-readers.ts';
import { clickInPicture, dropFile } from './bench-hand.ts';
import { settled } from './browser.ts';
import { drivenPage } from './driven-page.ts';
import { address } from './server.ts';

const scene = demoJobs[0]?.scene as Scene;
const scan = scanScene(scene, { dpi: 300, tiltDegrees: 0, noise: 5, seed: 91 });
const rule = scene.marks?.rule ?? [];
const size = { widthPx: scan.picture.width, heightPx: scan.picture.height };

let page: Page;
const errors = drivenPage((opened) => {
  page = opened;
});

/** Drops a scan whose file states a resolution on the list of jobs, and waits for the table. */
async function dropped(name: string, dpi: number): Promise<void> {
  await page.goto(address);
  await dropFile(page, name, 'image/png', await pngOf(scan.picture, dpi));
  await page.waitForURL(/\/jobs\/[0-9a-f-]+/);
  await page.getByRole('application', { name: 'Light table' }).waitFor();
  await settled(page);
}

/** Presses the button that does all the rest. */
async function finished(): Promise<string> {
  const [download] = await Promise.all([
    page.waitForEvent('download') as Promise<Download>,
    page.getByRole('button', { name: 'Finish: trace, prove, DXF' }).click(),
  ]);
  return (await download.path()) as string;
}

function isTrueSize(file: string): void {
  const [dxf] = dxfSeenByEzdxf(file);
  expect(dxf).toMatchObject({ insunits: 4, errors: [], fixes: [] });
  expect(dxf?.outlines).toHaveLength(scene.pieces.flatMap((p) => [p.outer, ...p.holes]).length);
  expect(dxf?.outlines.every((o) => o.closed)).toBe(true);
  const [width, height] = (dxf?.max ?? []) as number[];
  expect(Math.abs((width as number) - 130)).toBeLessThan(0.12);
  expect(Math.abs((height as number) - 190)).toBeLessThan(0.12);
}

it('a scan with one known length: five actions, the tool for the length in hand', async () => {
  await dropped('heron sketch.png', 72);
  const unsized = fitTrueUp(size, [], 72);
  for (const place of rule) await clickInPicture(page, unsized, scan.at(place));
  await page.getByLabel('Its true length').fill('6in');
  await page.getByLabel('Its true length').press('Enter');
  await page.getByText('= 152.40 mm · 6 in').waitFor();
  isTrueSize(await finished());
  expect(errors).toEqual([]);
});

it('a scan whose resolution is trusted: two actions, and a third for the trust', async () => {
  await dropped('heron scan.png', 300);
  const trust = page.getByRole('button', { name: /^Trust/ });
  if ((await trust.count()) > 0) await trust.first().click();
  isTrueSize(await finished());
  expect(errors).toEqual([]);
});

it('the rest stops at the first doubt, and says which', async () => {
  await dropped('heron sketch.png', 72);
  const unsized = fitTrueUp(size, [], 72);
  for (const place of rule) await clickInPicture(page, unsized, scan.at(place));
  // As if the rule were a tenth as long: the panel's webs fall below what can be cut.
  await page.getByLabel('Its true length').fill('0.6in');
  await page.getByLabel('Its true length').press('Enter');
  await settled(page);
  await page.getByRole('button', { name: 'Finish: trace, prove, DXF' }).click();
  await page.getByText(/^Stopped before the file was made: /).waitFor();
  expect(new URL(page.url()).searchParams.get('stage')).toBe('prove');
});
