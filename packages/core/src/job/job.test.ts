import { describe, expect, it } from 'vitest';
import { circlePath, distance, pathArea, pathBox, polygonPath, transformedPath } from '../plane/index.ts';
import { withPointsMoved } from '../shape/points.ts';
import {
  applyCommand,
  type Command,
  CommandError,
  commandSchema,
  defaultTraceSettings,
  type Edit,
  edited,
  emptyJob,
  fitOf,
  type Job,
  type JobTrace,
  jobSchema,
  keptPieces,
  type Mark,
  measuresOf,
  newPicture,
  type Picture,
  type Piece,
  redone,
  traceOnSheet,
  traceSettingsSchema,
  undone,
} from './index.ts';

const id = '6f2f3a1e-8f5e-4f5f-9b1a-0c9a4f6d2b10';
const picture = newPicture({ id, name: 'heron.png', widthPx: 1200, heightPx: 900, resolution: { dpi: 300, source: 'png', trusted: true } });
const other = { ...picture, id: '0d3b9c1a-55f0-4c8e-8f51-2b1f0b3c9e77', name: 'otter.png' };
const level: Mark = { kind: 'level', id: 'm2', points: [{ x: 100, y: 800 }, { x: 1100, y: 780 }], stated: [] }; // biome-ignore format: one line
const length = (toX: number, text: string, value: number | null): Mark => ({
  kind: 'known-length',
  id: 'm1',
  points: [
    { x: toX - 1000, y: 100 },
    { x: toX, y: 100 },
  ],
  stated: [{ text, value }],
});
const traced = (job: Job) =>
  traceOnSheet(job.pictures[0] as Picture, { ...defaultTraceSettings, toleranceMm: 0.1, smallestMm: 1 }, {
    threshold: 130, dropped: 2,
    pieces: [
      { outer: circlePath({ x: 600, y: 450 }, 200), holes: [circlePath({ x: 600, y: 450 }, 50)], runsOff: false, isDashed: false, strokePx: null, colour: null },
      { outer: polygonPath([{ x: 50, y: 50 }, { x: 150, y: 50 }, { x: 150, y: 150 }, { x: 50, y: 150 }]), holes: [], runsOff: false, isDashed: false, strokePx: null, colour: null },
    ],
  }); // biome-ignore format: a piece a line
const run = (job: Job, ...commands: Command[]): Job => commands.reduce((j, c) => applyCommand(j, c), job);
const withPicture = run(emptyJob('Heron'), { do: 'bring-in', picture });
const withTrace = run(withPicture, { do: 'set-trace', trace: traced(withPicture) });

describe('the job document', () => {
  it('is valid when empty, and after every edit', () => {
    expect(jobSchema.parse(withTrace)).toEqual(withTrace);
    expect(jobSchema.safeParse({ ...withTrace, version: 5 }).success).toBe(false);
    expect(jobSchema.safeParse({ ...withTrace, surprise: 1 }).success).toBe(false);
    expect(jobSchema.safeParse({ ...withTrace, pictures: [{ ...picture, opacity: Number.NaN }] }).success).toBe(false);
  });
  it('is never changed in place', () => {
    const before = JSON.stringify(withTrace);
    run(withTrace, { do: 'leave-out', pieceIds: ['piece-1'], leftOut: true }, { do: 'add-mark', pictureId: id, mark: level });
    expect(JSON.stringify(withTrace)).toBe(before);
  });
});

describe('documents of version 1', () => {
  const old = {
    version: 1, name: 'Heron', unit: 'mm', making: { way: 'laser', stock: null, thicknessMm: null }, trace: null,
    pictures: [{
      id, name: 'heron.png', widthPx: 1200, heightPx: 900, resolution: { dpi: 300, source: 'png' }, opacity: 1,
      marks: [
        { kind: 'known-length', id: 'm1', a: { x: 100, y: 100 }, b: { x: 1100, y: 100 }, text: '10 cm', mm: 100 },
        { kind: 'level', id: 'm2', a: { x: 100, y: 800 }, b: { x: 1100, y: 780 } },
        { kind: 'check', id: 'm3', a: { x: 0, y: 0 }, b: { x: 10, y: 10 } },
      ],
    }],
  }; // biome-ignore format: as it stood in the database
  it('are read, and come out as version 4 with the same fit', () => {
    const job = jobSchema.parse(old);
    expect(job).toMatchObject({ version: 4, drawings: [], traces: [], planScale: null });
    expect(job.pictures[0]?.marks.map((m) => m.stated)).toEqual([[{ text: '10 cm', value: 100 }], [], [{ text: '', value: null }]]);
    expect(fitOf(job.pictures[0] as Picture).mmPerPx).toBeCloseTo(0.1, 12);
    expect(jobSchema.parse(job)).toEqual(job);
  });
});

describe('commands', () => {
  it('size and turn the picture: a length of 100 mm over 1000 pixels, and a level line', () => {
    const job = run(
      withPicture,
      { do: 'add-mark', pictureId: id, mark: length(1100, '', null) },
      { do: 'add-mark', pictureId: id, mark: level },
    );
    expect(fitOf(job.pictures[0] as Picture).model).toBe('resolution');
    const typed = run(job, { do: 'state', pictureId: id, markId: 'm1', index: 0, text: '10 cm', value: 100 });
    expect(fitOf(typed.pictures[0] as Picture)).toMatchObject({
      model: 'uniform',
      mmPerPx: expect.closeTo(0.1, 12),
      turn: expect.closeTo(-Math.atan(0.02), 9),
    });
  });
  it('carry traced pieces along when the size changes later', () => {
    const job = run(
      withTrace,
      { do: 'add-mark', pictureId: id, mark: length(1000, '50', 50) },
      { do: 'add-mark', pictureId: id, mark: level },
    );
    const [disc] = keptPieces(job);
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
    expect(again.traces[0]?.pieces.map((p) => [p.leftOut, p.purpose])).toEqual([
      [false, 'engrave'],
      [true, 'cut'],
    ]);
    expect(keptPieces(again).map((p) => p.name)).toEqual(['Piece 1']);
  });
  it('keep one piece alone, fill a hole, reshape: what a person changed outlasts a new trace', () => {
    const alone = run(withTrace, { do: 'keep-only', pieceIds: ['piece-1'] });
    expect(alone.traces[0]?.pieces.map((p) => p.leftOut)).toEqual([false, true]);
    const filled = run(withTrace, { do: 'fill-hole', pieceId: 'piece-1', hole: 0 });
    // The measures follow, though the outer outline is the same.
    const [whole, open] = [filled, withTrace].map((job) => measuresOf(job.traces[0]?.pieces[0] as Piece));
    expect([whole?.holes, open?.holes]).toEqual([0, 1]);
    expect(whole?.areaMm2).toBeGreaterThan(open?.areaMm2 ?? Number.POSITIVE_INFINITY);
    expect(filled.traces[0]?.pieces[0]?.holes).toEqual([]);
    const outer = circlePath({ x: 50, y: 40 }, 19.8);
    const before = withTrace.traces[0]?.pieces[1] as Piece;
    const reshaped = run(filled, { do: 'reshape', pieceId: 'piece-2', outer: { ...before.outer, start: before.outer.start }, holes: [] });
    const again = run(reshaped, { do: 'set-trace', trace: traced(reshaped) });
    expect(again.traces[0]?.pieces[0]?.holes).toEqual([]);
    expect(again.traces[0]?.pieces.map((p) => p.edited)).toEqual([true, true]);
    // Which segments are the hand's is kept with the piece; one that comes with them fitted in is taken as it comes.
    expect(again.traces[0]?.pieces.map((p) => p.touched)).toEqual([[[]], [[]]]);
    const moved = withPointsMoved(before.outer, [0], { x: 2, y: 0 });
    const pulled = run(withTrace, { do: 'reshape', pieceId: 'piece-2', outer: moved, holes: [] });
    const touched = pulled.traces[0]?.pieces[1]?.touched?.[0] ?? [];
    expect(touched).toEqual([0, moved.segments.length - 1]);
    const fresh = traced(pulled);
    const fitted = fresh.pieces.map((p, k) => (k === 1 ? { ...p, outer: moved, edited: true, touched: [touched] } : p));
    const kept = run(pulled, { do: 'set-trace', trace: { ...fresh, pieces: fitted } });
    expect(kept.traces[0]?.pieces[1]).toMatchObject({ edited: true, touched: [touched], outer: moved });
    // A piece that nobody touched is found anew.
    expect(run(withTrace, { do: 'set-trace', trace: traced(withTrace) }).traces[0]?.pieces[0]?.holes).toHaveLength(1);
    expect(() => run(withTrace, { do: 'fill-hole', pieceId: 'piece-1', hole: 1 })).toThrow(CommandError);
    expect(() => run(withTrace, { do: 'reshape', pieceId: 'gone', outer, holes: [] })).toThrow(CommandError);
  });
  it('lay a further picture beside the first and keep the trace; taking the traced one out takes its trace along', () => {
    const two = run(withTrace, { do: 'bring-in', picture: other });
    expect(two.pictures.map((p) => p.name)).toEqual(['heron.png', 'otter.png']);
    expect(fitOf(two.pictures[1] as Picture).sheetBox.minX).toBeCloseTo(fitOf(picture).sheetBox.maxX + 10, 9);
    expect(two.traces).toBe(withTrace.traces);
    expect(run(two, { do: 'take-out', pictureId: other.id }).traces).toBe(withTrace.traces);
    expect(run(two, { do: 'take-out', pictureId: id })).toMatchObject({ traces: [], pictures: [{ name: 'otter.png' }] });
    expect(run(two, { do: 'order-picture', pictureId: id, to: 1 }).pictures.map((p) => p.name)).toEqual(['otter.png', 'heron.png']);
  });
  it('each picture has its own fit; two of one object marked alike come to one scale', () => {
    const finer = { ...other, widthPx: 2400, heightPx: 1800, resolution: null };
    const wide: Mark = { ...length(2200, '100 mm', 100), points: [{ x: 200, y: 100 }, { x: 2200, y: 100 }] }; // biome-ignore format: one line
    const job = run(
      withPicture,
      { do: 'bring-in', picture: finer },
      { do: 'add-mark', pictureId: id, mark: length(1100, '10 cm', 100) },
      { do: 'add-mark', pictureId: other.id, mark: wide },
    );
    const [a, b] = job.pictures.map(fitOf);
    expect(a?.sheetWidthMm).toBeCloseTo(b?.sheetWidthMm ?? 0, 9);
    expect(b?.mmPerPx).toBeCloseTo((a?.mmPerPx ?? 0) / 2, 12);
  });
  it('do not move a locked picture, and do move one that is not', () => {
    const move = { do: 'change-picture', pictureId: id, change: { place: { x: 5, y: 7 } } } as const;
    const locked = run(withPicture, { do: 'change-picture', pictureId: id, change: { locked: true } });
    expect(() => applyCommand(locked, move)).toThrow(expect.objectContaining({ code: 'locked' }));
    expect(() => applyCommand(locked, { do: 'add-mark', pictureId: id, mark: level })).toThrow(expect.objectContaining({ code: 'locked' }));
    expect(fitOf(run(withPicture, move).pictures[0] as Picture).sheetBox).toMatchObject({ minX: 5, minY: 7 });
  });
  it('turn, flip and crop a picture without touching its pixels: traced pieces go along', () => {
    const turned = run(withTrace, { do: 'change-picture', pictureId: id, change: { quarterTurns: 1, flipped: true } });
    expect(fitOf(turned.pictures[0] as Picture)).toMatchObject({
      sheetWidthMm: expect.closeTo(76.2, 9),
      sheetHeightMm: expect.closeTo(101.6, 9),
    });
    const [before, after] = [withTrace, turned].map((job) => measuresOf(keptPieces(job)[0] as Piece));
    expect(after?.areaMm2).toBeCloseTo(before?.areaMm2 ?? 0, 9);
  });
  it('make wide lines of a drawing the outlines of what is drawn, all or some; their width follows the unit, and too many dashes are refused', () => {
    const line = (id: string, strokeShape: Piece['strokeShape'], purpose: Piece['purpose'] = 'cut'): Piece => ({ ...(keptPieces(withTrace)[1] as Piece), id, purpose, outer: { start: { x: 0, y: 0 }, segments: [{ kind: 'line', to: { x: 20, y: 0 } }], closed: false }, holes: [], strokeMm: 2, strokeShape }); // biome-ignore format: one line
    const flat = { ends: 'flat', corners: 'mitre', dashesMm: [] } as const;
    const pieces = [line('a', flat), line('b', { ...flat, dashesMm: [4, 6] }, 'score'), line('c', flat, 'engrave')];
    const drawing = {
      id: 'd',
      name: 'banner.svg',
      kind: 'svg',
      unitIsStated: false,
      mmPerUnit: 1,
      hidden: false,
      notes: [],
      pieces,
    } as const;
    const job = run(emptyJob('Banner'), { do: 'bring-in-drawing', drawing: { ...drawing, notes: [], pieces } });
    const seen = (j: Job) => j.drawings[0]?.pieces.map(({ id, purpose, outer, strokeMm }) => `${id} ${purpose} ${outer.closed ? pathArea(outer).toFixed(1) : strokeMm}`); // biome-ignore format: one line
    expect(seen(run(job, { do: 'take-line-outlines', drawingId: 'd', pieceIds: null }))).toEqual(['a cut 40.0', 'b cut 8.0', 'b-2 cut 8.0', 'c engrave 40.0']); // biome-ignore format: one line
    expect(seen(run(job, { do: 'take-line-outlines', drawingId: 'd', pieceIds: ['c'] }))).toEqual([
      'a cut 2',
      'b score 2',
      'c engrave 40.0',
    ]);
    const inches = run(job, { do: 'set-drawing-unit', drawingId: 'd', mmPerUnit: 25.4 });
    expect(inches.drawings[0]?.pieces[1]).toMatchObject({
      strokeMm: expect.closeTo(50.8, 9),
      strokeShape: { dashesMm: [expect.closeTo(101.6, 9), expect.closeTo(152.4, 9)] },
    });
    const dotted = run(emptyJob('Banner'), { do: 'bring-in-drawing', drawing: { ...drawing, notes: [], pieces: [line('a', { ...flat, dashesMm: [0.001, 0.001] })] } }); // biome-ignore format: one line
    expect(() => run(dotted, { do: 'take-line-outlines', drawingId: 'd', pieceIds: null })).toThrow(/more than 5,000 dashes/);
  });
  it('bring drawings in, and change the unit of one that states none', () => {
    const drawing = { id: 'd', name: 'tray.dxf', kind: 'dxf', unitIsStated: false, mmPerUnit: 1, hidden: false, notes: [], pieces: [{ ...(keptPieces(withTrace)[1] as Piece), id: 'd-1' }] } as const; // biome-ignore format: one line
    const job = run(emptyJob('Tray'), { do: 'bring-in-drawing', drawing: { ...drawing, notes: [], pieces: [...drawing.pieces] } });
    const inches = run(job, { do: 'set-drawing-unit', drawingId: 'd', mmPerUnit: 25.4 });
    const [a, b] = [job, inches].map((j) => measuresOf(keptPieces(j)[0] as Piece).widthMm);
    expect(b).toBeCloseTo(25.4 * (a ?? 0), 9);
    expect(keptPieces(run(inches, { do: 'hide-drawing', drawingId: 'd', hidden: true }))).toEqual([]);
    expect(run(inches, { do: 'set-purpose', pieceIds: ['d-1'], purpose: 'score' }).drawings[0]?.pieces[0]?.purpose).toBe('score');
    expect(run(inches, { do: 'take-out-drawing', drawingId: 'd' }).drawings).toEqual([]);
  });
  it.each<[string, Command]>([
    ['no-picture', { do: 'change-picture', pictureId: other.id, change: { opacity: 0.5 } }],
    ['no-mark', { do: 'remove-mark', pictureId: id, markId: 'gone' }],
    ['no-piece', { do: 'leave-out', pieceIds: ['gone'], leftOut: true }],
    ['marks-coincide', { do: 'add-mark', pictureId: id, mark: { ...level, points: [{ x: 5, y: 5 }, { x: 5, y: 5 }] } }], // biome-ignore format: a case a line
    [
      'in-one-line',
      { do: 'add-mark', pictureId: id, mark: { ...length(1100, '', 50), kind: 'circle', points: [0, 300, 600].map((x) => ({ x, y: 9 })) } },
    ],
  ])('are refused with a plain word: %s', (code, command) => {
    expect(() => applyCommand(withTrace, command)).toThrow(expect.objectContaining({ code }));
    expect(() => applyCommand(withTrace, command)).toThrow(CommandError);
  });
  it('are checked at the door', () => {
    expect(commandSchema.safeParse({ do: 'add-mark', pictureId: id, mark: { ...level, points: [{ x: 1, y: 1 }] } }).success).toBe(false);
    expect(commandSchema.safeParse({ do: 'explode' }).success).toBe(false);
  });
});

describe('pieces that a person made', () => {
  const led: Piece = {
    id: 'hand-1',
    name: 'Piece 3',
    purpose: 'score',
    leftOut: false,
    runsOff: false,
    outer: circlePath({ x: 5, y: 5 }, 3),
    holes: [],
  };
  const withLed = applyCommand(withTrace, { do: 'add-piece', pictureId: id, piece: led });
  const piecesOf = (job: Job) => (job.traces[0] as JobTrace).pieces;
  it('along an edge outlast a new trace, and move with the picture’s fit', () => {
    const again = applyCommand(withLed, { do: 'set-trace', trace: traced(withPicture) });
    expect(piecesOf(again).at(-1)).toEqual({ ...led, byHand: true });
    const before = piecesOf(withLed).at(-1) as Piece;
    const moved = applyCommand(withLed, { do: 'change-picture', pictureId: id, change: { place: { x: 20, y: 0 } } });
    expect(pathBox((piecesOf(moved).at(-1) as Piece).outer).minX - pathBox(before.outer).minX).toBeCloseTo(20, 9);
  });
  it('are refused twice, and where nothing has been traced', () => {
    expect(() => applyCommand(withLed, { do: 'add-piece', pictureId: id, piece: led })).toThrow(CommandError);
    expect(() => applyCommand(withPicture, { do: 'add-piece', pictureId: id, piece: led })).toThrow(CommandError);
  });
  it('made exact by relations count as changed by hand, all in one step', () => {
    const change = ['piece-1', 'piece-2'].map((pieceId) => ({ pieceId, outer: circlePath({ x: 9, y: 9 }, 4), holes: [] }));
    const related = applyCommand(withTrace, { do: 'relate', pieces: change });
    expect(piecesOf(related).every(({ edited }) => edited)).toBe(true);
    expect(() => applyCommand(withTrace, { do: 'relate', pieces: [{ pieceId: 'none', outer: led.outer, holes: [] }] })).toThrow(
      CommandError,
    );
  });
});

describe('colours that are meant', () => {
  const colours = [{ hex: '#b23a2e', purpose: 'engrave' as const }];
  const ofColour = (purpose: 'engrave' | 'score') => {
    const trace = traced(withPicture);
    const settings = { ...trace.settings, colours: [{ hex: '#b23a2e', purpose }] };
    return { ...trace, settings, pieces: trace.pieces.map((piece) => ({ ...piece, colour: '#b23a2e', purpose })) };
  };
  it('give pieces their purpose, and another one once that is changed', () => {
    const first = applyCommand(withPicture, { do: 'set-trace', trace: ofColour('engrave') });
    const second = applyCommand(first, { do: 'set-trace', trace: ofColour('score') });
    expect(second.traces[0]?.pieces.map(({ purpose }) => purpose)).toEqual(['score', 'score']);
  });
  it('do not override a purpose chosen for one piece', () => {
    const first = applyCommand(withPicture, { do: 'set-trace', trace: ofColour('engrave') });
    const chosen = applyCommand(first, { do: 'set-purpose', pieceIds: ['piece-1'], purpose: 'stitch' });
    const second = applyCommand(chosen, { do: 'set-trace', trace: ofColour('score') });
    expect(second.traces[0]?.pieces.map(({ purpose }) => purpose)).toEqual(['stitch', 'score']);
  });
  it('are written as six hexadecimal digits', () => {
    const { settings } = traced(withPicture);
    expect(traceSettingsSchema.safeParse({ ...settings, colours }).success).toBe(true);
    expect(traceSettingsSchema.safeParse({ ...settings, colours: [{ hex: 'red', purpose: 'cut' }] }).success).toBe(false);
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
    expect(edited(withPicture, { do: 'change-picture', pictureId: id, change: { opacity: 1 } })).toBeNull());
});

describe('measures', () => {
  it('of a 400-pixel disc with a 100-pixel hole at 300 dpi, by closed forms', () => {
    const [disc] = (withTrace.traces[0] as JobTrace).pieces;
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
