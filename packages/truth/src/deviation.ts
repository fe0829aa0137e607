/**
 * In: outlines that a trace came to, and the truth, both on the sheet in mm. Out: how far they lie apart.
 * Both ways are measured: from points along the trace to the truth, and from the truth to the trace, so that neither
 * a bulge nor a lost corner hides.
 */
import { boxDistance, nearestOnPath, type Path, type Point, pathBox, polygonOf } from '@nuvet/core/plane';

export interface Deviation {
  /** Root of the mean squared distance of points along the trace from the truth, mm. */
  readonly rmsMm: number;
  /** The largest distance either way, mm, and where. */
  readonly worstMm: number;
  readonly worstAt: Point;
}

/** Paths farther away than this are not looked at; a larger deviation counts as this much, mm. */
const reachMm = 2;
/** Chords to walk along, mm. */
const chordMm = 0.002;
/** And never farther from one looked-at point to the next than this, mm. */
const stepMm = 0.5;

export function deviationOf(traced: readonly Path[], truth: readonly Path[]): Deviation {
  const forth = distances(traced, truth);
  const back = distances(truth, traced);
  const worst = forth.worstMm >= back.worstMm ? forth : back;
  return { rmsMm: Math.sqrt(forth.squares / forth.count), worstMm: worst.worstMm, worstAt: worst.worstAt };
}

function distances(from: readonly Path[], to: readonly Path[]) {
  const boxes = to.map((path) => ({ path, box: pathBox(path) }));
  const result = { squares: 0, count: 0, worstMm: 0, worstAt: { x: 0, y: 0 } };
  for (const path of from) {
    for (const p of pointsAlong(path)) {
      const d = boxes.reduce(
        (min, { path: other, box }) => (boxDistance(box, p) < min ? Math.min(min, nearestOnPath(other, p).distance) : min),
        reachMm,
      );
      result.squares += d * d;
      result.count++;
      if (d > result.worstMm) Object.assign(result, { worstMm: d, worstAt: p });
    }
  }
  return result;
}

function* pointsAlong(path: Path): Generator<Point> {
  const polygon = polygonOf(path, chordMm);
  for (const [k, a] of polygon.entries()) {
    const isLast = k === polygon.length - 1;
    if (isLast && !path.closed) {
      yield a;
      return;
    }
    const b = polygon[(k + 1) % polygon.length] as Point;
    const parts = Math.max(1, Math.ceil(Math.hypot(b.x - a.x, b.y - a.y) / stepMm));
    for (let n = 0; n < parts; n++) yield { x: a.x + ((b.x - a.x) * n) / parts, y: a.y + ((b.y - a.y) * n) / parts };
  }
}
