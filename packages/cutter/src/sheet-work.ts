/** The flat cutter's work: a program that burns into a virtual sheet. */
import { Interpreter, Refused } from './interpreter.ts';
import { Machine, type MachineFacts } from './machine.ts';
import type { Asked, Work } from './work.ts';

export class SheetWork implements Work {
  private readonly machine: Machine;
  private interpreter = new Interpreter();
  readonly fault = null;

  constructor(facts: MachineFacts) {
    this.machine = new Machine(facts);
  }

  get isIdle(): boolean {
    return this.machine.isIdle;
  }

  get hasRoom(): boolean {
    return this.machine.hasRoom;
  }

  read(line: string): Asked | null {
    const instruction = this.interpreter.read(line);
    if (instruction === null) return null;
    if ('end' in instruction) return { kind: 'end' };
    const refusal = this.machine.refusal(instruction);
    if (refusal) throw new Refused(refusal);
    this.machine.take(instruction);
    return null;
  }

  stands(): string | null {
    return null;
  }

  pass(seconds: number): void {
    this.machine.pass(seconds);
  }

  slow(seconds: number): boolean {
    return this.machine.slow(seconds);
  }

  stop(): void {
    this.machine.halt();
    this.interpreter = new Interpreter();
  }

  state(): object {
    const { at, line, burns } = this.machine;
    return { line, x: at.x, y: at.y, burns: burns.length };
  }

  stretches(from: number) {
    return this.machine.burns.slice(from);
  }

  command(): string | null {
    return null;
  }
}
