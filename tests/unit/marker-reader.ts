/**
 * In: a grey picture. Out: the numbers of the square markers that js-aruco2 (npm) reads in it.
 */
import { createRequire } from 'node:module';
import type { GreyPicture } from '@nuvet/core/raster';

interface Detector {
  detectImage(width: number, height: number, rgba: Uint8ClampedArray): { id: number }[];
}
const { AR } = createRequire(import.meta.url)('js-aruco2') as { AR: { Detector: new (wish: { dictionaryName: string }) => Detector } };

export function readSquare({ width, height, data }: GreyPicture): number[] {
  const rgba = new Uint8ClampedArray(4 * data.length);
  for (let k = 0; k < data.length; k++) rgba.set([data[k] as number, data[k] as number, data[k] as number, 255], 4 * k);
  return new AR.Detector({ dictionaryName: 'ARUCO' }).detectImage(width, height, rgba).map((m) => m.id);
}
