/**
 * In: a die line. Out: its panels, the faces between cuts and creases, and how they hang together at the creases.
 * Rests on: faces of a plane graph by turning at every place to the next edge clockwise (as in a doubly connected edge list;
 * de Berg et al. 2008, chapter 2).
 */
import type { Piece } from '../job/schema.ts';
import { english } from '../messages/index.ts';
import { between, distance, type Point } from '../plane/index.ts';
import type { Line } from './crease-ends.ts';
import { type DieLine, dieLineOf } from './die-line.ts';

export interface PanelSide {
  readonly from: Point;
  readonly to: Point;
  /** The hinge that this side is, or null for a cut. */
  readonly hinge: number | null;
  /** The line as it was drawn: the ends of a crease are led on to corners, and may lie a little beside it. */
  readonly drawn: Line;
}

export interface Panel {
  readonly name: string;
  /** Counter-clockwise, mm on the sheet. */
  readonly sides: readonly PanelSide[];
  readonly areaMm2: number;
}

/** A crease, or a part of one, between two panels. */
export interface Hinge {
  readonly pieceId: string;
  readonly from: Point;
  readonly to: Point;
  /** The panel on the left of the way, and that on the right. */
  readonly left: number;
  readonly right: number;
}

export interface Panels {
  readonly panels: readonly Panel[];
  readonly hinges: readonly Hinge[];
}

/** A shorter crease between two panels is where corners that should meet do not quite, mm. */
const minHingeMm = 1;
/** Smaller faces are gaps between lines that nearly meet, square mm. */
const minArea = 4;

export const panelsOf = (pieces: readonly Piece[]): Panels => panelsIn(dieLineOf(pieces));

export function panelsIn(line: DieLine): Panels {
  const openings = new Set(line.edges.flatMap(({ from, to, isOpening }) => (isOpening ? [`${from} ${to}`, `${to} ${from}`] : [])));
  const faces = facesOf(line)
    .filter((face) => areaOf(face.map((h) => line.places[h.from] as Point)) > minArea)
    .filter((face) => !face.every(({ from, to }) => openings.has(`${from} ${to}`)));
  const sideOf = new Map<string, number>();
  faces.forEach((face, k) => {
    for (const h of face) sideOf.set(`${h.from} ${h.to}`, k);
  });
  const hinges: Hinge[] = [];
  const hingeOf = new Map<string, number>();
  const hingeAt = new Map<string, number>();
  const drawnAt = new Map<string, Line>();
  for (const { from, to, crease } of line.edges) {
    if (crease === null) continue;
    const [left, right] = [sideOf.get(`${from} ${to}`), sideOf.get(`${to} ${from}`)];
    if (left === undefined || right === undefined || left === right) continue;
    const { pieceId, drawn } = line.creases[crease] as DieLine['creases'][0];
    const [start, end] = [line.places[from] as Point, line.places[to] as Point];
    // A crease's parts between the same two panels are one hinge; a bowed one is folded about the line between its ends.
    const key = `${crease} ${left} ${right}`;
    const known = hingeOf.get(key);
    const hinge = known ?? hinges.push({ pieceId, from: start, to: end, left, right }) - 1;
    if (known !== undefined) hinges[known] = { ...(hinges[known] as Hinge), to: end };
    hingeOf.set(key, hinge);
    for (const side of [`${from} ${to}`, `${to} ${from}`]) {
      hingeAt.set(side, hinge);
      drawnAt.set(side, drawn ?? { from: start, to: end });
    }
  }
  const isHinge = hinges.map(({ from, to }) => distance(from, to) >= minHingeMm);
  const numbers = isHinge.map((is, k) => (is ? isHinge.slice(0, k).filter(Boolean).length : null));
  const panels = faces.map((face, k): Panel => {
    const sides = face.map((half) => {
      const [from, to] = [line.places[half.from] as Point, line.places[half.to] as Point];
      const key = `${half.from} ${half.to}`;
      return { from, to, hinge: numbers[hingeAt.get(key) ?? -1] ?? null, drawn: drawnAt.get(key) ?? { from, to } };
    });
    return { name: english.folding.panel(k + 1), sides, areaMm2: areaOf(sides.map((s) => s.from)) };
  });
  return named(
    panels,
    hinges.filter((_, k) => isHinge[k]),
  );
}

/** Where a straight line, led on both ways, comes nearest to a place. */
function nearestOn({ from, to }: Line, p: Point): Point {
  const [dx, dy] = [to.x - from.x, to.y - from.y];
  const t = ((p.x - from.x) * dx + (p.y - from.y) * dy) / (dx * dx + dy * dy);
  return { x: from.x + t * dx, y: from.y + t * dy };
}

/** A flap that is glued or tucked in is no deeper than this share of its crease: common practice. */
const shallow = 0.45;
/** And a flap is smaller than this share of the panel that it hangs on. */
const flapShare = 0.4;

/** Largest first, so that names say something; flaps by what they are for. */
function named(panels: readonly Panel[], hinges: readonly Hinge[]): Panels {
  const order = panels.map((_, k) => k).sort((a, b) => (panels[b] as Panel).areaMm2 - (panels[a] as Panel).areaMm2);
  const place = new Map(order.map((k, i) => [k, i]));
  const counts = { panel: 0, flap: 0, tuck: 0, glue: 0 };
  return {
    panels: order.map((k) => {
      const role = roleOf(k, panels, hinges);
      return { ...(panels[k] as Panel), name: english.folding[role](++counts[role]) };
    }),
    hinges: hinges.map((h) => ({ ...h, left: place.get(h.left) as number, right: place.get(h.right) as number })),
  };
}

/** What is glued is cut away at its ends, so that it does not show; a wall is as long outside as at its crease. */
function isTapered({ sides, areaMm2 }: Panel, { from, to }: Hinge): boolean {
  const length = distance(from, to);
  const depths = sides.map(({ from: p }) => Math.abs((to.x - from.x) * (p.y - from.y) - (to.y - from.y) * (p.x - from.x)) / length);
  return areaMm2 < 0.97 * length * Math.max(...depths);
}

/** What a panel is for, by the one crease that it hangs on, if it is one. */
function roleOf(k: number, panels: readonly Panel[], hinges: readonly Hinge[]): 'panel' | 'flap' | 'tuck' | 'glue' {
  const at = (panel: number): Hinge[] => hinges.filter(({ left, right }) => left === panel || right === panel);
  const beyond = ({ left, right }: Hinge, panel: number): number => (left === panel ? right : left);
  const [crease, ...more] = at(k);
  if (!crease || more.length > 0) return 'panel';
  const { areaMm2 } = panels[k] as Panel;
  const holder = beyond(crease, k);
  const isShallow = areaMm2 <= shallow * distance(crease.from, crease.to) ** 2;
  // What hangs on a lid, which itself hangs on a wall, is tucked in.
  const other = at(holder).filter((hinge) => hinge !== crease);
  if (isShallow && other.length === 1 && at(beyond(other[0] as Hinge, holder)).length > 2) return 'tuck';
  if (areaMm2 > flapShare * (panels[holder] as Panel).areaMm2) return 'panel';
  if (!isShallow) return 'flap';
  return isTapered(panels[k] as Panel, crease) ? 'glue' : 'panel';
}

interface Half {
  readonly from: number;
  readonly to: number;
}

function facesOf({ places, edges }: DieLine): Half[][] {
  const leaving = new Map<number, number[]>();
  const add = (from: number, to: number): void => {
    leaving.set(from, [...(leaving.get(from) ?? []), to]);
  };
  for (const { from, to } of edges) {
    add(from, to);
    add(to, from);
  }
  const angle = (from: number, to: number): number => {
    const [p, q] = [places[from] as Point, places[to] as Point];
    return Math.atan2(q.y - p.y, q.x - p.x);
  };
  for (const [from, list] of leaving) list.sort((a, b) => angle(from, a) - angle(from, b));
  /** At the end of a half edge the next one round the face on its left is the first clockwise from where it came. */
  const next = ({ from, to }: Half): Half => {
    const list = leaving.get(to) as number[];
    const k = list.indexOf(from);
    return { from: to, to: list[(k - 1 + list.length) % list.length] as number };
  };
  const seen = new Set<string>();
  const faces: Half[][] = [];
  for (const { from, to } of edges)
    for (const start of [
      { from, to },
      { from: to, to: from },
    ]) {
      // biome-ignore format: both ways
      const face: Half[] = [];
      for (let half: Half = start; !seen.has(`${half.from} ${half.to}`); half = next(half)) {
        seen.add(`${half.from} ${half.to}`);
        face.push(half);
      }
      if (face.length > 2) faces.push(withoutSpurs(face));
    }
  return faces.filter((face) => face.length > 2);
}

/** A crease that ends within a panel is walked out and back: both go. */
function withoutSpurs(face: Half[]): Half[] {
  const kept: Half[] = [];
  for (const half of face) {
    const last = kept.at(-1);
    if (last && last.from === half.to && last.to === half.from) kept.pop();
    else kept.push(half);
  }
  while (kept.length > 1 && kept[0]?.from === kept.at(-1)?.to && kept[0]?.to === kept.at(-1)?.from) {
    kept.pop();
    kept.shift();
  }
  return kept;
}

const areaOf = (points: readonly Point[]): number =>
  points.reduce((sum, p, k) => {
    const q = points[(k + 1) % points.length] as Point;
    return sum + (p.x * q.y - p.y * q.x) / 2;
  }, 0);

/** A side that leans by less than this lies across a direction: the tangent of the angle between. */
const acrossSlope = 0.05;
/** A side so long, as a share of the panel, is one of those that it is measured between; what is shorter is a notch or a corner. */
const endShare = 0.2;

/**
 * How wide and high a panel is, along its longest crease and across it, mm, and how many of either's two ends are creases. It is
 * measured between its long sides, as one measures a box: a notch at a corner, or a corner that is round, makes it no longer.
 */
export function panelSize({ sides }: Panel): { alongMm: number; acrossMm: number; alongCreases: number; acrossCreases: number } {
  const creases = sides.filter((s) => s.hinge !== null);
  const list = creases.length > 0 ? creases : sides;
  const { drawn } = list.reduce((best, s) => (distance(s.from, s.to) > distance(best.from, best.to) ? s : best));
  const { from, to } = drawn;
  const size = distance(from, to) || 1;
  const [c, s] = [(to.x - from.x) / size, (to.y - from.y) / size];
  const u = ({ x, y }: Point) => x * c + y * s;
  const v = ({ x, y }: Point) => -x * s + y * c;
  const measured = (of: (p: Point) => number, across: (p: Point) => number): [number, number] => {
    const [low, high] = endsOf(sides, of, across);
    const isAt = (end: number) => creases.some((k) => [k.from, k.to].every((p) => Math.abs(of(p) - end) < 0.1 * (high - low)));
    return [high - low, Number(isAt(low)) + Number(isAt(high))];
  };
  const [alongMm, alongCreases] = measured(u, v);
  const [acrossMm, acrossCreases] = measured(v, u);
  return { alongMm, acrossMm, alongCreases, acrossCreases };
}

/** Where a panel begins and ends in a direction: at its outermost long sides across it, or at its outermost corners. */
function endsOf(sides: Panel['sides'], of: (p: Point) => number, across: (p: Point) => number): [number, number] {
  const widths = sides.map(({ from }) => across(from));
  const minLength = endShare * (Math.max(...widths) - Math.min(...widths));
  const corners = sides.map(({ from }) => of(from));
  const [first, last] = [Math.min(...corners), Math.max(...corners)];
  const ends = sides.flatMap(({ from, to, drawn }) => {
    const length = Math.abs(across(to) - across(from));
    return length >= minLength && Math.abs(of(to) - of(from)) < acrossSlope * length ? [of(nearestOn(drawn, between(from, to, 0.5)))] : [];
  });
  const half = (first + last) / 2;
  const [low, high] = [ends.filter((e) => e < half), ends.filter((e) => e > half)];
  return [low.length > 0 ? Math.min(...low) : first, high.length > 0 ? Math.max(...high) : last];
}

/** A lid may be so much narrower than the box that it closes, mm: common practice. */
const closurePlayMm = 4;

/**
 * What differs between a box of a stated size, inside, and its panels, in words.
 * @param allowance what the board takes at a crease, in thicknesses: half of it on either side
 */
export function boxChecked(
  panels: readonly Panel[],
  { widthMm, depthMm, heightMm, toleranceMm }: { widthMm: number; depthMm: number; heightMm: number; toleranceMm: number },
  thicknessMm: number,
  allowance: number,
): string[] {
  const taken = (allowance * thicknessMm) / 2;
  const sizes = panels.map((panel) => {
    const { alongMm, acrossMm, alongCreases, acrossCreases } = panelSize(panel);
    return { name: panel.name, a: alongMm - taken * alongCreases, b: acrossMm - taken * acrossCreases };
  });
  const wanted = [
    { what: 'front and back', count: 2, w: widthMm, h: heightMm, play: 0 },
    { what: 'sides', count: 2, w: depthMm, h: heightMm, play: 0 },
    { what: 'top or bottom', count: 1, w: widthMm, h: depthMm, play: closurePlayMm },
  ];
  const used = new Set<string>();
  return wanted.flatMap(({ what, count, w, h, play }) => {
    /** What closes the box may be narrower than it, so that it goes in. */
    const away = (is: number, options: number): number => Math.max(is - options, options - is - play);
    const off = ({ a, b }: { a: number; b: number }): number =>
      Math.min(Math.max(away(a, w), Math.abs(b - h)), Math.max(Math.abs(a - h), away(b, w)));
    const best = sizes
      .filter((s) => !used.has(s.name))
      .sort((p, q) => off(p) - off(q))
      .slice(0, count);
    const told: string[] = [];
    for (const panel of best) {
      used.add(panel.name);
      if (off(panel) <= toleranceMm) continue;
      const isTurned = Math.abs(panel.a - h) + Math.abs(panel.b - w) < Math.abs(panel.a - w) + Math.abs(panel.b - h);
      const [x, y] = isTurned ? [panel.b, panel.a] : [panel.a, panel.b];
      told.push(english.folding.panelNeeded(what, w.toFixed(1), h.toFixed(1), panel.name, x.toFixed(2), y.toFixed(2)));
    }
    if (best.length < count) told.push(english.folding.panelsMissing(what, count - best.length));
    return told;
  });
}
