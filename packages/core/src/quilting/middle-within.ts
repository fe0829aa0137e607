/** In: a closed path. Out: a place well inside it, for its name or to ask what covers it. */
import { levelCrossings, type Path, type Point, pathBox, polygonOf } from '../plane/index.ts';

const rows = 9;

/** The middle of the widest stretch inside the path along some level lines; of those about as wide the one nearest to half its height. */
export function middleWithin(path: Path): Point {
  const { minX, minY, maxX, maxY } = pathBox(path);
  const polygon = polygonOf(path, (maxX - minX + maxY - minY) / 500);
  let best: { at: Point; value: number } = { at: { x: (minX + maxX) / 2, y: (minY + maxY) / 2 }, value: -1 };
  for (let row = 1; row <= rows; row++) {
    const share = row / (rows + 1);
    const y = minY + share * (maxY - minY);
    const crossings = levelCrossings(polygon, y).sort((a, b) => a - b);
    for (let k = 0; k + 1 < crossings.length; k += 2) {
      const [from, to] = [crossings[k] as number, crossings[k + 1] as number];
      const value = (to - from) * (1 - Math.abs(share - 0.5));
      if (value > best.value) best = { at: { x: (from + to) / 2, y }, value };
    }
  }
  return best.at;
}
