/**
 * A program on its way to the cutter: lines are sent as far ahead as it takes them, and what it answers is kept, so that the page
 * can ask how far it is. One program at a time; see docs/cutter-protocol.md.
 */
import { z } from 'zod';
import { words } from '../words/index.ts';
import { type CutterLine, tcpLine } from './cutter-line.ts';
import { Problem } from './problem.ts';

/** Lines sent ahead of their ok. */
const mostAhead = 8;
/** How often the machine is asked where it is, ms. */
const askEveryMs = 100;

const moods = ['away', 'idle', 'running', 'pausing', 'paused', 'alarm', 'done', 'stopped'] as const;
export type CutterMood = (typeof moods)[number];

/** What is heard from a machine is checked like all that comes from outside. */
const place = z.number().min(-1e6).max(1e6);
const stateSchema = z.object({ mood: z.enum(moods), x: place, y: place, line: z.int().min(0) });
const burntSchema = z.object({
  from: z.int().min(0),
  skip: z.int().min(0),
  burns: z.array(z.object({ line: z.int().min(0), points: z.array(place).max(400_000) })).max(100_000),
});

interface Burn {
  readonly line: number;
  /** x and y in turn, mm. */
  readonly points: number[];
}

class CutterSession {
  mood: CutterMood = 'idle';
  message = '';
  x = 0;
  y = 0;
  line = 0;
  readonly burns: Burn[] = [];
  private sent = 0;
  private answered = 0;
  private heldBack = false;
  /** Listings of what is burnt that are asked for and not answered. */
  private listings = 0;
  private readonly wire: CutterLine;
  private readonly timer: NodeJS.Timeout;

  constructor(
    address: string,
    readonly jobId: string,
    readonly lines: readonly string[],
    timeFactor: number,
  ) {
    this.wire = tcpLine(address, { onLine: (line) => this.hear(line), onGone: (why) => this.gone(why) });
    this.wire.write('@sheet');
    this.wire.write(`@time ${timeFactor}`);
    this.mood = 'running';
    this.timer = setInterval(() => this.look(), askEveryMs);
    this.send();
  }

  get isOver(): boolean {
    return ['away', 'alarm', 'done', 'stopped'].includes(this.mood);
  }

  /** Whether nothing more will be told: it is over, and all that was burnt is known. */
  get isWhole(): boolean {
    return this.mood === 'away' || (this.isOver && this.listings === 0);
  }

  private send(): void {
    while (!this.heldBack && this.sent < this.lines.length && this.sent - this.answered < mostAhead) {
      this.wire.write(this.lines[this.sent] as string);
      this.sent++;
    }
  }

  private look(): void {
    this.wire.write('@state');
    if (this.listings > 0 && !this.isOver) return;
    this.listings++;
    // Of the last stretch known only what has been added; its last place may have moved on.
    const last = Math.max(0, this.burns.length - 1);
    this.wire.write(`@burnt ${last} ${placesBefore(this.burns[last]?.points.length ?? 0)}`);
  }

  private readonly answers = new Map<string, (rest: string) => void>(
    Object.entries({
      ok: () => {
        this.answered++;
        this.send();
      },
      alarm: (rest: string) => {
        const [number, ...why] = rest.split(' ');
        this.message = words.server.theCutterRefusedLine((number ?? '').slice(0, 10), why.join(' ').slice(0, 200));
        this.finish('alarm');
      },
      state: (rest: string) => {
        const { mood, x, y, line } = stateSchema.parse(JSON.parse(rest));
        [this.x, this.y, this.line] = [x, y, line];
        if (!this.isOver && (mood === 'paused' || mood === 'pausing' || mood === 'running')) this.mood = mood;
      },
      burnt: (rest: string) => {
        this.listings--;
        const { from, skip, burns } = burntSchema.parse(JSON.parse(rest));
        // A listing goes on where the one before it ended.
        if (from > this.burns.length) throw new Error(words.server.stretchesAreMissing);
        burns.forEach((burn, k) => {
          const known = this.burns[from + k];
          if (known) {
            known.points.length = Math.min(known.points.length, 2 * (k === 0 ? skip : 0));
            for (const value of burn.points) known.points.push(value);
          } else this.burns[from + k] = burn;
        });
        if (this.isOver && this.listings === 0) this.end();
      },
      end: () => {
        if (!this.isOver) this.finish('done');
      },
    }),
  );

  private hear(text: string): void {
    const at = text.indexOf(' ');
    const [word, rest] = at < 0 ? [text, ''] : [text.slice(0, at), text.slice(at + 1)];
    this.answers.get(word)?.(rest);
  }

  /** The last stretch is asked for before the line is hung up. */
  private finish(mood: CutterMood): void {
    this.mood = mood;
    this.look();
  }

  private end(): void {
    clearInterval(this.timer);
    this.wire.hangUp();
  }

  private gone(why: string): void {
    clearInterval(this.timer);
    this.listings = 0;
    if (this.isOver) return;
    [this.mood, this.message] = ['away', why];
  }

  pause(): void {
    this.heldBack = true;
    this.wire.write('@pause');
  }

  resume(): void {
    this.heldBack = false;
    this.wire.write('@resume');
    this.send();
  }

  stop(): void {
    if (this.isOver) return;
    this.sent = this.lines.length;
    this.wire.write('@stop');
    this.message = words.server.stoppedAtLineOf(this.line, this.lines.length);
    this.finish('stopped');
  }
}

/** Of so many numbers, how many places lie before the last one. */
const placesBefore = (numbers: number): number => Math.max(0, numbers / 2 - 1);

/** Kept beside the module, which may be loaded more than once. */
const kept = globalThis as typeof globalThis & { nuvetCutter?: CutterSession };

const addressOf = (): string => {
  const address = process.env.NUVET_CUTTER;
  if (!address) throw new Problem(404, 'no-cutter', words.server.noCutterIsConnectedToThis);
  return address;
};

export const hasCutter = (): boolean => Boolean(process.env.NUVET_CUTTER);

/** @throws Problem 409 while another program is under way */
export function startCutter(jobId: string, program: string, timeFactor: number): void {
  const address = addressOf();
  const before = kept.nuvetCutter;
  if (before && !before.isOver) throw new Problem(409, 'busy', words.server.theCutterIsAtWorkOn);
  kept.nuvetCutter = new CutterSession(address, jobId, program.trimEnd().split('\n'), timeFactor);
}

export interface CutterSeen {
  readonly mood: CutterMood;
  readonly message: string;
  readonly line: number;
  readonly lines: number;
  /** Whether it is over and all that was burnt is told. */
  readonly isWhole: boolean;
  readonly x: number;
  readonly y: number;
  /** Stretches from the one asked for on; of that one from the place asked for on. */
  readonly burns: readonly { readonly points: readonly number[] }[];
}

/** What has happened since; null where nothing was started for this job. */
export function cutterSince(jobId: string, from: number, skip: number): CutterSeen | null {
  const session = kept.nuvetCutter;
  if (session?.jobId !== jobId) return null;
  const { mood, message, line, lines, x, y, burns, isWhole } = session;
  return {
    mood, message, line, lines: lines.length, x, y, isWhole,
    burns: burns.slice(from).map(({ points }, k) => ({ points: k === 0 ? points.slice(2 * skip) : points })),
  }; // biome-ignore format: in one line what is told
}

/** Pausing and going on are for the job that is cut. */
export function tellCutter(jobId: string, what: 'pause' | 'resume'): void {
  const session = kept.nuvetCutter;
  if (session?.jobId !== jobId) throw new Problem(404, 'not-there', words.server.nothingIsBeingCutForThis);
  session[what]();
}

/** Stops the machine, whatever it cuts: a job may have been deleted, but its program goes on. */
export function stopCutter(): void {
  const session = kept.nuvetCutter;
  if (!session || session.isOver) throw new Problem(404, 'not-there', words.server.theCutterIsNotAtWork);
  session.stop();
}
