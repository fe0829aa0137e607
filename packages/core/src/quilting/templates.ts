/**
 * In: the shapes of a block's patches and the seam allowance. Out: a template each: the line that is sewn along, the line that is cut
 * along, and the marks that meet a neighbour's.
 * Corners are trimmed so that neighbours match: laid right sides together along their seam, both allowances end in one line. The neighbour
 * with the wider angle decides, mirrored across the seam (common practice).
 */
import { SaidError, say } from '../messages/index.ts';
import {
  add,
  between,
  crossing,
  directionOn,
  distance,
  dot,
  type Path,
  type Point,
  pathArea,
  pathLength,
  reversedPath,
  type Segment,
  type Step,
  stepsOf,
  subtract,
  transformedPath,
  turnBetween,
} from '../plane/index.ts';
import { offsetClosed, type PlanarMap, stationAt } from '../shape/index.ts';
import { plainOffset, rawOffset } from '../shape/raw-offset.ts';
import type { Block } from './block.ts';
import { cornerSteps, isCurved, sidePaths, sideSteps } from './outline-sides.ts';
import type { Patch, PatchShape } from './patches.ts';

export interface Template {
  readonly shape: PatchShape;
  readonly sewing: Path;
  readonly cutting: Path;
  /** Ticks across the allowance, at equal lengths along both sides of a curved seam. */
  readonly notches: readonly Path[];
  /** What is left outside of each side, mm. */
  readonly sideAllowances: readonly number[];
  /** Where seams end. */
  readonly matchPoints: readonly Point[];
  /** How many of its corners are trimmed for a neighbour. */
  readonly trimmedCorners: number;
  /** Of how many patches it is, and of how many turned over. */
  readonly count: number;
  readonly reversed: number;
}

export class TemplateError extends SaidError {
  readonly code = 'no-template';
}

/** Mitres that reach out farther than so many allowances are cut square. */
const mitreLimit = 4;
/** A neighbour's corner this nearly straight trims nothing, degrees. */
const straightAngle = 178;
/** Angles nearer than this are the same, degrees. */
const sameAngle = 0.5;
/** Between notches of a curved seam, mm at most. */
const notchEveryMm = 60;

const degrees = (radians: number): number => (radians * 180) / Math.PI;

/** The seam allowance, and that of single sides: by `A 2`, the template and the number of its side. */
export interface Allowances {
  readonly allowanceMm: number;
  readonly edgeAllowances: Readonly<Record<string, number>>;
}

/** How a side of a template is called, the first from its first corner. */
export const sideName = (template: string, side: number): string => `${template} ${side + 1}`;

/** @throws TemplateError where a patch is so narrow that its allowance is wider than itself */
export function templatesOf(block: Block, shapes: readonly PatchShape[], { allowanceMm, edgeAllowances }: Allowances): Template[] {
  return shapes.map((shape) => {
    const sides = sideSteps(shape.outline);
    const sideAllowances = sides.map((_, side) => edgeAllowances[sideName(shape.name, side)] ?? allowanceMm);
    const widest = Math.max(...sideAllowances);
    if (widest > 0 && offsetClosed(shape.outline, widest / 2).length === 0)
      throw new TemplateError(say.quilting.allowanceTooWide(shape.name, { mm: widest }));
    const bySide: number[] = [];
    sides.forEach((own, side) => {
      for (const step of own) bySide[step] = sideAllowances[side] as number;
    });
    const { path, trimmed } = withAllowance(shape.outline, { bySide, across: allowanceMm }, trimsOf(block.map, shape));
    const reversed = shape.patches.filter(({ isReversed }) => isReversed).length;
    return {
      shape,
      sewing: shape.outline,
      cutting: path,
      sideAllowances,
      notches: notchesOf(shape.outline, sideAllowances),
      matchPoints: cornersOf(shape.outline).map(({ at }) => at),
      trimmedCorners: trimmed,
      count: shape.patches.length,
      reversed: shape.isSymmetric ? 0 : reversed,
    };
  });
}

/**
 * Templates of appliqué: the background with its seam allowance, shapes with what is turned under; with nothing to turn under they are fused,
 * and traced turned over on to what fuses them.
 */
export function appliqueTemplates(
  shapes: readonly PatchShape[],
  { allowanceMm, turnUnderMm }: { readonly allowanceMm: number; readonly turnUnderMm: number },
): Template[] {
  return shapes.map((shape): Template => {
    const isBackground = shape.patches.some(({ face }) => face === 0);
    const reversed = shape.patches.filter(({ isReversed }) => isReversed).length;
    const isFused = !isBackground && turnUnderMm === 0;
    const sewing = isFused ? turnedOver(shape.outline) : shape.outline;
    const settings = isBackground ? { ...plainOffset, corners: 'mitre' as const } : plainOffset;
    const by = isBackground ? allowanceMm : turnUnderMm;
    const cutting = by > 0 ? largest(offsetClosed(sewing, -Math.sign(pathArea(sewing)) * by, settings)) : sewing;
    return { shape, sewing, cutting, sideAllowances: sideSteps(sewing).map(() => by), notches: [], matchPoints: [], trimmedCorners: 0, count: shape.patches.length, reversed: shape.isSymmetric ? 0 : reversed }; // biome-ignore format: one line
  });
}

const turnedOver = (path: Path): Path => reversedPath(transformedPath(path, { a: -1, b: 0, c: 0, d: 1, e: 0, f: 0 }));
const largest = (paths: readonly Path[]): Path => paths.reduce((a, b) => (Math.abs(pathArea(b)) > Math.abs(pathArea(a)) ? b : a));

interface Corner {
  readonly at: Point;
  /** Of the step that leaves it. */
  readonly step: number;
}

/** Where an outline turns; not where it only goes on as another curve. */
const cornersOf = (path: Path): Corner[] => {
  const steps = stepsOf(path);
  return cornerSteps(path).map((step) => ({ at: (steps[step] as Step).from, step }));
};

/** How wide a corner's two neighbours are there, radians; null where there is none. */
interface CornerTrim {
  /** Across the side that comes in, and across the one that goes out. */
  readonly across: readonly [number | null, number | null];
}

function trimsOf(map: PlanarMap, { outline, patches }: PatchShape): CornerTrim[] {
  const corners = cornersOf(outline);
  const count = corners.length;
  const each = patches.map((patch) => neighboursAt(map, patch));
  const trims = corners.map((_, k): CornerTrim => {
    const own = patches.map(({ isReversed, firstCorner }, p): readonly [number | null, number | null] => {
      const at = isReversed ? (firstCorner - k + 2 * count) % count : (firstCorner + k) % count;
      const [before, after] = each[p]?.[at] ?? [null, null];
      return isReversed ? [after, before] : [before, after];
    });
    // What all patches of the shape have in common: the least that is trimmed. One at the block's edge asks for nothing.
    const common = (side: 0 | 1): number | null => {
      const angles = own.flatMap((pair) => pair[side] ?? []);
      return angles.length > 0 ? Math.min(...angles) : null;
    };
    return { across: [common(0), common(1)] };
  });
  const ofStep = new Map(corners.map(({ step }, k) => [step, trims[k] as CornerTrim]));
  return stepsOf(outline).map((_, step) => ofStep.get(step) ?? { across: [null, null] });
}

/** At each corner of a patch the angles of the patches beside it, across the side before and the side after it. */
function neighboursAt(map: PlanarMap, { face, outline }: Patch): (readonly [number | null, number | null])[] {
  const sides = map.faces[face]?.sides ?? [];
  const startOf = ({ edge, isForward }: (typeof sides)[0]): number => (isForward ? map.edges[edge]?.from : map.edges[edge]?.to) as number;
  return cornersOf(outline).map(({ at }) => {
    const k = sides.findIndex((side) => distance(map.nodes[startOf(side)] as Point, at) < 1e-6);
    if (k < 0) return [null, null];
    const node = startOf(sides[k] as (typeof sides)[0]);
    const across = (side: (typeof sides)[0]): number | null => {
      const edge = map.edges[side.edge];
      const other = side.isForward ? edge?.right : edge?.left;
      return other === undefined || other < 0 ? null : angleAt(map, other, node);
    };
    return [across(sides.at(k - 1) as (typeof sides)[0]), across(sides[k] as (typeof sides)[0])];
  });
}

/** The inner angle of a face at one of its nodes, radians; null where it passes the node more than once. */
function angleAt(map: PlanarMap, face: number, node: number): number | null {
  const steps = stepsOf((map.faces[face] as PlanarMap['faces'][0]).outer);
  const at = steps.flatMap(({ from }, k) => (distance(from, map.nodes[node] as Point) < 1e-6 ? [k] : []));
  if (at.length !== 1) return null;
  const [k] = at as [number];
  const [before, after] = [steps.at(k - 1) as Step, steps[k] as Step];
  return Math.PI - turnBetween(directionOn(before.from, before.segment, 1), directionOn(after.from, after.segment, 0));
}

const turned = ({ x, y }: Point, by: number): Point => {
  const [c, s] = [Math.cos(by), Math.sin(by)];
  return { x: c * x - s * y, y: s * x + c * y };
};

/** What is left outside of each step of an outline, and outside of a neighbour's sides, mm. */
interface Widths {
  readonly bySide: readonly number[];
  readonly across: number;
}

/** The outline with its allowance, and how many corners a neighbour trims. */
function withAllowance(outline: Path, widths: Widths, trims: readonly CornerTrim[]): { path: Path; trimmed: number } {
  const { bySide } = widths;
  if (bySide.every((by) => by === 0)) return { path: outline, trimmed: 0 };
  const steps = stepsOf(outline);
  const offsets = steps.map(({ from, segment }, k) => rawOffset({ start: from, segments: [segment], closed: false }, -(bySide[k] as number), plainOffset)); // biome-ignore format: one line
  const tips = steps.map((step, k) => tipAt(steps.at(k - 1) as Step, step, { before: bySide.at(k - 1) as number, after: bySide[k] as number, across: widths.across }, trims[k] as CornerTrim)); // biome-ignore format: one line
  // A curve that is set off towards an inner corner would have to be cut at a crossing: the general offset does that, by the widest.
  if (tips.some((tip) => tip === null)) {
    const outer = offsetClosed(outline, -Math.max(...bySide), { ...plainOffset, corners: 'mitre', mitreLimit });
    return { path: largest(outer), trimmed: 0 };
  }
  const points = tips as NonNullable<(typeof tips)[0]>[];
  const segments = steps.flatMap(({ segment: { kind } }, k): Segment[] => {
    const next = points[(k + 1) % points.length] as (typeof points)[0];
    const side: readonly Segment[] = kind === 'line' ? [{ kind: 'line', to: next.places[0] as Point }] : (offsets[k] as Path).segments;
    return [...side, ...next.places.slice(kind === 'line' ? 1 : 0).map((to): Segment => ({ kind: 'line', to }))];
  });
  const start = (points[0]?.places.at(-1) ?? outline.start) as Point;
  return { path: withoutStill({ start, segments, closed: true }), trimmed: points.filter(({ isTrimmed }) => isTrimmed).length };
}

/** A path without segments of no length. */
function withoutStill(path: Path): Path {
  const steps = stepsOf(path).filter(({ from, segment }) => segment.kind !== 'line' || distance(from, segment.to) > 1e-9);
  return { ...path, start: steps[0]?.from ?? path.start, segments: steps.map(({ segment }) => segment) };
}

/**
 * The places that the cutting line goes through at a corner: its mitre, or what is left of it. Null where two offsets cross before
 * their corner and one of them is curved.
 */
function tipAt(
  before: Step,
  after: Step,
  by: { readonly before: number; readonly after: number; readonly across: number },
  { across }: CornerTrim,
): { places: Point[]; isTrimmed: boolean } | null {
  const v = after.from;
  const [d, e] = [directionOn(before.from, before.segment, 1), directionOn(after.from, after.segment, 0)];
  const [p, q] = [add(v, scaled(turned(d, -Math.PI / 2), by.before)), add(v, scaled(turned(e, -Math.PI / 2), by.after))];
  const bend = turnBetween(d, e);
  if (Math.abs(degrees(bend)) < sameAngle / 10) return { places: by.before === by.after ? [q] : [p, q], isTrimmed: false };
  const mitre = crossing(p, d, q, e) as Point;
  if (bend < 0) return before.segment.kind === 'line' && after.segment.kind === 'line' ? { places: [mitre], isTrimmed: false } : null;
  const own = Math.PI - bend;
  const limits = [
    { angle: across[0], normal: (wide: number) => turned(scaled(d, -1), -(wide + Math.PI / 2)) },
    { angle: across[1], normal: (wide: number) => turned(e, wide + Math.PI / 2) },
  ];
  let places = [p, mitre, q];
  const farthest = mitreLimit * Math.max(by.before, by.after);
  if (distance(v, mitre) > farthest) {
    const bisector = scaled(subtract(mitre, v), 1 / distance(v, mitre));
    places = clipped(places, v, bisector, farthest);
  }
  let isTrimmed = false;
  for (const { angle, normal } of limits) {
    if (angle === null || degrees(angle) > straightAngle || angle < own + (sameAngle * Math.PI) / 180) continue;
    const less = clipped(places, v, normal(angle), by.across);
    if (less.length > places.length) isTrimmed = true;
    places = less;
  }
  return { places: places.slice(before.segment.kind === 'line' ? 1 : 0, after.segment.kind === 'line' ? -1 : undefined), isTrimmed };
}

const scaled = ({ x, y }: Point, by: number): Point => ({ x: x * by, y: y * by });

/** An open chain of places without what lies farther than `by` from `v` in a direction. */
function clipped(chain: readonly Point[], v: Point, normal: Point, by: number): Point[] {
  const over = chain.map((p) => dot(normal, subtract(p, v)) - by);
  return chain.flatMap((p, k): Point[] => {
    const [own, next] = [over[k] as number, over[k + 1]];
    const kept = own <= 1e-9 ? [p] : [];
    if (next === undefined || own > 1e-9 === next > 1e-9) return kept;
    return [...kept, between(p, chain[k + 1] as Point, own / (own - next))];
  });
}

/** Ticks along the curved sides, from the sewing line out. */
const notchesOf = (outline: Path, sideAllowances: readonly number[]): Path[] =>
  sidePaths(outline).flatMap((side, k) => {
    if (!isCurved(side)) return [];
    const parts = Math.max(2, Math.ceil(pathLength(side) / notchEveryMm));
    return Array.from({ length: parts - 1 }, (_, j) => tickAt(side, (j + 1) / parts, sideAllowances[k] as number));
  });

function tickAt(side: Path, share: number, by: number): Path {
  const { at, direction } = stationAt(side, share * pathLength(side));
  return { start: at, segments: [{ kind: 'line', to: add(at, scaled(turned(direction, -Math.PI / 2), by)) }], closed: false };
}
