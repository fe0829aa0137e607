/**
 * In: a plot file of any program. Out: what the pen draws, as outlines in mm, y up.
 * Rests on: Hewlett-Packard, "The HP-GL/2 and HP RTL Reference Guide": the vector, line and character groups, IP and SC; a plotter unit is 0.025 mm.
 */
import { purposeKinds, purposes } from '../job/purposes.ts';
import { english, say } from '../messages/index.ts';
import { circlePath, type Path, rectanglePath, transformedPath } from '../plane/path.ts';
import { distance, type Point } from '../plane/point.ts';
import type { Segment } from '../plane/segment.ts';
import { apply, chain, determinant, identity, shift, stretch, type Transform } from '../plane/transform.ts';
import { Asides, DrawingError, type DrawingRead, type DrawnOutline, ReadingBudget } from './drawing.ts';
import { plotterUnitMm } from './hpgl.ts';

/** Commands looked at between two looks at whether to go on. */
const commandsAStep = 5000;
const toleranceMm = 0.0005;
/** Ends a label where no other character is set. */
const plainTerminator = '\u0003';

/** Commands that draw nothing by themselves: pens, speeds, windows, fills' patterns, characters' sizes. */
const silent = new Set('IN DF VS FS AS PW WU FT AC UL IW CF SI SR SD SS SA DI DR DV ES LO SL CS CA NP PS BP EC RP MC TR PG QL CR SV CM NR OE OI OS OP OH OF IM OA OC OO'.split(' ')); // biome-ignore format: one line
/** Commands that draw what is no outline here. */
const asideCommands: Readonly<Record<string, string>> = { LB: english.files.text, PE: english.files.encodedLines, WG: english.files.wedges, EW: english.files.wedges, SM: english.files.markers, UC: english.files.text }; // biome-ignore format: one line

/** Yields the share read. @throws DrawingError where it is no plot file */
export function* readPlot(text: string): Generator<number, DrawingRead> {
  const plotter = new Plotter();
  let count = 0;
  for (const command of commandsOf(text)) {
    plotter.obey(command.name, command.rest);
    if (++count % commandsAStep === 0) yield Math.min(1, command.at / text.length);
  }
  plotter.lift();
  if (plotter.known <= plotter.unknown) throw new DrawingError('not-readable', say.files.noPlot());
  return { outlines: plotter.outlines, mmPerUnit: plotterUnitMm, unitIsStated: true, asides: plotter.asides.list() };
}

/** Commands in turn; a label goes on to its terminator. */
function* commandsOf(text: string): Generator<{ readonly name: string; readonly rest: string; readonly at: number }> {
  let terminator = plainTerminator;
  const next = /[A-Za-z]{2}/g;
  for (let found = next.exec(text); found; found = next.exec(text)) {
    const name = found[0].toUpperCase();
    const start = next.lastIndex;
    const end = endOfCommand(text, name, start, terminator);
    if (name === 'DT') terminator = /[^;]/.exec(text.slice(start, start + 1))?.[0] ?? plainTerminator;
    yield { name, rest: text.slice(start, end), at: end };
    next.lastIndex = Math.max(end, start);
  }
}

function endOfCommand(text: string, name: string, start: number, terminator: string): number {
  // What is encoded may hold letters: it goes on to its end.
  const until = name === 'LB' ? terminator : name === 'PE' ? ';' : null;
  const after = /[;A-Za-z]/g;
  after.lastIndex = name === 'DT' ? start + 1 : start;
  const end = until === null ? (after.exec(text)?.index ?? -1) : text.indexOf(until, start);
  return end < 0 ? text.length : end;
}

/** A pen that is told where to go. */
class Plotter {
  readonly outlines: DrawnOutline[] = [];
  readonly asides = new Asides();
  known = 0;
  unknown = 0;
  private readonly budget = new ReadingBudget();
  /** Where the pen is, in the units that are in use, and how they lie in plotter units. */
  private at: Point = { x: 0, y: 0 };
  private scaling: Transform = identity;
  private corners: readonly [Point, Point] = [{ x: 0, y: 0 }, { x: 10_000, y: 7200 }]; // biome-ignore format: P1 and P2
  private isDown = false;
  private isRelative = false;
  private isDashed = false;
  private pen = 1;
  private run: { start: Point; segments: Segment[] } | null = null;

  obey(name: string, rest: string): void {
    if (silent.has(name) || name === 'DT') {
      this.known++;
      if (name === 'IN' || name === 'DF') this.reset(name === 'IN');
      return;
    }
    const aside = asideCommands[name];
    if (aside) {
      this.known++;
      this.asides.leave(aside, { at: this.inMm(this.at) });
      return;
    }
    const numbers = rest.split(/[\s,]+/).filter(Boolean).map(Number); // biome-ignore format: one line
    if (numbers.some((n) => !Number.isFinite(n))) this.asides.leave(english.files.unreadableNumbers);
    else if (this.take(name, numbers)) this.known++;
    else {
      this.unknown++;
      this.asides.leave(english.files.plotterCommand(name));
    }
  }

  private reset(isWhole: boolean): void {
    this.lift();
    this.isRelative = false;
    this.isDashed = false;
    this.scaling = identity;
    if (isWhole) this.at = { x: 0, y: 0 };
  }

  private take(name: string, numbers: readonly number[]): boolean {
    const [p = 0, q = 0, r, s] = numbers;
    switch (name) {
      case 'PU':
      case 'PD':
        if (name === 'PU') this.lift();
        this.isDown = name === 'PD';
        this.go(numbers);
        return true;
      case 'PA':
      case 'PR':
        this.isRelative = name === 'PR';
        this.go(numbers);
        return true;
      case 'SP':
        this.lift();
        this.pen = p;
        return true;
      case 'LT':
        this.lift();
        this.isDashed = numbers.length > 0 && Math.abs(p) >= 1;
        return true;
      case 'CI':
        this.draw(circlePath(this.at, Math.abs(p)));
        return true;
      case 'AA':
      case 'AR':
        this.arc(name === 'AA' ? { x: p, y: q } : { x: this.at.x + p, y: this.at.y + q }, ((r ?? 0) * Math.PI) / 180);
        return true;
      case 'EA':
      case 'RA':
      case 'ER':
      case 'RR':
        this.rectangle(name === 'EA' || name === 'RA' ? { x: p, y: q } : { x: this.at.x + p, y: this.at.y + q });
        return true;
      case 'IP':
        if (numbers.length === 4) this.corners = [{ x: p, y: q }, { x: r as number, y: s as number }]; // biome-ignore format: one line
        return true;
      case 'SC':
        this.scale(numbers);
        return true;
      case 'RO':
        if (p !== 0) this.asides.leave(english.files.plotTurned);
        return true;
      default:
        return false;
    }
  }

  /** From user units on to P1 and P2. */
  private scale(numbers: readonly number[]): void {
    this.lift();
    const [x0, x1, y0, y1] = numbers;
    const here = apply(this.scaling, this.at);
    if (x0 === undefined || x1 === undefined || y0 === undefined || y1 === undefined) this.scaling = identity;
    else {
      const [p, q] = this.corners;
      // Of the other form the second of each pair is how many plotter units a unit is.
      const isByFactor = numbers[4] === 2;
      const grow = isByFactor ? stretch(x1, y1) : stretch((q.x - p.x) / (x1 - x0), (q.y - p.y) / (y1 - y0));
      this.scaling = chain(shift(p.x, p.y), chain(grow, shift(-x0, -y0)));
    }
    const { a, d, e, f } = this.scaling;
    if (!(Math.abs(determinant(this.scaling)) > 0)) throw new DrawingError('not-readable', say.files.noPlot());
    this.at = { x: (here.x - e) / a, y: (here.y - f) / d };
  }

  private go(numbers: readonly number[]): void {
    for (let k = 0; k + 1 < numbers.length; k += 2) {
      const [x, y] = [numbers[k] as number, numbers[k + 1] as number];
      const to = this.isRelative ? { x: this.at.x + x, y: this.at.y + y } : { x, y };
      if (this.isDown && distance(this.at, to) > 0) this.line({ kind: 'line', to });
      this.at = to;
    }
  }

  private line(segment: Segment): void {
    this.run ??= { start: this.at, segments: [] };
    this.run.segments.push(segment);
  }

  private arc(centre: Point, sweep: number): void {
    const [dx, dy] = [this.at.x - centre.x, this.at.y - centre.y];
    const [c, s] = [Math.cos(sweep), Math.sin(sweep)];
    const to = { x: centre.x + c * dx - s * dy, y: centre.y + s * dx + c * dy };
    if (this.isDown && Math.abs(sweep) > 1e-9 && Math.hypot(dx, dy) > 0)
      this.line({ kind: 'arc', to: distance(to, this.at) < 1e-9 ? this.at : to, sweep });
    this.at = to;
  }

  private rectangle({ x, y }: Point): void {
    const [minX, maxX] = [Math.min(x, this.at.x), Math.max(x, this.at.x)];
    const [minY, maxY] = [Math.min(y, this.at.y), Math.max(y, this.at.y)];
    if (maxX > minX && maxY > minY) this.draw(rectanglePath({ minX, minY, maxX, maxY }));
  }

  private draw(path: Path): void {
    this.budget.take(1, path.segments.length);
    const purpose = this.isDashed ? 'score' : (purposes.find((one) => purposeKinds[one].pen === this.pen) ?? 'cut');
    this.outlines.push({ path: transformedPath(path, chain(stretch(plotterUnitMm), this.scaling), toleranceMm), purpose });
  }

  private inMm = (place: Point): Point => apply(chain(stretch(plotterUnitMm), this.scaling), place);

  /** Ends the line that is drawn. */
  lift(): void {
    const { run } = this;
    this.run = null;
    const last = run?.segments.at(-1);
    if (!run || !last) return;
    const isClosed = distance(last.to, run.start) < 1e-6 && (run.segments.length > 1 || last.kind !== 'line');
    this.draw({ ...run, closed: isClosed });
  }
}
