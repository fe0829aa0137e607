/** Drawing and correcting by hand as the pointer and the keys drive them: presses, drags, releases, in the order in which they come. */
import { applyCommand, type Command, drawnPieces, emptyJob, type Job, keptPieces } from '@nuvet/core/job';
import { distance, heightOf, type Path, type Point, pathArea, pathBox, polygonPath, widthOf } from '@nuvet/core/plane';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type DrawTool, resetHand, setHand, takeHandTool, takeTray, useHand } from '../hand-store';
import { newDrawn } from '../hand-target';
import { resetTable } from '../table-store';
import { toScreen, type View } from '../view';
import { type CorrectingPress, corrector } from './corrector';
import { type DrawingPress, drawer } from './drawer';
import type { HandSurroundings, HandTool, TimedKeys } from './hand-tool';

const at = (x: number, y: number): Point => ({ x, y });
const view: View = { scale: 10, x: 100, y: 500 };
const screen = (p: Point): Point => toScreen(view, p);
const keys = (more: Partial<TimedKeys> = {}): TimedKeys => ({ altKey: true, shiftKey: false, timeStamp: 0, ...more });

let job: Job;
let said: string[];
let looked: number;
const run = (command: Command): void => {
  job = applyCommand(job, command);
};
const drawing: { current: DrawingPress | null } = { current: null };
const correcting: { current: CorrectingPress | null } = { current: null };
const around = (): HandSurroundings => ({
  job,
  run,
  pieces: [...keptPieces(job), ...drawnPieces(job)].filter((one, k, all) => all.findIndex(({ id }) => id === one.id) === k),
  view: () => view,
  pictureSnap: () => null,
  lookForSnap: () => {
    looked++;
  },
  onMessage: (text) => said.push(text),
});
/** Made anew for every event, as the table does. */
const draws = (): HandTool => drawer(around(), drawing);
const corrects = (): HandTool => corrector(around(), correcting);

interface Moving {
  readonly from: Point;
  readonly to?: Point;
  readonly heldMs?: number;
  readonly more?: Partial<TimedKeys>;
}
/** A press, where it goes on to another place a drag, and the release. */
function press(tool: () => HandTool, { from, to, heldMs = 0, more = {} }: Moving): boolean {
  tool().down(screen(from), keys(more));
  if (to) tool().drag(screen(to), keys(more));
  return tool().up(screen(to ?? from), keys({ ...more, timeStamp: heldMs }));
}
const click = (tool: () => HandTool, from: Point, more: Partial<TimedKeys> = {}): boolean => press(tool, { from, more });
const outers = (): Path[] => drawnPieces(job).map(({ outer }) => outer);
const box = (k = 0) => pathBox(outers()[k] as Path);

beforeEach(() => {
  job = emptyJob('Weir');
  [said, looked] = [[], 0];
  [drawing.current, correcting.current] = [null, null];
  resetHand();
  resetTable();
});
afterEach(() => {
  resetHand();
  resetTable();
});

const take = (tool: DrawTool): void => {
  takeTray('draw');
  takeHandTool(tool);
};

describe('the drawer', () => {
  it('sets corners by clicks and closes by Shift and Enter', () => {
    take('outline');
    for (const p of [at(0, 0), at(30, 0), at(30, 20)]) click(draws, p);
    expect(draws().key({ key: 'Enter', altKey: false, shiftKey: true })).toBe(true);
    expect(pathArea(outers()[0] as Path)).toBeCloseTo(300, 9);
    expect(useHand.getState().goingOn).toBeNull();
  });
  it('Enter alone ends the outline as it stands; Backspace takes points back, one by one, and is not taken where there are none', () => {
    take('outline');
    for (const p of [at(0, 0), at(30, 0), at(30, 20)]) click(draws, p);
    expect(draws().key({ key: 'Backspace', altKey: false, shiftKey: false })).toBe(true);
    draws().key({ key: 'Enter', altKey: false, shiftKey: false });
    expect(outers().map(({ closed, segments }) => [closed, segments.length])).toEqual([[false, 1]]);
    expect(draws().key({ key: 'Backspace', altKey: false, shiftKey: false })).toBe(false);
  });
  it('a drag pulls a smooth curve out of the point; a press held still makes an arc through its place', () => {
    take('outline');
    click(draws, at(0, 0));
    press(draws, { from: at(20, 0), to: at(26, 8) });
    press(draws, { from: at(36, 12), heldMs: 460 });
    expect(useHand.getState().through).toEqual(at(36, 12));
    click(draws, at(44, 0));
    const [path] = outers() as [Path];
    expect(path.segments.map(({ kind }) => kind)).toEqual(['cubic', 'arc']);
  });
  it('a short hold, or one at the first point, is a click', () => {
    take('outline');
    press(draws, { from: at(0, 0), heldMs: 900 });
    press(draws, { from: at(30, 0), heldMs: 300 });
    expect(useHand.getState().through).toBeNull();
    expect(outers()[0]?.segments.map(({ kind }) => kind)).toEqual(['line']);
  });
  it.each([
    ['line', 40, 0],
    ['rectangle', 40, 30],
    ['slot', 40, 8],
  ] as const)('a %s by two clicks is as one drawn in one drag', (tool, w, h) => {
    setHand({ slot: { width: 8, play: 0, ends: 'flat' } });
    const to = tool === 'rectangle' ? at(45, 35) : at(45, 5);
    take(tool);
    click(draws, at(5, 5));
    expect(useHand.getState().places).toHaveLength(1);
    click(draws, to);
    take(tool);
    press(draws, { from: at(5, 5), to });
    expect(outers()).toHaveLength(2);
    for (const k of [0, 1]) expect([widthOf(box(k)), heightOf(box(k))]).toEqual([expect.closeTo(w, 6), expect.closeTo(h, 6)]);
  });
  it('two places that coincide make no figure: it says so and asks again', () => {
    take('circle');
    click(draws, at(5, 5));
    click(draws, at(5, 5));
    expect([outers(), said.length, useHand.getState().places.length]).toEqual([[], 1, 1]);
    click(draws, at(5, 9));
    expect(widthOf(box())).toBeCloseTo(8, 9);
  });
  it('by keyboard Enter sets the place that is aimed at', () => {
    take('line');
    for (const p of [at(0, 0), at(12, 0)]) {
      setHand({ aim: p });
      draws().key({ key: 'Enter', altKey: false, shiftKey: false });
    }
    expect(widthOf(box())).toBeCloseTo(12, 9);
    expect(draws().key({ key: 'q', altKey: false, shiftKey: false })).toBe(false);
  });
  it('gives places that the docket asks for to it, not to a figure; a drag is no answer', () => {
    take('line');
    setHand({ asking: 'axis' });
    press(draws, { from: at(1, 1), to: at(9, 9) });
    click(draws, at(3, 4));
    expect([useHand.getState().places, outers()]).toEqual([[at(3, 4)], []]);
    setHand({ asking: 'datum', places: [] });
    click(draws, at(7, 8));
    expect([useHand.getState().datum, useHand.getState().asking]).toEqual([at(7, 8), null]);
  });
  it('looks for features of the picture as the pointer moves, and aims', () => {
    take('line');
    draws().hover(screen(at(6, 7)), keys());
    expect([looked, distance(useHand.getState().aim as Point, at(6, 7)) < 1e-9]).toEqual([1, true]);
  });
});

describe('the corrector', () => {
  let plate: string;
  let bar: string;
  const draw = (word: string, path: Path): string => {
    const drawn = newDrawn(job, word, { kind: 'path', path });
    run({ do: 'draw', drawn });
    return drawn.id;
  };
  const shape = (id: string): Path => drawnPieces(job).find((p) => p.id.split('/')[0] === id)?.outer as Path;
  beforeEach(() => {
    plate = draw('Plate', polygonPath([at(0, 0), at(20, 0), at(20, 10), at(0, 10)]));
    bar = draw('Bar', { start: at(30, 0), segments: [{ kind: 'line', to: at(30, 20) }], closed: false });
    takeTray('correct');
    setHand({ chosen: [] });
  });

  it('a click chooses what lies there, with Shift more of it, and beside it nothing', () => {
    click(corrects, at(10, 0));
    expect(useHand.getState().chosen).toEqual([plate]);
    click(corrects, at(30, 10), { shiftKey: true });
    expect(useHand.getState().chosen).toEqual([plate, bar]);
    click(corrects, at(60, 30));
    expect(useHand.getState().chosen).toEqual([]);
  });
  it('a point is dragged to where it is let go, in one edit; all else of the outline stays', () => {
    setHand({ chosen: [plate] });
    press(corrects, { from: at(20, 10), to: at(24, 13) });
    expect(shape(plate).segments[1]?.to).toEqual({ x: expect.closeTo(24, 9), y: expect.closeTo(13, 9) });
    expect(shape(plate).segments[0]?.to).toEqual(at(20, 0));
    expect(useHand.getState().shaped).toBeNull();
  });
  it('a press that does not move changes nothing but what is chosen', () => {
    setHand({ chosen: [plate] });
    const before = job;
    click(corrects, at(20, 10));
    expect(job).toBe(before);
    expect(useHand.getState().points).toEqual({ path: 0, indices: [2] });
    click(corrects, at(0, 10), { shiftKey: true });
    expect(useHand.getState().points?.indices).toEqual([2, 3]);
    click(corrects, at(0, 10), { shiftKey: true });
    expect(useHand.getState().points?.indices).toEqual([2]);
  });
  it('with another tool than points the thing is dragged as a whole', () => {
    takeHandTool('arrange');
    setHand({ chosen: [plate] });
    press(corrects, { from: at(10, 0), to: at(15, -4) });
    const { minX, minY } = pathBox(shape(plate));
    expect([minX, minY]).toEqual([expect.closeTo(5, 9), expect.closeTo(-4, 9)]);
    expect(pathArea(shape(plate))).toBeCloseTo(200, 9);
  });
  it('arrows nudge by a tenth of a millimetre, with Shift by a whole one: chosen points, or the thing', () => {
    setHand({ chosen: [plate], points: { path: 0, indices: [2] } });
    corrects().key({ key: 'ArrowUp', altKey: false, shiftKey: true });
    expect(shape(plate).segments[1]?.to).toEqual({ x: expect.closeTo(20, 9), y: expect.closeTo(11, 9) });
    // Without points the points tool leaves arrows to the view.
    setHand({ points: null });
    expect(corrects().key({ key: 'ArrowUp', altKey: false, shiftKey: false })).toBe(false);
    takeHandTool('arrange');
    corrects().key({ key: 'ArrowLeft', altKey: false, shiftKey: false });
    expect(pathBox(shape(plate)).minX).toBeCloseTo(-0.1, 9);
  });
  it('Shift and a drag choose the points in a box; without Shift the table itself is dragged', () => {
    setHand({ chosen: [plate] });
    expect(corrects().down(screen(at(-5, 12)), keys())).toBe(false);
    expect(press(corrects, { from: at(-5, 12), to: at(22, 8), more: { shiftKey: true } })).toBe(true);
    expect(useHand.getState()).toMatchObject({ points: { path: 0, indices: [2, 3] }, frame: null });
  });
  it('a double click on a segment sets a point there, chosen; on nothing it is not taken', () => {
    setHand({ chosen: [plate] });
    expect(corrects().doubleClick(screen(at(10, 0)))).toBe(true);
    expect(shape(plate).segments).toHaveLength(5);
    expect(useHand.getState().points).toEqual({ path: 0, indices: [1] });
    expect(corrects().doubleClick(screen(at(60, 30)))).toBe(false);
  });
  it('Delete takes a chosen point away, and with nothing of it chosen the thing', () => {
    setHand({ chosen: [plate], points: { path: 0, indices: [2] } });
    corrects().key({ key: 'Delete', altKey: false, shiftKey: false });
    expect(shape(plate).segments).toHaveLength(3);
    setHand({ points: null, segment: null });
    corrects().key({ key: 'Backspace', altKey: false, shiftKey: false });
    expect(job.drawn.map(({ id }) => id)).toEqual([bar]);
    expect(corrects().key({ key: 'Delete', altKey: false, shiftKey: false })).toBe(false);
  });
  it('trims at a click up to what crosses it, and says where there is nothing to trim', () => {
    draw('Across', { start: at(25, 12), segments: [{ kind: 'line', to: at(35, 12) }], closed: false });
    takeHandTool('trim');
    click(corrects, at(30, 18));
    expect(heightOf(pathBox(keptPieces(job).find(({ name }) => name.startsWith('Bar'))?.outer as Path))).toBeCloseTo(12, 9);
    click(corrects, at(60, 30));
    expect(said).toHaveLength(1);
  });
});
