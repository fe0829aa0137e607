/**
 * In: vertices of polylines, edges of hatches, fit points of splines. Out: paths in their own plane. Rests on: the published DXF reference: bulges (the
 * tangent of a quarter of the sweep), boundary paths of hatches.
 */
import { circlePath, type Path, polygonPath, transformedPath } from '../plane/path.ts';
import { distance, type Point } from '../plane/point.ts';
import type { Segment } from '../plane/segment.ts';
import type { Transform } from '../plane/transform.ts';
import type { Group } from './dxf-sections.ts';
import { splineAsCubics } from './nurbs.ts';

export interface Vertex {
  readonly at: Point;
  readonly bulge: number;
  /** How wide the line is from here to the next. */
  readonly widths: readonly [number, number];
}

/** Those of a light polyline, from its groups in turn. @param plainWidth where a vertex says none */
export function lightVertices(groups: readonly Group[], plainWidth: number): Vertex[] {
  const vertices: { at: { x: number; y: number }; bulge: number; widths: [number, number] }[] = [];
  for (const [code, value] of groups) {
    const last = vertices.at(-1);
    if (code === 10) vertices.push({ at: { x: Number(value), y: 0 }, bulge: 0, widths: [plainWidth, plainWidth] });
    else if (code === 20 && last) last.at.y = Number(value);
    else if (code === 42 && last) last.bulge = Number(value);
    else if (code === 40 && last) last.widths[0] = Number(value);
    else if (code === 41 && last) last.widths[1] = Number(value);
  }
  return vertices.filter((v) => Number.isFinite(v.at.x) && Number.isFinite(v.at.y));
}

export function polylinePath(vertices: readonly Pick<Vertex, 'at' | 'bulge'>[], isClosed: boolean): Path | null {
  const [first] = vertices;
  if (!first || vertices.length < 2) return null;
  const segments: Segment[] = [];
  const ends = isClosed ? [...vertices.slice(1), first] : vertices.slice(1);
  ends.forEach(({ at: to }, k) => {
    const { at: from, bulge } = vertices[k] as Vertex;
    if (distance(from, to) === 0) return;
    // A hair's breadth of a bulge is a straight line.
    segments.push(Math.abs(bulge) < 1e-9 ? { kind: 'line', to } : { kind: 'arc', to, sweep: 4 * Math.atan(bulge) });
  });
  const last = segments.at(-1);
  if (!last) return null;
  return { start: first.at, segments, closed: isClosed || (segments.length > 2 && distance(last.to, first.at) === 0) };
}

/** The band of a segment whose width changes along it: a trapezoid; of an arc a ring's part between two circles of the middle width. */
export function taperedBand(from: Vertex, to: Point): Path | null {
  const length = distance(from.at, to);
  const [a, b] = [from.widths[0] / 2, from.widths[1] / 2];
  if (length === 0 || !(a + b > 0)) return null;
  const n = { x: -(to.y - from.at.y) / length, y: (to.x - from.at.x) / length };
  const corner = (p: Point, by: number): Point => ({ x: p.x + by * n.x, y: p.y + by * n.y });
  const corners = [corner(from.at, -a), corner(to, -b), corner(to, b), corner(from.at, a)];
  return polygonPath(corners.filter((p, k) => distance(p, corners[(k + 3) % 4] as Point) > 1e-9));
}

/** A part of the unit circle, counter-clockwise from one angle to the other, brought to its place. */
export function arcPath(place: Transform, from: number, to: number, tolerance: number): Path {
  const whole = 2 * Math.PI;
  const sweep = (((to - from) % whole) + whole) % whole;
  if (sweep < 1e-9 || whole - sweep < 1e-9) return transformedPath(circlePath({ x: 0, y: 0 }, 1), place, tolerance);
  const at = (angle: number): Point => ({ x: Math.cos(angle), y: Math.sin(angle) });
  return transformedPath({ start: at(from), segments: [{ kind: 'arc', to: at(from + sweep), sweep }], closed: false }, place, tolerance);
}

/** The boundaries of a hatch, and how many edges of them could not be read. */
export function hatchBoundaries(groups: readonly Group[], tolerance: number): { readonly paths: Path[]; readonly unread: number } {
  const paths: Path[] = [];
  let unread = 0;
  const reader = new GroupReader(groups);
  reader.skipTo(91);
  const count = Math.min(10_000, reader.number(91));
  for (let k = 0; k < count && reader.skipTo(92); k++) {
    const flags = reader.number(92);
    if ((flags & 2) !== 0) {
      const hasBulge = reader.find(72) === 1;
      const isClosed = reader.find(73) !== 0;
      const vertices: Vertex[] = [];
      for (let n = reader.find(93); n > 0 && reader.skipTo(10); n--) {
        const at = { x: reader.number(10), y: reader.number(20) };
        vertices.push({ at, bulge: hasBulge ? reader.optional(42, 0) : 0, widths: [0, 0] });
      }
      const path = polylinePath(vertices, isClosed);
      if (path) paths.push(path);
      continue;
    }
    const edges: Path[] = [];
    for (let n = Math.min(100_000, reader.find(93)); n > 0 && reader.skipTo(72); n--) {
      const edge = edgeOf(reader, tolerance);
      if (edge) edges.push(edge);
      else unread++;
    }
    const path = joined(edges, tolerance);
    if (path) paths.push(path);
  }
  return { paths, unread };
}

function edgeOf(reader: GroupReader, tolerance: number): Path | null {
  const kind = reader.number(72);
  if (kind === 1) {
    const [from, to] = [{ x: reader.number(10), y: reader.number(20) }, { x: reader.number(11), y: reader.number(21) }]; // biome-ignore format: one line
    return distance(from, to) > 0 ? { start: from, segments: [{ kind: 'line', to }], closed: false } : null;
  }
  if (kind === 2 || kind === 3) {
    const centre = { x: reader.number(10), y: reader.number(20) };
    const axis = kind === 3 ? { x: reader.number(11), y: reader.number(21) } : null;
    const size = reader.number(40);
    const [from, to] = [reader.number(50), reader.number(51)].map((degrees) => (degrees * Math.PI) / 180) as [number, number];
    const isForward = reader.optional(73, 1) !== 0;
    const [x, y, ratio] = axis ? [axis.x, axis.y, size] : [size, 0, 1];
    const flip = isForward ? 1 : -1;
    // Clockwise angles are measured the other way.
    const place: Transform = { a: x, b: y, c: -y * ratio * flip, d: x * ratio * flip, e: centre.x, f: centre.y };
    if (!(Math.abs(ratio) > 0) || !(Math.hypot(x, y) > 0)) return null;
    return Math.abs(to - from) < 1e-12 ? null : arcPath(place, from, to, tolerance);
  }
  if (kind !== 4) return null;
  const degree = reader.find(94);
  const isRational = reader.find(73) !== 0;
  const [knotCount, pointCount] = [Math.min(100_000, reader.find(95)), Math.min(100_000, reader.find(96))];
  const knots = Array.from({ length: knotCount }, () => (reader.skipTo(40) ? reader.number(40) : Number.NaN));
  const points: Point[] = [];
  const weights: number[] = [];
  for (let k = 0; k < pointCount && reader.skipTo(10); k++) {
    points.push({ x: reader.number(10), y: reader.number(20) });
    if (isRational) weights.push(reader.optional(42, 1));
  }
  const made = knots.some(Number.isNaN) ? null : splineAsCubics({ degree, knots, points, weights }, tolerance);
  return made && { ...made, closed: false };
}

/** Edges one after another as one closed path; what rounding leaves between two of them is no line. */
function joined(edges: readonly Path[], tolerance: number): Path | null {
  const [first] = edges;
  if (!first) return null;
  const segments: Segment[] = [];
  const lead = (to: Point): void => {
    if (segments.length > 0 && distance((segments.at(-1) as Segment).to, to) > tolerance) segments.push({ kind: 'line', to });
  };
  for (const edge of edges) {
    lead(edge.start);
    segments.push(...edge.segments);
  }
  lead(first.start);
  return { start: first.start, segments: [...segments.slice(0, -1), { ...(segments.at(-1) as Segment), to: first.start }], closed: true };
}

/** Takes the groups of an entity in turn. */
class GroupReader {
  private at = 0;

  constructor(private readonly groups: readonly Group[]) {}

  /** Goes on to a code, which is taken next; false where there is none. */
  skipTo(code: number): boolean {
    let to = this.at;
    while (to < this.groups.length && this.groups[to]?.[0] !== code) to++;
    if (to >= this.groups.length) return false;
    this.at = to;
    return true;
  }

  /** The value of the code that stands here, or a few groups on. */
  number(code: number): number {
    for (let k = this.at; k < Math.min(this.groups.length, this.at + 8); k++)
      if (this.groups[k]?.[0] === code) {
        this.at = k + 1;
        return finite(this.groups[k]?.[1]);
      }
    return 0;
  }

  find(code: number): number {
    return this.skipTo(code) ? this.number(code) : 0;
  }

  /** The value of a code that may stand next. */
  optional(code: number, otherwise: number): number {
    return this.groups[this.at]?.[0] === code ? this.number(code) : otherwise;
  }
}

const finite = (value: string | undefined): number => (Number.isFinite(Number(value)) ? Number(value) : 0);
