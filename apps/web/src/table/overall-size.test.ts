import { applyCommand, type Drawn, emptyJob, keptPieces, newPicture, overallBox } from '@nuvet/core/job';
import { circlePath, heightOf, pathBox, polygonPath, widthOf } from '@nuvet/core/plane';
import { describe, expect, it } from 'vitest';
import { allScaled } from './overall-size';

const id = '6f2f3a1e-8f5e-4f5f-9b1a-0c9a4f6d2b10';
const p = (x: number, y: number) => ({ x, y });
const drawn = (name: string, source: Drawn['source'], live: Drawn['live'] = []): Drawn => ({ id: name, name, purpose: 'cut', leftOut: false, source, live }); // biome-ignore format: one line
const traced = { id: 'piece-1', name: 'Piece 1', purpose: 'engrave' as const, leftOut: false, runsOff: false, outer: polygonPath([p(10, 10), p(50, 10), p(50, 40)]), holes: [] }; // biome-ignore format: one line
const rest = {
  settings: { threshold: 'auto' as const, toleranceMm: 0.1, smallestMm: 1 },
  threshold: 128,
  dropped: 0,
  mmPerPx: 0.1,
  toSheet: { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 },
};
const picture = newPicture({ id, name: 'scan', widthPx: 1000, heightPx: 1000, resolution: null });
const job = {
  ...emptyJob('Lantern'),
  pictures: [picture],
  traces: [{ pictureId: id, ...rest, pieces: [traced, { ...traced, id: 'piece-2', leftOut: true }] }] as never,
  drawn: [
    drawn('ring', { kind: 'path', path: circlePath(p(80, 30), 10) }, [{ kind: 'offset', by: 3, count: 2, corners: 'round', keeps: true }]),
    drawn('wing', { kind: 'points', points: [p(10, 60), p(40, 60), p(40, 90)].map((at) => ({ at, corner: true })), closed: true }),
  ],
};

describe('the overall size', () => {
  it('typed, scales traced and drawn pieces and the rings that follow, about one corner', () => {
    const before = overallBox(keptPieces(job));
    if (!before) throw new Error('no pieces');
    const command = allScaled(job, 150 / widthOf(before), p(before.minX, before.minY));
    const after = applyCommand(job, command as NonNullable<typeof command>);
    const box = overallBox(keptPieces(after)) as NonNullable<typeof before>;
    expect([box.minX, box.minY]).toEqual([expect.closeTo(before.minX, 9), expect.closeTo(before.minY, 9)]);
    expect(widthOf(box)).toBeCloseTo(150, 6);
    expect(heightOf(box)).toBeCloseTo((150 * heightOf(before)) / widthOf(before), 6);
    // The same pieces of the same purposes, the excluded one still excluded.
    expect(keptPieces(after).map(({ purpose }) => purpose).sort()).toEqual(keptPieces(job).map(({ purpose }) => purpose).sort()); // biome-ignore format: one line
    const ring = after.drawn.find((d) => d.id === 'ring');
    expect(ring?.live).toMatchObject([{ kind: 'offset', by: (3 * 150) / widthOf(before) }]);
    const wing = keptPieces(after).find((piece) => piece.id === 'wing');
    expect(wing && widthOf(pathBox(wing.outer))).toBeCloseTo((30 * 150) / widthOf(before), 6);
  });
  it('of nothing is not to be had', () => {
    expect(allScaled(emptyJob('Empty'), 2, p(0, 0))).toBeNull();
  });
});
