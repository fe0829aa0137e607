/** Databases of every earlier kind are brought to the newest tables, whole or not at all, and their jobs open and undo. */
import { jobSchema } from '@nuvet/core/job';
import { afterEach, describe, expect, it } from 'vitest';
import { requirePermission } from '@/server/access';
import { takeSteps } from '@/server/job-saves';
import { listJobs, openJob } from '@/server/jobs';
import { migrate, migrations, schemaFault } from '@/server/migrate';
import { listShelf } from '@/server/shelf';
import { closeDatabase, freshDatabase, sql } from './fresh-database.ts';

afterEach(closeDatabase);

const workshop = '00000000-0000-4000-8000-000000000001';
const [jobId, pictureId] = ['6f2f3a1e-8f5e-4f5f-9b1a-0c9a4f6d2b10', '6f2f3a1e-8f5e-4f5f-9b1a-0c9a4f6d2b11'];
const making = { way: 'laser', stock: null, thicknessMm: null };
const square = (x: number) => ({
  start: { x, y: 0 },
  segments: [{ kind: 'line', to: { x: x + 9, y: 0 } }, { kind: 'line', to: { x: x + 9, y: 9 } }, { kind: 'line', to: { x, y: 9 } }, { kind: 'line', to: { x, y: 0 } }],
  closed: true,
}); // biome-ignore format: a path
const piece = (id: string, x: number, leftOut = false) => ({
  id,
  name: id,
  purpose: 'cut',
  leftOut,
  runsOff: false,
  outer: square(x),
  holes: [],
});
const picture = {
  id: pictureId,
  name: 'otter.png',
  widthPx: 900,
  heightPx: 600,
  resolution: { dpi: 300, source: 'png' },
  opacity: 1,
  marks: [],
};
const trace = (leftOut: boolean) => ({
  pictureId,
  settings: { threshold: 'auto', toleranceMm: 0.1, smallestMm: 1 },
  threshold: 120,
  dropped: 0,
  mmPerPx: 0.0847,
  toSheet: { a: 0.0847, b: 0, c: 0, d: -0.0847, e: 0, f: 50 },
  pieces: [piece('piece-1', 0), piece('piece-2', 20, leftOut)],
}); // biome-ignore format: a trace
/** Documents as they were written, by version, as far as each goes. */
const documents = {
  1: { version: 1, name: 'Otter', unit: 'mm', making, pictures: [{ ...picture, marks: [{ id: 'm', kind: 'known-length', a: { x: 10, y: 10 }, b: { x: 410, y: 10 }, text: '74', mm: 74 }] }], trace: trace(true) },
  2: { version: 2, name: 'Otter', unit: 'mm', making, pictures: [picture], drawings: [], drawn: [{ id: 'd1', name: 'Ring', purpose: 'cut', leftOut: false, source: { kind: 'figure', figure: { kind: 'circle', centre: { x: 5, y: 5 }, radius: 4 } }, live: [] }], planScale: null, trace: trace(true) },
} as const; // biome-ignore format: a document a line

/** Edits as version 2 kept them: whole lists, and the one trace. */
const oldEdits = [
  { seq: 1, label: 'the trace', forward: [{ op: 'replace', path: ['trace'], value: trace(false) }], back: [{ op: 'replace', path: ['trace'], value: null }] },
  { seq: 2, label: 'leaving out pieces', forward: [{ op: 'replace', path: ['trace', 'pieces'], value: trace(true).pieces }], back: [{ op: 'replace', path: ['trace', 'pieces'], value: trace(false).pieces }] },
]; // biome-ignore format: an edit a line

/** @param version null of a database that has jobs of version 3 */
async function withOldJob(schema: string, version: 1 | 2 | null): Promise<void> {
  await freshDatabase(schema);
  if (version === null) {
    const document = { ...documents[2], version: 3, traces: [] };
    await sql(
      `insert into jobs (id, workshop_id, document, summary, revision, cursor, created_at, updated_at) values (:id, :workshop, :document, '{}', 1, 0, now(), now())`,
      { id: jobId, workshop, document: JSON.stringify(document) },
    );
    return;
  }
  const row = { id: jobId, workshop, document: JSON.stringify(documents[version]), pictureId };
  await sql(
    `insert into jobs (id, workshop_id, document, revision, cursor, created_at, updated_at) values (:id, :workshop, :document, 3, 2, now(), now())`,
    row,
  );
  await sql(
    `insert into pictures (id, workshop_id, job_id, name, kind, width_px, height_px, byte_length, created_at) values (:pictureId, :workshop, :id, 'otter.png', 'png', 900, 600, 3, now() - interval '3 days')`,
    row,
  );
  for (const { seq, label, forward, back } of oldEdits)
    await sql('insert into job_edits (job_id, seq, label, forward, back) values (:id, :seq, :label, :forward, :back)', {
      id: jobId,
      seq,
      label,
      forward: JSON.stringify(forward),
      back: JSON.stringify(back),
    });
}

// Before 005 there was one trace, and documents of the first two versions.
describe.each(['001-first-tables', '002-working-copies', '003-motifs', '004-presets'])('a database as %s left it', (schema) => {
  it.each([1, 2] as const)('with a job of version %i comes to the newest tables; the job opens, is listed, and undoes', async (version) => {
    await withOldJob(schema, version);
    expect(await schemaFault()).toMatch(/lacks .*006-shelf/);
    await migrate();
    expect(await schemaFault()).toBeNull();
    const person = await requirePermission('read-job');
    const { jobs } = await listJobs(person, { page: 0, search: 'otter', inBin: false });
    expect(jobs).toMatchObject([{ id: jobId, name: 'Otter', pictureId, pieces: version === 2 ? 3 : 2, hasOutlines: true, revision: 3 }]);
    const opened = await openJob(person, jobId);
    const job = jobSchema.parse(opened.job);
    expect(job).toMatchObject({ version: 4, traces: [{ pictureId, pieces: [{ leftOut: false }, { leftOut: true }] }] });
    expect(opened.done).toEqual(['the trace', 'leaving out pieces']);
    const one = await takeSteps(person, jobId, 3, [{ step: 'undo' }]);
    expect(one.job.traces[0]?.pieces.map((p) => p.leftOut)).toEqual([false, false]);
    const two = await takeSteps(person, jobId, 4, [{ step: 'undo' }]);
    expect(two.job.traces).toEqual([]);
    const back = await takeSteps(person, jobId, 5, [{ step: 'redo' }, { step: 'redo' }]);
    expect(back.job).toEqual(job);
    // The picture is the job’s still, though it is days old.
    expect(await sql('select 1 from job_pictures where job_id = :jobId and picture_id = :pictureId', { jobId, pictureId })).toHaveLength(1);
    // A second run finds nothing to do.
    await migrate();
  });
});

it('what was remembered of stocks and machines lies on the shelf, beside what every workshop starts with', async () => {
  await withOldJob('005-bin-and-saves', null);
  const remembered = [
    ['stock', 'Ash offcuts', { thicknessMm: 11.8, widthMm: 500, heightMm: 120, kerfMm: 0.3, strengths: { cut: { strength: 0.9, speedMmPerMin: 300, passes: 3 } } }],
    ['machine', 'Heron Lane laser', { name: 'Heron Lane laser', unit: 'in', origin: 'centre', fullS: 255 }],
  ] as const; // biome-ignore format: a preset a line
  for (const [kind, name, value] of remembered)
    await sql(
      'insert into presets (id, workshop_id, kind, name, value, created_at) values (gen_random_uuid(), :workshop, :kind, :name, :value, now())',
      {
        workshop,
        kind,
        name,
        value: JSON.stringify(value),
      },
    );
  await migrate();
  const items = await listShelf(await requirePermission('read-shelf'));
  const named = (name: string) => items.filter(({ value }) => value.name === name);
  expect(named('Ash offcuts')).toMatchObject([
    {
      kind: 'material',
      value: {
        measuredMm: 11.8,
        sheets: [{ widthMm: 500, heightMm: 120, count: 1 }],
        onMachines: [{ kerfMm: 0.3, settings: { powerSettings: { cut: { power: 0.9, speedMmPerMin: 300, passes: 3 } } } }],
      },
    },
  ]);
  // The workshop’s own stands where a starter has its name.
  expect(named('Heron Lane laser')).toMatchObject([{ kind: 'machine', value: { unit: 'in', origin: 'centre', fullS: 255 } }]);
  expect(items.filter(({ kind }) => kind === 'tool')).toHaveLength(12);
  expect(items).toHaveLength(37);
});

it('a list made before says how each job is made', async () => {
  await withOldJob('005-bin-and-saves', null);
  const summary = {
    name: 'Otter',
    making: { way: 'foam', stock: 'Pink board', thicknessMm: 50 },
    pictureId: null,
    pieces: 3,
    hasOutlines: true,
  };
  await sql('update jobs set summary = :summary', { summary: JSON.stringify(summary) });
  await migrate();
  const { jobs } = await listJobs(await requirePermission('list-jobs'), { page: 0, search: '', inBin: false });
  expect(jobs).toMatchObject([{ name: 'Otter', stock: 'Pink board', processes: ['outlines'], uses: [], pieces: 3 }]);
});

it('a migration that fails leaves the database as it was, and is done in full the next time', async () => {
  await withOldJob('004-presets', 2);
  // Something else has the name of an index that the migration makes near its end.
  await sql('create table beside (x integer)');
  await sql('create index job_pictures_picture_id on beside (x)');
  await expect(migrate()).rejects.toThrow(/job_pictures_picture_id/);
  expect(await sql(`select 1 from information_schema.columns where table_name = 'jobs' and column_name = 'summary'`)).toEqual([]);
  expect(await sql(`select 1 from information_schema.tables where table_name = 'job_saves'`)).toEqual([]);
  expect((await sql<{ name: string }>('select name from migrations')).map((m) => m.name)).not.toContain('005-bin-and-saves');
  await sql('drop table beside');
  await migrate();
  expect(await schemaFault()).toBeNull();
});

it('two starts at once migrate once', async () => {
  await freshDatabase(null);
  await Promise.all([migrate(), migrate(), migrate()]);
  expect(await sql('select name from migrations')).toHaveLength(migrations.length);
});

it('a database of a newer version is told from one that fits', async () => {
  await freshDatabase();
  await sql(`insert into migrations (name) values ('999-later')`);
  expect(await schemaFault()).toMatch(/newer Nuvet \(999-later\)/);
});
