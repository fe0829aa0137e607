/** The shelf's routes: who wins, what is refused, and which jobs use what. */
import { emptyJob, plainMachine } from '@nuvet/core/job';
import { machineFrom, materialSchema, type ShelfItem, stockFrom, toolSchema } from '@nuvet/core/shelf';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import * as deletedRoute from '@/app/api/shelf/deleted/route';
import * as shelfRoute from '@/app/api/shelf/route';
import * as usedRoute from '@/app/api/shelf/used/[id]/route';
import { requirePermission } from '@/server/access';
import { takeSteps } from '@/server/job-saves';
import { binJob, makeJob } from '@/server/jobs';
import { closeDatabase, freshDatabase, sql } from './fresh-database.ts';
import { answer } from './requests.ts';

beforeAll(() => freshDatabase());
afterAll(closeDatabase);

const material = (name: string, measuredMm: number | null = null) => materialSchema.parse({ name, measuredMm });
const saving = (name: string, more: object = {}) => ({ kind: 'material', revision: null, value: material(name), ...more });
const save = (items: object[], byName = false) => answer(shelfRoute.POST, 'POST', { body: { items, byName } });
const saved = async (items: object[], byName = false): Promise<Pick<ShelfItem, 'id' | 'revision'>[]> => {
  const { status, body } = await save(items, byName);
  expect([status, body]).toEqual([200, expect.any(Array)]);
  return body as Pick<ShelfItem, 'id' | 'revision'>[];
};
const listed = async (kind = ''): Promise<ShelfItem[]> =>
  (await answer(shelfRoute.GET, 'GET', { path: `/api/shelf${kind && `?kind=${kind}`}` })).body as ShelfItem[];

describe('the shelf', () => {
  it('starts with a dozen of each, and lists one kind alone', async () => {
    const items = await listed();
    expect(items.map(({ kind }) => kind).sort()).toEqual([...Array(12).fill('machine'), ...Array(12).fill('material'), ...Array(12).fill('tool')]); // biome-ignore format: one line
    expect((await listed('tool')).every(({ kind }) => kind === 'tool')).toBe(true);
  });
  it('takes a new item, its change, and its return after it was deleted', async () => {
    const [made] = await saved([saving('Weir oak')]);
    if (!made) throw new Error('nothing saved');
    expect(made.revision).toBe(1);
    const [changed] = await saved([{ ...saving('Weir oak', { id: made.id, revision: 1 }), value: material('Weir oak', 18.4) }]);
    expect(changed).toEqual({ id: made.id, revision: 2 });
    expect((await listed('material')).find(({ id }) => id === made.id)?.value).toMatchObject({ measuredMm: 18.4 });
    expect((await answer(deletedRoute.POST, 'POST', { body: { ids: [made.id] } })).status).toBe(204);
    expect((await listed('material')).some(({ id }) => id === made.id)).toBe(false);
    const [back] = await saved([{ kind: 'material', id: made.id, revision: null, value: material('Weir oak', 18.4) }]);
    expect(back?.id).toBe(made.id);
  });
  it('refuses a change of what was changed elsewhere since, and a name that is taken; nothing of such a save is kept', async () => {
    const [a] = await saved([saving('Ferry ash'), saving('Ferry elm')]);
    await saved([saving('Ferry ash', { id: a?.id, revision: 1 })]);
    const late = await save([saving('Ferry lime'), saving('Ferry ash', { id: a?.id, revision: 1 })]);
    expect([late.status, (late.body as { code: string }).code]).toEqual([409, 'changed-elsewhere']);
    const twice = await save([saving('Ferry lime'), saving('Ferry elm')]);
    expect([twice.status, (twice.body as { code: string }).code]).toEqual([409, 'name-taken']);
    expect((await listed('material')).some(({ value }) => value.name === 'Ferry lime')).toBe(false);
  });
  it('refuses to put back what somebody put back meanwhile, and two of one name, in one save or in two at once', async () => {
    const [made] = await saved([saving('Race oak')]);
    const back = await save([saving('Race oak', { id: made?.id })]);
    expect([back.status, (back.body as { code: string }).code]).toEqual([409, 'changed-elsewhere']);
    expect((await listed('material')).find(({ id }) => id === made?.id)?.revision).toBe(1);
    const twice = await save([saving('Twin pine'), saving('Twin pine')]);
    expect([twice.status, (twice.body as { code: string }).code]).toEqual([409, 'name-taken']);
    const both = await Promise.all([save([saving('Racing yew')]), save([saving('Racing yew')])]);
    expect(both.map(({ status }) => status).sort()).toEqual([200, 409]);
    expect((await listed('material')).filter(({ value }) => /^(Twin pine|Racing yew)$/.test(value.name))).toHaveLength(1);
  });
  it('by name takes the place of one of that name, whatever its revision', async () => {
    const [made] = await saved([saving('Mill beech')]);
    const [again, other] = await saved([{ ...saving('Mill beech'), value: material('Mill beech', 9.9) }, saving('Mill pear')], true);
    expect([again, other?.revision]).toEqual([{ id: made?.id, revision: 2 }, 1]);
    expect((await listed('material')).find(({ id }) => id === made?.id)?.value).toMatchObject({ measuredMm: 9.9 });
  });
  it('refuses what is no item, too many at once, and a body that is too large', async () => {
    expect((await save([{ kind: 'material', revision: null, value: { name: '' } }])).status).toBe(400);
    expect((await save([{ kind: 'oven', revision: null, value: {} }])).status).toBe(400);
    expect((await save([])).status).toBe(400);
    expect((await save(Array.from({ length: 501 }, (_, k) => saving(`x ${k}`)))).status).toBe(400);
    const photo = { jpegBase64: 'A'.repeat(160_000), widthMm: 100, heightMm: 100 };
    const photos = Array.from({ length: 60 }, (_, k) => ({ ...saving(`p ${k}`), value: { ...material(`p ${k}`), photo } }));
    expect((await save(photos)).status).toBe(413);
  });
  it('never touches what belongs to another workshop', async () => {
    const other = '00000000-0000-4000-8000-000000000009';
    const id = '6f2f3a1e-8f5e-4f5f-9b1a-0c9a4f6d2b77';
    const value = JSON.stringify(toolSchema.parse({ name: 'Their drill' }));
    await sql(
      `insert into shelf_items (id, workshop_id, kind, name, value, revision, created_at, updated_at) values (:id, :other, 'tool', 'Their drill', :value, 1, now(), now())`,
      { id, other, value },
    );
    expect((await save([saving('Mine now', { id, revision: null })])).status).toBeGreaterThanOrEqual(400);
    expect((await save([saving('Mine now', { id, revision: 1 })])).status).toBe(409);
    await answer(deletedRoute.POST, 'POST', { body: { ids: [id] } });
    expect(await sql('select name from shelf_items where id = :id', { id })).toEqual([{ name: 'Their drill' }]);
    expect((await listed()).some((item) => item.id === id)).toBe(false);
  });
});

describe('what uses an item', () => {
  it('are the jobs that keep a copy of it as stock or machine, outside the bin', async () => {
    const person = await requirePermission('make-job');
    const items = await listed();
    const ply = items.find(({ value }) => value.name === 'Birch plywood, 3 mm') as ShelfItem<'material'>;
    const laser = items.find(({ value }) => value.name === 'Heron Lane laser') as ShelfItem<'machine'>;
    const used = async (id: string) => {
      const { body } = await answer(usedRoute.GET, 'GET', { params: { id } });
      return (body as { name: string }[]).map(({ name }) => name);
    };
    const [a, b] = [await makeJob(person, 'Panel'), await makeJob(person, 'Badge')];
    await takeSteps(person, a, 1, [{ step: 'do', command: { do: 'set-stock', change: stockFrom(ply) } }]);
    const [first] = emptyJob('').making.processes;
    await takeSteps(person, b, 1, [
      { step: 'do', command: { do: 'set-stock', change: stockFrom(ply) } },
      { step: 'do', command: { do: 'set-machine', id: first?.id ?? '', machine: machineFrom(laser) } },
    ]);
    expect(await used(ply.id)).toEqual(['Badge', 'Panel']);
    expect(await used(laser.id)).toEqual(['Badge']);
    await binJob(person, b, true);
    expect([await used(ply.id), await used(laser.id)]).toEqual([['Panel'], []]);
    await takeSteps(person, a, 2, [{ step: 'do', command: { do: 'set-stock', change: { shelf: null } } }]);
    expect(await used(ply.id)).toEqual([]);
    expect(plainMachine.shelf).toBeNull();
  });
});
