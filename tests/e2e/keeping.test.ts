/** What a job keeps: bytes, sizes, edits of two windows, edits without a connection. */
import { createHash } from 'node:crypto';
import { demoJobs, jpegOf, pngOf, type Scene, scanScene } from '@nuvet/truth';
import type { Browser, Page } from 'playwright-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { freshPage, settled, startBrowser } from './browser.ts';
import { address, jobWith, json, sendPicture } from './server.ts';

const scan = scanScene(demoJobs[1]?.scene as Scene, { dpi: 150, seed: 9 });
let browser: Browser;
beforeAll(async () => {
  browser = await startBrowser();
});
afterAll(async () => browser?.close());

describe('pictures', () => {
  it('come back byte for byte, also over many chunks', async () => {
    const png = await pngOf(scanScene(demoJobs[0]?.scene as Scene, { dpi: 300, seed: 3 }).picture, 300);
    expect(png.length).toBeGreaterThan(2 << 20);
    const picture = (await (await sendPicture('big.png', png)).json()) as { id: string };
    const back = Buffer.from(await (await fetch(`${address}/api/pictures/${picture.id}`)).arrayBuffer());
    const digest = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex');
    expect(digest(back)).toBe(digest(png));
  });
  it('on their side by Exif stand upright, in size, tiles and grey pixels', async () => {
    const jpeg = await jpegOf(scan.picture, 150, 6);
    const picture = (await (await sendPicture('phone.jpg', jpeg)).json()) as {
      id: string;
      widthPx: number;
      heightPx: number;
      resolution: unknown;
    };
    expect(picture).toMatchObject({ widthPx: scan.picture.height, heightPx: scan.picture.width, resolution: { dpi: 150 } });
    const grey = new Uint8Array(await (await fetch(`${address}/api/pictures/${picture.id}/grey`)).arrayBuffer());
    expect(grey.length).toBe(scan.picture.data.length);
    // Orientation 6 is shown turned a quarter clockwise: the stored lower left pixel comes to the upper left.
    const { width, height, data } = scan.picture;
    let off = 0;
    for (let y = 0; y < width; y += 7)
      for (let x = 0; x < height; x += 7)
        off += Math.abs((grey[y * height + x] as number) - (data[(height - 1 - x) * width + y] as number));
    expect(off / (Math.ceil(width / 7) * Math.ceil(height / 7))).toBeLessThan(4);
    expect((await fetch(`${address}/api/pictures/${picture.id}/tiles/0/0/0`)).headers.get('content-type')).toBe('image/jpeg');
    expect((await fetch(`${address}/api/pictures/${picture.id}/tiles/9/0/0`)).status).toBe(404);
  });
});

describe('the server', () => {
  it('answers what it does not understand with a word, and changes nothing', async () => {
    const { id } = await jobWith('Words', await pngOf(scan.picture, 150));
    const state = (await json('GET', `/api/jobs/${id}`)).body as { revision: number };
    for (const body of [
      {},
      { base: state.revision, steps: [] },
      { base: state.revision, steps: [{ step: 'do', command: { do: 'rename', name: '' } }] },
    ]) {
      expect(await json('POST', `/api/jobs/${id}/edits`, body)).toMatchObject({ status: 400, body: { code: 'not-understood' } });
    }
    expect(await json('POST', `/api/jobs/${id}/edits`, { base: state.revision, steps: [{ step: 'redo' }] })).toMatchObject({
      status: 422,
      body: { code: 'no-more-steps' },
    });
    expect((await json('GET', `/api/jobs/${id}`)).body).toMatchObject(state);
    expect((await json('GET', '/api/jobs/not-a-job')).status).toBe(404);
    expect((await json('GET', '/api/jobs/00000000-0000-4000-8000-00000000000f')).status).toBe(404);
  });
  it('takes steps all or none', async () => {
    const { id } = await jobWith('All or none', await pngOf(scan.picture, 150));
    const { revision } = (await json('GET', `/api/jobs/${id}`)).body as { revision: number };
    const steps = [
      { step: 'do', command: { do: 'rename', name: 'Half' } },
      { step: 'do', command: { do: 'leave-out', pieceIds: ['none'], leftOut: true } },
    ];
    expect(await json('POST', `/api/jobs/${id}/edits`, { base: revision, steps })).toMatchObject({
      status: 422,
      body: { code: 'no-piece' },
    });
    expect((await json('GET', `/api/jobs/${id}`)).body).toMatchObject({ revision, job: { name: 'All or none' } });
  });
  it('puts a job into the bin, its picture with it, and deletes neither', async () => {
    const { id, picture } = await jobWith('Gone', await pngOf(scan.picture, 150));
    expect((await json('DELETE', `/api/jobs/${id}`)).status).toBe(204);
    expect((await fetch(`${address}/api/pictures/${picture.id}`)).status).toBe(200);
    const page = await freshPage(browser);
    await page.goto(`${address}/jobs/${id}`);
    await page.getByText('This job is in the bin.').waitFor();
    await page.getByRole('button', { name: 'Restore' }).click();
    await expect
      .poll(async () => (await json('GET', '/api/jobs')).body)
      .toMatchObject({ jobs: expect.arrayContaining([expect.objectContaining({ id })]) });
    await page.goto(`${address}/jobs/${crypto.randomUUID()}`);
    await page.getByText('There is no job at this address.').waitFor();
  });
});

describe('two windows on one job', () => {
  const rename = async (page: Page, name: string) => {
    await page.getByLabel('Name of the job').fill(name);
    await page.getByLabel('Name of the job').press('Enter');
  };
  it('do not overwrite each other: the second is told, and may do its edit again on top', async () => {
    const { id } = await jobWith('Shared', await pngOf(scan.picture, 150));
    const [one, two] = [await freshPage(browser), await freshPage(browser)];
    for (const page of [one, two]) {
      await page.goto(`${address}/jobs/${id}?stage=bring-in`);
      await settled(page);
    }
    await rename(one, 'Named by one');
    await settled(one);
    await two.getByRole('button', { name: /^Unit mm, thickness/ }).click();
    await two.getByLabel('Unit of the job').click();
    await two.getByRole('option', { name: 'inches' }).click();
    await two.keyboard.press('Escape');
    await two.getByText('This job was changed in another window.').waitFor();
    expect((await json('GET', `/api/jobs/${id}`)).body).toMatchObject({ job: { name: 'Named by one', unit: 'mm' } });
    await two.getByRole('button', { name: 'Reload and reapply my changes' }).click();
    await settled(two);
    expect((await json('GET', `/api/jobs/${id}`)).body).toMatchObject({ job: { name: 'Named by one', unit: 'in' } });
    expect(await two.getByLabel('Name of the job').inputValue()).toBe('Named by one');
  });
  it('an edit made without a connection is kept, and saved when it is back', async () => {
    const { id } = await jobWith('Cellar', await pngOf(scan.picture, 150));
    const page = await freshPage(browser);
    await page.goto(`${address}/jobs/${id}?stage=bring-in`);
    await settled(page);
    await page.context().setOffline(true);
    await rename(page, 'Named in the cellar');
    await page.locator('[data-saving="no-connection"]').waitFor();
    await page.context().setOffline(false);
    await settled(page);
    expect((await json('GET', `/api/jobs/${id}`)).body).toMatchObject({ job: { name: 'Named in the cellar' } });
  });
  it('an edit made without a connection outlasts a reload, and a page that was closed', async () => {
    const { id } = await jobWith('Attic', await pngOf(scan.picture, 150));
    const page = await freshPage(browser);
    await page.goto(`${address}/jobs/${id}?stage=bring-in`);
    await settled(page);
    // The page itself can be had, its edits cannot be sent: as where the server restarts just then.
    await page.route('**/edits', (route) => route.abort());
    await rename(page, 'Named in the attic');
    await page.getByText('Your changes are kept in this browser').waitFor();
    // The newer answer goes before the older: no edit gets through between the two.
    await page.route('**/edits', (route) => route.fulfill({ status: 503, json: { code: 'database-away', message: 'away' } }));
    page.on('dialog', (dialog) => void dialog.accept());
    await page.close({ runBeforeUnload: false });
    const next = await page.context().newPage();
    await next.goto(`${address}/jobs/${id}?stage=bring-in`);
    await next.getByText('Edits that a closed window had not saved are saved now.').waitFor();
    expect(await next.getByLabel('Name of the job').inputValue()).toBe('Named in the attic');
    expect((await json('GET', `/api/jobs/${id}`)).body).toMatchObject({ job: { name: 'Named in the attic' } });
  });
});
