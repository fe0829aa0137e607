/** Quilting as a new user would: a block from a drawn picture, its patches, fabrics, sizes to cut, templates, and a quilt. */
import { readFileSync } from 'node:fs';
import { readPdfPaths } from '@nuvet/core/formats';
import { heightOf, pathBox, polygonPath, widthOf } from '@nuvet/core/plane';
import { fitTrueUp } from '@nuvet/core/trueup';
import { type DemoJob, demoJobs, pngOf, scanScene } from '@nuvet/truth';
import type { Download, Page } from 'playwright-core';
import { expect, it } from 'vitest';
import { clickInPicture, dropFile } from './bench-hand.ts';
import { settled } from './browser.ts';
import { drivenPage } from './driven-page.ts';
import { address, jobOf, jobOfOutlines, json } from './server.ts';

let page: Page;
drivenPage((opened) => {
  page = opened;
});

const button = (name: string | RegExp) => page.getByRole('button', { name, exact: true });
const reading = (name: string) => page.getByText(name, { exact: true }).locator('xpath=following-sibling::*');
const panel = (name: string) => page.getByRole('group', { name: 'Quilting' }).getByRole('button', { name, exact: true });
const picked = async (label: string | RegExp, option: string): Promise<void> => {
  await page.getByRole('combobox', { name: label }).click();
  await page.getByRole('option', { name: option, exact: true }).click();
};
const typed = async (label: string | RegExp, value: string): Promise<void> => {
  const field = page.getByRole('textbox', { name: label }).first();
  await field.fill(value);
  await field.press('Enter');
};
const downloaded = async (file: string): Promise<Buffer> => {
  const [download] = await Promise.all([page.waitForEvent('download') as Promise<Download>, button(`${file}: download`).click()]);
  return readFileSync((await download.path()) as string);
};

/** A demo job's copy: what is changed in it stays its own. */
async function copyOf(name: string): Promise<string> {
  const { body } = await json('GET', `/api/jobs?search=${encodeURIComponent(name)}`);
  const demo = (body as { jobs: { id: string; name: string }[] }).jobs.find((job) => job.name.startsWith(name));
  const made = await json('POST', '/api/jobs', { name: `Copy: ${name}`, copyOf: demo?.id });
  return (made.body as { id: string }).id;
}

/** A pinwheel of eight triangles on the sheet, 80 mm across, four of them drawn. */
const triangles = [[0, 0, 1, 0, 1, 1], [2, 0, 2, 1, 1, 1], [2, 2, 1, 2, 1, 1], [0, 2, 0, 1, 1, 1]].map((c, k) => ({
  name: `Blade ${k + 1}`,
  paths: [polygonPath([0, 2, 4].map((j) => ({ x: 20 + 40 * (c[j] as number), y: 20 + 40 * (c[j + 1] as number) })))],
})); // biome-ignore format: corners

it('a drawn block becomes patches of two fabrics, sizes to cut and printed templates, and a quilt in one line', async () => {
  const id = await jobOfOutlines('Mill sail', triangles);
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await button('Add a process').click();
  await button('Add Quilting').click();
  await page.getByText('8 of 1 shape').waitFor();
  expect(await reading('Lies on a grid of').textContent()).toBe('2 x 2');
  expect(await reading('Seams').textContent()).toMatch(/straight$/);
  await typed(/^Finished size/, '6in');
  await panel('Cutting').click();
  // Triangles of 3 in, half a square each: 3 7/8 in (common practice).
  await page.getByRole('table', { name: 'Cutting list' }).getByText('98.425').first().waitFor();
  await typed(/^Seam allowance/, '500');
  // What no field takes is refused there, and the one before stays.
  await page
    .getByRole('alert')
    .getByText(/^At most /)
    .waitFor();
  await typed(/^Seam allowance/, '90 mm');
  await page
    .getByText(/A seam allowance of .* is wider than patch A has room for/)
    .first()
    .waitFor();
  await typed(/^Seam allowance/, '1/4in');
  await panel('Fabrics').click();
  await picked('A, ground (4)', 'Dark');
  await button('Add a fabric').click();
  await picked('A (4)', 'Fabric 3');
  await settled(page);
  const { settings } = (await jobOf(id)).making.processes.find(({ process }) => process === 'quilting') ?? {};
  expect(settings?.fabricOf).toEqual({ 'A, ground': 0, A: 2 });
  await panel('Files').click();
  const pages = await readPdfPaths(await downloaded('Templates'));
  const [sewing] = pages.flatMap(({ paths }) => paths.filter(({ mark }) => mark === 'sewing').map(({ path }) => pathBox(path)));
  expect(sewing && widthOf(sewing)).toBeCloseTo(76.2, 3);
  expect(sewing && heightOf(sewing)).toBeCloseTo(76.2, 3);
  await panel('Quilt').click();
  await typed(/^Columns/, '3');
  await typed(/^Rows/, '4');
  await typed(/^Sashing/, '2in');
  await page.getByRole('img', { name: 'The quilt in its fabrics' }).waitFor();
  await page.getByText('22 in', { exact: false }).first().waitFor();
  await panel('Quilting line').click();
  await picked('Quilted along', 'River wave');
  await page.getByText('What it comes to').waitFor();
  expect(await reading('In one go').textContent()).toBe('yes');
  const before = Number.parseFloat((await reading('Length of the line').textContent()) ?? '');
  // Arrow keys try one pattern after another at the same place and size.
  await page.getByRole('combobox', { name: 'Quilted along' }).press('ArrowRight');
  await page.getByRole('combobox', { name: 'Quilted along' }).getByText('Ripples').waitFor();
  await settled(page);
  await expect.poll(async () => Number.parseFloat((await reading('Length of the line').textContent()) ?? '')).not.toBe(before);
  await panel('Files').click();
  const stitches = (await downloaded('Stitches')).toString('utf8').trim().split(/\r\n/);
  expect(stitches[0]).toBe('x,y,command');
  expect(stitches.length).toBeGreaterThan(2000);
});

it('a scanned block, sized by the length that is written at it, becomes printed templates of that size', async () => {
  const demo = demoJobs.find(({ name }) => name.startsWith('Mill Race')) as DemoJob;
  const scan = scanScene(demo.scene, { dpi: 150, tiltDegrees: 1.6, noise: 5, seed: 404 });
  await page.goto(address);
  await dropFile(page, 'mill race.png', 'image/png', await pngOf(scan.picture, 72));
  await page.waitForURL(/\/jobs\/[0-9a-f-]+/);
  await page.getByRole('application', { name: 'Light table' }).waitFor();
  await settled(page);
  const unsized = fitTrueUp({ widthPx: scan.picture.width, heightPx: scan.picture.height }, [], 72);
  for (const place of demo.scene.marks?.[demo.known.mark] ?? []) await clickInPicture(page, unsized, scan.at(place));
  await page.getByLabel('Its true length').fill(demo.known.text);
  await page.getByLabel('Its true length').press('Enter');
  await page.getByText('= 304.80 mm · 12 in').waitFor();
  await page.getByRole('button', { name: /^Trace:/ }).click();
  await page
    .getByText(/^\d+ pieces/)
    .first()
    .waitFor();
  await settled(page);
  await page.getByRole('button', { name: /^Make ready:/ }).click();
  await button('Add a process').click();
  await button('Add Quilting').click();
  await page.getByText('32 of 4 shapes').waitFor();
  expect(await reading('Lies on a grid of').textContent()).toBe('12 x 12');
  await panel('Files').click();
  const pages = await readPdfPaths(await downloaded('Templates'));
  const sizes = pages.flatMap(({ paths }) => paths.filter(({ mark }) => mark === 'sewing').map(({ path }) => pathBox(path)));
  // Corners lie on the twelfths of a 12 in block: whole inches apart, whichever way a template lies.
  expect(sizes.length).toBe(4);
  for (const box of sizes) for (const mm of [widthOf(box), heightOf(box)]) expect(Math.abs(mm / 12.7 - Math.round(mm / 12.7))).toBeLessThan(0.002); // biome-ignore format: one line
});

it('a seam that ends in the middle of a patch is named; patches that cannot be sewn right across have to be set in', async () => {
  const frame = polygonPath([{ x: 10, y: 10 }, { x: 110, y: 10 }, { x: 110, y: 110 }, { x: 10, y: 110 }]); // biome-ignore format: corners
  const seam = (x: number, y: number) => ({ start: { x: 60, y: 62 }, segments: [{ kind: 'line' as const, to: { x, y } }], closed: false });
  const id = await jobOfOutlines('Attic', [
    { name: 'Frame', paths: [frame] },
    ...[seam(60, 110), seam(10, 30), seam(110, 35), { ...seam(40, 20), start: { x: 30, y: 14 } }].map((path, k) => ({
      name: `Seam ${k + 1}`,
      paths: [path],
    })),
  ]);
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await button('Add a process').click();
  await button('Add Quilting').click();
  await page
    .getByText(/A seam ends in the middle of a patch at/)
    .first()
    .waitFor();
  await page.getByText(/3 patches \(A, B, C\) share no seam that runs right across/).waitFor();
  await page
    .getByText('Unit 1, sewn')
    .or(page.getByRole('img', { name: 'Unit 1, sewn' }))
    .first()
    .waitFor();
});

it('patterns are tried out over a block of a photographed quilt, and pinned side by side', async () => {
  const id = await copyOf('Harbour quilt');
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await panel('Try out').click();
  await button('Try Four petals').waitFor();
  await settled(page);
  const before = await reading('Length of the line').textContent();
  await button('Next pattern').click();
  await expect.poll(() => reading('Length of the line').textContent()).not.toBe(before);
  await page.getByRole('button', { name: /^Pin / }).click();
  await button('Try Ring of loops').waitFor();
  await button('Try Stippling').click();
  await page.getByRole('combobox', { name: 'Quilted along' }).getByText('Stippling').waitFor();
  await settled(page);
  const { settings } = (await jobOf(id)).making.processes[0] ?? {};
  expect(settings?.pinned).toEqual(['corner-petals', 'net', 'stippling', 'loop-ring']);
  expect(settings?.line).toMatchObject({ pattern: 'stippling', over: 'block' });
});

it('an appliqué has a background, shapes to turn under, and a placement guide; colours come from the picture, colourings are kept', async () => {
  const id = await copyOf('Mill Race');
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await panel('Fabrics').click();
  await page.getByRole('heading', { name: 'To buy' }).waitFor();
  await button('Take the colours from the picture').click();
  await page.getByRole('textbox', { name: 'Fabric 1' }).and(page.locator('[value="Fabric 1"]')).waitFor();
  await button('Keep this colouring').click();
  await button('Take up colouring 1').waitFor();
  await panel('Block').click();
  await picked('How it is made', 'Appliqué');
  await page.getByText('21 of 4 shapes').waitFor();
  await panel('Files').click();
  const pages = await readPdfPaths(await downloaded('Placement guide'));
  const [background] = pages.flatMap(({ paths }) => paths.filter(({ mark }) => mark === 'cutting').map(({ path }) => pathBox(path)));
  expect(background && widthOf(background)).toBeCloseTo(304.8, 2);
});

it('a motif goes into every block, a wave round the border and a line of one’s own through the middle; the start is clicked on', async () => {
  const square = polygonPath([{ x: 10, y: 10 }, { x: 110, y: 10 }, { x: 110, y: 110 }, { x: 10, y: 110 }]); // biome-ignore format: corners
  const stitch = (x0: number, y0: number, x1: number, y1: number) => ({ start: { x: x0, y: y0 }, segments: [{ kind: 'line' as const, to: { x: x1, y: y1 } }], closed: false }); // biome-ignore format: one line
  const id = await jobOfOutlines('Sail loft', [
    { name: 'Cloth', paths: [square] },
    { name: 'Mast', purpose: 'stitch', paths: [stitch(60, 20, 60, 100)] },
    { name: 'Yard', purpose: 'stitch', paths: [stitch(30, 80, 90, 80)] },
  ]);
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await button('Add a process').click();
  await button('Add Quilting').click();
  await page.getByText('1 of 1 shape').waitFor();
  await typed(/^Finished size/, '12in');
  await panel('Quilting line').click();
  await picked('Quilted along', 'Drawn lines with the purpose stitch');
  await picked('Where', 'The block');
  await settled(page);
  // The foot of the mast, 1/10 of the block up from its lower edge: the line starts there, sews the mast up and the yard to and fro.
  await button('Choose').first().click();
  const view = page.getByRole('img', { name: 'The quilting line' });
  const box = (await view.boundingBox()) as { x: number; y: number; width: number; height: number };
  const side = Math.min(box.width, box.height) - 72;
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2 + 0.4 * side);
  await page.getByText('Starts here').waitFor();
  await settled(page);
  const { settings = {} } = (await jobOf(id)).making.processes.find(({ process }) => process === 'quilting') ?? {};
  const { startAt } = settings.line as unknown as { startAt: { x: number; y: number } };
  expect(Math.abs(startAt.x - 152.4)).toBeLessThan(2);
  expect(Math.abs(startAt.y - 30.48)).toBeLessThan(2);
  await panel('Files').click();
  const rows = (await downloaded('Stitches')).toString('utf8').trim().split(/\r\n/);
  const [x, y] = (rows[1] as string).split(',').map(Number);
  expect([x, y]).toEqual([152.4, 30.48]);
  await panel('Quilt').click();
  await typed(/^Columns/, '2');
  await button('Add a border').click();
  await picked('Border 1 of', 'Flying geese');
  await page.getByText(/^Units: 4 across, each/).waitFor();
  await panel('Quilting line').click();
  await picked('Quilted along', 'Mill wheel');
  await page.getByText('In every block of the quilt').click();
  await button('Quilt another place as well').click();
  await picked('Quilted along', 'River wave');
  await picked('Where', 'Borders');
  await page.getByText('Mill wheel: the block, in every block').waitFor();
  await expect.poll(() => reading('In one go').textContent()).toBe('no, 3 lines');
  await typed(/^Machine reaches/, '10in');
  await page.getByText(/sewn in 2 passes, with marks/).waitFor();
  await panel('Cutting').click();
  await typed(/^Side 1 of A/, '1in');
  await page
    .getByRole('table', { name: 'Cutting list' })
    .getByText(/12 1\/2 x 13 1\/4|317\.5 x 336\.55/)
    .waitFor();
});
