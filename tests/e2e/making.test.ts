/** Making ready as a person would: files that say how exact they are, pages, a folded carton, the stand-in cutter. */
import { readFileSync } from 'node:fs';
import { type JobDocument, jobOfDocument } from '@nuvet/core/job';
import { circlePath, type Path, type Point, reversedPath } from '@nuvet/core/plane';
import { demoJobs } from '@nuvet/truth';
import { unzipSync } from 'fflate';
import { PDFDocument } from 'pdf-lib';
import type { Download, Page } from 'playwright-core';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { svgSeen } from '../unit/outside-readers.ts';
import { settled } from './browser.ts';
import { drivenPage } from './driven-page.ts';
import { address, boxPath, jobOf, jobOfOutlines, json } from './server.ts';

let page: Page;
drivenPage((opened) => {
  page = opened;
});

const button = (name: string | RegExp) => page.getByRole('button', { name, exact: true });
const p = (x: number, y: number): Point => ({ x, y });
const newJob = (
  name: string,
  paths: readonly Path[] = [boxPath(0, 0, 120, 80), reversedPath(circlePath(p(60, 40), 20))],
): Promise<string> => jobOfOutlines(name, [{ name: 'Plate', paths }]);
const typed = async (label: string | RegExp, value: string): Promise<void> => {
  const field = page.getByRole('textbox', { name: label }).first();
  await field.fill(value);
  await field.press('Enter');
};
const downloaded = async (name: string): Promise<{ name: string; bytes: Buffer }> => {
  const [download] = await Promise.all([page.waitForEvent('download') as Promise<Download>, button(name).click()]);
  return { name: download.suggestedFilename(), bytes: readFileSync((await download.path()) as string) };
};
/** Opens a panel of a process; the job gets the process where it has none. */
async function openDemo(name: string, process: string, panel: string): Promise<void> {
  const { body } = await json('GET', `/api/jobs?search=${encodeURIComponent(name)}`);
  const demo = (body as { jobs: { id: string; name: string }[] }).jobs.find((job) => job.name.includes(name));
  await page.goto(`${address}/jobs/${demo?.id}?stage=make-ready`);
  await button('Add a process').waitFor();
  if ((await button(process).count()) > 0) await button(process).click();
  else await addProcess(process);
  await button(panel).click();
}
async function addProcess(word: string): Promise<void> {
  await button('Add a process').click();
  await button(`Add ${word}`).click();
  await button(word).waitFor();
}
/** The settings of a job's process as they are kept. */
const settingsOf = async (id: string, process: string) =>
  (await jobOf(id)).making.processes.find((entry) => entry.process === process)?.settings;

it('a kerf moves the outlines; each file says how far it is off; all come in one zip, named by the pattern', async () => {
  const id = await newJob('Weir plate');
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await page.getByText(/2 toolpaths, inside first/).waitFor();
  await typed(/^Kerf/, '0.2');
  await page.getByText(/Outer outlines lie 0.1 mm out/).waitFor();
  await button('Files').click();
  const svg = await downloaded('SVG: download');
  expect(svg.name).toBe('Weir-plate-outlines.svg');
  const seen = svgSeen(svg.bytes.toString());
  expect([seen.widthMm, seen.heightMm]).toEqual([120.2, 80.2]);
  await page.getByRole('group', { name: 'SVG' }).getByText('Read back: off by 0.000 mm at most, 120.20 x 80.20 mm.').waitFor();
  await page.getByLabel('Files are named').fill('{job}_{what}_r{revision}');
  await page.getByLabel('Files are named').press('Enter');
  await settled(page);
  const zip = await downloaded('Download the set (5 files) as a zip');
  expect(zip.name).toMatch(/^Weir-plate_files_r\d+\.zip$/);
  const files = unzipSync(zip.bytes);
  expect(
    Object.keys(files)
      .map((f) => f.split('.').at(-1))
      .sort(),
  ).toEqual(['dxf', 'gcode', 'pdf', 'png', 'svg']);
  const { width, height, density } = await sharp(
    Buffer.from(Object.entries(files).find(([f]) => f.endsWith('.png'))?.[1] ?? []),
  ).metadata();
  expect(density).toBe(600);
  expect(((width ?? 0) / 600) * 25.4).toBeCloseTo(122.2, 0);
  expect(((height ?? 0) / 600) * 25.4).toBeCloseTo(82.2, 0);
  // The job itself, as its document.
  const document = JSON.parse((await downloaded('Download the job’s document')).bytes.toString()) as JobDocument;
  expect(jobOfDocument(document)).toEqual(await jobOf(id));
});

it('kerf and settings go on the shelf with the stock, the machine by its name, and come back in another job', async () => {
  const first = await newJob('First');
  await page.goto(`${address}/jobs/${first}?stage=make-ready`);
  await page.getByRole('combobox', { name: 'Stock' }).fill('Heron ply');
  await page.getByRole('combobox', { name: 'Stock' }).press('Enter');
  await typed('Measured thickness', '3.1');
  await typed(/^Kerf/, '0.14');
  await settled(page);
  await button('Put thickness, kerf and settings on the shelf').click();
  await page.getByText('Heron ply is on the shelf.').waitFor();
  await button('Files').click();
  await page.getByRole('combobox', { name: 'Machine' }).fill('Barn laser');
  await page.getByRole('combobox', { name: 'Machine' }).press('Enter');
  await page.getByRole('combobox', { name: 'Origin at' }).click();
  await page.getByRole('option', { name: 'Upper left' }).click();
  await settled(page);
  await button('Put this machine on the shelf').click();
  await page.getByText('Barn laser is on the shelf.').waitFor();
  const second = await newJob('Second');
  await page.goto(`${address}/jobs/${second}?stage=make-ready`);
  await page.getByRole('combobox', { name: 'Stock' }).fill('Heron ply');
  await page.getByRole('combobox', { name: 'Stock' }).press('Enter');
  await expect.poll(async () => (await settingsOf(second, 'laser'))?.kerfMm).toBe(0.14);
  expect((await jobOf(second)).making.stock.thicknessMm).toBe(3.1);
  await button('Files').click();
  await page.getByRole('combobox', { name: 'Machine' }).fill('Barn laser');
  await page.getByRole('combobox', { name: 'Machine' }).press('Enter');
  await expect.poll(async () => (await jobOf(second)).making.processes[0]?.machine.origin).toBe('upper-left');
});

it('a kerf gauge is a job of its own, and its reading sets the kerf', async () => {
  const id = await newJob('For a gauge');
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await button('Find the kerf with a gauge').click();
  const [gauge] = await Promise.all([page.context().waitForEvent('page'), button('Make the gauge as a job').click()]);
  await gauge.waitForURL(/jobs\//);
  const made = await jobOf(gauge.url().split('/jobs/')[1]?.split('?')[0] as string);
  await gauge.close();
  expect(made.drawn.filter((d) => d.purpose === 'cut').length).toBe(2);
  expect(made.making.processes.map(({ process, settings }) => [process, settings.kerfMm])).toEqual([['laser', 0]]);
  await page.getByRole('combobox', { name: 'The tab just fits the slot with' }).click();
  await page.getByRole('option', { name: '3 ticks: 9.70 mm' }).click();
  await page.getByText('(10 − 9.70) / 2 = 0.150 mm').waitFor();
  await expect.poll(async () => (await settingsOf(id, 'laser'))?.kerfMm).toBe(0.15);
});

it('full-size pages: the fewest are found, they are dragged as a whole, and the PDF has them with a map first', async () => {
  const id = await newJob('Big ring', [circlePath(p(0, 0), 180), reversedPath(circlePath(p(0, 0), 150))]);
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await addProcess('Paper');
  const count = async () => Number(await page.getByText('Pages used').locator('xpath=following-sibling::*').textContent());
  await page.getByText('Arranged for the fewest pages.').waitFor();
  await settled(page);
  const fewest = await count();
  const file = await downloaded('Download Pages');
  expect((await PDFDocument.load(file.bytes)).getPageCount()).toBe(fewest + 1);
  await button('Print').click();
  const table = await page.getByRole('application', { name: 'Light table' }).boundingBox();
  if (!table) throw new Error('there is no light table');
  const [x, y] = [table.x + table.width / 2, table.y + table.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 60, y + 45, { steps: 6 });
  await page.mouse.up();
  await page.getByText('Arranged by hand.').waitFor();
  await expect.poll(count).toBeGreaterThanOrEqual(fewest);
  await expect.poll(async () => (await settingsOf(id, 'paper'))?.place).toBeTruthy();
  await button('Print').click();
  await button('Use the fewest pages').click();
  await expect.poll(count).toBe(fewest);
  await typed('Margin', '140');
  await page.getByText('Margins and overlap leave no room on this paper.').waitFor();
});

it('the seed-packet carton folds up: thirteen panels of the right size, and nothing runs into anything once it is closed', async () => {
  await openDemo('Seed-packet carton', 'Paper', 'Fold');
  const view = page.getByRole('img', { name: 'The die line folded up' });
  await view.locator('canvas').waitFor();
  await page.getByText('Panels').first().waitFor();
  const all = page.getByRole('slider', { name: 'All creases' });
  await all.focus();
  await all.press('Home');
  for (let k = 0; k < 27; k++) await all.press('PageUp');
  await page.getByText('90°').first().waitFor();
  await page.getByText('No panel collides with another.').waitFor();
  // The picture shows it: board and print stand out from the ground.
  await page.waitForTimeout(2500);
  const { data, info } = await sharp(await view.screenshot())
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  let other = 0;
  for (let k = 0; k < data.length; k += 3)
    if (Math.abs((data[k] as number) - 0xf5) + Math.abs((data[k + 1] as number) - 0xf1) + Math.abs((data[k + 2] as number) - 0xe8) > 30)
      other++;
  expect(other / (info.width * info.height)).toBeGreaterThan(0.05);
  await page.getByRole('button', { name: /^Prove/ }).click();
  await page.getByText('The panels make this box.').waitFor();
  await typed('Depth', '27');
  await page
    .getByText(/For sides 27.0 x 84.0 mm are needed; the nearest, Panel \d, is 2\d/)
    .first()
    .waitFor();
  await button('Undo').click();
});

describe('the stand-in cutter', () => {
  const cut = async (name: string, between: () => Promise<void> = async () => {}): Promise<number> => {
    await openDemo(name, 'Laser', 'Cut');
    await typed(/^Kerf/, '0.1');
    await page.getByText(/Outer outlines lie 0.05 mm out|toolpaths?, inside first/).waitFor();
    await button('Cutter').click();
    await page.getByRole('combobox', { name: 'Runs' }).click();
    await page.getByRole('option', { name: '1000 times faster' }).click();
    await button('Cut it').click();
    await between();
    await page.getByRole('status', { name: 'The cutter' }).getByText('Done').waitFor();
    await page.getByText('Largest deviation').waitFor();
    return Number.parseFloat((await page.getByText('Largest deviation').locator('xpath=following-sibling::*').textContent()) ?? '');
  };

  // What is foam is larger than the cutter's bed.
  const onTheBed = demoJobs.filter((d) => !d.processes?.includes('foam'));

  it.each([...onTheBed.map((d) => d.name), 'Festival badge', 'Ferry bell bracket', 'Seed-packet carton'])(
    'cuts %s within 0.02 mm and the tolerance',
    async (name) => {
      expect(await cut(name)).toBeLessThanOrEqual(0.02 + 0.005);
    },
  );

  it('pauses, goes on where it stood, stops, and cuts again', async () => {
    await openDemo('River-wheel badge', 'Laser', 'Cutter');
    const status = page.getByRole('status', { name: 'The cutter' });
    await page.getByRole('combobox', { name: 'Runs' }).click();
    await page.getByRole('option', { name: '10 times faster', exact: true }).click();
    await button('Cut it').click();
    await status.getByText('Cutting').waitFor();
    await button('Pause').click();
    await status.getByText('Paused').waitFor();
    const line = await status.textContent();
    await page.waitForTimeout(700);
    expect(await status.textContent()).toBe(line);
    // A reload changes nothing for the cutter.
    await page.reload();
    await button('Laser').click();
    await button('Cutter').click();
    await status.getByText('Paused').waitFor();
    await button('Resume').click();
    await status.getByText('Cutting').waitFor();
    await page.waitForTimeout(500);
    await button('Stop').click();
    await status.getByText('Stopped').waitFor();
    await page.getByText(/Stopped at line \d+ of \d+/).waitFor();
    expect(await cut('River-wheel badge')).toBeLessThanOrEqual(0.025);
  });

  // In this file, since there is one machine, which cuts, mills or sews one job at a time.
  it('sews the quilting line of the quilt, and measures its stitches', async () => {
    await openDemo('Mill Race block', 'Quilting', 'Needle');
    await page.getByRole('combobox', { name: 'Runs' }).click();
    await page.getByRole('option', { name: '1000 times faster', exact: true }).click();
    await settled(page);
    await button('Sew it').click();
    await button('Stop').waitFor();
    await page.getByRole('status', { name: 'The needle' }).getByText('Done').waitFor();
    const reading = async (name: string) => Number.parseFloat((await page.getByText(name, { exact: true }).locator('xpath=following-sibling::*').textContent()) ?? ''); // biome-ignore format: one line
    // Chords of 2.5 mm leave a wave by a few hundredths.
    expect(await reading('Stitches off the line by')).toBeLessThan(0.05);
    expect(await reading('Line without stitches up to')).toBeLessThan(0.12);
  });
  it('mills the badge, tool after tool, and measures what is left', async () => {
    await openDemo('River-wheel badge', 'CNC', 'Mill');
    await page.getByRole('combobox', { name: 'Runs' }).click();
    await page.getByRole('option', { name: '1000 times faster', exact: true }).click();
    await settled(page);
    await button('Mill it').click();
    const status = page.getByRole('status', { name: 'The mill' });
    // What an earlier run left is gone once this one is under way.
    await button('Stop').waitFor();
    let puttings = 0;
    for (let k = 0; k < 3000 && (await status.getByText('Done').count()) === 0; k++) {
      // One look: answered, the button is off for a moment, and then gone.
      const answer = page.getByRole('button', { name: 'It is in', exact: true, disabled: false });
      if (await answer.isVisible()) {
        puttings++;
        await answer.dblclick();
      }
      await page.waitForTimeout(100);
    }
    expect(puttings).toBe(1);
    const measured = page
      .locator('section')
      .filter({ has: page.getByRole('heading', { name: 'The milled stock, measured', exact: true }) });
    expect(await measured.getByText('Gouges').locator('..').textContent()).toMatch(/none/);
    const off = await measured.getByText('Cut edges off by').locator('..').textContent();
    expect(Math.abs(Number(/-?\d+\.\d+/.exec(off ?? '')?.[0]))).toBeLessThan(0.07);
  });
});
