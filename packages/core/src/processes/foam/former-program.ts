/** In: a former and how the wire cuts it. Out: the program that cuts it out of its block, and the block as a wire that stands in for a real one has it. */
import { FileRefused } from '../../files/file-kinds.ts';
import { type FoamSettings, type FormerWire, formerWire, type Slice, type TowerPlace, towerPath } from '../../foam/index.ts';
import { towerAxes, writeWireProgram } from '../../formats/index.ts';
import { printMm } from '../../length/index.ts';
import { english, say } from '../../messages/index.ts';
import { distance, heightOf, nearestOnPath, type Path, type Point, pathArea, pathBox, polygonOf, reversedPath, widthOf } from '../../plane/index.ts'; // biome-ignore format: one line
import type { Work } from '../process.ts';
import type { StandInBlock } from '../stand-in.ts';

export const formerAxes = 'UV';

/** How far a former lies from the edges of its block, mm, and how long the wire warms up, s. */
const blockMarginMm = 20;
const warmUpS = 4;

export interface FormerProgram {
  readonly way: FormerWire;
  readonly towers: readonly TowerPlace[];
  readonly text: string;
}

/** @throws FileRefused where the former is too small for the wire */
export function formerProgram(slice: Slice, { title, settings }: Pick<Work<FoamSettings>, 'title' | 'settings'>): FormerProgram {
  const way = formerWire(slice, { burnMm: settings.wireBurnMm, marginMm: blockMarginMm });
  if (!way) throw new FileRefused(say.foam.noWire(slice.number));
  const places = way.places.map((at, k) => ({ root: at, tip: at, minutes: k === 0 ? 0 : distance(way.places[k - 1] as Point, at) / settings.wireFeedMmPerMin })); // biome-ignore format: one line
  const towers = towerPath(places, { ...betweenTowers(slice, settings), isTipLeft: false });
  return { way, towers, text: writeWireProgram(towers, { title: english.foam.wireOf(title, slice.number), axes: formerAxes, warmUpS }) };
}

/** A former stands in the middle between the towers. */
function betweenTowers({ thicknessMm }: Slice, { towersMm }: FoamSettings) {
  const spanMm = Math.min(thicknessMm, towersMm);
  return { betweenMm: towersMm, toFoamMm: (towersMm - spanMm) / 2, spanMm };
}

/** The block that a former is cut from, and the places that should be left of it. */
export function formerBlock(slice: Slice, { way }: FormerProgram, settings: FoamSettings): StandInBlock {
  const { betweenMm, toFoamMm, spanMm } = betweenTowers(slice, settings);
  const box = pathBox(slice.outline);
  const places = placesLeft(slice, way, settings.wireBurnMm).map(({ x, y }): [number, number] => [x, y]);
  return {
    name: english.foam.block(slice.number, printMm(slice.thicknessMm), Math.ceil(widthOf(box) + 2 * blockMarginMm), Math.ceil(heightOf(box) + 2 * blockMarginMm)), // biome-ignore format: one line
    setUp: {
      betweenMm,
      toBlockMm: toFoamMm,
      spanMm,
      axes: [...towerAxes[formerAxes]],
      burnMm: settings.wireBurnMm,
      burnMm2PerMin: 0,
      // Both faces are alike: no tower goes faster than the wire.
      fastestMmPerMin: settings.wireFeedMmPerMin,
    },
    faces: { left: places, right: places },
  };
}

const chordMm = 0.02;
/** Of a loop no more places are measured. */
const mostPlaces = 500;
/** A bend inwards by more than this is a corner, which a wire leaves round, radians. */
const cornerTurn = 0.35;

/** Places in the middle of chords along all loops, away from slits, which open them, and from inner corners. */
function placesLeft({ outline, holes }: Slice, { slits }: FormerWire, burnMm: number): Point[] {
  const openings = slits.map(([a, b]): Path => ({ start: a, segments: [{ kind: 'line', to: b }], closed: false }));
  // What is cut lies at the right hand, along the outline and along holes alike.
  const loops = [turnedTo(1, outline), ...holes.map((hole) => turnedTo(-1, hole))].map((path) => polygonOf(path, chordMm));
  return loops.flatMap((points) => {
    const corners = points.filter((p, k) => turnAt(points.at(k - 1) as Point, p, points[(k + 1) % points.length] as Point) < -cornerTurn);
    const stride = Math.ceil(points.length / mostPlaces);
    return points
      .map((p, k) => middleOf(p, points[(k + 1) % points.length] as Point))
      .filter((p, k) => k % stride === 0 && corners.every((c) => distance(c, p) > burnMm) && openings.every((slit) => nearestOnPath(slit, p).distance > 1.5 * burnMm)); // biome-ignore format: one line
  });
}

const turnedTo = (sign: 1 | -1, path: Path): Path => (sign * pathArea(path) > 0 ? path : reversedPath(path));
const middleOf = (a: Point, b: Point): Point => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });
const turnAt = (a: Point, p: Point, b: Point): number => Math.atan2((p.x - a.x) * (b.y - p.y) - (p.y - a.y) * (b.x - p.x), (p.x - a.x) * (b.x - p.x) + (p.y - a.y) * (b.y - p.y)); // biome-ignore format: one line
