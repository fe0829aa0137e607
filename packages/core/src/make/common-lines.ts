/**
 * In: ways of the tool in their order. Out: the same, without the stretches of straight line that were cut before: where the edges of two parts lie
 * a kerf apart one cut frees both.
 */
import { type Path, type Point, stepsOf } from '../plane/index.ts';

/** Lines nearer to one another than this are one, mm; and shorter stretches than this are cut again. */
const sameMm = 0.02;
const shortestMm = 1;

interface Line {
  readonly from: Point;
  /** Along it, of length 1. */
  readonly u: Point;
  readonly length: number;
}

export class CutLines {
  private readonly lines: Line[] = [];

  /** What of a way is still to be cut, as ways; from then on it counts as cut. */
  rest(path: Path): Path[] {
    const parts: Path[] = [];
    let open: { start: Point; segments: Path['segments'][number][] } | null = null;
    const put = (from: Point, segment: Path['segments'][number]): void => {
      open ??= { start: from, segments: [] };
      open.segments.push(segment);
    };
    const end = (): void => {
      if (open) parts.push({ ...open, closed: false });
      open = null;
    };
    const steps = stepsOf(path);
    const fresh: Line[] = [];
    for (const { from, segment } of steps) {
      const line = segment.kind === 'line' ? lineOf(from, segment.to) : null;
      if (!line) {
        put(from, segment);
        continue;
      }
      fresh.push(line);
      const at = (along: number): Point => (along <= 0 ? from : along >= line.length ? segment.to : { x: from.x + along * line.u.x, y: from.y + along * line.u.y }); // biome-ignore format: one line
      let done = 0;
      for (const [low, high] of this.cutOf(line)) {
        if (low > done) put(at(done), { kind: 'line', to: at(low) });
        end();
        done = high;
      }
      if (done < line.length) put(at(done), { kind: 'line', to: segment.to });
    }
    end();
    this.lines.push(...fresh);
    if (parts.length === 0) return [];
    const [first, last] = [parts[0] as Path, parts.at(-1) as Path];
    const isWhole = parts.length === 1 && first.segments.length === path.segments.length;
    if (isWhole) return [path];
    // A closed way whose start was not cut before goes on over it.
    const joins = path.closed && parts.length > 1 && isSame(first.start, path.start) && isSame(endOfPath(last), path.start);
    return joins ? [...parts.slice(1, -1), { start: last.start, segments: [...last.segments, ...first.segments], closed: false }] : parts;
  }

  /** Stretches of a line that were cut, as ranges along it. */
  private cutOf(line: Line): [number, number][] {
    const ranges = this.lines.flatMap((other): [number, number][] => {
      if (Math.abs(other.u.x * line.u.y - other.u.y * line.u.x) > 1e-4) return [];
      const [dx, dy] = [other.from.x - line.from.x, other.from.y - line.from.y];
      if (Math.abs(dx * line.u.y - dy * line.u.x) > sameMm) return [];
      const start = dx * line.u.x + dy * line.u.y;
      const stop = start + other.length * (other.u.x * line.u.x + other.u.y * line.u.y);
      const [low, high] = [Math.max(0, Math.min(start, stop)), Math.min(line.length, Math.max(start, stop))];
      return high - low > shortestMm ? [[low, high]] : [];
    });
    return ranges
      .sort(([a], [b]) => a - b)
      .reduce<[number, number][]>((all, range) => {
        const last = all.at(-1);
        if (last && range[0] <= last[1] + sameMm) last[1] = Math.max(last[1], range[1]);
        else all.push([...range]);
        return all;
      }, []);
  }
}

function lineOf(from: Point, to: Point): Line | null {
  const length = Math.hypot(to.x - from.x, to.y - from.y);
  return length > shortestMm ? { from, u: { x: (to.x - from.x) / length, y: (to.y - from.y) / length }, length } : null;
}

const isSame = (a: Point, b: Point): boolean => Math.hypot(a.x - b.x, a.y - b.y) < 1e-9;
const endOfPath = (path: Path): Point => (path.segments.at(-1) as Path['segments'][number]).to;
