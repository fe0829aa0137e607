/**
 * In: an outline with holes, from which height to which, its draft, and how the edges of both faces are treated. Out: the body as a closed mesh.
 * It is built of levels: the outline moved in by so much at such a height, with walls between levels as far in and rings between others, all
 * over the same vertices, so that it is closed as it is made.
 */
import { type Path, type Point, polygonOf } from '../plane/index.ts';
import { offsetPiece } from '../shape/index.ts';
import { type EdgePlace, type EdgeTreatment, edgePlaces } from './edge-treatment.ts';
import type { Mesh } from './mesh.ts';
import { type Contour, RingError, ringTriangles } from './ring.ts';

export interface PrismRule {
  readonly fromMm: number;
  readonly toMm: number;
  /** How far the sides lean inwards on the way up; outwards where it is less than 0, radians. */
  readonly draft: number;
  readonly top: EdgeTreatment;
  readonly bottom: EdgeTreatment;
}

export interface Prism {
  readonly mesh: Mesh;
  /** As large as edges could be made; as asked where they fit. */
  readonly topMm: number;
  readonly bottomMm: number;
}

interface Outline {
  readonly outer: Path;
  readonly holes: readonly Path[];
}

interface Level {
  readonly z: number;
  readonly insetMm: number;
}

/** A leaning side is divided into so many rings at most, each no wider than this, mm: between two, sides that vanish are straight. */
const mostRings = 40;
const ringMm = 0.25;
/** Insets nearer than this are one, mm. */
const sameMm = 1e-6;
/** Contours leave their curves by this share of what chords may, and levels nearer than that share are one. */
const chordShare = 1 / 3;
const nearShare = 0.7;
/** How high a hair's upright is, mm. */
const uprightMm = 0.005;
/** Of what fits between two sides edges take at most this share, so that something of the face is left. */
const mostShare = 0.98;
/** Contours whose chords meet, as those of a neck that is about to vanish, are tried again farther in by what chords may leave curves, so often. */
const nudges = 5;

/** Null where nothing is left of it: its sides meet below its top, say, or it has no height; or where its outlines cross. */
export function prismOf(outline: Outline, rule: PrismRule, chordMm: number): Prism | null {
  const height = rule.toMm - rule.fromMm;
  if (!(height > 0)) return null;
  const lean = height * Math.tan(rule.draft);
  const contoursAt = insetContours(outline, chordShare * chordMm);
  const room = largestInset(contoursAt, sizeIn(rule.top) + sizeIn(rule.bottom) + Math.abs(lean));
  const topMm = fitting(rule.top, height, room - Math.max(0, lean));
  const bottomMm = fitting(rule.bottom, height - topMm, room);
  const levels = levelsOf(rule, { height, lean, topMm, bottomMm }, chordMm);
  try {
    const mesh = meshOf(levels, contoursAt, chordMm);
    return mesh && { mesh, topMm, bottomMm };
  } catch (error) {
    if (error instanceof RingError) return null;
    throw error;
  }
}

const sizeIn = (treatment: EdgeTreatment): number => (treatment.kind === 'sharp' ? 0 : treatment.sizeMm);
const fitting = (treatment: EdgeTreatment, height: number, room: number): number => Math.max(0, Math.min(sizeIn(treatment), height, mostShare * room)); // biome-ignore format: one line
const resized = (treatment: EdgeTreatment, sizeMm: number): EdgeTreatment => (treatment.kind === 'sharp' ? treatment : { ...treatment, sizeMm }); // biome-ignore format: one line

/** From the bottom up; the sides lean between the edges. */
function levelsOf(
  { fromMm, top, bottom }: PrismRule,
  { height, lean, topMm, bottomMm }: { height: number; lean: number; topMm: number; bottomMm: number },
  chordMm: number,
): Level[] {
  const leanAt = (h: number): number => (lean * h) / height;
  const below = edgePlaces(resized(bottom, bottomMm), chordMm).reverse();
  const above = edgePlaces(resized(top, topMm), chordMm);
  const [low, high] = [bottomMm, height - topMm];
  const rings = Math.abs(lean) < sameMm ? 1 : Math.min(mostRings, Math.max(1, Math.ceil(Math.abs(leanAt(high) - leanAt(low)) / ringMm)));
  const between = Array.from({ length: rings + 1 }, (_, k) => low + ((high - low) * k) / rings);
  const at = (h: number, insetMm: number): Level => ({ z: fromMm + h, insetMm: insetMm + leanAt(h) });
  const edge = (places: readonly EdgePlace[], heightOf: (depth: number) => number): Level[] => places.map(({ depthMm, insetMm }) => at(heightOf(depthMm), insetMm)); // biome-ignore format: one line
  const all = [...edge(below, (depth) => depth), ...between.map((h) => at(h, 0)), ...edge(above, (depth) => height - depth)];
  const apart = all.filter((level, k) => k === 0 || Math.abs(level.z - (all[k - 1] as Level).z) > sameMm || Math.abs(level.insetMm - (all[k - 1] as Level).insetMm) > sameMm); // biome-ignore format: one line
  return withUprights(apartEnough(apart, nearShare * chordMm), Math.min(uprightMm, height / 100));
}

/** Levels nearly as far in as the one below are as far in: the chords of their contours might cross. */
function apartEnough(levels: readonly Level[], nearMm: number): Level[] {
  return levels.reduce<Level[]>((all, level) => {
    const last = all.at(-1);
    all.push(last && Math.abs(last.insetMm - level.insetMm) < nearMm ? { ...level, insetMm: last.insetMm } : level);
    return all;
  }, []);
}

/**
 * Where two surfaces would lie on the same side of a contour, the one over the other, an upright as high as a hair parts them: they might have
 * an edge in common that is no part of it.
 */
function withUprights(levels: readonly Level[], hairMm: number): Level[] {
  return levels.flatMap((level, k): Level[] => {
    const [before, after] = [levels[k - 1], levels[k + 1]];
    // The caps lie within the first and the last contour.
    const from = before ? sideOf(before, level) : 1;
    const on = after ? sideOf(after, level) : 1;
    if (from === 0 || from !== on) return [level];
    const hasRoomBelow = before !== undefined && level.z - before.z > hairMm;
    return hasRoomBelow ? [{ ...level, z: level.z - hairMm }, level] : [level, { ...level, z: level.z + hairMm }];
  });
}

/** 1 for a level that lies within another's contour, -1 around it, 0 as far in. */
const sideOf = ({ insetMm }: Level, other: Level): number =>
  insetMm > other.insetMm + sameMm ? 1 : insetMm < other.insetMm - sameMm ? -1 : 0;

/** The contours of the outline moved in by so much, each worked out once; outer ones counter-clockwise, holes clockwise. */
function insetContours({ outer, holes }: Outline, chordMm: number): (insetMm: number) => readonly Contour[] {
  const known = new Map<string, readonly Contour[]>();
  return (insetMm) => {
    const key = insetMm.toFixed(7);
    let made = known.get(key);
    if (!made) {
      const pieces = Math.abs(insetMm) < sameMm ? [{ outer, holes }] : offsetPiece({ outer, holes }, -insetMm);
      made = pieces.flatMap((piece) => [turned(polygonOf(piece.outer, chordMm), 1), ...piece.holes.map((hole) => turned(polygonOf(hole, chordMm), -1))]).filter((contour) => contour.length > 2); // biome-ignore format: one line
      known.set(key, made);
    }
    return made;
  };
}

function turned(points: Point[], side: 1 | -1): Contour {
  const area = points.reduce((sum, p, k) => sum + p.x * (points[(k + 1) % points.length] as Point).y - p.y * (points[(k + 1) % points.length] as Point).x, 0); // biome-ignore format: one line
  return side * area > 0 ? points : points.reverse();
}

/** The largest inset up to a wanted one that leaves something, mm, to a hundredth of it. */
function largestInset(contoursAt: (insetMm: number) => readonly Contour[], wantedMm: number): number {
  if (wantedMm <= 0) return 0;
  // Twice as much is left for what leans, too.
  let [low, high] = [0, 2 * wantedMm];
  if (contoursAt(high).length > 0) return high;
  for (let round = 0; round < 8; round++) {
    const middle = (low + high) / 2;
    if (contoursAt(middle).length > 0) low = middle;
    else high = middle;
  }
  return low;
}

function meshOf(levels: readonly Level[], contoursAt: (insetMm: number) => readonly Contour[], chordMm: number): Mesh | null {
  const positions: number[] = [];
  const triangles: number[] = [];
  /** Contours of a level with the number of their first vertex. */
  const placed = (contours: readonly Contour[], z: number): number => {
    const first = positions.length / 3;
    for (const contour of contours) for (const { x, y } of contour) positions.push(x, y, z);
    return first;
  };
  let before: { contours: readonly Contour[]; first: number; insetMm: number } | null = null;
  for (const { z, insetMm } of levels) {
    if (before && Math.abs(before.insetMm - insetMm) < sameMm) {
      const first = placed(before.contours, z);
      walls(before.contours, before.first, first, triangles);
      before = { contours: before.contours, insetMm: before.insetMm, first };
      continue;
    }
    const made = withRing(before, insetMm, contoursAt, chordMm);
    if (made.contours.length === 0) break;
    const first = placed(made.contours, z);
    if (before) {
      const lower = before.contours.reduce((sum, { length }) => sum + length, 0);
      const vertex = (k: number): number => (k < lower ? (before as { first: number }).first + k : first + k - lower);
      addRing(made.ring, vertex, insetMm > before.insetMm, triangles);
    } else addRing(made.ring, (k) => first + k, false, triangles);
    before = { contours: made.contours, first, insetMm };
  }
  if (!before) return null;
  const { first } = before;
  addRing(ringTriangles(before.contours, true), (k) => first + k, true, triangles);
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}

/** The contours at an inset, and the triangles between them and those of the level before, or over them where there is none. */
function withRing(
  before: { readonly contours: readonly Contour[]; readonly insetMm: number } | null,
  insetMm: number,
  contoursAt: (insetMm: number) => readonly Contour[],
  nudgeMm: number,
): { contours: readonly Contour[]; ring: Uint32Array } {
  for (let k = 0; ; k++) {
    const inward = before && insetMm < before.insetMm ? -1 : 1;
    const contours = contoursAt(insetMm + inward * k * nudgeMm);
    try {
      const all = [...(before?.contours ?? []), ...contours];
      return { contours, ring: contours.length > 0 ? ringTriangles(all, before === null) : new Uint32Array() };
    } catch (error) {
      if (!(error instanceof RingError) || k >= nudges) throw error;
    }
  }
}

function addRing(ring: Uint32Array, vertex: (k: number) => number, facesUp: boolean, triangles: number[]): void {
  for (let k = 0; k < ring.length; k += 3) {
    const [a, b, c] = [vertex(ring[k] as number), vertex(ring[k + 1] as number), vertex(ring[k + 2] as number)];
    if (facesUp) triangles.push(a, b, c);
    else triangles.push(a, c, b);
  }
}

/** Upright between the same contours at two heights. */
function walls(contours: readonly Contour[], lower: number, upper: number, triangles: number[]): void {
  let at = 0;
  for (const contour of contours) {
    for (let k = 0; k < contour.length; k++) {
      const [a, b] = [at + k, at + ((k + 1) % contour.length)];
      triangles.push(lower + a, lower + b, upper + b, lower + a, upper + b, upper + a);
    }
    at += contour.length;
  }
}
