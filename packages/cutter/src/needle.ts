/**
 * A long-arm machine that sews: a needle that goes down where it is told to, thread that breaks where it is asked too much, and a bobbin
 * that runs empty. It keeps what it has sewn.
 */
import { z } from 'zod';
import { Refused } from './interpreter.ts';

const length = z.number().positive().max(100_000);

export const needleSetUpSchema = z.strictObject({
  /** The cloth in the frame, mm. */
  widthMm: length,
  heightMm: length,
  stitchesPerMin: z.number().min(10).max(5000),
  /** Thread on a bobbin, mm. */
  bobbinMm: length,
});
export type NeedleSetUp = z.infer<typeof needleSetUpSchema>;

interface Place {
  readonly x: number;
  readonly y: number;
}

interface Order extends Place {
  readonly line: number;
  readonly isStitch: boolean;
}

/** A stitch longer than this breaks the thread, mm. */
const longestStitchMm = 14;
/** Thread that a stitch takes down through the layers and up, mm. */
const throughLayersMm = 1.5;
/** How fast the head moves with the needle up, mm/s. */
const jumpMmPerS = 250;
/** Orders that are kept ahead. */
const mostQueued = 64;

export interface Sewn {
  readonly line: number;
  readonly points: Place[];
}

export class Needle {
  private queue: Order[] = [];
  private taken = 0;
  /** Time that is left over from the last pass, s. */
  private spare = 0;
  at: Place = { x: 0, y: 0 };
  isDown = false;
  line = 0;
  stitches = 0;
  /** Thread on the bobbin, mm: as it is sewn off, and as it will be once all that is queued is sewn. */
  private bobbinMm: number;
  readonly sewn: Sewn[] = [];

  constructor(readonly setUp: NeedleSetUp) {
    this.bobbinMm = setUp.bobbinMm;
  }

  get isIdle(): boolean {
    return this.queue.length === 0;
  }

  get hasRoom(): boolean {
    return this.queue.length < mostQueued;
  }

  /** Where it will be once all that is queued is done. */
  private get comesTo(): Place {
    return this.queue.at(-1) ?? this.at;
  }

  /**
   * Takes a line of the program. @returns what somebody has to do once it is sewn; null for nothing
   * @throws Refused where it cannot be sewn
   */
  take(isStitch: boolean, to: Place): string | null {
    const { widthMm, heightMm, bobbinMm } = this.setUp;
    if (to.x < -0.001 || to.y < -0.001 || to.x > widthMm + 0.001 || to.y > heightMm + 0.001)
      throw new Refused('out of reach of the needle');
    this.taken++;
    const from = this.comesTo;
    const size = Math.hypot(to.x - from.x, to.y - from.y);
    if (isStitch && size > longestStitchMm) throw new Refused(`a stitch of ${size.toFixed(1)} mm breaks the thread`);
    this.queue.push({ ...to, line: this.taken, isStitch });
    if (!isStitch) return null;
    this.bobbinMm -= size + throughLayersMm;
    if (this.bobbinMm > 0) return null;
    this.bobbinMm = bobbinMm;
    return 'The bobbin is empty. Put in a full one.';
  }

  pass(seconds: number): void {
    this.spare += seconds;
    for (let next = this.queue[0]; next; next = this.queue[0]) {
      const size = Math.hypot(next.x - this.at.x, next.y - this.at.y);
      const takes = next.isStitch ? 60 / this.setUp.stitchesPerMin : size / jumpMmPerS;
      if (takes > this.spare) return;
      this.spare -= takes;
      this.queue.shift();
      this.goes(next);
    }
    this.spare = 0;
  }

  private goes({ x, y, line, isStitch }: Order): void {
    const last = this.sewn.at(-1);
    if (!isStitch) this.isDown = false;
    else if (this.isDown && last) last.points.push({ x, y });
    else this.sewn.push({ line, points: [this.at, { x, y }] });
    if (isStitch) [this.isDown, this.stitches] = [true, this.stitches + 1];
    [this.at, this.line] = [{ x, y }, line];
  }

  /** It stops between two stitches. */
  halt(): void {
    [this.queue, this.spare, this.isDown] = [[], 0, false];
  }

  restart(): void {
    this.halt();
    this.taken = 0;
  }
}

const places = z.array(z.number().min(-1e6).max(1e6)).min(4).max(400_000);
export const drawnSchema = z.strictObject({ lines: z.array(places).max(20_000) });

export interface SewnMeasured {
  /** How far the farthest stitch lies from the drawn line, and the line from the stitches, mm. */
  readonly offMm: number;
  readonly missedMm: number;
  readonly stitches: number;
}

/** Places along the drawn line are looked at this far apart, mm. */
const lookMm = 1;

/** What is sewn against what was drawn: each needle hole against the line, and the line against the seam, by cells of places. */
export function sewnMeasured(sewn: readonly Sewn[], { lines }: z.infer<typeof drawnSchema>, stitches: number): SewnMeasured {
  const drawn = lines.map((flat) =>
    Array.from({ length: flat.length / 2 }, (_, k): Place => ({ x: flat[2 * k] as number, y: flat[2 * k + 1] as number })),
  );
  const seam = sewn.map(({ points }) => points);
  const holes = seam.flat();
  const alongLine = drawn.flatMap((points) => points.slice(1).flatMap((q, k) => spaced(points[k] as Place, q)));
  return { offMm: farthest(holes, chordsIn(drawn)), missedMm: farthest(alongLine, chordsIn(seam)), stitches };
}

function spaced(p: Place, q: Place): Place[] {
  const count = Math.max(1, Math.ceil(Math.hypot(q.x - p.x, q.y - p.y) / lookMm));
  return Array.from({ length: count + 1 }, (_, k) => ({ x: p.x + ((q.x - p.x) * k) / count, y: p.y + ((q.y - p.y) * k) / count }));
}

type Chord = readonly [Place, Place];
const cellMm = 8;

/** Chords by the cells that their boxes touch. */
function chordsIn(lines: readonly (readonly Place[])[]): Map<string, Chord[]> {
  const cells = new Map<string, Chord[]>();
  for (const points of lines)
    points.slice(1).forEach((q, k) => {
      const p = points[k] as Place;
      const cell = (v: number): number => Math.floor(v / cellMm);
      for (let x = cell(Math.min(p.x, q.x)); x <= cell(Math.max(p.x, q.x)); x++)
        for (let y = cell(Math.min(p.y, q.y)); y <= cell(Math.max(p.y, q.y)); y++) {
          const key = `${x} ${y}`;
          const own = cells.get(key);
          if (own) own.push([p, q]);
          else cells.set(key, [[p, q]]);
        }
    });
  return cells;
}

/** How far the farthest place lies from the nearest chord; a cell's width or more where none lies in the cells about it. */
function farthest(from: readonly Place[], cells: ReadonlyMap<string, readonly Chord[]>): number {
  return from.reduce((most, p) => {
    const [x, y] = [Math.floor(p.x / cellMm), Math.floor(p.y / cellMm)];
    let near = cellMm;
    for (const i of [x - 1, x, x + 1])
      for (const j of [y - 1, y, y + 1]) for (const [a, b] of cells.get(`${i} ${j}`) ?? []) near = Math.min(near, fromChord(p, a, b));
    return Math.max(most, near);
  }, 0);
}

function fromChord(p: Place, a: Place, b: Place): number {
  const [x, y] = [b.x - a.x, b.y - a.y];
  const size = x * x + y * y;
  const t = size === 0 ? 0 : Math.max(0, Math.min(1, ((p.x - a.x) * x + (p.y - a.y) * y) / size));
  return Math.hypot(p.x - a.x - t * x, p.y - a.y - t * y);
}
