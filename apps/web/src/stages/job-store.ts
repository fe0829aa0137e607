'use client';
/**
 * The open job: every edit is done here at once and saved as it happens, one save after the other. Undo and redo reach
 * back to the beginning of the job; edits from before this page was loaded are undone by the server.
 */
import { type Command, CommandError, type Edit, edited, type Job, jobSchema, redone, undone } from '@nuvet/core/job';
import { createContext, useContext } from 'react';
import { z } from 'zod';
import { createStore, type StoreApi, useStore } from 'zustand';
import type { OpenedJob, Step } from '@/server/jobs';
import { ask, RequestError } from '@/ui/requests';

/** An edit done or undone in this page, or one known only by its label. */
type Known = Edit | { readonly label: string };
const hasPatches = (edit: Known): edit is Edit => 'forward' in edit;

export type Saving = 'saved' | 'saving' | 'no-connection' | 'changed-elsewhere' | 'refused';

export interface JobState {
  readonly id: string;
  readonly job: Job;
  readonly done: readonly Known[];
  readonly redoable: readonly Known[];
  readonly saving: Saving;
  /** The server's count of saves that this page stands on. */
  revision(): number;
  /** What the server said against a save, or what a refused edit needs. */
  readonly message: string | null;
  /** Does an edit; a refused one changes nothing and leaves its message. */
  run(command: Command): void;
  undo(): void;
  redo(): void;
  dismiss(): void;
  /** After a change in another window: takes the newest job, and does what was not saved again on top if asked. */
  takeNewest(keepMine: boolean): Promise<void>;
}

const savedSchema = z.object({ revision: z.int(), job: jobSchema.optional() });
const openedSchema = z.object({
  id: z.uuid(),
  job: jobSchema,
  revision: z.int(),
  done: z.array(z.string()),
  redoable: z.array(z.string()),
});
const labelled = (labels: string[]): Known[] => labels.map((label) => ({ label }));
const longestPauseMs = 10_000;
const mostStepsAtOnce = 200;

export function createJobStore(opened: OpenedJob): StoreApi<JobState> {
  let revision = opened.revision;
  let queue: Step[] = [];
  let isSending = false;

  return createStore<JobState>((set, get) => {
    /** One save; how it went. The server's copy of the job is taken over where it is wanted and nothing waits behind. */
    async function save(wanted: boolean): Promise<Saving> {
      const steps = queue.slice(0, mostStepsAtOnce);
      try {
        const answer = await ask('POST', `/api/jobs/${opened.id}/edits`, savedSchema, { base: revision, steps, wanted });
        revision = answer.revision;
        queue = queue.slice(steps.length);
        if (answer.job && queue.length === 0) set({ job: answer.job });
        return 'saved';
      } catch (error) {
        if (!(error instanceof RequestError)) throw error;
        if (error.code === 'no-connection') return 'no-connection';
        set({ message: error.message });
        return error.code === 'changed-elsewhere' ? 'changed-elsewhere' : 'refused';
      }
    }
    /** Saves what is queued until nothing is left; without a connection again and again, with longer pauses. */
    async function send(wanted = false): Promise<void> {
      if (isSending || queue.length === 0) return;
      isSending = true;
      let saving: Saving = 'saving';
      for (let pauseMs = 500; queue.length > 0 && saving !== 'changed-elsewhere' && saving !== 'refused'; ) {
        if (saving !== 'no-connection') set({ saving: 'saving' });
        saving = await save(wanted);
        if (saving !== 'no-connection') continue;
        set({ saving });
        await new Promise((resolve) => setTimeout(resolve, pauseMs));
        pauseMs = Math.min(longestPauseMs, pauseMs * 2);
      }
      isSending = false;
      set({ saving });
    }
    const enqueue = (step: Step, wanted = false) => {
      queue.push(step);
      void send(wanted);
    };
    /** Does a command on a state; null with a message where it is refused. */
    const attempt = (command: Command): void => {
      const { job, done } = get();
      try {
        const result = edited(job, command);
        if (!result) return;
        set({ job: result.job, done: [...done, result.edit], redoable: [], message: null });
        enqueue({ step: 'do', command });
      } catch (error) {
        if (!(error instanceof CommandError)) throw error;
        set({ message: error.message });
      }
    };
    return {
      id: opened.id,
      job: opened.job,
      done: labelled(opened.done),
      redoable: labelled(opened.redoable),
      saving: 'saved',
      message: null,
      revision: () => revision,
      run: attempt,
      undo() {
        const { job, done, redoable, saving } = get();
        const edit = done.at(-1);
        if (!edit || saving === 'changed-elsewhere') return;
        if (hasPatches(edit)) set({ job: undone(job, edit) });
        set({ done: done.slice(0, -1), redoable: [edit, ...redoable] });
        enqueue({ step: 'undo' }, !hasPatches(edit));
      },
      redo() {
        const { job, done, redoable, saving } = get();
        const [edit, ...rest] = redoable;
        if (!edit || saving === 'changed-elsewhere') return;
        if (hasPatches(edit)) set({ job: redone(job, edit) });
        set({ done: [...done, edit], redoable: rest });
        enqueue({ step: 'redo' }, !hasPatches(edit));
      },
      dismiss: () => set({ message: null }),
      async takeNewest(keepMine) {
        const mine = queue;
        try {
          const newest = await ask('GET', `/api/jobs/${opened.id}`, openedSchema);
          revision = newest.revision;
          queue = [];
          set({ job: newest.job, done: labelled(newest.done), redoable: labelled(newest.redoable), saving: 'saved', message: null });
          if (keepMine) for (const step of mine) if (step.step === 'do') attempt(step.command);
        } catch (error) {
          set({ message: (error as Error).message });
        }
      },
    };
  });
}

export const JobStoreContext = createContext<StoreApi<JobState> | null>(null);

export function useJob<T>(select: (state: JobState) => T): T {
  const store = useContext(JobStoreContext);
  if (!store) throw new Error('outside a job page');
  return useStore(store, select);
}
