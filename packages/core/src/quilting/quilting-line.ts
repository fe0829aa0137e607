/**
 * In: a block or a quilt, lines drawn to quilt along, and what they are quilted with. Out: the quilting line: how it runs, how long it is,
 * how many stitches, how far the largest place without it reaches, and what of it sews badly.
 */
import { SaidError, say } from '../messages/index.ts';
import { type Box, distance, inverse, type Path, type Point, pathArea, pathLength, stepsOf, transformedPath } from '../plane/index.ts';
import { type AreaFilling, areaFilling } from './area-filling.ts';
import type { Block } from './block.ts';
import { type ContinuousLine, continuousLine, inTurn, jumpsBetween, type LineRun } from './continuous-line.ts';
import type { PatchSet } from './cutting.ts';
import { awayFrom, largestEmptyCircle } from './empty-circle.ts';
import { crowdedPlaces, type LineFinding, sharpTurns } from './line-findings.ts';
import { inPasses, type Passes } from './passes.ts';
import type { Quilt } from './quilt.ts';
import { liesOnBlock, type QuiltedArea, quiltedAreas } from './quilted-areas.ts';
import type { LineSettings } from './settings.ts';
import { stitchesOfRuns } from './stitches.ts';

export interface QuiltingLine extends ContinuousLine {
  /** Whether it lies on the finished block alone; else on the quilt. */
  readonly isOnBlock: boolean;
  /** The block or the quilt, mm. */
  readonly area: Box;
  /** What is quilted of it, mm². */
  readonly areaMm2: number;
  readonly stitches: number;
  /** How many of them are too short to sew well. */
  readonly shortStitches: number;
  readonly crowded: LineFinding;
  readonly sharp: LineFinding;
  /** Null where the machine reaches all of it at once. */
  readonly passes: Passes | null;
  /** The radius of the largest circle that the line leaves empty, and where it lies. */
  readonly gapMm: number;
  readonly gapAt: Point;
  /** By how much repeats were stretched to fill the area, as shares; null where nothing repeats. */
  readonly stretched: { readonly x: number; readonly y: number } | null;
}

/** What is quilted: the block, the quilt it is set into, lines drawn on the sheet, and motifs of one's own. */
export interface QuiltTop {
  readonly block: Block;
  readonly sets: readonly PatchSet[];
  readonly quilt: Quilt;
  readonly drawn: readonly Path[];
  /** The lines of each. */
  readonly ownMotifs: readonly (readonly Path[])[];
}

/** Stitches shorter than this pile up thread (common practice), mm. */
export const shortStitchMm = 0.5;
/** No line is longer than this, mm, and none of more runs: what asks for more is set too dense. */
const mostMm = 3e6;
const mostRuns = 6000;

export class LineError extends SaidError {
  readonly code = 'no-line';
}

/**
 * One line, or several in different places that are sewn one after another.
 * @throws LineError where there is nothing to quilt along, or far too much
 */
export function quiltingLine(top: QuiltTop, all: readonly LineSettings[]): QuiltingLine {
  const [settings] = all as [LineSettings, ...LineSettings[]];
  const isOnBlock = all.every((one) => liesOnBlock(one));
  const { widthMm, heightMm } = isOnBlock ? top.block : top.quilt;
  const made = all.map((one) => lineIn(top, isOnBlock ? one : { ...one, isInEveryBlock: true }));
  const runs = made.flatMap((one) => one.runs);
  if (runs.length === 0) throw new LineError(say.quilting.nothingQuilted());
  const passes = inPasses(runs, settings.throatMm);
  const inOrder = passes ? passes.passes.flatMap((pass) => pass.runs) : runs;
  const sewn = stitchesOfRuns(inOrder, settings);
  const short = (places: readonly Point[]): number => places.slice(1).filter((p, k) => distance(p, places[k] as Point) < shortStitchMm).length; // biome-ignore format: one line
  const paths = inOrder.map(({ path }) => path);
  const away = awayFrom(paths);
  const sum = (of: (one: PlacedLine) => number): number => made.reduce((total, one) => total + of(one), 0);
  const { radiusMm, at } = widestGap(
    made.flatMap((one) => one.areas),
    away,
  );
  return {
    runs: inOrder,
    lengthMm: paths.reduce((total, path) => total + pathLength(path), 0),
    againMm: sum((one) => one.againMm),
    alongSeamsMm: sum((one) => one.alongSeamsMm),
    jumpsMm: jumpsBetween(inOrder),
    isOnBlock,
    area: { minX: 0, minY: 0, maxX: widthMm, maxY: heightMm },
    areaMm2: sum((one) => one.areas.reduce((total, area) => total + areaOf(area) * area.places.length, 0)),
    stitches: sewn.reduce((total, places) => total + places.length - 1, 0),
    shortStitches: sewn.reduce((total, places) => total + short(places), 0),
    crowded: crowdedPlaces(paths, settings.mostLayers),
    sharp: sharpTurns(inOrder, settings.sharpestDegrees),
    passes,
    gapMm: radiusMm,
    gapAt: at,
    stretched: made.find(({ stretched }) => stretched)?.stretched ?? null,
  };
}

const areaOf = ({ outline, hole }: QuiltedArea): number => Math.abs(pathArea(outline)) - (hole ? Math.abs(pathArea(hole)) : 0);

interface PlacedLine extends Pick<ContinuousLine, 'runs' | 'againMm' | 'alongSeamsMm'> {
  readonly areas: readonly QuiltedArea[];
  readonly stretched: QuiltingLine['stretched'];
}

function lineIn(top: QuiltTop, settings: LineSettings): PlacedLine {
  const { block, sets, quilt } = top;
  const areas = quiltedAreas(block, sets, quilt, settings);
  if (settings.pattern === 'drawn') return { ...alongDrawn(top, areas, settings), areas, stretched: null };
  const own = settings.pattern === 'own motif' ? (top.ownMotifs[settings.ownMotif] ?? []) : [];
  const wanted = areas.reduce((sum, area) => sum + roughLength(area, settings) * area.places.length, 0);
  if (wanted > mostMm) throw new LineError(say.quilting.tooDense(Math.round(wanted / 1e6)));
  const filled = areas.map((area): AreaFilling => areaFilling(area, settings, own));
  const placed = areas.flatMap(({ places }, k) => {
    const runs = (filled[k] as AreaFilling).lines.map((path): LineRun => ({ path, kinds: path.segments.map(() => 'drawn') }));
    return places.map((place) => runs.map((run) => moved(run, place)));
  });
  const count = placed.reduce((sum, runs) => sum + runs.length, 0);
  if (count > mostRuns) throw new LineError(say.quilting.tooManyRuns(count));
  return { runs: areasInTurn(placed), againMm: 0, alongSeamsMm: 0, areas, stretched: filled.find(({ stretched }) => stretched)?.stretched ?? null }; // biome-ignore format: one line
}

/** About how long a filling is. */
function roughLength(area: QuiltedArea, { pattern, spacingMm, repeatMm, rowMm }: LineSettings): number {
  const isFilling = pattern === 'stippling' || pattern === 'echo' || pattern === 'cross-hatching';
  return areaOf(area) / (isFilling ? spacingMm : Math.min(repeatMm, rowMm) / 4);
}

const moved = ({ path, kinds }: LineRun, place: QuiltedArea['places'][0]): LineRun => {
  const there = transformedPath(path, place);
  // A segment that becomes several is of its kind in all of them.
  const each = there.segments.length / Math.max(1, path.segments.length);
  return { path: there, kinds: there.segments.map((_, k) => kinds[Math.floor(k / each)] ?? 'drawn') };
};

/** Along lines that are drawn on the block, in each place of it. */
function alongDrawn(
  { block, drawn }: QuiltTop,
  areas: readonly QuiltedArea[],
  settings: LineSettings,
): Pick<PlacedLine, 'runs' | 'againMm' | 'alongSeamsMm'> {
  const back = inverse(block.toSheet);
  const { nodes, edges } = block.map;
  const seams = edges.map(({ from, segment }): Path => ({ start: nodes[from] as Point, segments: [segment], closed: false }));
  const travel = settings.alongSeams ? { seams, cost: settings.seamCost } : null;
  const { runs, againMm, alongSeamsMm } = continuousLine(drawn.map((path) => transformedPath(path, back)), settings, travel); // biome-ignore format: one line
  const places = areas[0]?.places ?? [];
  return {
    runs: places.length === 1 ? runs : areasInTurn(places.map((place) => runs.map((run) => moved(run, place)))),
    againMm: againMm * places.length,
    alongSeamsMm: alongSeamsMm * places.length,
  };
}

/** Areas one after another, each the nearest to where the last one ended; within one in their own order. */
function areasInTurn(areas: readonly (readonly LineRun[])[]): LineRun[] {
  const filled = areas.filter((runs) => runs.length > 0);
  if (filled.length > 0 && filled.every((runs) => runs.length === 1)) return inTurn(filled.flat());
  const left = new Set(filled);
  const made: LineRun[] = [];
  let at: Point = { x: 0, y: 0 };
  while (left.size > 0) {
    const away = (runs: readonly LineRun[]): number => distance(at, (runs[0] as LineRun).path.start);
    const runs = [...left].reduce((best, one) => (away(one) < away(best) ? one : best));
    left.delete(runs);
    made.push(...runs);
    const last = runs.at(-1) as LineRun;
    at = stepsOf(last.path).at(-1)?.segment.to ?? last.path.start;
  }
  return made;
}

/** Fewer places are looked at in each of many areas. */
const gapPlaces = 40;
const fewestGapPlaces = 8;

/** The widest place without a line, over all areas; of one that lies in many places, in the first. */
function widestGap(areas: readonly QuiltedArea[], away: (p: Point) => number): { radiusMm: number; at: Point } {
  const places = Math.max(fewestGapPlaces, Math.round(gapPlaces / Math.sqrt(areas.length)));
  return areas.reduce(
    (widest, area) => {
      const [place] = area.places;
      if (!place) return widest;
      const [outline, hole] = [transformedPath(area.outline, place), area.hole && transformedPath(area.hole, place)];
      const found = largestEmptyCircle({ outline, hole }, away, places);
      return found.radiusMm > widest.radiusMm ? found : widest;
    },
    { radiusMm: 0, at: { x: 0, y: 0 } },
  );
}
