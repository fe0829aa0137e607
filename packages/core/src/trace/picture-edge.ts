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
