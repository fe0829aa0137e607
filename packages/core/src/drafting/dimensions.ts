/**
 * In: outlines on a sheet, and where they lie there. Out: their dimensions: overall, holes from a datum, diameters, radii and angles, each with
 * its lines, heads and text, outside the outlines and clear of one another. Values are worked out on the outlines themselves.
 * Rests on: ISO 129-1:2018 (from memory): lines 10 mm off the outline and 7 mm apart, heads 3 mm long, text above the line and along it.
 */
import { type Box, boxAroundBoxes, circleOf, type Path, type Point, pathBox, polygonOf, polygonPath, stepsOf } from '../plane/index.ts';
import { type DrawnDimension, letters, type SheetText, textWidth } from './sheet-lines.ts';

export interface DimensionRules {
  readonly system: 'iso' | 'inch';
  readonly holes: boolean;
  readonly radii: boolean;
  readonly angles: boolean;
  readonly datum: 'lower left' | 'middle';
  readonly leftOut: readonly string[];
  readonly moved: readonly { readonly name: string; readonly dx: number; readonly dy: number }[];
}

/** On the paper, mm. */
const firstOffMm = 10;
const nextOffMm = 7;
const headMm = 3;
const headShare = 1 / 6;
const gapMm = 1;
const overMm = 2;
const textOffMm = 1;
/** Of positions, diameters and the like no more are drawn than this each. */
const mostOfKind = 8;
/** A text moves so many steps out at most to find room. */
const mostSteps = 12;
/** Chords of outlines leave them by this on the paper, mm. */
const chordMm = 0.1;
/** Circles, radii and positions that differ by less are the same, mm: traced ones differ by a little. */
const sameMm = 0.025;
/** Angles between straight edges at least so long on the paper are told, mm; right ones need no word. */
const leastEdgeMm = 8;
const rightDegrees = 0.05;

export interface Hole {
  readonly centre: Point;
  readonly radius: number;
}

/** The circle that a path is, where it is one. */
export function holeOf(path: Path): Hole | null {
  if (!path.closed || path.segments.length === 0) return null;
  const circles = stepsOf(path).map(({ from, segment }) => (segment.kind === 'arc' ? circleOf(from, segment) : null));
  const [first] = circles;
  if (!first) return null;
  const isOne = circles.every((circle) => circle !== null && Math.abs(circle.radius - first.radius) < sameMm && Math.hypot(circle.centre.x - first.centre.x, circle.centre.y - first.centre.y) < sameMm); // biome-ignore format: one line
  return isOne ? { centre: first.centre, radius: first.radius } : null;
}

/** As it is written: millimetres without needless noughts and with a decimal point, inches to a thousandth. */
export function lengthWritten(mm: number, system: 'iso' | 'inch'): string {
  return system === 'iso' ? String(Number(mm.toFixed(2))) : `${(mm / 25.4).toFixed(3)}"`;
}

export class Dimensioning {
  readonly dimensions: DrawnDimension[] = [];
  private readonly box: Box;
  /** The outlines' chords on the paper, that texts keep off. */
  private readonly chords: readonly (readonly [Point, Point])[];
  private below = firstOffMm;
  private left = firstOffMm;

  /** @param onPaper from the outlines' plane to the paper. @param scale of the paper's length to theirs. @param keepOff other views, on the paper */
  constructor(
    private readonly paths: readonly Path[],
    private readonly onPaper: (p: Point) => Point,
    private readonly scale: number,
    private readonly rules: DimensionRules,
    private readonly keepOff: readonly Box[] = [],
  ) {
    this.box = boxAroundBoxes(paths.map(pathBox)) as Box;
    this.chords = paths.flatMap((path) => {
      const places = polygonOf(path, chordMm / scale).map(onPaper);
      return places.flatMap((p, k): [Point, Point][] =>
        k + 1 < places.length || path.closed ? [[p, places[(k + 1) % places.length] as Point]] : [],
      );
    });
  }

  /** All of them, those nearest to the outlines first; overall ones lie farthest out. */
  place(): readonly DrawnDimension[] {
    if (this.rules.holes) this.placeHoles();
    const { minX, minY, maxX, maxY } = this.box;
    this.horizontal('overall across', { x: minX, y: minY }, { x: maxX, y: minY });
    this.vertical('overall up', { x: minX, y: minY }, { x: minX, y: maxY });
    if (this.rules.radii) this.placeRadii();
    if (this.rules.angles) this.placeAngles();
    return this.dimensions;
  }

  /** How far out below and to the left they reach, paper mm. */
  get reach(): { readonly below: number; readonly left: number } {
    return { below: this.below, left: this.left };
  }

  private placeHoles(): void {
    const holes = this.paths.flatMap((path) => holeOf(path) ?? []);
    const { minX, minY, maxX, maxY } = this.box;
    const datum = this.rules.datum === 'middle' ? { x: (minX + maxX) / 2, y: (minY + maxY) / 2 } : { x: minX, y: minY };
    const apart = (values: readonly number[], from: number): number[] => {
      const sorted = values.filter((value) => Math.abs(value - from) > sameMm).sort((a, b) => Math.abs(a - from) - Math.abs(b - from));
      return sorted
        .filter((value, k) => k === 0 || sorted.slice(0, k).every((other) => Math.abs(other - value) > sameMm))
        .slice(0, mostOfKind);
    };
    const inner = holes.filter(({ radius }) => 2 * radius < maxX - minX - sameMm);
    for (const x of apart(inner.map(({ centre }) => centre.x), datum.x)) this.horizontal(`across ${written(x - datum.x)}`, { x: datum.x, y: minY }, { x, y: lowest(inner, x, 'x') }); // biome-ignore format: one line
    for (const y of apart(inner.map(({ centre }) => centre.y), datum.y)) this.vertical(`up ${written(y - datum.y)}`, { x: minX, y: datum.y }, { x: lowest(inner, y, 'y'), y }); // biome-ignore format: one line
    const sizes = grouped(holes, ({ radius }) => radius).slice(0, mostOfKind);
    for (const [hole, count] of sizes) this.round('diameter', hole, count, Math.PI / 4);
  }

  private placeRadii(): void {
    const arcs = this.paths.flatMap((path) =>
      holeOf(path)
        ? []
        : stepsOf(path).flatMap(({ from, segment }) => {
            if (segment.kind !== 'arc') return [];
            const { centre, radius, startAngle } = circleOf(from, segment);
            return [{ centre, radius, angle: startAngle + segment.sweep / 2 }];
          }),
    );
    for (const [arc, count] of grouped(arcs, ({ radius }) => radius).slice(0, mostOfKind)) this.round('radius', arc, count, arc.angle);
  }

  private placeAngles(): void {
    let placed = 0;
    for (const path of this.paths) {
      const steps = stepsOf(path);
      for (const [k, { from, segment }] of steps.entries()) {
        const next = steps[(k + 1) % steps.length];
        if (!next || segment.kind !== 'line' || next.segment.kind !== 'line' || (!path.closed && k === steps.length - 1)) continue;
        const [a, b, c] = [from, segment.to, next.segment.to];
        const [first, second] = [
          { x: a.x - b.x, y: a.y - b.y },
          { x: c.x - b.x, y: c.y - b.y },
        ];
        if (this.scale * Math.min(Math.hypot(first.x, first.y), Math.hypot(second.x, second.y)) < leastEdgeMm) continue;
        const [from0, to0] = [Math.atan2(first.y, first.x), Math.atan2(second.y, second.x)];
        const turn = ((to0 - from0 + 3 * Math.PI) % (2 * Math.PI)) - Math.PI;
        const degrees = (Math.abs(turn) * 180) / Math.PI;
        if ([90, 180, 0].some((plain) => Math.abs(degrees - plain) < rightDegrees) || placed >= mostOfKind) continue;
        placed++;
        this.angle(b, from0, turn, degrees);
      }
    }
  }

  private isLeftOut(name: string): boolean {
    return this.rules.leftOut.includes(name);
  }

  private shiftOf(name: string): { dx: number; dy: number } {
    return this.rules.moved.find((one) => one.name === name) ?? { dx: 0, dy: 0 };
  }

  private horizontal(name: string, a: Point, b: Point): void {
    if (this.isLeftOut(name)) return;
    const [from, to] = [this.onPaper(a), this.onPaper(b)];
    const foot = this.onPaper({ x: this.box.minX, y: this.box.minY }).y;
    const { dx, dy } = this.shiftOf(name);
    const y = foot - this.below + dy;
    this.below += nextOffMm;
    const value = Math.abs(b.x - a.x);
    const text = lengthWritten(value, this.rules.system);
    const [p, q] = [
      { x: from.x, y },
      { x: to.x, y },
    ];
    const room = Math.abs(to.x - from.x);
    // Where the text has no room between the heads it stands beside them, and the heads point inwards.
    const isNarrow = room < textWidth(text, letters.plain) + 2 * headMm;
    const [low, high] = p.x < q.x ? [p, q] : [q, p];
    const at = isNarrow ? { x: high.x + headMm + gapMm + textWidth(text, letters.plain) / 2 + dx, y: y + textOffMm } : { x: (low.x + high.x) / 2 + dx, y: y + textOffMm }; // biome-ignore format: one line
    const arrows = isNarrow ? [head(low, { x: 1, y: 0 }), head(high, { x: -1, y: 0 })] : [head(low, { x: -1, y: 0 }), head(high, { x: 1, y: 0 })]; // biome-ignore format: one line
    const main = isNarrow ? [line({ x: low.x - 2 * headMm, y }, { x: at.x + textWidth(text, letters.plain) / 2, y })] : [line(low, high)];
    const witness = [from, to].map((p0) => line({ x: p0.x, y: p0.y - Math.sign(p0.y - y) * gapMm }, { x: p0.x, y: y - Math.sign(p0.y - y) * overMm })); // biome-ignore format: one line
    this.add({ name, kind: 'horizontal', value, text: worded(text, at, 0), from, to, line: p, strokes: [...main, ...witness], arrows });
  }

  private vertical(name: string, a: Point, b: Point): void {
    if (this.isLeftOut(name)) return;
    const [from, to] = [this.onPaper(a), this.onPaper(b)];
    const side = this.onPaper({ x: this.box.minX, y: this.box.minY }).x;
    const { dx, dy } = this.shiftOf(name);
    const x = side - this.left + dx;
    this.left += nextOffMm;
    const value = Math.abs(b.y - a.y);
    const text = lengthWritten(value, this.rules.system);
    const [p, q] = [
      { x, y: from.y },
      { x, y: to.y },
    ];
    const [low, high] = p.y < q.y ? [p, q] : [q, p];
    const isNarrow = Math.abs(to.y - from.y) < textWidth(text, letters.plain) + 2 * headMm;
    const at = isNarrow ? { x: x - textOffMm, y: high.y + headMm + gapMm + textWidth(text, letters.plain) / 2 + dy } : { x: x - textOffMm, y: (low.y + high.y) / 2 + dy }; // biome-ignore format: one line
    const arrows = isNarrow ? [head(low, { x: 0, y: 1 }), head(high, { x: 0, y: -1 })] : [head(low, { x: 0, y: -1 }), head(high, { x: 0, y: 1 })]; // biome-ignore format: one line
    const main = isNarrow ? [line({ x, y: low.y - 2 * headMm }, { x, y: at.y + textWidth(text, letters.plain) / 2 })] : [line(low, high)];
    const witness = [from, to].map((p0) => line({ x: p0.x - Math.sign(p0.x - x) * gapMm, y: p0.y }, { x: x - Math.sign(p0.x - x) * overMm, y: p0.y })); // biome-ignore format: one line
    this.add({ name, kind: 'vertical', value, text: worded(text, at, 90), from, to, line: p, strokes: [...main, ...witness], arrows });
  }

  /** A diameter or a radius on a leader that leaves the circle outwards. */
  private round(kind: 'diameter' | 'radius', { centre, radius }: Hole, count: number, angle: number): void {
    const sign = kind === 'diameter' ? 'Ø' : 'R';
    const value = kind === 'diameter' ? 2 * radius : radius;
    const name = `${kind} ${written(value)}`;
    if (this.isLeftOut(name)) return;
    const { dx, dy } = this.shiftOf(name);
    const [middle, u] = [this.onPaper(centre), { x: Math.cos(angle), y: Math.sin(angle) }];
    const r = this.scale * radius;
    const on = { x: middle.x + r * u.x, y: middle.y + r * u.y };
    const text = `${count > 1 ? `${count}x ` : ''}${sign}${lengthWritten(value, this.rules.system)}`;
    const knee = this.clear({ x: on.x + firstOffMm * u.x + dx, y: on.y + firstOffMm * u.y + dy }, u, textWidth(text, letters.plain));
    const way = knee.x >= on.x ? 1 : -1;
    const end = { x: knee.x + way * (textWidth(text, letters.plain) + gapMm), y: knee.y };
    const at = { x: (knee.x + end.x) / 2, y: knee.y + textOffMm };
    const length = Math.hypot(knee.x - on.x, knee.y - on.y) || 1;
    const towards = { x: (on.x - knee.x) / length, y: (on.y - knee.y) / length };
    this.add({ name, kind, value, text: worded(text, at, 0), from: middle, to: on, line: knee, strokes: [line(on, knee), line(knee, end)], arrows: [head(on, towards)] }); // biome-ignore format: one line
  }

  private angle(at: Point, from: number, turn: number, degrees: number): void {
    const name = `angle ${degrees.toFixed(2)} at ${written(at.x - this.box.minX)} ${written(at.y - this.box.minY)}`;
    if (this.isLeftOut(name)) return;
    const { dx, dy } = this.shiftOf(name);
    const corner = this.onPaper(at);
    const r = leastEdgeMm - 1;
    const on = (angle: number): Point => ({ x: corner.x + r * Math.cos(angle), y: corner.y + r * Math.sin(angle) });
    const arc: Path = { start: on(from), segments: [{ kind: 'arc', to: on(from + turn), sweep: turn }], closed: false };
    const middle = from + turn / 2;
    const text = `${Number(degrees.toFixed(1))}°`;
    const off = r + textWidth(text, letters.small) / 2 + gapMm;
    const place = { x: corner.x + off * Math.cos(middle) + dx, y: corner.y + off * Math.sin(middle) - letters.small / 2 + dy };
    this.add({ name, kind: 'angle', value: degrees, text: { ...worded(text, place, 0), heightMm: letters.small }, from: on(from), to: on(from + turn), line: corner, strokes: [arc], arrows: [] }); // biome-ignore format: one line
  }

  /** A place for a text, farther along where another is already. */
  private clear(at: Point, u: Point, width: number): Point {
    const boxOf = ({ x, y }: Point): Box => {
      const middle = x + (u.x >= 0 ? 1 : -1) * (width / 2 + gapMm);
      return {
        minX: middle - width / 2 - 2 * gapMm,
        maxX: middle + width / 2 + 2 * gapMm,
        minY: y - gapMm,
        maxY: y + letters.plain + 2 * gapMm,
      };
    };
    const meets = (a: Box, b: Box): boolean => a.minX < b.maxX && b.minX < a.maxX && a.minY < b.maxY && b.minY < a.maxY;
    const taken = this.dimensions.map(({ text: { at: other, text, heightMm, degrees } }): Box => {
      const half = textWidth(text, heightMm) / 2;
      return degrees === 0 ? { minX: other.x - half, maxX: other.x + half, minY: other.y, maxY: other.y + heightMm } : { minX: other.x - heightMm, maxX: other.x, minY: other.y - half, maxY: other.y + half }; // biome-ignore format: one line
    });
    const isFree = (p: Point): boolean => {
      const box = boxOf(p);
      return [...taken, ...this.keepOff].every((other) => !meets(box, other)) && this.chords.every(([a, b]) => !crossesBox(a, b, box));
    };
    // Farther along the leader, then a little to either side of it.
    for (let step = 0; step < mostSteps; step++)
      for (const aside of [0, 1, -1, 2, -2]) {
        const place = { x: at.x + 2 * step * u.x - 5 * aside * u.y, y: at.y + 2 * step * u.y + 5 * aside * u.x };
        if (isFree(place)) return place;
      }
    return at;
  }

  private add(dimension: DrawnDimension): void {
    this.dimensions.push(dimension);
  }
}

/** Whether a chord has a place in a box. */
function crossesBox(a: Point, b: Point, { minX, minY, maxX, maxY }: Box): boolean {
  let [from, to] = [0, 1];
  for (const [start, way, low, high] of [
    [a.x, b.x - a.x, minX, maxX],
    [a.y, b.y - a.y, minY, maxY],
  ] as const) {
    if (way === 0 && (start < low || start > high)) return false;
    if (way === 0) continue;
    const [p, q] = [(low - start) / way, (high - start) / way];
    from = Math.max(from, Math.min(p, q));
    to = Math.min(to, Math.max(p, q));
  }
  return from <= to;
}

const written = (mm: number): string => mm.toFixed(2);
const line = (a: Point, b: Point): Path => ({ start: a, segments: [{ kind: 'line', to: b }], closed: false });
const worded = (text: string, at: Point, degrees: number): SheetText => ({ text, at, heightMm: letters.plain, anchor: 'middle', degrees });

/** A filled head with its tip at a place, pointing along. */
function head(tip: Point, { x, y }: Point): Path {
  const back = { x: tip.x - headMm * x, y: tip.y - headMm * y };
  const half = headMm * headShare;
  return polygonPath([tip, { x: back.x - half * y, y: back.y + half * x }, { x: back.x + half * y, y: back.y - half * x }]);
}

/** The nearest edge of the lowest (or leftmost) hole at a coordinate, so that its line does not cross it. */
function lowest(holes: readonly Hole[], value: number, axis: 'x' | 'y'): number {
  const other = axis === 'x' ? 'y' : 'x';
  return Math.min(...holes.filter(({ centre }) => Math.abs(centre[axis] - value) <= sameMm).map(({ centre, radius }) => centre[other] - radius)); // biome-ignore format: one line
}

/** Of things of one size one, with how many there are; the largest first. */
function grouped<T extends { radius: number }>(things: readonly T[], sizeOf: (thing: T) => number): [T, number][] {
  const groups: [T, number][] = [];
  for (const thing of things) {
    const same = groups.find(([other]) => Math.abs(sizeOf(other) - sizeOf(thing)) < sameMm);
    if (same) same[1]++;
    else groups.push([thing, 1]);
  }
  return groups.sort(([a], [b]) => sizeOf(b) - sizeOf(a));
}
