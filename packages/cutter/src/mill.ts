/**
 * In: moves of a mill with three axes, as they come, and the time that passes. Out: where the tool is, and stock that has been milled. A
 * rapid that runs into the stock, a tool that does not turn and a place out of reach are alarms.
 * Places of programs are counted from their zero; the stock's own from its lower left corner and its top as it came.
 */
import { z } from 'zod';
import { type Axes, type MillingMove, millingDirectionOn, millingMoveLength, millingPlaceOn } from './milling-interpreter.ts';
import { Motion, speedRound } from './motion.ts';
import { edgeOf, type Tool, toolSchema } from './tool-edge.ts';
import { type Stretch, Trail, widestChord } from './trail.ts';
import { type EdgeHeight, VirtualStock } from './virtual-stock.ts';

const size = z.number().positive().max(3000);
export const millSetUpSchema = z.object({
  widthMm: size,
  heightMm: size,
  thicknessMm: z.number().positive().max(500),
  /** Where a program's zero lies in the stock; z above its top, mm. */
  zero: z.object({ x: z.number().min(-3000).max(3000), y: z.number().min(-3000).max(3000), z: z.number().min(-600).max(600) }),
  /** Whether y of a program grows up the stock, seen from above. */
  y: z.enum(['up', 'down']),
  tools: z.array(toolSchema).min(1).max(99),
});
export type MillSetUp = z.infer<typeof millSetUpSchema>;

export interface MillFacts {
  readonly widthMm: number;
  readonly heightMm: number;
  /** Above the bed. */
  readonly reachMm: number;
  readonly travelMmPerMin: number;
  readonly accelerationMmPerS2: number;
}

/** The stock lies on the bed so far in from its corner, mm, and the bed bears a board that may be cut into. */
const inFromCornerMm = 60;
const boardMm = 12;
/** A rapid that takes off more at a place has run into the stock, cubic mm. */
const touchMm3 = 0.02;
const mostCells = 4_000_000;
const finestCellMm = 0.05;
/** The stock is looked at so often along a move, mm: between two places a tool of 1 mm leaves a ridge of less than 0.003 mm. */
const stepMm = 0.1;
/** Chords of what has been cut leave its arcs by at most this, mm. */
const chordMm = 0.005;

export class Mill {
  private readonly motion: Motion<MillingMove>;
  readonly stock: VirtualStock;
  private readonly trail = new Trail();
  at: Axes = [0, 0, 0];
  line = 0;
  spindleRpm = 0;
  /** Of the feeds that are asked for, share. */
  private share = 1;
  /** What has gone wrong on the way; null for nothing. */
  fault: string | null = null;
  private tool: { readonly tool: Tool; readonly edge: EdgeHeight } | null = null;
  private gone = 0;
  private isTouched = false;

  constructor(
    readonly facts: MillFacts,
    readonly setUp: MillSetUp,
  ) {
    const { widthMm, heightMm } = setUp;
    this.stock = new VirtualStock(widthMm, heightMm, Math.max(finestCellMm, Math.sqrt((widthMm * heightMm) / mostCells)));
    const { travelMmPerMin, accelerationMmPerS2 } = facts;
    this.motion = new Motion<MillingMove>({
      accelerationMmPerS2,
      length: millingMoveLength,
      top: ({ feedMmPerMin }) => Math.min(feedMmPerMin === null ? travelMmPerMin : feedMmPerMin * this.share, travelMmPerMin) / 60,
      cornerSpeed(before, after) {
        if ((before.feedMmPerMin === null) !== (after.feedMmPerMin === null)) return 0;
        const [d, e] = [millingDirectionOn(before, 1), millingDirectionOn(after, 0)];
        return speedRound(d[0] * e[0] + d[1] * e[1] + d[2] * e[2], accelerationMmPerS2);
      },
      reached: (move, t) => this.reached(move, t),
    });
    this.at = this.atRest();
  }

  /** What it has cut, as places of the stock seen from above. */
  get stretches(): readonly Stretch[] {
    return this.trail.stretches;
  }

  get override(): number {
    return this.share;
  }

  set override(share: number) {
    this.share = share;
    this.motion.speedsChanged();
  }

  get isIdle(): boolean {
    return this.motion.isIdle;
  }

  get hasRoom(): boolean {
    return this.motion.hasRoom;
  }

  get toolNumber(): number {
    return this.tool?.tool.number ?? 0;
  }

  hasTool(number: number): boolean {
    return this.setUp.tools.some((one) => one.number === number);
  }

  /** Puts a tool in. */
  change(number: number): void {
    const tool = this.setUp.tools.find((one) => one.number === number);
    this.tool = tool ? { tool, edge: edgeOf(tool) } : null;
  }

  /** Over the corner of the stock, as high as it goes: in the program's places. */
  private atRest(): Axes {
    const { zero, thicknessMm, y } = this.setUp;
    return [-zero.x, (y === 'up' ? -1 : 1) * zero.y, this.facts.reachMm - boardMm - thicknessMm - zero.z];
  }

  /** A place of the program as one of the stock. */
  inStock([x, y, height]: Axes): Axes {
    const { zero, y: way } = this.setUp;
    return [x + zero.x, (way === 'up' ? y : -y) + zero.y, height + zero.z];
  }

  /** Why a move cannot be made; null where it can. */
  refusal(move: MillingMove): string | null {
    const { widthMm, heightMm, reachMm } = this.facts;
    for (let k = 0; k <= 8; k++) {
      const place = millingPlaceOn(move, k / 8);
      const [x, y, height] = this.inStock(place);
      const [onBedX, onBedY, overBed] = [x + inFromCornerMm, y + inFromCornerMm, height + this.setUp.thicknessMm + boardMm];
      const where = place.map((value) => value.toFixed(2)).join(', ');
      if (onBedX < 0 || onBedY < 0 || onBedX > widthMm || onBedY > heightMm)
        return `it leads to ${where} mm, off the bed of ${widthMm} x ${heightMm} mm`;
      if (overBed > reachMm + 0.001) return `it leads to ${where} mm, higher than the mill reaches`;
      if (overBed < 0) return `it leads to ${where} mm, through the board on the bed`;
    }
    return null;
  }

  take(move: MillingMove): void {
    this.isTouched = false;
    this.motion.take(move);
  }

  halt(): void {
    this.motion.halt();
    this.gone = 0;
    this.trail.next();
  }

  pass(seconds: number): void {
    this.motion.pass(seconds);
  }

  slow(seconds: number): boolean {
    return this.motion.slow(seconds);
  }

  private reached(move: MillingMove, t: number): void {
    [this.line, this.spindleRpm] = [move.line, move.spindleRpm];
    const sinceMm = millingMoveLength(move) * (t - this.gone);
    if (t < 1 && sinceMm < stepMm) {
      this.at = millingPlaceOn(move, t);
      return;
    }
    const steps = Math.max(1, Math.ceil(sinceMm / stepMm));
    const from = this.gone;
    for (let k = 1; k <= steps && this.fault === null; k++) {
      const at = millingPlaceOn(move, from + ((t - from) * k) / steps);
      if (move.isProbe ? this.touches(at) : this.mills(move, at)) return;
      this.at = at;
    }
    this.gone = t;
    if (move.feedMmPerMin !== null && !move.isProbe) {
      const seen = (share: number): { x: number; y: number } => {
        const [x, y] = this.inStock(millingPlaceOn(move, share));
        return { x, y };
      };
      const radius = move.arc ? Math.hypot(move.from[0] - move.arc.centre[0], move.from[1] - move.arc.centre[1]) : 0;
      this.trail.mark(move.line, seen, move.arc ? widestChord(radius, move.arc.sweep, chordMm) : 1, t);
    }
    if (t < 1) return;
    if (move.isProbe && !this.isTouched) this.fault = 'the probe has touched nothing on its way';
    this.gone = 0;
    this.trail.next();
  }

  /** Takes off what is there; whether something went wrong. */
  private mills(move: MillingMove, at: Axes): boolean {
    const [x, y, height] = this.inStock(at);
    if (height >= 0) return false;
    if (!this.tool) return this.fails('no tool is in', at);
    const gone = this.stock.plunge(x, y, height, this.tool.edge, this.tool.tool.diameterMm / 2);
    if (gone > touchMm3 && move.feedMmPerMin === null) return this.fails('a rapid move ran into the stock', at);
    if (gone > 0 && move.spindleRpm === 0) return this.fails('the tool cuts and does not turn', at);
    return false;
  }

  private fails(what: string, at: Axes): true {
    this.fault = `${what}, at ${at.map((value) => value.toFixed(2)).join(', ')} mm`;
    this.at = at;
    this.halt();
    return true;
  }

  /** Whether a probe touches the stock; there it stands. */
  private touches(at: Axes): boolean {
    const [x, y, height] = this.inStock(at);
    const { edge, tool } = this.tool ?? { edge: () => 0, tool: { diameterMm: this.stock.cellMm * 2 } };
    const touched = this.stock.touchedAt(x, y, edge, tool.diameterMm / 2);
    if (height > touched) return false;
    this.at = [at[0], at[1], touched - this.setUp.zero.z];
    this.isTouched = true;
    this.halt();
    return true;
  }
}
