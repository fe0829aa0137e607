/**
 * Traces of truth scenes, tilted and noisy, against the truth.
 */
import { inverse, type Path, pathBox, transformedPath } from '@nuvet/core/plane';
import { greyPicture } from '@nuvet/core/raster';
import { plainTraceSettings, tracePicture } from '@nuvet/core/trace';
import { deviationOf, fullSheetScene, plateScene, type Scene, scanScene, smoothScene, starScene, straightScene } from '@nuvet/truth';

const scans = [
  { tiltDegrees: 0.7, noise: 4, seed: 11 },
  { tiltDegrees: -1.6, noise: 5, seed: 12 },
  { tiltDegrees: 3, noise: 6, seed: 13 },
];
const outlinesOf = (list: readonly { outer: Path; holes: readonly Path[] }[]) => list.flatMap(({ outer, holes }) => [outer, ...holes]);
const count = (paths: readonly Path[]) => paths.reduce((n, p) => n + p.segments.length, 0);

export function measureAccuracy(): void {
  console.log('scene             tilt  noise   RMS mm  worst mm  width off  height off  corners off  pieces  outlines   segments');
  for (const scene of [plateScene, starScene, straightScene, smoothScene, fullSheetScene()])
    for (const settings of scans) line(scene, settings);
  console.log('the same as one-bit scans');
  for (const scene of [plateScene, starScene, straightScene, smoothScene]) for (const settings of scans) line(scene, settings, true);
}

function line(scene: Scene, settings: (typeof scans)[number], isBilevel = false): void {
  const scan = scanScene(scene, { dpi: 300, ...settings });
  const { width, height, data } = scan.picture;
  const picture = isBilevel
    ? greyPicture(
        data.map((v) => (v < 137 ? 0 : 255)),
        width,
        height,
      )
    : scan.picture;
  const trace = tracePicture(picture, scan.mmPerPx, plainTraceSettings);
  const back = inverse(scan.toPixels);
  const traced = outlinesOf(trace.pieces).map((path) => transformedPath(path, back));
  const truth = outlinesOf(scene.pieces);
  const { rmsMm, worstMm } = deviationOf(traced, truth);
  const [ours, theirs] = [overall(traced), overall(truth)];
  const cells = [
    scene.name.padEnd(16),
    settings.tiltDegrees.toFixed(1).padStart(5),
    String(settings.noise).padStart(6),
    rmsMm.toFixed(4).padStart(8),
    worstMm.toFixed(3).padStart(9),
    Math.abs(ours.width - theirs.width)
      .toFixed(3)
      .padStart(10),
    Math.abs(ours.height - theirs.height)
      .toFixed(3)
      .padStart(11),
    (cornersOff(traced, truth)?.toFixed(3) ?? '–').padStart(12),
    `${trace.pieces.length}/${scene.pieces.length}`.padStart(7),
    `${traced.length}/${truth.length}`.padStart(9),
    `${count(traced)}/${count(truth)}`.padStart(10),
  ];
  console.log(cells.join(' '));
}

function overall(paths: readonly Path[]): { width: number; height: number } {
  const boxes = paths.map(pathBox);
  const span = (low: 'minX' | 'minY', high: 'maxX' | 'maxY') =>
    Math.max(...boxes.map((b) => b[high])) - Math.min(...boxes.map((b) => b[low]));
  return { width: span('minX', 'maxX'), height: span('minY', 'maxY') };
}

/** The largest distance from a true corner of a straight-sided figure to the nearest traced point, mm. */
function cornersOff(traced: readonly Path[], truth: readonly Path[]): number | null {
  const straight = truth.filter((path) => path.segments.every((s) => s.kind === 'line'));
  const found = traced.flatMap((path) => path.segments.map((s) => s.to));
  const off = straight.flatMap((path) => path.segments.map(({ to }) => Math.min(...found.map((p) => Math.hypot(p.x - to.x, p.y - to.y)))));
  return off.length > 0 ? Math.max(...off) : null;
}
