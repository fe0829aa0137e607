/**
 * In: a contour in pixels. Out: whether it runs along the picture's own edge, so that what it bounds is cut off there.
 */

/** @param points x and y in turn */
export function touchesEdge(points: Float64Array, { width, height }: { width: number; height: number }): boolean {
  for (let k = 0; k < points.length; k += 2) {
    const [x, y] = [points[k] as number, points[k + 1] as number];
    if (x < 0.5 || y < 0.5 || x > width - 0.5 || y > height - 0.5) return true;
  }
  return false;
}

/** A scan's border runs along so much of a side of the picture. */
const borderShare = 0.8;
/** It is no wider than so much of the picture, on the whole. */
const borderWidthShare = 0.25;
/** Beside paper that lies turned it is a wedge: along so much of a side, and so many times as long as wide. */
const wedgeShare = 0.25;
const wedgeSlenderness = 15;

/**
 * Whether ink is the dark border of a scan, which the lid or the ground about the paper leaves: along a whole side, and narrow.
 * @param points x and y in turn, px, of its outer contour, closed
 * @param areaPx of the ink, holes left out
 */
export function isScanBorder(points: Float64Array, areaPx: number, { width, height }: { width: number; height: number }): boolean {
  const along = { left: 0, right: 0, top: 0, bottom: 0 };
  const n = points.length;
  for (let k = 0; k < n; k += 2) {
    const [x, y, u, v] = [points[k], points[k + 1], points[(k + 2) % n], points[(k + 3) % n]] as [number, number, number, number];
    if (Math.max(x, u) < 0.5) along.left += Math.abs(v - y);
    if (Math.min(x, u) > width - 0.5) along.right += Math.abs(v - y);
    if (Math.max(y, v) < 0.5) along.top += Math.abs(u - x);
    if (Math.min(y, v) > height - 0.5) along.bottom += Math.abs(u - x);
  }
  const share = Math.max(along.left / height, along.right / height, along.top / width, along.bottom / width);
  const length = along.left + along.right + along.top + along.bottom;
  const isWhole = share >= borderShare && areaPx <= length * borderWidthShare * Math.min(width, height);
  const isWedge = share >= wedgeShare && areaPx * wedgeSlenderness <= length ** 2;
  return isWhole || isWedge;
}
