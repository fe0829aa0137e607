/** A trace of chords goes to the page as numbers and comes out of them the same, whatever its outlines. */
import type { JobTrace, Piece } from '@nuvet/core/job';
import { defaultTraceSettings } from '@nuvet/core/job';
import { polygonPath } from '@nuvet/core/plane';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { asNumbers, asOutlines } from './chord-trace';

const coordinate = fc.double({ min: -1e4, max: 1e4, noNaN: true });
const outline = fc.array(fc.record({ x: coordinate, y: coordinate }), { minLength: 3, maxLength: 30 }).map(polygonPath);
const piece = fc.record({ outer: outline, holes: fc.array(outline, { maxLength: 3 }), leftOut: fc.boolean() });
const whole = (pieces: Piece[]): JobTrace => ({
  pictureId: '8b0e2b43-5a5e-4b0c-9a2c-0c8f0a3f1d11',
  settings: defaultTraceSettings,
  threshold: 130,
  dropped: 2,
  insideFrame: false,
  mmPerPx: 0.1,
  toSheet: { a: 0.1, b: 0, c: 0, d: -0.1, e: 0, f: 0 },
  projection: null,
  pieces,
});

it('outlines, holes and all that a piece is besides', () => {
  fc.assert(
    fc.property(fc.array(piece, { maxLength: 5 }), (list) => {
      const trace = whole(list.map((one, k): Piece => ({ id: `piece-${k}`, name: `Piece ${k}`, purpose: 'cut', runsOff: false, ...one })));
      expect(asOutlines(structuredClone(asNumbers(trace)))).toEqual(trace);
    }),
  );
});
