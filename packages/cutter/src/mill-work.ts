/** The mill's work: programs, one after another, that take tools through virtual stock. */
import { Refused } from './interpreter.ts';
import { Mill, type MillFacts, type MillSetUp } from './mill.ts';
import { milledMeasured, outlinesSchema } from './milled-measured.ts';
import { MillingInterpreter } from './milling-interpreter.ts';
import { parsed } from './plain-data.ts';
import type { Asked, Work } from './work.ts';

export class MillWork implements Work {
  private readonly mill: Mill;
  private interpreter: MillingInterpreter;
  private isProbing = false;
  /** The tool that a changer puts in once the mill stands. */
  private coming: number | null = null;

  constructor(facts: MillFacts, setUp: MillSetUp) {
    this.mill = new Mill(facts, setUp);
    this.interpreter = this.fresh();
  }

  /** A program begins where the tool is. */
  private fresh(): MillingInterpreter {
    const interpreter = new MillingInterpreter();
    interpreter.standsAt(this.mill.at);
    return interpreter;
  }

  get isIdle(): boolean {
    return this.mill.isIdle;
  }

  get hasRoom(): boolean {
    return this.mill.hasRoom;
  }

  get fault(): string | null {
    return this.mill.fault;
  }

  read(line: string): Asked | null {
    const instruction = this.interpreter.read(line);
    if (instruction === null) return null;
    if ('stop' in instruction) {
      if (instruction.stop === 'end') return { kind: 'end' };
      if (instruction.stop === 'pause') return { kind: 'wait', seconds: instruction.seconds };
      // A changer takes its tools by itself.
      if (/\bM0*6\b/i.test(line)) {
        this.coming = this.known(instruction.tool);
        return { kind: 'stand' };
      }
      return { kind: 'prompt', text: instruction.note || 'The program waits.' };
    }
    const refusal = this.mill.refusal(instruction);
    if (refusal) throw new Refused(refusal);
    this.mill.take(instruction);
    this.isProbing = instruction.isProbe;
    return instruction.isProbe ? { kind: 'stand' } : null;
  }

  /** @throws Refused where there is no such tool */
  private known(number: number): number {
    if (!this.mill.hasTool(number)) throw new Refused(`there is no tool ${number}`);
    return number;
  }

  stands(): string | null {
    if (this.coming !== null) this.mill.change(this.coming);
    this.coming = null;
    if (!this.isProbing || this.mill.fault) return null;
    this.isProbing = false;
    this.interpreter.standsAt(this.mill.at);
    return `probed ${this.mill.at.map((value) => Number(value.toFixed(4))).join(' ')}`;
  }

  pass(seconds: number): void {
    this.mill.pass(seconds);
  }

  slow(seconds: number): boolean {
    return this.mill.slow(seconds);
  }

  stop(): void {
    this.mill.halt();
    this.mill.fault = null;
    [this.isProbing, this.coming] = [false, null];
    this.interpreter = this.fresh();
  }

  state(): object {
    const { at, line, stretches, spindleRpm, toolNumber, override } = this.mill;
    const [x, y] = this.mill.inStock(at);
    return { line, x, y, z: at[2], burns: stretches.length, spindleRpm, tool: toolNumber, feed: Math.round(100 * override) };
  }

  stretches(from: number) {
    return this.mill.stretches.slice(from);
  }

  command(name: string, words: string): string | null {
    if (name === 'program') {
      this.stop();
      return 'program';
    }
    if (name === 'tool') {
      this.mill.change(this.known(Number(words)));
      return `tool ${this.mill.toolNumber}`;
    }
    if (name === 'feed') {
      this.mill.override = Math.min(200, Math.max(10, Number(words) || 100)) / 100;
      return `feed ${Math.round(100 * this.mill.override)}`;
    }
    if (name === 'measure') {
      const read = outlinesSchema.safeParse(parsed(words));
      if (!read.success) throw new Refused('what is to be measured is not understood');
      return `measured ${JSON.stringify(milledMeasured(this.mill.stock, this.mill.setUp.thicknessMm, read.data))}`;
    }
    return null;
  }
}
