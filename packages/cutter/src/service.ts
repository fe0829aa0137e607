/**
 * A small machine that stands in for a real one: a service on the loopback address that speaks the protocol of
 * docs/cutter-protocol.md, moves as a machine does, and burns into a virtual sheet, mills virtual stock or sews.
 */
import { createServer, type Server, type Socket } from 'node:net';
import { Refused } from './interpreter.ts';
import type { MachineFacts } from './machine.ts';
import { millSetUpSchema } from './mill.ts';
import { MillWork } from './mill-work.ts';
import { needleSetUpSchema } from './needle.ts';
import { NeedleWork } from './needle-work.ts';
import { parsed } from './plain-data.ts';
import { SheetWork } from './sheet-work.ts';
import { WireWork, wireSetUpSchema } from './wire-work.ts';
import type { Work } from './work.ts';

export const plainFacts: MachineFacts = { widthMm: 1500, heightMm: 1000, travelMmPerMin: 12_000, accelerationMmPerS2: 800 };
/** How high the mill reaches over its bed, mm. */
const reachMm = 120;

/** How often the machine moves on, ms. */
const tickMs = 10;
const longestLine = 400;
/** What is sent with `@mill` and `@measure`, characters. */
const longestData = 8_000_000;
/** Lines that wait for room to queue their moves; the protocol sends eight ahead. */
const longestQueue = 1000;

type Status = 'idle' | 'running' | 'pausing' | 'paused' | 'waiting' | 'alarm';

export function cutterService(facts: MachineFacts = plainFacts): Server {
  return createServer((socket) => new Session(socket, facts));
}

/** What is asked for by number; 0 for all that is none. */
const wholeNumber = (word: string | undefined): number => Math.min(1e9, Math.max(0, Math.floor(Number(word) || 0)));

/** One connection: a program, a machine and a sheet or stock of its own. */
class Session {
  private work: Work;
  private status: Status = 'idle';
  private alarm = '';
  private prompt = '';
  private factor = 1;
  private pending: string[] = [];
  private taken = 0;
  private isEnded = false;
  /** What is done once the machine stands, before the next line is read; null for nothing. */
  private atStand: (() => void) | null = null;
  /** A dwell that is still to pass, seconds. */
  private dwell = 0;
  private rest = '';
  private before = performance.now();
  private timer: NodeJS.Timeout | null = null;

  constructor(
    private readonly socket: Socket,
    private readonly facts: MachineFacts,
  ) {
    this.work = new SheetWork(facts);
    socket.setEncoding('utf8');
    socket.setNoDelay(true);
    socket.on('data', (part: string) => this.hear(part));
    socket.on('error', () => socket.destroy());
    socket.on('close', () => this.rests());
    this.say(`hello ${JSON.stringify({ ...facts, stock: 'virtual sheet' })}`);
  }

  private say(line: string): void {
    if (!this.socket.destroyed) this.socket.write(`${line}\n`);
  }

  private hear(part: string): void {
    this.rest += part;
    const lines = this.rest.split('\n');
    this.rest = lines.pop() ?? '';
    const isLong = (line: string): boolean => line.length > (/^@(mill|measure) /.test(line) ? longestData : longestLine);
    if (isLong(this.rest) || lines.some(isLong)) {
      this.say('error a line longer than anything that is understood');
      this.socket.destroy();
      return;
    }
    for (const line of lines) this.obey(line.trim());
  }

  private obey(line: string): void {
    if (line.startsWith('@')) {
      this.obeyWord(line.slice(1));
      return;
    }
    if (this.pending.length >= longestQueue) {
      this.say('error more lines sent ahead than are kept');
      this.socket.destroy();
      return;
    }
    this.pending.push(line);
    this.feed();
  }

  private obeyWord(line: string): void {
    const at = line.search(/\s/);
    const [name, rest] = at < 0 ? [line, ''] : [line.slice(0, at), line.slice(at + 1).trim()];
    const command = this.commands.get(name);
    if (command) {
      command(rest);
      return;
    }
    try {
      const answer = this.work.command(name, rest);
      if (name === 'program' && answer !== null) this.restart();
      this.say(answer ?? `error @${name.slice(0, 40)} is not known`);
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      this.say(`error ${error.message}`);
    }
  }

  private readonly commands = new Map<string, (words: string) => void>(
    Object.entries({
      state: () => this.say(`state ${JSON.stringify(this.state())}`),
      time: (factor) => {
        this.factor = Math.min(10_000, Math.max(0.01, Number(factor) || 1));
        this.say(`time ${this.factor}`);
      },
      pause: () => {
        if (this.status === 'running') this.status = 'pausing';
        this.say('pause');
      },
      resume: () => {
        if (this.status === 'paused' || this.status === 'pausing') this.status = 'running';
        this.wakes();
        this.say('resume');
      },
      acknowledge: () => {
        if (this.status === 'waiting') [this.status, this.prompt] = ['running', ''];
        this.wakes();
        this.say('acknowledge');
        this.feed();
      },
      stop: () => {
        this.work.stop();
        this.restart();
        this.say('stop');
      },
      sheet: () => {
        this.work = new SheetWork(this.facts);
        this.restart();
        this.say('sheet');
      },
      mill: (words) => {
        const read = millSetUpSchema.safeParse(parsed(words));
        if (!read.success) {
          this.say('error the stock and its tools are not understood');
          return;
        }
        this.work = new MillWork({ ...this.facts, reachMm }, read.data);
        this.restart();
        this.say(`mill ${JSON.stringify({ ...this.facts, reachMm })}`);
      },
      needle: (words) => {
        const read = needleSetUpSchema.safeParse(parsed(words));
        if (!read.success) {
          this.say('error the cloth is not understood');
          return;
        }
        this.work = new NeedleWork(read.data);
        this.restart();
        this.say('needle');
      },
      wire: (words) => {
        const read = wireSetUpSchema.safeParse(parsed(words));
        if (!read.success) {
          this.say('error the towers and the block are not understood');
          return;
        }
        this.work = new WireWork(read.data);
        this.restart();
        this.say('wire');
      },
      burnt: (words) => {
        const [from, point] = words.split(/\s+/);
        const first = wholeNumber(from);
        const skip = wholeNumber(point);
        const burns = this.work.stretches(first).map(({ line, points }, k) => ({
          line,
          points: (k === 0 ? points.slice(skip) : points).flatMap(({ x, y }) => [Number(x.toFixed(5)), Number(y.toFixed(5))]),
        }));
        this.say(`burnt ${JSON.stringify({ from: first, skip, burns })}`);
      },
    }),
  );

  /** A program begins anew; what has been cut stays. */
  private restart(): void {
    this.pending = [];
    [this.status, this.alarm, this.prompt, this.taken, this.isEnded, this.atStand, this.dwell] = ['idle', '', '', 0, false, null, 0];
  }

  /** The machine moves on for as long as it has something to do. */
  private wakes(): void {
    if (this.timer !== null || this.socket.destroyed) return;
    this.before = performance.now();
    this.timer = setInterval(() => this.tick(), tickMs);
  }

  private rests(): void {
    if (this.timer !== null) clearInterval(this.timer);
    this.timer = null;
  }

  private state() {
    const { status, alarm, prompt, taken } = this;
    return { status, alarm, prompt, taken, ...this.work.state(), ended: this.isEnded && this.work.isIdle };
  }

  /** Takes lines as long as there is room to queue their moves: an ok for each. */
  private feed(): void {
    while (this.pending.length > 0 && this.takesLines) {
      const line = this.pending.shift() as string;
      this.taken++;
      try {
        const asked = this.work.read(line);
        if (asked?.kind === 'end') this.isEnded = true;
        if (asked?.kind === 'wait') this.atStand = () => (this.dwell += asked.seconds);
        if (asked?.kind === 'stand') this.atStand = () => {};
        if (asked?.kind === 'prompt')
          this.atStand = () => {
            [this.status, this.prompt] = ['waiting', asked.text];
            this.say(`prompt ${asked.text}`);
          };
        // Also where the head already stands, what is asked for is told at the next tick.
        if (this.status === 'idle' && (asked || !this.work.isIdle)) this.status = 'running';
        this.wakes();
        this.say(`ok ${this.taken}`);
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        this.fails(this.taken, error.message);
      }
    }
  }

  private get takesLines(): boolean {
    const { status, atStand, isEnded, dwell } = this;
    return this.work.hasRoom && status !== 'alarm' && status !== 'waiting' && !isEnded && atStand === null && dwell <= 0;
  }

  private fails(line: number, why: string): void {
    this.work.stop();
    this.pending = [];
    [this.status, this.alarm, this.atStand] = ['alarm', `line ${line}: ${why}`, null];
    this.say(`alarm ${line} ${why}`);
  }

  private tick(): void {
    const now = performance.now();
    const seconds = Math.min(0.2, (now - this.before) / 1000) * this.factor;
    this.before = now;
    if (this.status === 'pausing' && this.work.slow(seconds)) this.status = 'paused';
    if (this.status !== 'running') {
      if (this.status !== 'pausing') this.rests();
      return;
    }
    // In small parts, so that the queue never runs dry while lines wait; and no longer than the service may be busy.
    for (let left = seconds; left > 0 && this.status === 'running' && performance.now() - now < 5 * tickMs; left -= 0.05) {
      this.passes(Math.min(left, 0.05));
      if (this.work.isIdle && this.dwell <= 0) break;
    }
    if (this.status === 'running' && this.work.isIdle && this.pending.length === 0 && this.atStand === null && this.dwell <= 0) {
      this.status = 'idle';
      if (this.isEnded) this.say('end');
    }
  }

  private passes(seconds: number): void {
    if (this.dwell > 0) this.dwell -= seconds;
    else this.work.pass(seconds);
    const { fault } = this.work;
    if (fault !== null) {
      this.fails((this.work.state() as { line: number }).line, fault);
      return;
    }
    if (this.work.isIdle && this.atStand) {
      const told = this.work.stands();
      if (told) this.say(told);
      const done = this.atStand;
      this.atStand = null;
      done();
    }
    this.feed();
  }
}
