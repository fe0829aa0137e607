/**
 * What a window has not saved yet, kept in the browser until the server has it: a reload, a crash or a lost connection loses none of
 * it. Each window keeps its own; one that is gone leaves what it had to the next that opens the job.
 * Rests on: IndexedDB through idb; Web Locks tell which windows are still open.
 */
import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { nanoid } from 'nanoid';
import type { Step } from '@/server/job-saves';

/** A save on its way, which may have reached the server, and the steps behind it. */
export interface Unsaved {
  readonly base: number;
  readonly sending: { readonly id: string; readonly steps: readonly Step[] } | null;
  readonly steps: readonly Step[];
}

export interface UnsavedKeeper {
  /**
   * Takes over what windows that are gone have left of a job.
   * @param isFree whether there is nothing else to save by then; otherwise it stays for the next that opens the job
   */
  takeOver(jobId: string, isFree: () => boolean): Promise<Unsaved | null>;
  /** Keeps it in the place of what was kept before; null where all is saved. */
  keep(jobId: string, unsaved: Unsaved | null): Promise<void>;
}

/** Where the browser keeps nothing, as in a private window of some. */
export const keepsNothing: UnsavedKeeper = { takeOver: async () => null, keep: async () => {} };

interface Kept extends Unsaved {
  readonly window: string;
  readonly jobId: string;
}

interface Schema extends DBSchema {
  unsaved: { key: [string, string]; value: Kept; indexes: { job: string } };
}

/** A window that is just being closed, or loaded anew, may hold its lock for as long as this, ms. */
const closingMs = 20_000;

const lockOf = (window: string): string => `nuvet window ${window}`;

export function browserKeeper(): UnsavedKeeper {
  if (typeof indexedDB === 'undefined' || typeof navigator === 'undefined' || !navigator.locks) return keepsNothing;
  const own = nanoid();
  // Held for as long as the window is open.
  void navigator.locks.request(lockOf(own), () => new Promise(() => {}));
  let opened: Promise<IDBPDatabase<Schema>> | null = null;
  const database = () => {
    opened ??= openDB<Schema>('nuvet', 1, {
      upgrade: (db) => void db.createObjectStore('unsaved', { keyPath: ['jobId', 'window'] }).createIndex('job', 'jobId'),
    });
    return opened;
  };
  return {
    async takeOver(jobId, isFree) {
      const db = await database();
      let isTaken = false;
      const take = (window: string, options: LockOptions): Promise<Unsaved | null> =>
        navigator.locks
          .request(lockOf(window), options, async (lock) => {
            // What it has left by now: while it was waited for it may have saved some, or been taken over by another window.
            const left = lock && (await db.get('unsaved', [jobId, window]));
            if (!left || isTaken || !isFree()) return null;
            isTaken = true;
            const { base, sending, steps } = left;
            await db.put('unsaved', { jobId, window: own, base, sending, steps });
            await db.delete('unsaved', [jobId, window]);
            return { base, sending, steps };
          })
          .catch(() => null);
      const windows = (await db.getAllFromIndex('unsaved', 'job', jobId)).map(({ window }) => window);
      for (const window of windows) {
        const taken = await take(window, { ifAvailable: true });
        if (taken) return taken;
      }
      const closing = windows.map((window) => take(window, { signal: AbortSignal.timeout(closingMs) }));
      return new Promise((resolve) => {
        void Promise.all(closing.map((one) => one.then((taken) => taken && resolve(taken)))).then(() => resolve(null));
      });
    },
    async keep(jobId, unsaved) {
      const db = await database();
      if (unsaved) await db.put('unsaved', { ...unsaved, jobId, window: own });
      else await db.delete('unsaved', [jobId, own]);
    },
  };
}
