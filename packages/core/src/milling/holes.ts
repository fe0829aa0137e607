/** In: round holes, a tool and how deep. Out: the tool's moves: drilled with pecks, or bored on a helix. */
import { circleOf, circlePath, distance, type Path, type Point, stepsOf } from '../plane/index.ts';
import { downAndRound, levelsTo, plainEntry } from './levels.ts';
import { type MillTool, pointLengthOf, radiusOf } from './mill-tool.ts';
import { aboveMm, type Heights, Moves } from './moves.ts';

export interface RoundHole {
  readonly centre: Point;
  readonly diameterMm: number;
}

/** A circle may be off by this much and still be one, mm. */
const roundMm = 0.01;

/** The hole that a closed path is, if all of it runs about one centre. */
export function roundHole(path: Path): RoundHole | null {
  if (!path.closed || path.segments.length === 0) return null;
  const circles = stepsOf(path).map(({ from, segment }) => (segment.kind === 'arc' ? circleOf(from, segment) : null));
  const first = circles[0];
  if (!first || circles.some((c) => !c || distance(c.centre, first.centre) > roundMm || Math.abs(c.radius - first.radius) > roundMm))
    return null;
  return { centre: first.centre, diameterMm: 2 * first.radius };
}

/** A drill is right for a hole that it misses by no more than this, mm. */
const drillMm = 0.06;

export const isDrilledBy = (drill: MillTool, diameterMm: number): boolean => Math.abs(drill.diameterMm - diameterMm) <= drillMm;

/** Whether an operation is meant for a hole: of its diameter, or of any that its tool can make. */
export function makesHole({ diameterMm }: { readonly diameterMm: number | null }, round: RoundHole, tool: MillTool | null): boolean {
  if (diameterMm !== null) return Math.abs(diameterMm - round.diameterMm) < 0.02;
  if (tool === null) return false;
  return tool.kind === 'drill' ? isDrilledBy(tool, round.diameterMm) : tool.diameterMm <= round.diameterMm;
}

export interface HoleSettings {
  readonly topZ: number;
  readonly bottomZ: number;
  /** How deep the drill goes before it comes up to clear its chips, mm. */
  readonly peckMm: number;
  /** How deep a spot is made first, so that the drill does not wander, mm; 0 for none. */
  readonly spotMm: number;
  readonly entryAngle: number | null;
}

/** Down in pecks, each begun just above the last. */
export function drillMoves(
  { centre }: RoundHole,
  tool: MillTool,
  { topZ, bottomZ, peckMm, spotMm }: HoleSettings,
  heights: Heights,
): Moves {
  const moves = new Moves(tool, centre, heights);
  moves.over(centre, heights.hopZ, topZ + aboveMm);
  const end = bottomZ - pointLengthOf(tool);
  const spots = spotMm > 0 && topZ - spotMm > end ? [topZ - spotMm] : [];
  let from = topZ;
  for (const z of [...spots, ...levelsTo(topZ, end, peckMm)]) {
    // A spot may be deeper than the first pecks.
    if (z >= from) continue;
    if (moves.at.z > from + aboveMm) moves.over(centre, heights.hopZ, from + aboveMm);
    moves.plunge(z);
    moves.lift(topZ + aboveMm);
    from = z;
  }
  moves.lift(heights.safeZ);
  return moves;
}

/** Round and round down on a helix, and once round at the bottom; null where the tool is wider than the hole. */
export function boreMoves(
  { centre, diameterMm }: RoundHole,
  tool: MillTool,
  { topZ, bottomZ, entryAngle }: HoleSettings,
  heights: Heights,
): Moves | null {
  const most = diameterMm / 2 - radiusOf(tool);
  if (most < -1e-9) return null;
  const moves = new Moves(tool, centre, heights);
  // A hole much wider than the tool is cleared ring by ring, from the middle out.
  const step = 0.45 * tool.diameterMm;
  const count = Math.max(1, Math.ceil(most / step));
  for (let k = 1; k <= count; k++) {
    const radius = (most * k) / count;
    const path = radius < 1e-3 ? null : circlePath(centre, radius);
    const at = path?.start ?? centre;
    moves.over(at, heights.hopZ, topZ + aboveMm);
    moves.plunge(topZ);
    if (path) {
      const angle = entryAngle ?? plainEntry;
      // A helix never goes down more in a turn than a pass may take.
      const steep = Math.min(angle, Math.atan2(tool.stepdownMm, 2 * Math.PI * radius));
      downAndRound(moves, path, topZ, bottomZ, steep);
    } else moves.plunge(bottomZ);
    moves.lift(heights.hopZ);
  }
  moves.lift(heights.safeZ);
  return moves;
}
