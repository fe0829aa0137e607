/**
 * The whole trace of a large sheet, its parts, and d3-contour's contours of the same picture in the same run.
 */
import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { pathArea } from '@nuvet/core/plane';
import { contoursAt, histogram, otsuThreshold } from '@nuvet/core/raster';
import { plainTraceSettings, tracePicture, wallsOf } from '@nuvet/core/trace';
import { fullSheetScene, piece, scanScene } from '@nuvet/truth';
import { contours as d3Contours } from 'd3-contour';
import { openCv } from '../tests/unit/opencv.ts';

const rounds = 7;

/** The median and the least of several runs, ms. */
function timed(work: () => unknown, count = rounds): { median: number; min: number } {
  const times = Array.from({ length: count }, () => {
    const start = performance.now();
    work();
    return performance.now() - start;
  }).sort((a, b) => a - b);
  return { median: times[count >> 1] as number, min: times[0] as number };
}

const row = (name: string, { median, min }: { median: number; min: number }) =>
  console.log(`${name.padEnd(46)} ${median.toFixed(0).padStart(6)} ms (least ${min.toFixed(0)})`);

export async function measureSpeed(): Promise<void> {
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
  const { cv } = await openCv();
  const mat = cv.matFromArray(picture.height, picture.width, cv.CV_8UC1, picture.data);
  const theirContours = timed(() => {
    const [ink, nesting, found] = [new cv.Mat(), new cv.Mat(), new cv.MatVector()];
    cv.threshold(mat, ink, level, 255, cv.THRESH_BINARY_INV);
    cv.findContours(ink, found, nesting, cv.RETR_CCOMP, cv.CHAIN_APPROX_NONE);
    for (const part of [ink, nesting, found]) part.delete();
  });
  mat.delete();
  row('OpenCV, threshold and contours alone', theirContours);
  console.log(
    `${'ours, all told, against OpenCV’s contours alone'.padEnd(46)} ${(whole.median / theirContours.median).toFixed(2).padStart(6)} times`,
  );
  measureMiddles();
  measureGrowth();
  measureMemory();
}

/** The middles of the same sheet's outlines, drawn with a pen of 0.9 mm. */
function measureMiddles(): void {
  const strokes = fullSheetScene().pieces.flatMap(({ outer, holes }) => [outer, ...holes]);
  const pieces = strokes.flatMap((path) => {
    const [outer, ...holes] = wallsOf([path], 0.9, 0.01).sort((a, b) => Math.abs(pathArea(b)) - Math.abs(pathArea(a)));
    return outer ? [piece(outer, holes)] : [];
  });
  const { picture, mmPerPx } = scanScene({ ...fullSheetScene(), pieces }, { dpi: 600, tiltDegrees: 1, noise: 5 });
  let paths = 0;
  const middles = timed(() => {
    paths = tracePicture(picture, mmPerPx, { ...plainTraceSettings, take: 'network' }).pieces.length;
  }, 3);
  row(`middles of lines, ${(picture.data.length / 1e6).toFixed(1)} megapixels, ${paths} paths`, middles);
}

/** Time a megapixel as pictures grow, shapes in number alike. */
function measureGrowth(): void {
  for (const dpi of [145, 285, 600, 1010]) {
    const { picture, mmPerPx } = scanScene(fullSheetScene(), { dpi, tiltDegrees: 1, noise: 5 });
    const times = Array.from({ length: 3 }, () => {
      const start = performance.now();
      tracePicture(picture, mmPerPx, plainTraceSettings);
      return performance.now() - start;
    });
    const megapixels = picture.data.length / 1e6;
    const min = Math.min(...times);
    console.log(
      `  ${megapixels.toFixed(1).padStart(5)} megapixels: ${min.toFixed(0).padStart(5)} ms, ${(min / megapixels).toFixed(1)} ms a megapixel`,
    );
  }
}

/** The most memory that a process of its own holds while it traces the sheet, beside what it held before. */
function measureMemory(): void {
  const told = execFileSync(process.execPath, [
    '--expose-gc',
    '--import',
    new URL('../packages/cli/bin/typescript.mjs', import.meta.url).href,
    fileURLToPath(new URL('./memory-of-trace.ts', import.meta.url)),
  ]);
  console.log(`${'most memory of the trace, its picture included'.padEnd(46)} ${told.toString().trim().padStart(6)} MB`);
}
