/**
 * In: a program's lines, one after another. Out: what the cutter does at each: moves, the tool on or off, the end.
 * Written from the text of Kramer, Proctor & Messina 2000, "The NIST RS274NGC Interpreter, Version 3" (NISTIR 6556), apart from
 * the application's own reader, so that either can be held against the other.
 */

export interface Place {
  readonly x: number;
  readonly y: number;
}

/** A straight or circular move, in mm. */
export interface Move {
  readonly line: number;
  readonly from: Place;
  readonly to: Place;
  /** Null for a straight move. */
  readonly arc: { readonly centre: Place; readonly radius: number; readonly start: number; readonly sweep: number } | null;
  /** Null moves as fast as the machine can. */
  readonly feedMmPerMin: number | null;
  /** Whether the tool takes material away meanwhile. */
  readonly burns: boolean;
  readonly power: number;
}

export type Instruction = Move | { readonly end: true } | null;

export class Refused extends Error {
  readonly code = 'bad-line';
}

/** Words that may stand on a line (3.3.2), of those that a flat cutter has a use for. */
const word = /^([A-Z])\s*([-+]?\s*(?:\d[\d\s]*(?:\.[\d\s]*)?|\.[\d\s]+))/;
const motions: ReadonlySet<number> = new Set([0, 1, 2, 3]);
const harmless: ReadonlySet<number> = new Set([17, 40, 49, 54, 64, 80, 94]);
/** Radii at the ends of an arc may differ by so much (3.5.3.2): 0.002 mm, and a little for figures printed to four digits. */
const radiusSlackMm = 0.003;
/** Of one modal group only one word may stand on a line (3.4). */
const groupOf = (g: number): string =>
  motions.has(g) || g === 80 ? 'motion' : g === 20 || g === 21 ? 'units' : g === 90 || g === 91 ? 'distance' : `G${g}`;

export class Interpreter {
  private at: Place = { x: 0, y: 0 };
  private unit = 1;
  private absolute = true;
  private motion: number | null = null;
  private feed = 0;
  private power = 0;
  private spindle = false;
  private lines = 0;

  /** @throws Refused with what is wrong in plain words; nothing of the line is done then */
  read(text: string): Instruction {
    this.lines++;
    const bare = text.replace(/\([^()]*\)/g, ' ').replace(/;.*$/, '');
    if (/[()]/.test(bare)) throw new Refused('a comment that is not closed');
    const words = wordsOf(bare.toUpperCase());
    const values = new Map<string, number>();
    const codes: { g: number[]; m: number[] } = { g: [], m: [] };
    for (const [letter, value] of words) {
      if (letter === 'G') codes.g.push(value);
      else if (letter === 'M') codes.m.push(value);
      else if (values.has(letter)) throw new Refused(`${letter} stands twice on the line`);
      else if (!'NXYZIJRFSTP'.includes(letter)) throw new Refused(`the letter ${letter} means nothing here`);
      else values.set(letter, value);
    }
    this.checkCodes(codes);
    return this.execute(values, codes);
  }

  private checkCodes({ g, m }: { g: number[]; m: number[] }): void {
    const groups = g.map(groupOf);
    if (new Set(groups).size < groups.length) throw new Refused('two words of one group on the line');
    for (const code of g) {
      if (!motions.has(code) && !harmless.has(code) && ![20, 21, 90, 91].includes(code)) throw new Refused(`G${code} is not known`);
    }
    for (const code of m) if (![0, 2, 3, 4, 5, 7, 8, 9, 30].includes(code)) throw new Refused(`M${code} is not known`);
  }

  /** In the order of 3.8, table 8: feed, speed, spindle, units, distance, motion, stop. */
  private execute(values: ReadonlyMap<string, number>, { g, m }: { g: number[]; m: number[] }): Instruction {
    const unit = g.includes(20) ? 25.4 : g.includes(21) ? 1 : this.unit;
    const motion = g.find((code) => motions.has(code)) ?? (g.includes(80) ? null : this.motion);
    const feed = values.has('F') ? (values.get('F') as number) * unit : this.feed;
    const power = values.get('S') ?? this.power;
    const absolute = g.includes(90) ? true : g.includes(91) ? false : this.absolute;
    const spindle = m.includes(3) || m.includes(4) ? true : m.includes(5) ? false : this.spindle;
    if (power < 0 || feed < 0) throw new Refused('a speed below zero');
    const hasPlace = values.has('X') || values.has('Y');
    if (!hasPlace && (values.has('I') || values.has('J'))) throw new Refused('an arc without its end');
    const move = hasPlace ? this.move(values, { unit, motion, feed, power, absolute, spindle }) : null;
    if (move) this.at = move.to;
    [this.unit, this.motion, this.feed, this.power, this.absolute, this.spindle] = [unit, motion, feed, power, absolute, spindle];
    if (m.includes(2) || m.includes(30)) return { end: true };
    return move;
  }

  private move(
    values: ReadonlyMap<string, number>,
    state: { unit: number; motion: number | null; feed: number; power: number; absolute: boolean; spindle: boolean },
  ): Move {
    const { unit, motion, feed, power, absolute, spindle } = state;
    if (motion === null) throw new Refused('a place without a motion');
    if (motion !== 0 && !(feed > 0)) throw new Refused('a motion without a feed rate');
    const along = (now: number, letter: string): number => {
      const value = values.get(letter);
      return value === undefined ? now : absolute ? value * unit : now + value * unit;
    };
    const to = { x: along(this.at.x, 'X'), y: along(this.at.y, 'Y') };
    const arc = motion >= 2 ? this.arc(to, values, unit, motion === 3) : null;
    const burns = spindle && power > 0 && motion !== 0;
    return { line: this.lines, from: this.at, to, arc, feedMmPerMin: motion === 0 ? null : feed, burns, power };
  }

  private arc(to: Place, values: ReadonlyMap<string, number>, unit: number, isLeft: boolean): Move['arc'] {
    if (!values.has('I') && !values.has('J')) throw new Refused('an arc without I or J');
    const centre = { x: this.at.x + (values.get('I') ?? 0) * unit, y: this.at.y + (values.get('J') ?? 0) * unit };
    const radius = Math.hypot(this.at.x - centre.x, this.at.y - centre.y);
    const other = Math.hypot(to.x - centre.x, to.y - centre.y);
    if (Math.abs(radius - other) > radiusSlackMm)
      throw new Refused(`an arc that misses its end by ${Math.abs(radius - other).toFixed(3)} mm`);
    const start = Math.atan2(this.at.y - centre.y, this.at.x - centre.x);
    let sweep = Math.atan2(to.y - centre.y, to.x - centre.x) - start;
    if (isLeft && sweep <= 1e-12) sweep += 2 * Math.PI;
    if (!isLeft && sweep >= -1e-12) sweep -= 2 * Math.PI;
    return { centre, radius, start, sweep };
  }
}

function wordsOf(text: string): [string, number][] {
  const words: [string, number][] = [];
  let rest = text.trim();
  if (rest.startsWith('%')) rest = rest.slice(1).trim();
  while (rest !== '') {
    const found = word.exec(rest);
    if (!found) throw new Refused(`“${rest.slice(0, 12)}” is no word of a letter and a number`);
    words.push([found[1] as string, Number((found[2] as string).replace(/\s+/g, ''))]);
    rest = rest.slice(found[0].length).trim();
  }
  return words;
}

export const moveLength = ({ from, to, arc }: Pick<Move, 'from' | 'to' | 'arc'>): number =>
  arc ? arc.radius * Math.abs(arc.sweep) : Math.hypot(to.x - from.x, to.y - from.y);

/** A place on a move, `t` from 0 to 1. */
export function placeOn({ from, to, arc }: Pick<Move, 'from' | 'to' | 'arc'>, t: number): Place {
  if (t >= 1) return to;
  if (!arc) return { x: from.x + (to.x - from.x) * t, y: from.y + (to.y - from.y) * t };
  const angle = arc.start + arc.sweep * t;
  return { x: arc.centre.x + arc.radius * Math.cos(angle), y: arc.centre.y + arc.radius * Math.sin(angle) };
}

/** The direction of travel at a place, length 1. */
export function directionAt({ from, to, arc }: Pick<Move, 'from' | 'to' | 'arc'>, t: number): Place {
  if (arc) {
    const angle = arc.start + arc.sweep * t;
    const way = Math.sign(arc.sweep);
    return { x: -way * Math.sin(angle), y: way * Math.cos(angle) };
  }
  const size = Math.hypot(to.x - from.x, to.y - from.y) || 1;
  return { x: (to.x - from.x) / size, y: (to.y - from.y) / size };
}
