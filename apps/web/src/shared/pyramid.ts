/**
 * How a picture is laid out in tiles: level 0 is the picture itself, each further level half as large.
 */
export const tileSize = 512;

/** How many levels a picture has: the last fits into one tile. */
export function levelsOf(widthPx: number, heightPx: number): number {
  return 1 + Math.max(0, Math.ceil(Math.log2(Math.max(widthPx, heightPx) / tileSize)));
}

export function levelSize(widthPx: number, heightPx: number, level: number): { width: number; height: number } {
  return { width: Math.max(1, Math.ceil(widthPx / 2 ** level)), height: Math.max(1, Math.ceil(heightPx / 2 ** level)) };
}
