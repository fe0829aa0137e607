/** Edits of the shelf against a server played by the test: each is saved from what was seen, and each can be undone. */
import { materialSchema, type ShelfItem, toolSchema } from '@nuvet/core/shelf';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { addItem, bringIn, changeItem, newValue, removeItems, setShelfFault, undoEdit, useShelfEdits } from './shelf-edits';
import { ofKind, putOnShelf, readShelf, removeFromShelf, saveToShelf, useShelfStore } from './shelf-store';

interface Saving {
  readonly kind: ShelfItem['kind'];
  readonly id?: string;
  readonly revision: number | null;
  readonly value: ShelfItem['value'];
}
/** What the server has, and what was asked of it. */
let there: ShelfItem[];
let asked: string[];
let refused: { status: number; message: string } | null;
let count = 0;
const uuid = (): string => `00000000-0000-4000-8000-${String(++count).padStart(12, '0')}`;

function saved({ items, byName }: { items: Saving[]; byName: boolean }): Response {
  const told = items.map(({ kind, id, revision, value }) => {
    const own = there.find((item) => (byName && revision === null ? item.kind === kind && item.value.name === value.name : item.id === id));
    const item = { id: own?.id ?? id ?? uuid(), kind, revision: (own?.revision ?? 0) + 1, value };
    there = [...there.filter((one) => one.id !== item.id), item];
    return { id: item.id, revision: item.revision };
  });
  return Response.json(told);
}

beforeEach(() => {
  [there, asked, refused] = [[], [], null];
  there = ['Ash', 'Walnut'].map(
    (name): ShelfItem => ({ id: uuid(), kind: 'material', revision: 1, value: materialSchema.parse({ name }) }),
  );
  useShelfStore.setState({ items: null, fault: null });
  useShelfEdits.setState({ done: [], fault: null, isBusy: false });
  vi.stubGlobal('fetch', async (url: string, init: { method: string; body?: string }) => {
    const body = init.body ? JSON.parse(init.body) : null;
    asked.push(`${init.method} ${url}${body?.items ? ` ${body.items.length}` : ''}${body?.ids ? ` ${body.ids.length}` : ''}`);
    if (refused && init.method === 'POST') return Response.json({ code: 'changed-elsewhere', message: refused.message }, { status: refused.status }); // biome-ignore format: one line
    if (init.method === 'GET') return Response.json(there);
    if (url === '/api/shelf') return saved(body);
    there = there.filter(({ id }) => !body.ids.includes(id));
    return new Response(null, { status: 204 });
  });
});
afterEach(() => {
  vi.unstubAllGlobals();
  useShelfStore.setState({ items: null, fault: null });
  useShelfEdits.setState({ done: [], fault: null, isBusy: false });
});

const items = (): readonly ShelfItem[] => useShelfStore.getState().items ?? [];
const names = (): string[] => items().map(({ value }) => value.name);
const item = (name: string) => ofKind(items(), 'material').find(({ value }) => value.name === name) as ShelfItem<'material'>;
const labels = (): string[] => useShelfEdits.getState().done.map(({ label }) => label);
const measured = (name: string): number | null =>
  (there.find(({ value }) => value.name === name) as ShelfItem<'material'>).value.measuredMm;

describe('the shelf as the page knows it', () => {
  it('is read once, for all who ask, and anew where that is asked for', async () => {
    await Promise.all([readShelf(true), readShelf(), readShelf()]);
    await readShelf();
    expect(asked).toEqual(['GET /api/shelf']);
    await readShelf(true);
    expect(asked).toHaveLength(2);
    expect(names()).toEqual(['Ash', 'Walnut']);
  });
  it('that cannot be read says why, and is asked for again', async () => {
    vi.stubGlobal('fetch', async () => Response.json({ code: 'busy', message: 'The server is busy.' }, { status: 503 }));
    expect(await readShelf(true)).toEqual([]);
    expect(useShelfStore.getState()).toMatchObject({ items: null, fault: 'The server is busy.' });
    vi.stubGlobal('fetch', async () => Response.json(there));
    expect(await readShelf()).toHaveLength(2);
    expect(useShelfStore.getState().fault).toBeNull();
  });
  it('lies in order, numbers as people count; many are saved and removed in parts, the share told', async () => {
    await readShelf(true);
    const shares: number[] = [];
    const saving = Array.from({ length: 1201 }, (_, k) => ({ kind: 'tool' as const, revision: null, value: toolSchema.parse({ name: `Bit ${1201 - k}` }) })); // biome-ignore format: one line
    const made = await saveToShelf(saving, { onShare: (share) => shares.push(share) });
    expect(asked.slice(1)).toEqual(['POST /api/shelf 500', 'POST /api/shelf 500', 'POST /api/shelf 201']);
    expect(shares).toEqual([expect.closeTo(0.416, 3), expect.closeTo(0.833, 3), 1]);
    expect(ofKind(items(), 'tool').slice(0, 11).map(({ value }) => value.name)).toEqual(Array.from({ length: 11 }, (_, k) => `Bit ${k + 1}`)); // biome-ignore format: one line
    asked = [];
    await removeFromShelf(made.map(({ id }) => id));
    expect(asked).toEqual(['POST /api/shelf/deleted 500', 'POST /api/shelf/deleted 500', 'POST /api/shelf/deleted 201']);
    expect(names()).toEqual(['Ash', 'Walnut']);
  });
  it('takes what is put on it under its name in the place of one that another window put there meanwhile', async () => {
    await readShelf(true);
    there = [...there, { id: uuid(), kind: 'material', revision: 4, value: materialSchema.parse({ name: 'Elm', nominalMm: 12 }) }];
    const copy = await putOnShelf('material', 'Elm', (before) => ({
      ...materialSchema.parse({ name: 'Elm' }),
      ...before,
      measuredMm: 11.6,
    }));
    expect(copy).toEqual({ id: there.at(-1)?.id, revision: 5 });
    expect(there.filter(({ value }) => value.name === 'Elm')).toMatchObject([{ value: { nominalMm: 12, measuredMm: 11.6 } }]);
    expect((await putOnShelf('material', 'Lime', () => materialSchema.parse({ name: 'Lime' }))).revision).toBe(1);
  });
});

describe('an edit', () => {
  beforeEach(async () => {
    await readShelf(true);
  });
  it('of an item is saved from the revision that was seen; undone it is as before, once more from the newest', async () => {
    const before = item('Ash');
    expect(await changeItem(before, { ...before.value, measuredMm: 11.8 })).toBe(true);
    expect([measured('Ash'), item('Ash').revision, labels()]).toEqual([11.8, 2, ['the change of Ash']]);
    await changeItem(item('Ash'), { ...item('Ash').value, measuredMm: 11.9 });
    await undoEdit();
    expect([measured('Ash'), item('Ash').revision]).toEqual([11.8, 4]);
    await undoEdit();
    expect([measured('Ash'), labels()]).toEqual([null, []]);
  });
  it('that the server refuses says why, changes nothing, is no step of undo, and the shelf is read anew', async () => {
    refused = { status: 409, message: '“Ash” was changed in another window.' };
    expect(await changeItem(item('Ash'), { ...item('Ash').value, measuredMm: 3 })).toBe(false);
    expect(useShelfEdits.getState()).toMatchObject({ fault: '“Ash” was changed in another window.', done: [], isBusy: false });
    await vi.waitFor(() => expect(asked.at(-1)).toBe('GET /api/shelf'));
    setShelfFault(null);
    expect(useShelfEdits.getState().fault).toBeNull();
  });
  it('adds what was begun under a name of its own, and takes it away again', async () => {
    const [first, second] = [await addItem('material', newValue('material')), await addItem('material', newValue('material'))];
    expect(first).not.toBe(second);
    expect(names()).toEqual(['Ash', 'New material', 'New material 2', 'Walnut']);
    await undoEdit();
    await undoEdit();
    expect(there.map(({ value }) => value.name)).toEqual(['Ash', 'Walnut']);
  });
  it('removes several, and brings them back as they were, under their own ids', async () => {
    const before = items();
    await removeItems(before);
    expect([there, labels()]).toEqual([[], ['removing 2 items']]);
    await undoEdit();
    expect(there.map(({ id }) => id).sort()).toEqual(before.map(({ id }) => id).sort());
    await removeItems([item('Walnut')]);
    expect(labels()).toEqual(['removing Walnut']);
  });
  it('of many at once is one step of undo: those that were new go, those that were there are as before', async () => {
    const values = [materialSchema.parse({ name: 'Ash', measuredMm: 9 }), materialSchema.parse({ name: 'Pear', measuredMm: 4 })];
    const shares: number[] = [];
    await bringIn('material', values, (share) => shares.push(share));
    expect([measured('Ash'), measured('Pear'), shares]).toEqual([9, 4, [1]]);
    expect(labels()).toEqual(['bringing in 2 lines']);
    await undoEdit();
    expect(there.map(({ value }) => value.name).sort()).toEqual(['Ash', 'Walnut']);
    expect(measured('Ash')).toBeNull();
  });
  it('with nothing to undo nothing is asked of the server', async () => {
    asked = [];
    expect(await undoEdit()).toBe(true);
    expect(asked).toEqual([]);
  });
});
