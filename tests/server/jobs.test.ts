/** Jobs on the server itself, against a real PostgreSQL: who may, what is refused and how, what is kept and what it costs. */
import { type Job, jobSchema } from '@nuvet/core/job';
import { polygonPath } from '@nuvet/core/plane';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import * as editsRoute from '@/app/api/jobs/[id]/edits/route';
import * as restoreRoute from '@/app/api/jobs/[id]/restore/route';
import * as jobRoute from '@/app/api/jobs/[id]/route';
import * as jobsRoute from '@/app/api/jobs/route';
import { closeDatabase, freshDatabase, sql } from './fresh-database.ts';
import { answer } from './requests.ts';

beforeAll(() => freshDatabase());
afterAll(closeDatabase);

const nowhere = '00000000-0000-4000-8000-000000000000';
const made = async (name: string): Promise<string> =>
  ((await answer(jobsRoute.POST, 'POST', { body: { name } })).body as { id: string }).id;
const opened = async (id: string) => {
  const { status, body } = await answer(jobRoute.GET, 'GET', { params: { id } });
  const { job, ...rest } = body as { job: unknown; revision: number; done: string[]; redoable: string[]; inBin: boolean };
  return { status, job: jobSchema.parse(job), ...rest };
};
const save = (id: string, body: object) => answer(editsRoute.POST, 'POST', { params: { id }, body });
const does = (...commands: object[]) => commands.map((command) => ({ step: 'do', command }));
const circle = (id: string, x = 0) => ({
  do: 'draw',
  drawn: { id, name: id, purpose: 'cut', leftOut: false, source: { kind: 'figure', figure: { kind: 'circle', centre: { x, y: 0 }, radius: 5 } }, live: [] },
}); // biome-ignore format: one command
const listed = async (query = '') =>
  (await answer(jobsRoute.GET, 'GET', { path: `/api/jobs${query}` })).body as { jobs: { id: string; name: string }[]; count: number };

describe('a request', () => {
  it('of another page, under another name, or that is no JSON is refused before anything is done', async () => {
    const count = (await listed()).count;
    const refused = async (headers: Record<string, string>, body: BodyInit | object = { name: 'x' }) => {
      const { status, body: said } = await answer(jobsRoute.POST, 'POST', { headers, body });
      return [status, (said as { code: string }).code];
    };
    expect(await refused({ Origin: 'https://evil.example' })).toEqual([403, 'other-origin']);
    expect(await refused({ Origin: 'http://localhost:4299' })).toEqual([403, 'other-origin']);
    expect(await refused({ Origin: 'null' })).toEqual([403, 'other-origin']);
    expect(await refused({ 'Sec-Fetch-Site': 'cross-site' })).toEqual([403, 'other-origin']);
    expect(await refused({ 'Sec-Fetch-Site': 'same-site' })).toEqual([403, 'other-origin']);
    expect(await refused({ Host: 'evil.example' })).toEqual([421, 'unknown-host']);
    expect(await refused({ Host: 'evil.example', Origin: 'http://evil.example' })).toEqual([421, 'unknown-host']);
    expect(await refused({ 'Content-Type': 'text/plain' }, '{"name":"x"}')).toEqual([415, 'not-json']);
    expect(await refused({ 'Content-Type': 'application/json' }, '{"name":')).toEqual([400, 'not-understood']);
    expect((await listed()).count).toBe(count);
    expect((await answer(jobsRoute.GET, 'GET', { headers: { Host: 'evil.example' } })).status).toBe(421);
    const own = { Origin: 'http://127.0.0.1:3000', 'Sec-Fetch-Site': 'same-origin' };
    expect((await answer(jobsRoute.POST, 'POST', { headers: own, body: { name: 'Own' } })).status).toBe(201);
  });
  it('without an end is cut off at its limit, not read', async () => {
    let sent = 0;
    const endless = new ReadableStream<Uint8Array>({
      pull(controller) {
        sent += 65_536;
        controller.enqueue(new Uint8Array(65_536).fill(97));
      },
    });
    const { status, body } = await answer(jobsRoute.POST, 'POST', { headers: { 'Content-Type': 'application/json' }, body: endless });
    expect([status, body]).toEqual([413, { code: 'too-large', message: 'The request is larger than 1 MB.' }]);
    expect(sent).toBeLessThan(3e6);
  });
  it('is answered for our own pages and for no cache', async () => {
    const { headers } = await answer(jobsRoute.GET, 'GET');
    expect(headers.get('cache-control')).toBe('no-store');
    expect(headers.get('cross-origin-resource-policy')).toBe('same-origin');
    expect(headers.get('content-security-policy')).toMatch(/default-src 'none'/);
  });
});

describe('a job', () => {
  it('is there for its workshop alone, and is as if it were not there for any other', async () => {
    const id = await made('Ours');
    expect((await opened(id)).job.name).toBe('Ours');
    await sql(`update jobs set workshop_id = '${nowhere}' where id = :id`, { id });
    for (const [handler, method] of [[jobRoute.GET, 'GET'], [jobRoute.DELETE, 'DELETE'], [restoreRoute.POST, 'POST']] as const) // biome-ignore format: one line
      expect((await answer(handler, method, { params: { id } })).status).toBe(404);
    expect((await save(id, { base: 1, steps: does({ do: 'rename', name: 'Theirs' }) })).status).toBe(404);
    expect((await answer(jobRoute.GET, 'GET', { params: { id: nowhere } })).status).toBe(404);
    expect((await answer(jobRoute.GET, 'GET', { params: { id: '../secrets' } })).status).toBe(404);
  });
  it('refuses what it does not understand with a word, and changes nothing', async () => {
    const id = await made('Words');
    for (const body of [
      {},
      { base: 1, steps: [] },
      { base: 1, steps: does({ do: 'rename', name: '' }) },
      { base: 1, steps: does({ do: 'no-such' }) },
      { base: -1, steps: [{ step: 'undo' }] },
      { base: 1, steps: Array.from({ length: 501 }, () => ({ step: 'undo' })) },
    ]) {
      // biome-ignore format: one line
      const { status, body: said } = await save(id, body);
      expect(status).toBe(400);
      expect((said as { message: string }).message).toMatch(/^Invalid request: /);
      expect(JSON.stringify(said)).not.toMatch(/✖|at Object|select |insert /);
    }
    expect((await save(id, { base: 1, steps: [{ step: 'undo' }] })).status).toBe(422);
    expect((await save(id, { base: 1, steps: does({ do: 'remove-mark', pictureId: nowhere, markId: 'x' }) })).status).toBe(422);
    expect((await save(id, { base: 7, steps: does({ do: 'set-unit', unit: 'in' }) })).status).toBe(409);
    // One step of several that does not apply takes all of them along.
    expect((await save(id, { base: 1, steps: does({ do: 'set-unit', unit: 'in' }, { do: 'take-out', pictureId: nowhere }) })).status).toBe(
      422,
    );
    expect(await opened(id)).toMatchObject({ revision: 1, job: { unit: 'mm' }, done: [] });
  });
  it('takes names without what no file or database takes', async () => {
    const id = await made('Panel\u0000 \ud83d\u000bA \ud83d\ude00');
    expect((await opened(id)).job.name).toBe('Panel A \ud83d\ude00');
    const name = `${'x'.repeat(119)}\ud83d`;
    expect((await save(id, { base: 1, steps: does({ do: 'rename', name }) })).status).toBe(200);
    expect((await opened(id)).job.name).toBe('x'.repeat(119));
  });
  it('takes no place off any sheet, and nothing of which too much would follow', async () => {
    const id = await made('Far');
    expect((await save(id, { base: 1, steps: does(circle('far', 1e308)) })).status).toBe(400);
    const turn = { kind: 'turn', centre: { x: 0, y: 0 }, count: 60, mirrored: true, axis: 0 };
    const many = circle('many');
    const live = (n: number) => ({ ...many, drawn: { ...many.drawn, live: Array.from({ length: n }, () => turn) } });
    const { status, body } = await save(id, { base: 1, steps: does(live(12)) });
    expect([status, (body as { message: string }).message]).toEqual([400, expect.stringMatching(/More than 20,000 outlines would follow/)]);
    expect((await save(id, { base: 1, steps: does(live(3)) })).status).toBe(400);
    expect((await save(id, { base: 1, steps: does(live(1)) })).status).toBe(200);
    // Nor of several together.
    const more = Array.from({ length: 180 }, (_, k) => ({ ...live(1), drawn: { ...live(1).drawn, id: `m${k}` } }));
    expect((await save(id, { base: 2, steps: does(...more) })).status).toBe(422);
  });
  it('goes into the bin and comes back; what lies there for thirty days is gone for good', async () => {
    const [id, old] = [await made('Binned'), await made('Long binned')];
    for (const one of [id, old]) expect((await answer(jobRoute.DELETE, 'DELETE', { params: { id: one } })).status).toBe(204);
    expect((await listed('?search=binned')).count).toBe(0);
    expect((await listed('?search=binned&bin=')).count).toBe(2);
    // An open window may still save what it holds.
    expect((await save(id, { base: 1, steps: does({ do: 'set-unit', unit: 'in' }) })).status).toBe(200);
    expect(await opened(id)).toMatchObject({ inBin: true });
    expect((await answer(restoreRoute.POST, 'POST', { params: { id } })).status).toBe(204);
    await sql(`update jobs set deleted_at = now() - interval '31 days' where id = :old`, { old });
    expect((await listed('?search=binned')).jobs.map((j) => j.name)).toEqual(['Binned']);
    expect((await answer(jobRoute.GET, 'GET', { params: { id: old } })).status).toBe(404);
    expect((await listed('?search=binned&bin=')).count).toBe(0);
  });
  it('is listed fifty at a time, found by a part of its name, and copied with all that it holds', async () => {
    for (let k = 0; k < 53; k++) await made(`Row ${k} of 100%_`);
    const [first, second] = [await listed('?search=row'), await listed('?search=row&page=1')];
    expect([first.count, first.jobs.length, second.jobs.length]).toEqual([53, 50, 3]);
    expect(new Set([...first.jobs, ...second.jobs].map((j) => j.id)).size).toBe(53);
    expect((await listed('?search=100%25_')).count).toBe(53);
    expect((await listed('?search=100%25x')).count).toBe(0);
    const id = await made('Original');
    await save(id, { base: 1, steps: does(circle('c')) });
    const copy = ((await answer(jobsRoute.POST, 'POST', { body: { name: 'Twin', copyOf: id } })).body as { id: string }).id;
    expect(await opened(copy)).toMatchObject({ job: { name: 'Twin', drawn: [{ id: 'c' }] }, revision: 1, done: [] });
  });
});

describe('a save', () => {
  it('that is sent twice gets the first answer, and is done once', async () => {
    const id = await made('Twice');
    const body = { save: crypto.randomUUID(), base: 1, steps: does(circle('c')), wanted: true };
    const [first, again] = [await save(id, body), await save(id, body)];
    expect([first.status, again.status]).toEqual([200, 200]);
    expect(again.body).toEqual(first.body);
    expect(await opened(id)).toMatchObject({ revision: 2, job: { drawn: [{ id: 'c' }] }, done: ['drawing c'] });
    // Also when more has been saved since; then its answer is its own revision.
    await save(id, { base: 2, steps: does({ do: 'set-unit', unit: 'in' }) });
    expect((await save(id, body)).body).toMatchObject({ revision: 2 });
    expect((await opened(id)).job.drawn).toHaveLength(1);
  });
  it('of two windows at once: exactly one wins, and nothing is half done', async () => {
    const id = await made('Race');
    const answers = await Promise.all(Array.from({ length: 8 }, (_, k) => save(id, { base: 1, steps: does(circle(`c${k}`)) })));
    expect(answers.map((a) => a.status).sort()).toEqual([200, ...Array(7).fill(409)]);
    expect((await opened(id)).job.drawn).toHaveLength(1);
  });
  it('can be undone to the job’s beginning and redone, also by a server that has just been started', async () => {
    const id = await made('History');
    const states: Job[] = [(await opened(id)).job];
    let base = 1;
    for (const command of [
      circle('a'),
      circle('b', 20),
      { do: 'change-drawn', drawnId: 'a', change: { purpose: 'score' } },
      { do: 'replace-drawn', word: 'x', ids: ['a'], by: [circle('n', 40).drawn] },
      { do: 'set-unit', unit: 'in' },
    ]) {
      // biome-ignore format: one line
      await save(id, { base: base++, steps: does(command) });
      states.push((await opened(id)).job);
    }
    vi.resetModules();
    const fresh = await import('@/app/api/jobs/[id]/edits/route');
    for (let k = states.length - 2; k >= 0; k--) {
      await answer(fresh.POST, 'POST', { params: { id }, body: { base: base++, steps: [{ step: 'undo' }] } });
      expect((await opened(id)).job).toEqual(states[k]);
    }
    for (let k = 1; k < states.length; k++) {
      await answer(fresh.POST, 'POST', { params: { id }, body: { base: base++, steps: [{ step: 'redo' }] } });
      expect((await opened(id)).job).toEqual(states[k]);
    }
    expect((await answer(fresh.POST, 'POST', { params: { id }, body: { base, steps: [{ step: 'redo' }] } })).status).toBe(422);
    // What the database holds, read by itself, is the same job.
    vi.resetModules();
    const { openJob } = await import('@/server/jobs');
    const { requirePermission } = await import('@/server/access');
    const again = await openJob(await requirePermission('read-job'), id);
    expect(jobSchema.parse(JSON.parse(JSON.stringify(again.job)))).toEqual(states.at(-1));
  });
});

/** A gear of so many corners. */
const gear = (corners: number, x: number) =>
  polygonPath(
    Array.from({ length: corners }, (_, k) => ({
      x: x + (k % 2 ? 9 : 10) * Math.cos((2 * Math.PI * k) / corners),
      y: (k % 2 ? 9 : 10) * Math.sin((2 * Math.PI * k) / corners),
    })),
  );
const drawnGear = (id: string, corners: number, x: number) => ({
  id,
  name: id,
  purpose: 'cut',
  leftOut: false,
  source: { kind: 'path', path: gear(corners, x) },
  live: [],
});

describe('what an edit costs', () => {
  const bytesOf = async (id: string): Promise<{ edit: number; save: number }> => {
    const [edit] = await sql<{ size: number }>(
      'select octet_length(forward::text) + octet_length(back::text) as size from job_edits where job_id = :id order by seq desc limit 1',
      { id },
    );
    const [saved] = await sql<{ size: number }>(
      'select coalesce(octet_length(patches::text), 0) as size from job_saves where job_id = :id order by revision desc limit 1',
      { id },
    );
    return { edit: Number(edit?.size), save: Number(saved?.size) };
  };
  it('leaving out one of 400 pieces stores less than 1 kB', async () => {
    const id = await made('Many');
    const pieces = Array.from({ length: 400 }, (_, k) => ({ ...drawnGear(`g${k}`, 24, 25 * k) }));
    expect((await save(id, { base: 1, steps: pieces.map((drawn) => ({ step: 'do', command: { do: 'draw', drawn } })) })).status).toBe(200);
    await save(id, { base: 2, steps: does({ do: 'leave-out', pieceIds: ['g200'], leftOut: true }) });
    const { edit, save: saved } = await bytesOf(id);
    expect(edit + saved).toBeLessThan(1000);
    expect((await opened(id)).job.drawn.filter((d) => d.leftOut).map((d) => d.id)).toEqual(['g200']);
    // Taking one out of the middle leaves the others where they are.
    await save(id, { base: 3, steps: does({ do: 'replace-drawn', word: 'x', ids: ['g100'], by: [] }) });
    expect((await bytesOf(id)).edit).toBeLessThan(20_000);
    expect((await opened(id)).job.drawn).toHaveLength(399);
  });
  it('moving one point of a job of 20,000 segments stores less than 4 kB in all', async () => {
    const id = await made('Large');
    const commands = Array.from({ length: 200 }, (_, k) => ({ do: 'draw', drawn: drawnGear(`g${k}`, 100, 25 * k) }));
    await save(id, { base: 1, steps: does(...commands) });
    const size = async () =>
      Number((await sql<{ size: string }>(`select pg_column_size(j.*) as size from jobs j where id = :id`, { id }))[0]?.size);
    const before = await size();
    const moved = gear(100, 25 * 7);
    const segments = moved.segments.map((s, k) => (k === 40 ? { ...s, to: { x: s.to.x + 0.5, y: s.to.y } } : s));
    await save(id, { base: 2, steps: does({ do: 'redraw', drawnId: 'g7', source: { kind: 'path', path: { ...moved, segments } } }) });
    const { edit, save: saved } = await bytesOf(id);
    expect(edit + saved).toBeLessThan(4000);
    expect(Math.abs((await size()) - before)).toBeLessThan(200);
  });
  it('patches that have grown are taken into the document, and what is kept reads the same', async () => {
    const id = await made('Growing');
    let base = 1;
    for (let k = 0; k < 12; k++) await save(id, { base: base++, steps: does({ do: 'draw', drawn: drawnGear(`g${k}`, 600, 25 * k) }) });
    const [row] = await sql<{ document_revision: number; patch_bytes: number }>(
      'select document_revision, patch_bytes from jobs where id = :id',
      { id },
    );
    expect(row?.document_revision).toBeGreaterThan(1);
    expect(row?.patch_bytes).toBeLessThan(300_000);
    vi.resetModules();
    const { openJob } = await import('@/server/jobs');
    const { requirePermission } = await import('@/server/access');
    const { job } = await openJob(await requirePermission('read-job'), id);
    expect(jobSchema.parse(JSON.parse(JSON.stringify(job))).drawn.map((d) => d.id)).toEqual(Array.from({ length: 12 }, (_, k) => `g${k}`));
  });
});
