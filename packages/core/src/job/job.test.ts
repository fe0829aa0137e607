import { describe, expect, it } from 'vitest';
import { circlePath, distance, pathArea, pathBox, polygonPath, transformedPath } from '../plane/index.ts';
import {
  applyCommand,
  type Command,
  CommandError,
  commandSchema,
  type Edit,
  edited,
  emptyJob,
  fitOf,
  type Job,
  jobSchema,
  keptPieces,
  measuresOf,
  type Picture,
  redone,
  traceOnSheet,
  undone,
} from './index.ts';

const id = '6f2f3a1e-8f5e-4f5f-9b1a-0c9a4f6d2b10';
const picture: Picture = {
  id,
  name: 'heron.png',
  widthPx: 1200,
  heightPx: 900,
  resolution: { dpi: 300, source: 'png' },
  opacity: 1,
  marks: [],
};
const level = { kind: 'level', id: 'm2', a: { x: 100, y: 800 }, b: { x: 1100, y: 780 } } as const;
const traced = (job: Job) =>
  traceOnSheet(job.pictures[0] as Picture, { threshold: 'auto', toleranceMm: 0.1, smallestMm: 1 }, {
    threshold: 130, dropped: 2,
    pieces: [
      { outer: circlePath({ x: 600, y: 450 }, 200), holes: [circlePath({ x: 600, y: 450 }, 50)], runsOff: false },
      { outer: polygonPath([{ x: 50, y: 50 }, { x: 150, y: 50 }, { x: 150, y: 150 }, { x: 50, y: 150 }]), holes: [], runsOff: false },
    ],
  }); // biome-ignore format: a piece a line
const run = (job: Job, ...commands: Command[]): Job => commands.reduce((j, c) => applyCommand(j, c), job);
const withPicture = run(emptyJob('Heron'), { do: 'bring-in', picture });
const withTrace = run(withPicture, { do: 'set-trace', trace: traced(withPicture) });

describe('the job document', () => {
  it('is valid when empty, and after every edit', () => {
    expect(jobSchema.parse(withTrace)).toEqual(withTrace);
    expect(jobSchema.safeParse({ ...withTrace, version: 2 }).success).toBe(false);
    expect(jobSchema.safeParse({ ...withTrace, surprise: 1 }).success).toBe(false);
    expect(jobSchema.safeParse({ ...withTrace, pictures: [{ ...picture, opacity: Number.NaN }] }).success).toBe(false);
  });
  it('is never changed in place', () => {
    const before = JSON.stringify(withTrace);
    run(withTrace, { do: 'leave-out', pieceIds: ['piece-1'], leftOut: true }, { do: 'add-mark', pictureId: id, mark: level });
    expect(JSON.stringify(withTrace)).toBe(before);
  });
});

describe('commands', () => {
  it('size and turn the picture: a length of 100 mm over 1000 pixels, and a level line', () => {
    const job = run(
      withPicture,
      {
        do: 'add-mark',
        pictureId: id,
        mark: { kind: 'known-length', id: 'm1', a: { x: 100, y: 100 }, b: { x: 1100, y: 100 }, text: '', mm: null },
      },
      { do: 'add-mark', pictureId: id, mark: level },
    );
    expect(fitOf(job.pictures[0] as Picture).model).toBe('resolution');
    const typed = run(job, { do: 'set-length', pictureId: id, markId: 'm1', text: '10 cm', mm: 100 });
    expect(fitOf(typed.pictures[0] as Picture)).toMatchObject({
      model: 'uniform',
      mmPerPx: 0.1,
      turn: expect.closeTo(-Math.atan(0.02), 9),
    });
  });
  it('carry traced pieces along when the size changes later', () => {
    const job = run(
      withTrace,
      {
        do: 'add-mark',
        pictureId: id,
        mark: { kind: 'known-length', id: 'm1', a: { x: 0, y: 0 }, b: { x: 1000, y: 0 }, text: '50', mm: 50 },
      },
      { do: 'add-mark', pictureId: id, mark: level },
    );
    const [disc] = keptPieces(job.trace);
    expect(measuresOf(disc as NonNullable<typeof disc>).widthMm).toBeCloseTo(20, 9);
    expect(disc?.outer.segments[0]?.kind).toBe('arc');
    const { toSheet } = fitOf(job.pictures[0] as Picture);
    const expected = transformedPath(circlePath({ x: 600, y: 450 }, 200), toSheet);
    expect(distance(disc?.outer.start ?? { x: 0, y: 0 }, expected.start)).toBeLessThan(1e-9);
  });
  it('keep what was left out and what a piece is for when traced again', () => {
    const chosen = run(
      withTrace,
      { do: 'leave-out', pieceIds: ['piece-2'], leftOut: true },
      { do: 'set-purpose', pieceIds: ['piece-1'], purpose: 'engrave' },
    );
    const again = run(chosen, { do: 'set-trace', trace: traced(chosen) });
    expect(again.trace?.pieces.map((p) => [p.leftOut, p.purpose])).toEqual([
      [false, 'engrave'],
      [true, 'cut'],
    ]);
    expect(keptPieces(again.trace).map((p) => p.name)).toEqual(['Piece 1']);
  });
  it('start afresh with a new picture', () => {
    const other = { ...picture, id: '0d3b9c1a-55f0-4c8e-8f51-2b1f0b3c9e77', name: 'otter.png' };
    expect(run(withTrace, { do: 'bring-in', picture: other })).toMatchObject({ trace: null, pictures: [{ name: 'otter.png' }] });
  });
  it.each<[string, Command]>([
    ['no-picture', { do: 'set-opacity', pictureId: '0d3b9c1a-55f0-4c8e-8f51-2b1f0b3c9e77', opacity: 0.5 }],
    ['no-mark', { do: 'remove-mark', pictureId: id, markId: 'gone' }],
    ['no-piece', { do: 'leave-out', pieceIds: ['gone'], leftOut: true }],
    ['marks-coincide', { do: 'add-mark', pictureId: id, mark: { ...level, b: level.a } }],
  ])('are refused with a plain word: %s', (code, command) => {
    expect(() => applyCommand(withTrace, command)).toThrow(expect.objectContaining({ code }));
    expect(() => applyCommand(withTrace, command)).toThrow(CommandError);
  });
  it('are checked at the door', () => {
    expect(commandSchema.safeParse({ do: 'set-length', pictureId: id, markId: 'm1', text: '0', mm: 0 }).success).toBe(false);
    expect(commandSchema.safeParse({ do: 'explode' }).success).toBe(false);
  });
});

describe('undo and redo', () => {
  it('lead back to the beginning and forth again, exactly, also through JSON', () => {
    const commands: Command[] = [
      { do: 'rename', name: 'Heron panel' },
      { do: 'bring-in', picture },
      { do: 'add-mark', pictureId: id, mark: level },
      { do: 'set-trace', trace: traced(withPicture) },
      { do: 'leave-out', pieceIds: ['piece-2'], leftOut: true },
      { do: 'remove-mark', pictureId: id, markId: 'm2' },
      { do: 'set-unit', unit: 'in' },
    ];
    const states = [emptyJob('Heron')];
    const edits: Edit[] = [];
    for (const command of commands) {
      const step = edited(states.at(-1) as Job, command);
      states.push((step as NonNullable<typeof step>).job);
      edits.push(JSON.parse(JSON.stringify((step as NonNullable<typeof step>).edit)));
    }
    let job = states.at(-1) as Job;
    for (let k = edits.length - 1; k >= 0; k--) {
      job = undone(job, edits[k] as Edit);
      expect(job).toEqual(states[k]);
    }
    edits.forEach((edit, k) => {
      job = redone(job, edit);
      expect(job).toEqual(states[k + 1]);
    });
  });
  it('take no step for an edit that changes nothing', () =>
    expect(edited(withPicture, { do: 'set-opacity', pictureId: id, opacity: 1 })).toBeNull());
});

describe('measures', () => {
  it('of a 400-pixel disc with a 100-pixel hole at 300 dpi, by closed forms', () => {
    const [disc] = (withTrace.trace as NonNullable<Job['trace']>).pieces;
    const mm = 25.4 / 300;
    const m = measuresOf(disc as NonNullable<typeof disc>);
    expect(m.widthMm).toBeCloseTo(400 * mm, 9);
    expect(m.areaMm2).toBeCloseTo(Math.PI * (200 ** 2 - 50 ** 2) * mm * mm, 8);
    expect(m.perimeterMm).toBeCloseTo(2 * Math.PI * 250 * mm, 9);
    expect(m).toMatchObject({ holes: 1, segments: 4 });
    expect(pathArea((disc as NonNullable<typeof disc>).outer)).not.toBe(0);
    expect(pathBox((disc as NonNullable<typeof disc>).outer)).toEqual(m.box);
  });
});
