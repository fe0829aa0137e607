/** The server against cutters that answer badly, and a machine that can always be stopped. */
import { createServer, type Server, type Socket } from 'node:net';
import { afterAll, afterEach, beforeAll, expect, it } from 'vitest';
import * as cutterRoute from '@/app/api/cutter/route';
import * as jobsRoute from '@/app/api/jobs/route';
import { closeDatabase, freshDatabase, sql } from './fresh-database.ts';
import { answer } from './requests.ts';

let server: Server | null = null;
let socket: Socket | null = null;
const heard: string[] = [];
/** A cutter that says what it is told to, whatever it hears. */
async function badCutter(onConnect: (socket: Socket) => void): Promise<void> {
  heard.length = 0;
  server = createServer((s) => {
    socket = s;
    s.on('error', () => {});
    s.on('data', (part) => heard.push(...String(part).split('\n').filter(Boolean)));
    onConnect(s);
  });
  await new Promise<void>((resolve) => server?.listen(0, '127.0.0.1', resolve));
  process.env.NUVET_CUTTER = `127.0.0.1:${((server as Server).address() as { port: number }).port}`;
}

beforeAll(() => freshDatabase());
afterEach(async () => {
  (globalThis as { nuvetCutter?: unknown }).nuvetCutter = undefined;
  socket?.destroy();
  await new Promise((resolve) => server?.close(resolve) ?? resolve(null));
});
afterAll(closeDatabase);

const job = async () => ((await answer(jobsRoute.POST, 'POST', { body: { name: 'Cut' } })).body as { id: string }).id;
const post = (body: object) => answer(cutterRoute.POST, 'POST', { body });
const start = (jobId: string) => post({ do: 'start', jobId, program: 'G0 X1\nG1 X2 F100\nM2\n', timeFactor: 1 });
const seen = async (id: string) =>
  (await answer(cutterRoute.GET, 'GET', { path: `/x?job=${id}&from=0&skip=0` })).body as { mood: string; message: string } | null;
const until = async (id: string, mood: string) => {
  for (let k = 0; k < 100 && (await seen(id))?.mood !== mood; k++) await new Promise((resolve) => setTimeout(resolve, 20));
  return seen(id);
};

it.each([
  ['places far beyond what was asked for', 'burnt {"from":1000000000,"skip":0,"burns":[{"line":1,"points":[0,0]}]}'],
  ['JSON that is none', 'state {oops'],
  ['a state that is none', 'state null'],
  ['numbers that are none', 'state {"mood":"running","x":1e999,"y":0,"line":1}'],
  ['a negative stretch', 'burnt {"from":-5,"skip":0,"burns":[]}'],
])('a cutter that answers with %s is let go, with a word, and the server goes on', async (_, line) => {
  const id = await job();
  await badCutter((s) => s.write(`${line}\n`));
  expect((await start(id)).status).toBe(204);
  expect(await until(id, 'away')).toMatchObject({ mood: 'away', message: 'The cutter gave an answer that is not understood.' });
  // Another program can be started.
  expect((await start(id)).status).toBe(204);
});

it('words that every object knows are no answers', async () => {
  const id = await job();
  await badCutter((s) =>
    s.write('__proto__ x\nconstructor y\ntoString\nhasOwnProperty z\nstate {"mood":"running","x":1,"y":2,"line":3}\n'),
  );
  await start(id);
  expect(await until(id, 'running')).toMatchObject({ mood: 'running' });
});

it('a line without an end is not kept', async () => {
  const id = await job();
  await badCutter((s) => {
    const part = 'x'.repeat(1 << 20);
    const more = () => {
      for (let k = 0; k < 4 && !s.destroyed; k++) s.write(part);
      if (!s.destroyed) setTimeout(more, 1);
    };
    more();
  });
  const before = process.memoryUsage().heapUsed;
  await start(id);
  expect(await until(id, 'away')).toMatchObject({ message: 'The cutter sends lines longer than any of its answers.' });
  expect(process.memoryUsage().heapUsed - before).toBeLessThan(200e6);
});

it('a stop belongs to the machine: also when the job that it cuts is gone', async () => {
  const id = await job();
  await badCutter(() => {});
  await start(id);
  expect((await start(await job())).status).toBe(409);
  await sql('delete from jobs where id = :id', { id });
  expect((await post({ do: 'pause', jobId: id })).status).toBe(404);
  expect((await post({ do: 'stop' })).status).toBe(204);
  await new Promise((resolve) => setTimeout(resolve, 50));
  expect(heard).toContain('@stop');
  expect((await post({ do: 'stop' })).status).toBe(404);
});
