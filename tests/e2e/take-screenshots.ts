/** One picture of each main view, from the demo jobs, into docs/screenshots. */
import { mkdirSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
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
await page.getByText('Show the photograph as taken').waitFor();
await page.waitForTimeout(1500);
await page.getByText('recommended: perspective').scrollIntoViewIfNeeded();
await take('photograph');

await open('Heron lantern panel');
await stage('Trace');
await page.getByRole('table', { name: 'Pieces' }).locator('tbody tr').first().click();
await page.mouse.move(table.x + table.width * 0.47, table.y + table.height * 0.42);
for (let k = 0; k < 3; k++) await page.mouse.wheel(0, -260);
await settled(page);
await take('trace');

await open('Festival badge');
await stage('Trace');
await page.getByRole('group', { name: 'Colours to trace' }).waitFor();
await settled(page);
await take('colours');

const button = (name: string) => page.getByRole('button', { name, exact: true });
const at = (x: number, y: number) => [table.x + table.width * x, table.y + table.height * y] as const;

// Drawn over a scan: an outline in the making, its next point on the edge of what was traced.
await open('Heron lantern panel');
await stage('Trace');
await button('Draw').click();
for (const [x, y] of [[0.42, 0.29], [0.47, 0.28], [0.525, 0.3]] as const) await page.mouse.click(...at(x, y)); // biome-ignore format: places
await page.mouse.move(...at(0.49, 0.4));
await page.mouse.down();
await page.mouse.move(...at(0.475, 0.44), { steps: 4 });
await page.mouse.up();
await page.mouse.move(...at(0.5, 0.52), { steps: 4 });
await page.waitForTimeout(600);
await take('drawing');
await page.keyboard.press('Escape');
for (let k = 0; k < 4; k++) await page.keyboard.press('Control+z');
await settled(page);
await page.keyboard.press('Escape');
await page.keyboard.press('Escape');

// A lantern base as it was drawn first: a loose hub, a line without a purpose, a web too thin.
const circle = (x: number, y: number, r: number, way: 1 | -1 = 1) => ({
  start: { x: x + r, y },
  segments: [x - r, x + r].map((to) => ({ kind: 'arc', to: { x: to, y }, sweep: way * Math.PI })),
  closed: true,
});
const straight = (closed: boolean, ...xy: readonly (readonly [number, number])[]) => {
  const [start, ...rest] = (closed ? [...xy, xy[0] as readonly [number, number]] : xy).map(([x, y]) => ({ x, y }));
  return { start, segments: rest.map((to) => ({ kind: 'line', to })), closed };
};
const base = await page.request.post(`${address}/api/jobs`, { data: { name: 'Lantern base', pictureIds: [] } });
const { id: baseId } = (await base.json()) as { id: string };
const drawn = (id: string, name: string, ...paths: unknown[]) => ({
  step: 'do',
  command: { do: 'draw', drawn: { id, name, purpose: 'cut', leftOut: false, source: { kind: 'paths', paths }, live: [] } },
});
await page.request.post(`${address}/api/jobs/${baseId}/edits`, {
  data: {
    base: 1,
    wanted: false,
    steps: [
      drawn('base', 'Base', straight(true, [20, 20], [180, 20], [180, 130], [20, 130]), circle(100, 75, 36, -1), circle(34, 116, 13.4, -1)),
      drawn('hub', 'Hub', circle(100, 75, 20), circle(100, 75, 6, -1)),
      drawn('fold', 'Fold', straight(false, [30, 34], [170, 34])),
    ],
  },
});
await page.goto(`${address}/jobs/${baseId}?stage=prove`);
await button('Bridge it').click();
await button('Required overall').click();
await page.getByText('is an open line with no purpose set').waitFor();
await page.getByRole('button', { name: /^Go to: Base is .* at its thinnest/ }).hover();
await page.mouse.move(700, 785);
await settled(page);
await take('prove');
await page.request.delete(`${address}/api/jobs/${baseId}`);

const typed = async (label: RegExp | string, value: string) => {
  const field = page.getByRole('textbox', { name: label }).first();
  await field.fill(value);
  await field.press('Enter');
};
await open('Heron lantern panel');
await stage('Make ready');
await typed(/^Kerf/, '0.15');
await page.getByText(/Outer outlines lie/).waitFor();
await page.mouse.move(700, 785);
await settled(page);
await take('make-ready');
await button('Cut').click();
await typed(/^Kerf/, '0');
await settled(page);

await open('Mill Race block');
await stage('Make ready');
await page.getByText('What it is').waitFor();
await page.mouse.move(700, 785);
await settled(page);
await take('block');
// A float in space, half of it without its fair body; a wing panel; tools in a drawer.
await open('Paddle-otter float');
await stage('Make ready');
await button('In space').click();
await page
  .getByRole('img', { name: /body in space/ })
  .locator('canvas')
  .waitFor();
const apart = page.getByRole('slider', { name: 'Drawn apart' });
await apart.focus();
for (let k = 0; k < 14; k++) await apart.press('ArrowRight');
await page.mouse.move(700, 785);
await page.waitForTimeout(2500);
await take('foam');
const kite = await page.request.post(`${address}/api/jobs`, { data: { name: 'Lantern kite', pictureIds: [] } });
const { id: kiteId } = (await kite.json()) as { id: string };
await page.request.post(`${address}/api/jobs/${kiteId}/edits`, {
  data: { base: 1, wanted: false, steps: [drawn('rib', 'Rib', circle(60, 30, 12))] },
});
await page.goto(`${address}/jobs/${kiteId}?stage=make-ready`);
await button('Add a process').click();
await button('Add Wing cores').click();
await typed('NACA', '4415');
await typed(/^Tip chord/, '130');
await typed(/^Sweep/, '45');
await typed(/^Sheeting/, '1.5');
await button('Add a spar slot').click();
await settled(page);
await page.mouse.move(700, 785);
await page.waitForTimeout(800);
await take('wing');
await page.request.delete(`${address}/api/jobs/${kiteId}`);
await open('Bell-founder’s tools');
await stage('Make ready');
await page.getByText('Each object').waitFor();
await button('Drawer').click();
await page.getByRole('button', { name: /^3: / }).focus();
await page.mouse.move(700, 785);
await settled(page);
await page.waitForTimeout(800);
await take('tray');
// The badge as it is milled: its operations, and a trial run.
await open('River-wheel badge');
await stage('Make ready');
await button('Open the shelf').click();
await button('Use Walnut, 6 mm').click();
await settled(page);
await button('Operations').click();
await page.getByText('In all, about').waitFor();
await page.getByRole('listitem', { name: '1 Carve' }).scrollIntoViewIfNeeded();
await page.mouse.move(700, 785);
await page.waitForTimeout(1500);
await take('milling');
await button('Trial run').click();
await page.getByText('Taken off').waitFor();
await page.mouse.move(700, 785);
await page.waitForTimeout(6000);
await take('trial');
// An otter as a solid, looked over before it is printed; panels on their sheet; a bracket on a plan sheet.
await open('Otter toy');
await stage('Make ready');
await page.getByRole('img', { name: /solid in space/ }).locator('canvas').waitFor(); // biome-ignore format: one line
await page.getByRole('group', { name: 'Solid' }).getByRole('button', { name: 'Print', exact: true }).click(); // biome-ignore format: one line
await page.getByText('Stands on').waitFor({ timeout: 60_000 });
await page.mouse.move(700, 785);
await page.waitForTimeout(2500);
await take('solid');
await open('Heron panels, eight to a sheet');
await stage('Make ready');
await button('Nest').click();
await page.getByRole('img', { name: /Parts on their sheets/ }).locator('svg').waitFor(); // biome-ignore format: one line
await page.mouse.move(700, 785);
await settled(page);
await take('nest');
await open('Ferry bell bracket');
await stage('Make ready');
await button('Plan sheet').click();
await page.getByRole('img', { name: /The plan sheet/ }).locator('svg').waitFor(); // biome-ignore format: one line
await page.mouse.move(700, 785);
await settled(page);
await take('plan-sheet');
await page.goto(`${address}/shelf`);
await page.getByRole('row').filter({ hasText: 'Walnut, 6 mm' }).getByText('wood').click();
await page.getByRole('link', { name: 'River-wheel badge' }).waitFor();
await page.mouse.move(700, 785);
await page.waitForTimeout(600);
await take('shelf');
await browser.close();
