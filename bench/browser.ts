/**
 * The application in headless Chromium with a 35-megapixel scan: frames while panning and zooming against an empty
 * page, the longest time the main thread is held, and how long a trace takes to show after a slider has moved.
 */
import { fullSheetScene, jpegOf, photographScene, plateScene, pngOf, scanScene } from '@nuvet/truth';
import type { Page } from 'playwright-core';
import { freshPage, settled, startBrowser } from '../tests/e2e/browser.ts';
import { measureHand } from './browser-hand.ts';
import { measureNeedle } from './browser-needle.ts';
import { measureShelf } from './browser-shelf.ts';
import { measureSpace } from './browser-space.ts';
import { framesWhile, row, wander } from './frames.ts';

export async function measureBrowser(address: string): Promise<void> {
  const browser = await startBrowser();
  const page = await freshPage(browser);
  await page.goto(address);
  const empty = await framesWhile(page, () => wander(page));
  row('an empty page', empty);
  const sheet = scanScene(fullSheetScene(), { dpi: 600, tiltDegrees: 0.5, seed: 2 });
  const bytes = await pngOf(sheet.picture, 600);
  const started = performance.now();
  const sent = await fetch(`${address}/api/pictures?name=sheet.png`, { method: 'POST', body: bytes as unknown as BodyInit });
  const picture = (await sent.json()) as { id: string };
  console.log(`${'35 megapixels brought in, tiles made'.padEnd(40)} ${(performance.now() - started).toFixed(0)} ms`);
  const made = await fetch(`${address}/api/jobs`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ name: 'Bench', pictureIds: [picture.id] }),
  });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`${address}/jobs/${id}?stage=true-up`);
  await settled(page);
  const table = await framesWhile(page, () => wander(page));
  row('picture alone, panned and zoomed', table);
  console.log(`${'  against the empty page'.padEnd(40)} ${(table.high / empty.high).toFixed(2)} times`);
  const opened = performance.now();
  const tracing = await framesWhile(page, async () => {
    await page.getByRole('button', { name: /^Trace/ }).click();
    await page.getByText('150 pieces').first().waitFor({ timeout: 120_000 });
  });
  console.log(
    `${'first trace, picture fetched and read'.padEnd(40)} ${(performance.now() - opened).toFixed(0)} ms; longest task ${tracing.longestTask.toFixed(0)} ms`,
  );
  await settled(page);
  row('picture and 150 pieces, panned and zoomed', await framesWhile(page, () => wander(page)));
  await measureSlider(page);
  await fetch(`${address}/api/jobs/${id}`, { method: 'DELETE' });
  await measureHand(page, address, empty);
  for (const [widthPx, heightPx] of [[4000, 3000], [7000, 5000]] as const) await measureRectification(page, address, widthPx, heightPx); // biome-ignore format: two sizes
  await measureShelf(page, address);
  await measureNeedle(page, address);
  await measureSpace(page, address);
  await browser.close();
}

/** A photograph with its frame stated: the warp alone, in two workers, and all until it is shown flat. */
async function measureRectification(page: Page, address: string, widthPx: number, heightPx: number): Promise<void> {
  const scene = { ...plateScene, widthMm: 180, heightMm: 130 };
  const photo = photographScene(scene, { widthPx, heightPx, tiltDegrees: 20, seed: 3 });
  const post = async (path: string, body: BodyInit, type = 'application/json') =>
    (await (await fetch(`${address}${path}`, { method: 'POST', body, headers: { 'Content-Type': type } })).json()) as { id: string };
  const picture = await post('/api/pictures?name=photo.jpg', (await jpegOf(photo.picture, 72)) as unknown as BodyInit, 'image/jpeg');
  const { id } = await post('/api/jobs', JSON.stringify({ name: 'Bench', pictureIds: [picture.id] }));
  const { revision } = (await (await fetch(`${address}/api/jobs/${id}`)).json()) as { revision: number };
  const corners = [[0, 130], [180, 130], [180, 0], [0, 0]].map(([x, y]) => photo.at({ x: x as number, y: y as number })); // biome-ignore format: corners
  const stated = [180, 130].map((value) => ({ text: `${value} mm`, value }));
  const mark = { id: 'frame', kind: 'frame', points: corners, stated };
  await post(
    `/api/jobs/${id}/edits`,
    JSON.stringify({ base: revision, steps: [{ step: 'do', command: { do: 'add-mark', pictureId: picture.id, mark } }], wanted: false }),
  );
  const started = performance.now();
  await page.goto(`${address}/jobs/${id}?stage=true-up`);
  const rectifying = await framesWhile(page, () => page.getByText('Show the photograph as taken').waitFor({ timeout: 120_000 }));
  const shown = performance.now() - started;
  const warp = await page.evaluate(() => performance.getEntriesByName('laid flat')[0]?.duration ?? Number.NaN);
  console.log(
    `${`${((widthPx * heightPx) / 1e6).toFixed(0)} megapixels laid flat in two workers`.padEnd(40)} ${warp.toFixed(0)} ms; opened, read, laid flat, kept and shown ${shown.toFixed(0)} ms; longest task ${rectifying.longestTask.toFixed(0)} ms`,
  );
  await fetch(`${address}/api/jobs/${id}`, { method: 'DELETE' });
}

/** How long after a key on the tolerance's slider the table shows a first look, and the finished outlines. */
async function measureSlider(page: Page): Promise<void> {
  await page.getByLabel('Tolerance').first().focus();
  for (const name of ['first move of a slider', 'a further move of a slider', 'one more']) {
    await page.evaluate(() => {
      const kept = window as unknown as { pressed: number };
      performance.clearMarks();
      document.addEventListener(
        'keydown',
        () => {
          kept.pressed = performance.now();
        },
        { once: true, capture: true },
      );
    });
    const frames = await framesWhile(page, async () => {
      await page.keyboard.press('PageUp');
      await page.waitForTimeout(5200);
    });
    const shown = await page.evaluate(() => {
      const { pressed } = window as unknown as { pressed: number };
      return performance.getEntriesByName('outlines painted').map(({ startTime }) => startTime - pressed);
    });
    // The last time is where the job has taken in what was shown already.
    console.log(
      `${name.padEnd(40)} first look ${shown[0]?.toFixed(0)} ms (100 asked), finished ${shown[1]?.toFixed(0)} ms (1500 asked); longest task ${frames.longestTask.toFixed(0)} ms, of script alone ${frames.longestScript.toFixed(0)} (50 asked)`,
    );
  }
}
