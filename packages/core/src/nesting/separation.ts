/**
 * In: footprints that lie over one another on sheets. Out: the same apart, where that can be found: one after another is moved to where it
 * overlaps least, and overlaps that stay weigh more and more.
 * Rests on: guided local search, Voudouris & Tsang 1999, for nesting by Egeblad, Nielsen & Odgaard 2007 and Gardeyn & Wauters 2025.
 */
import { costOf, type DepthFields, depthAt, doubtfulCells, type Variant } from './depth-field.ts';
import { FieldSums } from './field-sums.ts';
import { type Footprint, type Posed, pose, unposed } from './footprint.ts';
import { depthOf, overlaps } from './overlap.ts';

/** Where a footprint's middle lies, mm, and how it is turned, radians. */
export interface Lie {
  readonly sheet: number;
  readonly x: number;
  readonly y: number;
  readonly turn: number;
  readonly isMirrored: boolean;
}

export interface Sheet {
  readonly minX: number;
  readonly minY: number;
  readonly maxX: number;
  readonly maxY: number;
  /** What footprints keep off. */
  readonly keepOff: readonly Posed[];
}

export interface Freedom {
  /** By which parts may be turned, radians; null for any. */
  readonly turns: readonly number[] | null;
  readonly canMirror: boolean;
}

/** Places that are tried for a part: anywhere, and about where it lies; the best few are followed to where it overlaps least. */
const anywhere = 48;
const about = 24;
const followed = 3;
/** Weights of overlaps that stay grow by up to this factor, those of others fall by that one. */
const leastGrowth = 1.1;
const mostGrowth = 1.5;
const fall = 0.95;
/** So many passes without less overlap end a try, and so many tries in vain end it all. */
const idlePasses = 60;
const vainTries = 3;
/** Steps of following, as shares of how far a part reaches. */
const firstStep = 0.2;
const roughStep = 0.01;
const lastStepMm = 0.002;
const turnStep = 0.1;

interface Candidate {
  sheet: number;
  x: number;
  y: number;
  turn: number;
  isMirrored: boolean;
  loss: number;
}

export class Separation {
  readonly lies: Lie[];
  /** Parts that move, then what is kept off on each sheet, which does not. */
  private readonly posed: Posed[];
  private readonly scratch = new Map<Footprint, Posed>();
  private readonly weights: Float32Array;
  private readonly count: number;
  private readonly onSheet: number[][];
  /** Of each as it lies; null where depths are taken from circles. */
  private readonly variants: (Variant | null)[];
  private readonly sums = new FieldSums();
  /** What is beyond the last sheet's top is out of reach. */
  private topMm = Infinity;

  constructor(
    private readonly footprints: readonly Footprint[],
    lies: readonly Lie[],
    private readonly sheets: readonly Sheet[],
    private readonly freedom: Freedom,
    private readonly random: () => number,
    private readonly fields: DepthFields | null,
  ) {
    this.lies = [...lies];
    const still = sheets.flatMap(({ keepOff }) => keepOff);
    this.posed = [...footprints.map(unposed), ...still];
    this.count = this.posed.length;
    for (const footprint of footprints) if (!this.scratch.has(footprint)) this.scratch.set(footprint, unposed(footprint));
    this.weights = new Float32Array(this.count ** 2).fill(1);
    this.variants = [...footprints.map(() => null), ...still.map(({ of }) => fields?.variant(of, 0, false) ?? null)];
    let next = footprints.length;
    this.onSheet = sheets.map(({ keepOff }) => keepOff.map(() => next++));
    for (const [k, lie] of lies.entries()) this.put(k, lie);
  }

  /** Lays all as they were. */
  private restore(lies: readonly Lie[]): void {
    for (const [k, lie] of lies.entries()) if (lie !== this.lies[k]) this.put(k, lie);
  }

  /** How far up the last sheet is used, mm. */
  usedMm(): number {
    return this.onLast().reduce((most, k) => Math.max(most, (this.posed[k] as Posed).maxY), 0);
  }

  /** Brings what lies beyond a height of the last sheet below it, or on to another sheet. */
  press(topMm: number): void {
    this.topMm = topMm;
    for (const k of this.onLast()) {
      const { maxY, minY } = this.posed[k] as Posed;
      if (maxY <= topMm) continue;
      const lie = this.lies[k] as Lie;
      const bottom = (this.sheets.at(-1) as Sheet).minY;
      if (maxY - minY <= topMm - bottom) this.put(k, { ...lie, y: lie.y + topMm - maxY });
      else this.put(k, this.scattered(k));
    }
  }

  /** Two parts of the largest change places: what cannot be had as all lie may be had so. */
  exchange(): void {
    const order = this.footprints.map((_, k) => k).sort((a, b) => (this.footprints[b] as Footprint).areaMm2 - (this.footprints[a] as Footprint).areaMm2); // biome-ignore format: one line
    const among = Math.max(2, Math.ceil(order.length / 2));
    const [i, j] = [order[Math.floor(among * this.random())] as number, order[Math.floor(among * this.random())] as number];
    if (i === j) return;
    const [a, b] = [this.lies[i] as Lie, this.lies[j] as Lie];
    this.put(i, this.inReach(i, { ...a, x: b.x, y: b.y, sheet: b.sheet }));
    this.put(j, this.inReach(j, { ...b, x: a.x, y: a.y, sheet: a.sheet }));
  }

  /** Yields after every pass; returns whether all came apart. It ends when it is not pursued. */
  *separated(): Generator<void, boolean> {
    this.weights.fill(1);
    let best = { loss: Infinity, lies: [...this.lies] };
    for (let vain = 0; vain < vainTries; vain++) {
      const before = best.loss;
      for (let idle = 0; idle < idlePasses; idle++) {
        const loss = this.pass();
        if (loss === 0) return true;
        if (loss < 0.98 * best.loss) idle = 0;
        if (loss < best.loss) best = { loss, lies: [...this.lies] };
        this.weigh();
        yield;
      }
      if (best.loss < 0.98 * before) vain = -1;
      this.restore(best.lies);
    }
    return false;
  }

  /** The parts on the last sheet. */
  private onLast(): number[] {
    return (this.onSheet.at(-1) as number[]).filter((k) => k < this.footprints.length);
  }

  private put(k: number, lie: Lie): void {
    const before = this.onSheet[(this.lies[k] as Lie).sheet] as number[];
    const at = before.indexOf(k);
    if (at >= 0) before.splice(at, 1);
    this.lies[k] = lie;
    pose(this.posed[k] as Posed, lie.turn, lie.isMirrored, lie.x, lie.y);
    this.variants[k] = this.variantOf(k, lie.turn, lie.isMirrored);
    (this.onSheet[lie.sheet] as number[]).push(k);
  }

  private variantOf(k: number, turn: number, isMirrored: boolean): Variant | null {
    return this.fields?.variant(this.footprints[k] as Footprint, turn, isMirrored) ?? null;
  }

  /** Moves each that overlaps, in any order; the unweighted overlap that is left. */
  private pass(): number {
    const order = this.lies.flatMap((_, k) => (this.lossOf(k, false) > 0 ? [k] : []));
    for (let k = order.length - 1; k > 0; k--) {
      const j = Math.floor((k + 1) * this.random());
      [order[k], order[j]] = [order[j] as number, order[k] as number];
    }
    for (const k of order) if (this.lossOf(k, true) > 0) this.move(k);
    return this.lies.reduce((sum, _, k) => sum + this.lossOf(k, false), 0);
  }

  private lossOf(k: number, isWeighted: boolean): number {
    const { sheet } = this.lies[k] as Lie;
    const own = this.posed[k] as Posed;
    return this.lossAt(k, own, this.variants[k] as Variant | null, 0, 0, sheet, Infinity, isWeighted);
  }

  /** The overlap of a part that is shifted from where it is posed; infinite beyond the sheet, or past the bound. */
  private lossAt(
    k: number,
    posed: Posed,
    variant: Variant | null,
    dx: number,
    dy: number,
    sheet: number,
    bound: number,
    isWeighted: boolean,
  ): number {
    const { minX, minY, maxX, maxY } = this.sheets[sheet] as Sheet;
    const top = sheet === this.sheets.length - 1 ? Math.min(maxY, this.topMm) : maxY;
    const [left, right, bottom, upper] = [posed.minX + dx, posed.maxX + dx, posed.minY + dy, posed.maxY + dy];
    if (left < minX - 1e-9 || right > maxX + 1e-9 || bottom < minY - 1e-9 || upper > top + 1e-9) return Infinity;
    let loss = 0;
    for (const j of this.onSheet[sheet] as number[]) {
      const other = this.posed[j] as Posed;
      if (j === k || left >= other.maxX || right <= other.minX || bottom >= other.maxY || upper <= other.minY) continue;
      const depth = this.depth(posed, variant, dx, dy, other, this.variants[j] as Variant | null);
      if (depth > 0) loss += (isWeighted ? (this.weights[k * this.count + j] as number) : 1) * depth;
      if (loss > bound) return Infinity;
    }
    return loss;
  }

  /** How deep a part that is shifted lies in another; 0 where they are apart. */
  private depth(posed: Posed, variant: Variant | null, dx: number, dy: number, other: Posed, still: Variant | null): number {
    const { fields } = this;
    if (!fields || !variant || !still) return overlaps(posed, dx, dy, other) ? depthOf(posed, dx, dy, other) : 0;
    const cell = fields.cellMm;
    const field = fields.between(still, variant);
    const depth = depthAt(field, cell, posed.x + dx - other.x, posed.y + dy - other.y);
    if (depth === 0) return 0;
    return depth > doubtfulCells * cell || overlaps(posed, dx, dy, other) ? costOf(depth, cell) : 0;
  }

  private weigh(): void {
    const pairs: [number, number][] = [];
    let most = 0;
    this.weights.forEach((weight, at) => {
      this.weights[at] = Math.max(1, fall * weight);
    });
    for (let i = 0; i < this.footprints.length; i++) {
      const a = this.posed[i] as Posed;
      const { sheet } = this.lies[i] as Lie;
      for (const j of this.onSheet[sheet] as number[]) {
        if (j <= i) continue;
        const b = this.posed[j] as Posed;
        if (a.minX >= b.maxX || a.maxX <= b.minX || a.minY >= b.maxY || a.maxY <= b.minY) continue;
        const depth = this.depth(a, this.variants[i] as Variant | null, 0, 0, b, this.variants[j] as Variant | null);
        if (depth === 0) continue;
        most = Math.max(most, depth);
        pairs.push([i * this.count + j, depth], [j * this.count + i, depth]);
      }
    }
    for (const [at, depth] of pairs) this.weights[at] = ((this.weights[at] as number) / fall) * (leastGrowth + ((mostGrowth - leastGrowth) * depth) / most); // biome-ignore format: one line
  }

  /** To the place of least weighted overlap: of all on the grid where depths are known, else of those that are tried. */
  private move(k: number): void {
    const own = this.lies[k] as Lie;
    const scratch = this.scratch.get(this.footprints[k] as Footprint) as Posed;
    const best: Candidate[] = [];
    const consider = (sheet: number, x: number, y: number, turn: number, isMirrored: boolean): void => {
      const bound = best.length < followed ? Infinity : (best.at(-1) as Candidate).loss;
      const loss = this.lossAt(k, scratch, this.variantOf(k, turn, isMirrored), x, y, sheet, bound, true);
      if (loss >= bound || loss === Infinity) return;
      const at = best.findIndex((one) => loss < one.loss);
      best.splice(at < 0 ? best.length : at, 0, { sheet, x, y, turn, isMirrored, loss });
      if (best.length > followed) best.pop();
    };
    pose(scratch, own.turn, own.isMirrored, 0, 0);
    consider(own.sheet, own.x, own.y, own.turn, own.isMirrored);
    const reach = 0.3 * (this.footprints[k] as Footprint).reachMm;
    if (this.fields && this.freedom.turns) {
      for (const isMirrored of this.freedom.canMirror ? [false, true] : [own.isMirrored])
        for (const turn of this.freedom.turns) {
          pose(scratch, turn, isMirrored, 0, 0);
          for (let sheet = 0; sheet < this.sheets.length; sheet++) {
            const at = this.leastOnGrid(k, scratch, this.variantOf(k, turn, isMirrored) as Variant, sheet);
            if (at) consider(sheet, at.x, at.y, turn, isMirrored);
          }
        }
    } else this.tryPlaces(own, scratch, reach, consider);
    if (best.length === 0) return;
    for (const candidate of best) this.follow(k, candidate, firstStep * reach, roughStep * reach);
    const [first] = best.sort((a, b) => a.loss - b.loss) as [Candidate];
    this.follow(k, first, roughStep * reach, lastStepMm);
    const { sheet, x, y, turn, isMirrored } = first;
    this.put(k, { sheet, x, y, turn, isMirrored });
  }

  /** Sums the depths to all others over a sheet's grid; the least of them, by chance where there are several. */
  private leastOnGrid(k: number, posed: Posed, variant: Variant, sheet: number): { x: number; y: number } | null {
    const { cellMm } = this.fields as DepthFields;
    const one = this.sheets[sheet] as Sheet;
    const top = sheet === this.sheets.length - 1 ? Math.min(one.maxY, this.topMm) : one.maxY;
    const [wide, high] = [one.maxX - one.minX - (posed.maxX - posed.minX), top - one.minY - (posed.maxY - posed.minY)];
    if (wide < 0 || high < 0) return null;
    const sums = this.sums.over(one.minX - posed.minX, one.minY - posed.minY, wide, high, cellMm, this.random);
    for (const j of this.onSheet[sheet] as number[])
      if (j !== k) sums.add((this.fields as DepthFields).between(this.variants[j] as Variant, variant), this.posed[j] as Posed, this.weights[k * this.count + j] as number); // biome-ignore format: one line
    return sums.least(this.random);
  }

  /** Places about where it lies, and anywhere, turned in several ways. */
  private tryPlaces(
    own: Lie,
    scratch: Posed,
    reach: number,
    consider: (sheet: number, x: number, y: number, turn: number, isMirrored: boolean) => void,
  ): void {
    for (let n = 0; n < about; n++)
      consider(
        own.sheet,
        own.x + reach * (this.random() + this.random() - 1),
        own.y + reach * (this.random() + this.random() - 1),
        own.turn,
        own.isMirrored,
      );
    const kinds = Math.min(4, (this.freedom.turns?.length ?? 4) * (this.freedom.canMirror ? 2 : 1));
    for (let kind = 0; kind < kinds; kind++) {
      const turn = this.anyTurn();
      const isMirrored = this.freedom.canMirror ? this.random() < 0.5 : own.isMirrored;
      pose(scratch, turn, isMirrored, 0, 0);
      for (let n = 0; n < anywhere / kinds; n++) {
        const at = this.anyPlace(scratch);
        if (at) consider(at.sheet, at.x, at.y, turn, isMirrored);
      }
    }
  }

  private anyTurn(): number {
    const { turns } = this.freedom;
    return turns ? (turns[Math.floor(turns.length * this.random())] as number) : 2 * Math.PI * this.random();
  }

  /** Somewhere on a sheet where it fits; null where it fits on none that was tried. */
  private anyPlace({ minX, minY, maxX, maxY }: Posed): { sheet: number; x: number; y: number } | null {
    for (let tries = 0; tries < 4; tries++) {
      const sheet = Math.floor(this.sheets.length * this.random());
      const one = this.sheets[sheet] as Sheet;
      const top = sheet === this.sheets.length - 1 ? Math.min(one.maxY, this.topMm) : one.maxY;
      const [wide, high] = [one.maxX - one.minX - (maxX - minX), top - one.minY - (maxY - minY)];
      if (wide >= 0 && high >= 0) return { sheet, x: one.minX - minX + wide * this.random(), y: one.minY - minY + high * this.random() };
    }
    return null;
  }

  /** Step by step to less overlap, along the axes and across them, and turned where it may be. */
  private follow(k: number, candidate: Candidate, fromMm: number, toMm: number): void {
    const scratch = this.scratch.get(this.footprints[k] as Footprint) as Posed;
    pose(scratch, candidate.turn, candidate.isMirrored, 0, 0);
    const variant = this.variantOf(k, candidate.turn, candidate.isMirrored);
    const ways = this.freedom.turns ? 4 : 5;
    const { reachMm } = this.footprints[k] as Footprint;
    let [stepX, stepY, stepTurn] = [fromMm, fromMm, (turnStep * fromMm) / Math.max(1e-9, firstStep * 0.3 * reachMm)];
    while (candidate.loss > 0 && Math.max(stepX, stepY) > toMm) {
      const way = Math.floor(ways * this.random());
      if (way === 4) {
        const to = candidate.turn + (this.random() < 0.5 ? stepTurn : -stepTurn);
        pose(scratch, to, candidate.isMirrored, 0, 0);
        const loss = this.lossAt(k, scratch, null, candidate.x, candidate.y, candidate.sheet, candidate.loss, true);
        if (loss < candidate.loss) [candidate.loss, candidate.turn, stepTurn] = [loss, to, 1.1 * stepTurn];
        else {
          stepTurn *= 0.5;
          pose(scratch, candidate.turn, candidate.isMirrored, 0, 0);
        }
        continue;
      }
      const ux = way === 1 ? 0 : stepX;
      const uy = way === 0 ? 0 : way === 3 ? -stepY : stepY;
      const forth = this.lossAt(k, scratch, variant, candidate.x + ux, candidate.y + uy, candidate.sheet, candidate.loss, true);
      const back = this.lossAt(
        k,
        scratch,
        variant,
        candidate.x - ux,
        candidate.y - uy,
        candidate.sheet,
        Math.min(forth, candidate.loss),
        true,
      );
      const isBetter = Math.min(forth, back) < candidate.loss;
      if (isBetter) {
        const sign = back < forth ? -1 : 1;
        [candidate.loss, candidate.x, candidate.y] = [Math.min(forth, back), candidate.x + sign * ux, candidate.y + sign * uy];
      }
      const factor = isBetter ? 1.1 : 0.5;
      const eased = Math.sqrt(factor);
      if (way === 0) stepX *= factor;
      else if (way === 1) stepY *= factor;
      else [stepX, stepY] = [stepX * eased, stepY * eased];
    }
  }

  /** A place anywhere for a part that fits where it lies no more. */
  private scattered(k: number): Lie {
    const scratch = this.scratch.get(this.footprints[k] as Footprint) as Posed;
    const { isMirrored } = this.lies[k] as Lie;
    for (let tries = 0; tries < 40; tries++) {
      const turn = this.anyTurn();
      pose(scratch, turn, isMirrored, 0, 0);
      const at = this.anyPlace(scratch);
      if (at) return { ...at, turn, isMirrored };
    }
    return this.lies[k] as Lie;
  }

  /** The same within its sheet; where it is too large for that, as it lay. */
  private inReach(k: number, lie: Lie): Lie {
    const scratch = this.scratch.get(this.footprints[k] as Footprint) as Posed;
    pose(scratch, lie.turn, lie.isMirrored, 0, 0);
    const { minX, minY, maxX, maxY } = this.sheets[lie.sheet] as Sheet;
    const top = lie.sheet === this.sheets.length - 1 ? Math.min(maxY, this.topMm) : maxY;
    if (scratch.maxX - scratch.minX > maxX - minX || scratch.maxY - scratch.minY > top - minY) return this.lies[k] as Lie;
    return {
      ...lie,
      x: Math.min(maxX - scratch.maxX, Math.max(minX - scratch.minX, lie.x)),
      y: Math.min(top - scratch.maxY, Math.max(minY - scratch.minY, lie.y)),
    };
  }
}
