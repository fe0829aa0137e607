/** The server against cutters that answer badly, and a machine that can always be stopped. */
import { createServer, type Server, type Socket } from 'node:net';
import { foamPlan, plainFoam } from '@nuvet/core/foam';
import { plainMachine, plainStock } from '@nuvet/core/job';
import { type MillPlan, millPlan, millToolSchema, plainMilling } from '@nuvet/core/milling';
import { circlePath, rectanglePath, reversedPath } from '@nuvet/core/plane';
import { processKinds } from '@nuvet/core/processes';
import { finished } from '@nuvet/core/steps';
import { cutterService } from '@nuvet/cutter';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
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
const start = (jobId: string) =>
  post({ do: 'start', jobId, processId: 'laser', programs: [{ text: 'G0 X1\nG1 X2 F100\nM2\n', tools: [] }], mill: null, timeFactor: 1 });
const seen = async (id: string) =>
  (await answer(cutterRoute.GET, 'GET', { path: `/x?job=${id}&process=laser&from=0&skip=0` })).body as {
    status: string;
    message: string;
  } | null;
const until = async (id: string, status: string) => {
  for (let k = 0; k < 100 && (await seen(id))?.status !== status; k++) await new Promise((resolve) => setTimeout(resolve, 20));
  return seen(id);
};

it.each([
  ['places far beyond what was asked for', 'burnt {"from":1000000000,"skip":0,"burns":[{"line":1,"points":[0,0]}]}'],
  ['JSON that is none', 'state {oops'],
  ['a state that is none', 'state null'],
  ['numbers that are none', 'state {"status":"running","x":1e999,"y":0,"line":1}'],
  ['a negative stretch', 'burnt {"from":-5,"skip":0,"burns":[]}'],
])('a cutter that answers with %s is let go, with a word, and the server goes on', async (_, line) => {
  const id = await job();
  await badCutter((s) => s.write(`${line}\n`));
  expect((await start(id)).status).toBe(204);
  expect(await until(id, 'away')).toMatchObject({ status: 'away', message: 'The cutter gave an answer that is not understood.' });
  // Another program can be started.
  expect((await start(id)).status).toBe(204);
});

it('words that every object knows are no answers', async () => {
  const id = await job();
  await badCutter((s) =>
    s.write('__proto__ x\nconstructor y\ntoString\nhasOwnProperty z\nstate {"status":"running","x":1,"y":2,"line":3}\n'),
  );
  await start(id);
  expect(await until(id, 'running')).toMatchObject({ status: 'running' });
  // Another process of the job sees nothing of it.
  expect((await answer(cutterRoute.GET, 'GET', { path: `/x?job=${id}&process=cnc&from=0&skip=0` })).body).toBeNull();
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

describe('the mill', () => {
  const mill = millToolSchema.parse({ id: 't', name: 'End mill', kind: 'end mill', diameterMm: 3, speedRpm: 18_000, feedMmPerMin: 900, plungeMmPerMin: 300, stepdownMm: 1.5, stepover: 0.4 }); // biome-ignore format: fields
  const bit = { ...mill, id: 'v', name: 'V-bit', kind: 'V-bit' as const, angle: 60, diameterMm: 6 };
  const plate = {
    id: 'a',
    name: 'Plate',
    purpose: 'cut',
    outer: rectanglePath({ minX: 15, minY: 15, maxX: 55, maxY: 40 }),
    holes: [reversedPath(circlePath({ x: 46, y: 28 }, 4))],
    leftOut: false,
  };
  const bay = { ...plate, id: 'b', name: 'Bay', purpose: 'pocket', outer: rectanglePath({ minX: 20, minY: 20, maxX: 38, maxY: 32 }), holes: [] }; // biome-ignore format: one line
  const line = { ...plate, id: 'c', name: 'Line', purpose: 'engrave', outer: { ...circlePath({ x: 29, y: 36 }, 2) }, holes: [] };

  /** What the page sends for a job of two tools. */
  async function sent(toolChange: 'program' | 'stop' | 'changer') {
    const pieces = [plate, bay, line] as never[];
    const settings = { ...plainMilling, tools: [mill, bit], pocketDepthMm: 2.5 };
    const machine = { ...plainMachine, toolChange, y: 'down' as const };
    const stock = { ...plainStock, thicknessMm: 5, widthMm: 70, heightMm: 55 };
    const plan: MillPlan = finished(millPlan(pieces, settings, machine, stock));
    const made = await processKinds.cnc?.standIn?.({ title: 'Plate', pieces, settings, machine, stock }, plan);
    return made as unknown as { programs: { tools: { name: string }[] }[]; mill: object };
  }

  it.each(['program', 'stop', 'changer'] as const)(
    'takes the programs (%s), waits for each tool, and measures by itself that nothing is gouged',
    async (toolChange) => {
      const id = await job();
      const open = cutterService();
      server = open;
      await new Promise<void>((resolve) => open.listen(0, '127.0.0.1', resolve));
      process.env.NUVET_CUTTER = `127.0.0.1:${(open.address() as { port: number }).port}`;
      const { programs, mill: stock } = await sent(toolChange);
      expect(programs.length).toBe(toolChange === 'program' ? 2 : 1);
      expect((await post({ do: 'start', jobId: id, processId: 'laser', programs, mill: stock, timeFactor: 3000 })).status).toBe(204);
      expect((await post({ do: 'feed', jobId: id, percent: 120 })).status).toBe(204);
      const asked: string[] = [];
      let last = await seen(id);
      for (let k = 0; k < 8000 && !(last as { isWhole?: boolean } | null)?.isWhole; k++) {
        if (last?.status === 'waiting') {
          asked.push(last.message);
          const { prompts } = last as unknown as { prompts: number };
          expect(prompts).toBe(asked.length);
          // An answer to another prompt releases nothing.
          expect((await post({ do: 'acknowledge', jobId: id, prompt: prompts + 1 })).status).toBe(204);
          expect((await seen(id))?.status).toBe('waiting');
          expect((await post({ do: 'acknowledge', jobId: id, prompt: prompts })).status).toBe(204);
        }
        await new Promise((resolve) => setTimeout(resolve, 20));
        last = await seen(id);
      }
      expect(last).toMatchObject({ status: 'done', programs: programs.length });
      expect(asked).toEqual(toolChange === 'changer' ? [] : [expect.stringMatching(/^Put in: (V-bit|End mill)/)]);
      const { measured } = last as unknown as { measured: { gougedMm2: number; floors: { name: string; worstMm: number }[]; edges: { offMm: number; cutShare: number }[] } }; // biome-ignore format: one line
      expect(measured.gougedMm2).toBe(0);
      expect(measured.floors.find(({ name }) => name === 'Bay')?.worstMm).toBeLessThan(0.001);
      for (const { offMm, cutShare } of measured.edges) {
        // Half a cell, where an outline runs along its cells.
        expect(Math.abs(offMm)).toBeLessThan(0.025);
        expect(cutShare).toBeGreaterThan(0.75);
      }
    },
  );
  it('that cannot measure what it milled is done all the same', async () => {
    const id = await job();
    const open = cutterService();
    server = open;
    await new Promise<void>((resolve) => open.listen(0, '127.0.0.1', resolve));
    process.env.NUVET_CUTTER = `127.0.0.1:${(open.address() as { port: number }).port}`;
    const setUp = { widthMm: 20, heightMm: 20, thicknessMm: 5, zero: { x: 0, y: 0, z: 0 }, y: 'up', tools: [{ number: 1, kind: 'end mill', diameterMm: 3, tipMm: 0, angle: null }] }; // biome-ignore format: one line
    const programs = [{ text: 'G21 G90 S9000 M3\nG0 X10 Y10 Z5\nG1 Z-1 F300\nG0 Z5\nM2\n', tools: [{ number: 1, name: 'End mill' }] }];
    await post({ do: 'start', jobId: id, processId: 'laser', programs, mill: { setUp, outlines: { parts: 'none' } }, timeFactor: 1000 });
    for (let k = 0; k < 500 && !((await seen(id)) as { isWhole?: boolean } | null)?.isWhole; k++)
      await new Promise((resolve) => setTimeout(resolve, 20));
    expect(await seen(id)).toMatchObject({ status: 'done', isWhole: true, measured: null });
  });
  it('alone has a feed override: a sheet goes on without', async () => {
    const id = await job();
    await badCutter((s) => s.write('state {"status":"running","x":1,"y":2,"line":3}\n'));
    await start(id);
    expect((await post({ do: 'feed', jobId: id, percent: 120 })).status).toBe(204);
    await new Promise((resolve) => setTimeout(resolve, 100));
    expect(heard.some((line) => line.startsWith('@feed'))).toBe(false);
    expect(await seen(id)).toMatchObject({ status: 'running' });
  });
  it('what the mill does not understand is said, and nothing is milled', async () => {
    const id = await job();
    const open = cutterService();
    server = open;
    await new Promise<void>((resolve) => open.listen(0, '127.0.0.1', resolve));
    process.env.NUVET_CUTTER = `127.0.0.1:${(open.address() as { port: number }).port}`;
    const { programs } = await sent('program');
    await post({ do: 'start', jobId: id, processId: 'laser', programs, mill: { setUp: { widthMm: -1 }, outlines: {} }, timeFactor: 1 });
    expect(await until(id, 'alarm')).toMatchObject({ message: expect.stringMatching(/stock and its tools are not understood/) });
  });
});

it('a hot wire cuts one block after another: each is measured, then the next one is asked for', async () => {
  const id = await job();
  const open = cutterService();
  server = open;
  await new Promise<void>((resolve) => open.listen(0, '127.0.0.1', resolve));
  process.env.NUVET_CUTTER = `127.0.0.1:${(open.address() as { port: number }).port}`;
  const side = { id: 'side', name: 'Side', purpose: 'cut', outer: circlePath({ x: 0, y: 0 }, 40), holes: [], leftOut: false };
  const settings = { ...plainFoam, boards: [{ thicknessMm: 30, count: null }] };
  const work = { title: 'Ball', pieces: [side] as never[], settings, machine: plainMachine, stock: plainStock };
  const made = await processKinds.foam?.standIn?.(work, finished(foamPlan(work.pieces, settings, plainStock)));
  expect(made?.programs.length).toBe(3);
  expect((await post({ do: 'start', jobId: id, processId: 'laser', ...made, timeFactor: 3000 })).status).toBe(204);
  const asked: string[] = [];
  type Seen = { status: string; message: string; prompts: number; isWhole: boolean; firstOfBlock: number; wired: { leftOffMm: number }[]; burns: unknown[] }; // biome-ignore format: what is looked at
  let last = (await seen(id)) as Seen | null;
  for (let k = 0; k < 1000 && !last?.isWhole; k++) {
    if (last?.status === 'waiting') {
      asked.push(last.message);
      expect(last.wired.length).toBe(asked.length);
      await post({ do: 'acknowledge', jobId: id, prompt: last.prompts });
    }
    await new Promise((resolve) => setTimeout(resolve, 20));
    last = (await seen(id)) as Seen | null;
  }
  expect(asked).toEqual([expect.stringMatching(/foam for former 2, 30/), expect.stringMatching(/foam for former 3, 20/)]);
  expect(last).toMatchObject({ status: 'done', firstOfBlock: 2 });
  // A stretch for each block, and each former as it should be.
  expect(last?.burns.length).toBe(3);
  expect(last?.wired.map(({ leftOffMm }) => leftOffMm < 0.02)).toEqual([true, true, true]);
});
