/**
 * Letters of two fonts and icons of a set, drawn by others, rendered as scans and traced: how far off, and with how many
 * segments against their own.
 */
import { inverse, type Path, transformedPath } from '@nuvet/core/plane';
import { plainTraceSettings, tracePicture } from '@nuvet/core/trace';
import { deviationOf, scanScene } from '@nuvet/truth';
import { icons, letters, type OutsideOutline } from './outside-outlines.ts';

const alphabet = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz';
const worstMm = 0.04;

const count = (paths: readonly Path[]) => paths.reduce((n, p) => n + p.segments.length, 0);

export function measureOutside(): void {
  report('Libre Baskerville, capitals 48 mm, 600 dpi', letters('libre-baskerville', alphabet), 600);
  report('Work Sans, capitals 48 mm, 600 dpi', letters('work-sans', alphabet), 600);
  report('Bootstrap Icons, 40 mm, 1270 dpi (2000 px)', icons(300), 1270);
}

function report(name: string, list: readonly OutsideOutline[], dpi: number): void {
  const results = list.map(({ scene, outlines }) => {
    const scan = scanScene(scene, { dpi, noise: 4, seed: 5, softnessMm: 36 / dpi / 25.4 });
    const traced = tracePicture(scan.picture, scan.mmPerPx, { ...plainTraceSettings, toleranceMm: worstMm, smallestMm: 0.4 });
    const back = inverse(scan.toPixels);
    const paths = traced.pieces.flatMap(({ outer, holes }) => [outer, ...holes]).map((path) => transformedPath(path, back));
    const off = deviationOf(paths, outlines);
    return {
      near: off.worstMm <= worstMm,
      few: count(paths) <= count(outlines),
      rms: off.rmsMm,
      ours: count(paths),
      theirs: count(outlines),
    };
  });
  const share = (test: (r: (typeof results)[0]) => boolean) => `${((100 * results.filter(test).length) / results.length).toFixed(0)} %`;
  const sum = (of: (r: (typeof results)[0]) => number) => results.reduce((total, r) => total + of(r), 0);
  console.log(
    `${name.padEnd(46)} ${String(results.length).padStart(3)}: within ${worstMm} mm ${share((r) => r.near)}, no more segments ${share((r) => r.few)}, both ${share((r) => r.near && r.few)}; RMS ${(sum((r) => r.rms) / results.length).toFixed(4)} mm, segments ${(sum((r) => r.ours) / sum((r) => r.theirs)).toFixed(2)} times theirs`,
  );
}
