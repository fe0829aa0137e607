/**
 * In: the two faces of a core, the burn of the wire by its speed, and how fast it goes. Out: the wire's path at both faces, place for place,
 * half the burn outside of the core: it comes in from behind, goes once round, and leaves as it came.
 * Runs answer to one another; within a run places are matched by their share of the wire's own way, so that the wire is as fast all along it
 * and burns as wide: the faster face goes at the feed; the other is slower and burns wider.
 */
import { add, distance, dot, type Point, subtract, unitVector } from '../plane/index.ts';
import type { Burn } from './burn.ts';
import type { CoreFace } from './wing-panel.ts';

/** Where the wire is at both faces at once, and in how many minutes it comes there from the place before. */
export interface WirePlace {
  readonly root: Point;
  readonly tip: Point;
  readonly minutes: number;
}

export interface WireSettings {
  readonly burn: Burn;
  /** Of the faster face. */
  readonly feedMmPerMin: number;
  /** How far behind the core the wire comes in, mm. */
  readonly leadMm: number;
}

/** Between places the wire may leave the curve by this at either face, mm. */
const chordMm = 0.002;
/** Rounds in which burn, offset, length and speed follow from one another. */
const rounds = 5;
const stillMm = 1e-9;

export function wirePath(faces: { readonly root: CoreFace; readonly tip: CoreFace }, settings: WireSettings): WirePlace[] {
  const { feedMmPerMin, leadMm } = settings;
  const runs = offsetFaces(faces, settings);
  const round = runs.flatMap(({ root, tip }, k): WirePlace[] => {
    const shares = sharesOf([root, tip]);
    const minutes = Math.max(root.length, tip.length) / feedMmPerMin;
    const places = shares.map((share, n) => ({ root: root.at(share), tip: tip.at(share), minutes: n === 0 ? 0 : minutes * (share - (shares[n - 1] as number)) })); // biome-ignore format: one line
    return k === 0 ? places : places.slice(1);
  });
  // In along a level line from behind, and out along it.
  const [first] = round as [WirePlace];
  const behind = { x: leadMm, y: 0 };
  const away = { root: add(first.root, behind), tip: add(first.tip, behind) };
  const minutes = leadMm / feedMmPerMin;
  return [{ ...away, minutes: 0 }, { ...first, minutes }, ...round.slice(1), { ...away, minutes }];
}

/** The wire's way along each run of both faces. */
function offsetFaces(
  { root, tip }: { readonly root: CoreFace; readonly tip: CoreFace },
  { burn, feedMmPerMin }: WireSettings,
): { root: Polyline; tip: Polyline }[] {
  const cores = root.runs.map(({ points }, k) => ({ root: new Polyline(points), tip: new Polyline(tip.runs[k]?.points ?? []) }));
  // An edge that neither face has is none.
  const own = cores.filter((run) => Math.max(run.root.length, run.tip.length) > stillMm);
  // A run that a face does not have leads the way that it does at the other.
  const leans = own.map(({ root: a, tip: b }) => directionOf((a.length > b.length ? a : b).points));
  let runs = own;
  for (let round = 0; round < rounds; round++) {
    const half = runs.map((run) => {
      const far = Math.max(run.root.length, run.tip.length);
      const of = ({ length }: Polyline): number => burn(feedMmPerMin * Math.max(slowestShare, length / far)) / 2;
      return { root: of(run.root), tip: of(run.tip) };
    });
    const moved = (['root', 'tip'] as const).map((face) => offsetRuns(own.map((run) => run[face].points), half.map((one) => one[face]), leans)); // biome-ignore format: one line
    runs = own.map((_, k) => ({ root: new Polyline(moved[0]?.[k] as Point[]), tip: new Polyline(moved[1]?.[k] as Point[]) }));
  }
  return runs;
}
/** Where one face all but stands still the burn is reckoned as if it went at this share of the feed: there is no right one. */
const slowestShare = 0.15;

/** Shares of two lines between which neither leaves its chords. */
function sharesOf(lines: readonly Polyline[]): number[] {
  const between = (from: number, to: number, depth: number): number[] => {
    const isClose = [0.25, 0.5, 0.75].every((t) =>
      lines.every((line) => {
        const [p, q, at] = [line.at(from), line.at(to), line.at(from + t * (to - from))];
        return distance(at, { x: p.x + t * (q.x - p.x), y: p.y + t * (q.y - p.y) }) < chordMm;
      }),
    );
    if (isClose || depth > 14) return [to];
    const middle = (from + to) / 2;
    return [...between(from, middle, depth + 1), ...between(middle, to, depth + 1)];
  };
  return [0, ...between(0, 1, 0)];
}

/** Runs that turn by less where they meet have no corner there, and turns about a corner are made in such steps, radians. */
const straightOn = 0.12;
/** Offsets that meet farther out than so many times the distance do not meet. */
const farthestMitre = 4;

/** Runs set off to the right of travel, each by its own distance: round the corners of the core, and to where they meet in its notches. */
function offsetRuns(runs: readonly (readonly Point[])[], by: readonly number[], leans: readonly Point[]): Point[][] {
  const n = runs.length;
  const moved = runs.map((run, k) => offsetLine(run, by[k] as number, leans[k] as Point));
  const joints = runs.map((run, k): Joint => {
    const next = (k + 1) % n;
    const [d, e] = [directionAt(run, 1, leans[k] as Point), directionAt(runs[next] as readonly Point[], 0, leans[next] as Point)];
    const [p, q] = [(moved[k] as Point[]).at(-1) as Point, (moved[next] as Point[])[0] as Point];
    const [own, other] = [by[k] as number, by[next] as number];
    const turn = turnTo(d, e);
    if (Math.abs(turn) < straightOn) return meeting({ x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 });
    if (turn > 0) {
      const around = aroundCorner(run.at(-1) as Point, d, turn, own);
      if (Math.abs(own - other) < sameBurnMm) return { end: around, start: [around.at(-1) as Point] };
      // The step from one distance to the other is gone by the wire that burns less wide.
      return own > other ? { end: around, start: [around.at(-1) as Point, q] } : { end: [...around, q], start: [q] };
    }
    const met = add(p, scaled(d, ((q.x - p.x) * e.y - (q.y - p.y) * e.x) / (d.x * e.y - d.y * e.x)));
    return distance(met, run.at(-1) as Point) <= farthestMitre * Math.max(own, other) ? meeting(met) : { end: [p, q], start: [q] };
  });
  return moved.map((points, k) => [...(joints[(k + n - 1) % n] as Joint).start, ...points.slice(1, -1), ...(joints[k] as Joint).end]);
}

/** Runs whose distances differ by less go on into one another, mm. */
const sameBurnMm = 0.012;

/** How a run ends, and how the next one starts, in one place. */
interface Joint {
  readonly end: readonly Point[];
  readonly start: readonly Point[];
}
const meeting = (at: Point): Joint => ({ end: [at], start: [at] });

/** From one direction to another, to the left where it is more than nothing; right back is to the left: round the tip of a core. */
function turnTo(d: Point, e: Point): number {
  const turn = Math.atan2(d.x * e.y - d.y * e.x, dot(d, e));
  return turn < straightOn - Math.PI ? turn + 2 * Math.PI : turn;
}

/** Places about a corner of the core, from the right of one direction to the right of the next. */
function aroundCorner(corner: Point, d: Point, turn: number, by: number): Point[] {
  const steps = Math.ceil(turn / straightOn);
  return Array.from({ length: steps + 1 }, (_, k) => {
    const angle = (turn * k) / steps;
    const [c, s] = [Math.cos(angle), Math.sin(angle)];
    // The direction turned by the angle, and its right.
    const along = { x: c * d.x - s * d.y, y: s * d.x + c * d.y };
    return { x: corner.x + by * along.y, y: corner.y - by * along.x };
  });
}

const scaled = ({ x, y }: Point, by: number): Point => ({ x: x * by, y: y * by });

const directionOf = (run: readonly Point[]): Point => unitVector(subtract(run.at(-1) as Point, run[0] as Point));

/** At the start of a run or at its end. @param lean of one without length */
function directionAt(run: readonly Point[], end: 0 | 1, lean: Point): Point {
  const ordered = end === 0 ? run : [...run].reverse();
  const [first] = ordered as [Point];
  const next = ordered.find((p) => distance(p, first) > stillMm);
  if (!next) return lean;
  return unitVector(end === 0 ? subtract(next, first) : subtract(first, next));
}

function offsetLine(run: readonly Point[], by: number, lean: Point): Point[] {
  const directions = run.slice(1).map((q, k) => subtract(q, run[k] as Point));
  const known = directions.filter((d) => Math.hypot(d.x, d.y) > stillMm);
  const unit = directions.map((d) => (Math.hypot(d.x, d.y) > stillMm ? unitVector(d) : known[0] ? unitVector(known[0]) : lean));
  return run.flatMap((p, k) => {
    const [d, e] = [unit[Math.max(0, k - 1)] as Point, unit[Math.min(k, unit.length - 1)] as Point];
    const turn = turnTo(d, e);
    if (turn > straightOn) return aroundCorner(p, d, turn, by);
    const sum = { x: d.x + e.x, y: d.y + e.y };
    // Along the bisector of both, so that the offsets of both steps keep their distance.
    const scale = (2 * by) / Math.max(dot(sum, sum), 1e-12);
    return [{ x: p.x + sum.y * scale, y: p.y - sum.x * scale }];
  });
}

/** Places one after another, by their share of the whole length. */
class Polyline {
  private readonly upTo: readonly number[];
  readonly length: number;

  constructor(readonly points: readonly Point[]) {
    const upTo = [0];
    for (let k = 1; k < points.length; k++) upTo.push((upTo[k - 1] as number) + distance(points[k - 1] as Point, points[k] as Point));
    this.upTo = upTo;
    this.length = upTo.at(-1) as number;
  }

  at(share: number): Point {
    const { length } = this;
    if (share <= 0 || length === 0) return this.points[0] as Point;
    if (share >= 1) return this.points.at(-1) as Point;
    const wanted = share * length;
    let [low, high] = [0, this.upTo.length - 1];
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if ((this.upTo[middle] as number) <= wanted) low = middle;
      else high = middle;
    }
    const [a, b] = [this.upTo[low] as number, this.upTo[high] as number];
    const [p, q] = [this.points[low] as Point, this.points[high] as Point];
    const t = b > a ? (wanted - a) / (b - a) : 0;
    return { x: p.x + (q.x - p.x) * t, y: p.y + (q.y - p.y) * t };
  }
}
