/** Tabs and clamps as they are dragged. */
import { type Piece, plainMachine, plainStock } from '@nuvet/core/job';
import { type MillingSettings, millPlan, millToolSchema, operationSchema, plainMilling } from '@nuvet/core/milling';
import { circlePath, nearestOnPath, polygonPath, rectanglePath, reversedPath } from '@nuvet/core/plane';
import { finished } from '@nuvet/core/steps';
import { describe, expect, it } from 'vitest';
import { clampHandles, operationHandles, withClampAt, withCornerClicked, withTabAt } from './table-handles';

const tool = millToolSchema.parse({ id: 't', name: 'End mill', kind: 'end mill', diameterMm: 3, speedRpm: 18_000, feedMmPerMin: 900, plungeMmPerMin: 300, stepdownMm: 1.5, stepover: 0.4 }); // biome-ignore format: fields
const stock = { ...plainStock, thicknessMm: 5, widthMm: 200, heightMm: 100 };
const part = (id: string, outer: Piece['outer']): Piece => ({ id, name: id, purpose: 'cut', outer, holes: [], leftOut: false }) as never;
const pieces = [part('plate', rectanglePath({ minX: 10, minY: 10, maxX: 70, maxY: 50 })), part('wheel', circlePath({ x: 120, y: 40 }, 25))];
const planOf = (settings: MillingSettings) => finished(millPlan(pieces, settings, plainMachine, stock));
const settings: MillingSettings = { ...plainMilling, tools: [tool] };

describe('a tab that is dragged', () => {
  it('lies on its outline as near as it comes, with the others where they were, and the list is then one’s own', () => {
    const plan = planOf(settings);
    const handles = operationHandles(plan);
    expect(handles).toHaveLength(8);
    const lower = handles.find(({ at }) => at.y < 10 && at.x < 40);
    const change = withTabAt(settings, plan, { id: lower?.id ?? '', at: { x: 33, y: 4 } });
    const [profile] = change.operations ?? [];
    const places = profile?.kind === 'profile' ? (profile.tabs?.places ?? []) : [];
    expect(places).toHaveLength(8);
    expect(places.some(({ x, y }) => Math.abs(x - 33) < 1e-9 && Math.abs(y - 10) < 1e-9)).toBe(true);
    // Made so, the tabs stand there: each within the tool's radius of a place.
    const made = operationHandles(planOf({ ...settings, ...change }));
    expect(made).toHaveLength(8);
    for (const { at } of made) expect(Math.min(...places.map((p) => Math.hypot(p.x - at.x, p.y - at.y)))).toBeLessThan(1.5 + 1e-6);
    for (const piece of pieces) expect(places.filter((p) => nearestOnPath(piece.outer, p).distance < 1e-6)).toHaveLength(4);
  });
  it('of another operation is left alone, and one that is no more changes nothing', () => {
    const two = ['plate', 'wheel'].map((id) => operationSchema.parse({ kind: 'profile', id, tool: 't', pieces: [id] }));
    const own = { ...settings, operations: two };
    const plan = planOf(own);
    const [first] = operationHandles(plan);
    const changed = withTabAt(own, plan, { id: first?.id ?? '', at: { x: 30, y: 0 } }).operations ?? [];
    expect(changed.filter((one) => one.kind === 'profile' && one.tabs?.places)).toHaveLength(1);
    expect(withTabAt(own, plan, { id: 'gone', at: { x: 0, y: 0 } })).toEqual({});
  });
});

it('a clamp is taken anywhere on it, and keeps its size where it is put', () => {
  const clamps = [{ x: 5, y: 6, widthMm: 20, heightMm: 10, overMm: 8 }];
  expect(clampHandles({ ...settings, clamps })).toEqual([{ id: '0', at: { x: 5, y: 6 }, box: { minX: 5, minY: 6, maxX: 25, maxY: 16 } }]);
  expect(withClampAt({ ...settings, clamps }, { id: '0', at: { x: 40, y: -3 } })).toEqual({ clamps: [{ ...clamps[0], x: 40, y: -3 }] });
});

it('a corner that is clicked is left as drawn, and gets its room again', () => {
  const ell = part('ell', polygonPath([{ x: 10, y: 10 }, { x: 60, y: 10 }, { x: 60, y: 30 }, { x: 30, y: 30 }, { x: 30, y: 60 }, { x: 10, y: 60 }])); // biome-ignore format: corners
  const slot = { ...ell, id: 'slotted', holes: [reversedPath(rectanglePath({ minX: 14, minY: 14, maxX: 24, maxY: 24 }))] } as Piece;
  const own = {
    ...settings,
    operations: [operationSchema.parse({ kind: 'profile', id: 'p', tool: 't', tabs: null, corners: 'dog-bone' })],
  };
  const planned = (change: object) => finished(millPlan([slot], { ...own, ...change }, plainMachine, stock));
  const plan = planned({});
  const corners = operationHandles(plan);
  expect(corners.map(({ at: { x, y } }) => [x, y]).sort()).toEqual([[14, 14], [14, 24], [24, 14], [24, 24], [30, 30]].sort()); // biome-ignore format: corners
  const inner = corners.find(({ at }) => at.x === 30);
  const once = withCornerClicked(own, plan, inner as (typeof corners)[0]);
  const [profile] = once.operations ?? [];
  expect(profile?.kind === 'profile' && profile.cornersAt).toHaveLength(4);
  // Of five corners four get room now: a dog-bone takes off on both sides of its corner.
  expect([plan, planned(once)].map(({ allowed }) => allowed.length)).toEqual([10, 8]);
  const again = withCornerClicked({ ...own, ...once }, planned(once), inner as (typeof corners)[0]);
  expect(again.operations?.[0]).toMatchObject({ cornersAt: null });
});
