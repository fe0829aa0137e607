/**
 * In: a seed, a sheet and how many parts. Out: parts that the sheet was cut into by random straight and curved cuts, turned by random quarters:
 * a layout that uses all of the sheet exists.
 */
import { type Path, type Point, pathArea, pathBox, rectanglePath, transformedPath, turn } from '@nuvet/core/plane';
import { combined } from '@nuvet/core/shape';
import { type Random, randomFrom } from './random.ts';

/** No cut leaves less than this share of what it cuts. */
const leastShare = 0.25;
const mostCuts = 2000;

export function cutSheet(seed: number, count: number, widthMm: number, heightMm: number): Path[] {
  const random = randomFrom(seed);
  const parts: Path[] = [rectanglePath({ minX: 0, minY: 0, maxX: widthMm, maxY: heightMm })];
  for (let cuts = 0; parts.length < count && cuts < mostCuts; cuts++) {
    parts.sort((a, b) => pathArea(b) - pathArea(a));
    const largest = parts[0] as Path;
    const beyond = halfPlane(random, largest, widthMm + heightMm);
    const halves = [combined([largest], [beyond], 'keep-common'), combined([largest], [beyond], 'take-away')].flat();
    const isCut = halves.length === 2 && halves.every((half) => pathArea(half) > leastShare * pathArea(largest));
    if (isCut) parts.splice(0, 1, ...halves);
  }
  return parts.map((part) => transformedPath(part, turn((Math.floor(4 * random()) * Math.PI) / 2)));
}

/** What lies to one side of a line across an outline, straight or bent once or twice. */
function halfPlane(random: Random, outline: Path, farMm: number): Path {
  const { minX, minY, maxX, maxY } = pathBox(outline);
  const angle = Math.PI * random();
  const [u, n] = [{ x: Math.cos(angle), y: Math.sin(angle) }, { x: -Math.sin(angle), y: Math.cos(angle) }]; // biome-ignore format: one line
  const middle = { x: minX + (maxX - minX) * (0.35 + 0.3 * random()), y: minY + (maxY - minY) * (0.35 + 0.3 * random()) };
  const size = Math.hypot(maxX - minX, maxY - minY);
  const at = (along: number, across: number): Point => ({
    x: middle.x + along * u.x + across * n.x,
    y: middle.y + along * u.y + across * n.y,
  });
  const [bend, isTwice] = [random() < 0.5 ? 0 : (random() - 0.5) * 0.5 * size, random() < 0.5];
  const across =
    bend === 0
      ? ({ kind: 'line', to: at(size, 0) } as const)
      : ({ kind: 'cubic', c1: at(-size / 3, bend), c2: at(size / 3, isTwice ? -bend : bend), to: at(size, 0) } as const);
  const line = (to: Point) => ({ kind: 'line', to }) as const;
  return { start: at(-4 * farMm, 0), segments: [line(at(-size, 0)), across, line(at(4 * farMm, 0)), line(at(4 * farMm, 4 * farMm)), line(at(-4 * farMm, 4 * farMm)), line(at(-4 * farMm, 0))], closed: true }; // biome-ignore format: one line
}
