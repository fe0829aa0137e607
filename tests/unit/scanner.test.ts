/** The stand-in scanner, spoken to as docs/scanner-protocol.md says. */
import type { AddressInfo } from 'node:net';
import { readPictureHeader } from '@nuvet/core/formats';
import { scannerService } from '@nuvet/scanner';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';

const page = 'http://127.0.0.1:3000';
const server = scannerService([page]);
let address: string;
beforeAll(async () => {
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}`;
});
afterAll(() => server.close());
const scan = (id: string, body: unknown, headers: Record<string, string> = {}) =>
  fetch(`${address}/scanners/${id}/scan`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', ...headers },
    body: JSON.stringify(body),
  });

describe('the stand-in scanner', () => {
  it('lists what it has, with beds and resolutions', async () => {
    const answer = await fetch(`${address}/scanners`, { headers: { Origin: page } });
    expect(answer.headers.get('access-control-allow-origin')).toBe(page);
    const { scanners } = (await answer.json()) as { scanners: { id: string; resolutions: number[] }[] };
    expect(scanners.map((s) => s.id)).toContain('heron-panel');
    expect(scanners[0]?.resolutions).toContain(300);
  });
  it('scans a part of the bed at a resolution, and the file states it', async () => {
    const answer = await scan('heron-panel', { dpi: 150, area: { x: 20, y: 30, widthMm: 60, heightMm: 40 } });
    const header = readPictureHeader(new Uint8Array(await answer.arrayBuffer()));
    expect(header).toMatchObject({
      kind: 'png',
      widthPx: Math.round((60 / 25.4) * 150),
      heightPx: Math.round((40 / 25.4) * 150),
      resolution: { dpi: 150 },
    });
  });
  it('previews the whole bed', async () => {
    const header = readPictureHeader(new Uint8Array(await (await fetch(`${address}/scanners/otter-float/preview`)).arrayBuffer()));
    expect(header?.widthPx).toBe(Math.round((200 / 25.4) * 50));
  });
  it('refuses in plain words what it cannot do, and pages from elsewhere', async () => {
    const said = async (answer: Response) => [answer.status, ((await answer.json()) as { message: string }).message];
    expect(await said(await scan('gone', { dpi: 300 }))).toEqual([404, 'There is no such scanner.']);
    expect(await said(await scan('heron-panel', { dpi: 301 }))).toEqual([400, 'The resolution must be one of 75, 150, 200, 300, 600.']);
    expect(await said(await scan('heron-panel', { dpi: 300 }, { Origin: 'http://elsewhere.example' }))).toEqual([
      403,
      'This page may not use the scanner.',
    ]);
    expect((await fetch(`${address}/scanners/heron-panel/scan`)).status).toBe(405);
    const huge = await fetch(`${address}/scanners/heron-panel/scan`, { method: 'POST', body: 'x'.repeat(20_000) });
    expect(huge.status).toBe(413);
  });
});
