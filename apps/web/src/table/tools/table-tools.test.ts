/** The light table's tools, each by itself: which presses, clicks and keys it takes, and what becomes of the job. */
import {
  applyCommand,
  type Command,
  emptyJob,
  type Job,
  newPicture,
  type Picture,
  type Piece,
  rasterSourceOf,
  sheetBoxOf,
} from '@nuvet/core/job';
import { circlePath, distance, type Point, polygonPath, reversedPath } from '@nuvet/core/plane';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { type Coordinates, coordinatesOf } from '../coordinates';
import { resetTable, setTable, takeTool, useTable } from '../table-store';
import { toScreen, toSheet, type View } from '../view';
import { chooser } from './chooser';
import { edgeFollower } from './edge-follower';
import { markMover } from './mark-mover';
import { pictureMover } from './picture-mover';
import { placeTaker } from './place-taker';
import type { Keys, Surroundings } from './tool';
import { viewMover } from './view-mover';

const id = '6f2f3a1e-8f5e-4f5f-9b1a-0c9a4f6d2b10';
const at = (x: number, y: number): Point => ({ x, y });
const none: Keys = { altKey: false, shiftKey: false };
const held: Keys = { altKey: true, shiftKey: false };
const key = (name: string, shiftKey = false) => ({ key: name, altKey: false, shiftKey });
const square = (x: number, y: number, side: number) => polygonPath([at(x, y), at(x + side, y), at(x + side, y + side), at(x, y + side)]);

let job: Job;
let said: string[];
let looked: Point[];
const run = (command: Command): void => {
  job = applyCommand(job, command);
};
const picture = (): Picture => job.pictures[0] as Picture;
/** The whole picture in a window of 900 by 600. */
const view = (): View => useTable.getState().view ?? { scale: 10, x: 0, y: 508 };
const coordinates = (): Coordinates => coordinatesOf(picture(), rasterSourceOf(picture(), null), view());

/** What tools work on, as the table makes it for every event; nothing of the picture is snapped to unless a test says so. */
function around(stage: string, snapped: Point | null = null): Surroundings {
  return {
    job,
    run,
    picture: job.pictures[0] ?? null,
    stage,
    pieces: [],
    view,
    coordinates: () => (job.pictures[0] ? coordinates() : null),
    lookForSnap: (p) => looked.push(p),
    placeAt: (p, isHeldOff) => (snapped && !isHeldOff ? snapped : coordinates().toOriginal(p)),
    onMessage: (text) => said.push(text),
  };
}

beforeEach(() => {
  resetTable();
  setTable({ screen: { width: 900, height: 600 }, view: { scale: 10, x: 0, y: 508 } });
  [said, looked] = [[], []];
  job = applyCommand(emptyJob('Weir'), {
    do: 'bring-in',
    picture: newPicture({ id, name: 'weir.png', widthPx: 900, heightPx: 600, resolution: { dpi: 300, source: 'png', trusted: true } }),
  });
});
afterEach(() => resetTable());

const withMark = (points: Point[]): void =>
  run({ do: 'add-mark', pictureId: id, mark: { id: 'm', kind: 'known-length', points, stated: [{ text: '40', value: 40 }] } });
const markPoints = (): readonly Point[] => picture().marks[0]?.points ?? [];

describe('moving marks', () => {
  beforeEach(() => withMark([at(100, 100), at(600, 100)]));

  it('picks up the nearest point within reach, and none where another tool is in hand, the picture is locked or the stage is another', () => {
    const near = coordinates().toScreen(at(600, 100));
    expect(markMover(around('true-up')).down?.(at(near.x + 9, near.y - 4))).toBe(true);
    expect(useTable.getState().selected).toEqual({ markId: 'm', index: 1 });
    expect(markMover(around('true-up')).down?.(at(near.x + 14, near.y))).toBe(false);
    expect(markMover(around('trace')).down?.(near)).toBe(false);
    takeTool('level');
    expect(markMover(around('true-up')).down?.(near)).toBe(false);
    takeTool(null);
    run({ do: 'change-picture', pictureId: id, change: { locked: true } });
    expect(markMover(around('true-up')).down?.(near)).toBe(false);
  });
  it('a drag moves that point alone, once it is let go; what was only clicked stays', () => {
    const [from, to] = [coordinates().toScreen(at(600, 100)), coordinates().toScreen(at(640, 130))];
    const tool = markMover(around('true-up'));
    tool.down?.(from);
    tool.drag?.(to, from, none);
    expect(markPoints()).toEqual([at(100, 100), at(600, 100)]);
    tool.up?.(false);
    expect(markPoints()[0]).toEqual(at(100, 100));
    expect(distance(markPoints()[1] as Point, at(640, 130))).toBeLessThan(1e-9);
    expect(useTable.getState().dragged).toBeNull();
    const before = job;
    tool.down?.(to);
    tool.up?.(true);
    expect(job).toBe(before);
  });
  it('snaps to what the picture has there, unless the key that holds it off is down', () => {
    const from = coordinates().toScreen(at(600, 100));
    for (const [keys, wanted] of [[none, at(612, 99)], [held, at(620, 100)]] as const) {
      const tool = markMover(around('true-up', at(612, 99)));
      tool.down?.(coordinates().toScreen(markPoints()[1] as Point));
      tool.drag?.(coordinates().toScreen(at(620, 100)), from, keys);
      tool.up?.(false);
      expect(distance(markPoints()[1] as Point, wanted)).toBeLessThan(1e-9);
    } // biome-ignore format: a case a line
    expect(looked).toHaveLength(2);
  });
  it('arrows nudge by a pixel of the picture, with Shift by a tenth, the way that the arrow points', () => {
    setTable({ selected: { markId: 'm', index: 0 } });
    markMover(around('true-up')).key?.(key('ArrowRight'));
    expect(distance(markPoints()[0] as Point, at(101, 100))).toBeLessThan(1e-9);
    markMover(around('true-up')).key?.(key('ArrowDown', true));
    expect(distance(markPoints()[0] as Point, at(101, 100.1))).toBeLessThan(1e-9);
    expect(markMover(around('true-up')).key?.(key('x'))).toBe(false);
  });
  it('Delete takes the mark away; a press that the system takes back moves nothing', () => {
    const from = coordinates().toScreen(at(600, 100));
    const tool = markMover(around('true-up'));
    tool.down?.(from);
    tool.drag?.(at(from.x + 50, from.y), from, none);
    tool.cancel?.();
    tool.up?.(false);
    expect(markPoints()[1]).toEqual(at(600, 100));
    expect(markMover(around('true-up')).key?.(key('Delete'))).toBe(true);
    expect(picture().marks).toEqual([]);
    expect(markMover(around('true-up')).key?.(key('Delete'))).toBe(false);
  });
});

describe('moving a picture', () => {
  it('needs its tool in hand, and moves it on the sheet as far as it was dragged', () => {
    expect(pictureMover(around('bring-in')).down?.(at(50, 50))).toBe(false);
    takeTool('move-picture');
    const tool = pictureMover(around('bring-in'));
    expect(tool.down?.(at(50, 50))).toBe(true);
    tool.drag?.(at(70, 50), at(50, 50), none);
    tool.drag?.(at(80, 20), at(70, 50), none);
    expect(picture().place).toEqual(at(0, 0));
    tool.up?.(false);
    // Ten screen pixels are a millimetre; up on the screen is up on the sheet.
    expect(picture().place).toEqual({ x: 3, y: 3 });
  });
  it('tells that a picture is locked; a click, and a drag that was broken off, leave it where it is', () => {
    takeTool('move-picture');
    for (const end of ['up', 'cancel'] as const) {
      const tool = pictureMover(around('bring-in'));
      tool.down?.(at(50, 50));
      tool.drag?.(at(80, 50), at(50, 50), none);
      if (end === 'up') tool.up?.(true);
      else tool.cancel?.();
      expect([picture().place, useTable.getState().draggedPlace]).toEqual([at(0, 0), null]);
    }
    run({ do: 'change-picture', pictureId: id, change: { locked: true } });
    expect(pictureMover(around('bring-in')).down?.(at(50, 50))).toBe(false);
    expect(said).toHaveLength(1);
  });
});

describe('taking places', () => {
  const click = async (p: Point, keys = none): Promise<boolean | undefined> => {
    const taken = placeTaker(around('true-up'), () => {}).click?.(coordinates().toScreen(p), keys);
    await Promise.resolve();
    return taken;
  };
  it('two clicks make a length, which asks what it measures', async () => {
    takeTool('known-length');
    await click(at(100, 100));
    expect(useTable.getState().taken).toHaveLength(1);
    await click(at(600, 100));
    const [mark] = picture().marks;
    expect(mark).toMatchObject({ kind: 'known-length', stated: [{ text: '', value: null }] });
    expect(useTable.getState()).toMatchObject({ tool: null, taken: [], asked: mark?.id });
  });
  it('the same place twice is a slip where places are counted, and the end where there may be many', async () => {
    takeTool('known-length');
    await click(at(100, 100));
    await click(at(103, 100));
    expect(useTable.getState().taken).toHaveLength(1);
    takeTool('crop-outline');
    for (const p of [at(50, 50), at(400, 60), at(380, 300)]) await click(p);
    expect(picture().crop).toBeNull();
    await click(at(380, 300));
    expect(picture().crop).toHaveLength(3);
  });
  it('a crop of two clicks is a box that lies straight on the screen', async () => {
    takeTool('crop-box');
    await click(at(50, 60));
    await click(at(400, 300));
    expect(picture().crop?.map(({ x, y }) => [Math.round(x), Math.round(y)])).toEqual([[50, 60], [400, 60], [400, 300], [50, 300]]); // biome-ignore format: corners
  });
  it('leaves clicks alone with no tool, or with one that moves', async () => {
    expect(await click(at(100, 100))).toBe(false);
    takeTool('move-picture');
    expect(await click(at(100, 100))).toBe(false);
  });
  it('by keyboard: arrows move the place by ten pixels, with Shift by one, Enter takes it', () => {
    takeTool('level');
    const clicked: Point[] = [];
    const press = (name: string, shiftKey = false) => placeTaker(around('true-up'), (p) => clicked.push(p)).key?.(key(name, shiftKey));
    press('ArrowRight');
    press('ArrowUp', true);
    expect(useTable.getState().pointer).toEqual(at(460, 299));
    press('Enter');
    expect(clicked).toEqual([at(460, 299)]);
    expect(press('q')).toBe(false);
    takeTool(null);
    expect(press('Enter')).toBe(false);
  });
  it('Enter ends an outline that has enough places', async () => {
    takeTool('crop-outline');
    for (const p of [at(50, 50), at(400, 60), at(380, 300)]) await click(p);
    placeTaker(around('true-up'), () => {}).key?.(key('Enter'));
    await Promise.resolve();
    expect(picture().crop).toHaveLength(3);
  });
  it('looks for features of the picture only for tools that take them', () => {
    for (const [tool, count] of [['known-length', 1], ['crop-box', 0], ['pick-colour', 0], ['move-picture', 0], ['datum', 1]] as const) {
      takeTool(tool);
      looked = [];
      placeTaker(around('true-up'), () => {}).hover?.(at(5, 5));
      expect([tool, looked.length]).toEqual([tool, count]);
    } // biome-ignore format: a tool each
  });
});

const piece = (name: string, outer: Piece['outer'], holes: Piece['holes'] = []): Piece => ({ id: name, name, purpose: 'cut', leftOut: false, runsOff: false, outer, holes }); // biome-ignore format: one line

describe('choosing', () => {
  beforeEach(() => {
    const pieces = [
      piece('plate', square(2, 2, 20), [reversedPath(circlePath(at(12, 12), 4))]),
      piece('knob', square(30, 10, 6)),
      piece('dust', square(40, 40, 2)),
    ];
    job = { ...job, traces: [{ pictureId: id, mmPerPx: 0.1, settings: {} as Job['traces'][number]['settings'], pieces }] as Job['traces'] };
  });
  const click = (p: Point, stage = 'trace') => chooser(around(stage)).click?.(toScreen(view(), p), none);
  const kept = () => job.traces[0]?.pieces.filter(({ leftOut }) => !leftOut).map(({ id: one }) => one);

  it('the first piece picked is kept alone, further ones join it, and go again', () => {
    takeTool('this-one');
    click(at(33, 12));
    expect(kept()).toEqual(['knob']);
    click(at(3, 3));
    expect(kept()).toEqual(['plate', 'knob']);
    click(at(33, 12));
    expect(kept()).toEqual(['plate']);
  });
  it('a click into a hole fills it; where nothing lies that is said', () => {
    takeTool('this-one');
    click(at(12, 12));
    expect(job.traces[0]?.pieces[0]?.holes).toEqual([]);
    click(at(70, 45));
    expect(said).toHaveLength(1);
  });
  it('without a tool a piece of the trace is chosen, and lit up under the pointer; none beside them', () => {
    click(at(33, 12));
    expect(useTable.getState().selectedPiece).toBe('knob');
    chooser(around('trace')).hover?.(toScreen(view(), at(3, 3)));
    expect(useTable.getState().hoveredPiece).toBe('plate');
    click(at(70, 45));
    expect(useTable.getState().selectedPiece).toBeNull();
  });
  it('a relation’s tick is refused by a click, and taken back by another', () => {
    const seen = [{ key: 'level 3', kind: 'level', off: 0.01, at: at(33, 12) }] as NonNullable<
      ReturnType<typeof useTable.getState>['relations']
    >['seen'];
    setTable({ relations: { seen, refused: [] } });
    click(at(33.5, 12));
    expect(useTable.getState().relations?.refused).toEqual(['level 3']);
    expect(useTable.getState().selectedPiece).toBeNull();
    click(at(33, 12));
    expect(useTable.getState().relations?.refused).toEqual([]);
  });
  it('leaves clicks to the tool that takes places; under Bring in it takes up the picture under it', () => {
    takeTool('limit-box');
    expect(click(at(33, 12))).toBe(false);
    takeTool(null);
    setTable({ activeId: null });
    const { minX, minY, maxX, maxY } = sheetBoxOf(job);
    click(at((minX + maxX) / 2, (minY + maxY) / 2), 'bring-in');
    expect(useTable.getState().activeId).toBe(id);
    setTable({ selected: { markId: 'm', index: 0 } });
    click(at(1, 1), 'true-up');
    expect(useTable.getState().selected).toBeNull();
  });
});

describe('moving the view', () => {
  const tool = () => viewMover({ view });
  it('follows a drag, and what is wheeled over stays under the pointer', () => {
    tool().drag?.(at(130, 90), at(100, 100), none);
    expect(view()).toEqual({ scale: 10, x: 30, y: 498 });
    const pointer = at(400, 300);
    const under = toSheet(view(), pointer);
    tool().wheel(pointer, { deltaMode: 0, deltaY: -200, ctrlKey: false });
    expect(view().scale).toBeGreaterThan(10);
    expect(distance(toSheet(view(), pointer), under)).toBeLessThan(1e-9);
    const nearer = view().scale;
    // A wheel that counts lines turns as far as one that counts pixels.
    tool().wheel(pointer, { deltaMode: 1, deltaY: 200 / 18, ctrlKey: false });
    expect(view().scale).toBeCloseTo(10, 9);
    expect(nearer).toBeGreaterThan(view().scale);
  });
  it('two fingers twice as far apart show all twice as large, the place between them where it was', () => {
    const under = toSheet(view(), at(200, 300));
    tool().pinch(at(300, 300), at(250, 300), at(150, 300));
    expect(view().scale).toBeCloseTo(15, 9);
    expect(distance(toSheet(view(), at(225, 300)), under)).toBeLessThan(1e-9);
  });
  it('keys move it and zoom about the middle of the window', () => {
    const middle = toSheet(view(), at(450, 300));
    for (const name of ['+', '+', '-', '-']) expect(tool().key?.(key(name))).toBe(true);
    expect(view().scale).toBeCloseTo(10, 9);
    expect(distance(toSheet(view(), at(450, 300)), middle)).toBeLessThan(1e-9);
    tool().key?.(key('ArrowLeft'));
    expect(view().x).toBe(60);
    expect(tool().key?.(key('Home'))).toBe(false);
  });
});

describe('following an edge', () => {
  it('takes nothing unless it is in hand, and then no key that is none of its own', () => {
    const tool = () => edgeFollower(around('trace'));
    for (const taken of [tool().click?.(at(10, 10), none), tool().key?.(key('Enter')), tool().key?.(key('Delete'))])
      expect(taken).toBe(false);
    takeTool('along-edge');
    expect(tool().key?.(key('ArrowLeft'))).toBe(false);
    tool().hover?.(at(10, 10));
    expect(useTable.getState().liveWire.next).toEqual([]);
  });
});
