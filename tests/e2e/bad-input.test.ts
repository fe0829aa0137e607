/** What goes wrong at a bench, and what is said about it: plainly, at its place, with nothing lost. */
import { crc32, deflateSync } from 'node:zlib';
import { demoJobs, jpegOf, pngOf, type Scene, scanScene } from '@nuvet/truth';
import type { Page } from 'playwright-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { dropFile } from './bench-hand.ts';
import { settled } from './browser.ts';
import { drivenPage } from './driven-page.ts';
import { address, jobWith, json } from './server.ts';

const scan = scanScene(demoJobs[1]?.scene as Scene, { dpi: 120, seed: 5 });
let page: Page;
let id: string;
const errors = drivenPage((opened) => {
  page = opened;
});
beforeAll(async () => {
  ({ id } = await jobWith('Bad days', await pngOf(scan.picture, 120)));
});

describe('a picture that cannot be one', async () => {
  const pictures: [name: string, type: string, bytes: () => Promise<Buffer>, message: RegExp][] = [
    [
      'notes.png',
      'image/png',
      async () => Buffer.from('Dear workshop, the panel is 130 mm wide.'),
      /“notes.png” is not a picture that Nuvet can read/,
    ],
    ['short.jpg', 'image/jpeg', async () => (await jpegOf(scan.picture, 120)).subarray(0, 9000), /“short.jpg” is damaged or was cut short/],
    ['huge.png', 'image/png', async () => hugePng(), /20000 x 20000 pixels, 400 megapixels. Nuvet takes up to 100/],
    ['nothing.png', 'image/png', async () => Buffer.alloc(0), /“nothing.png” is not a picture that Nuvet can read/],
  ];
  it.each(pictures)('%s on the list of jobs: a plain message, no job made', async (name, type, bytes, message) => {
    await page.goto(address);
    await dropFile(page, name, type, await bytes());
    await page.getByRole('alert').filter({ hasText: message }).waitFor();
    const named = name.replace(/\.[a-z]+$/, '');
    expect((await json('GET', `/api/jobs?search=${named}`)).body).toMatchObject({ count: 0 });
  });
  it('on a job: the picture that is there stays', async () => {
    await page.goto(`${address}/jobs/${id}?stage=bring-in`);
    await settled(page);
    await dropFile(page, 'notes.png', 'image/png', Buffer.from('no picture'));
    await page.getByRole('alert').filter({ hasText: 'is not a picture that Nuvet can read' }).waitFor();
    expect(await page.getByText('Bad days.png').count()).toBe(1);
    expect((await json('GET', `/api/jobs/${id}`)).body).toMatchObject({ job: { pictures: [{ name: 'Bad days.png' }] } });
  });
  it('blank paper is traced to nothing, and says what to try', async () => {
    const blank = await jobWith(
      'Blank',
      await pngOf(scanScene({ name: 'blank', widthMm: 60, heightMm: 60, pieces: [] }, { dpi: 150 }).picture, 150),
    );
    await page.goto(`${address}/jobs/${blank.id}?stage=trace`);
    await page.getByText('No shape was found. Move the threshold, or lower the smallest size.').waitFor();
    await page.getByRole('button', { name: /^Make ready/ }).click();
    await page.getByRole('button', { name: 'Files', exact: true }).click();
    await page.getByText('Nothing is traced yet').waitFor();
    expect(await page.getByRole('button', { name: 'SVG: download' }).isEnabled()).toBe(false);
  });
});

/** 20,000 x 20,000 white pixels of one bit: a valid PNG of some 50 kilobytes that would be 400 megapixels. */
function hugePng(): Buffer {
  const side = 20_000;
  const chunk = (kind: string, data: Buffer): Buffer => {
    const body = Buffer.concat([Buffer.from(kind), data]);
    const [length, sum] = [Buffer.alloc(4), Buffer.alloc(4)];
    length.writeUInt32BE(data.length);
    sum.writeUInt32BE(crc32(body));
    return Buffer.concat([length, body, sum]);
  };
  const header = Buffer.alloc(13);
  header.writeUInt32BE(side, 0);
  header.writeUInt32BE(side, 4);
  // One bit a pixel, grey.
  header.set([1, 0, 0, 0, 0], 8);
  const rows = Buffer.alloc(side * (1 + side / 8), 0xff);
  for (let y = 0; y < side; y++) rows[y * (1 + side / 8)] = 0;
  return Buffer.concat([
    Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    chunk('IHDR', header),
    chunk('IDAT', deflateSync(rows)),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

describe('a length that cannot be one', () => {
  it.each([
    ['0', 'The length must be more than zero.'],
    ['-3', 'The length must be more than zero.'],
    ['6 furlongs', '“furlongs” is not a unit known here.'],
    ['', 'Type a length, such as 74 mm or 6in.'],
  ])('“%s” is refused at the field and the one before stays', async (typed, message) => {
    await json('GET', `/api/jobs/${id}`);
    await page.goto(`${address}/jobs/${id}?stage=true-up`);
    await settled(page);
    if ((await page.getByLabel('Its true length').count()) === 0) await markAcross();
    const field = page.getByLabel('Its true length');
    await field.fill('92 mm');
    await field.press('Enter');
    await page.getByText('= 92.00 mm').waitFor();
    await settled(page);
    await field.fill(typed);
    await field.press('Enter');
    await page.getByRole('alert').filter({ hasText: message }).waitFor();
    await page.reload();
    await settled(page);
    expect(await page.getByLabel('Its true length').inputValue()).toBe('92 mm');
    expect(errors).toEqual([]);
  });

  async function markAcross(): Promise<void> {
    await page.getByRole('button', { name: 'Known length', exact: true }).click();
    const box = await page.getByRole('application', { name: 'Light table' }).boundingBox();
    if (!box) throw new Error('there is no light table');
    for (const share of [0.3, 0.7]) await page.mouse.click(box.x + box.width * share, box.y + box.height / 2);
    await page.getByLabel('Its true length').waitFor();
  }

  it('both ends on the same place are refused with a word', async () => {
    const state = (await json('GET', `/api/jobs/${id}`)).body as { revision: number; job: { pictures: { id: string }[] } };
    const points = [{ x: 5, y: 5 }, { x: 5, y: 5 }]; // biome-ignore format: one line
    const command = { do: 'add-mark', pictureId: state.job.pictures[0]?.id, mark: { kind: 'level', id: 'x', points, stated: [] } };
    const answer = await json('POST', `/api/jobs/${id}/edits`, { base: state.revision, steps: [{ step: 'do', command }] });
    expect(answer).toMatchObject({ status: 422, body: { code: 'marks-coincide' } });
  });
});
