import { describe, expect, it } from 'vitest';
import { applyCommand, CommandError, emptyJob, type Job, labelOf, type Piece } from '../job/index.ts';
import { circlePath, type Path, polygonPath } from '../plane/index.ts';
import { findingsOf, fitOnStock, fixCommand, placeNear, provedSizes } from './index.ts';

const box = (x: number, y: number, w: number, h: number): Path =>
  polygonPath([
    { x, y },
    { x: x + w, y },
    { x: x + w, y: y + h },
    { x, y: y + h },
  ]);
const piece = (id: string, outer: Path): Piece => ({ id, name: id, purpose: 'cut', leftOut: false, runsOff: false, outer, holes: [] });
const pieces = [piece('Board', box(10, 10, 138.1, 60)), piece('Disc', circlePath({ x: 200, y: 40 }, 15))];
const size = (of: Parameters<typeof provedSizes>[1][0]['of'], mm: number, toleranceMm = 0.2) => ({
  id: 's',
  name: 'Size',
  of,
  mm,
  toleranceMm,
});

describe('sizes that must come out', () => {
  it('are those of one piece, of all, or between two outlines', () => {
    const [board, all, high, gap] = provedSizes(pieces, [
      size({ kind: 'width', pieceId: 'Board' }, 138.1),
      size({ kind: 'width', pieceId: null }, 205),
      size({ kind: 'height', pieceId: 'Disc' }, 30.3),
      // From the board's right side to the disc: taken from near by.
      size({ kind: 'between', a: { x: 148.3, y: 40.2 }, b: { x: 184.8, y: 40 } }, 36.9, 0.05),
    ]);
    expect(board).toMatchObject({ isMm: expect.closeTo(138.1, 9), holds: true });
    expect(all).toMatchObject({ isMm: expect.closeTo(205, 9), holds: true });
    expect(high).toMatchObject({ isMm: expect.closeTo(30, 9), holds: false });
    expect(gap?.isMm).toBeCloseTo(36.9, 2);
  });
  it('follow their outlines, and say so when those are gone', () => {
    const moved = [pieces[0] as Piece, piece('Disc', circlePath({ x: 200.3, y: 40 }, 15))];
    const between = size({ kind: 'between', a: { x: 148.1, y: 40 }, b: { x: 185, y: 40 } }, 36.9, 0.05);
    expect(provedSizes(moved, [between])[0]).toMatchObject({ isMm: expect.closeTo(37.2, 2), holds: false });
    expect(provedSizes(moved, [size({ kind: 'width', pieceId: 'Hub' }, 5)])[0]).toMatchObject({ isMm: null, holds: false });
    expect(provedSizes([], [between])[0]).toMatchObject({ isMm: null });
  });
  it('take a point of an outline from near by, else the nearest place on it', () => {
    expect(placeNear(pieces, { x: 10.4, y: 10.3 })).toEqual({ x: 10, y: 10 });
    expect(placeNear(pieces, { x: 60, y: 8 })).toEqual({ x: 60, y: 10 });
    expect(placeNear([], { x: 0, y: 0 })).toBeNull();
  });
});

describe('stock', () => {
  it('is large enough, large enough turned, or too small', () => {
    const [board] = pieces as [Piece];
    expect(fitOnStock(board, 140, 70)).toBe('fits');
    expect(fitOnStock(board, 70, 140)).toBe('turned');
    expect(fitOnStock(board, 138, 138)).toBe('too-large');
  });
});

describe('edits of proof and making', () => {
  it('change only what they name, and are called by it', () => {
    const job = emptyJob('Shelf');
    const proved = applyCommand(job, { do: 'prove-by', change: { thinnestMm: 2 } });
    expect(proved.proof).toEqual({ ...job.proof, thinnestMm: 2 });
    const set = applyCommand(proved, { do: 'set-stock', change: { widthMm: 600 } });
    expect(set.making.stock).toEqual({ ...job.making.stock, widthMm: 600 });
    expect(labelOf({ do: 'prove-by', change: { bridges: [] } })).toBe('bridges');
    expect(labelOf({ do: 'name-files', fileNames: '{job}' })).toBe('how files are named');
  });
  it('a mend of what is no longer there is refused', () => {
    const job: Job = emptyJob('Shelf');
    const [finding] = findingsOf(job, []);
    const command = fixCommand(job, finding as NonNullable<typeof finding>, { do: 'leave-out', word: 'exclude', ids: ['gone'] }, () => 'x');
    expect(() => applyCommand(job, command)).toThrow(CommandError);
  });
});
