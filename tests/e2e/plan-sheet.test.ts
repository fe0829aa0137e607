/** A plan sheet as a new user would: a scale, dimensions left out and dragged, and files with those dimensions. */
import { readFileSync } from 'node:fs';
import { circlePath, reversedPath } from '@nuvet/core/plane';
import type { Download, Page } from 'playwright-core';
import { expect, it } from 'vitest';
import { settled } from './browser.ts';
import { drivenPage } from './driven-page.ts';
import { address, boxPath, jobOf, jobOfOutlines } from './server.ts';

let page: Page;
drivenPage((opened) => {
  page = opened;
});
const button = (name: string | RegExp) => page.getByRole('button', { name, exact: true });
const panel = (name: string) => page.getByRole('group', { name: 'Plan sheet' }).getByRole('button', { name, exact: true });

it('an outline with holes becomes a sheet with its dimensions, in millimetres and in inches', async () => {
  const id = await jobOfOutlines('Lantern bracket', [
    {
      name: 'Plate',
      paths: [boxPath(0, 0, 80, 40), reversedPath(circlePath({ x: 20, y: 15 }, 4)), reversedPath(circlePath({ x: 60, y: 15 }, 4))],
    },
  ]);
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await button('Add a process').click();
  await button('Add Plan sheet').click();
  const sheet = page.getByRole('img', { name: /The plan sheet/ });
  await sheet.locator('svg').waitFor();
  await page.getByText('Drawn at 2:1').waitFor();
  const texts = () => sheet.locator('text').allTextContents();
  expect(await texts()).toEqual(expect.arrayContaining(['80', '40', '20', '60', '15', '2x Ø8', 'Lantern bracket']));
  await panel('Dimensions').click();
  await page.getByRole('checkbox', { name: 'Across: 20', exact: true }).uncheck();
  await expect.poll(texts).not.toContain('20');
  // One is dragged farther out: it is kept where it was let go.
  const overall = await sheet.locator('text', { hasText: /^80$/ }).boundingBox();
  if (!overall) throw new Error('no overall dimension');
  const [x, y] = [overall.x + overall.width / 2, overall.y + overall.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x, y + 15, { steps: 4 });
  await page.mouse.up();
  await settled(page);
  const settings = async () => (await jobOf(id)).making.processes.find(({ process }) => process === 'plan-sheet')?.settings as { moved: { name: string; dy: number }[]; leftOut: string[] }; // biome-ignore format: one line
  expect(await settings()).toMatchObject({ leftOut: ['across 20.00'], moved: [{ name: 'overall across' }] });
  expect((await settings()).moved[0]?.dy).toBeLessThan(-2);
  await page.getByRole('combobox', { name: 'Lengths' }).click();
  await page.getByRole('option', { name: 'Decimal inches' }).click();
  await expect.poll(texts).toEqual(expect.arrayContaining(['3.150"', '2x Ø0.315"']));
  await panel('Files').click();
  const [download] = await Promise.all([page.waitForEvent('download') as Promise<Download>, button('DXF: download').click()]);
  const text = readFileSync((await download.path()) as string, 'utf8');
  // Overall two, one position across, one up, the diameter.
  expect(text.match(/^DIMENSION\r$/gm)?.length).toBe(5);
});
