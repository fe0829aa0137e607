'use client';
/**
 * The open job: every edit is done here at once and saved as it happens, one save after the other. Undo and redo reach
 * back to the beginning of the job; edits from before this page was loaded are undone by the server.
 */
import {
  type Command,
  CommandError,
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
import { checkedCommandSchema } from '@nuvet/core/processes';
import { createContext, useContext } from 'react';
import { z } from 'zod';
import { createStore, type StoreApi, useStore } from 'zustand';
import type { OpenedJob } from '@/server/jobs';
import { ask } from '@/ui/requests';
import { words } from '@/words';
import { toldError } from '@/words/told';
import { replayOf } from './replay';
import { SaveQueue, type Saving } from './save-queue';
import { keepsNothing, type UnsavedKeeper } from './unsaved';

/** An edit done or undone in this page, or one known only by its label. */
type Known = Edit | { readonly label: string };
const hasPatches = (edit: Known): edit is Edit => 'forward' in edit;

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

const openedSchema = z.object({
  id: z.uuid(),
  job: jobSchema,
  revision: z.int(),
  done: z.array(z.string()),
  redoable: z.array(z.string()),
});
const labelled = (labels: string[]): Known[] => labels.map((label) => ({ label }));

/** Commands that carry all outlines of a picture: looked through for numbers that no job takes, which is all that could be wrong. */
const large: readonly Command['do'][] = ['set-trace', 'relate', 'bring-in-drawing'];

/** Why the server would refuse a command; null where it takes it. */
function faultOf(command: Command): string | null {
  const isTaken = large.includes(command.do) ? hasPlainNumbers(command) : checkedCommandSchema.safeParse(command).success;
  return isTaken ? null : words.job.outOfRange(labelOf(command));
}

function hasPlainNumbers(value: unknown): boolean {
  if (typeof value === 'number') return Math.abs(value) <= maxCoordinate;
  return typeof value !== 'object' || value === null || Object.values(value).every(hasPlainNumbers);
}

export function createJobStore(opened: OpenedJob, keeper: UnsavedKeeper = keepsNothing): StoreApi<JobState> {
  return createStore<JobState>((set, get) => {
    const queue = new SaveQueue(opened.id, opened.revision, keeper, {
      saving: (saving) => set({ saving }),
      message: (message) => set({ message }),
      job: (job) => set({ job }),
      outOfStep: (message) => void get().takeNewest(false, message),
    });
    /** Does a command; why it cannot be done, or null. */
    const attempt = (command: Command): string | null => {
      const { job, done } = get();
      const fault = faultOf(command);
      if (fault) return fault;
      try {
        const result = edited(job, command);
        if (!result) return null;
        set({ job: result.job, done: [...done, result.edit], redoable: [], message: null });
        queue.add({ step: 'do', command });
        return null;
      } catch (error) {
        if (!(error instanceof CommandError)) throw error;
        return toldError(error);
      }
    };
    return {
      id: opened.id,
      job: jobOfDocument(opened.job),
      done: labelled(opened.done),
      redoable: labelled(opened.redoable),
      saving: 'saved',
      message: null,
      revision: () => queue.revision,
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
        queue.add({ step: 'undo' }, !hasPatches(edit));
      },
      redo() {
        const { job, done, redoable, saving } = get();
        const [edit, ...rest] = redoable;
        if (!edit || saving === 'changed-elsewhere') return;
        if (hasPatches(edit)) set({ job: redone(job, edit) });
        set({ done: [...done, edit], redoable: rest });
        queue.add({ step: 'redo' }, !hasPatches(edit));
      },
      dismiss: () => set({ message: null }),
      retry: () => queue.retry(),
      async takeOver() {
        const left = await keeper.takeOver(opened.id, () => queue.waiting.length === 0).catch(() => null);
        if (!left) return;
        set({ message: words.job.savingEditsOfAClosedWindow });
        await queue.takeOver(left);
        if (get().saving !== 'saved') return;
        const newest = await ask('GET', `/api/jobs/${opened.id}`, openedSchema).catch(() => null);
        if (newest)
          set({
            done: labelled(newest.done),
            redoable: labelled(newest.redoable),
            message: words.job.savedEditsOfAClosedWindow,
          });
      },
      async takeNewest(keepMine, message = null) {
        const mine = queue.waiting;
        try {
          const newest = await ask('GET', `/api/jobs/${opened.id}`, openedSchema);
          queue.restart(newest.revision);
          set({ job: newest.job, done: labelled(newest.done), redoable: labelled(newest.redoable), saving: 'saved', message });
          if (!keepMine) return;
          const { undos, commands } = replayOf(mine);
          for (let k = 0; k < undos; k++) get().undo();
          const faults = commands.flatMap((command) => {
            const fault = attempt(command);
            return fault ? [`${labelOf(command)}: ${fault}`] : [];
          });
          if (faults.length > 0) set({ message: words.job.notDoneAgain(faults.join(' ')) });
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
