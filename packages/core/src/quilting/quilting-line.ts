/**
 * In: a block or a quilt, lines drawn to quilt along, and what they are quilted with. Out: the quilting line: how it runs, how long it is,
 * how many stitches, and how far the largest place without it reaches.
 */
import { hatchLines } from '../make/hatch.ts';
import { SaidError, say } from '../messages/index.ts';
import {
  type Box,
  chordsOf,
  distance,
  inverse,
  type Path,
  type Point,
  pathArea,
  pathLength,
  rectanglePath,
  transformedPath,
} from '../plane/index.ts';
import { distanceTo, offsetClosed } from '../shape/index.ts';
import type { Block } from './block.ts';
import { type ContinuousLine, continuousLine, type LineRun } from './continuous-line.ts';
import { edgeToEdge } from './edge-to-edge.ts';
import type { Quilt } from './quilt.ts';
import type { LineSettings } from './settings.ts';
import { stippled } from './stippling.ts';
import { stitchesAlong } from './stitches.ts';

export interface QuiltingLine extends ContinuousLine {
  /** What it covers: on the finished block, or on the quilt, mm. */
  readonly area: Box;
  readonly stitches: number;
  /** How many of them are too short to sew well. */
  readonly shortStitches: number;
  /** The radius of the largest circle that the line leaves empty, and where it lies. */
  readonly gapMm: number;
  readonly gapAt: Point;
  /** By how much repeats were stretched to fill the area, as shares; null where nothing repeats. */
  readonly stretched: { readonly x: number; readonly y: number } | null;
}

/** Stitches shorter than this pile up thread (common practice), mm. */
export const shortStitchMm = 0.5;

export class LineError extends SaidError {
  readonly code = 'no-line';
}

/** @param drawn lines to quilt along, on the sheet. @throws LineError where there is nothing to quilt along */
export function quiltingLine(block: Block, quilt: Quilt, drawn: readonly Path[], settings: LineSettings): QuiltingLine {
  const area: Box =
    settings.over === 'quilt'
      ? { minX: 0, minY: 0, maxX: quilt.widthMm, maxY: quilt.heightMm }
      : { minX: 0, minY: 0, maxX: block.widthMm, maxY: block.heightMm };
  const { line, stretched = null } = lineOver(area, block, drawn, settings);
  if (line.runs.length === 0) throw new LineError(say.quilting.nothingQuilted());
  const sewn = line.runs.map(({ path }) => stitchesAlong(path, settings));
  const stitches = sewn.reduce((sum, places) => sum + places.length - 1, 0);
  const shortStitches = sewn.reduce(
    (sum, places) => sum + places.slice(1).filter((p, k) => distance(p, places[k] as Point) < shortStitchMm).length,
    0,
  );
  return { ...line, area, stitches, shortStitches, stretched, ...largestGap(area, line.runs) };
}

function lineOver(
  area: Box,
  block: Block,
  drawn: readonly Path[],
  settings: LineSettings,
): { line: ContinuousLine; stretched?: QuiltingLine['stretched'] } {
  const { pattern, spacingMm } = settings;
  const whole = rectanglePath(area);
  if (pattern === 'drawn') {
    const back = inverse(block.toSheet);
    return {
      line: continuousLine(
        drawn.map((path) => transformedPath(path, back)),
        settings,
      ),
    };
  }
  if (pattern === 'stippling') return { line: separate(stippled([whole], { spacingMm, seed: settings.seed })) };
  if (pattern === 'cross-hatching') {
    const angle = (settings.angle * Math.PI) / 180;
    return { line: joined([hatchLines([whole], angle, spacingMm), hatchLines([whole], angle + Math.PI / 2, spacingMm)]) };
  }
  if (pattern === 'echo') return { line: separate(block.map.faces.flatMap(({ outer }) => echoes(outer, spacingMm))) };
  const { path, stretchX, stretchY } = edgeToEdge(area, { ...settings, pattern });
  return { line: separate([path]), stretched: { x: stretchX, y: stretchY } };
}

/** Lines as they are, one after another. */
function separate(paths: readonly Path[]): ContinuousLine {
  const runs = paths.map((path): LineRun => ({ path, isAgain: path.segments.map(() => false) }));
  const ends = paths.map((path) => path.segments.at(-1)?.to ?? path.start);
  const jumpsMm = paths.slice(1).map(({ start }, k) => Math.hypot(start.x - (ends[k] as Point).x, start.y - (ends[k] as Point).y));
  return { runs, lengthMm: paths.reduce((sum, path) => sum + pathLength(path), 0), againMm: 0, jumpsMm };
}

/** Lines to and fro, joined at their ends along the edge: each set is one line. */
function joined(sets: readonly (readonly Path[])[]): ContinuousLine {
  return separate(
    sets.flatMap((lines): Path[] => {
      const [first] = lines;
      if (!first) return [];
      const segments = lines.flatMap(({ start, segments: own }, k) => (k === 0 ? own : [{ kind: 'line' as const, to: start }, ...own]));
      return [{ start: first.start, segments, closed: false }];
    }),
  );
}

/** Rings within an outline, each as far from the last as that is from the outline. */
function echoes(outline: Path, spacingMm: number): Path[] {
  const made: Path[] = [];
  for (let k = 1; k <= mostEchoes; k++) {
    const rings = offsetClosed(outline, k * spacingMm * Math.sign(pathArea(outline)));
    if (rings.length === 0) break;
    made.push(...rings);
  }
  return made;
}
const mostEchoes = 200;

/** Places that are looked at along each side for the largest gap, and rounds in which the best one is looked about. */
const gapPlaces = 40;
const gapRounds = 12;
/** How far chords may lie from the line, mm. */
const gapChordMm = 0.05;

function inChords(path: Path, tolerance: number): Path {
  const [start = path.start, ...rest] = chordsOf(path, tolerance);
  return { start, segments: rest.map((to) => ({ kind: 'line', to })), closed: false };
}

/** The largest circle within the area that no line enters. Its middle lies no farther from the edge than half a line's distance. */
function largestGap(area: Box, runs: readonly LineRun[]): { gapMm: number; gapAt: Point } {
  // Chords: what they leave out of a curve is less than the line is wide, and a place is as far from them in a tenth of the time.
  const off = distanceTo(runs.map(({ path }) => inChords(path, gapChordMm)));
  const [w, h] = [area.maxX - area.minX, area.maxY - area.minY];
  let best = { gapMm: 0, gapAt: { x: area.minX, y: area.minY } };
  const look = (p: Point): void => {
    if (p.x < area.minX || p.x > area.maxX || p.y < area.minY || p.y > area.maxY) return;
    const gapMm = off(p);
    if (gapMm > best.gapMm) best = { gapMm, gapAt: p };
  };
  for (let i = 0; i <= gapPlaces; i++)
    for (let j = 0; j <= gapPlaces; j++) look({ x: area.minX + (i / gapPlaces) * w, y: area.minY + (j / gapPlaces) * h });
  for (let round = 0, step = Math.max(w, h) / gapPlaces; round < gapRounds; round++, step /= 2) {
    const { x, y } = best.gapAt;
    for (const [dx, dy] of [[1, 0], [-1, 0], [0, 1], [0, -1], [1, 1], [-1, 1], [1, -1], [-1, -1]] as const) look({ x: x + dx * step, y: y + dy * step }); // biome-ignore format: one line
  }
  return best;
}
