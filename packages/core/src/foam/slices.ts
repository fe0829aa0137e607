/**
 * In: a body, the boards that it is cut from, and how it is hollowed. Out: its slices: where each lies, the outline that it is cut to, and what is
 * taken out of it.
 * The shell is as thick as asked square to the skin, not only in the plane of a slice: a ball of that radius about any place of the hollow has
 * to lie in the body, so the hollow is what all sections near by leave when each is moved in by what the ball has left there.
 */
import { SaidError, say } from '../messages/index.ts';
import { circlePath, isInside, largestPath, middleOf, type Path, type Point, pathArea, polygonPath, reversedPath } from '../plane/index.ts';
import { combined, nested, offsetClosed, pathCrossings } from '../shape/index.ts';
import type { Body } from './body.ts';
import { type BodySection, reaches, sectionOutline } from './body-section.ts';
import { type Cutout, cutoutIn } from './cutouts.ts';
import { drawnFaces, drawnHollow } from './drawn-sections.ts';
import { type Slot, withSlots } from './slots.ts';

export interface Board {
  /** As measured, its film peeled off. */
  readonly thicknessMm: number;
  /** How many of them are laminated to one, glue between; one where it does not say. */
  readonly layers?: number | undefined;
  /** How many in a row; null is until the body ends. */
  readonly count: number | null;
}

export interface SliceSettings {
  readonly boards: readonly Board[];
  /** Between boards. */
  readonly glueMm: number;
  /** From one former of a covered frame to the next, with nothing between; null where boards lie face to face. */
  readonly spacingMm?: number | null;
  /** What covers the frame: formers are smaller by it, square to the skin. */
  readonly skinMm?: number;
  /** What stays around a lightening hole; null for none. */
  readonly webMm?: number | null;
  readonly slots?: readonly Slot[];
  readonly cutouts?: readonly Cutout[];
  /** Of the two faces of a slice, which outline it is cut to: with both, the smaller one is marked. */
  readonly cutTo: 'larger' | 'smaller' | 'both';
  /** Left on for sanding. */
  readonly sandingMm: number;
  /** Null for a solid body. */
  readonly shellMm: number | null;
  /** Holes in line through all slices: across and up from the body's lowest place, mm. */
  readonly dowels: readonly { readonly across: number; readonly up: number; readonly diameterMm: number }[];
}

export interface Slice {
  /** From the nose, from 1. */
  readonly number: number;
  readonly from: number;
  readonly to: number;
  readonly thicknessMm: number;
  /** Which of the boards it is cut from, by its place among them. */
  readonly board: number;
  readonly outline: Path;
  /** The smaller face, where it is marked. */
  readonly marked: Path | null;
  readonly isHollow: boolean;
  /** How many of the slots do not meet it. */
  readonly missedSlots: number;
  /** What is taken out of it: its hollow, dowel holes. */
  readonly holes: readonly Path[];
  /** The largest step that is left to sand off, mm. */
  readonly stepMm: number;
}

export class SliceError extends SaidError {
  readonly code = 'no-slices';
}

/** No body is cut into more slices. */
export const mostSlices = 400;
/** Directions in which sections are compared and cut with one another. */
const directions = 240;
const cosines = Float64Array.from({ length: directions }, (_, k) => Math.cos((2 * Math.PI * k) / directions));
const sines = Float64Array.from({ length: directions }, (_, k) => Math.sin((2 * Math.PI * k) / directions));
/** A slice thinner than this is no slice, mm. */
const thinnestMm = 0.2;

/** Yields the share done. @throws SliceError where there are no boards, or far too many slices */
export function* slicesOf(body: Body, settings: SliceSettings): Generator<number, Slice[]> {
  const stations = stationsOf(body, settings);
  const slices: Slice[] = [];
  for (const [from, to, board] of stations) {
    const sections = Array.from({ length: sectionsWithin }, (_, k) => body.section(from + ((to - from) * k) / (sectionsWithin - 1))).flatMap((one) => one ?? []); // biome-ignore format: one line
    if (sections.length === 0) continue;
    const { larger, smaller, stepMm } = facesOf(sections);
    const { skinMm = 0, webMm = null } = settings;
    const own = skinMm > 0 ? hollowOf(body, from, to, skinMm) : settings.cutTo === 'smaller' ? smaller : larger;
    if (!own) continue;
    const whole = settings.sandingMm > 0 ? (offsetClosed(own, -settings.sandingMm)[0] ?? own) : own;
    const open = (settings.cutouts ?? []).reduce((rest, one) => cutoutIn(rest, one, from, to), whole);
    const { outline, missed } = withSlots(open, settings.slots ?? [], body);
    const hollow = settings.shellMm === null ? (webMm === null ? null : lighteningHole(outline, webMm)) : hollowOf(body, from, to, settings.shellMm); // biome-ignore format: one line
    slices.push({
      number: slices.length + 1,
      from,
      to,
      thicknessMm: to - from,
      board,
      marked: settings.cutTo === 'both' && skinMm === 0 ? smaller : null,
      missedSlots: missed,
      isHollow: hollow !== null,
      ...partsWith(outline, hollow, settings.dowels),
      stepMm,
    });
    yield slices.length / stations.length;
  }
  return slices;
}

/** Where each slice begins and ends, and of which board it is; the last one is trimmed. */
function stationsOf(body: Body, { boards, glueMm, spacingMm = null }: SliceSettings): [from: number, to: number, board: number][] {
  const stations: [number, number, number][] = [];
  let at = 0;
  for (const [board, { thicknessMm: layerMm, layers = 1, count }] of boards.entries()) {
    const thicknessMm = layers * layerMm + (layers - 1) * glueMm;
    for (let k = 0; k < (count ?? Infinity) && at < body.lengthMm - thinnestMm; k++) {
      if (stations.length >= mostSlices) throw new SliceError(say.foam.tooManySlices(mostSlices));
      stations.push([at, Math.min(at + thicknessMm, body.lengthMm), board]);
      at += Math.max(spacingMm ?? 0, thicknessMm + (spacingMm === null ? glueMm : 0));
    }
  }
  if (stations.length === 0) throw new SliceError(say.foam.noBoards());
  return stations;
}

/**
 * What a slice's sections reach in all, and what they all have: the outline of one of them, where it reaches as far as any, or no farther;
 * else a polygon about them all, or within them all.
 */
function facesOf(sections: readonly BodySection[]): { larger: Path | null; smaller: Path | null; stepMm: number } {
  const drawn = sections.some(({ profile }) => profile) ? drawnFaces(sections) : null;
  if (drawn) return drawn;
  const each = sections.map((section) => reaches(section, directions));
  const [most, least] = [new Float64Array(each[0] as Float64Array), new Float64Array(each[0] as Float64Array)];
  for (const own of each)
    for (let k = 0; k < directions; k++) {
      most[k] = Math.max(most[k] as number, own[k] as number);
      least[k] = Math.min(least[k] as number, own[k] as number);
    }
  const as = (wanted: Float64Array): Path | null => {
    const own = each.findIndex((one) => one.every((r, k) => Math.abs(r - (wanted[k] as number)) < sameMm));
    return own < 0 ? within(wanted) : sectionOutline(sections[own] as BodySection);
  };
  return { larger: as(most), smaller: as(least), stepMm: most.reduce((step, r, k) => Math.max(step, r - (least[k] as number)), 0) };
}
const sameMm = 1e-6;

/**
 * What lies within a distance in every direction: a polygon with a side for each that counts; null for nothing. Half-planes by angle, those
 * that others cut off taken from either end of the queue (de Berg et al. 2008, chapter 4).
 */
function within(reaches: Float64Array): Path | null {
  const side = (k: number): { c: number; s: number; r: number } => ({
    c: cosines[k] as number,
    s: sines[k] as number,
    r: reaches[k] as number,
  });
  const meets = (a: ReturnType<typeof side>, b: ReturnType<typeof side>): Point => {
    const turn = a.c * b.s - a.s * b.c;
    return { x: (a.r * b.s - b.r * a.s) / turn, y: (a.c * b.r - b.c * a.r) / turn };
  };
  const isOver = ({ x, y }: Point, { c, s, r }: ReturnType<typeof side>): boolean => x * c + y * s > r + 1e-9;
  const sides: ReturnType<typeof side>[] = [];
  const corners: Point[] = [];
  for (let k = 0; k < directions; k++) {
    const next = side(k);
    while (corners.length > 0 && isOver(corners.at(-1) as Point, next)) {
      corners.pop();
      sides.pop();
    }
    while (corners.length > 0 && isOver(corners[0] as Point, next)) {
      corners.shift();
      sides.shift();
    }
    const last = sides.at(-1);
    if (last) corners.push(meets(last, next));
    sides.push(next);
  }
  while (corners.length > 0 && isOver(corners.at(-1) as Point, sides[0] as ReturnType<typeof side>)) {
    corners.pop();
    sides.pop();
  }
  while (corners.length > 0 && isOver(corners[0] as Point, sides.at(-1) as ReturnType<typeof side>)) {
    corners.shift();
    sides.shift();
  }
  if (sides.length < 3) return null;
  const all = [...corners, meets(sides.at(-1) as ReturnType<typeof side>, sides[0] as ReturnType<typeof side>)];
  // Where they have nothing in common no place lies within all of them, nor does the middle of these.
  const { x, y } = middleOf(all);
  return reaches.every((r, k) => x * (cosines[k] as number) + y * (sines[k] as number) <= r + 1e-6) ? polygonPath(all) : null;
}

/** Sections that are looked at within a slice, and on either side of it as far as the shell is thick. */
const sectionsWithin = 9;
const sectionsBeyond = 10;
/** A hollow smaller than this is none, mm². */
const leastHollowMm2 = 100;

function hollowOf(body: Body, from: number, to: number, shellMm: number): Path | null {
  const beyond = Array.from({ length: sectionsBeyond }, (_, k) => (shellMm * (k + 1)) / sectionsBeyond);
  const places = [
    ...Array.from({ length: sectionsWithin }, (_, k) => ({ x: from + ((to - from) * k) / (sectionsWithin - 1), d: 0 })),
    ...beyond.flatMap((d) => [{ x: from - d, d }, { x: to + d, d }]), // biome-ignore format: both sides
  ];
  const least = new Float64Array(directions).fill(Infinity);
  let size = 0;
  const drawn: { section: BodySection; awayMm: number }[] = [];
  for (const { x, d } of places) {
    const left = Math.sqrt(Math.max(0, shellMm * shellMm - d * d));
    const section = body.section(x);
    // Beyond an end of the body there is nothing for the ball to lie in.
    if (!section) {
      if (left > 0) return null;
      continue;
    }
    if (section.profile) {
      drawn.push({ section, awayMm: left + betweenSectionsMm });
      continue;
    }
    size = Math.max(size, section.halfWidth, section.top - section.bottom);
    const own = reaches(section, directions);
    for (let k = 0; k < directions; k++) least[k] = Math.min(least[k] as number, (own[k] as number) - left);
  }
  if (drawn.length > 0) {
    const hollow = drawnHollow(drawn);
    return hollow && pathArea(hollow) >= leastHollowMm2 ? hollow : null;
  }
  // Between directions the corners of the polygon stand out; between sections the body may be a little narrower.
  const slack = size * (1 - Math.cos(Math.PI / directions)) + betweenSectionsMm;
  const hollow = within(least.map((r) => r - slack));
  return hollow && pathArea(hollow) >= leastHollowMm2 ? hollow : null;
}
const betweenSectionsMm = 0.02;

/** A former with what is taken out of it. A slot may open into its hollow: then both are one, and the former is what stays about them. */
function partsWith(outline: Path, hollow: Path | null, dowels: SliceSettings['dowels']): Pick<Slice, 'outline' | 'holes'> {
  const own = hollow ? [hollow] : [];
  const drilled = dowels.flatMap(({ across, up, diameterMm }) => {
    const hole = circlePath({ x: across, y: up }, diameterMm / 2);
    const isIn = [0, 1, 2, 3].every((k) => isInside(outline, { x: across + (diameterMm / 2) * Math.cos((k * Math.PI) / 2), y: up + (diameterMm / 2) * Math.sin((k * Math.PI) / 2) })); // biome-ignore format: one line
    return isIn ? [hole] : [];
  });
  const taken = drilled.length === 0 ? own : own.length === 0 ? drilled : combined(own, drilled, 'unite');
  if (hollow === null || pathCrossings([outline], taken).onA.length === 0) return { outline, holes: taken };
  const [largest] = nested(combined([outline], taken, 'take-away'));
  return largest ? { outline: largest.outer, holes: largest.holes.map(reversedPath) } : { outline, holes: [] };
}

/** What is left out of the middle of a former, a web of so much around it. */
function lighteningHole(outline: Path, webMm: number): Path | null {
  const hole = largestPath(offsetClosed(outline, webMm));
  return hole && pathArea(hole) >= leastHollowMm2 ? hole : null;
}

/** Foam in a slice, mm³. */
export const foamIn = ({ outline, holes, thicknessMm }: Slice): number => thicknessMm * (pathArea(outline) - holes.reduce((sum, hole) => sum + Math.abs(pathArea(hole)), 0)); // biome-ignore format: one line
