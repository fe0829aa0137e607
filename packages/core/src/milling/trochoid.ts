/**
 * In: a room that the middle of a tool may be in, its medial axis, and how much of its front the tool may bite, as an angle. Out: loops
 * that clear the room along the axis: arcs about places of it, each as wide as there is room, each so far on from the one before that the
 * front bites that angle and no more.
 * Rests on: Elber, Cohen & Drake 2005, "MATHSM: medial axis transform toward high speed machining of pockets". A loop of radius p leaves
 * a round hole of radius p + r; the outermost place of the next, at d from that hole's middle, bites the angle whose cosine is
 * ((p + r)² - d² - r²) / (2 d r).
 */
import { type Box, boxAround, circlePath, distance, nearestOnSegment, type Path, type Point, reversedPath } from '../plane/index.ts';
import { type AxisBranch, type AxisPlace, boxIndex } from '../shape/index.ts';
import { downAndRound } from './levels.ts';
import type { Moves } from './moves.ts';

export interface TrochoidSettings {
  readonly radiusMm: number;
  /** Of the tool's front that bites at most, radians. */
  readonly engagement: number;
  readonly direction: 'climb' | 'conventional';
  /** How steep it goes down, radians. */
  readonly entryAngle: number;
  readonly hopZ: number;
  readonly aboveMm: number;
}

/** Branches that meet have their ends no further apart, mm. */
const meetMm = 0.03;
/** Loops lie at least so far apart, as a share of the tool's radius: in a passage of the tool's own width nothing bites less. */
const leastStep = 0.01;
/** What is left in a corner that loops go into is no larger, mm. */
const tipMm = 0.001;
/** The helix down is as wide as there is room, and at most so wide, as a share of the radius: no core is left in its middle. */
const widestHelix = 0.8;
/** No round of a helix goes down by more than this share of a pass. */
const steepestRound = 0.2;
/** A room whose widest place is narrower than this share of the radius has no place for loops. */
const leastRoom = 0.1;
/** Spirals are drawn as arcs of this turn, radians. */
const spiralTurn = Math.PI / 4;

/** How far from the middle of a cleared round hole the tool may go with its own middle, mm. */
export function reachFrom(holeMm: number, radiusMm: number, engagement: number): number {
  const c = radiusMm * Math.cos(engagement);
  return -c + Math.sqrt(Math.max(0, c * c + holeMm * holeMm - radiusMm * radiusMm));
}

const biteSamples = 12;

/**
 * How much of the tool's front bites at most on the loop about a place, where the hole about another is cleared; radians. What stands is
 * all outside that hole: of the tool's rim so much as lies within some angle of the direction away from its middle. Of that the front
 * bites what lies less than a right angle from where the tool goes.
 */
function biteOf(hole: AxisPlace, at: AxisPlace, radiusMm: number): number {
  const step = distance(hole, at);
  const [p, q] = [hole.clearanceMm, at.clearanceMm];
  if (step + q <= p + 1e-9) return 0;
  const holeMm = p + radiusMm;
  if (step + q - radiusMm >= holeMm) return Math.PI;
  const half = loopHalf(p, step, q);
  let most = 0;
  for (let k = 0; k <= biteSamples; k++) {
    // Along the loop, from where it leaves the hole; ahead of it lies the other place.
    const turn = half * ((2 * k) / biteSamples - 1);
    const [x, y] = [step + q * Math.cos(turn), q * Math.sin(turn)];
    const away = Math.hypot(x, y);
    if (away < 1e-9) continue;
    const cosine = (holeMm * holeMm - away * away - radiusMm * radiusMm) / (2 * away * radiusMm);
    const rim = Math.acos(Math.max(-1, Math.min(1, cosine)));
    // Where the tool goes, against the direction away from the hole's middle; a quarter turn on where it goes round it.
    const heading = turn + Math.PI / 2 - Math.atan2(y, x);
    most = Math.max(most, Math.min(rim, heading + Math.PI / 2) - Math.max(-rim, heading - Math.PI / 2));
  }
  return most;
}

/** From straight ahead, how far round a loop of radius q its places lie off the round of radius p that is `step` behind, radians. */
function loopHalf(p: number, step: number, q: number): number {
  const cosine = q < 1e-9 || step < 1e-9 ? -1 : (p * p - step * step - q * q) / (2 * step * q);
  return cosine <= -1 ? Math.PI : Math.acos(Math.min(1, cosine));
}

interface Edge {
  readonly places: readonly AxisPlace[];
  readonly ends: readonly [number, number];
}

/** A room's axis as a graph: what is gone along, and where to begin. */
export class TrochoidPlan {
  private readonly edges: readonly Edge[];
  private readonly edgesAt: readonly number[][];

  /** @param branches the medial axis of the room; each place's clearance is how wide a loop about it may be */
  constructor(
    branches: readonly AxisBranch[],
    private readonly settings: TrochoidSettings,
  ) {
    const nodes = new Nodes();
    this.edges = splitAtForks(branches.map(({ places }) => places).filter(({ length }) => length > 1))
      .flatMap(splitAtWidest)
      .map((places) => ({ places, ends: [nodes.at(places[0] as Point), nodes.at(places.at(-1) as Point)] }));
    const edgesAt: number[][] = Array.from({ length: nodes.count }, () => []);
    this.edges.forEach(({ ends }, k) => {
      for (const end of new Set(ends)) edgesAt[end]?.push(k);
    });
    this.edgesAt = edgesAt;
  }

  /** The widest place of those that are not gone along; null where loops have no room. */
  private widest(isGone: readonly boolean[]): { node: number; place: AxisPlace } | null {
    let best: { node: number; place: AxisPlace } | null = null;
    this.edges.forEach(({ places, ends }, k) => {
      if (isGone[k]) return;
      for (const [node, place] of [[ends[0], places[0]], [ends[1], places.at(-1)]] as [number, AxisPlace][]) // biome-ignore format: two ends
        if (place.clearanceMm > (best?.place.clearanceMm ?? leastRoom * this.settings.radiusMm)) best = { node, place };
    });
    return best;
  }

  /** Whether loops have room anywhere. */
  get hasRoom(): boolean {
    return this.widest([]) !== null;
  }

  /** Clears a level; yields now and then. */
  *level(moves: Moves, fromZ: number, toZ: number): Generator<number, void> {
    const isGone = this.edges.map(() => false);
    for (let begin = this.widest(isGone); begin; begin = this.widest(isGone)) {
      const loops = new Loops(moves, this.settings, toZ);
      loops.open(begin.place, fromZ);
      // As deep first as it goes; what was gone through last is gone on from first.
      const stack = [{ node: begin.node, place: begin.place }];
      while (stack.length > 0) {
        const { node, place } = stack.at(-1) as { node: number; place: AxisPlace };
        const next = this.edgesAt[node]?.find((k) => !isGone[k]);
        if (next === undefined) {
          stack.pop();
          continue;
        }
        isGone[next] = true;
        const edge = this.edges[next] as Edge;
        const isForward = edge.ends[0] === node;
        const places = isForward ? edge.places : [...edge.places].reverse();
        loops.along([place, ...places.slice(1)]);
        stack.push({ node: edge.ends[isForward ? 1 : 0], place: places.at(-1) as AxisPlace });
        yield 0;
      }
    }
  }
}

/** Branches parted where another one ends on them. */
function splitAtForks(branches: readonly (readonly AxisPlace[])[]): (readonly AxisPlace[])[] {
  const chords = branches.flatMap((places, branch) => places.slice(1).map((to, k) => ({ branch, k, from: places[k] as AxisPlace, to })));
  const index = boxIndex(chords.map(({ from, to }) => boxAround([from, to]) as Box));
  const forks = new Map<number, { k: number; t: number }[]>();
  branches.forEach((places, own) => {
    for (const end of [places[0], places.at(-1)] as AxisPlace[])
      for (const id of index?.search(end.x - meetMm, end.y - meetMm, end.x + meetMm, end.y + meetMm) ?? []) {
        const { branch, k, from, to } = chords[id] as (typeof chords)[0];
        const { t, distance: away } = nearestOnSegment(from, { kind: 'line', to }, end);
        if (branch !== own && away <= meetMm) forks.set(branch, [...(forks.get(branch) ?? []), { k, t }]);
      }
  });
  return branches.flatMap((places, branch) => {
    const parts: AxisPlace[][] = [];
    let [part, next]: [AxisPlace[], number] = [[places[0] as AxisPlace], 1];
    for (const { k, t } of (forks.get(branch) ?? []).sort((a, b) => a.k + a.t - b.k - b.t)) {
      const at = mixed(places[k] as AxisPlace, places[k + 1] as AxisPlace, t);
      if (distance(at, places[0] as AxisPlace) <= meetMm || distance(at, places.at(-1) as AxisPlace) <= meetMm) continue;
      if (distance(at, part[0] as AxisPlace) <= meetMm) continue;
      parts.push([...part, ...places.slice(next, k + 1), at]);
      [part, next] = [[at], k + 1];
    }
    return [...parts, [...part, ...places.slice(next)]];
  });
}

/** A branch parted at its widest place, where that lies within it: loops go from wide to narrow. */
function splitAtWidest(places: readonly AxisPlace[]): AxisPlace[][] {
  const widest = places.reduce((best, { clearanceMm }, k) => (clearanceMm > (places[best] as AxisPlace).clearanceMm ? k : best), 0);
  return widest === 0 || widest === places.length - 1 ? [[...places]] : [places.slice(0, widest + 1), places.slice(widest)];
}

/** Places that are one but for rounding have one number. */
class Nodes {
  private readonly grid = new Map<string, { at: Point; id: number }[]>();
  count = 0;

  at(p: Point): number {
    const [column, row] = [Math.floor(p.x / meetMm), Math.floor(p.y / meetMm)];
    for (let i = column - 1; i <= column + 1; i++)
      for (let j = row - 1; j <= row + 1; j++)
        for (const { at, id } of this.grid.get(`${i} ${j}`) ?? []) if (distance(at, p) <= meetMm) return id;
    const key = `${column} ${row}`;
    this.grid.set(key, [...(this.grid.get(key) ?? []), { at: p, id: this.count }]);
    return this.count++;
  }
}

/** The loops of a level. */
class Loops {
  private readonly turn: 1 | -1;

  constructor(
    private readonly moves: Moves,
    private readonly settings: TrochoidSettings,
    private readonly z: number,
  ) {
    this.turn = settings.direction === 'climb' ? 1 : -1;
  }

  /** Down by a helix, and outwards in a spiral until the place is cleared as wide as there is room. */
  open(place: AxisPlace, fromZ: number): void {
    const { moves, settings } = this;
    const wide = place.clearanceMm;
    const helix = Math.min(wide, widestHelix * settings.radiusMm);
    const circle = this.circle(place, helix);
    moves.over(circle.start, settings.hopZ, fromZ + settings.aboveMm);
    moves.plunge(fromZ);
    // Shallow enough for the last round to take off a fifth of a pass at most.
    const shallow = Math.atan((steepestRound * (fromZ - this.z)) / (2 * Math.PI * helix));
    downAndRound(moves, circle, fromZ, this.z, Math.min(settings.entryAngle, shallow));
    if (wide - helix < 1e-3) return;
    let angle = Math.atan2(moves.at.y - place.y, moves.at.x - place.x);
    for (let from = helix; from < wide - 1e-3; ) {
      const to = Math.min(wide, Math.max(this.spiralled(from), from + this.least));
      const count = (2 * Math.PI) / spiralTurn;
      for (let k = 1; k <= count; k++) {
        angle += this.turn * spiralTurn;
        this.arc(polarPoint(place, angle, from + ((to - from) * k) / count), this.turn * spiralTurn);
      }
      from = to;
    }
    this.arc(polarPoint(place, angle + Math.PI, wide), this.turn * Math.PI);
    this.arc(polarPoint(place, angle + 2 * Math.PI, wide), this.turn * Math.PI);
  }

  /** How wide a spiral gets in one turn: it heads outwards a little, and bites so much more. */
  private spiralled(from: number): number {
    const { radiusMm, engagement } = this.settings;
    const reach = (slope: number): number => reachFrom(from + radiusMm, radiusMm, engagement - slope);
    return reach((reach(0) - from) / (2 * Math.PI * from));
  }

  /** Loops about the places of a branch, from its first, which is cleared. */
  along(places: readonly AxisPlace[]): void {
    let last = places[0] as AxisPlace;
    let [k, at] = [1, last];
    let isBegun = false;
    while (k < places.length) {
      const next = this.furthest(last, at, places, k);
      k = next.index;
      at = next.place;
      if (this.loop(last, at, !isBegun)) isBegun = true;
      last = this.wider(last, at);
    }
  }

  private get least(): number {
    return leastStep * this.settings.radiusMm;
  }

  /** Of two holes the later, but where that lies within the other: then nothing of it was cut. */
  private wider(last: AxisPlace, at: AxisPlace): AxisPlace {
    return distance(last, at) + at.clearanceMm <= last.clearanceMm + 1e-9 ? last : at;
  }

  /** The furthest place on along a branch whose loop bites no more than it may. */
  private furthest(last: AxisPlace, from: AxisPlace, places: readonly AxisPlace[], first: number): { place: AxisPlace; index: number } {
    const { radiusMm, engagement } = this.settings;
    // Into a corner loops get smaller and smaller, as close as need be; in a passage that stays narrow they would never end.
    const isClose = (p: AxisPlace): boolean => distance(last, p) <= (p.clearanceMm > last.clearanceMm / 2 ? this.least : tipMm);
    // A loop that does not meet the hole would be come to through what stands, and past the room's wall.
    const isMet = (p: AxisPlace): boolean => distance(last, p) <= last.clearanceMm + p.clearanceMm;
    const isFree = (p: AxisPlace): boolean => isClose(p) || (isMet(p) && biteOf(last, p, radiusMm) <= engagement);
    let at = from;
    for (let index = first; index < places.length; index++) {
      const next = places[index] as AxisPlace;
      if (isFree(next)) {
        at = next;
        continue;
      }
      // Between the last that is free and the first that is not.
      let [low, high] = [0, 1];
      while ((high - low) * distance(at, next) > Math.min(this.least, last.clearanceMm + tipMm) / 8) {
        const middle = (low + high) / 2;
        if (isFree(mixed(at, next, middle))) low = middle;
        else high = middle;
      }
      // Where the last that is free lies in the hole already, it is no way on.
      if (low > 0 || distance(last, at) + at.clearanceMm > last.clearanceMm + 1e-9) return { place: mixed(at, next, low), index };
      // Nothing at all is free: as little on as may be.
      const share = this.least / Math.max(distance(at, next), 1e-12);
      return share < 1 ? { place: mixed(at, next, share), index } : { place: next, index: index + 1 };
    }
    return { place: at, index: places.length };
  }

  /**
   * The part of a loop that bites, from a hole that is cleared.
   * @param isFirst whether the tool has yet to come to the hole
   * @returns whether there was anything to cut
   */
  private loop(last: AxisPlace, at: AxisPlace, isFirst: boolean): boolean {
    const step = distance(last, at);
    const [p, q] = [last.clearanceMm, at.clearanceMm];
    if (step + q <= p + 1e-9) return false;
    const ahead = Math.atan2(at.y - last.y, at.x - last.x);
    // Where the loop leaves the round that the tool's middle went about the hole: its law of cosines.
    const half = loopHalf(p, step, q);
    const start = polarPoint(at, ahead - this.turn * half, q);
    if (isFirst) this.comeTo(last, start);
    else this.moves.line({ ...start, z: this.z });
    if (q < 1e-6) return true;
    this.arc(polarPoint(at, ahead, q), this.turn * half);
    this.arc(polarPoint(at, ahead + this.turn * half, q), this.turn * half);
    return true;
  }

  /** To a place in or on a hole that is cleared: straight, where the tool is in the same hole; else over what stands. */
  private comeTo(hole: AxisPlace, to: Point): void {
    const { moves, settings } = this;
    if (moves.at.z > this.z + 1e-9 || distance(moves.at, hole) > hole.clearanceMm + 1e-6) {
      moves.over(hole, settings.hopZ, this.z + settings.aboveMm);
      moves.plunge(this.z);
    }
    moves.line({ ...to, z: this.z });
  }

  private arc(to: Point, sweep: number): void {
    if (distance(this.moves.at, to) < 1e-9 && Math.abs(sweep) < 1) return;
    const { x, y } = this.moves.at;
    this.moves.along({ start: { x, y }, closed: false, segments: [{ kind: 'arc', to, sweep }] }, [{ along: 0, z: this.z }]);
  }

  private circle(about: Point, radius: number): Path {
    const path = circlePath(about, radius);
    return this.turn > 0 ? path : reversedPath(path);
  }
}

const polarPoint = (about: Point, angle: number, away: number): Point => ({
  x: about.x + away * Math.cos(angle),
  y: about.y + away * Math.sin(angle),
});

const mixed = (a: AxisPlace, b: AxisPlace, t: number): AxisPlace => ({
  x: a.x + (b.x - a.x) * t,
  y: a.y + (b.y - a.y) * t,
  clearanceMm: a.clearanceMm + (b.clearanceMm - a.clearanceMm) * t,
});
