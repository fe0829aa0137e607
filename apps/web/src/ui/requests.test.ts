/** What the page asks of the server: checked answers, and errors that can be shown as they are. */
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { z } from 'zod';
import { ask, RequestError, sendBytes, sendPicture } from './requests';

const answering = (make: () => Response | Promise<Response>) =>
  vi.stubGlobal(
    'fetch',
    vi.fn(async () => make()),
  );
afterEach(() => vi.unstubAllGlobals());
const refused = async (work: Promise<unknown>): Promise<RequestError> => {
  const error = await work.then(() => null, (e: unknown) => e); // biome-ignore format: one line
  if (!(error instanceof RequestError)) throw new Error(`not refused, but ${String(error)}`);
  return error;
};

describe('a question', () => {
  const schema = z.object({ revision: z.int() });
  it('gives its answer, checked', async () => {
    answering(() => Response.json({ revision: 7 }));
    expect(await ask('GET', '/api/jobs/x', schema)).toEqual({ revision: 7 });
    answering(() => Response.json({ revision: 'seven' }));
    await expect(ask('GET', '/api/jobs/x', schema)).rejects.toMatchObject({ code: 'our-fault', isPassing: true });
  });
  it('sends what it has to say as JSON, and nothing where there is nothing to say', async () => {
    answering(() => Response.json({ revision: 1 }));
    await ask('POST', '/api/jobs', schema, { name: 'Heron' });
    await ask('GET', '/api/jobs', schema);
    const [[, post], [, get]] = vi.mocked(fetch).mock.calls as [[string, RequestInit], [string, RequestInit]];
    expect(post).toMatchObject({ method: 'POST', headers: { 'Content-Type': 'application/json' }, body: '{"name":"Heron"}' });
    expect(get).toEqual({ method: 'GET' });
  });
  it('that has no answer says so', async () => {
    answering(() => Promise.reject(new TypeError('network')));
    expect(await refused(ask('GET', '/api/jobs', schema))).toMatchObject({
      code: 'no-connection',
      message: 'The server cannot be reached.',
    });
  });
  it('that is refused has the server’s own word, or one where it gave none', async () => {
    answering(() => Response.json({ code: 'changed-elsewhere', message: 'This job was changed in another window.' }, { status: 409 }));
    expect(await refused(ask('POST', '/x', schema, {}))).toMatchObject({ code: 'changed-elsewhere' });
    answering(() => new Response('<html>Bad gateway</html>', { status: 502 }));
    expect(await refused(ask('POST', '/x', schema, {}))).toMatchObject({ code: 'our-fault' });
  });
  it('of what is deleted has no answer', async () => {
    answering(() => new Response(null, { status: 204 }));
    expect(await ask('DELETE', '/api/jobs/x', z.null())).toBeNull();
  });
});

/** A request as the browser makes them, answered by hand. */
class Sent {
  static last: Sent;
  status = 0;
  response: unknown = null;
  responseType = '';
  readonly upload: { onprogress: (event: { loaded: number; total: number }) => void } = { onprogress: () => {} };
  onload = () => {};
  onerror = () => {};
  onabort = () => {};
  address = '';
  body: unknown = null;
  open(_: string, address: string): void {
    this.address = address;
    Sent.last = this;
  }
  send(body: unknown): void {
    this.body = body;
  }
  abort(): void {
    this.onabort();
  }
  answer(status: number, response: unknown): void {
    Object.assign(this, { status, response });
    this.onload();
  }
}

describe('bytes that are sent', () => {
  beforeEach(() => void vi.stubGlobal('XMLHttpRequest', Sent));
  const schema = z.object({ id: z.string() });
  const blob = new Blob(['twelve bytes']);
  it('tell what share has gone, and come to the answer', async () => {
    const shares: number[] = [];
    const work = sendBytes('/api/pictures', blob, schema, (share) => shares.push(share));
    Sent.last.upload.onprogress({ loaded: 3, total: 12 });
    Sent.last.upload.onprogress({ loaded: 12, total: 12 });
    Sent.last.upload.onprogress({ loaded: 0, total: 0 });
    Sent.last.answer(201, { id: 'new' });
    expect(await work).toEqual({ id: 'new' });
    expect(shares).toEqual([0.25, 1, 1]);
  });
  it('can be stopped, fail on the way, or be refused with a word', async () => {
    const stopping = new AbortController();
    const stopped = refused(sendBytes('/x', blob, schema, () => {}, stopping.signal));
    stopping.abort();
    expect(await stopped).toMatchObject({ code: 'stopped', message: 'Stopped. Nothing was brought in.' });
    const lost = refused(sendBytes('/x', blob, schema, () => {}));
    Sent.last.onerror();
    expect(await lost).toMatchObject({ code: 'no-connection' });
    const damaged = refused(sendBytes('/x', blob, schema, () => {}));
    Sent.last.answer(422, { code: 'damaged', message: 'The picture is damaged.' });
    expect(await damaged).toMatchObject({ message: 'The picture is damaged.' });
    const odd = refused(sendBytes('/x', blob, schema, () => {}));
    Sent.last.answer(201, { surprise: 1 });
    expect(await odd).toMatchObject({ code: 'our-fault' });
  });
  it('of a picture carry its name, its page and a resolution that is known better than the file knows it', () => {
    void sendPicture(blob, { name: `${'long '.repeat(60)}.pdf`, page: 3, resolution: { dpi: 300, source: 'pdf' } }, () => {}).catch(
      () => {},
    );
    const query = new URL(Sent.last.address, 'http://x').searchParams;
    expect(query.get('name')).toHaveLength(200);
    expect([query.get('page'), query.get('dpi'), query.get('source')]).toEqual(['3', '300', 'pdf']);
    void sendPicture(blob, { name: 'plain & simple.png' }, () => {}).catch(() => {});
    const plain = new URL(Sent.last.address, 'http://x').searchParams;
    expect([plain.get('name'), plain.get('page'), plain.get('dpi')]).toEqual(['plain & simple.png', '0', null]);
  });
});
