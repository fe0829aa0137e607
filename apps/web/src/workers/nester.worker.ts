/**
 * Lays pieces out on sheets. Each worker does so by chance of its own; the page takes the best of them.
 */
import type { Piece, SheetLayout } from '@nuvet/core/job';
import { layoutOfPieces, type PieceLayout } from '@nuvet/core/nesting';
import { expose } from 'comlink';
import { breath } from './slices';

/** How long it computes before it looks about, ms. */
const breathMs = 100;

let isStopped = false;

const nester = {
  /** @throws SaidError where there is nothing to lay out. It returns soon after it is stopped, with the best until then. */
  async layOut(
    pieces: readonly Piece[],
    layout: SheetLayout,
    seed: number,
    onStep: (share: number, better: PieceLayout | null) => void,
  ): Promise<PieceLayout> {
    isStopped = false;
    const now = (): number => (isStopped ? Infinity : performance.now() / 1000);
    const steps = layoutOfPieces(pieces, layout, seed, now);
    let since = performance.now();
    let best: PieceLayout | null = null;
    for (let step = steps.next(); ; step = steps.next()) {
      if (step.done) return step.value;
      best = step.value.better ?? best;
      if (performance.now() - since < breathMs) continue;
      onStep(step.value.share, best);
      best = null;
      await breath();
      since = performance.now();
    }
  },

  stop(): void {
    isStopped = true;
  },
};

export type Nester = typeof nester;

expose(nester);
