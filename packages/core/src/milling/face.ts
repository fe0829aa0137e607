/** In: a rectangle of stock, a tool and how much to take off. Out: the tool's moves over all of it, in lines or as one spiral. */
import { type Box, polygonPath } from '../plane/index.ts';
import { levelsTo } from './levels.ts';
import { type MillTool, radiusOf } from './mill-tool.ts';
import { type Heights, Moves } from './moves.ts';
import { stepoverOf } from './pocket.ts';

export interface FaceSettings {
  readonly topZ: number;
  readonly bottomZ: number;
  readonly pattern: 'lines' | 'spiral';
}

/** Comes in from beside the stock, so that nothing is plunged into. */
export function faceMoves(stock: Box, tool: MillTool, { topZ, bottomZ, pattern }: FaceSettings, heights: Heights): Moves {
  const { safeZ } = heights;
  const [radius, step] = [radiusOf(tool), stepoverOf(tool)];
  const [left, right] = [stock.minX - radius - 1, stock.maxX + radius + 1];
  const moves = new Moves(tool, { x: left, y: stock.minY }, heights);
  for (const z of levelsTo(topZ, bottomZ, tool.stepdownMm)) {
    moves.lift(safeZ);
    if (pattern === 'lines') {
      const rows = Math.max(1, Math.ceil((stock.maxY - stock.minY) / step));
      for (let k = 0; k <= rows; k++) {
        const y = stock.minY + ((stock.maxY - stock.minY) * k) / rows;
        const [from, to] = k % 2 === 0 ? [left, right] : [right, left];
        if (k === 0) {
          moves.over({ x: from, y }, safeZ, z + 1);
          moves.plunge(z);
        } else moves.line({ x: from, y, z });
        moves.line({ x: to, y, z });
      }
    } else spiralIn(stock, radius, step, z, safeZ, moves);
  }
  moves.lift(safeZ);
  return moves;
}

/** Rectangles one inside the other, from the outside in. */
function spiralIn(stock: Box, radius: number, step: number, z: number, safeZ: number, moves: Moves): void {
  let { minX, minY, maxX, maxY } = stock;
  moves.over({ x: minX - radius - 1, y: minY }, safeZ, z + 1);
  moves.plunge(z);
  for (; maxX >= minX && maxY >= minY; [minX, minY, maxX, maxY] = [minX + step, minY + step, maxX - step, maxY - step]) {
    const ring = maxX - minX < 1e-6 || maxY - minY < 1e-6 ? null : polygonPath([{ x: minX, y: minY }, { x: minX, y: maxY }, { x: maxX, y: maxY }, { x: maxX, y: minY }]); // biome-ignore format: one line
    moves.line({ x: minX, y: minY, z });
    if (ring) moves.along(ring, [{ along: 0, z }]);
    else moves.line({ x: maxX, y: maxY, z });
  }
}
