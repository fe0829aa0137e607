/**
 * In: a curve (a cuff, a band, a box wall seen from above) and the stock's thickness. Out: the straight strip that bends into
 * it, and the way from the curve to the strip and back.
 * Rests on: bending leaves the length at the neutral line, k thicknesses from the inner face (k = 0.5 is the middle; common
 * practice); set off from the drawn face by d, a curve grows by d for every radian that it turns.
 */
import { centreOf, heightOf, widthOf } from '../plane/box.ts';
import { type Path, pathBox, polygonPath, stepsOf, transformedPath } from '../plane/path.ts';
import { type Point, turnBetween } from '../plane/point.ts';
import { directionOn, nearestOnSegment, type Segment, segmentLength, splitSegment } from '../plane/segment.ts';
import { shift } from '../plane/transform.ts';
import { stationAt } from './copies.ts';

export interface FlatSettings {
  readonly thicknessMm: number;
  /** Where the neutral line lies, as a share of the thickness from the drawn face. */
  readonly k: number;
  /** On which side of the drawn curve the material lies, seen along it. */
  readonly side: 'left' | 'right';
  /** The strip's other measure, mm. */
  readonly widthMm: number;
}

export interface FlatStrip {
  readonly lengthMm: number;
  readonly strip: Path;
  /** How far along the strip a length along the drawn curve comes to lie. */
  readonly toStrip: (alongCurve: number) => number;
  readonly toCurve: (alongStrip: number) => number;
}

/** The strip of a curve; it lies on the sheet from the origin to the right. */
export function layFlat(curve: Path, { thicknessMm, k, side, widthMm }: FlatSettings): FlatStrip {
  const away = (side === 'left' ? 1 : -1) * k * thicknessMm;
  const stations = stationsOf(curve);
  // To the left of a curve that turns left it is shorter, by the distance for every radian.
  const neutral = stations.map(({ length, turned }) => length - away * turned);
  const lengths = stations.map(({ length }) => length);
  const lengthMm = neutral.at(-1) as number;
  return {
    lengthMm,
    strip: polygonPath([{ x: 0, y: 0 }, { x: lengthMm, y: 0 }, { x: lengthMm, y: widthMm }, { x: 0, y: widthMm }]), // biome-ignore format: one line
    toStrip: (length) => between(lengths, neutral, length),
    toCurve: (length) => between(neutral, lengths, length),
  };
}

/** Lengths along a curve, and how far it has turned by then, closely enough that turning is even in between. */
function stationsOf(curve: Path): { length: number; turned: number }[] {
  const list = [{ length: 0, turned: 0 }];
  let before: Point | null = null;
  for (const { from, segment } of stepsOf(curve)) {
    const last = list.at(-1) as { length: number; turned: number };
    const start = directionOn(from, segment, 0);
    // A corner turns at one place.
    const corner = before ? turnBetween(before, start) : 0;
    if (Math.abs(corner) > 1e-9) list.push({ length: last.length, turned: last.turned + corner });
    const { length, turned } = list.at(-1) as { length: number; turned: number };
    const count = segment.kind === 'line' ? 1 : segment.kind === 'arc' ? 1 : 64;
    let [bent, direction] = [0, start];
    for (let j = 1; j <= count; j++) {
      const next = directionOn(from, segment, j / count);
      bent += segment.kind === 'arc' ? segment.sweep : turnBetween(direction, next);
      direction = next;
      list.push({ length: length + partLength(from, segment, j / count), turned: turned + bent });
    }
    before = direction;
  }
  return list;
}

const partLength = (from: Point, segment: Segment, t: number): number =>
  t >= 1 ? segmentLength(from, segment) : segmentLength(from, splitSegment(from, segment, t)[0]);

function between(keys: readonly number[], values: readonly number[], key: number): number {
  let [low, high] = [0, keys.length - 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if ((keys[middle] as number) <= key) low = middle;
    else high = middle;
  }
  const [a, b] = [keys[low] as number, keys[high] as number];
  const share = b - a < 1e-12 ? 0 : Math.min(1, Math.max(0, (key - a) / (b - a)));
  return (values[low] as number) + share * ((values[high] as number) - (values[low] as number));
}

/** How far along a curve the place nearest to a point lies, and how far beside it the point is. */
export function stationOf(curve: Path, p: Point): { readonly along: number; readonly off: number } {
  let [gone, best] = [0, { along: 0, off: Infinity }];
  for (const { from, segment } of stepsOf(curve)) {
    const near = nearestOnSegment(from, segment, p);
    if (near.distance < best.off) best = { along: gone + (near.t <= 0 ? 0 : partLength(from, segment, near.t)), off: near.distance };
    gone += segmentLength(from, segment);
  }
  return best;
}

/** Holes and marks drawn on a curve, carried to its strip: each by its middle, at half the strip's width. */
export function carriedToStrip(curve: Path, flat: FlatStrip, marks: readonly Path[], height: number): Path[] {
  return marks.map((mark) => {
    const middle = centreOf(pathBox(mark));
    return transformedPath(mark, shift(flat.toStrip(stationOf(curve, middle).along) - middle.x, height - middle.y));
  });
}

/** Whether something is drawn on a curve: the curve runs through the middle third of its box. */
export function liesOn(curve: Path, path: Path): boolean {
  const box = pathBox(path);
  const size = Math.max(1, Math.min(widthOf(box), heightOf(box)) / 3);
  return stationOf(curve, centreOf(box)).off < size / 2;
}

/** A curve's strip with its lower left corner at a place, and all that lies on the curve carried to it. */
export function stripOf(curve: Path, settings: FlatSettings, others: readonly Path[], at: Point): Path[] {
  const flat = layFlat(curve, settings);
  const marks = carriedToStrip(curve, flat, others.filter((path) => liesOn(curve, path)), settings.widthMm / 2); // biome-ignore format: one line
  return [flat.strip, ...marks].map((path) => transformedPath(path, shift(at.x, at.y)));
}

/** Where on the curve a place along the strip comes to lie once it is bent. */
export const onCurve = (curve: Path, flat: FlatStrip, alongStrip: number): Point => stationAt(curve, flat.toCurve(alongStrip)).at;
