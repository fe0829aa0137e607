/**
 * The hot wire's work: a program of four axes moves both towers, takes its time, and melts the block; what is left is measured in planes
 * across the span against the faces that were meant.
 */
import { z } from 'zod';
import { HotWire, type WireSetUp } from './hot-wire.ts';
import { type Place, Refused } from './interpreter.ts';
import { parsed } from './plain-data.ts';
import type { Asked, Work } from './work.ts';

const length = z.number().min(0).max(100_000);
export const wireSetUpSchema = z.strictObject({
  betweenMm: length,
  toBlockMm: length,
  spanMm: length,
  axes: z.tuple([z.string().regex(/^[A-Z]$/), z.string().regex(/^[A-Z]$/)]),
  burnMm: z.number().min(0).max(50),
  burnMm2PerMin: z.number().min(0).max(100_000),
  fastestMmPerMin: z.number().min(1).max(1e6),
});

const place = z.number().min(-1e6).max(1e6);
const facesSchema = z.strictObject({
  left: z.array(z.tuple([place, place])).max(20_000),
  right: z.array(z.tuple([place, place])).max(20_000),
});

/** Moves that are kept ahead. */
const mostQueued = 64;

interface Leg {
  readonly line: number;
  readonly to: Place;
  readonly seconds: number;
}

export class WireWork implements Work {
  private wire: HotWire;
  private queue: Leg[] = [];
  /** How much of the first of them is gone, seconds. */
  private gone = 0;
  private at: Place = { x: 0, y: 0 };
  private line = 0;
  private taken = 0;
  private readonly melted: { line: number; points: Place[] }[] = [];
  readonly fault = null;

  constructor(private readonly setUp: WireSetUp) {
    this.wire = new HotWire(setUp);
  }

  get isIdle(): boolean {
    return this.queue.length === 0;
  }

  get hasRoom(): boolean {
    return this.queue.length < mostQueued;
  }

  read(text: string): Asked | null {
    this.taken++;
    const wait = /^G4\s+P([\d.]+)\s*$/i.exec(text.trim());
    if (wait) return { kind: 'wait', seconds: Math.min(600, Number(wait[1]) || 0) };
    const wasHot = this.wire.isHot;
    const leg = this.wire.read(text);
    if (this.wire.isDone) return { kind: 'end' };
    // The wire is hot, or cold, once it has come to where it is then.
    if (this.wire.isHot !== wasHot) return { kind: 'stand' };
    if (leg) this.queue.push({ line: this.taken, to: leg.left, seconds: 60 * leg.minutes });
    return null;
  }

  stands(): string | null {
    return null;
  }

  pass(seconds: number): void {
    this.gone += seconds;
    for (let leg = this.queue[0]; leg && this.gone >= leg.seconds; leg = this.queue[0]) {
      this.gone -= leg.seconds;
      this.queue.shift();
      if (leg.seconds > 0) this.melts(leg);
      [this.at, this.line] = [leg.to, leg.line];
    }
    if (this.queue.length === 0) this.gone = 0;
  }

  /** One stretch from where the wire goes in to where it comes out. */
  private melts({ line, to }: Leg): void {
    const last = this.melted.at(-1);
    if (last) last.points.push(to);
    else this.melted.push({ line, points: [this.at, to] });
  }

  slow(): boolean {
    return true;
  }

  stop(): void {
    this.queue = [];
    this.gone = 0;
  }

  state(): object {
    return { line: this.line, x: this.at.x, y: this.at.y, wire: this.wire.isHot ? 'hot' : 'cold', burns: this.melted.length };
  }

  stretches(from: number) {
    return this.melted.slice(from);
  }

  command(name: string, words: string): string | null {
    if (name === 'program') {
      this.wire = new HotWire(this.setUp);
      [this.queue, this.gone, this.line, this.taken] = [[], 0, 0, 0];
      this.melted.length = 0;
      return 'program';
    }
    if (name !== 'measure') return null;
    const read = facesSchema.safeParse(parsed(words));
    if (!read.success || read.data.left.length !== read.data.right.length) throw new Refused('the faces are not understood');
    const places = (share: number): Place[] => read.data.left.map(([x, y], k) => {
      const [u, v] = read.data.right[k] as [number, number];
      return { x: x + share * (u - x), y: y + share * (v - y) };
    }); // biome-ignore format: one place of the ruled surface
    const off = (share: number): number => this.wire.offBy(share, places(share)).mostMm;
    return `measured ${JSON.stringify({ leftOffMm: off(0), middleOffMm: off(0.5), rightOffMm: off(1), fastestMmPerMin: this.wire.fastestMmPerMin })}`;
  }
}
