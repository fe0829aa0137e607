'use client';
/**
 * The chosen things as targets, and the edits that several panels make of them.
 */
import type { Drawn } from '@nuvet/core/job';
import { type Transform, transformedPath } from '@nuvet/core/plane';
import { setHand, useHand } from '@/table/hand-store';
import { movedDrawn, movedMotif, newDrawn, sourceOf, type Target, takenOver, targetOf } from '@/table/hand-target';
import { words } from '@/words';
import { useJob } from '../../../job/job-store';

type LiveStep = Drawn['live'][number];

export function useChosen() {
  const chosen = useHand((s) => s.chosen);
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const targets = chosen.map((id) => targetOf(job, id)).filter((t): t is Target => t !== null);

  /** Chosen things in place of what is there, each made anew; traced ones become drawn. */
  const remade = (word: string, make: (drawn: Drawn, target: Target) => Drawn): void => {
    const over = targets.flatMap((target) => {
      const taken = takenOver(job, target.pieceId);
      return taken ? [{ taken, target }] : [];
    });
    if (over.length === 0) return;
    const by = over.map(({ taken, target }) => make(taken.drawn, target));
    run({ do: 'replace-drawn', word, ids: over.flatMap(({ taken }) => taken.ids), by });
    setHand({ chosen: by.map(({ id }) => id), points: null, segment: null });
  };

  return {
    job,
    run,
    targets,
    target: targets.at(-1) ?? null,
    drawn: targets.length === 1 ? (targets[0]?.drawn ?? null) : null,
    remade,
    /** One live step more, or in place of the one of its kind. */
    withStep: (word: string, step: LiveStep, isAnew = true) =>
      remade(word, (drawn) => ({ ...drawn, live: [...drawn.live.filter((s) => !isAnew || s.kind !== step.kind), step] })),
    withoutStep: (drawn: Drawn, index: number) =>
      run({ do: 'change-drawn', drawnId: drawn.id, change: { live: drawn.live.filter((_, k) => k !== index) } }),
    /** Chosen things moved by a map of the sheet, their live steps with them. */
    moved: (word: string, map: Transform | ((target: Target, k: number) => Transform)) => {
      let k = 0;
      remade(word, (drawn, target) => movedDrawn(drawn, target, typeof map === 'function' ? map(target, k++) : map));
    },
    /** Plain copies of the chosen things, one for each map but the first. */
    copied: (word: string, maps: readonly Transform[]) => {
      const by = maps.flatMap((map) =>
        targets.map((target) =>
          newDrawn(job, words.byHand.copy, sourceOf(target.paths.map((path) => transformedPath(path, map))), {
            purpose: target.drawn?.purpose ?? 'cut',
            name: words.byHand.copyOf(target.name),
            motif: movedMotif(target.drawn?.motif, map),
          }),
        ),
      );
      run({ do: 'replace-drawn', word, ids: [], by });
    },
  };
}
