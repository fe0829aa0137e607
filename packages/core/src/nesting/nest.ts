/**
 * In: parts, how often each is needed, the sheets at hand and how parts may lie. Out: where each lies, sheets as few and the last one used as
 * low as was found in the time: laid bottom-left first, then pressed together and set apart again and again. The best so far comes with
 * every yield.
 */
import { randomFrom } from '../numeric/random.ts';
import {
  chain,
  type Path,
  pathArea,
  pathBox,
  rectanglePath,
  shift,
  stretch,
  type Transform,
  transformedPath,
  turn,
} from '../plane/index.ts';
import { combined, offsetPiece } from '../shape/index.ts';
import { type NestedPart, type NestingPart, nestedOnSheets } from './bottom-left.ts';
import { DepthFields } from './depth-field.ts';
import { type Footprint, footprintOf, type Posed, pose, unposed } from './footprint.ts';
import { type Lie, Separation, type Sheet } from './separation.ts';

export interface NestSheet {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly count: number;
  /** Of a sheet that is no rectangle; its box begins at the origin. */
  readonly outline?: Path | undefined;
  /** What no part may lie on: clamps, knots. */
  readonly keepOff: readonly Path[];
}

export interface NestRules {
  /** Left along the sheet's edge, and between parts, mm. */
  readonly marginMm: number;
  readonly gapMm: number;
  /** By which parts may be turned, radians; null for any. */
  readonly turns: readonly number[] | null;
  readonly canMirror: boolean;
  readonly inHoles: boolean;
  readonly seconds: number;
  readonly seed: number;
}

export interface Nested {
  readonly placed: readonly NestedPart[];
  /** Of each sheet that is used, which kind it is, by its place among them. */
  readonly sheets: readonly number[];
  /** How far up the last sheet is used, margin included, mm. */
  readonly usedMm: number;
  /** The area of parts in that of the sheets, the last one as far as it is used: 0 to 1. */
  readonly utilisation: number;
  /** Parts larger than every sheet, by their place among them; and how many copies of each found no room. */
  readonly tooLarge: readonly number[];
  readonly left: readonly number[];
}

export interface NestStep {
  readonly share: number;
  /** Where it is better than the one before. */
  readonly better: Nested | null;
}

/** So much lower the last sheet is asked to be used, at first and in the end; the last part of the time is for the latter. */
const firstPress = 0.02;
const lastPress = 0.0008;
const exploring = 0.7;
/** Curves are taken as chords that leave them by this share of the smallest part's width, within bounds, mm. */
const chordShare = 0.002;
const [finestChordMm, roughestChordMm] = [0.01, 0.2];
/** Free turns begin with these. */
const eighths = Array.from({ length: 8 }, (_, k) => (k * Math.PI) / 4);
/** More parts than this are laid bottom-left only. */
const mostImproved = 1500;

/** @param now seconds, by any clock */
export function* nest(
  parts: readonly NestingPart[],
  sheets: readonly NestSheet[],
  rules: NestRules,
  now = (): number => performance.now() / 1000,
): Generator<NestStep, Nested> {
  const start = now();
  const share = (): number => Math.min(1, (now() - start) / Math.max(1e-9, rules.seconds));
  const laid = yield* laidBottomLeft(parts, sheets, rules);
  const first = nestedOf(laid.placed, laid.kinds, parts, sheets, rules, laid);
  yield { share: 0, better: first };
  if (laid.placed.length < 2 || laid.placed.length > mostImproved || share() >= 1) return first;
  return yield* new Pressing(parts, sheets, rules, laid, first, share).pressed();
}

/** Presses a layout together and sets it apart again, lower and lower. */
class Pressing {
  private readonly items: readonly number[];
  private readonly footprints: readonly Footprint[];
  /** Of each item. */
  private readonly own: readonly Footprint[];
  private readonly fields: DepthFields | null;
  private readonly random: () => number;
  private readonly chordMm: number;
  private readonly still = new Map<number, Sheet>();
  private lies: readonly Lie[] = [];
  private kinds: readonly number[] = [];
  /** Whether nothing overlaps as all lie. */
  private isWhole = true;
  private press = firstPress;

  constructor(
    private readonly parts: readonly NestingPart[],
    private readonly sheets: readonly NestSheet[],
    private readonly rules: NestRules,
    private readonly laid: Laid,
    private best: Nested,
    private readonly share: () => number,
  ) {
    this.items = laid.placed.map(({ part }) => part);
    const widths = parts.map(({ outer }) => widthOf(outer));
    const smallest = Math.min(...this.items.map((part) => widths[part] as number));
    this.chordMm = Math.min(roughestChordMm, Math.max(finestChordMm, chordShare * smallest));
    const { inHoles, gapMm, turns, canMirror, seed } = rules;
    this.footprints = parts.map((part) =>
      footprintOf(inHoles ? part : { outer: part.outer, holes: [] }, gapMm / 2, this.chordMm, smallest),
    );
    this.own = this.items.map((part) => this.footprints[part] as Footprint);
    const variants = parts.length * (turns?.length ?? 0) * (canMirror ? 2 : 1);
    this.fields = turns && variants <= mostVariants ? new DepthFields(cellOf(this.own)) : null;
    this.random = randomFrom(seed);
    this.backToBest();
  }

  *pressed(): Generator<NestStep, Nested> {
    const { share } = this;
    while (share() < 1) {
      if (this.isWhole && this.canDropSheet()) this.dropSheet();
      const freedom = { turns: this.rules.turns, canMirror: this.rules.canMirror };
      const state = new Separation(this.own, this.lies, this.kinds.map((kind) => this.sheetOf(kind)), freedom, this.random, this.fields); // biome-ignore format: one line
      if (this.isWhole) state.press(this.lower(state.usedMm()));
      const isApart = yield* this.tried(state);
      if (share() >= 1 && !isApart) break;
      if (!isApart) {
        // Back to the best, and asked for less.
        this.backToBest();
        this.press = Math.max(lastPress, this.press / 2);
        continue;
      }
      this.lies = [...state.lies];
      this.isWhole = true;
      const found = this.nestedAs(this.lies);
      if (isBetter(found, this.best)) {
        this.best = found;
        yield { share: share(), better: found };
      }
      if (share() > exploring) this.press = Math.max(lastPress, firstPress * (1 - (share() - exploring) / (1 - exploring)) ** 2);
    }
    return this.best;
  }

  /** Sets a layout apart, several times while there is time to explore, two parts exchanged between. */
  private *tried(state: Separation): Generator<NestStep, boolean> {
    for (let tries = 0; tries < mostTries && this.share() < 1; tries++) {
      const steps = state.separated();
      for (let step = steps.next(); this.share() < 1; step = steps.next()) {
        if (step.done && step.value) return true;
        if (step.done) break;
        yield { share: this.share(), better: null };
      }
      if (this.share() >= exploring) return false;
      state.exchange();
    }
    return false;
  }

  private lower(usedMm: number): number {
    const { minY } = this.sheetOf(this.kinds.at(-1) as number);
    return usedMm - Math.max(this.press * (usedMm - minY), 1e-3);
  }

  /** Whether next to nothing is left on the last sheet. */
  private canDropSheet(): boolean {
    const lowest = Math.min(...this.own.map(({ reachMm }) => reachMm)) / 2;
    return (
      this.kinds.length > 1 && this.lower(this.best.usedMm - this.rules.marginMm) - this.sheetOf(this.kinds.at(-1) as number).minY < lowest
    );
  }

  /** What lay on the last sheet lies over others, to be set apart. */
  private dropSheet(): void {
    this.kinds = this.kinds.slice(0, -1);
    const count = this.kinds.length;
    const kept = this.lies.filter(({ sheet }) => sheet < count);
    this.lies = this.lies.map((lie) => {
      if (lie.sheet < count) return lie;
      const { sheet, x, y } = kept[Math.floor(kept.length * this.random())] ?? { sheet: 0, x: lie.x, y: lie.y };
      return { ...lie, sheet, x, y };
    });
    this.isWhole = false;
  }

  private backToBest(): void {
    this.kinds = this.best.sheets;
    this.lies = this.best.placed.map(({ part, sheet, place }) => lieOf(place, this.footprints[part] as Footprint, sheet, this.rules.turns));
    this.isWhole = true;
  }

  private nestedAs(lies: readonly Lie[]): Nested {
    const placed = lies.map((lie, k): NestedPart => ({ part: this.items[k] as number, sheet: lie.sheet, place: placeOf(lie, this.own[k] as Footprint) })); // biome-ignore format: one line
    return nestedOf(placed, this.kinds, this.parts, this.sheets, this.rules, this.laid);
  }

  private sheetOf(kind: number): Sheet {
    const { marginMm, gapMm } = this.rules;
    const made = this.still.get(kind) ?? sheetFor(this.sheets[kind] as NestSheet, Math.max(0, marginMm - gapMm / 2), gapMm / 2, this.chordMm); // biome-ignore format: one line
    this.still.set(kind, made);
    return made;
  }
}

/** A height that cannot be had is tried so often, with two parts exchanged between tries. */
const mostTries = 6;
/** Depths are worked out for all pairs of so many parts as they may be turned; of more, circles tell them. */
const mostVariants = 200;
/** A part of middling size is so many cells wide. */
const cellsAcross = 14;
function cellOf(footprints: readonly Footprint[]): number {
  const sides = footprints.map(({ areaMm2 }) => Math.sqrt(areaMm2)).sort((a, b) => a - b);
  return (sides[Math.floor(sides.length / 2)] as number) / cellsAcross;
}
const areaOf = (path: Path): number => Math.abs(pathArea(path));
const isBetter = (a: Nested, b: Nested): boolean => a.sheets.length < b.sheets.length || (a.sheets.length === b.sheets.length && a.usedMm < b.usedMm - 1e-6); // biome-ignore format: one line

function widthOf(outer: Path): number {
  const { minX, maxX, minY, maxY } = pathBox(outer);
  return Math.min(maxX - minX, maxY - minY);
}

interface Laid {
  readonly placed: readonly NestedPart[];
  readonly kinds: readonly number[];
  readonly tooLarge: readonly number[];
  readonly left: readonly number[];
}

/** Kind after kind of the sheets, as many as there are. */
function* laidBottomLeft(parts: readonly NestingPart[], sheets: readonly NestSheet[], rules: NestRules): Generator<NestStep, Laid> {
  const left = parts.map(({ count }) => count);
  const fits = parts.map(({ count }) => count === 0);
  const placed: NestedPart[] = [];
  const kinds: number[] = [];
  for (const [kind, { widthMm, heightMm, count, outline, keepOff }] of sheets.entries()) {
    if (left.every((copies) => copies === 0)) break;
    const asked = parts.map((part, k) => ({ outer: part.outer, holes: rules.inHoles ? part.holes : [], count: left[k] as number }));
    const angles = rules.turns ?? eighths;
    const steps = nestedOnSheets(asked, { widthMm, heightMm, marginMm: rules.marginMm, gapMm: rules.gapMm, angles, outline, keepOff, sheets: count }); // biome-ignore format: one line
    let step = steps.next();
    for (; !step.done; step = steps.next()) yield { share: 0, better: null };
    const { value } = step;
    for (const one of value.placed) {
      placed.push({ ...one, sheet: kinds.length + one.sheet });
      left[one.part] = (left[one.part] as number) - 1;
    }
    for (const k of parts.keys()) if (!value.tooLarge.includes(k)) fits[k] = true;
    for (let k = 0; k < value.sheets; k++) kinds.push(kind);
  }
  const tooLarge = parts.flatMap((_, k) => (fits[k] ? [] : [k]));
  return { placed, kinds, tooLarge, left: left.map((copies, k) => (tooLarge.includes(k) ? 0 : copies)) };
}

/** What lies beyond a sheet's outline, and what is kept off on it, as footprints that do not move. */
function sheetFor({ widthMm, heightMm, outline, keepOff }: NestSheet, rim: number, growMm: number, chordMm: number): Sheet {
  const box = { minX: rim, minY: rim, maxX: widthMm - rim, maxY: heightMm - rim };
  const beyond = 5;
  const about = rectanglePath({ minX: -beyond, minY: -beyond, maxX: widthMm + beyond, maxY: heightMm + beyond });
  const within = outline && (rim > 0 ? offsetPiece({ outer: outline, holes: [] }, -rim).map(({ outer }) => outer) : [outline]);
  const outside = within ? cutInHalves(combined([about], within, 'take-away'), widthMm, heightMm, beyond) : [];
  const still = (path: Path, grow: number): Posed => {
    const footprint = footprintOf({ outer: path, holes: [] }, grow, chordMm, Infinity);
    const posed = unposed(footprint);
    pose(posed, 0, false, footprint.middleX, footprint.middleY);
    return posed;
  };
  return { ...box, keepOff: [...outside.map((path) => still(path, 0)), ...keepOff.map((path) => still(path, growMm))] };
}

/** What lies about an outline is a ring: its parts to the left and to the right are none. */
function cutInHalves(about: readonly Path[], widthMm: number, heightMm: number, beyond: number): Path[] {
  const half = (minX: number, maxX: number): Path => rectanglePath({ minX, minY: -2 * beyond, maxX, maxY: heightMm + 2 * beyond });
  const middle = widthMm / 2;
  return [half(-2 * beyond, middle), half(middle, widthMm + 2 * beyond)].flatMap((one) => combined([...about], [one], 'keep-common'));
}

/** From how a part is drawn to where it lies: its middle turned and moved. */
const placeOf = ({ x, y, turn: angle, isMirrored }: Lie, { middleX, middleY }: Footprint): Transform => rounded(chain(chain(shift(x, y), turn(angle)), chain(stretch(isMirrored ? -1 : 1, 1), shift(-middleX, -middleY)))); // biome-ignore format: one line

/** Places to a ten-thousandth of a millimetre. */
const rounded = (t: Transform): Transform => ({ ...t, e: Math.round(t.e * 1e4) / 1e4, f: Math.round(t.f * 1e4) / 1e4 });

function lieOf({ a, b, c, d, e, f }: Transform, { middleX, middleY }: Footprint, sheet: number, turns: readonly number[] | null): Lie {
  const isMirrored = a * d - b * c < 0;
  const angle = isMirrored ? Math.atan2(-b, -a) : Math.atan2(b, a);
  const off = (one: number): number => 1 - Math.cos(one - angle);
  // Of the turns that there are, the very one.
  const own = turns ? turns.reduce((best, one) => (off(one) < off(best) ? one : best)) : angle;
  return { sheet, x: a * middleX + c * middleY + e, y: b * middleX + d * middleY + f, turn: own, isMirrored };
}

function nestedOf(
  placed: readonly NestedPart[],
  kinds: readonly number[],
  parts: readonly NestingPart[],
  sheets: readonly NestSheet[],
  rules: NestRules,
  { tooLarge, left }: Laid,
): Nested {
  const last = kinds.length - 1;
  let usedMm = 0;
  let area = 0;
  for (const { part, sheet, place } of placed) {
    const { outer, holes } = parts[part] as NestingPart;
    area += areaOf(outer) - holes.reduce((sum, hole) => sum + areaOf(hole), 0);
    if (sheet === last) usedMm = Math.max(usedMm, pathBox(transformedPath(outer, place)).maxY + rules.marginMm);
  }
  const sheetArea = kinds.reduce((sum, kind, k) => {
    const { widthMm, heightMm, outline } = sheets[kind] as NestSheet;
    const whole = outline ? areaOf(outline) : widthMm * heightMm;
    return sum + (k === last ? (whole * Math.min(usedMm, heightMm)) / heightMm : whole);
  }, 0);
  return { placed, sheets: kinds, usedMm, utilisation: sheetArea > 0 ? area / sheetArea : 0, tooLarge, left };
}
