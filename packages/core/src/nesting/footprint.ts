/**
 * In: a part and how near others may come. Out: its footprint: polygons that hold the part with half the gap about it, and circles within them
 * that say how deep two footprints lie in one another where they do; turned, mirrored and moved to where it lies.
 * Rests on: the poles of inaccessibility, Garcia-Castellanos & Lombardo 2007, one after another as the largest circles that are still free.
 */
import { boxAroundBoxes, centreOf, type Path, pathBox, polygonOf } from '../plane/index.ts';
import { offsetPiece } from '../shape/index.ts';

/** About its middle; lengths in mm. */
export interface Footprint {
  /** Each ring closed by its first vertex; an edge goes from every one of `edges` to the vertex after it. */
  readonly xs: Float64Array;
  readonly ys: Float64Array;
  readonly edges: Int32Array;
  /** Circles within it. */
  readonly poleXs: Float64Array;
  readonly poleYs: Float64Array;
  readonly poleRadii: Float64Array;
  /** How far it reaches from its middle. */
  readonly reachMm: number;
  readonly areaMm2: number;
  /** Where its middle is as it is drawn. */
  readonly middleX: number;
  readonly middleY: number;
}

/** A footprint as it lies. */
export interface Posed {
  readonly of: Footprint;
  readonly xs: Float64Array;
  readonly ys: Float64Array;
  readonly poleXs: Float64Array;
  readonly poleYs: Float64Array;
  /** Where its middle lies. */
  x: number;
  y: number;
  minX: number;
  minY: number;
  maxX: number;
  maxY: number;
}

const mostPoles = 12;
const poleGrid = 36;
/** Circles cover at most this share of the area, and none is smaller than this share of the largest. */
const polesCover = 0.9;
const smallestPole = 0.12;
/** Beside what chords may leave curves, so that places may be rounded, mm. */
export const roundingMm = 0.002;

/**
 * @param growMm half the gap
 * @param chordMm how far chords may leave curves: footprints are larger by as much
 * @param holeMm narrower holes than this take nothing in
 */
export function footprintOf(
  part: { readonly outer: Path; readonly holes: readonly Path[] },
  growMm: number,
  chordMm: number,
  holeMm: number,
): Footprint {
  const grown = offsetPiece(part, growMm + chordMm + roundingMm);
  const outer = grown.map((piece) => piece.outer);
  const holes = grown
    .flatMap((piece) => piece.holes)
    .filter((hole) => {
      const { minX, maxX, minY, maxY } = pathBox(hole);
      return Math.min(maxX - minX, maxY - minY) > holeMm;
    });
  const { x: middleX, y: middleY } = centreOf(boxAroundBoxes([...outer, ...holes].map(pathBox)) ?? pathBox(part.outer));
  const rings = [...outer, ...holes].map((path) => polygonOf(path, chordMm).map(({ x, y }) => ({ x: x - middleX, y: y - middleY })));
  return { ...ofRings(rings), middleX, middleY };
}

/** @param rings about their middle */
export function ofRings(rings: readonly (readonly { readonly x: number; readonly y: number }[])[]): Footprint {
  const count = rings.reduce((sum, { length }) => sum + length + 1, 0);
  const [xs, ys] = [new Float64Array(count), new Float64Array(count)];
  const edges: number[] = [];
  let [at, reach, area] = [0, 0, 0];
  for (const ring of rings)
    for (let k = 0; k <= ring.length; k++, at++) {
      const { x, y } = ring[k % ring.length] as { x: number; y: number };
      [xs[at], ys[at]] = [x, y];
      if (k === ring.length) continue;
      edges.push(at);
      reach = Math.max(reach, Math.hypot(x, y));
      const to = ring[(k + 1) % ring.length] as { x: number; y: number };
      area += (x * to.y - to.x * y) / 2;
    }
  const polygon = { xs, ys, edges: Int32Array.from(edges) };
  const poles = polesOf(polygon, Math.abs(area));
  return { ...polygon, ...poles, reachMm: reach, areaMm2: Math.abs(area), middleX: 0, middleY: 0 };
}

type Polygon = Pick<Footprint, 'xs' | 'ys' | 'edges'>;

/** Whether a place is within, by the even-odd rule. */
export function isWithin({ xs, ys, edges }: Polygon, x: number, y: number): boolean {
  let within = false;
  for (let e = 0; e < edges.length; e++) {
    const k = edges[e] as number;
    const [y1, y2] = [ys[k] as number, ys[k + 1] as number];
    if (y1 > y === y2 > y) continue;
    const x1 = xs[k] as number;
    if (x < x1 + (((xs[k + 1] as number) - x1) * (y - y1)) / (y2 - y1)) within = !within;
  }
  return within;
}

function distanceFrom({ xs, ys, edges }: Polygon, x: number, y: number): number {
  let nearest = Infinity;
  for (let e = 0; e < edges.length; e++) {
    const k = edges[e] as number;
    const [x1, y1] = [xs[k] as number, ys[k] as number];
    const [ux, uy] = [(xs[k + 1] as number) - x1, (ys[k + 1] as number) - y1];
    const along = Math.min(1, Math.max(0, ((x - x1) * ux + (y - y1) * uy) / (ux * ux + uy * uy || 1)));
    const [dx, dy] = [x - x1 - along * ux, y - y1 - along * uy];
    nearest = Math.min(nearest, dx * dx + dy * dy);
  }
  return Math.sqrt(nearest);
}

/** The largest circles, each as far from the ones before as it may not reach into them by more than half. */
function polesOf(polygon: Polygon, areaMm2: number): Pick<Footprint, 'poleXs' | 'poleYs' | 'poleRadii'> {
  const { xs, ys } = polygon;
  const [minX, maxX] = [xs.reduce((a, b) => Math.min(a, b), Infinity), xs.reduce((a, b) => Math.max(a, b), -Infinity)];
  const [minY, maxY] = [ys.reduce((a, b) => Math.min(a, b), Infinity), ys.reduce((a, b) => Math.max(a, b), -Infinity)];
  const places: { x: number; y: number; r: number }[] = [];
  for (let i = 0; i < poleGrid; i++)
    for (let j = 0; j < poleGrid; j++) {
      const [x, y] = [minX + ((maxX - minX) * (i + 0.5)) / poleGrid, minY + ((maxY - minY) * (j + 0.5)) / poleGrid];
      if (isWithin(polygon, x, y)) places.push({ x, y, r: distanceFrom(polygon, x, y) });
    }
  const poles: { x: number; y: number; r: number }[] = [];
  for (let covered = 0; poles.length < mostPoles && covered < polesCover * areaMm2; ) {
    let [best, bestR] = [null as (typeof places)[0] | null, 0];
    for (const place of places) {
      const free = poles.reduce((least, pole) => Math.min(least, Math.hypot(pole.x - place.x, pole.y - place.y) - 0.6 * pole.r), place.r);
      if (free > bestR) [best, bestR] = [place, free];
    }
    if (!best || (poles[0] && bestR < smallestPole * poles[0].r)) break;
    poles.push(best);
    covered += Math.PI * bestR * bestR;
  }
  // A part too thin for the grid has one in the middle of its longest edge's side.
  if (poles.length === 0) poles.push({ x: (xs[0] as number) / 2, y: (ys[0] as number) / 2, r: 1e-3 });
  return {
    poleXs: Float64Array.from(poles, ({ x }) => x),
    poleYs: Float64Array.from(poles, ({ y }) => y),
    poleRadii: Float64Array.from(poles, ({ r }) => r),
  };
}

export const unposed = (of: Footprint): Posed => ({ of, xs: new Float64Array(of.xs.length), ys: new Float64Array(of.ys.length), poleXs: new Float64Array(of.poleXs.length), poleYs: new Float64Array(of.poleYs.length), x: 0, y: 0, minX: 0, minY: 0, maxX: 0, maxY: 0 }); // biome-ignore format: one line

/** Turns it, mirrored before where it is, and moves its middle to a place. @param turn radians */
export function pose(posed: Posed, turn: number, isMirrored: boolean, x: number, y: number): void {
  const { of, xs, ys, poleXs, poleYs } = posed;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const way = isMirrored ? -1 : 1;
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let k = 0; k < xs.length; k++) {
    const [u, v] = [way * (of.xs[k] as number), of.ys[k] as number];
    const [px, py] = [x + c * u - s * v, y + s * u + c * v];
    xs[k] = px;
    ys[k] = py;
    if (px < minX) minX = px;
    if (px > maxX) maxX = px;
    if (py < minY) minY = py;
    if (py > maxY) maxY = py;
  }
  for (let k = 0; k < poleXs.length; k++) {
    const [u, v] = [way * (of.poleXs[k] as number), of.poleYs[k] as number];
    poleXs[k] = x + c * u - s * v;
    poleYs[k] = y + s * u + c * v;
  }
  posed.x = x;
  posed.y = y;
  posed.minX = minX;
  posed.minY = minY;
  posed.maxX = maxX;
  posed.maxY = maxY;
}
