import { type Path, pathArea } from '@nuvet/core/plane';
import { wallsOf } from '../packages/core/src/trace/walls.ts';

const line = (...pts: [number, number][]): Path => ({
  start: { x: pts[0]![0], y: pts[0]![1] },
  segments: pts.slice(1).map(([x, y]) => ({ kind: 'line', to: { x, y } })),
  closed: false,
});
const show = (p: Path[]) =>
  p
    .map(
      (q) =>
        `${q.segments.map((s) => s.kind[0]).join('')} area ${pathArea(q).toFixed(4)} ${q.segments
          .filter((s) => s.kind === 'line')
          .slice(0, 6)
          .map((s) => `${s.to.x.toFixed(4)},${s.to.y.toFixed(4)}`)
          .join(' ')}`,
    )
    .join('\n  ');
console.log('bar', show(wallsOf([line([0, 0], [50, 0])], 4, 0.02)));
console.log('T', show(wallsOf([line([0, 0], [50, 0]), line([25, 0], [25, 30])], 4, 0.02)));
console.log('Y', show(wallsOf([line([0, 0], [50, 0]), line([0, 0], [-25, 40]), line([0, 0], [-25, -40])], 4, 0.02)));
console.log(
  'frame',
  show(wallsOf([{ ...line([0, 0], [50, 0], [50, 30], [0, 30], [0, 0]), closed: true }, line([20, 0], [20, 30])], 3, 0.02)),
);
console.log(
  'ring',
  show(
    wallsOf(
      [
        {
          start: { x: 20, y: 0 },
          segments: [
            { kind: 'arc', to: { x: -20, y: 0 }, sweep: Math.PI },
            { kind: 'arc', to: { x: 20, y: 0 }, sweep: Math.PI },
          ],
          closed: true,
        },
      ],
      4,
      0.02,
    ),
  ),
  Math.PI * 22 ** 2,
  Math.PI * 18 ** 2,
);
console.log(
  'arc',
  show(
    wallsOf(
      [
        {
          start: { x: 20, y: 0 },
          segments: [
            { kind: 'arc', to: { x: 0, y: 20 }, sweep: Math.PI / 2 },
            { kind: 'line', to: { x: -20, y: 20 } },
          ],
          closed: false,
        },
      ],
      4,
      0.02,
    ),
  ),
);
