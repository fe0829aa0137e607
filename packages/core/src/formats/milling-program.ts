/**
 * In: runs of tools in three dimensions, and what the machine expects. Out: a program for it: lines, arcs and helices in the xy plane, one
 * comment a run, each tool by a stop, a changer's word, or a program of its own.
 * Rests on: Kramer, Proctor & Messina 2000, "The NIST RS274NGC Interpreter, Version 3" (NISTIR 6556): G0 to G3 with I and J from the
 * arc's start or R, and Z along it, G4, G17, G20, G21, G28, G40, G43 with H, G49, G53, G54, G80, G90, G94, M0, M2, M3, M5, M6, T, S, F. G91.1, centres from the
 * arc's start, is common practice since.
 */
import type { Machine } from '../job/machine.ts';
import { originOn } from '../make/placement.ts';
import { chordsOfMove, type Move, type Place } from '../milling/moves.ts';
import { type Box, circleOf, type Point, splitSegment } from '../plane/index.ts';

/** A tool as a program names it. */
export interface ProgramTool {
  readonly number: number;
  readonly name: string;
  readonly speedRpm: number;
}

export interface ProgramRun {
  readonly tool: ProgramTool;
  readonly comment: string;
  readonly start: Place;
  readonly moves: readonly Move[];
}

export interface ProgramOptions {
  readonly title: string;
  readonly machine: Machine;
  /** Of the stock on the sheet: zero lies at its corner or centre. */
  readonly stock: Box;
  /** How far z 0 lies below the top of the stock, mm: 0 on its top, its thickness on the bed. */
  readonly zeroBelowTopMm: number;
  readonly safeZ: number;
  /** What stands at its head, a line each. */
  readonly about: readonly string[];
}

/** From the sheet to the machine's places, mm. */
export function onMachine({
  machine,
  stock,
  zeroBelowTopMm,
}: Pick<ProgramOptions, 'machine' | 'stock' | 'zeroBelowTopMm'>): (p: Place) => Place {
  const { x, y } = originOn(stock, machine);
  const up = machine.y === 'up' ? 1 : -1;
  return (p) => ({ x: p.x - x, y: up * (p.y - y), z: p.z + zeroBelowTopMm });
}

/** Wider arcs are divided, radians: near a half turn the last printed digit would move the centre. */
const widestArc = 2.6;

export function writeMillingProgram(runs: readonly ProgramRun[], options: ProgramOptions): string {
  const program = new Program(options);
  program.head();
  for (const run of runs) program.run(run);
  program.end();
  return program.text();
}

class Program {
  private readonly lines: string[] = [];
  private readonly place: (p: Place) => Place;
  /** Where the tool is, as printed. */
  private at: Place | null = null;
  private words = { g: '', feed: -1 };
  private tool: number | null = null;

  constructor(private readonly options: ProgramOptions) {
    this.place = onMachine(options);
  }

  text(): string {
    const { lineNumbers } = this.options.machine;
    return `${(lineNumbers ? this.lines.map((line, k) => (/^[(;]/.test(line) ? line : `N${10 * (k + 1)} ${line}`)) : this.lines).join('\n')}\n`;
  }

  head(): void {
    const { title, about, machine } = this.options;
    this.say(title);
    for (const line of about) this.say(line);
    this.put(machine.unit === 'mm' ? 'G21' : 'G20');
    this.put('G90 G94 G17 G40 G49 G80');
    if (machine.arcs === 'centre') this.put('G91.1');
    this.put('G54');
    for (const line of machine.textBefore) this.put(line);
  }

  end(): void {
    this.retract();
    this.put('M5');
    for (const line of this.options.machine.textAfter) this.put(line);
    this.put('M2');
  }

  run({ tool, comment, start, moves }: ProgramRun): void {
    if (tool.number !== this.tool) this.change(tool);
    this.say(comment);
    this.lift();
    this.rapid({ ...start, z: Math.max(start.z, this.options.safeZ) });
    let at = start;
    for (const move of moves) {
      if (move.isRapid) this.rapid(move.to);
      else if (move.sweep === 0) this.line(move.to, move.feedMmPerMin);
      else this.arc(at, move);
      at = move.to;
    }
  }

  private change({ number, name, speedRpm }: ProgramTool): void {
    const { toolChange, warmUpSeconds, spindleMaxRpm } = this.options.machine;
    if (this.tool !== null) {
      this.retract();
      this.put('M5');
    }
    this.say(`Tool ${number}: ${name}`);
    if (toolChange === 'changer') this.put(`T${number} M6`);
    else if (this.tool !== null) {
      this.say(`Change to ${name}, and touch its tip off on the top of the stock`);
      this.put('M0');
    }
    if (this.options.machine.keepsToolLengths) this.put(`G43 H${number}`);
    this.put(`S${Math.round(Math.min(speedRpm, spindleMaxRpm ?? Infinity))} M3`);
    if (warmUpSeconds > 0) this.put(`G4 P${this.figure(warmUpSeconds)}`);
    this.tool = number;
    this.words = { g: '', feed: -1 };
  }

  /** Out of the way, to where the machine wants it; what it then says of its place is said anew. */
  private retract(): void {
    this.lift();
    const { retract } = this.options.machine;
    if (retract === 'safe height') return;
    if (retract === 'G28') {
      this.put('G91 G28 Z0');
      this.put('G90');
    } else this.put('G53 G0 Z0');
    this.at = null;
    this.words = { g: '', feed: -1 };
  }

  private lift(): void {
    const z = this.place({ x: 0, y: 0, z: this.options.safeZ }).z;
    if (this.at && this.at.z >= z - 1e-9) return;
    this.put(`G0 Z${this.length(z)}`);
    this.words.g = 'G0';
    this.at = this.at && { ...this.at, z: this.printed(z) };
  }

  private rapid(to: Place): void {
    this.move('G0', this.place(to), '', -1);
  }

  private line(to: Place, feed: number): void {
    this.move('G1', this.place(to), '', feed);
  }

  private arc(from: Place, move: Move): void {
    const { machine } = this.options;
    if (machine.arcs === 'lines') {
      for (const to of chordsOfMove(from, move, machine.toleranceMm)) this.line(to, move.feedMmPerMin);
      return;
    }
    const { kind, to, sweep } = { kind: 'arc' as const, to: move.to as Point, sweep: move.sweep };
    if (Math.abs(sweep) > widestArc) {
      const [a] = splitSegment(from, { kind, to, sweep }, 0.5) as [{ to: Point; sweep: number }, unknown];
      const middle = { ...a.to, z: (from.z + move.to.z) / 2 };
      this.arc(from, { ...move, to: middle, sweep: sweep / 2 });
      this.arc(middle, { ...move, sweep: sweep / 2 });
      return;
    }
    const { centre, radius } = circleOf(from, { kind, to, sweep });
    // Flatter than the last digit tells: a line says it better.
    if (radius * (1 - Math.cos(sweep / 2)) < this.digit) {
      this.line(move.to, move.feedMmPerMin);
      return;
    }
    const printed = this.at ?? this.place(from);
    const middle = this.place({ ...centre, z: 0 });
    const isLeft = sweep > 0 === (machine.y === 'up');
    const how =
      machine.arcs === 'radius'
        ? ` R${this.length(radius)}`
        : ` I${this.length(middle.x - printed.x)} J${this.length(middle.y - printed.y)}`;
    this.move(isLeft ? 'G3' : 'G2', this.place(move.to), how, move.feedMmPerMin, true);
  }

  /** One line, with only what changes. */
  private move(g: string, to: Place, arc: string, feed: number, isArc = false): void {
    const before = this.at;
    const [x, y, z] = [this.length(to.x), this.length(to.y), this.length(to.z)];
    const printed = { x: this.printed(to.x), y: this.printed(to.y), z: this.printed(to.z) };
    const axes = [
      isArc || !before || before.x !== printed.x ? ` X${x}` : '',
      isArc || !before || before.y !== printed.y ? ` Y${y}` : '',
      !before || before.z !== printed.z ? ` Z${z}` : '',
    ].join('');
    if (axes === '' && arc === '') return;
    const rate = this.limited(feed);
    const speed = feed > 0 && rate !== this.words.feed ? ` F${this.figure(this.scaled(rate), 1)}` : '';
    this.put(`${g === this.words.g ? axes.trimStart() : `${g}${axes}`}${arc}${speed}`);
    this.words = { g, feed: feed > 0 ? rate : this.words.feed };
    this.at = printed;
  }

  private limited(feed: number): number {
    return Math.round(10 * Math.min(feed, this.options.machine.maxFeedMmPerMin ?? Infinity)) / 10;
  }

  private say(text: string): void {
    const { comments } = this.options.machine;
    const plain = text
      .replace(/[()]/g, '')
      .replace(/[^\x20-\x7e]/g, '?')
      .slice(0, 80);
    if (comments === 'brackets') this.lines.push(`(${plain})`);
    else if (comments === 'semicolon') this.lines.push(`; ${plain}`);
  }

  private put(line: string): void {
    this.lines.push(line);
  }

  private scaled(mm: number): number {
    return this.options.machine.unit === 'mm' ? mm : mm / 25.4;
  }

  private get decimals(): number {
    return this.options.machine.decimals + (this.options.machine.unit === 'mm' ? 0 : 1);
  }

  private get digit(): number {
    return 10 ** -this.decimals * (this.options.machine.unit === 'mm' ? 1 : 25.4);
  }

  private length(mm: number): string {
    return this.figure(this.scaled(mm), this.decimals);
  }

  private printed(mm: number): number {
    return Number(this.length(mm)) * (this.options.machine.unit === 'mm' ? 1 : 25.4);
  }

  private figure(value: number, digits = 4): string {
    const text = value.toFixed(digits);
    const short = text.includes('.') ? text.replace(/\.?0+$/, '') : text;
    return short === '-0' || short === '' ? '0' : short;
  }
}
