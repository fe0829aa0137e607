/**
 * In: the d attribute of an SVG path. Out: paths in its own coordinates, y down.
 * Rests on: SVG 2 (W3C), section 9.3, the path data grammar, and appendix B.2, elliptical arcs by their centre.
 */
import type { Path } from '../plane/path.ts';
import { distance, type Point } from '../plane/point.ts';
import { type Segment, transformedSegment } from '../plane/segment.ts';
import { chain, shift, stretch, turn } from '../plane/transform.ts';

/** How many numbers each command takes. */
const sizes: Record<string, number> = { m: 2, l: 2, h: 1, v: 1, c: 6, s: 4, q: 4, t: 2, a: 7, z: 0 };
const number = /[\s,]*([+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?)/y;
const flag = /[\s,]*([01])/y;
const letter = /[\s,]*([mlhvcsqtazMLHVCSQTAZ])/y;

/** Takes commands and numbers off the data, one after the other. */
class Words {
  private at = 0;

  constructor(private readonly d: string) {}

  next(pattern: RegExp): string | null {
    pattern.lastIndex = this.at;
    const found = pattern.exec(this.d);
    if (found) this.at = pattern.lastIndex;
    return found ? (found[1] as string) : null;
  }

  /** The numbers of a command; null where one is missing. */
  numbersOf(kind: string): number[] | null {
    const values: number[] = [];
    for (let k = 0; k < (sizes[kind] as number); k++) {
      const text = this.next(kind === 'a' && (k === 3 || k === 4) ? flag : number);
      if (text === null) return null;
      values.push(Number(text));
    }
    return values;
  }

  get isAtEnd(): boolean {
    return /^[\s,]*$/.test(this.d.slice(this.at));
  }
}

/** Paths up to the first fault in the data, as the standard asks; `isWhole` tells whether there was none. */
export function readPathData(d: string, tolerance: number): { paths: Path[]; isWhole: boolean } {
  const words = new Words(d);
  const builder = new PathBuilder(tolerance);
  let command = words.next(letter);
  if (command && command.toLowerCase() !== 'm') return { paths: [], isWhole: false };
  while (command) {
    const kind = command.toLowerCase();
    const values = words.numbersOf(kind);
    if (!values) return { paths: builder.finished(), isWhole: false };
    builder.take(kind, command === kind, values);
    const following = words.next(letter);
    if (following) command = following;
    else if (kind === 'z' || words.isAtEnd) break;
    // More numbers repeat the command; after a move they are lines.
    else if (kind === 'm') command = command === 'm' ? 'l' : 'L';
  }
  return { paths: builder.finished(), isWhole: words.isAtEnd };
}

class PathBuilder {
  private readonly paths: Path[] = [];
  private start: Point = { x: 0, y: 0 };
  private here: Point = { x: 0, y: 0 };
  private segments: Segment[] = [];
  /** The handle that a smooth curve goes on from. */
  private handle: { readonly kind: 'cubic' | 'quadratic'; readonly at: Point } | null = null;

  constructor(private readonly tolerance: number) {}

  take(kind: string, isRelative: boolean, v: readonly number[]): void {
    const from = isRelative ? this.here : { x: 0, y: 0 };
    const p = (k: number): Point => ({ x: from.x + (v[k] as number), y: from.y + (v[k + 1] as number) });
    const { here } = this;
    const mirrored = (wanted: 'cubic' | 'quadratic'): Point =>
      this.handle?.kind === wanted ? { x: 2 * here.x - this.handle.at.x, y: 2 * here.y - this.handle.at.y } : here;
    switch (kind) {
      case 'm':
        this.end(false);
        this.start = p(0);
        this.here = this.start;
        this.handle = null;
        return;
      case 'z':
        this.end(true);
        return;
      case 'h':
        this.line({ x: from.x + (v[0] as number), y: here.y });
        return;
      case 'v':
        this.line({ x: here.x, y: from.y + (v[0] as number) });
        return;
      case 'l':
        this.line(p(0));
        return;
      case 'c':
        this.cubic(p(0), p(2), p(4));
        return;
      case 's':
        this.cubic(mirrored('cubic'), p(0), p(2));
        return;
      case 'q':
        this.quadratic(p(0), p(2));
        return;
      case 't':
        this.quadratic(mirrored('quadratic'), p(0));
        return;
      default:
        this.arc(v, p(5));
    }
  }

  private line(to: Point): void {
    this.handle = null;
    if (distance(this.here, to) > 0) this.segments.push({ kind: 'line', to });
    this.here = to;
  }

  private cubic(c1: Point, c2: Point, to: Point): void {
    this.segments.push({ kind: 'cubic', c1, c2, to });
    this.handle = { kind: 'cubic', at: c2 };
    this.here = to;
  }

  private quadratic(control: Point, to: Point): void {
    const { here } = this;
    const towards = (end: Point): Point => ({ x: end.x + (2 / 3) * (control.x - end.x), y: end.y + (2 / 3) * (control.y - end.y) });
    this.cubic(towards(here), towards(to), to);
    this.handle = { kind: 'quadratic', at: control };
  }

  private arc([rx = 0, ry = 0, degrees = 0, large = 0, sweep = 0]: readonly number[], to: Point): void {
    const from = this.here;
    if (rx === 0 || ry === 0 || distance(from, to) === 0) {
      this.line(to);
      return;
    }
    const angle = (degrees * Math.PI) / 180;
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    const [hx, hy] = [(from.x - to.x) / 2, (from.y - to.y) / 2];
    let [a, b] = [Math.abs(rx), Math.abs(ry)];
    const [x, y] = [c * hx + s * hy, -s * hx + c * hy];
    const grow = Math.max(1, Math.sqrt((x / a) ** 2 + (y / b) ** 2));
    [a, b] = [a * grow, b * grow];
    const root = Math.sqrt(Math.max(0, (a * a * b * b - a * a * y * y - b * b * x * x) / (a * a * y * y + b * b * x * x)));
    const sign = large === sweep ? -1 : 1;
    const [cx, cy] = [(sign * root * a * y) / b, (-sign * root * b * x) / a];
    const centre = { x: c * cx - s * cy + (from.x + to.x) / 2, y: s * cx + c * cy + (from.y + to.y) / 2 };
    const first = Math.atan2((y - cy) / b, (x - cx) / a);
    let turned = Math.atan2((-y - cy) / b, (-x - cx) / a) - first;
    if (sweep === 0 && turned > 0) turned -= 2 * Math.PI;
    if (sweep === 1 && turned < 0) turned += 2 * Math.PI;
    // A part of the unit circle, brought to its ellipse: where that is a circle it stays an arc.
    const place = chain(shift(centre.x, centre.y), chain(turn(angle), stretch(a, b)));
    const unitFrom = { x: Math.cos(first), y: Math.sin(first) };
    const unitTo = { x: Math.cos(first + turned), y: Math.sin(first + turned) };
    const made = transformedSegment(unitFrom, { kind: 'arc', to: unitTo, sweep: turned }, place, this.tolerance);
    this.segments.push(...made.slice(0, -1), { ...(made.at(-1) as Segment), to });
    this.handle = null;
    this.here = to;
  }

  private end(isClosed: boolean): void {
    const { start, here, segments } = this;
    if (segments.length > 0) {
      const gap = distance(here, start);
      const closing: Segment[] = isClosed && gap > 0 ? [{ kind: 'line', to: start }] : [];
      this.paths.push({ start, segments: [...segments, ...closing], closed: isClosed || (gap === 0 && segments.length > 1) });
    }
    this.segments = [];
    this.here = start;
    this.handle = null;
  }

  finished(): Path[] {
    this.end(false);
    return this.paths;
  }
}
