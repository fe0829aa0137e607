/**
 * Traces a sheet of 35 megapixels and prints how much memory that took, its picture included, MB: V8's heap and the buffers
 * outside it, looked at in every step.
 */
import { findInk, fitInk, plainTraceSettings } from '@nuvet/core/trace';
import { fullSheetScene, scanScene } from '@nuvet/truth';

const { picture, mmPerPx } = scanScene(fullSheetScene(), { dpi: 600, tiltDegrees: 1, noise: 5 });
const held = (): number => {
  const { heapUsed, arrayBuffers } = process.memoryUsage();
  return heapUsed + arrayBuffers;
};
// What drawing the scene has left behind does not count.
for (let k = 0; k < 3; k++) {
  (globalThis as { gc?: () => void }).gc?.();
  // Buffers are given back a turn after those who held them.
  await new Promise((resolve) => setTimeout(resolve, 20));
}
const before = held();
const ink = findInk(picture, mmPerPx, plainTraceSettings);
let max = held();
for (const _ of fitInk(ink, mmPerPx, plainTraceSettings)) max = Math.max(max, held());
console.log(((Math.max(max, held()) - before + picture.data.length) / 1e6).toFixed(0));
