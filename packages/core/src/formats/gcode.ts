/**
 * In: the ways of a tool in their order, and what the machine expects. Out: a program for it: true arcs, one comment a way.
 * Rests on: Kramer, Proctor & Messina 2000, "The NIST RS274NGC Interpreter, Version 3" (NISTIR 6556): words, G0 to G3 with I and
 * J from the arc's start, G17, G20, G21, G40, G80, G90, G94, M2 to M5, F and S, comments in brackets. M4 as a laser's power that
 * follows its speed is common practice.
 */

import type { Machine } from '../job/machine.ts';
import type { Purpose } from '../job/purposes.ts';
import type { PowerSetting } from '../make/cutting.ts';
import { toMachine } from '../make/placement.ts';
import { circleOf } from '../plane/arc.ts';
import type { Box } from '../plane/box.ts';
import { type Path, reducedSteps, reversedPath, stepsOf, transformedPath } from '../plane/path.ts';
import { distance, type Point } from '../plane/point.ts';
import { directionOn, splitSegment } from '../plane/segment.ts';

/** A way with the tool on, on the sheet. */
export interface Toolpath {
  readonly purpose: Purpose;
  readonly name: string;
  readonly path: Path;
  /** How far it runs with the tool off before and after, mm. */
  readonly overscanMm: number;
}

export interface GcodeOptions {
  readonly title: string;
  readonly machine: Machine;
  /** Round all ways, on the sheet. */
  readonly box: Box;
  readonly powerSettingOf: (purpose: Purpose) => PowerSetting;
}

/** Wider arcs are divided, radians: near a half turn the last printed digit would move the centre. */
const widestArc = 2.6;

export function writeGcode(toolpaths: readonly Toolpath[], options: GcodeOptions): string {
  const { machine, title, box } = options;
  const program = new Program(machine);
  const t = toMachine(box, machine);
  const mm = (v: number): string => v.toFixed(2);
  program.say(plain(title));
  program.say(
    `Units: ${machine.unit === 'mm' ? 'millimetres' : 'inches'}. y grows ${machine.y}. Origin: ${machine.origin.replace('-', ' ')}.`,
  );
  program.say(`Overall ${mm(box.maxX - box.minX)} x ${mm(box.maxY - box.minY)} mm. Curves within ${machine.toleranceMm} mm.`);
  program.put(machine.unit === 'mm' ? 'G21' : 'G20');
  program.put('G90 G94 G17 G40 G80');
  program.put('M5');
  for (const { purpose, name, path, overscanMm } of toolpaths) {
    const { power, speedMmPerMin, passes } = options.powerSettingOf(purpose);
    const placed = transformedPath(path, t, machine.toleranceMm / 10);
    for (let pass = 0; pass < passes; pass++) {
      program.say(`${purpose}: ${plain(name)}${passes > 1 ? `, pass ${pass + 1} of ${passes}` : ''}`);
      // An open line is gone along to and fro, so that no pass begins with a way back.
      program.along(pass % 2 === 1 && !path.closed ? reversedPath(placed) : placed, power * machine.fullS, speedMmPerMin, overscanMm);
    }
  }
  program.put('M5');
  program.put('G0 X0 Y0');
  program.put('M2');
  return program.text();
}

/** Comments hold no brackets, and what old controllers cannot read becomes a question mark. */
const plain = (text: string): string =>
  text
    .replace(/[()]/g, '')
    .replace(/[^\x20-\x7e]/g, '?')
    .slice(0, 60);

class Program {
  private readonly lines: string[] = [];
  private at: Point | null = null;
  private feed = -1;
  private power = -1;

  constructor(private readonly machine: Machine) {}

  say(text: string): void {
    this.lines.push(`(${text})`);
  }

  put(line: string): void {
    this.lines.push(line);
  }

  text(): string {
    return `${this.lines.join('\n')}\n`;
  }

  along(path: Path, s: number, feedMmPerMin: number, overscanMm: number): void {
    const steps = stepsOf(path);
    const [first, last] = [steps[0], steps.at(-1)];
    if (!first || !last) return;
    const into = directionOn(first.from, first.segment, 0);
    const out = directionOn(last.from, last.segment, 1);
    const end = path.closed ? path.start : last.segment.to;
    const beside = (p: Point, d: Point, by: number): Point => ({ x: p.x + d.x * by, y: p.y + d.y * by });
    this.put(`G0 ${this.place(beside(path.start, into, -overscanMm))}`);
    this.put(`${this.machine.followsSpeed ? 'M4' : 'M3'} S${this.figure(overscanMm > 0 ? 0 : s, 1)}`);
    this.power = overscanMm > 0 ? 0 : s;
    this.feed = -1;
    if (overscanMm > 0) this.line(path.start, 0, feedMmPerMin);
    for (const { from, segment } of reducedSteps(path, ['line', 'arc'], this.machine.toleranceMm)) {
      if (segment.kind === 'line') this.line(segment.to, s, feedMmPerMin);
      else this.arc(from, segment, s, feedMmPerMin);
    }
    if (overscanMm > 0) this.line(beside(end, out, overscanMm), 0, feedMmPerMin);
    this.put('M5');
  }

  private arc(from: Point, arc: { kind: 'arc'; to: Point; sweep: number }, s: number, feed: number): void {
    if (Math.abs(arc.sweep) > widestArc) {
      const [a, b] = splitSegment(from, arc, 0.5) as [typeof arc, typeof arc];
      this.arc(from, a, s, feed);
      this.arc(a.to, b, s, feed);
      return;
    }
    const { centre, radius } = circleOf(from, arc);
    // Flatter than the last digit tells: a line says it better.
    if (radius * (1 - Math.cos(arc.sweep / 2)) < this.digit / 2) {
      this.line(arc.to, s, feed);
      return;
    }
    const printed = this.at ?? from;
    const i = this.figure(this.scaled(centre.x - printed.x));
    const j = this.figure(this.scaled(centre.y - printed.y));
    this.put(`${arc.sweep > 0 ? 'G3' : 'G2'} ${this.place(arc.to)} I${i} J${j}${this.words(s, feed)}`);
  }

  private line(to: Point, s: number, feed: number): void {
    if (this.at && distance(this.at, to) < this.digit / 4) return;
    this.put(`G1 ${this.place(to)}${this.words(s, feed)}`);
  }

  /** Power and feed where they change. */
  private words(s: number, feed: number): string {
    const words = `${s === this.power ? '' : ` S${this.figure(s, 1)}`}${feed === this.feed ? '' : ` F${this.figure(this.scaled(feed), 2)}`}`;
    [this.power, this.feed] = [s, feed];
    return words;
  }

  /** Remembers the place as it is printed, so that no error adds up. */
  private place(p: Point): string {
    const [x, y] = [this.figure(this.scaled(p.x)), this.figure(this.scaled(p.y))];
    const mmPerUnit = this.machine.unit === 'mm' ? 1 : 25.4;
    this.at = { x: Number(x) * mmPerUnit, y: Number(y) * mmPerUnit };
    return `X${x} Y${y}`;
  }

  private scaled(mm: number): number {
    return this.machine.unit === 'mm' ? mm : mm / 25.4;
  }

  /** A tenth of a micrometre in either unit. */
  private figure(value: number, digits = this.machine.unit === 'mm' ? 4 : 5): string {
    const text = value.toFixed(digits).replace(/\.?0+$/, '');
    return text === '-0' || text === '' ? '0' : text;
  }

  private get digit(): number {
    return this.machine.unit === 'mm' ? 1e-4 : 2.54e-4;
  }
}
