/**
 * The whole trace of a large sheet, its parts, and d3-contour's contours of the same picture in the same run.
 */
import { contoursAt, histogram, otsuThreshold } from '@nuvet/core/raster';
import { plainTraceSettings, tracePicture } from '@nuvet/core/trace';
import { fullSheetScene, scanScene } from '@nuvet/truth';
import { contours as d3Contours } from 'd3-contour';

const rounds = 7;

/** The median and the least of several runs, ms. */
function timed(work: () => unknown): { median: number; least: number } {
  const times = Array.from({ length: rounds }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  }).sort((a, b) => a - b);
  return { median: times[rounds >> 1] as number, least: times[0] as number };
}

const row = (name: string, { median, least }: { median: number; least: number }) =>
  console.log(`${name.padEnd(46)} ${median.toFixed(0).padStart(6)} ms (least ${least.toFixed(0)})`);

export function measureSpeed(): void {
  const { picture, mmPerPx } = scanScene(fullSheetScene(), { dpi: 600, tiltDegrees: 1, noise: 5 });
  const whole = timed(() => tracePicture(picture, mmPerPx, plainTraceSettings));
  const threshold = timed(() => otsuThreshold(histogram(picture)));
  const level = (otsuThreshold(histogram(picture))?.value ?? 127) + 0.5;
  const contours = timed(() => contoursAt(picture, level, 500));
  row(`grey to finished outlines, ${(picture.data.length / 1e6).toFixed(1)} megapixels`, whole);
  row('  histogram and threshold', threshold);
  row('  contours with nesting', contours);
  const start = performance.now();
  // d3-contour rounds what is above a value, so the picture is handed over turned to its negative, ready made.
  const negative = picture.data.map((v) => 255 - v);
  const ready = performance.now();
  d3Contours()
    .size([picture.width, picture.height])
    .smooth(true)
    .contour(Array.from(negative), 255 - level);
  const theirs = performance.now() - ready;
  console.log(
    `${'d3-contour, contours alone, once'.padEnd(46)} ${theirs.toFixed(0).padStart(6)} ms (its input made in ${(ready - start).toFixed(0)})`,
  );
  console.log(`${'ours, all told, against theirs, contours alone'.padEnd(46)} ${(whole.median / theirs).toFixed(2).padStart(6)} times`);
}
