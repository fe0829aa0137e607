/**
 * Programs on their way to the cutter or mill: lines are sent as far ahead as it takes them, and what it answers is kept, so that the page
 * can ask how far it is. One job at a time, its programs one after another; see docs/cutter-protocol.md.
 */
import type { StandInBlock, StandInJob, StandInTool } from '@nuvet/core/processes';
import { z } from 'zod';
import {
  type MachineStatus,
  type MillMeasured,
  machineStatuses,
  measuredSchema,
  type SewnMeasured,
  sewnSchema,
  type WireMeasured,
  wireMeasuredSchema,
} from '../shared/machine-seen.ts';
import { words } from '../words/index.ts';
import { type CutterLine, tcpLine } from './cutter-line.ts';
import { HttpError } from './http-error.ts';

/** Lines sent ahead of their ok. */
const maxAhead = 8;
/** How often the machine is asked where it is, ms. */
const askEveryMs = 100;

/** What is heard from a machine is checked like all that comes from outside. */
const place = z.number().min(-1e6).max(1e6);
const stateSchema = z.object({
  status: z.enum(machineStatuses),
  x: place,
  y: place,
  line: z.int().min(0),
  z: place.nullable().default(null),
  spindleRpm: z.number().min(0).max(1e6).default(0),
});
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

/** What the machine is told first: what it works on; a wire is told so of each block. */
function beginsWith({ mill, needle }: StandInJob): string {
  if (mill) return `@mill ${JSON.stringify(mill.setUp)}`;
  return needle ? `@needle ${JSON.stringify(needle.setUp)}` : '@sheet';
}

class CutterSession {
  status: MachineStatus = 'idle';
  message = '';
  x = 0;
  y = 0;
  z: number | null = null;
  spindleRpm = 0;
  line = 0;
  /** Which of the programs is under way. */
  program = 0;
  /** The tool that is in, or has to be put in while it waits; by its name. */
  tool = '';
  /** What the mill measured by itself; null until then. */
  measured: MillMeasured | null = null;
  /** The same of a needle. */
  sewn: SewnMeasured | null = null;
  /** The same of a hot wire, block by block; null for one that could not be measured. */
  readonly wired: (WireMeasured | null)[] = [];
  /** Of the programs, their lines. */
  private readonly programs: readonly (readonly string[])[];
  /** How many tools of the program have been put in. */
  private toolsIn = 0;
  /** What waits to be done once somebody has put in a tool. */
  private onAcknowledged: (() => void) | null = null;
  /** How often it has waited for somebody. */
  prompts = 0;
  private isMeasuring = false;
  readonly burns: Burn[] = [];
  private sent = 0;
  private answered = 0;
  private heldBack = false;
  /** Of the stretches that are burnt the first on this block: a wire counts from 0 on each. */
  firstOfBlock = 0;
  /** For each listing of what is burnt that is asked for and not answered, how many stretches lie on blocks before. */
  private readonly listings: number[] = [];
  private readonly wire: CutterLine;
  private readonly timer: NodeJS.Timeout;

  constructor(
    address: string,
    readonly jobId: string,
    /** The process of the job that is made, by its id. */
    readonly processId: string,
    private readonly job: StandInJob,
    timeFactor: number,
  ) {
    this.programs = job.programs.map(({ text }) => text.trimEnd().split('\n'));
    this.wire = tcpLine(address, { onLine: (line) => this.hear(line), onGone: (why) => this.gone(why) });
    this.wire.write(beginsWith(job));
    this.wire.write(`@time ${timeFactor}`);
    this.status = 'running';
    this.timer = setInterval(() => this.look(), askEveryMs);
    this.begin(0);
  }

  get lines(): readonly string[] {
    return this.programs[this.program] ?? [];
  }

  get programCount(): number {
    return this.programs.length;
  }

  /** A program from its first line; its first tool is in. */
  private begin(program: number): void {
    [this.program, this.sent, this.answered, this.toolsIn, this.line] = [program, 0, 0, 0, 0];
    if (this.job.mill) {
      this.wire.write('@program');
      this.putIn();
    }
    if (this.block) {
      this.firstOfBlock = this.burns.length;
      this.wire.write(`@wire ${JSON.stringify(this.block.setUp)}`);
    }
    this.send();
  }

  /** What a wire cuts. */
  private get block(): StandInBlock | undefined {
    return this.job.wire?.blocks[this.program];
  }

  private get nextTool(): StandInTool | undefined {
    return this.job.programs[this.program]?.tools[this.toolsIn];
  }

  private putIn(): void {
    const tool = this.nextTool;
    if (!tool) return;
    this.toolsIn++;
    this.tool = tool.name;
    this.wire.write(`@tool ${tool.number}`);
  }

  /** Waits for somebody, and does what is to be done then. */
  private waitFor(what: string, then: () => void): void {
    this.prompts++;
    [this.status, this.message, this.onAcknowledged] = ['waiting', what, then];
  }

  /** @param prompt which one is answered, from 1: a second click on one answers nothing that was not seen yet */
  acknowledge(prompt: number): void {
    const then = this.onAcknowledged;
    if (!then || prompt !== this.prompts) return;
    [this.status, this.message, this.onAcknowledged] = ['running', '', null];
    then();
  }

  /** A flat cutter has no override. */
  feed(percent: number): void {
    if (this.job.mill) this.wire.write(`@feed ${percent}`);
  }

  get isOver(): boolean {
    return ['away', 'alarm', 'done', 'stopped'].includes(this.status);
  }

  /** Whether nothing more will be told: it is over, and all that was burnt is known. */
  get isWhole(): boolean {
    return this.status === 'away' || (this.isOver && this.listings.length === 0 && !this.isMeasuring);
  }

  private send(): void {
    while (!this.heldBack && this.sent < this.lines.length && this.sent - this.answered < maxAhead) {
      this.wire.write(this.lines[this.sent] as string);
      this.sent++;
    }
  }

  private look(): void {
    this.wire.write('@state');
    if (this.listings.length === 0 || this.isOver) this.list();
  }

  private list(): void {
    this.listings.push(this.firstOfBlock);
    // Of the last stretch known only what has been added; its last place may have moved on.
    const last = Math.max(this.firstOfBlock, this.burns.length - 1);
    this.wire.write(`@burnt ${last - this.firstOfBlock} ${placesBefore(this.burns[last]?.points.length ?? 0)}`);
  }

  private readonly answers = new Map<string, (rest: string) => void>(
    Object.entries({
      ok: () => {
        this.answered++;
        this.send();
      },
      alarm: (rest: string) => {
        if (this.isOver) return;
        const [number, ...why] = rest.split(' ');
        this.message = words.server.theCutterRefusedLine((number ?? '').slice(0, 10), why.join(' ').slice(0, 200));
        this.finish('alarm');
      },
      state: (rest: string) => {
        const { status, x, y, z: height, line, spindleRpm } = stateSchema.parse(JSON.parse(rest));
        [this.x, this.y, this.z, this.line, this.spindleRpm] = [x, y, height, line, spindleRpm];
        if (!this.isOver && this.onAcknowledged === null && (status === 'paused' || status === 'pausing' || status === 'running'))
          this.status = status;
      },
      burnt: (rest: string) => {
        const before = this.listings.shift() ?? 0;
        const { from: own, skip, burns } = burntSchema.parse(JSON.parse(rest));
        const from = before + own;
        // A listing goes on where the one before it ended.
        if (from > this.burns.length) throw new Error(words.server.stretchesAreMissing);
        burns.forEach((burn, k) => {
          const known = this.burns[from + k];
          if (known) {
            known.points.length = Math.min(known.points.length, 2 * (k === 0 ? skip : 0));
            for (const value of burn.points) known.points.push(value);
          } else this.burns[from + k] = burn;
        });
        if (this.isWhole) this.end();
      },
      prompt: (rest: string) => {
        if (this.isOver) return;
        this.waitFor(this.nextTool ? words.server.putIn(this.nextTool.name) : rest.slice(0, 200), () => {
          this.putIn();
          this.wire.write('@acknowledge');
        });
      },
      error: (rest: string) => {
        if (this.isMeasuring) {
          // It is made; only what came of it is not told.
          this.isMeasuring = false;
          if (this.block) this.measuredBlock(null);
          else if (this.isWhole) this.end();
          return;
        }
        if (this.isOver) return;
        this.message = words.server.theCutterSays(rest.slice(0, 200));
        this.finish('alarm');
      },
      measured: (rest: string) => {
        this.isMeasuring = false;
        if (this.block) {
          this.measuredBlock(wireMeasuredSchema.parse(JSON.parse(rest)));
          return;
        }
        if (this.job.needle) this.sewn = sewnSchema.parse(JSON.parse(rest));
        else this.measured = measuredSchema.parse(JSON.parse(rest));
        if (this.isWhole) this.end();
      },
      end: () => {
        if (this.isOver) return;
        if (this.block) {
          // A block is looked at and measured before it is taken out.
          this.list();
          this.measure(this.block.faces);
          return;
        }
        const next = this.program + 1;
        if (next < this.programs.length) {
          const tool = this.job.programs[next]?.tools[0];
          if (!tool || tool.name === this.tool) this.begin(next);
          else this.waitFor(words.server.putIn(tool.name), () => this.begin(next));
          return;
        }
        const against = this.job.mill?.outlines ?? this.job.needle?.drawn;
        if (against) this.measure(against);
        this.finish('done');
      },
    }),
  );

  private measure(against: object): void {
    this.isMeasuring = true;
    this.wire.write(`@measure ${JSON.stringify(against)}`);
  }

  /** What was measured of a block that is cut; then the next one is asked for. */
  private measuredBlock(measured: WireMeasured | null): void {
    this.wired.push(measured);
    if (this.isOver) {
      if (this.isWhole) this.end();
      return;
    }
    const next = this.program + 1;
    const block = this.job.wire?.blocks[next];
    if (block && this.programs[next]) this.waitFor(words.server.putIn(block.name), () => this.begin(next));
    else this.finish('done');
  }

  private hear(text: string): void {
    const at = text.indexOf(' ');
    const [word, rest] = at < 0 ? [text, ''] : [text.slice(0, at), text.slice(at + 1)];
    this.answers.get(word)?.(rest);
  }

  /** The last stretch is asked for before the line is hung up. */
  private finish(status: MachineStatus): void {
    this.status = status;
    this.look();
  }

  private end(): void {
    clearInterval(this.timer);
    this.wire.close();
  }

  private gone(why: string): void {
    clearInterval(this.timer);
    this.listings.length = 0;
    this.isMeasuring = false;
    if (this.isOver) return;
    [this.status, this.message] = ['away', why];
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
    this.onAcknowledged = null;
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
  if (!address) throw new HttpError(404, 'no-cutter', words.server.noCutterIsConnectedToThis);
  return address;
};

export const hasCutter = (): boolean => Boolean(process.env.NUVET_CUTTER);

/** @throws Problem 409 while another program is under way */
export function startCutter(jobId: string, processId: string, job: StandInJob, timeFactor: number): void {
  const address = addressOf();
  const before = kept.nuvetCutter;
  if (before && !before.isOver) throw new HttpError(409, 'busy', words.server.theCutterIsAtWorkOn);
  kept.nuvetCutter = new CutterSession(address, jobId, processId, job, timeFactor);
}

export interface CutterSeen {
  readonly status: MachineStatus;
  readonly message: string;
  readonly line: number;
  readonly lines: number;
  /** Which program is under way, of how many; from 0. */
  readonly program: number;
  readonly programs: number;
  readonly tool: string;
  /** How often it has waited for somebody. */
  readonly prompts: number;
  readonly spindleRpm: number;
  readonly z: number | null;
  readonly measured: MillMeasured | null;
  readonly sewn: SewnMeasured | null;
  /** Block by block; null for one that could not be measured. */
  readonly wired: readonly (WireMeasured | null)[];
  /** Of all stretches the first on what is under the tool now. */
  readonly firstOfBlock: number;
  /** Whether it is over and all that was burnt is told. */
  readonly isWhole: boolean;
  readonly x: number;
  readonly y: number;
  /** Stretches from the one asked for on; of that one from the place asked for on. */
  readonly burns: readonly { readonly points: readonly number[] }[];
}

/** What has happened since; null where nothing was started for this process of this job. */
export function cutterSince(jobId: string, processId: string, from: number, skip: number): CutterSeen | null {
  const session = kept.nuvetCutter;
  if (session?.jobId !== jobId || session.processId !== processId) return null;
  const { status, message, line, lines, program, programCount, tool, prompts, spindleRpm, x, y, z: height, burns } = session;
  const { isWhole, measured, sewn, wired, firstOfBlock } = session;
  return {
    status, message, line, lines: lines.length, program, programs: programCount, tool, prompts, spindleRpm, x, y, z: height,
    isWhole, measured, sewn, wired, firstOfBlock,
    burns: burns.slice(from).map(({ points }, k) => ({ points: k === 0 ? points.slice(2 * skip) : points })),
  }; // biome-ignore format: in one line what is told
}

function sessionOf(jobId: string): CutterSession {
  const session = kept.nuvetCutter;
  if (session?.jobId !== jobId) throw new HttpError(404, 'not-there', words.server.nothingIsBeingCutForThis);
  return session;
}

/** Pausing, going on, and what was put in are for the job that is cut. */
export const tellCutter = (jobId: string, what: 'pause' | 'resume'): void => sessionOf(jobId)[what]();

/** What was asked for is done: the tool of that prompt is in. */
export const acknowledgeCutter = (jobId: string, prompt: number): void => sessionOf(jobId).acknowledge(prompt);

/** How fast it feeds, in hundredths of what the program says. */
export const feedCutter = (jobId: string, percent: number): void => sessionOf(jobId).feed(percent);

/** Stops the machine, whatever it cuts: a job may have been deleted, but its program goes on. */
export function stopCutter(): void {
  const session = kept.nuvetCutter;
  if (!session || session.isOver) throw new HttpError(404, 'not-there', words.server.theCutterIsNotAtWork);
  session.stop();
}
