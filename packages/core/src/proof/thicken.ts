/**
 * In: a piece with webs that are too thin. Out: the same piece, thick enough there and untouched elsewhere.
 * Along its middle a web is given the width that it must have: from its narrowest place the middle between its two sides is
 * followed both ways (a branch of the medial axis, Blum 1967) to where the piece is thick enough by itself, and a band about
 * that line is united with the piece, so that its ends lie within what was there.
 */
import { pathsOf } from '../job/piece-paths.ts';
import {
  circlePath,
  distance,
  isInBox,
  nearestOnPath,
  nearestOnSegment,
  type Path,
  type Point,
  pathBox,
  type Step,
  stepsOf,
} from '../plane/index.ts';
import { combined, nearnessTo, nested, overlapsUnited, pathThrough, strokeOutline, windingNumber } from '../shape/index.ts';
import { middleOfPair, type Narrow, narrowPlaces } from './narrow.ts';

interface Outlines {
  readonly outer: Path;
  readonly holes: readonly Path[];
}

/** Made thicker, a web is wider than it must be by this much, so that it passes, mm. */
const spareMm = 0.01;
/** What is thickened may bring two sides near to each other that were not: so many times it is looked at again. */
const maxRounds = 6;
/** A piece with more thin webs than this wants another stock, or another size. */
const maxWebs = 100;

/** Null where it does not become one piece without thin webs. */
export function madeThicker({ outer, holes }: Outlines, thinnestMm: number): Outlines | null {
  let now: Outlines = { outer, holes };
  for (let round = 0; round <= maxRounds; round++) {
    const paths = pathsOf(now);
    const webs = narrowPlaces(paths, thinnestMm).filter((n) => n.isWeb);
    if (webs.length === 0) return round > 0 ? now : null;
    if (webs.length > maxWebs) return null;
    const bands = overlapsUnited(bandsAlong(paths, webs, thinnestMm).map(pathsOf));
    const [made, ...more] = nested(combined(paths, bands, 'unite'));
    if (!made || more.length > 0 || made.holes.length < now.holes.length) return null;
    now = made;
  }
  return null;
}

/** Bands about webs, the thinnest first; the one about a web often serves its neighbours. */
function bandsAlong(paths: readonly Path[], webs: readonly Narrow[], thinnestMm: number): Outlines[] {
  const bands: Outlines[] = [];
  const isServed = (p: Point): boolean =>
    bands.some((band) => {
      if (!isInBox(pathBox(band.outer), p, thinnestMm)) return false;
      const outlines = pathsOf(band);
      return windingNumber(outlines, p) !== 0 || outlines.some((path) => nearestOnPath(path, p).distance < thinnestMm);
    });
  for (const web of webs) if (!isServed(middleOfPair(web))) bands.push(...bandAlong(paths, web, thinnestMm));
  return bands;
}

/** A band of the least width along the middle of a web. */
function bandAlong(paths: readonly Path[], web: Narrow, thinnestMm: number): Outlines[] {
  const { points, isRound } = middleOf(paths, web, thinnestMm);
  const width = thinnestMm + 2 * spareMm;
  const line = points.length > 1 ? pathThrough(points.map((at) => ({ at, corner: false })), isRound) : null; // biome-ignore format: one line
  return line ? strokeOutline(line, width, 'round') : [{ outer: circlePath(points[0] as Point, width / 2), holes: [] }];
}

/** The foot on one side of a web from a place in it: a segment of a path and a place there. */
interface Foot {
  readonly steps: readonly Step[];
  readonly closed: boolean;
  readonly index: number;
  readonly at: Point;
}

/** The middle is followed in steps of this share of the least width, and no farther than so many of them. */
const stepShare = 0.4;
const maxSteps = 2000;

function middleOf(paths: readonly Path[], web: Narrow, thinnestMm: number): { points: Point[]; isRound: boolean } {
  const { a, b, widthMm } = web;
  const middle = middleOfPair(web);
  const isNear = nearnessTo(paths);
  const [footA, footB] = [footOn(paths, a), footOn(paths, b)];
  const along = { x: -(b.y - a.y) / widthMm, y: (b.x - a.x) / widthMm };
  const follow = (sign: 1 | -1): { points: Point[]; isRound: boolean } => {
    const points: Point[] = [];
    let [p, one, two, d] = [middle, footA, footB, { x: sign * along.x, y: sign * along.y }];
    const step = stepShare * thinnestMm;
    for (let k = 0; k < maxSteps; k++) {
      const next = between({ x: p.x + step * d.x, y: p.y + step * d.y }, one, two);
      if (!next) break;
      const radius = distance(next.at, next.one.at);
      // Where other sides are nearer the web has run into something else.
      if (isNear(next.at, 0.99 * radius)) break;
      if (k > 2 && distance(next.at, middle) < step) return { points, isRound: true };
      points.push(next.at);
      if (radius >= thinnestMm / 2) break;
      const size = distance(p, next.at);
      if (!(size > 0.1 * step)) break;
      d = { x: (next.at.x - p.x) / size, y: (next.at.y - p.y) / size };
      [p, one, two] = [next.at, next.one, next.two];
    }
    return { points, isRound: false };
  };
  const [on, back] = [follow(1), follow(-1)];
  return on.isRound ? { points: [middle, ...on.points], isRound: true } : { points: [...back.points.reverse(), middle, ...on.points], isRound: false }; // biome-ignore format: one line
}

/** The place beside another that lies as far from one side as from the other; null where both come together. */
function between(start: Point, from: Foot, to: Foot): { at: Point; one: Foot; two: Foot } | null {
  let [at, one, two] = [start, from, to];
  for (let round = 0; round < 12; round++) {
    [one, two] = [footFrom(one, at), footFrom(two, at)];
    const apart = distance(one.at, two.at);
    if (apart < 1e-3) return null;
    const off = (distance(at, two.at) - distance(at, one.at)) / 2;
    if (Math.abs(off) < 1e-7) break;
    at = { x: at.x + (off * (two.at.x - one.at.x)) / apart, y: at.y + (off * (two.at.y - one.at.y)) / apart };
  }
  return { at, one, two };
}

function footOn(paths: readonly Path[], at: Point): Foot {
  const near = paths.filter((path) => isInBox(pathBox(path), at, 1e-3));
  const [first, ...others] = (near.length > 0 ? near : paths).map((path) => ({ path, near: nearestOnPath(path, at) }));
  const { path, near: { index, point } } = others.reduce((best, one) => (one.near.distance < best.near.distance ? one : best), first as NonNullable<typeof first>); // biome-ignore format: one line
  return { steps: stepsOf(path), closed: path.closed, index, at: point };
}

/** The foot from another place near by: walked along its side, from segment to segment, while that comes nearer. */
function footFrom({ steps, closed, index }: Foot, p: Point): Foot {
  const on = (k: number) => {
    const { from, segment } = steps[k] as Step;
    return nearestOnSegment(from, segment, p);
  };
  let [k, best] = [index, on(index)];
  for (let moves = 0; moves < steps.length; moves++) {
    const beside = [k - 1, k + 1].map((j) => (closed ? (j + steps.length) % steps.length : j)).filter((j) => j >= 0 && j < steps.length);
    const nearer = beside.map((j) => ({ j, near: on(j) })).find(({ near }) => near.distance < best.distance - 1e-12);
    if (!nearer) break;
    [k, best] = [nearer.j, nearer.near];
  }
  return { steps, closed, index: k, at: best.point };
}
