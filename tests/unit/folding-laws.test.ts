/**
 * Panels of die lines at random against jsts, which finds the faces of the same lines (polygonize), and folded nets against
 * three.js, whose scene graph turns one panel on another.
 */
import { foldedPanels, foldTree, moved3, panelsOf } from '@nuvet/core/folding';
import type { Piece, Purpose } from '@nuvet/core/job';
import { distance, type Path, type Point, polygonPath } from '@nuvet/core/plane';
import fc from 'fast-check';
import Polygonizer from 'jsts/org/locationtech/jts/operation/polygonize/Polygonizer.js';
import UnaryUnionOp from 'jsts/org/locationtech/jts/operation/union/UnaryUnionOp.js';
import { Object3D, Quaternion, Vector3 } from 'three';
import { describe, expect, it } from 'vitest';
import { linesFrom } from './polygons-of-jsts.ts';
import { lawRuns } from './random-laws.ts';
import { number } from './random-outlines.ts';

let count = 0;
const piece = (outer: Path, purpose: Purpose): Piece => {
  const name = `Part ${++count}`;
  return { id: name, name, purpose, leftOut: false, runsOff: false, outer, holes: [] };
};
const line = (from: Point, to: Point): Path => ({ start: from, segments: [{ kind: 'line', to }], closed: false });

/** A convex sheet and creases right across it, each from a place on its border to another. */
const creased = fc
  .record({
    radii: fc.array(number(60, 90), { minLength: 4, maxLength: 9 }),
    across: fc.array(fc.tuple(number(0, 1), number(0.2, 0.8)), { minLength: 1, maxLength: 6 }),
  })
  .map(({ radii, across }) => {
    // On one circle, so that no crease leaves the sheet.
    const n = radii.length;
    const turns = radii.map((_, k) => (2 * Math.PI * (k + (radii[k] as number) / 200)) / n);
    const corners = turns.map((a) => ({ x: 80 * Math.cos(a), y: 80 * Math.sin(a) }));
    const at = (u: number): Point => {
      const v = (u % 1) * n;
      const [p, q] = [corners[Math.floor(v) % n] as Point, corners[(Math.floor(v) + 1) % n] as Point];
      const t = v - Math.floor(v);
      return { x: p.x + t * (q.x - p.x), y: p.y + t * (q.y - p.y) };
    };
    return { sheet: polygonPath(corners), creases: across.map(([u, by]) => line(at(u), at(u + by))) };
  });

function shortenedBy(crease: Path, mm: number): Path {
  const [from, to] = [crease.start, (crease.segments[0] as Path['segments'][0]).to];
  const by = mm / distance(from, to);
  const along = (t: number): Point => ({ x: from.x + t * (to.x - from.x), y: from.y + t * (to.y - from.y) });
  return line(along(by), along(1 - by));
}

/** Where lines cross or end: what is told apart must lie apart. */
function crossings(creases: readonly Path[], sheet: Path): Point[] {
  const made: Point[] = [...sheet.segments.map(({ to }) => to)];
  const lines = creases.map((c) => [c.start, (c.segments[0] as Path['segments'][0]).to] as const);
  lines.forEach(([a, b], k) => {
    made.push(a, b);
    for (const [c, d] of lines.slice(k + 1)) {
      const det = (b.x - a.x) * (d.y - c.y) - (b.y - a.y) * (d.x - c.x);
      const t = ((c.x - a.x) * (d.y - c.y) - (c.y - a.y) * (d.x - c.x)) / det;
      const u = ((c.x - a.x) * (b.y - a.y) - (c.y - a.y) * (b.x - a.x)) / det;
      if (t > 0 && t < 1 && u > 0 && u < 1) made.push({ x: a.x + t * (b.x - a.x), y: a.y + t * (b.y - a.y) });
    }
  });
  return made;
}

describe('panels between cuts and creases', () => {
  it.each([0, 0.4])('are the faces that jsts finds, with creases that end %f mm short', (short) => {
    fc.assert(
      fc.property(creased, ({ sheet, creases }) => {
        // Lines that meet at small angles, or places that lie together, are welded on purpose.
        const places = crossings(creases, sheet);
        fc.pre(places.every((p, k) => places.slice(k + 1).every((q) => distance(p, q) > 10)));
        const directions = [...creases, ...sheet.segments.map((s, k) => line(k === 0 ? sheet.start : (sheet.segments[k - 1] as typeof s).to, s.to))].map((c) => { const to = (c.segments[0] as Path['segments'][0]).to; return Math.atan2(to.y - c.start.y, to.x - c.start.x); }); // biome-ignore format: one list
        fc.pre(directions.every((a, k) => directions.slice(k + 1).every((b) => Math.abs(Math.sin(a - b)) > 0.15)));
        const { panels, hinges } = panelsOf([piece(sheet, 'cut'), ...creases.map((c) => piece(shortenedBy(c, short), 'score'))]);
        const judge = new Polygonizer();
        // It takes lines as they are: ones that end on another to the last digit may miss it, what sticks out it leaves away.
        judge.add(UnaryUnionOp.union(linesFrom([sheet, ...creases.map((c) => shortenedBy(c, -0.5))])));
        const truth = judge.getPolygons().toArray().map((p: { getArea(): number }) => p.getArea()) as number[]; // biome-ignore format: one line
        expect(panels).toHaveLength(truth.length);
        truth.sort((a, b) => b - a);
        for (const [k, { areaMm2 }] of panels.entries()) expect(Math.abs(areaMm2 - (truth[k] as number))).toBeLessThan(0.05);
        // Each stretch of a crease parts two panels: of a plane graph edges are places and faces less one (Euler).
        for (const { left, right } of hinges) expect(left).not.toBe(right);
        const inner = places.length - sheet.segments.length - 2 * creases.length;
        expect(hinges).toHaveLength(creases.length + 2 * inner);
      }),
      { numRuns: lawRuns(120) },
    );
  });
});

/** A net of squares that hang together like a tree: their places on a grid, each after the first beside one before it. */
const net = fc.array(fc.tuple(fc.nat(), fc.nat({ max: 3 })), { minLength: 2, maxLength: 9 }).map((steps) => {
  const squares: { x: number; y: number; on: number }[] = [{ x: 0, y: 0, on: -1 }];
  for (const [n, way] of steps) {
    const on = n % squares.length;
    const from = squares[on] as (typeof squares)[0];
    const [dx, dy] = [[1, 0], [0, 1], [-1, 0], [0, -1]][way] as [number, number]; // biome-ignore format: four ways
    const next = { x: from.x + dx, y: from.y + dy, on };
    // Beside no square but the one that it hangs on, or there would be a cut that is drawn nowhere.
    const beside = squares.filter((s) => Math.abs(s.x - next.x) + Math.abs(s.y - next.y) <= 1);
    if (beside.length === 1) squares.push(next);
  }
  return squares;
});

const side = 40;
function drawnNet(squares: readonly { x: number; y: number; on: number }[]): Piece[] {
  // The outline: sides that only one square has, walked round; at places where squares touch by a corner the way bears right.
  const edges = new Map<string, [Point, Point]>();
  const key = (p: Point, q: Point) => `${p.x},${p.y},${q.x},${q.y}`;
  for (const { x, y } of squares) {
    const corners = [{ x, y }, { x: x + 1, y }, { x: x + 1, y: y + 1 }, { x, y: y + 1 }]; // biome-ignore format: a square
    corners.forEach((p, k) => {
      const q = corners[(k + 1) % 4] as Point;
      if (!edges.delete(key(q, p))) edges.set(key(p, q), [p, q]);
    });
  }
  const [first] = [...edges.values()] as [[Point, Point]];
  const way: Point[] = [first[0]];
  let [from, to] = first;
  do {
    way.push(to);
    const turnOf = (q: Point): number => (to.x - from.x) * (q.y - to.y) - (to.y - from.y) * (q.x - to.x);
    const next = [...edges.values()].filter(([p]) => p.x === to.x && p.y === to.y).sort((a, b) => turnOf(b[1]) - turnOf(a[1]))[0] as [Point, Point]; // biome-ignore format: one line
    [from, to] = next;
  } while (from.x !== first[0].x || from.y !== first[0].y || to.x !== first[1].x || to.y !== first[1].y);
  const mm = ({ x, y }: Point): Point => ({ x: x * side, y: y * side });
  const creases = squares.flatMap(({ x, y, on }) => {
    const other = squares[on];
    if (!other) return [];
    const [a, b] = other.x === x ? [{ x, y: Math.max(y, other.y) }, { x: x + 1, y: Math.max(y, other.y) }] : [{ x: Math.max(x, other.x), y }, { x: Math.max(x, other.x), y: y + 1 }]; // biome-ignore format: two ends
    return [piece(line(mm(a as Point), mm(b as Point)), 'score')];
  });
  return [piece(polygonPath(way.slice(0, -1).map(mm)), 'cut'), ...creases];
}

describe('a net folded by any angles', () => {
  it('has every corner where three.js puts it', () => {
    fc.assert(
      fc.property(net, fc.array(number(-3, 3), { minLength: 12, maxLength: 12 }), (squares, turns) => {
        fc.pre(squares.length > 1);
        // Squares that touch by a corner only would weld two outlines there.
        fc.pre(squares.every((s, k) => squares.slice(k + 1).every((t) => Math.max(Math.abs(s.x - t.x), Math.abs(s.y - t.y)) > 1 || t.x === s.x || t.y === s.y || squares.some((r) => (r.x === s.x && r.y === t.y) || (r.x === t.x && r.y === s.y))))); // biome-ignore format: one wish
        const folded = panelsOf(drawnNet(squares));
        expect(folded.panels).toHaveLength(squares.length);
        expect(folded.hinges).toHaveLength(squares.length - 1);
        const angles = folded.hinges.map((_, k) => turns[k] as number);
        const tree = foldTree(folded);
        const motions = foldedPanels(folded, tree, angles);
        // Each panel an object of the scene that hangs on a pivot in its crease, which hangs on the panel before.
        const objects: Object3D[] = [];
        for (const k of tree.order) {
          const object = new Object3D();
          objects[k] = object;
          const hang = tree.hangs[k];
          if (!hang) continue;
          const { from, to, left } = folded.hinges[hang.hinge] as (typeof folded.hinges)[0];
          const pivot = new Object3D();
          pivot.position.set(from.x, from.y, 0);
          const axis = new Vector3(to.x - from.x, to.y - from.y, 0).normalize();
          // Towards the viewer: the panel on the left of the crease turns by the right-hand rule.
          pivot.setRotationFromQuaternion(new Quaternion().setFromAxisAngle(axis, (angles[hang.hinge] as number) * (left === k ? 1 : -1)));
          object.position.set(-from.x, -from.y, 0);
          pivot.add(object);
          (objects[hang.on] as Object3D).add(pivot);
        }
        (objects[tree.base] as Object3D).updateMatrixWorld(true);
        folded.panels.forEach((panel, k) => {
          for (const { from } of panel.sides) {
            const truth = (objects[k] as Object3D).localToWorld(new Vector3(from.x, from.y, 0));
            const { x, y, z } = moved3(motions[k] as (typeof motions)[0], { ...from, z: 0 });
            expect(truth.distanceTo(new Vector3(x, y, z))).toBeLessThan(1e-9 * side * squares.length);
          }
        });
      }),
      { numRuns: lawRuns(150) },
    );
  });
});
