/**
 * In: two closed pieces. Out: whether one would drop out of the other's hole, or lies in its material by mistake.
 */

import { areRings } from '../job/drawn.ts';
import { makeOf } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import { type Printed, sayings } from '../messages/index.ts';
import { centreOf, distance, nearestOnPath, type Path, type Point, pathArea, pathBox, pathLength, reversedPath } from '../plane/index.ts';
import { cornersOf, insidePoint, stationAt, windingNumber } from '../shape/index.ts';
import { type Check, type Fault, isBody, type ProofLimits } from './fault.ts';

/** What it says of what it finds. */
const words = {
  insideAnother: (name: Printed, other: Printed) => `${name} sits inside the material of ${other}.`,
  dropsOut: (name: Printed, other: Printed) => `${name} lies loose in a hole of ${other} and would drop out.`,
};
const said = sayings('findings', words);

/** Outlines longer than this are held at four places, shorter ones at two, mm. */
const longMm = 120;

/** @param a the larger one */
export function nestingFaults(a: Piece, b: Piece): Fault[] {
  if (!isBody(a) || !isBody(b) || a.purpose !== b.purpose) return [];
  const place = insidePoint(b.outer);
  if (windingNumber([a.outer], place) === 0) return [];
  const hole = a.holes.find((path) => windingNumber([path], place) !== 0);
  if (!hole) {
    if (isSame(a, b) || areRings(a, b)) return [];
    return [
      {
        code: 'inside-another',
        weight: 'look',
        ...said.insideAnother(b.name, a.name),
        pieceIds: [b.id, a.id],
        places: [centreOf(pathBox(b.outer))],
        fixes: [
          { do: 'replace', word: 'makeHole', ids: [a.id, b.id], by: withHole(a, b) },
          { do: 'leave-out', word: 'excludeIt', ids: [b.id] },
          { do: 'accept', word: 'ignore' },
        ],
      },
    ];
  }
  if (makeOf(a) !== 'part' || areRings(a, b)) return [];
  return [
    {
      code: 'drops-out',
      weight: 'look',
      ...said.dropsOut(b.name, a.name),
      pieceIds: [b.id, a.id],
      places: [centreOf(pathBox(b.outer))],
      fixes: [
        { do: 'hold', word: 'bridge', spans: spansAcross(b.outer, hole) },
        { do: 'accept', word: 'dropOut' },
      ],
    },
  ];
}

/** Two pieces with the same border are a doubled line, not one in the other. */
const isSame = (a: Piece, b: Piece): boolean =>
  Math.abs(Math.abs(pathArea(a.outer)) - Math.abs(pathArea(b.outer))) < 1e-3 * Math.abs(pathArea(a.outer));

/** The larger with the smaller as a hole; what lay in the smaller's holes becomes a piece of its own. */
const withHole = (a: Piece, b: Piece) => [
  { name: a.name, purpose: a.purpose, outer: a.outer, holes: [...a.holes, pathArea(b.outer) > 0 ? reversedPath(b.outer) : b.outer] },
  ...b.holes.map((hole, k) => ({
    name: `${b.name} ${k + 1}`,
    purpose: b.purpose,
    outer: pathArea(hole) < 0 ? reversedPath(hole) : hole,
    holes: [],
  })),
];

/** The shortest ways from an island to its surround, spread about it, away from its corners. */
export function spansAcross(island: Path, around: Path): { from: Point; to: Point }[] {
  const length = pathLength(island);
  const sectors = length > longMm ? 4 : 2;
  const stations = 96;
  const corners = cornersOf(island).map(({ at }) => at);
  const centre = centreOf(pathBox(island));
  const spans = Array.from({ length: stations }, (_, k) => {
    const { at } = stationAt(island, (length * k) / stations);
    const near = nearestOnPath(around, at);
    const isAtCorner = corners.some((c) => distance(c, at) < Math.min(1.5, length / 40));
    return { from: at, to: near.point, off: near.distance + (isAtCorner ? 1000 : 0), angle: Math.atan2(at.y - centre.y, at.x - centre.x) };
  });
  const first = spans.reduce((best, span) => (span.off < best.off ? span : best));
  const full = 2 * Math.PI;
  return Array.from({ length: sectors }, (_, s) => {
    const middle = first.angle + (full * s) / sectors;
    // A little longer but well spread is better than shortest and all on one side.
    const cost = (span: (typeof spans)[0]): number => {
      const turned = Math.abs(((((span.angle - middle) % full) + 1.5 * full) % full) - full / 2);
      return span.off * (1 + 2 * turned) + (turned > full / sectors / 2 ? 1e6 : 0);
    };
    const { from, to } = spans.reduce((best, span) => (cost(span) < cost(best) ? span : best));
    return { from, to };
  });
}

export const nestingCheck = {
  words,
  kinds: {
    'inside-another': { heading: 'Inside one another' },
    'drops-out': { heading: 'Loose pieces' },
  },
  pair: (larger: Piece, smaller: Piece, _: ProofLimits, before: readonly Fault[]) =>
    before.length > 0 ? [] : nestingFaults(larger, smaller),
} as const satisfies Check;
