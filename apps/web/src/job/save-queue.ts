/**
 * The steps of an open job on their way to the server: one save after the other, each with an id of its own and sent again as it is
 * until it is answered. A step that the server refuses is set aside and named; all others are saved.
 */
import { type Job, jobSchema, labelOf } from '@nuvet/core/job';
import { z } from 'zod';
import type { Step } from '@/server/job-saves';
import { ask, RequestError } from '@/ui/requests';
import { words } from '@/words';
import { withoutStep } from './replay';
import type { Unsaved, UnsavedKeeper } from './unsaved';

export type Saving = 'saved' | 'saving' | 'no-connection' | 'changed-elsewhere' | 'refused';

const savedSchema = z.object({ revision: z.int(), job: jobSchema.optional() });
const longestPauseMs = 10_000;
const maxStepsAtOnce = 200;

interface Listener {
  saving(saving: Saving): void;
  message(message: string): void;
  /** The server's copy of the job takes the page's place. */
  job(job: Job): void;
  /** What the page shows is no longer what the server has, and nothing waits that would bring it back. */
  outOfStep(message: string): void;
}

export class SaveQueue {
  private sending: { id: string; steps: Step[] } | null = null;
  private steps: Step[] = [];
  private isBusy = false;
  private wake: (() => void) | null = null;
  /** Whether the server's copy of the job must be taken over once all is saved. */
  private wantsJob = false;
  /** Done once the browser keeps what waits. */
  private kept: Promise<void> = Promise.resolve();

  constructor(
    private readonly jobId: string,
    /** The server's count of saves that the page stands on. */
    public revision: number,
    private readonly keeper: UnsavedKeeper,
    private readonly listener: Listener,
  ) {}

  /** All that is not saved, in order. */
  get waiting(): readonly Step[] {
    return [...(this.sending?.steps ?? []), ...this.steps];
  }

  add(step: Step, wantsJob = false): void {
    this.steps.push(step);
    this.wantsJob ||= wantsJob;
    this.keep();
    void this.send();
  }

  /** Tries at once what waits for a connection. */
  retry(): void {
    this.wake?.();
  }

  /** Begins anew from a revision, with nothing waiting. */
  restart(revision: number): void {
    this.revision = revision;
    [this.steps, this.sending, this.wantsJob] = [[], null, false];
    this.keep();
  }

  /** Sends what a window that is gone has left; how that ended. */
  async takeOver({ base, sending, steps }: Unsaved): Promise<void> {
    this.revision = base;
    this.sending = sending ? { id: sending.id, steps: [...sending.steps] } : null;
    this.steps = [...steps, ...this.steps];
    this.wantsJob = true;
    await this.send();
  }

  private keep(): void {
    const unsaved = this.waiting.length > 0 ? { base: this.revision, sending: this.sending, steps: this.steps } : null;
    this.kept = this.keeper.keep(this.jobId, unsaved).catch(() => {});
  }

  /** Saves what is queued until nothing is left; without a connection again and again, with longer pauses. */
  private async send(): Promise<void> {
    if (this.isBusy || this.waiting.length === 0) return;
    this.isBusy = true;
    let saving: Saving = 'saving';
    for (let pauseMs = 500; this.waiting.length > 0 && saving !== 'changed-elsewhere' && saving !== 'refused'; ) {
      if (saving !== 'no-connection') this.listener.saving('saving');
      saving = await this.save();
      if (saving !== 'no-connection') continue;
      // What the page then says, that the browser keeps the edits, is true.
      await this.kept;
      this.listener.saving(saving);
      await this.pause(pauseMs);
      pauseMs = Math.min(longestPauseMs, pauseMs * 2);
    }
    this.isBusy = false;
    this.listener.saving(saving === 'saving' ? 'saved' : saving);
  }

  private pause(ms: number): Promise<void> {
    return new Promise((resolve) => {
      this.wake = resolve;
      setTimeout(resolve, ms);
    });
  }

  /** One save; how it went. */
  private async save(): Promise<Saving> {
    this.sending ??= { id: crypto.randomUUID(), steps: this.steps.splice(0, maxStepsAtOnce) };
    const { id, steps } = this.sending;
    const wanted = this.wantsJob && this.steps.length === 0;
    this.keep();
    try {
      const body = { save: id, base: this.revision, steps, wanted };
      const answer = await ask('POST', `/api/jobs/${this.jobId}/edits`, savedSchema, body);
      this.revision = answer.revision;
      this.sending = null;
      this.keep();
      if (answer.job && this.steps.length === 0) {
        this.wantsJob = false;
        this.listener.job(answer.job);
      }
      return 'saved';
    } catch (error) {
      if (!(error instanceof RequestError)) throw error;
      if (error.isPassing) return 'no-connection';
      if (error.code !== 'changed-elsewhere' && error.status !== 404) return this.setAside(steps, error);
      this.listener.message(error.message);
      return error.code === 'changed-elsewhere' ? 'changed-elsewhere' : 'refused';
    }
  }

  /** Of a refused save the one step that is at fault is set aside, and all others are saved. */
  private setAside([refused, ...rest]: Step[], error: RequestError): Saving {
    this.sending = null;
    if (rest.length > 0) {
      // One by one it shows which.
      this.steps = [...rest, ...this.steps];
      this.sending = { id: crypto.randomUUID(), steps: [refused as Step] };
      this.keep();
      return 'saving';
    }
    const what = refused?.step === 'do' ? labelOf(refused.command) : (refused?.step ?? '');
    const message = words.job.stepSetAside(what, error.message);
    this.steps = withoutStep([refused as Step, ...this.steps], 0);
    this.wantsJob = true;
    this.keep();
    if (this.steps.length > 0) this.listener.message(message);
    else this.listener.outOfStep(message);
    return 'saving';
  }
}
