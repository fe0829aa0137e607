/**
 * Letters, icons and figures drawn by resvg (npm), a renderer of its own, and spoiled as scans and files are: those whose corners, teeth,
 * bars and light once went wrong, and one of each kind besides. The bench measures all.
 */
import { expect, it } from 'vitest';
import { type Condition, renderedOutlines, renderedResult } from '../../bench/rendered.ts';

const outlines = renderedOutlines();
/** The tolerance that is asked for, and three quarters of a pixel for corners that softness and stairs hide, mm. */
const worstMm = 0.12;

it.each<[string, number, Condition]>([
  ['the teeth of a small wheel', 90, 'clean'],
  ['the teeth of a small wheel', 90, 'noise'],
  ['bars less than a millimetre wide', 82, 'clean'],
  ['a letter whose straight sides go on in line', 4, 'noise'],
  ['a letter with a notch that ends in a narrow flat', 18, 'clean'],
  ['an arrow', 43, 'JPEG 60'],
  ['a speech bubble', 51, 'noise'],
  ['thin bars whose paper one threshold would cut', 82, 'uneven light'],
  ['a thin bow whose paper one threshold would cut', 89, 'uneven light'],
  ['an icon of straight lines and arcs', 40, '1 bit'],
])('%s comes out whole and near (%d, %s)', async (_, number, condition) => {
  const found = await renderedResult(outlines[number] as (typeof outlines)[0], condition, 1000 + number);
  expect(found.isWhole).toBe(true);
  expect(found.worstMm).toBeLessThan(worstMm);
  expect(found.rmsMm).toBeLessThan(0.02);
});

it('bars in one bit do not run off', async () => {
  // Stairs hide the ends of so thin bars by a pixel or two; before, an end lay thirty pixels off.
  expect((await renderedResult(outlines[102] as (typeof outlines)[0], '1 bit', 1102)).worstMm).toBeLessThan(0.3);
});
