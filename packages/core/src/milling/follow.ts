/** In: a line, a tool and how deep. Out: the tool's moves along it, in passes; or along an edge, to break it. */
import { type Path, pathLength, reversedPath, subPath } from '../plane/index.ts';
import { downAndRound, downToAndFro, entryFor, levelsTo } from './levels.ts';
import { halfAngleOf, type MillTool } from './mill-tool.ts';
import { aboveMm, type Heights, Moves } from './moves.ts';
import { inset } from './tool-rings.ts';

export interface FollowSettings {
  readonly topZ: number;
  readonly bottomZ: number;
  readonly entryAngle: number | null;
}

/** Along a line, as deep as the stepdown lets it in each pass; an open one to and fro. */
export function followMoves(path: Path, tool: MillTool, { topZ, bottomZ, entryAngle }: FollowSettings, heights: Heights): Moves {
  const moves = new Moves(tool, path.start, heights);
  const entry = entryFor(tool, entryAngle);
  moves.over(path.start, heights.hopZ, topZ + aboveMm);
  moves.plunge(topZ);
  let from = topZ;
  let line = path;
  for (const z of levelsTo(topZ, bottomZ, tool.stepdownMm)) {
    if (path.closed) downAndRound(moves, path, from, z, entry);
    else {
      downToAndFro(moves, line, from, z, entry);
      moves.along(line, [{ along: 0, z }]);
      line = reversedPath(line);
    }
    from = z;
  }
  moves.lift(heights.safeZ);
  return moves;
}

/** How far beside an edge the tip of a chamfering tool goes, so that its point does not leave a mark, mm. */
const besideMm = 0.3;

/**
 * An edge broken by a width with a V-bit, whose flank touches it from the waste.
 * @returns null where the tool does not fit beside it
 */
export function chamferMoves(
  border: Path,
  side: 'outside' | 'inside',
  tool: MillTool,
  widthMm: number,
  topZ: number,
  heights: Heights,
): Moves | null {
  const by = besideMm + tool.tipMm / 2;
  const depth = (widthMm + besideMm) / Math.tan(halfAngleOf(tool));
  if (depth > (tool.diameterMm / 2 - tool.tipMm / 2) / Math.tan(halfAngleOf(tool)) + 1e-9) return null;
  const rings = inset({ outer: border, holes: [] }, side === 'outside' ? -by : by).map(({ outer }) => outer);
  const [first, ...rest] = rings;
  if (!first) return null;
  const made = followMoves(first, tool, { topZ, bottomZ: topZ - depth, entryAngle: null }, heights);
  for (const ring of rest) {
    made.over(ring.start, heights.safeZ, topZ + aboveMm);
    made.plunge(topZ - depth);
    made.along(subPath(ring, 0, pathLength(ring)), [{ along: 0, z: topZ - depth }]);
    made.lift(heights.safeZ);
  }
  return made;
}
