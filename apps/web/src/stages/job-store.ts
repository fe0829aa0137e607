'use client';
/**
 * The open job: every edit is done here at once and saved as it happens, one save after the other. Undo and redo reach
 * back to the beginning of the job; edits from before this page was loaded are undone by the server.
 */
import {
  type Command,
  CommandError,
  commandSchema,
  type Edit,
  edited,
  type Job,
  jobOfDocument,
  jobSchema,
  labelOf,
  maxCoordinate,
  redone,
  undone,
} from '@nuvet/core/job';
import { createContext, useContext } from 'react';
import { z } from 'zod';
import { createStore, type StoreApi, useStore } from 'zustand';
import type { Step } from '@/server/job-saves';
import type { OpenedJob } from '@/server/jobs';
import { ask, RequestError } from '@/ui/requests';
import { replayOf, withoutStep } from './replay';
import { keepsNothing, type UnsavedKeeper } from './unsaved';

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
  /** Tries to save at once what waits for a connection. */
  retry(): void;
  /** Takes over what a window that is gone has not saved. */
  takeOver(): Promise<void>;
  /** After a change in another window: takes the newest job, and does what was not saved again on top if asked. */
  takeNewest(keepMine: boolean, message?: string | null): Promise<void>;
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
const maxStepsAtOnce = 200;

/** Commands that carry all outlines of a picture: looked through for numbers that no job takes, which is all that could be wrong. */
const large: readonly Command['do'][] = ['set-trace', 'relate', 'bring-in-drawing'];

/** Why the server would refuse a command; null where it takes it. */
function faultOf(command: Command): string | null {
  const isTaken = large.includes(command.do) ? hasPlainNumbers(command) : commandSchema.safeParse(command).success;
  return isTaken ? null : `This could not be done (${labelOf(command)}): a size or a place is out of range.`;
}

function hasPlainNumbers(value: unknown): boolean {
  if (typeof value === 'number') return Math.abs(value) <= maxCoordinate;
  return typeof value !== 'object' || value === null || Object.values(value).every(hasPlainNumbers);
}

export function createJobStore(opened: OpenedJob, keeper: UnsavedKeeper = keepsNothing): StoreApi<JobState> {
  let revision = opened.revision;
  /** The save on its way: sent again as it is until it is answered. */
  let sending: { id: string; steps: Step[] } | null = null;
  let queue: Step[] = [];
  let isSending = false;
  let wake: (() => void) | null = null;
  /** Whether the server's copy of the job must be taken over once all is saved. */
  let wantsJob = false;

  const keepUnsaved = () => {
    const unsaved = sending || queue.length > 0 ? { base: revision, sending, steps: queue } : null;
    void keeper.keep(opened.id, unsaved).catch(() => {});
  };

  return createStore<JobState>((set, get) => {
    /** One save; how it went. */
    async function save(): Promise<Saving> {
      sending ??= { id: crypto.randomUUID(), steps: queue.splice(0, maxStepsAtOnce) };
      const { id, steps } = sending;
      const wanted = wantsJob && queue.length === 0;
      keepUnsaved();
      try {
        const answer = await ask('POST', `/api/jobs/${opened.id}/edits`, savedSchema, { save: id, base: revision, steps, wanted });
        revision = answer.revision;
        sending = null;
        keepUnsaved();
        if (answer.job && queue.length === 0) {
          wantsJob = false;
          set({ job: answer.job });
        }
        return 'saved';
      } catch (error) {
        if (!(error instanceof RequestError)) throw error;
        if (error.isPassing) return 'no-connection';
        if (error.code === 'changed-elsewhere' || error.status === 404) {
          set({ message: error.message });
          return error.code === 'changed-elsewhere' ? 'changed-elsewhere' : 'refused';
        }
        return setAside(steps, error);
      }
    }
    /** Of a refused save the one step that is at fault is set aside, and all others are saved. */
    function setAside(steps: Step[], error: RequestError): Saving {
      sending = null;
      if (steps.length > 1) {
        // One by one it shows which.
        queue = [...steps.slice(1), ...queue];
        sending = { id: crypto.randomUUID(), steps: steps.slice(0, 1) };
        keepUnsaved();
        return 'saving';
      }
      const [refused] = steps;
      const what = refused?.step === 'do' ? labelOf(refused.command) : (refused?.step ?? 'an edit');
      queue = withoutStep([refused as Step, ...queue], 0);
      wantsJob = true;
      keepUnsaved();
      set({ message: `One step could not be saved and was set aside: ${what}. ${error.message} Everything else is saved.` });
      if (queue.length > 0) return 'saving';
      void get().takeNewest(false, get().message);
      return 'saving';
    }
    /** Saves what is queued until nothing is left; without a connection again and again, with longer pauses. */
    async function send(): Promise<void> {
      if (isSending || (!sending && queue.length === 0)) return;
      isSending = true;
      let saving: Saving = 'saving';
      for (let pauseMs = 500; (sending || queue.length > 0) && saving !== 'changed-elsewhere' && saving !== 'refused'; ) {
        if (saving !== 'no-connection') set({ saving: 'saving' });
        saving = await save();
        if (saving !== 'no-connection') continue;
        set({ saving });
        await new Promise<void>((resolve) => {
          wake = resolve;
          setTimeout(resolve, pauseMs);
        });
        pauseMs = Math.min(longestPauseMs, pauseMs * 2);
      }
      isSending = false;
      set({ saving: saving === 'saving' ? 'saved' : saving });
    }
    const enqueue = (step: Step, wanted = false) => {
      queue.push(step);
      wantsJob ||= wanted;
      keepUnsaved();
      void send();
    };
    /** Does a command; why it cannot be done, or null. */
    const attempt = (command: Command): string | null => {
      const { job, done } = get();
      const fault = faultOf(command);
      if (fault) return fault;
      try {
        const result = edited(job, command);
        if (!result) return null;
        set({ job: result.job, done: [...done, result.edit], redoable: [], message: null });
        enqueue({ step: 'do', command });
        return null;
      } catch (error) {
        if (!(error instanceof CommandError)) throw error;
        return error.message;
      }
    };
    return {
      id: opened.id,
      job: jobOfDocument(opened.job),
      done: labelled(opened.done),
      redoable: labelled(opened.redoable),
      saving: 'saved',
      message: null,
      revision: () => revision,
      run(command) {
        const fault = attempt(command);
        if (fault) set({ message: fault });
      },
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
      retry: () => wake?.(),
      async takeOver() {
        const left = await keeper.takeOver(opened.id).catch(() => null);
        if (!left) return;
        revision = left.base;
        sending = left.sending ? { id: left.sending.id, steps: [...left.sending.steps] } : null;
        queue = [...left.steps, ...queue];
        wantsJob = true;
        set({ message: 'Edits that a closed window had not saved yet are being saved now.' });
        await send();
        if (get().saving !== 'saved') return;
        const newest = await ask('GET', `/api/jobs/${opened.id}`, openedSchema).catch(() => null);
        if (newest) set({ done: labelled(newest.done), redoable: labelled(newest.redoable), message: 'Edits that a closed window had not saved are saved now.' });
      },
      async takeNewest(keepMine, message = null) {
        const mine = [...(sending?.steps ?? []), ...queue];
        try {
          const newest = await ask('GET', `/api/jobs/${opened.id}`, openedSchema);
          revision = newest.revision;
          [queue, sending, wantsJob] = [[], null, false];
          keepUnsaved();
          set({ job: newest.job, done: labelled(newest.done), redoable: labelled(newest.redoable), saving: 'saved', message });
          if (!keepMine) return;
          const { undos, commands } = replayOf(mine);
          for (let k = 0; k < undos; k++) get().undo();
          const faults = commands.flatMap((command) => {
            const fault = attempt(command);
            return fault ? [`${labelOf(command)}: ${fault}`] : [];
          });
          if (faults.length > 0) set({ message: `Not done again: ${faults.join(' ')}` });
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
