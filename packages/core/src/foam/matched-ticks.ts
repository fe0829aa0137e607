/**
 * In: the two faces of a slice. Out: ticks across both at equal shares of their length from where each is lowest, so that two hands that follow
 * one face each at even speed are at the same tick together. Every fifth is longer and has its number.
 */
import { distance, type Path, type Point, polygonOf } from '../plane/index.ts';

export interface MatchedTicks {
  readonly lines: readonly Path[];
  /** Of every fifth, beside the larger face. */
  readonly numbers: readonly { readonly at: Point; readonly number: number }[];
}

const chordMm = 0.05;
const [shortMm, longMm, numberMm] = [3, 6, 9];

export function matchedTicks(larger: Path, smaller: Path, count: number): MatchedTicks {
  const faces = [alongFrom(larger), alongFrom(smaller)];
  const lines: Path[] = [];
  const numbers: { at: Point; number: number }[] = [];
  for (let n = 0; n < count; n++) {
    const long = n % 5 === 0;
    for (const [face, at] of faces.entries()) {
      const { p, normal } = at(n / count);
      const by = long ? longMm : shortMm;
      // The larger face's ticks stand inwards and the smaller one's too: neither runs into the other's line.
      lines.push({ start: p, segments: [{ kind: 'line', to: { x: p.x - by * normal.x, y: p.y - by * normal.y } }], closed: false });
      if (long && face === 1) numbers.push({ at: { x: p.x - numberMm * normal.x, y: p.y - numberMm * normal.y }, number: n });
    }
  }
  return { lines, numbers };
}

/** Places of a counter-clockwise outline by their share of its length from its lowest place, with the way out there. */
function alongFrom(path: Path): (share: number) => { p: Point; normal: Point } {
  const all = polygonOf(path, chordMm);
  const low = all.reduce((best, p, k) => (p.y < (all[best] as Point).y ? k : best), 0);
  const points = [...all.slice(low), ...all.slice(0, low), all[low] as Point];
  const upTo = [0];
  for (let k = 1; k < points.length; k++) upTo.push((upTo[k - 1] as number) + distance(points[k - 1] as Point, points[k] as Point));
  const whole = upTo.at(-1) as number;
  return (share) => {
    const wanted = share * whole;
    let k = 1;
    while (k < points.length - 1 && (upTo[k] as number) < wanted) k++;
    const [a, b] = [points[k - 1] as Point, points[k] as Point];
    const length = Math.max(distance(a, b), 1e-12);
    const t = (wanted - (upTo[k - 1] as number)) / length;
    return { p: { x: a.x + (b.x - a.x) * t, y: a.y + (b.y - a.y) * t }, normal: { x: (b.y - a.y) / length, y: (a.x - b.x) / length } };
  };
}
