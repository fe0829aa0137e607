/** One picture of each main view, from the demo jobs, into docs/screenshots. */
import { mkdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { demoJobs, pngOf, type Scene, scanScene } from '@nuvet/truth';
import { freshPage, settled, startBrowser } from './browser.ts';
import { address } from './server.ts';

const folder = fileURLToPath(new URL('../../docs/screenshots', import.meta.url));
mkdirSync(folder, { recursive: true });
const browser = await startBrowser();
const page = await freshPage(browser);
const take = (name: string) => page.screenshot({ path: `${folder}/${name}.png` });
const stage = async (word: string) => {
  await page.getByRole('button', { name: new RegExp(`^${word}:`) }).click();
  await page.mouse.move(700, 785);
  await settled(page);
};
const open = async (job: string) => {
  await page.goto(address);
  await page.getByText(job).click();
  await page.getByRole('application', { name: 'Light table' }).waitFor();
  await settled(page);
};

await page.goto(address);
await page.waitForLoadState('networkidle');
await take('jobs');

await open('Heron lantern panel');
await stage('Bring in');
await take('bring-in');

await open('River-wheel badge');
await stage('True up');
// With the magnifier over the last tick of the rule.
const table = await page.getByRole('application', { name: 'Light table' }).boundingBox();
if (!table) throw new Error('there is no light table');
await page.getByRole('button', { name: 'Distance', exact: true }).click();
await page.mouse.move(table.x + table.width * 0.753, table.y + table.height * 0.824);
await settled(page);
await take('true-up');
await page.keyboard.press('Escape');

await open('Ferry bell bracket');
await stage('True up');
await page.getByText('Show it as it was photographed').waitFor();
await page.waitForTimeout(1500);
await page.getByText('recommended: perspective').scrollIntoViewIfNeeded();
await take('photograph');

// A scan that has just come in, with what was found in it.
await page.goto(address);
const scan = scanScene(demoJobs[2]?.scene as Scene, { dpi: 220, tiltDegrees: 1.6, seed: 9 });
await page
  .getByLabel('Picture file')
  .setInputFiles({ name: 'mill-race.png', mimeType: 'image/png', buffer: await pngOf(scan.picture, null) });
await page.waitForURL(/jobs\//);
await page.getByText('Found in the picture').waitFor({ timeout: 60_000 });
await settled(page);
await take('suggestions');

await open('Heron lantern panel');
await stage('Bring in');
await page.getByRole('button', { name: 'Scanner' }).click();
await page.getByRole('button', { name: 'Preview' }).click();
await page.getByAltText('What lies on the scanner').waitFor({ timeout: 60_000 });
await settled(page);
await take('scanner');

await open('Heron lantern panel');
await stage('Trace');
await page.getByRole('table', { name: 'Pieces' }).locator('tbody tr').first().click();
await page.mouse.move(table.x + table.width * 0.47, table.y + table.height * 0.42);
for (let k = 0; k < 3; k++) await page.mouse.wheel(0, -260);
await settled(page);
await take('trace');

await open('Lantern box die line');
await stage('Trace');
await settled(page);
await take('die-line');

await open('Ferry bell bracket');
await stage('Trace');
await page.getByRole('button', { name: 'Compare tolerances' }).click({ timeout: 60_000 });
await page.getByRole('group', { name: 'Points against largest distance' }).waitFor({ timeout: 60_000 });
await page.getByRole('switch', { name: 'Colour by distance' }).click();
await page.getByRole('group', { name: 'Points against largest distance' }).scrollIntoViewIfNeeded();
await settled(page);
await take('closeness');

await open('Festival badge');
await stage('Trace');
await page.getByRole('group', { name: 'Colours that are meant' }).waitFor({ timeout: 60_000 });
await settled(page);
await take('colours');

await open('Mill Race block');
await stage('Trace');
await page.getByRole('button', { name: 'Look for level, parallel, equal …' }).click();
await page.getByRole('group', { name: 'Relations found' }).scrollIntoViewIfNeeded();
await settled(page);
await take('relations');
await page.getByRole('button', { name: 'Leave as it is' }).click();

await open('Ferry bell bracket');
await stage('Trace');
await page.getByRole('button', { name: 'Along the edge' }).click({ timeout: 60_000 });
for (const [x, y, said] of [[0.322, 0.402, 'Move on along'], [0.489, 0.318, '1 part held'], [0.644, 0.267, '2 parts held']] as const) {
  await page.mouse.move(table.x + table.width * x, table.y + table.height * y, { steps: 6 });
  await page.mouse.click(table.x + table.width * x, table.y + table.height * y);
  await page.getByText(said).waitFor({ timeout: 60_000 });
} // biome-ignore format: a click a place
await page.mouse.move(table.x + table.width * 0.768, table.y + table.height * 0.36, { steps: 6 });
await page.waitForTimeout(1500);
await take('along-edge');

await open('Mill Race block');
await stage('Prove');
await take('prove');

await open('Paddle-otter float');
await stage('Make ready');
await take('make-ready');
await browser.close();
