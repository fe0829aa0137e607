/**
 * In: a program in G-code. Out: the ways with the tool on, in mm as the machine moves.
 * Rests on: NISTIR 6556 (Kramer, Proctor & Messina 2000): a line is words of a letter and a number, in any order; motion, units,
 * distance mode, feed and spindle hold until they are changed; arcs by I and J from their start, or by R.
 */

import { english } from '../messages/index.ts';
import type { Path } from '../plane/path.ts';
import { distance, type Point } from '../plane/point.ts';
import type { Segment } from '../plane/segment.ts';

export interface ReadToolpath {
  readonly path: Path;
  /** The last comment before it. */
  readonly comment: string;
  readonly feedMmPerMin: number;
  readonly s: number;
}

export interface GcodeRead {
  readonly toolpaths: readonly ReadToolpath[];
  /** All moves with the tool off, mm. */
  readonly travelMm: number;
  readonly end: Point;
}

export class GcodeError extends Error {
  readonly code = 'bad-gcode';
  constructor(
    readonly line: number,
    message: string,
  ) {
    super(english.files.line(line, message));
  }
}

/** An arc's two radii may differ by this much, mm (NISTIR 6556, 3.5.3.2). */
const radiusSlackMm = 0.01;

/** @throws GcodeError with the line's number, from 1 */
export function readGcode(text: string): GcodeRead {
  const reader = new Reader();
  for (const [k, line] of text.split(/\r?\n/).entries()) reader.take(line, k + 1);
  return reader.done();
}

class Reader {
  private at: Point = { x: 0, y: 0 };
  private mmPerUnit = 1;
  private isAbsolute = true;
  private motion: 0 | 1 | 2 | 3 | null = null;
  private isOn = false;
  private s = 0;
  private feed = 0;
  private comment = '';
  private travelMm = 0;
  private readonly toolpaths: ReadToolpath[] = [];
  private open: { start: Point; segments: Segment[]; comment: string; feed: number; s: number } | null = null;
  private isEnded = false;

  take(line: string, number: number): void {
    if (this.isEnded) return;
    const comment = /\(([^()]*)\)/.exec(line)?.[1];
    if (comment !== undefined) {
      this.close();
      this.comment = comment;
    }
    const code = line
      .replace(/\([^()]*\)/g, '')
      .replace(/;.*$/, '')
      .replace(/\s+/g, '')
      .toUpperCase();
    if (code === '' || code === '%' || code.startsWith('/')) return;
    const words = [...code.matchAll(/([A-Z])([-+]?(?:\d+\.?\d*|\.\d+))/g)].map(
      ([, letter, value]) => [letter as string, Number(value)] as const,
    );
    if (words.map(([l, v]) => l + v).length === 0 || code.replace(/[A-Z][-+]?(?:\d+\.?\d*|\.\d+)/g, '') !== '')
      throw new GcodeError(number, english.files.notGcodeWords(line.trim()));
    this.obey(words, number);
  }

  private obey(words: readonly (readonly [string, number])[], number: number): void {
    const word = (letter: string): number | undefined => words.find(([l]) => l === letter)?.[1];
    this.s = word('S') ?? this.s;
    let hasMotion = false;
    for (const [letter, value] of words) {
      if (letter === 'G') hasMotion = this.general(value, number) || hasMotion;
      if (letter === 'M') this.misc(value, number);
    }
    if (word('F') !== undefined) this.feed = (word('F') as number) * this.mmPerUnit;
    const [x, y] = [word('X'), word('Y')];
    if (x === undefined && y === undefined) return;
    if (this.motion === null) throw new GcodeError(number, english.files.noMotion);
    const next = (now: number, value: number | undefined): number =>
      value === undefined ? now : this.isAbsolute ? value * this.mmPerUnit : now + value * this.mmPerUnit;
    this.move({ x: next(this.at.x, x), y: next(this.at.y, y) }, word, number);
  }

  private general(value: number, number: number): boolean {
    if (value === 0 || value === 1 || value === 2 || value === 3) {
      this.motion = value;
      return true;
    }
    if (value === 20) this.mmPerUnit = 25.4;
    else if (value === 21) this.mmPerUnit = 1;
    else if (value === 90) this.isAbsolute = true;
    else if (value === 91) this.isAbsolute = false;
    else if (![17, 40, 49, 54, 64, 80, 94].includes(value)) throw new GcodeError(number, english.files.unknownCode(value));
    return false;
  }

  private misc(value: number, number: number): void {
    if (value === 3 || value === 4) this.isOn = true;
    else if (value === 5) {
      this.isOn = false;
      this.close();
    } else if (value === 2 || value === 30) {
      this.isEnded = true;
      this.close();
    } else if (![0, 1, 6, 7, 8, 9].includes(value)) throw new GcodeError(number, `M${value} is not known here.`);
  }

  private move(to: Point, word: (letter: string) => number | undefined, number: number): void {
    const isCutting = this.isOn && this.s > 0 && this.motion !== 0;
    if (!isCutting) {
      this.close();
      this.travelMm += distance(this.at, to);
      this.at = to;
      return;
    }
    const segment: Segment = this.motion === 1 ? { kind: 'line', to } : this.arc(to, word, number);
    this.open ??= { start: this.at, segments: [], comment: this.comment, feed: this.feed, s: this.s };
    this.open.segments.push(segment);
    this.at = to;
  }

  private arc(to: Point, word: (letter: string) => number | undefined, number: number): Segment {
    const [i, j] = [(word('I') ?? 0) * this.mmPerUnit, (word('J') ?? 0) * this.mmPerUnit];
    if (word('I') === undefined && word('J') === undefined) throw new GcodeError(number, english.files.arcNeedsCentre);
    const centre = { x: this.at.x + i, y: this.at.y + j };
    const [r, q] = [distance(centre, this.at), distance(centre, to)];
    if (Math.abs(r - q) > radiusSlackMm) throw new GcodeError(number, english.files.arcEndOff(Math.abs(r - q).toFixed(3)));
    const [from, end] = [Math.atan2(-j, -i), Math.atan2(to.y - centre.y, to.x - centre.x)];
    const full = 2 * Math.PI;
    const turned = (((end - from) % full) + full) % full;
    // Back where it began it is a whole circle.
    const left = turned < 1e-9 ? full : turned;
    return { kind: 'arc', to, sweep: this.motion === 3 ? left : left - full || -full };
  }

  private close(): void {
    if (!this.open) return;
    const { start, segments, comment, feed, s } = this.open;
    this.open = null;
    const isClosed = distance((segments.at(-1) as Segment).to, start) < 1e-6 && segments.length > 1;
    this.toolpaths.push({ path: { start, segments, closed: isClosed }, comment, feedMmPerMin: feed, s });
  }

  done(): GcodeRead {
    this.close();
    return { toolpaths: this.toolpaths, travelMm: this.travelMm, end: this.at };
  }
}
