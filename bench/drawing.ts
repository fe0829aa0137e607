/**
 * Drawing and correcting by hand: offsets and combinations against closed forms and jsts, and how long a live chain takes.
 */
import { ellipsePath, nearestOnPath, type Path, pathArea, pathLength, pointOn, polygonPath, stepsOf } from '@nuvet/core/plane';
import { combined, type DrawnPoint, followed, type LiveStep, offsetPiece, pathThrough } from '@nuvet/core/shape';
import Coordinate from 'jsts/org/locationtech/jts/geom/Coordinate.js';
import GeometryFactory from 'jsts/org/locationtech/jts/geom/GeometryFactory.js';
import BufferOp from 'jsts/org/locationtech/jts/operation/buffer/BufferOp.js';
import OverlayOp from 'jsts/org/locationtech/jts/operation/overlay/OverlayOp.js';

const line = (name: string, text: string) => console.log(`${name.padEnd(46)} ${text}`);

export function measureDrawing(): void {
  measureOffset();
  measurePolygons();
  measureChain();
}

/** The ellipse of the stated length, set out by the stated distance. */
function measureOffset(): void {
  const unit = pathLength(ellipsePath({ x: 0, y: 0 }, 2, 1, 0));
  const k = 180.765 / unit;
  const ellipse = ellipsePath({ x: 0, y: 0 }, 2 * k, k, 0.3);
  const outer = offsetPiece({ outer: ellipse, holes: [] }, 3.71)[0]?.outer as Path;
  line(
    'an ellipse of 180.765 mm, 3.71 mm outward',
    `${pathLength(outer).toFixed(3)} mm long (204.08 by Steiner), ${outer.segments.length} segments`,
  );
  let worst = 0;
  for (const { from, segment } of stepsOf(outer))
    for (let j = 0; j <= 40; j++) worst = Math.max(worst, Math.abs(nearestOnPath(ellipse, pointOn(from, segment, j / 40)).distance - 3.71));
  line('  off the distance at most', `${worst.toFixed(5)} mm (0.005 asked)`);
}

/** A polygon about the origin that never crosses itself, from a small generator of its own. */
function starPolygon(seed: number): Path {
  let state = seed * 2_654_435_761;
  const random = () => {
    state = (Math.imul(state ^ (state >>> 15), 2_246_822_519) + 0x9e37_79b9) | 0;
    return (state >>> 0) / 2 ** 32;
  };
  const n = 4 + Math.floor(random() * 12);
  const [x, y] = [20 * random(), 20 * random()];
  return polygonPath(
    Array.from({ length: n }, (_, k) => {
      const [r, angle] = [12 + 28 * random(), (2 * Math.PI * k) / n];
      return { x: x + r * Math.cos(angle), y: y + r * Math.sin(angle) };
    }),
  );
}

function measurePolygons(): void {
  const factory = new GeometryFactory();
  const asJsts = (path: Path) =>
    factory.createPolygon([path.start, ...path.segments.map((s) => s.to)].map(({ x, y }) => new Coordinate(x, y)));
  const polygons = Array.from({ length: 500 }, (_, k) => starPolygon(k + 1));
  const pairs = polygons.map((a, k) => [a, polygons[(k + 1) % polygons.length] as Path] as const);
  const sum = (paths: readonly Path[]) => paths.reduce((total, path) => total + pathArea(path), 0);
  let [worst, ours, theirs] = [0, 0, 0];
  for (const [a, b] of pairs) {
    const t0 = performance.now();
    const area = sum(combined([a], [b], 'unite'));
    const t1 = performance.now();
    const truth = OverlayOp.overlayOp(asJsts(a), asJsts(b), OverlayOp.UNION).getArea() as number;
    theirs += performance.now() - t1;
    ours += t1 - t0;
    worst = Math.max(worst, Math.abs(area - truth));
  }
  line(
    '500 pairs of polygons united, against jsts',
    `areas differ by ${worst.toExponential(1)} mm² at most; ${(ours / theirs).toFixed(2)} times its time`,
  );
  [worst, ours, theirs] = [0, 0, 0];
  polygons.forEach((path, k) => {
    const by = k % 2 === 0 ? 3 : -3;
    const t0 = performance.now();
    const area = offsetPiece({ outer: path, holes: [] }, by).reduce((total, { outer, holes }) => total + sum([outer, ...holes]), 0);
    const t1 = performance.now();
    const truth = BufferOp.bufferOp(asJsts(path), by, 100).getArea() as number;
    theirs += performance.now() - t1;
    ours += t1 - t0;
    worst = Math.max(worst, Math.abs(area - truth));
  });
  line(
    '500 polygons set off, against jsts buffers',
    `areas differ by ${worst.toExponential(1)} mm² at most; ${(ours / theirs).toFixed(2)} times its time`,
  );
}

/** Points of half an outline of smooth segments, its ends on the axis. */
const halfOutline = (segments: number): DrawnPoint[] =>
  Array.from({ length: segments + 1 }, (_, k) => {
    const angle = -Math.PI / 2 + (Math.PI * k) / segments;
    const r = 100 + 6 * Math.sin(8 * angle);
    const isEnd = k === 0 || k === segments;
    return { at: { x: isEnd ? 0 : r * Math.cos(angle), y: r * Math.sin(angle) }, corner: k % 100 === 0 };
  });

function measureChain(): void {
  const steps: LiveStep[] = [
    { kind: 'mirror', a: { x: 0, y: 0 }, b: { x: 0, y: 1 } },
    { kind: 'round', size: 0.05, which: 'all', how: 'round' },
    { kind: 'offset', by: 2, count: 1, corners: 'round', keeps: true },
  ];
  for (const segments of [100, 1000]) {
    const points = halfOutline(segments);
    const dragged = Math.floor(segments / 3);
    const frame = (k: number, from: readonly DrawnPoint[], live: readonly LiveStep[]): number => {
      const moved = from.map((p, j) => (j === dragged ? { ...p, at: { x: p.at.x + (k % 50) / 100, y: p.at.y } } : p));
      const start = performance.now();
      followed([pathThrough(moved, false) as Path], live, () => []);
      return performance.now() - start;
    };
    const middle = (times: number[]): number => times.sort((a, b) => a - b)[times.length >> 1] as number;
    const whole = middle(Array.from({ length: 40 }, (_, k) => frame(k, structuredClone(points), structuredClone(steps))).slice(10));
    const times = middle(Array.from({ length: 150 }, (_, k) => frame(k, points, steps)).slice(50));
    line(
      `mirrored, rounded, set off: ${2 * segments} segments`,
      `${times.toFixed(1)} ms a move of one point (16 asked of 2000); ${(whole / times).toFixed(1)} times as fast as without what was known`,
    );
  }
}
