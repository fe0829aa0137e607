/** The screens as anyone may meet them: every stage passes an accessibility check, and the rarer controls do their work. */
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Job } from '@nuvet/core/job';
import { demoJobs, pngOf, type Scene, scanScene } from '@nuvet/truth';
import type { Page } from 'playwright-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { svgSeen } from '../unit/outside-readers.ts';
import { dropFile } from './bench-hand.ts';
import { settled } from './browser.ts';
import { drivenPage } from './driven-page.ts';
import { address, jobOf, jobWith, json } from './server.ts';

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
const scan = scanScene(demoJobs[3]?.scene as Scene, { dpi: 150, seed: 17 });
let page: Page;
let id: string;
const errors = drivenPage((opened) => {
  page = opened;
});
const job = async (): Promise<Job> => jobOf(id);
beforeAll(async () => {
  ({ id } = await jobWith('Screens', await pngOf(scan.picture, 150)));
});

/** What axe-core (WCAG 2.2 A and AA rules) holds against the page as it is. */
async function complaints(): Promise<string[]> {
  await page.addScriptTag({ content: axe });
  return page.evaluate(async () => {
    const run = (
      window as unknown as {
        axe: { run(context: Document, options: object): Promise<{ violations: { id: string; nodes: { html: string }[] }[] }> };
      }
    ).axe.run;
    const { violations } = await run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'] });
    return violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`);
  });
}

describe('accessibility', () => {
  it('the list of jobs', async () => {
    await page.goto(address);
    await page.waitForLoadState('networkidle');
    expect(await complaints()).toEqual([]);
  });
  it('the shelf with an item chosen', async () => {
    await page.goto(`${address}/shelf`);
    await page.getByRole('row').filter({ hasText: 'Walnut, 6 mm' }).getByText('wood').click();
    await page.getByText('Used by').waitFor();
    expect(await complaints()).toEqual([]);
  });
  it('adding a process, and the shelf beside a job', async () => {
    await page.goto(`${address}/jobs/${id}?stage=make-ready`);
    await page.getByRole('button', { name: 'Add a process' }).click();
    await page.getByRole('button', { name: 'Add Knife' }).waitFor();
    await page.waitForTimeout(300);
    expect(await complaints()).toEqual([]);
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Open the shelf' }).click();
    await page.getByRole('button', { name: 'Use Walnut, 6 mm' }).waitFor();
    await page.waitForTimeout(300);
    expect(await complaints()).toEqual([]);
    await page.keyboard.press('Escape');
  });
  it.each(['bring-in', 'true-up', 'trace', 'prove', 'make-ready'])('the stage %s', async (stage) => {
    await page.goto(`${address}/jobs/${id}?stage=${stage}`);
    await page.getByRole('application', { name: 'Light table' }).waitFor();
    if (stage === 'trace') await page.getByRole('table', { name: 'Pieces' }).waitFor();
    await settled(page);
    expect(await complaints()).toEqual([]);
  });
});

describe('the rarer controls', () => {
  it('a purpose given to a piece stands in the SVG as a group', async () => {
    await page.goto(`${address}/jobs/${id}?stage=trace`);
    await page.getByRole('table', { name: 'Pieces' }).locator('tbody tr').nth(1).click();
    await page.getByLabel('Purpose').click();
    await page.getByRole('option', { name: 'engrave' }).click();
    await settled(page);
    expect((await job()).traces[0]?.pieces.map((p) => p.purpose)).toEqual(['cut', 'engrave', 'cut']);
    await page.getByRole('button', { name: /^Make ready/ }).click();
    await page.getByRole('button', { name: 'Files', exact: true }).click();
    const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'SVG: download' }).click()]);
    const seen = svgSeen(readFileSync((await download.path()) as string, 'utf8'));
    expect(seen.groups).toEqual(['cut', 'engrave']);
    expect(seen.paths).toHaveLength(3);
  });
  it('processes, stock and thickness are kept', async () => {
    await page.getByRole('button', { name: 'Add a process' }).click();
    await page.getByRole('button', { name: 'Add Outlines' }).click();
    await page.getByRole('combobox', { name: 'Stock' }).fill('Insulation board');
    await page.getByLabel('Measured thickness').fill('2"');
    await page.getByLabel('Measured thickness').press('Enter');
    await expect.poll(async () => (await job()).making.stock).toMatchObject({ name: 'Insulation board', thicknessMm: 50.8 });
    expect((await job()).making.processes.map(({ process }) => process)).toEqual(['laser', 'outlines']);
  });
  it('the opacity slider works from the keyboard and is one step of undo', async () => {
    await page.getByRole('button', { name: /^Bring in/ }).click();
    const slider = page.getByLabel('Opacity of the picture');
    await slider.focus();
    await slider.press('Home');
    await expect.poll(async () => (await job()).pictures[0]?.opacity).toBe(0);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect.poll(async () => (await job()).pictures[0]?.opacity).toBe(1);
  });
  it('another picture lies beside the first, which keeps its trace; undo takes it out again', async () => {
    const other = scanScene(demoJobs[1]?.scene as Scene, { dpi: 100, seed: 18 });
    await dropFile(page, 'wheel.png', 'image/png', await pngOf(other.picture, 100));
    await page.getByText('2 pictures').first().waitFor();
    await settled(page);
    expect((await job()).traces[0]?.pieces.length).toBe(3);
    expect((await job()).pictures[1]?.place.x).toBeGreaterThan(100);
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect.poll(async () => (await job()).pictures.map((p) => p.name)).toEqual(['Screens.png']);
  });
  it('H hides the picture and shows it again; held, only until it is let go', async () => {
    await page.getByRole('application', { name: 'Light table' }).focus();
    await page.keyboard.press('h');
    await expect.poll(async () => (await job()).pictures[0]?.hidden).toBe(true);
    await page.keyboard.press('h');
    await expect.poll(async () => (await job()).pictures[0]?.hidden).toBe(false);
    await page.keyboard.down('h');
    await page.waitForTimeout(600);
    await page.keyboard.up('h');
    await page.waitForTimeout(300);
    expect((await job()).pictures[0]?.hidden).toBe(false);
  });
  it('turn, flip, tone and crop are edits of the picture, and its pixels stay', async () => {
    await page.getByRole('button', { name: 'Rotate 90° left' }).click();
    await page.getByRole('button', { name: 'Flip' }).click();
    await page.getByLabel('Invert').check();
    await settled(page);
    expect((await job()).pictures[0]).toMatchObject({ quarterTurns: 1, flipped: true, tone: { invert: true } });
    await page.getByRole('button', { name: 'Crop to a box' }).click();
    const box = await page.getByRole('application', { name: 'Light table' }).boundingBox();
    if (!box) throw new Error('there is no light table');
    for (const share of [0.4, 0.6]) await page.mouse.click(box.x + box.width * share, box.y + box.height * share);
    await expect.poll(async () => (await job()).pictures[0]?.crop?.length).toBe(4);
    await page.getByRole('button', { name: 'Show all again' }).click();
    for (let k = 0; k < 5; k++) await page.keyboard.press('Control+z');
    await settled(page);
    expect((await job()).pictures[0]).toMatchObject({ quarterTurns: 0, flipped: false, crop: null, tone: { invert: false } });
  });
  it('keys lead through the stages, and help names them', async () => {
    for (const [key, word] of [
      ['5', 'Make ready'],
      ['4', 'Prove'],
      ['2', 'True up'],
      ['3', 'Trace'],
    ] as const) {
      await page.keyboard.press(key);
      await expect.poll(() => page.getByRole('button', { name: new RegExp(`^${word}`) }).getAttribute('aria-current')).toBe('step');
    }
    await page.getByRole('button', { name: 'Help' }).click();
    await page.getByText('one step back; nothing drawn is lost').waitFor();
    await page.keyboard.press('Escape');
  });
  it('in the list of jobs a drawing stands for a job without a picture, and a word for an empty one', async () => {
    const made = async (name: string) => (await json('POST', '/api/jobs', { name, pictureIds: [] })).body as { id: string };
    const [ring, bare] = [await made('Ring of paper'), await made('Bare bench')];
    const figure = { kind: 'circle', centre: { x: 50, y: 50 }, radius: 30 };
    const drawn = { id: 'ring', name: 'Ring', purpose: 'cut', leftOut: false, source: { kind: 'figure', figure }, live: [] };
    const steps = [{ step: 'do', command: { do: 'draw', drawn } }];
    expect((await json('POST', `/api/jobs/${ring.id}/edits`, { base: 1, steps, wanted: false })).status).toBe(200);
    await page.goto(address);
    const card = (name: string) => page.getByRole('link').filter({ hasText: name });
    const shown = () => card('Ring of paper').locator('img').evaluate((img: HTMLImageElement) => img.naturalWidth); // biome-ignore format: one line
    await expect.poll(shown).toBeGreaterThan(0);
    await card('Ring of paper').getByText('1 piece').waitFor();
    await card('Bare bench').getByText('Nothing on it yet').waitFor();
    expect(await card('Bare bench').locator('img').count()).toBe(0);
    expect((await json('GET', '/api/jobs/00000000-0000-4000-8000-000000000000/drawing')).status).toBe(404);
    for (const { id: done } of [ring, bare]) await json('DELETE', `/api/jobs/${done}`);
  });
  it('a job goes into the bin and comes back, by Undo at once or from the bin later; it is renamed and duplicated in the list', async () => {
    await page.goto(`${address}/?search=Screens`);
    const menu = (name: string) => page.getByRole('button', { name: `More for ${name}` });
    await menu('Screens').click();
    await page.getByRole('menuitem', { name: 'Duplicate' }).click();
    await menu('Screens copy').waitFor();
    await menu('Screens copy').click();
    await page.getByRole('menuitem', { name: 'Rename' }).click();
    await page.getByLabel('New name of Screens copy').fill('Screens twin');
    await page.keyboard.press('Enter');
    await menu('Screens twin').waitFor();
    const bin = async (name: string) => {
      await menu(name).click();
      await page.getByRole('menuitem', { name: 'Move to the bin' }).click();
      await page.getByText(`“${name}” is in the bin.`).waitFor();
      await expect.poll(() => menu(name).count()).toBe(0);
    };
    await bin('Screens twin');
    await page.getByRole('button', { name: 'Undo' }).click();
    await menu('Screens twin').waitFor();
    await bin('Screens twin');
    await page.goto(`${address}/?search=Screens&bin=`);
    await page.getByRole('button', { name: 'Take Screens twin out of the bin' }).click();
    await expect.poll(() => page.getByText('Screens twin', { exact: true }).count()).toBe(0);
    await page.goto(`${address}/?search=Screens`);
    await menu('Screens twin').waitFor();
    expect(errors).toEqual([]);
  });
  it('an empty sheet of a typed size starts a job to draw on', async () => {
    await page.goto(address);
    await page.getByRole('button', { name: 'Empty sheet' }).click();
    await page.getByLabel('Sheet width').fill('12in');
    await page.getByLabel('Sheet width').press('Enter');
    await page.getByRole('button', { name: 'Start drawing' }).click();
    await page.waitForURL(/\/jobs\//);
    const made = await jobOf(/jobs\/([0-9a-f-]+)/.exec(page.url())?.[1] as string);
    expect(made.making.stock.widthMm).toBeCloseTo(304.8, 9);
    expect(made.making.stock.heightMm).toBe(200);
  });
});
