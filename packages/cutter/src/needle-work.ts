/**
 * The needle's work: a program of `jump X Y`, with the needle up, `stitch X Y`, and `end`, in mm from the lower left corner of the cloth.
 */
import { Refused } from './interpreter.ts';
import { drawnSchema, Needle, type NeedleSetUp, sewnMeasured } from './needle.ts';
import { parsed } from './plain-data.ts';
import type { Asked, Work } from './work.ts';

const number = String.raw`(-?\d{1,6}(?:\.\d{1,6})?)`;
const order = new RegExp(`^(jump|stitch)\\s+${number}\\s+${number}$`);

export class NeedleWork implements Work {
  private readonly needle: Needle;
  readonly fault = null;

  constructor(setUp: NeedleSetUp) {
    this.needle = new Needle(setUp);
  }

  get isIdle(): boolean {
    return this.needle.isIdle;
  }

  get hasRoom(): boolean {
    return this.needle.hasRoom;
  }

  read(line: string): Asked | null {
    if (line === '') return null;
    if (line === 'end') return { kind: 'end' };
    const read = order.exec(line);
    if (!read) throw new Refused('neither jump, stitch nor end');
    const text = this.needle.take(read[1] === 'stitch', { x: Number(read[2]), y: Number(read[3]) });
    return text === null ? null : { kind: 'prompt', text };
  }

  stands(): string | null {
    return null;
  }

  pass(seconds: number): void {
    this.needle.pass(seconds);
  }

  slow(): boolean {
    return true;
  }

  stop(): void {
    this.needle.halt();
  }

  state(): object {
    const { at, line, isDown, stitches, sewn } = this.needle;
    return { line, x: at.x, y: at.y, needle: isDown ? 'down' : 'up', stitches, burns: sewn.length };
  }

  stretches(from: number) {
    return this.needle.sewn.slice(from);
  }

  command(name: string, words: string): string | null {
    if (name === 'program') {
      this.needle.restart();
      return 'program';
    }
    if (name !== 'measure') return null;
    const read = drawnSchema.safeParse(parsed(words));
    if (!read.success) throw new Refused('the drawn line is not understood');
    return `measured ${JSON.stringify(sewnMeasured(this.needle.sewn, read.data, this.needle.stitches))}`;
  }
}
