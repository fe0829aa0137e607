/**
 * In: a program in G-code, from anywhere. Out: the moves of each tool in three dimensions, in mm as the machine moves.
 * Rests on: NISTIR 6556 (Kramer, Proctor & Messina 2000): words in any order, modal groups, arcs and helices in the xy plane by I and J
 * or by R, drilling cycles G81 to G83. It shares no code with the stand-in machine's interpreter, so that each checks the other.
 */
import { english } from '../messages/index.ts';
import type { Move, Place } from '../milling/moves.ts';
import type { Point } from '../plane/index.ts';
import { GcodeError } from './gcode-reading.ts';

export interface ReadProgram {
  readonly tools: readonly ReadTool[];
  /** What is known of the machine alone and was passed over, a line each. */
  readonly notes: readonly string[];
}

/** What one tool does, from one change to the next. */
export interface ReadTool {
  /** As T says it; 0 where nothing does. */
  readonly number: number;
  readonly comment: string;
  readonly speedRpm: number;
  readonly start: Place;
  readonly moves: readonly Move[];
}

/** So many moves are read at most; a program that is longer is refused. */
const mostMoves = 3_000_000;
/** The two radii of an arc may differ by this much, mm (NISTIR 6556, 3.5.3.2 allows 0.002; figures are printed to a few digits). */
const radiusSlackMm = 0.02;
/** Where a machine stands that was sent home, mm. */
const homeZ = 50;

const word = /([A-Z])\s*([-+]?\s*(?:\d+\.?\d*|\.\d+))/g;
/** Codes that change nothing here: planes, offsets, path control, coordinate systems. */
const harmless: ReadonlySet<number> = new Set([17, 40, 43, 43.1, 49, 54, 55, 56, 57, 58, 59, 61, 61.1, 64, 91.1, 94, 98, 99]);
const cycles: ReadonlySet<number> = new Set([73, 81, 82, 83]);
/** Pauses, and places that the machine alone knows. */
const specials: ReadonlySet<number> = new Set([4, 28, 30, 53]);
const knownMisc: ReadonlySet<number> = new Set([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 30]);

/** @throws GcodeError with the line's number, from 1 */
export function readMillingProgram(text: string): ReadProgram {
  const reader = new Reader();
  let [start, number] = [0, 0];
  while (start <= text.length && !reader.isEnded) {
    const end = text.indexOf('\n', start);
    reader.take(text.slice(start, end < 0 ? text.length : end), ++number);
    if (end < 0) break;
    start = end + 1;
  }
  return reader.done();
}

class Reader {
  isEnded = false;
  private at: Place = { x: 0, y: 0, z: homeZ };
  private readonly known = { x: false, y: false, z: false };
  private mmPerUnit = 1;
  private isAbsolute = true;
  private isArcAbsolute = false;
  private isInverse = false;
  private motion: number | null = null;
  private plane = 17;
  private feed = 0;
  private speed = 0;
  private nextTool = 0;
  private comment = '';
  private cycle: { z: number; r: number; q: number; from: number; isHigh: boolean } | null = null;
  private retractsHigh = true;
  private count = 0;
  private line = 0;
  private readonly tools: ReadTool[] = [];
  private open: { number: number; comment: string; speedRpm: number; start: Place; moves: Move[] } | null = null;
  private readonly notes = new Set<string>();

  take(line: string, number: number): void {
    this.line = number;
    const comment = /\(([^()]*)\)|;\s*(.*)$/.exec(line);
    if (comment) this.comment = (comment[1] ?? comment[2] ?? '').trim();
    const code = line.replace(/\([^()]*\)/g, ' ').replace(/;.*$/, '').trim().toUpperCase(); // biome-ignore format: one line
    if (code === '' || code === '%' || code.startsWith('/')) return;
    if (/[[\]#]/.test(code) || /^O/.test(code)) throw new GcodeError(number, english.files.noVariables);
    const words = [...code.matchAll(word)].map(
      ([, letter, value]) => [letter as string, Number((value as string).replace(/\s/g, ''))] as const,
    );
    if (code.replace(word, '').trim() !== '' || words.length === 0) throw new GcodeError(number, english.files.notGcodeWords(line.trim()));
    this.obey(words, number);
  }

  private obey(words: readonly (readonly [string, number])[], number: number): void {
    const values = new Map<string, number>();
    const [g, m]: [number[], number[]] = [[], []];
    for (const [letter, value] of words) {
      if (letter === 'G') g.push(value);
      else if (letter === 'M') m.push(value);
      else values.set(letter, value);
    }
    if (values.has('F')) this.feed = (values.get('F') as number) * (g.includes(20) ? 25.4 : g.includes(21) ? 1 : this.mmPerUnit);
    this.speed = values.get('S') ?? this.speed;
    if (values.has('T')) this.nextTool = values.get('T') as number;
    for (const code of m) this.misc(code, number);
    const special = g.filter((code) => specials.has(code));
    for (const code of g) if (!specials.has(code)) this.general(code, number);
    const hasPlace = ['X', 'Y', 'Z', 'R'].some((axis) => values.has(axis));
    const hasCentre = this.motion !== null && this.motion >= 2 && (values.has('I') || values.has('J'));
    if (special.includes(4)) return;
    if (special.length > 0) this.home(values, !special.includes(53));
    else if (hasPlace || hasCentre) this.go(values, number);
  }

  private general(code: number, number: number): void {
    if (code >= 0 && code <= 3 && Number.isInteger(code)) {
      this.motion = code;
      this.cycle = null;
    } else if (code === 80) [this.motion, this.cycle] = [null, null];
    else if (cycles.has(code)) this.motion = code;
    else if (code === 20) this.mmPerUnit = 25.4;
    else if (code === 21) this.mmPerUnit = 1;
    else if (code === 90) this.isAbsolute = true;
    else if (code === 91) this.isAbsolute = false;
    else if (code === 90.1) this.isArcAbsolute = true;
    else if (code === 91.1) this.isArcAbsolute = false;
    else if (code === 93) this.isInverse = true;
    else if (code === 94) this.isInverse = false;
    else if (code === 18 || code === 19) this.plane = code;
    else if (!harmless.has(code)) throw new GcodeError(number, english.files.unknownCode(code));
    if (code === 17) this.plane = 17;
    if (code === 98) this.retractsHigh = true;
    if (code === 99) this.retractsHigh = false;
  }

  private misc(code: number, number: number): void {
    if (code === 6 || code === 0 || code === 1) this.close();
    if (code === 2 || code === 30) {
      this.close();
      this.isEnded = true;
    }
    if (!knownMisc.has(code)) this.notes.add(english.files.passedOver(`M${code}`, number));
  }

  private home(values: ReadonlyMap<string, number>, isHome: boolean): void {
    const hasAxes = ['X', 'Y', 'Z'].some((axis) => values.has(axis));
    // By way of a place that is said, and then up: where home is, the machine alone knows.
    if (isHome && hasAxes) this.put(true, this.target(values), 0);
    if (isHome || values.has('Z')) this.put(true, { ...this.at, z: Math.max(this.at.z, homeZ) }, 0);
  }

  private target(values: ReadonlyMap<string, number>): Place {
    const next = (axis: 'x' | 'y' | 'z'): number => {
      const value = values.get(axis.toUpperCase());
      if (value === undefined) return this.at[axis];
      return this.isAbsolute ? value * this.mmPerUnit : this.at[axis] + value * this.mmPerUnit;
    };
    return { x: next('x'), y: next('y'), z: next('z') };
  }

  private go(values: ReadonlyMap<string, number>, number: number): void {
    if (this.motion === null) throw new GcodeError(number, english.files.noMotion);
    if (cycles.has(this.motion)) {
      this.drill(values, number);
      return;
    }
    const to = this.target(values);
    if (this.motion === 0) this.put(true, to, 0, 0, values);
    else {
      if (!(this.feed > 0) && !this.isInverse) throw new GcodeError(number, english.files.noFeed);
      const feed = this.isInverse ? 600 : this.feed;
      if (this.motion === 1) this.put(false, to, 0, feed, values);
      else this.arc(to, this.turnOf(to, values, number), feed);
    }
  }

  /** An arc; a wide one in halves, since one that ends where it began has no ends to tell its centre by. */
  private arc(to: Place, { centre, sweep }: { centre: { x: number; y: number }; sweep: number }, feed: number): void {
    if (Math.abs(sweep) > Math.PI) {
      const [c, s] = [Math.cos(sweep / 2), Math.sin(sweep / 2)];
      const [x, y] = [this.at.x - centre.x, this.at.y - centre.y];
      this.put(false, { x: centre.x + c * x - s * y, y: centre.y + s * x + c * y, z: (this.at.z + to.z) / 2 }, sweep / 2, feed);
      this.put(false, to, sweep / 2, feed);
    } else this.put(false, to, sweep, feed);
  }

  /** The turn of an arc, from its centre or its radius. */
  private turnOf(to: Place, values: ReadonlyMap<string, number>, number: number): { centre: { x: number; y: number }; sweep: number } {
    if (this.plane !== 17) throw new GcodeError(number, english.files.arcsInXy);
    const isLeft = this.motion === 3;
    const radius = values.get('R');
    const centre =
      radius === undefined ? this.centreSaid(to, values, number) : this.centreBeside(to, radius * this.mmPerUnit, isLeft, number);
    const full = 2 * Math.PI;
    const turned = Math.atan2(to.y - centre.y, to.x - centre.x) - Math.atan2(this.at.y - centre.y, this.at.x - centre.x);
    const left = ((turned % full) + full) % full;
    const isWhole = left < 1e-9 || full - left < 1e-9;
    return { centre, sweep: isWhole ? (isLeft ? full : -full) : isLeft ? left : left - full };
  }

  /** The centre by I and J. */
  private centreSaid(to: Place, values: ReadonlyMap<string, number>, number: number): Point {
    if (!values.has('I') && !values.has('J')) throw new GcodeError(number, english.files.arcNeedsCentre);
    const [i, j] = [(values.get('I') ?? 0) * this.mmPerUnit, (values.get('J') ?? 0) * this.mmPerUnit];
    const centre = this.isArcAbsolute ? { x: i, y: j } : { x: this.at.x + i, y: this.at.y + j };
    const off = Math.abs(Math.hypot(this.at.x - centre.x, this.at.y - centre.y) - Math.hypot(to.x - centre.x, to.y - centre.y));
    if (off > radiusSlackMm) throw new GcodeError(number, english.files.arcEndOff(off.toFixed(3)));
    return centre;
  }

  /** The centre by a radius: of the two circles the one of the shorter arc, of a radius below zero that of the longer. */
  private centreBeside(to: Place, r: number, isLeft: boolean, number: number): Point {
    const [dx, dy] = [to.x - this.at.x, to.y - this.at.y];
    const chord = Math.hypot(dx, dy);
    if (chord < 1e-9) throw new GcodeError(number, english.files.arcNeedsCentre);
    if (chord > 2 * Math.abs(r) + radiusSlackMm)
      throw new GcodeError(number, english.files.arcEndOff((chord / 2 - Math.abs(r)).toFixed(3)));
    const rise = Math.sqrt(Math.max(0, r * r - (chord * chord) / 4));
    const side = (isLeft ? 1 : -1) * (r > 0 ? 1 : -1);
    return { x: (this.at.x + to.x) / 2 - (side * rise * dy) / chord, y: (this.at.y + to.y) / 2 + (side * rise * dx) / chord };
  }

  private drill(values: ReadonlyMap<string, number>, number: number): void {
    const scaled = (letter: string): number | undefined => {
      const value = values.get(letter);
      return value === undefined ? undefined : value * this.mmPerUnit;
    };
    const from = this.cycle?.from ?? this.at.z;
    const r = scaled('R') ?? this.cycle?.r;
    const z = scaled('Z') ?? this.cycle?.z;
    if (r === undefined || z === undefined) throw new GcodeError(number, english.files.cycleNeeds);
    const q = scaled('Q') ?? this.cycle?.q ?? 0;
    if (!(this.feed > 0)) throw new GcodeError(number, english.files.noFeed);
    this.cycle = { z, r, q, from, isHigh: this.retractsHigh };
    const { x, y } = this.target(new Map([...values].filter(([letter]) => letter === 'X' || letter === 'Y')));
    if (this.at.z < r) this.put(true, { ...this.at, z: r });
    this.put(true, { x, y, z: this.at.z });
    this.put(true, { x, y, z: r });
    const isPecked = (this.motion === 83 || this.motion === 73) && q > 0;
    if (isPecked && (r - z) / q > 10_000) throw new GcodeError(number, english.files.cycleNeeds);
    for (let deep = isPecked ? Math.max(z, r - q) : z; ; deep = Math.max(z, deep - q)) {
      this.put(false, { x, y, z: deep }, 0, this.feed);
      if (deep <= z) break;
      if (this.motion === 83) this.put(true, { x, y, z: r });
    }
    this.put(true, { x, y, z: this.retractsHigh ? Math.max(r, from) : r });
  }

  private put(isRapid: boolean, to: Place, sweep = 0, feedMmPerMin = 0, values?: ReadonlyMap<string, number>): void {
    if (++this.count > mostMoves) throw new GcodeError(this.line, english.files.tooManyMoves);
    for (const axis of ['x', 'y', 'z'] as const) if (!values || values.has(axis.toUpperCase())) this.known[axis] = true;
    // What a program says before it says where the tool is only brings it there.
    const isPlaced = this.known.x && this.known.y && this.known.z;
    if (this.open === null && isRapid && !isPlaced) {
      this.at = to;
      return;
    }
    this.open ??= { number: this.nextTool, comment: this.comment, speedRpm: this.speed, start: this.at, moves: [] };
    this.open.moves.push({ isRapid, to, sweep, feedMmPerMin });
    this.at = to;
  }

  private close(): void {
    if (this.open && this.open.moves.length > 0) this.tools.push(this.open);
    this.open = null;
  }

  done(): ReadProgram {
    this.close();
    return { tools: this.tools, notes: [...this.notes] };
  }
}
