/**
 * In: a program's lines, one after another. Out: what a mill with three axes does at each: moves, probing, the spindle, tool changes,
 * pauses, the end.
 * Written from the text of Kramer, Proctor & Messina 2000, "The NIST RS274NGC Interpreter, Version 3" (NISTIR 6556), apart from the
 * application's own writer and reader, so that either can be held against the other.
 */
import { Refused } from './interpreter.ts';

export type Axes = readonly [x: number, y: number, z: number];

/** A straight, circular or helical move, in mm. */
export interface MillingMove {
  readonly line: number;
  readonly from: Axes;
  readonly to: Axes;
  /** In the xy plane, z changing evenly; null for a straight move. */
  readonly arc: { readonly centre: readonly [number, number]; readonly start: number; readonly sweep: number } | null;
  /** Null moves as fast as the machine can. */
  readonly feedMmPerMin: number | null;
  readonly spindleRpm: number;
  readonly tool: number;
  /** Whether it ends where the tool touches something (G38.2, 3.5.6). */
  readonly isProbe: boolean;
}

export type MillingInstruction =
  | MillingMove
  /** A change of tool, or a stop for the person at the machine. */
  | { readonly stop: 'change'; readonly tool: number; readonly note: string }
  | { readonly stop: 'pause'; readonly seconds: number }
  | { readonly stop: 'end' }
  | null;

const groups: readonly (readonly number[])[] = [
  [0, 1, 2, 3, 38.2, 80],
  [17, 18, 19],
  [20, 21],
  [40],
  [43, 49],
  [54, 55, 56, 57, 58, 59],
  [61, 64],
  [90, 91],
  [90.1, 91.1],
  [93, 94],
  [98, 99],
];
const alone: readonly number[] = [4, 28, 53];
const misc: readonly number[] = [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 30];
const radiusSlackMm = 0.003;

export class MillingInterpreter {
  private at: Axes = [0, 0, 0];
  private scale = 1;
  private isAbsolute = true;
  private motion: number | null = null;
  private feed = 0;
  private speed = 0;
  private isOn = false;
  private chosen = 0;
  private tool = 0;
  private line = 0;
  /** What the last line of comment said. */
  private note = '';

  /** Where the machine has come to by itself: a probe that touched something. */
  standsAt(place: Axes): void {
    this.at = place;
  }

  /** @throws Refused with what is wrong in plain words; nothing of the line is done then */
  read(text: string): MillingInstruction {
    this.line++;
    this.note = /\(([^()]*)\)/.exec(text)?.[1]?.trim() ?? /;(.*)$/.exec(text)?.[1]?.trim() ?? this.note;
    const words = wordsOf(text.replace(/\([^()]*\)/g, ' ').replace(/;.*$/, ''));
    const g = words.filter(([letter]) => letter === 'G').map(([, value]) => value);
    const m = words.filter(([letter]) => letter === 'M').map(([, value]) => value);
    this.check(g, m);
    const value = (letter: string): number | undefined => words.find(([l]) => l === letter)?.[1];
    return this.execute(g, m, value);
  }

  private check(g: readonly number[], m: readonly number[]): void {
    for (const code of g)
      if (!alone.includes(code) && !groups.some((group) => group.includes(code))) throw new Refused(`G${code} is not known`);
    for (const group of groups)
      if (g.filter((code) => group.includes(code)).length > 1) throw new Refused('two words of one group on the line');
    for (const code of m) if (!misc.includes(code)) throw new Refused(`M${code} is not known`);
  }

  /** In the order of 3.8, table 8. */
  private execute(g: readonly number[], m: readonly number[], value: (letter: string) => number | undefined): MillingInstruction {
    if (g.includes(20)) this.scale = 25.4;
    if (g.includes(21)) this.scale = 1;
    if (value('F') !== undefined) this.feed = (value('F') as number) * this.scale;
    this.speed = value('S') ?? this.speed;
    this.chosen = value('T') ?? this.chosen;
    if (m.includes(6)) this.tool = this.chosen;
    if (m.includes(3) || m.includes(4)) this.isOn = true;
    if (m.includes(5)) this.isOn = false;
    if (g.includes(4)) return { stop: 'pause', seconds: value('P') ?? 0 };
    if (g.includes(90)) this.isAbsolute = true;
    if (g.includes(91)) this.isAbsolute = false;
    const motion = g.find((code) => [0, 1, 2, 3, 38.2].includes(code));
    if (motion !== undefined) this.motion = motion;
    if (g.includes(80)) this.motion = null;
    if (m.includes(2) || m.includes(30)) return { stop: 'end' };
    if (m.includes(0) || m.includes(1) || m.includes(6)) return { stop: 'change', tool: this.tool, note: this.note };
    if (g.includes(28) || g.includes(53)) return null;
    return ['X', 'Y', 'Z'].some((axis) => value(axis) !== undefined) ? this.move(value) : null;
  }

  private move(value: (letter: string) => number | undefined): MillingMove {
    if (this.motion === null) throw new Refused('a place without a motion');
    if (this.motion > 0 && !(this.feed > 0)) throw new Refused('a motion without a feed rate');
    const from = this.at;
    const along = (axis: string, now: number): number => {
      const word = value(axis);
      if (word === undefined) return now;
      return this.isAbsolute ? word * this.scale : now + word * this.scale;
    };
    const to: Axes = [along('X', from[0]), along('Y', from[1]), along('Z', from[2])];
    const arc = this.motion === 2 || this.motion === 3 ? this.arc(from, to, value) : null;
    this.at = to;
    return {
      line: this.line,
      from,
      to,
      arc,
      feedMmPerMin: this.motion === 0 ? null : this.feed,
      spindleRpm: this.isOn ? this.speed : 0,
      tool: this.tool,
      isProbe: this.motion === 38.2,
    };
  }

  /** By the centre (3.5.3.2) or by the radius (3.5.3.1). */
  private arc(from: Axes, to: Axes, value: (letter: string) => number | undefined): NonNullable<MillingMove['arc']> {
    const isLeft = this.motion === 3;
    const r = value('R');
    const centre = r === undefined ? this.centre(from, to, value) : centreBeside(from, to, r * this.scale, isLeft);
    const angle = (p: Axes): number => Math.atan2(p[1] - centre[1], p[0] - centre[0]);
    let sweep = angle(to) - angle(from);
    if (isLeft) while (sweep <= 1e-9) sweep += 2 * Math.PI;
    else while (sweep >= -1e-9) sweep -= 2 * Math.PI;
    return { centre, start: angle(from), sweep };
  }

  private centre(from: Axes, to: Axes, value: (letter: string) => number | undefined): [number, number] {
    if (value('I') === undefined && value('J') === undefined) throw new Refused('an arc without I, J or R');
    const centre: [number, number] = [from[0] + (value('I') ?? 0) * this.scale, from[1] + (value('J') ?? 0) * this.scale];
    const off = Math.abs(Math.hypot(from[0] - centre[0], from[1] - centre[1]) - Math.hypot(to[0] - centre[0], to[1] - centre[1]));
    if (off > radiusSlackMm) throw new Refused(`an arc that misses its end by ${off.toFixed(3)} mm`);
    return centre;
  }
}

/** Of the two circles of a radius through both ends: a radius below zero asks for the longer arc. */
function centreBeside(from: Axes, to: Axes, r: number, isLeft: boolean): [number, number] {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const chord = Math.hypot(dx, dy);
  if (chord === 0) throw new Refused('an arc by its radius that ends where it begins');
  const square = r * r - (chord / 2) ** 2;
  if (square < -radiusSlackMm * Math.abs(r)) throw new Refused('a radius that does not reach the end');
  const height = Math.sqrt(Math.max(0, square)) * (isLeft === r > 0 ? 1 : -1);
  return [(from[0] + to[0]) / 2 - (height * dy) / chord, (from[1] + to[1]) / 2 + (height * dx) / chord];
}

function wordsOf(text: string): [string, number][] {
  const bare = text.toUpperCase().replace(/\s+/g, '').replace(/^%/, '');
  const words = [...bare.matchAll(/([A-Z])([-+]?(?:\d+\.?\d*|\.\d+))/g)].map(([, letter, figure]): [string, number] => [
    letter as string,
    Number(figure),
  ]);
  if (words.map(([letter]) => letter).length === 0 && bare !== '')
    throw new Refused(`“${text.trim().slice(0, 12)}” is no word of a letter and a number`);
  if (bare.replace(/([A-Z])([-+]?(?:\d+\.?\d*|\.\d+))/g, '') !== '')
    throw new Refused(`“${text.trim().slice(0, 12)}” is no word of a letter and a number`);
  for (const letter of 'XYZIJRFSTP')
    if (words.filter(([l]) => l === letter).length > 1) throw new Refused(`${letter} stands twice on the line`);
  return words;
}

export function millingMoveLength({ from, to, arc }: MillingMove): number {
  const dz = to[2] - from[2];
  if (!arc) return Math.hypot(to[0] - from[0], to[1] - from[1], dz);
  return Math.hypot(Math.hypot(from[0] - arc.centre[0], from[1] - arc.centre[1]) * arc.sweep, dz);
}

/** Where a move goes at a place on it, length 1. */
export function millingDirectionOn(move: MillingMove, t: number): Axes {
  const length = millingMoveLength(move);
  const [dx, dy, dz] = [move.to[0] - move.from[0], move.to[1] - move.from[1], move.to[2] - move.from[2]];
  if (length === 0) return [0, 0, 0];
  if (!move.arc) return [dx / length, dy / length, dz / length];
  const { centre, start, sweep } = move.arc;
  const along = (Math.hypot(move.from[0] - centre[0], move.from[1] - centre[1]) * sweep) / length;
  const angle = start + sweep * t;
  return [-Math.sin(angle) * along, Math.cos(angle) * along, dz / length];
}

/** A place on a move, `t` from 0 to 1. */
export function millingPlaceOn({ from, to, arc }: MillingMove, t: number): Axes {
  const z = from[2] + (to[2] - from[2]) * t;
  if (!arc) return [from[0] + (to[0] - from[0]) * t, from[1] + (to[1] - from[1]) * t, z];
  const radius = Math.hypot(from[0] - arc.centre[0], from[1] - arc.centre[1]);
  const angle = arc.start + arc.sweep * t;
  return [arc.centre[0] + radius * Math.cos(angle), arc.centre[1] + radius * Math.sin(angle), z];
}
