/** A wing panel as a new user would: four digits and coordinates, burn from calibration cuts, sent to the wire, measured by it. */
import { readFileSync } from 'node:fs';
import { nacaAirfoil } from '@nuvet/core/foam';
import { readWireProgram } from '@nuvet/core/formats';
import { polygonOf, reversedPath } from '@nuvet/core/plane';
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
const typed = async (label: string | RegExp, value: string): Promise<void> => {
  const field = page.getByRole('textbox', { name: label, exact: true });
  await field.fill(value);
  await field.press('Enter');
};
const reading = (name: string) => page.getByText(name, { exact: true }).locator('xpath=following-sibling::*');

it('a tapered panel is cut by the wire that it is streamed to, and comes out as its sections are', async () => {
  const id = await jobOfOutlines('Lantern kite', [{ name: 'Plate', paths: [boxPath(0, 0, 40, 30)] }]);
  await page.goto(`${address}/jobs/${id}?stage=make-ready`);
  await button('Add a process').click();
  await button('Add Wing cores').click();
  await page.getByRole('img', { name: /Root and tip over one another/ }).waitFor();
  await typed('NACA', '2400');
  await page.getByText(/names no section of four digits/).waitFor();
  await typed('NACA', '2414');
  const { upper, lower } = nacaAirfoil('0010');
  const round = [...polygonOf(reversedPath(upper), 1e-4), ...polygonOf(lower, 1e-4).slice(1)];
  await page.getByLabel('Tip: Choose a file of coordinates').setInputFiles({ name: 'tip.dat', mimeType: 'text/plain', buffer: Buffer.from(`Tip section\n${round.map(({ x, y }) => `${x.toFixed(6)} ${y.toFixed(6)}`).join('\n')}\n`) }); // biome-ignore format: one line
  await button('tip.dat: choose another').waitFor();
  await typed('Tip chord, mm', '150');
  await button('Cut').click();
  await page.getByText(/burn of the wire is not known/).waitFor();
  await button('Add a calibration cut').click();
  await typed('Cut 1 wide, mm', '0.9');
  await typed('At, mm/min', '300');
  await settled(page);
  expect((await jobOf(id)).making.processes.find(({ process }) => process === 'wing')?.settings).toMatchObject({
    root: { kind: 'naca', digits: '2414' },
    tip: { kind: 'coordinates', name: 'tip.dat' },
    burn: [{ burnMm: 0.9, mmPerMin: 300 }],
  });
  await button('Wire').click();
  await page.getByRole('combobox', { name: 'Runs' }).click();
  await page.getByRole('option', { name: /1,?000 times/ }).click();
  await button('Cut the panel').click();
  for (const face of ['Left face off by', 'Half-way off by', 'Right face off by']) {
    await expect.poll(() => reading(face).textContent()).toMatch(/mm/);
    expect(Number.parseFloat((await reading(face).textContent()) ?? '')).toBeLessThan(0.03);
  }
  await button('Files').click();
  const [download] = await Promise.all([page.waitForEvent('download') as Promise<Download>, button('Hot wire: download').click()]);
  expect(download.suggestedFilename()).toMatch(/\.zip$|\.gcode$/);
  if (download.suggestedFilename().endsWith('.gcode')) expect(readWireProgram(readFileSync((await download.path()) as string, 'utf8'), 'UV').length).toBeGreaterThan(50); // biome-ignore format: one line
});
