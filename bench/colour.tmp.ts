import { inverse, stepsOf, transformedPath } from '@nuvet/core/plane';
import { coloursIn, hexOf } from '@nuvet/core/raster';
import { colourInk, colourMap, colourPieces } from '@nuvet/core/trace';
import { badgeBorders, badgeSheet, deviationOf, scanColours } from '@nuvet/truth';

const end = <T>(g: Generator<number, T>): T => {
  for (;;) {
    const s = g.next();
    if (s.done) return s.value;
  }
};
for (const [dpi, tilt] of [
  [300, 1.3],
  [600, -2],
] as const) {
  const scan = scanColours(badgeSheet, { dpi, tiltDegrees: tilt, noise: 5 });
  const t0 = performance.now();
  console.log(
    coloursIn(scan.picture)
      .map((s) => hexOf(s.rgb) + ' ' + s.share.toFixed(3))
      .join(', '),
  );
  const ink = end(
    colourInk(
      scan.picture,
      [
        [178, 58, 46],
        [38, 62, 112],
        [70, 128, 84],
        [236, 178, 60],
      ],
      1 / scan.mmPerPx,
    ),
  );
  const t1 = performance.now();
  const map = colourMap(ink);
  const t2 = performance.now();
  const pieces = end(colourPieces(map, 0.1 / scan.mmPerPx));
  const t3 = performance.now();
  console.log(
    scan.picture.width,
    'ink',
    (t1 - t0).toFixed(0),
    'map',
    (t2 - t1).toFixed(0),
    'fit',
    (t3 - t2).toFixed(0),
    'softness',
    map.softness.toFixed(2),
    'chains',
    map.borders.length,
    'dropped',
    ink.dropped,
  );
  const back = inverse(scan.toPixels);
  for (const p of pieces) {
    const paths = [p.outer, ...p.holes].map((q) => transformedPath(q, back));
    const d = deviationOf(paths, badgeBorders);
    const fwd = paths.map((q) => q.segments.map((s) => s.kind[0]).join(''));
    console.log(p.colour, p.runsOff, fwd.join(' | '), 'rms', d.rmsMm.toFixed(4));
  }
  const all = pieces.flatMap((p) => [p.outer, ...p.holes]).map((q) => transformedPath(q, back));
  const d = deviationOf(all, badgeBorders.slice(0, 6));
  console.log('worst', d.worstMm.toFixed(4), d.worstAt);
}
{
  const scan = scanColours(badgeSheet, { dpi: 300, tiltDegrees: 1.3, noise: 5 });
  const ink = end(
    colourInk(
      scan.picture,
      [
        [178, 58, 46],
        [38, 62, 112],
        [70, 128, 84],
        [236, 178, 60],
      ],
      1 / scan.mmPerPx,
    ),
  );
  const map = colourMap(ink);
  const back = inverse(scan.toPixels);
  for (const b of map.borders) {
    const n = b.points.length / 2;
    const pts = Array.from({ length: n }, (_, k) => ({ x: b.points[2 * k]!, y: b.points[2 * k + 1]! }));
    const poly = { start: pts[0]!, segments: pts.slice(1).map((to) => ({ kind: 'line' as const, to })), closed: false };
    const q = transformedPath(poly, back);
    const d = deviationOf([q], badgeBorders);
    console.log(b.labels, 'n', n, 'rms px', (d.rmsMm / scan.mmPerPx).toFixed(3), 'start', q.start.x.toFixed(1), q.start.y.toFixed(1));
    for (const side of [0, 1]) {
      const list: string[] = [];
      for (let k = 0; k < Math.min(10, n); k++) {
        const p = q.segments.length ? [q.start, ...q.segments.map((s) => s.to)].at(side ? n - 1 - k : k)! : q.start;
        list.push(
          (
            deviationOf([{ start: p, segments: [{ kind: 'line', to: { x: p.x + 1e-6, y: p.y } }], closed: false }], badgeBorders).rmsMm /
            scan.mmPerPx
          ).toFixed(2),
        );
      }
      console.log('   ', list.join(' '));
    }
  }
}
