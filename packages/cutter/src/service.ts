/**
 * A small cutter that stands in for a real one: a service on the loopback address that speaks the protocol of
 * docs/cutter-protocol.md, moves as a machine does, and burns into a virtual sheet.
 */
import { createServer, type Server, type Socket } from 'node:net';
import { Interpreter, Refused } from './interpreter.ts';
import { Machine, type MachineFacts } from './machine.ts';

export const plainFacts: MachineFacts = { widthMm: 1500, heightMm: 1000, travelMmPerMin: 12_000, accelerationMmPerS2: 800 };

/** How often the machine moves on, ms. */
const tickMs = 10;
const longestLine = 400;
/** Lines that wait for room to queue their moves; the protocol sends eight ahead. */
const longestQueue = 1000;

type Mood = 'idle' | 'running' | 'pausing' | 'paused' | 'alarm';

export function cutterService(facts: MachineFacts = plainFacts): Server {
  return createServer((socket) => new Session(socket, facts));
}

/** What is asked for by number; 0 for all that is none. */
const wholeNumber = (word: string | undefined): number => Math.min(1e9, Math.max(0, Math.floor(Number(word) || 0)));

/** One connection: a program, a machine and a sheet of its own. */
class Session {
  private machine: Machine;
  private interpreter = new Interpreter();
  private mood: Mood = 'idle';
  private alarm = '';
  private factor = 1;
  private pending: string[] = [];
  private taken = 0;
  private isEnded = false;
  private rest = '';
  private before = performance.now();
  private timer: NodeJS.Timeout | null = null;

  constructor(
    private readonly socket: Socket,
    private readonly facts: MachineFacts,
  ) {
    this.machine = new Machine(facts);
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
    if (this.rest.length > longestLine || lines.some((line) => line.length > longestLine)) {
      this.say('error a line longer than anything that is understood');
      this.socket.destroy();
      return;
    }
    for (const line of lines) this.obey(line.trim());
  }

  private obey(line: string): void {
    if (!line.startsWith('@')) {
      if (this.pending.length >= longestQueue) {
        this.say('error more lines sent ahead than are kept');
        this.socket.destroy();
        return;
      }
      this.pending.push(line);
      this.feed();
      return;
    }
    const [name, ...words] = line.slice(1).split(/\s+/);
    const command = this.commands.get(name ?? '');
    if (command) command(words);
    else this.say(`error @${(name ?? '').slice(0, 40)} is not known`);
  }

  private readonly commands = new Map<string, (words: string[]) => void>(
    Object.entries({
      state: () => this.say(`state ${JSON.stringify(this.state())}`),
      time: ([factor]) => {
        this.factor = Math.min(10_000, Math.max(0.01, Number(factor) || 1));
        this.say(`time ${this.factor}`);
      },
      pause: () => {
        if (this.mood === 'running') this.mood = 'pausing';
        this.say('pause');
      },
      resume: () => {
        if (this.mood === 'paused' || this.mood === 'pausing') this.mood = 'running';
        this.wakes();
        this.say('resume');
      },
      stop: () => {
        this.machine.halt();
        this.pending = [];
        this.interpreter = new Interpreter();
        [this.mood, this.alarm, this.taken] = ['idle', '', 0];
        this.say('stop');
      },
      sheet: () => {
        this.machine = new Machine(this.facts);
        this.interpreter = new Interpreter();
        this.pending = [];
        [this.mood, this.alarm, this.taken, this.isEnded] = ['idle', '', 0, false];
        this.say('sheet');
      },
      burnt: ([from, point]) => {
        const first = wholeNumber(from);
        const skip = wholeNumber(point);
        const burns = this.machine.burns.slice(first).map(({ line, points }, k) => ({
          line,
          points: (k === 0 ? points.slice(skip) : points).flatMap(({ x, y }) => [Number(x.toFixed(5)), Number(y.toFixed(5))]),
        }));
        this.say(`burnt ${JSON.stringify({ from: first, skip, burns })}`);
      },
    }),
  );

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
    const { at, line, burns } = this.machine;
    return {
      mood: this.mood,
      alarm: this.alarm,
      line,
      taken: this.taken,
      x: at.x,
      y: at.y,
      burns: burns.length,
      ended: this.isEnded && this.machine.isIdle,
    };
  }

  /** Takes lines as long as there is room to queue their moves: an ok for each. */
  private feed(): void {
    while (this.pending.length > 0 && this.machine.hasRoom && this.mood !== 'alarm' && !this.isEnded) {
      const line = this.pending.shift() as string;
      this.taken++;
      try {
        const deed = this.interpreter.read(line);
        if (deed && 'end' in deed) {
          this.isEnded = true;
          // Also where the head already stands, the end is told at the next tick.
          if (this.mood === 'idle') this.mood = 'running';
          this.wakes();
        } else if (deed) {
          const refusal = this.machine.refusal(deed);
          if (refusal) throw new Refused(refusal);
          this.machine.take(deed);
          if (this.mood === 'idle') this.mood = 'running';
          this.wakes();
        }
        this.say(`ok ${this.taken}`);
      } catch (error) {
        if (!(error instanceof Refused)) throw error;
        this.machine.halt();
        this.pending = [];
        [this.mood, this.alarm] = ['alarm', `line ${this.taken}: ${error.message}`];
        this.say(`alarm ${this.taken} ${error.message}`);
      }
    }
  }

  private tick(): void {
    const now = performance.now();
    const seconds = Math.min(0.2, (now - this.before) / 1000) * this.factor;
    this.before = now;
    if (this.mood === 'pausing' && this.machine.slow(seconds)) this.mood = 'paused';
    if (this.mood !== 'running') {
      if (this.mood !== 'pausing') this.rests();
      return;
    }
    // In small parts, so that the queue never runs dry while lines wait.
    for (let left = seconds; left > 0; left -= 0.05) {
      this.machine.pass(Math.min(left, 0.05));
      this.feed();
      if (this.machine.isIdle) break;
    }
    if (this.machine.isIdle && this.pending.length === 0 && this.mood === 'running') {
      this.mood = 'idle';
      if (this.isEnded) this.say('end');
    }
  }
}
