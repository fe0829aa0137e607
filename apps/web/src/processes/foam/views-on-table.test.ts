import { foamPlan, plainFoam } from '@nuvet/core/foam';
import { type Piece, plainStock } from '@nuvet/core/job';
import { rectanglePath } from '@nuvet/core/plane';
import { finished } from '@nuvet/core/steps';
import { expect, it } from 'vitest';
import { viewHandles, withViewAt } from './views-on-table';

const piece = (id: string, minX: number, minY: number, maxX: number, maxY: number): Piece => ({ id, name: id, purpose: 'cut', leftOut: false, runsOff: false, outer: rectanglePath({ minX, minY, maxX, maxY }), holes: [] }); // biome-ignore format: one line
const pieces = [piece('a', 0, 0, 300, 50), piece('b', 0, 100, 300, 180), piece('c', 400, 0, 480, 50)];
const planned = (change: Partial<typeof plainFoam> = {}) => finished(foamPlan(pieces, { ...plainFoam, sideId: 'a', aboveId: 'b', ...change }, plainStock)); // biome-ignore format: one line
const on = (id: string, x: number, y: number) => ({ id, at: { x, y } });

it('a tag lies at its outline, one of a view that is not used at the right of all of them', () => {
  expect(viewHandles(planned())).toEqual([on('side', 150, 50), on('above', 150, 180), { id: 'front', at: { x: expect.closeTo(518.4, 6), y: expect.closeTo(103.2, 6) } }]); // biome-ignore format: one line
});
it('the front on to the side: the side needs an outline, and takes none of nothing', () => {
  expect(withViewAt(on('front', 10, 10), planned())).toEqual({ frontId: 'a', sideId: null });
});
