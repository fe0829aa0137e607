/** Files that go wrong: plain messages at their place, nothing lost, the server up. */
import { rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Job } from '@nuvet/core/job';
import { plateScene, pngOf, scanScene, tiffOf } from '@nuvet/truth';
import { PDFDocument } from 'pdf-lib';
import type { Page } from 'playwright-core';
import { beforeAll, describe, expect, it } from 'vitest';
import { dropFile } from './bench-hand.ts';
import { settled } from './browser.ts';
import { drivenPage } from './driven-page.ts';
import { address, jobOf, jobWith, json } from './server.ts';

const scan = scanScene(plateScene, { dpi: 100, seed: 5 });
let page: Page;
let id: string;
const errors = drivenPage((opened) => {
  page = opened;
});
beforeAll(async () => {
  ({ id } = await jobWith('Odd files', await pngOf(scan.picture, 100)));
});

const job = async (): Promise<Job> => jobOf(id);
const open = async () => {
  await page.goto(`${address}/jobs/${id}?stage=bring-in`);
  await settled(page);
};

/** A PDF that asks for a password: the standard security handler with keys that no empty password opens (ISO 32000-1, 7.6). */
function lockedPdf(): Buffer {
  const key = 'a'.repeat(64);
  const objects = [
    '1 0 obj\n<< /Type /Catalog /Pages 2 0 R >>\nendobj\n',
    '2 0 obj\n<< /Type /Pages /Kids [3 0 R] /Count 1 >>\nendobj\n',
    '3 0 obj\n<< /Type /Page /Parent 2 0 R /MediaBox [0 0 200 200] >>\nendobj\n',
    `4 0 obj\n<< /Filter /Standard /V 1 /R 2 /P -4 /O <${key}> /U <${key}> >>\nendobj\n`,
  ];
  let text = '%PDF-1.4\n';
  const places = objects.map((object) => {
    const at = text.length;
    text += object;
    return at;
  });
  const start = text.length;
  text += `xref\n0 5\n0000000000 65535 f \n${places.map((at) => `${String(at).padStart(10, '0')} 00000 n \n`).join('')}`;
  text += `trailer\n<< /Size 5 /Root 1 0 R /Encrypt 4 0 R /ID [<00112233445566778899aabbccddeeff> <00112233445566778899aabbccddeeff>] >>\nstartxref\n${start}\n%%EOF\n`;
  return Buffer.from(text, 'latin1');
}

describe('documents', () => {
  const broken: [name: string, bytes: () => Promise<Buffer>, message: RegExp][] = [
    ['locked.pdf', async () => lockedPdf(), /“locked.pdf” is locked with a password/],
    ['broken.pdf', async () => Buffer.from('%PDF-1.7\nand then nothing at all'), /“broken.pdf” is damaged, or is no PDF/],
    ['cut.svg', async () => Buffer.from('<html><p>no drawing</p></html>'), /“cut.svg”: This is not/],
    ['words.dxf', async () => Buffer.from('Dear workshop,\nthe tray is 5 in wide.\n'), /“words.dxf”: This is not a DXF drawing/],
    ['empty.dxf', async () => Buffer.from('0\nSECTION\n2\nENTITIES\n0\nENDSEC\n0\nEOF\n'), /There are no lines or curves in this file/],
  ];
  it.each(broken)('%s: said plainly, and the job stays as it was', async (name, bytes, message) => {
    await open();
    await dropFile(page, name, '', await bytes());
    await page.getByRole('alert').filter({ hasText: message }).waitFor();
    expect((await job()).pictures.map((p) => p.name)).toEqual(['Odd files.png']);
    expect(errors).toEqual([]);
  });

  it('of several files at once the good ones come in and the bad one is named', async () => {
    await open();
    const files = [
      { name: 'bad.png', mimeType: 'image/png', buffer: Buffer.from('no picture') },
      { name: 'good.png', mimeType: 'image/png', buffer: await pngOf(scan.picture, 100) },
    ];
    await page.getByLabel('Picture file').setInputFiles(files);
    await page
      .getByRole('alert')
      .filter({ hasText: /“bad.png” is not a picture/ })
      .waitFor();
    await settled(page);
    expect((await job()).pictures.map((p) => p.name)).toEqual(['Odd files.png', 'good.png']);
    await page.keyboard.press('Control+z');
    await settled(page);
  });

  it('a TIFF of 200 pages: chosen by number, only that page comes in', async () => {
    const pages = Array.from(
      { length: 200 },
      (_, k) => scanScene({ ...plateScene, pieces: [], widthMm: 20 + (k % 7), heightMm: 15 }, { dpi: 100, noise: 0, grain: 0 }).picture,
    );
    await open();
    await dropFile(page, 'ledger.tif', 'image/tiff', tiffOf(pages, 100));
    await page.getByText('“ledger.tif” has 200 pages.').waitFor();
    const field = page.getByLabel('Pages to bring in');
    await field.fill('1-200');
    await page.getByText(/50 at most/).waitFor();
    expect(await page.getByRole('button', { name: 'Bring in', exact: true }).isDisabled()).toBe(true);
    await field.fill('151');
    await page.getByRole('button', { name: 'Bring in', exact: true }).click();
    await page.getByText('2 pictures').first().waitFor();
    await settled(page);
    expect((await job()).pictures[1]).toMatchObject({
      name: 'ledger.tif, page 151',
      widthPx: pages[150]?.width,
      resolution: { dpi: 100, source: 'tiff' },
    });
    await page.keyboard.press('Control+z');
    await settled(page);
    expect(errors).toEqual([]);
  });

  it('a DXF with a million entities shows how far it is, can be stopped, and leaves the page alive', async () => {
    const path = join(tmpdir(), `nuvet-million-${process.pid}.dxf`);
    const line = '0\nLINE\n8\n0\n10\n1\n20\n1\n11\n2\n21\n3\n';
    writeFileSync(path, `0\nSECTION\n2\nENTITIES\n${line.repeat(1_000_000)}0\nENDSEC\n0\nEOF\n`);
    try {
      await open();
      await page.getByLabel('Picture file').setInputFiles(path);
      await page.getByText(/Reading “nuvet-million-\d+\.dxf”, \d+ %/).waitFor();
      await page.getByRole('button', { name: 'Stop' }).click();
      await page
        .getByRole('alert')
        .filter({ hasText: /Stopped/ })
        .waitFor();
      expect((await job()).drawings).toEqual([]);
      expect(errors).toEqual([]);
    } finally {
      rmSync(path);
    }
  });

  it('an SVG with a script gives its outlines and runs nothing', async () => {
    await open();
    const text = `<!DOCTYPE svg [<!ENTITY x SYSTEM "http://127.0.0.1:9/secret">]><svg xmlns="http://www.w3.org/2000/svg" width="50mm" viewBox="0 0 50 50" onload="window.hacked=1"><script>window.hacked=1</script><image href="http://127.0.0.1:9/x.png"/><circle cx="25" cy="25" r="20"/></svg>`;
    const asked: string[] = [];
    page.on('request', (request) => asked.push(request.url()));
    await dropFile(page, 'tricky.svg', 'image/svg+xml', Buffer.from(text));
    await page.locator('[data-drawing="tricky.svg"]').getByText('40.00 mm · 1.575 in').first().waitFor();
    await page.getByText(/Left aside: scripts/).waitFor();
    expect(await page.evaluate('window.hacked')).toBeUndefined();
    expect(asked.filter((url) => url.includes(':9/'))).toEqual([]);
    await settled(page);
    expect((await job()).drawings[0]?.pieces).toHaveLength(1);
    await page.keyboard.press('Control+z');
    await settled(page);
    expect(errors).toEqual([]);
  });

  it('an SVG without a unit says so, and takes the unit that is chosen', async () => {
    await open();
    await dropFile(
      page,
      'plain.svg',
      'image/svg+xml',
      Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><rect width="3" height="2"/></svg>'),
    );
    const card = page.locator('[data-drawing="plain.svg"]');
    await card.getByText('The file does not state its unit.').waitFor();
    await card.getByLabel('Its unit').click();
    await page.getByRole('option', { name: 'inches' }).click();
    await card.getByText('76.20 mm · 3 in').waitFor();
    await page.keyboard.press('Escape');
    await settled(page);
    expect(errors).toEqual([]);
  });

  it('a page of a PDF that takes long can be stopped while it is drawn', async () => {
    const pdf = await PDFDocument.create();
    const sheet = pdf.addPage([2000, 2000]);
    for (let k = 0; k < 20_000; k++) sheet.drawCircle({ x: (k * 37) % 2000, y: (k * 61) % 2000, size: 900, opacity: 0.01 });
    await open();
    await dropFile(page, 'slow.pdf', 'application/pdf', Buffer.from(await pdf.save()));
    await page.getByRole('button', { name: 'Bring in', exact: true }).click();
    await page.getByText('Drawing page 1 at 300 dpi').waitFor();
    await page.getByRole('button', { name: 'Stop' }).click();
    await page.getByRole('alert').filter({ hasText: 'Stopped' }).waitFor();
    expect((await job()).pictures.map((p) => p.name)).toEqual(['Odd files.png']);
  });

  it('a page of a PDF that would be too large says what to choose, and the server is up', async () => {
    const pdf = await PDFDocument.create();
    pdf.addPage([(72 / 25.4) * 1189, (72 / 25.4) * 841]);
    await open();
    await dropFile(page, 'poster.pdf', 'application/pdf', Buffer.from(await pdf.save()));
    await page.getByLabel('Resolution').last().click();
    await page.getByRole('option', { name: '600 dpi' }).click();
    await page.getByRole('button', { name: 'Bring in', exact: true }).click();
    await page.getByRole('alert').filter({ hasText: 'more than 100 megapixels at 600 dpi' }).waitFor();
    expect((await json('GET', '/api/health')).status).toBe(200);
  });
});
