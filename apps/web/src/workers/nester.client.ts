'use client';
/**
 * Lays pieces out on sheets in as many workers as there are processors, each from another beginning, and takes the best.
 */
import type { Piece, SheetLayout } from '@nuvet/core/job';
import type { PieceLayout } from '@nuvet/core/nesting';
import { proxy, wrap } from 'comlink';
import type { Nester } from './nester.worker';

const mostWorkers = 4;

export interface Nesting {
  /** The best of all. @throws Error where there is nothing to lay out */
  readonly done: Promise<PieceLayout>;
  /** Ends it with the best until then. */
  stop(): void;
}

const isBetter = (a: PieceLayout, b: PieceLayout | null): boolean => b === null || a.laid.copies.length > b.laid.copies.length || (a.laid.copies.length === b.laid.copies.length && (a.laid.sheets.length < b.laid.sheets.length || (a.laid.sheets.length === b.laid.sheets.length && a.usedMm < b.usedMm))); // biome-ignore format: one line

export function nesting(pieces: readonly Piece[], layout: SheetLayout, onStep: (share: number, best: PieceLayout | null) => void): Nesting {
  const count = Math.max(1, Math.min(mostWorkers, navigator.hardwareConcurrency || 1));
  const workers = Array.from({ length: count }, () => new Worker(new URL('./nester.worker.ts', import.meta.url), { type: 'module' }));
  const remotes = workers.map((worker) => wrap<Nester>(worker));
  let best: PieceLayout | null = null;
  const heard = proxy((share: number, better: PieceLayout | null) => {
    if (better && isBetter(better, best)) best = better;
    onStep(share, best);
  });
  const done = Promise.all(
    remotes.map(
      (remote, k) =>
        new Promise<PieceLayout>((resolve, reject) => {
          workers[k]?.addEventListener('error', () => reject(new Error('the layout worker is lost')));
          remote.layOut(pieces, layout, k + 1, heard).then(resolve, reject);
        }),
    ),
  )
    .then((all) => all.reduce((a, b) => (isBetter(b, a) ? b : a)))
    .finally(() => {
      for (const worker of workers) worker.terminate();
    });
  return {
    done,
    stop() {
      for (const remote of remotes) void remote.stop();
    },
  };
}
