/**
 * What is drawn by hand in headless Chromium: 10,000 segments panned and zoomed, points of live chains dragged.
 */
import { type JobDocument, jobOfDocument, workBoxOf } from '@nuvet/core/job';
import type { Point } from '@nuvet/core/plane';
import type { Page } from 'playwright-core';
import { toScreen, wholeSheet } from '../apps/web/src/table/view.ts';
import { settled } from '../tests/e2e/browser.ts';
import { type Frames, framesWhile, row, wander } from './frames.ts';

const post = async (address: string, path: string, body: unknown) =>
  (await (
    await fetch(`${address}${path}`, { method: 'POST', body: JSON.stringify(body), headers: { 'Content-Type': 'application/json' } })
  ).json()) as { id: string };

const draw = (drawn: object) => ({
  step: 'do',
  command: { do: 'draw', drawn: { name: 'Bench', purpose: 'cut', leftOut: false, live: [], ...drawn } },
});

/** 10,000 drawn segments panned and zoomed, and a point of a live chain dragged beside them. */
export async function measureHand(page: Page, address: string, empty: Frames): Promise<void> {
  const { id } = await post(address, '/api/jobs', { name: 'Bench', pictureIds: [] });
  const ring = (cx: number, cy: number) => {
    const at = (k: number) => ({
      x: cx + (5 + (k % 2)) * Math.cos((2 * Math.PI * k) / 100),
      y: cy + (5 + (k % 2)) * Math.sin((2 * Math.PI * k) / 100),
    });
    return { start: at(0), segments: Array.from({ length: 100 }, (_, k) => ({ kind: 'line', to: at((k + 1) % 100) })), closed: true };
  };
  const rings = Array.from({ length: 100 }, (_, k) => draw({ id: `ring-${k}`, source: { kind: 'path', path: ring(10 + 18 * (k % 10), 8 + 14 * Math.floor(k / 10)) } })); // biome-ignore format: one line
  const corners = [[92, 70], [108, 70], [106, 130], [94, 130]].map(([x, y]) => ({ at: { x, y }, corner: true })); // biome-ignore format: one line
  const live = [
    { kind: 'turn', centre: { x: 100, y: 75 }, count: 6, mirrored: false, axis: 0 },
    { kind: 'round', size: 1, which: 'all', how: 'round' },
    { kind: 'offset', by: 2, count: 1, corners: 'round', keeps: true },
  ];
  const chain = draw({ id: 'chain', source: { kind: 'points', points: corners, closed: true }, live });
  await post(address, `/api/jobs/${id}/edits`, { base: 1, steps: [...rings, chain], wanted: false });
  await page.goto(`${address}/jobs/${id}?stage=trace`);
  await settled(page);
  await page.getByRole('button', { name: 'Correct', exact: true }).click();
  const hand = await framesWhile(page, () => wander(page));
  row('10,000 drawn segments, panned and zoomed', hand);
  console.log(`${'  against the empty page'.padEnd(40)} ${(hand.high / empty.high).toFixed(2)} times`);
  await page.reload();
  await settled(page);
  await page.getByRole('button', { name: 'Correct', exact: true }).click();
  await page.getByRole('list', { name: 'Drawn' }).getByRole('button').last().click();
  row('  a point of a live chain of three dragged', await dragged(page, address, id, { x: 106, y: 130 }));
  await fetch(`${address}/api/jobs/${id}`, { method: 'DELETE' });
  await measureLongChain(page, address);
}

/** Half an outline of 1,000 points, mirrored, rounded and set off; one of its points dragged. */
async function measureLongChain(page: Page, address: string): Promise<void> {
  const { id } = await post(address, '/api/jobs', { name: 'Bench', pictureIds: [] });
  const points = Array.from({ length: 1001 }, (_, k) => {
    const angle = -Math.PI / 2 + (Math.PI * k) / 1000;
    const r = 100 + 6 * Math.sin(8 * angle);
    return { at: { x: k % 1000 === 0 ? 0 : r * Math.cos(angle), y: r * Math.sin(angle) }, corner: k % 100 === 0 };
  });
  const live = [
    { kind: 'mirror', a: { x: 0, y: 0 }, b: { x: 0, y: 1 } },
    { kind: 'round', size: 0.05, which: 'all', how: 'round' },
    { kind: 'offset', by: 2, count: 1, corners: 'round', keeps: true },
  ];
  const chain = draw({ id: 'chain', source: { kind: 'points', points, closed: false }, live });
  await post(address, `/api/jobs/${id}/edits`, { base: 1, steps: [chain], wanted: false });
  await page.goto(`${address}/jobs/${id}?stage=trace`);
  await settled(page);
  await page.getByRole('button', { name: 'Correct', exact: true }).click();
  await page.getByRole('list', { name: 'Drawn' }).getByRole('button').last().click();
  row('  of a chain on 2,000 segments', await dragged(page, address, id, (points[500] as (typeof points)[0]).at));
  await fetch(`${address}/api/jobs/${id}`, { method: 'DELETE' });
}

/** A point at a place dragged about there. */
async function dragged(page: Page, address: string, id: string, point: Point): Promise<Frames> {
  const box = await page.getByRole('application', { name: 'Light table' }).boundingBox();
  if (!box) throw new Error('there is no light table');
  const { job } = (await (await fetch(`${address}/api/jobs/${id}`)).json()) as { job: JobDocument };
  const view = wholeSheet(workBoxOf(jobOfDocument(job)), { width: box.width, height: box.height });
  const at = toScreen(view, point);
  await page.mouse.move(box.x + at.x, box.y + at.y);
  return framesWhile(page, async () => {
    await page.mouse.down();
    for (let k = 0; k < 60; k++) await page.mouse.move(box.x + at.x + 30 * Math.sin(k / 5), box.y + at.y - 20 * Math.sin(k / 7));
    await page.mouse.up();
  });
}
