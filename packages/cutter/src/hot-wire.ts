/**
 * A hot wire between two towers: it goes where a program of four axes sends it, and melts a virtual block, wider where it is slow. What is
 * left is measured at any plane across the span. Written from the published text of RS-274/NGC, apart from the application's own writer and
 * reader, so that either can be held against the other.
 */
import { type Place, Refused } from './interpreter.ts';

export interface WireSetUp {
  /** From tower to tower, mm; the block's left face lies so far from the left tower. */
  readonly betweenMm: number;
  readonly toBlockMm: number;
  readonly spanMm: number;
  /** The letters of the right tower's two axes. */
  readonly axes: readonly [string, string];
  /** The wire melts this wide however fast, and this much more for each minute that it takes for a millimetre. */
  readonly burnMm: number;
  readonly burnMm2PerMin: number;
  /** A tower that is asked to go faster stops with an alarm. */
  readonly fastestMmPerMin: number;
}

/** A step of the wire: where both towers come to, and how long it takes, minutes. */
interface Step {
  readonly left: Place;
  readonly right: Place;
  readonly minutes: number;
}

/** What a wire has melted along in a plane: places, and how wide it melted on the way to each. */
interface Melted {
  readonly at: Place;
  /** Null where the wire only moved there. */
  readonly widthMm: number | null;
}

/** Figures of a program are rounded: over so little a tower is not too fast, mm. */
const roundedMm = 3e-4;

export class HotWire {
  private readonly steps: Step[] = [];
  isHot = false;
  fastestMmPerMin = 0;
  isDone = false;
  private inverseTime = false;
  private feed = 0;
  private motion = 0;
  private at: Record<string, number> = {};
  private line = 0;

  constructor(readonly setUp: WireSetUp) {}

  /** The step that a line asks for; null for none. @throws Refused with why it cannot be obeyed */
  read(text: string): Step | null {
    this.line++;
    const words = [...text.replace(/\([^()]*\)/g, ' ').matchAll(/([A-Za-z])([^A-Za-z]*)/g)].map(([, letter, figure]) => ({ letter: (letter as string).toUpperCase(), value: Number((figure as string).replace(/\s/g, '')) })); // biome-ignore format: one line
    const [u, v] = this.setUp.axes;
    const target = { ...this.at };
    let isMove = false;
    for (const { letter, value } of words) {
      if (!Number.isFinite(value)) throw new Refused(`line ${this.line}: ${letter} needs a number`);
      if (letter === 'G') this.mode(value);
      else if (letter === 'M') this.machine(value);
      else if (letter === 'F') this.feed = value;
      else if (['X', 'Y', u, v].includes(letter)) {
        target[letter] = value;
        isMove = true;
      } else if (!'PSNT'.includes(letter)) throw new Refused(`line ${this.line}: there is no axis ${letter}`);
    }
    return isMove ? this.move(target) : null;
  }

  private mode(g: number): void {
    if (g === 93 || g === 94) this.inverseTime = g === 93;
    else if (g === 0 || g === 1) this.motion = g;
    else if (![4, 17, 21, 40, 49, 54, 80, 90].includes(g)) throw new Refused(`line ${this.line}: G${g} means nothing to a wire`);
  }

  private machine(m: number): void {
    if (m === 3) this.isHot = true;
    else if (m === 5) this.isHot = false;
    else if (m === 2 || m === 30) this.isDone = true;
    else throw new Refused(`line ${this.line}: M${m} means nothing to a wire`);
  }

  private move(target: Record<string, number>): Step {
    const [u, v] = this.setUp.axes;
    const of = (letter: string, from: Record<string, number>): number => from[letter] ?? 0;
    const step = { left: { x: of('X', target), y: of('Y', target) }, right: { x: of(u, target), y: of(v, target) } };
    const before = { left: { x: of('X', this.at), y: of('Y', this.at) }, right: { x: of(u, this.at), y: of(v, this.at) } };
    const isFirst = Object.keys(this.at).length === 0;
    this.at = target;
    if (this.motion === 0 || isFirst) {
      const moved = { ...step, minutes: 0 };
      this.steps.push(moved);
      return moved;
    }
    if (!(this.feed > 0)) throw new Refused(`line ${this.line}: a cut needs a feed`);
    const far = Math.max(away(before.left, step.left), away(before.right, step.right));
    const minutes = this.inverseTime ? 1 / this.feed : far / this.feed;
    const speed = far / minutes;
    if (far > this.setUp.fastestMmPerMin * minutes + roundedMm) throw new Refused(`line ${this.line}: a tower cannot go ${speed.toFixed(0)} mm a minute`); // biome-ignore format: one line
    this.fastestMmPerMin = Math.max(this.fastestMmPerMin, speed);
    const cut = { ...step, minutes };
    this.steps.push(cut);
    return cut;
  }

  /** What is melted in a plane, from the block's left face (0) to its right one (1). */
  meltedAt(share: number): Melted[] {
    const { betweenMm, toBlockMm, spanMm, burnMm, burnMm2PerMin } = this.setUp;
    const t = (toBlockMm + share * spanMm) / betweenMm;
    let before: Place | null = null;
    return this.steps.map(({ left, right, minutes }) => {
      const at = { x: left.x + t * (right.x - left.x), y: left.y + t * (right.y - left.y) };
      const far = before ? away(before, at) : 0;
      before = at;
      return { at, widthMm: minutes === 0 ? null : far > 0 ? burnMm + (burnMm2PerMin * minutes) / far : 0 };
    });
  }

  /** How far what is left in a plane lies from the outline that it should have: places of the outline, and the worst of them, mm. */
  offBy(share: number, outline: readonly Place[]): { mostMm: number; gougedMm: number } {
    const melted = this.meltedAt(share);
    let [mostMm, gougedMm] = [0, 0];
    for (const p of outline) {
      // What is left begins where the nearest melted stretch ends.
      let room = Infinity;
      for (let k = 1; k < melted.length; k++) {
        const [a, b] = [melted[k - 1] as Melted, melted[k] as Melted];
        if (b.widthMm === null) continue;
        room = Math.min(room, fromStretch(p, a.at, b.at) - b.widthMm / 2);
      }
      mostMm = Math.max(mostMm, Math.abs(room));
      gougedMm = Math.max(gougedMm, -room);
    }
    return { mostMm, gougedMm };
  }
}

const away = (a: Place, b: Place): number => Math.hypot(b.x - a.x, b.y - a.y);

function fromStretch(p: Place, a: Place, b: Place): number {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const t = Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / Math.max(dx * dx + dy * dy, 1e-18)));
  return Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy);
}
