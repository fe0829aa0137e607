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

it('a tag lies at its outline, one of a view that is not used below all of them', () => {
  expect(viewHandles(planned())).toEqual([on('side', 0, 50), on('above', 0, 180), { id: 'front', at: { x: expect.closeTo(288, 6), y: expect.closeTo(-28.8, 6) } }]); // biome-ignore format: one line
});
it.each([
  ['on to an outline: it is that view', on('front', 440, 25), { frontId: 'c' }],
  ['on to the outline of another view: the two change places', on('side', 100, 150), { sideId: 'b', aboveId: 'a' }],
  ['beside all outlines: there is no such view', on('above', 350, 300), { aboveId: 'none' }],
  ['the side beside all outlines: it stays, there has to be one', on('side', 350, 300), {}],
  ['where it is: nothing is changed', on('side', 10, 10), {}],
  ['something else: nothing is changed', on('tab', 10, 10), {}],
])('dragged %s', (_, dragged, change) => {
  expect(withViewAt(dragged, planned())).toEqual(change);
});
it('the front on to the side: the side needs an outline, and takes none of nothing', () => {
  expect(withViewAt(on('front', 10, 10), planned())).toEqual({ frontId: 'a', sideId: null });
});
