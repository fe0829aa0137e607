/** What is drawn by hand in the job: kept point by point, worked out live, undone to the last digit. */
import { describe, expect, it } from 'vitest';
import { centreOf, circlePath, type Path, pathArea, pathBox, segmentLength, stepsOf, withPoint } from '../plane/index.ts';
import {
  applyCommand,
  type Command,
  type Drawing,
  type Drawn,
  drawnPieces,
  edited,
  emptyJob,
  type Job,
  jobSchema,
  keptPieces,
  masterOf,
  type Piece,
  undone,
} from './index.ts';

const run = (job: Job, ...commands: Command[]): Job => commands.reduce(applyCommand, job);
const points = (...places: [number, number][]) => places.map(([x, y]) => ({ at: { x, y }, corner: true }));
const drawn = (id: string, source: Drawn['source'], more: Partial<Drawn> = {}): Drawn => ({ id, name: id, purpose: 'cut', leftOut: false, source, live: [], ...more }); // biome-ignore format: one line
const start = emptyJob('Lantern');
const slot: Drawn['source'] = { kind: 'figure', figure: { kind: 'slot', from: { x: 0, y: 0 }, to: { x: 25, y: 0 }, width: null, play: 0.5, ends: 'flat' } }; // biome-ignore format: one line

describe('what is drawn', () => {
  it('is kept from the first point on, and closes to a piece', () => {
    const first = run(start, { do: 'draw', drawn: drawn('wing', { kind: 'points', points: points([0, 0]), closed: false }) });
    expect(drawnPieces(first)).toHaveLength(0);
    expect(jobSchema.parse(JSON.parse(JSON.stringify(first)))).toEqual(first);
    const source = { kind: 'points', points: points([0, 0], [30, 0], [30, 20]), closed: true } as const;
    const closed = run(first, { do: 'redraw', drawnId: 'wing', source: { ...source, points: [...source.points] } });
    expect(keptPieces(closed)).toMatchObject([{ id: 'wing', purpose: 'cut', outer: { closed: true } }]);
    expect(pathArea(keptPieces(closed)[0]?.outer ?? circlePath({ x: 0, y: 0 }, 1))).toBeCloseTo(300, 9);
  });
  it('a job written before anything could be drawn is read', () => {
    const { drawn: _, ...old } = emptyJob('Old');
    expect(jobSchema.parse(old).drawn).toEqual([]);
  });
  it('slots follow the stock: one change of thickness updates them all', () => {
    const job = run(start, { do: 'draw', drawn: drawn('a', slot) }, { do: 'draw', drawn: drawn('b', slot) });
    expect(masterOf(job.drawn[0] as Drawn, null).fault).toMatch(/stock/);
    const areas = (thicknessMm: number) =>
      drawnPieces(run(job, { do: 'set-stock', change: { thicknessMm } })).map(({ outer }) => pathArea(outer));
    expect(areas(4)).toEqual([expect.closeTo(112.5, 9), expect.closeTo(112.5, 9)]);
    expect(areas(3.1)).toEqual([expect.closeTo(90, 9), expect.closeTo(90, 9)]);
  });
  it('nothing that follows is stored, and cut-outs are no pieces of their own', () => {
    const plate = drawn('plate', { kind: 'figure', figure: { kind: 'rectangle', centre: { x: 0, y: 0 }, width: 60, height: 40, radius: 0, angle: 0 } }, { live: [{ kind: 'cut-out', ids: ['hole'] }] }); // biome-ignore format: one line
    const hole = drawn('hole', { kind: 'figure', figure: { kind: 'circle', centre: { x: 0, y: 0 }, radius: 8 } });
    const job = run(start, { do: 'draw', drawn: plate }, { do: 'draw', drawn: hole });
    expect(keptPieces(job)).toMatchObject([{ id: 'plate', holes: [{ closed: true }] }]);
    expect(JSON.stringify(job.drawn[0])).not.toContain('segments');
    const wider = run(job, { do: 'redraw', drawnId: 'hole', source: { kind: 'figure', figure: { kind: 'circle', centre: { x: 0, y: 0 }, radius: 12 } } }); // biome-ignore format: one line
    expect(pathArea(keptPieces(wider)[0]?.holes[0] ?? circlePath({ x: 0, y: 0 }, 1))).toBeCloseTo(-144 * Math.PI, 6);
    // Cut out of each other they do not go round for ever.
    const circular = run(job, { do: 'change-drawn', drawnId: 'hole', change: { live: [{ kind: 'cut-out', ids: ['plate'] }] } });
    expect(drawnPieces(circular)).toEqual([]);
  });
  it('takes the place of pieces that came with a drawing file, which are left out', () => {
    const outer = circlePath({ x: 0, y: 0 }, 9);
    const piece: Piece = { id: 'd-1', name: 'Tray', purpose: 'cut', leftOut: false, runsOff: false, outer, holes: [] };
    const drawing: Drawing = { id: 'd', name: 'tray.dxf', kind: 'dxf', unitIsStated: true, mmPerUnit: 1, hidden: false, notes: [], pieces: [piece] }; // biome-ignore format: one line
    const job = run(start, { do: 'bring-in-drawing', drawing });
    const changed = run(job, { do: 'replace-drawn', word: 'a change', ids: ['d-1'], by: [drawn('mine', { kind: 'path', path: outer })] });
    expect(keptPieces(changed).map(({ id }) => id)).toEqual(['mine']);
    expect(() => run(job, { do: 'replace-drawn', word: 'a change', ids: ['nothing'], by: [] })).toThrow(/no longer there/);
  });
  it('keeps its measures while points move, come and go; an old job without any is read', () => {
    const outline = { kind: 'points', points: points([0, 0], [100, 0], [100, 60], [0, 60]), closed: true } as const;
    const held: Drawn['held'] = [
      { kind: 'length', segment: 0, mm: 120, play: 0 },
      { kind: 'gap', a: 1, b: 2, mm: null, play: 0.5 },
    ];
    const job = run(
      start,
      { do: 'draw', drawn: drawn('frame', { ...outline, points: [...outline.points] }) },
      { do: 'change-drawn', drawnId: 'frame', change: { held } },
      { do: 'set-stock', change: { thicknessMm: 40 } },
    );
    const sidesOf = (j: Job): number[] => {
      const [path] = masterOf(j.drawn[0] as Drawn, j.making.stock.thicknessMm).paths;
      return path ? stepsOf(path).map(({ from, segment }) => segmentLength(from, segment)) : [];
    };
    expect(sidesOf(job)[0]).toBeCloseTo(120, 9);
    expect(sidesOf(job)[1]).toBeCloseTo(40.5, 9);
    // The source stays as it was drawn; a new stock is followed at once.
    expect(job.drawn[0]?.source).toEqual(outline);
    expect(sidesOf(run(job, { do: 'set-stock', change: { thicknessMm: 3 } }))[1]).toBeCloseTo(3.5, 9);
    const path = masterOf(job.drawn[0] as Drawn, 40).paths[0] as Path;
    const more = run(job, { do: 'redraw', drawnId: 'frame', source: { kind: 'path', path: withPoint(path, 2, 0.5) } });
    expect(more.drawn[0]?.held).toEqual(held);
    const first = run(job, { do: 'redraw', drawnId: 'frame', source: { kind: 'path', path: withPoint(path, 0, 0.5) } });
    expect(first.drawn[0]?.held).toMatchObject([{ kind: 'gap', a: 2, b: 3 }]);
    expect(jobSchema.parse(JSON.parse(JSON.stringify(job)))).toEqual(job);
  });
  it('a strip follows the line it bends into, what is drawn on that, and the stock', () => {
    const arc: Drawn['source'] = { kind: 'figure', figure: { kind: 'arc', from: { x: 30, y: 0 }, to: { x: -30, y: 0 }, sweep: Math.PI } };
    const hole = (x: number, y: number): Drawn['source'] => ({ kind: 'figure', figure: { kind: 'circle', centre: { x, y }, radius: 2 } });
    const strip: Drawn['source'] = { kind: 'strip', of: 'cuff', k: 0.5, side: 'right', widthMm: 25, at: { x: 100, y: 0 } };
    const job = run(
      start,
      { do: 'draw', drawn: drawn('cuff', arc) },
      { do: 'draw', drawn: drawn('hole', hole(0, 30)) },
      { do: 'draw', drawn: drawn('strip', strip) },
    );
    const seen = (j: Job) => {
      const piece = drawnPieces(j).find(({ id }) => id === 'strip');
      const holes = piece?.holes.map((path) => centreOf(pathBox(path)).x - 100) ?? [];
      return { length: piece ? pathBox(piece.outer).maxX - 100 : 0, holes };
    };
    expect(seen(job)).toEqual({ length: expect.closeTo(30 * Math.PI, 9), holes: [expect.closeTo(15 * Math.PI, 6)] });
    // To the right of a line that turns left lies its outside: longer by pi times half the thickness.
    const thicker = run(job, { do: 'set-stock', change: { thicknessMm: 4 } });
    expect(seen(thicker)).toEqual({ length: expect.closeTo(32 * Math.PI, 9), holes: [expect.closeTo(16 * Math.PI, 6)] });
    const c = 30 / Math.SQRT2;
    const moved = run(job, { do: 'redraw', drawnId: 'hole', source: hole(c, c) as Extract<Drawn['source'], { kind: 'figure' }> });
    expect(seen(moved).holes).toEqual([expect.closeTo((30 * Math.PI) / 4, 6)]);
    expect(seen(run(job, { do: 'replace-drawn', word: 'taking away', ids: ['cuff'], by: [] }))).toEqual({ length: 0, holes: [] });
    // Laid by one another two strips do not go round for ever.
    const circular = run(job, { do: 'redraw', drawnId: 'cuff', source: { ...strip, of: 'strip' } });
    expect(seen(circular).length).toBe(0);
    expect(jobSchema.parse(JSON.parse(JSON.stringify(job)))).toEqual(job);
  });
  it('is named, left out, given a purpose and replaced; undo brings it back', () => {
    const job = run(start, { do: 'draw', drawn: drawn('a', slot) }, { do: 'set-stock', change: { thicknessMm: 4 } });
    const scored = run(job, { do: 'set-purpose', pieceIds: ['a'], purpose: 'score' }, { do: 'leave-out', pieceIds: ['a'], leftOut: true });
    expect(scored.drawn[0]).toMatchObject({ purpose: 'score', leftOut: true });
    expect(keptPieces(scored)).toEqual([]);
    const result = edited(job, { do: 'replace-drawn', word: 'uniting', ids: ['a'], by: [drawn('c', { kind: 'paths', paths: [circlePath({ x: 0, y: 0 }, 3)] })] }); // biome-ignore format: one line
    expect(result?.job.drawn.map(({ id }) => id)).toEqual(['c']);
    expect(undone(result?.job as Job, result?.edit as NonNullable<typeof result>['edit'])).toEqual(job);
    expect(() => run(job, { do: 'redraw', drawnId: 'zz', source: slot })).toThrow(/no longer exists/);
  });
});

describe('outlines of one thing', () => {
  // A badge with a hole, and rings at 3 and 6 mm about its outer outline alone.
  const badge = drawn(
    'badge',
    { kind: 'paths', paths: [circlePath({ x: 0, y: 0 }, 20), circlePath({ x: 0, y: 12 }, 3)] },
    { live: [{ kind: 'offset', by: 3, count: 2, corners: 'round', keeps: true, only: 0 }] },
  );
  const radii = (pieces: readonly Piece[]) =>
    pieces.map(({ purpose, outer, holes }) => [
      purpose,
      ...[outer, ...holes].map((path) => Math.round((pathBox(path).maxX - pathBox(path).minX) * 50) / 100),
    ]);

  it('are set off one by one: the hole’s edge stays as it is', () => {
    const job = run(start, { do: 'draw', drawn: badge });
    // All of one purpose: a ring of material between the rings, and the badge within.
    expect(radii(keptPieces(job)).flat().filter((r) => typeof r === 'number').sort((a, b) => Number(a) - Number(b))).toEqual([3, 20, 23, 26]); // biome-ignore format: one line
    const grown = (by: number) => run(start, { do: 'draw', drawn: { ...badge, live: [{ kind: 'offset', by, count: 1, corners: 'round', keeps: false, only: 1 }] } }); // biome-ignore format: one line
    // Outward makes a hole larger, as it does any outline chosen by itself.
    expect(radii(keptPieces(grown(1)))).toEqual([['cut', 20, 4]]);
    expect(radii(keptPieces(grown(-1)))).toEqual([['cut', 20, 2]]);
  });
  it('have purposes of their own, and lie in one another only where those are the same', () => {
    const job = run(
      start,
      { do: 'draw', drawn: badge },
      { do: 'change-drawn', drawnId: 'badge', change: { purposes: { 0: 'engrave', 2: 'score' } } },
    );
    expect(radii(keptPieces(job))).toEqual(expect.arrayContaining([['engrave', 20], ['score', 23], ['cut', 26, 3]])); // biome-ignore format: one line
    expect(keptPieces(job)).toHaveLength(3);
    expect(jobSchema.parse(JSON.parse(JSON.stringify(job)))).toEqual(job);
    const ids = keptPieces(job).map(({ id }) => id);
    expect(new Set(ids).size).toBe(3);
    // A purpose for the whole ends them.
    const whole = run(job, { do: 'set-purpose', pieceIds: ['badge'], purpose: 'pocket' });
    expect(whole.drawn[0]?.purposes).toBeUndefined();
    expect(new Set(keptPieces(whole).map(({ purpose }) => purpose))).toEqual(new Set(['pocket']));
    // Left out and taken in again it keeps them.
    const back = run(
      job,
      { do: 'leave-out', pieceIds: ['badge'], leftOut: true },
      { do: 'leave-out', pieceIds: ['badge'], leftOut: false },
    );
    expect(back.drawn[0]?.purposes).toEqual({ 0: 'engrave', 2: 'score' });
  });
  it('refuse a purpose for what is no number of an outline', () => {
    const change = { purposes: { first: 'engrave' } } as object;
    expect(() => jobSchema.parse({ ...start, drawn: [{ ...badge, ...change }] })).toThrow();
  });
});
