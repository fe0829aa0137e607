/** What drawing and correcting by hand make of clicks and drags, without a screen. */
import { applyCommand, type Command, type Drawn, drawnPieces, emptyJob, type Job, piecesOf } from '@nuvet/core/job';
import { type Path, pathArea, pathBox, polygonPath, shift } from '@nuvet/core/plane';
import { beforeEach, describe, expect, it } from 'vitest';
import { aimAt } from './hand-aim';
import { deleteChosen, heldAt, insertAt, pathsDragged, pieceToChoose, pointsWithin, trimAt } from './hand-correcting';
import { addPoint, closeOutline, figureFrom, growing, placeFigure, placesNeeded, takePointBack } from './hand-drawing';
import { setHand, stepBack, takeHandTool, takeTray, useHand } from './hand-store';
import { moveCommand, movedDrawn, newDrawn, nextName, shapeCommand, targetOf } from './hand-target';

let job: Job;
const run = (command: Command): void => {
  job = applyCommand(job, command);
};
const at = (x: number, y: number) => ({ x, y });
const square = polygonPath([at(0, 0), at(40, 0), at(40, 40), at(0, 40)]);
const target = (id: string) => targetOf(job, id) as NonNullable<ReturnType<typeof targetOf>>;
const draw = (path: Path) => {
  const drawn = newDrawn(job, 'Outline', { kind: 'path', path });
  run({ do: 'draw', drawn });
  return drawn.id;
};

beforeEach(() => {
  job = emptyJob('Test');
  takeTray('draw');
  setHand({ chosen: [], lockDegrees: null, gridMm: null, typedLength: null, typedAngle: null, pointKind: 'corner', circleBy: 'centre', lineBy: 'ends', arcBy: 'three', purpose: 'cut' }); // biome-ignore format: one line
});

describe('a free outline', () => {
  it('grows by clicks, each in the job at once, and closes at its start', () => {
    for (const p of [at(0, 0), at(30, 0), at(30, 20)]) addPoint(run, job, p, 1, null);
    expect(growing(job)?.points).toHaveLength(3);
    // A typed length was meant for one point.
    setHand({ typedLength: 12 });
    addPoint(run, job, at(5, 25), 1, null);
    expect(useHand.getState().typedLength).toBeNull();
    takePointBack(run, job);
    addPoint(run, job, at(0.3, 0.2), 1, null);
    expect(growing(job)).toBeNull();
    expect(pathArea((drawnPieces(job)[0] as { outer: Path }).outer)).toBeCloseTo(300, 9);
  });
  it('takes its last point back, the only one with the outline; Escape leaves it as it stands', () => {
    addPoint(run, job, at(0, 0), 1, null);
    addPoint(run, job, at(30, 0), 1, null);
    expect(takePointBack(run, job)).toBe(true);
    expect(growing(job)?.points).toHaveLength(1);
    takePointBack(run, job);
    expect(job.drawn).toHaveLength(0);
    addPoint(run, job, at(0, 0), 1, null);
    addPoint(run, job, at(30, 0), 1, null);
    expect(stepBack()).toBe(true);
    expect(job.drawn).toHaveLength(1);
    expect(growing(job)).toBeNull();
  });
  it('goes on from either end later', () => {
    for (const p of [at(0, 0), at(30, 0), at(30, 20)]) addPoint(run, job, p, 1, null);
    stepBack();
    addPoint(run, job, at(0.2, 0.1), 1, null);
    expect(useHand.getState().goingOn?.end).toBe('start');
    addPoint(run, job, at(-10, 5), 1, null);
    expect(job.drawn).toHaveLength(1);
    expect(growing(job)?.points.at(-1)?.at).toEqual(at(-10, 5));
    closeOutline(run, job);
    expect(drawnPieces(job)[0]?.outer.closed).toBe(true);
  });
  it('drawn on from its start keeps curves and arcs where they are; a corrected one goes on, too', () => {
    addPoint(run, job, at(0, 0), 1, null);
    addPoint(run, job, at(20, 0), 1, at(30, 10));
    setHand({ through: at(30, 15) });
    addPoint(run, job, at(40, 0), 1, null);
    const before = (drawnPieces(job)[0] as { outer: Path }).outer;
    stepBack();
    addPoint(run, job, at(0, 0), 1, null);
    setHand({ through: at(-10, 8) });
    addPoint(run, job, at(-20, 0), 1, null);
    const after = (drawnPieces(job)[0] as { outer: Path }).outer;
    expect(after.segments.map((s) => s.kind)).toEqual(['arc', 'cubic', 'arc']);
    expect(after.segments.at(-1)).toEqual(before.segments.at(-1));
    stepBack();
    const id = job.drawn[0]?.id as string;
    run(shapeCommand(target(id), pathsDragged(target(id), { kind: 'points', path: 0, index: 3 }, at(40, 0), at(44, 4))));
    addPoint(run, job, at(44, 4), 1, null);
    expect(growing(job)?.points).toHaveLength(4);
  });
  it('pulled points are smooth, a held place makes an arc through it', () => {
    addPoint(run, job, at(0, 0), 1, null);
    addPoint(run, job, at(20, 0), 1, at(30, 10));
    setHand({ through: at(30, 15) });
    addPoint(run, job, at(40, 0), 1, null);
    expect(drawnPieces(job)[0]?.outer.segments.map((s) => s.kind)).toEqual(['cubic', 'arc']);
  });
});

describe('figures', () => {
  it('are made from as many places as they need, and named by their number', () => {
    const cases = [
      ['line', [at(0, 0), at(30, 40)], 0],
      ['rectangle', [at(0, 0), at(30, 20)], 600],
      ['circle', [at(0, 0), at(10, 0)], Math.PI * 100],
      ['ellipse', [at(0, 0), at(40, 20)], Math.PI * 200],
      ['polygon', [at(0, 0), at(10, 0)], 150 * Math.sqrt(3)],
      ['arc', [at(10, 0), at(0, 10), at(-10, 0)], 0],
    ] as const;
    for (const [tool, places, area] of cases) {
      takeHandTool(tool);
      expect(placesNeeded(tool)).toBe(places.length);
      const figure = figureFrom(tool, places, []);
      if (!figure) throw new Error(`no ${tool}`);
      placeFigure(run, job, tool, figure);
      const outer = (drawnPieces(job).at(-1) as { outer: Path }).outer;
      if (area > 0) expect(pathArea(outer)).toBeCloseTo(area, 6);
    }
    expect(job.drawn.map(({ name }) => name)).toEqual(['Line 1', 'Rectangle 1', 'Circle 1', 'Ellipse 1', 'Polygon 1', 'Arc 1']);
    expect(nextName(job, 'Circle')).toBe('Circle 2');
    expect(figureFrom('circle', [at(1, 1), at(1, 1)], [])).toBeNull();
  });
  it('lines to draw by: right across at an angle, and midway between two sides', () => {
    setHand({ lineBy: 'across' });
    expect(figureFrom('line', [at(0, 0), at(0, 1)], [square])).toMatchObject({ from: { x: 0, y: 20 - 155 }, to: { x: 0, y: 20 + 155 } });
    setHand({ lineBy: 'midway' });
    const line = figureFrom('line', [at(15, 0.2), at(15, 40.3)], [square]);
    expect(line).toMatchObject({ from: { y: expect.closeTo(20, 9) }, to: { y: expect.closeTo(20, 9) } });
    // It is a guide, whatever else is drawn for.
    placeFigure(run, job, 'line', line as NonNullable<typeof line>);
    expect(job.drawn.at(-1)?.purpose).toBe('guide');
    // One and the same line has no middle.
    expect(figureFrom('line', [at(15, 0.2), at(16, 0.1)], [square])).toBeNull();
  });
  it('measures that are kept go along with a move, and turn the other way in a mirror', () => {
    draw(square);
    const held: Drawn['held'] = [{ kind: 'turn', point: 1, turn: 1 }, { kind: 'length', segment: 0, mm: 9, play: 0 }]; // biome-ignore format: one line
    const drawn = { ...(job.drawn[0] as Drawn), held };
    const target = targetOf({ ...job, drawn: [drawn] }, drawn.id);
    if (!target) throw new Error('nothing is drawn');
    expect(movedDrawn(drawn, target, { a: 1, b: 0, c: 0, d: 1, e: 5, f: 0 }).held).toBe(held);
    expect(movedDrawn(drawn, target, { a: -1, b: 0, c: 0, d: 1, e: 0, f: 0 }).held?.[0]).toMatchObject({ turn: -1 });
    expect(movedDrawn(drawn, target, { a: 2, b: 0, c: 0, d: 2, e: 0, f: 0 }).held).toBeUndefined();
  });
  it('circles by two, three places or touching two lines; arcs that leave a line smoothly', () => {
    setHand({ circleBy: 'two' });
    expect(figureFrom('circle', [at(0, 0), at(20, 0)], [])).toMatchObject({ radius: 10, centre: at(10, 0) });
    setHand({ circleBy: 'three' });
    expect(figureFrom('circle', [at(5, 0), at(0, 5), at(-5, 0)], [])).toMatchObject({ radius: expect.closeTo(5, 9) });
    setHand({ circleBy: 'touching', radius: 4 });
    expect(figureFrom('circle', [at(20, 0), at(0, 20), at(9, 9)], [square])).toMatchObject({ centre: { x: expect.closeTo(4, 9), y: expect.closeTo(4, 9) } }); // biome-ignore format: one line
    setHand({ arcBy: 'leaving' });
    const line: Path = { start: at(0, 0), segments: [{ kind: 'line', to: at(10, 0) }], closed: false };
    expect(figureFrom('arc', [at(10, 0), at(20, 10)], [line])).toMatchObject({ kind: 'arc', sweep: expect.closeTo(Math.PI / 2, 9) });
  });
});

describe('where a click lands', () => {
  it('is a feature near by, a set direction, a typed length, or the place itself', () => {
    draw(square);
    const pieces = piecesOf(job);
    expect(aimAt(pieces, at(0.5, 0.5), 10, null, null, false)).toMatchObject({ at: at(0, 0), snap: { word: 'end' } });
    expect(aimAt(pieces, at(0.5, 0.5), 10, null, null, true)).toEqual({ at: at(0.5, 0.5), snap: null });
    setHand({ lockDegrees: 90 });
    expect(aimAt(pieces, at(70, 52), 10, at(60, 50), null, false).at).toEqual({ x: expect.closeTo(70, 9), y: expect.closeTo(50, 9) });
    setHand({ typedLength: 25, typedAngle: 90 });
    expect(aimAt(pieces, at(70, 52), 10, at(60, 50), null, false).at).toEqual({ x: expect.closeTo(60, 9), y: expect.closeTo(75, 9) });
  });
});

describe('correcting', () => {
  it('takes hold of points before lines, and moves what is chosen', () => {
    const id = draw(square);
    expect(heldAt(target(id), at(0.4, 0.3), 1)).toMatchObject({ kind: 'points', index: 0 });
    expect(heldAt(target(id), at(20, 0.3), 1)).toMatchObject({ kind: 'segment', index: 0 });
    expect(heldAt(target(id), at(20, 20), 1)).toBeNull();
    setHand({ points: { path: 0, indices: [0, 1] } });
    const [moved] = pathsDragged(target(id), { kind: 'points', path: 0, index: 0 }, at(0, 0), at(0, -10));
    expect(pathArea(moved as Path)).toBeCloseTo(2000, 9);
    expect(pointsWithin(target(id), at(-1, -1), at(41, 1))).toEqual({ path: 0, indices: [0, 1] });
    expect(pointsWithin(target(id), at(10, 10), at(12, 12))).toBeNull();
  });
  it('puts a point in, takes it out, and does not let an outline vanish by it', () => {
    const id = draw(square);
    const more = insertAt(target(id), { kind: 'segment', path: 0, index: 0, t: 0.5 });
    expect(more?.[0]?.segments).toHaveLength(5);
    run(shapeCommand(target(id), more as Path[]));
    setHand({ chosen: [id], points: { path: 0, indices: [1] } });
    expect(deleteChosen(run, target(id))).toBeNull();
    expect(target(id).paths[0]?.segments).toHaveLength(4);
    setHand({ points: { path: 0, indices: [0, 1, 2, 3] } });
    expect(deleteChosen(run, target(id))).toMatch(/at least two points/);
    setHand({ points: null });
    deleteChosen(run, target(id));
    expect(job.drawn).toHaveLength(0);
  });
  it('trims to the next crossing, and says so where nothing is under the pointer', () => {
    draw({ start: at(-20, 20), segments: [{ kind: 'line', to: at(60, 20) }], closed: false });
    draw(square);
    expect(trimAt(run, job, piecesOf(job), at(50, 20), 1)).toBeNull();
    const open = drawnPieces(job).find(({ outer }) => !outer.closed);
    expect(pathBox((open as { outer: Path }).outer)).toMatchObject({ minX: -20, maxX: 40 });
    expect(trimAt(run, job, piecesOf(job), at(500, 500), 1)).toMatch(/Click the part to remove/);
  });
  it('a figure that is moved stays a figure, and the piece under a click is the smallest', () => {
    const figure = figureFrom('rectangle', [at(10, 10), at(30, 20)], []);
    draw(square);
    placeFigure(run, job, 'rectangle', figure as NonNullable<typeof figure>);
    const [, rectangle] = job.drawn;
    run(moveCommand(target((rectangle as { id: string }).id), shift(5, 0)));
    expect(job.drawn[1]?.source).toMatchObject({ kind: 'figure', figure: { centre: at(25, 15), width: 20 } });
    expect(pieceToChoose(piecesOf(job), at(25, 15), 0.5)?.id).toBe(job.drawn[1]?.id);
  });
});
