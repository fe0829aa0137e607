'use client';
/**
 * The chosen things as targets, and the edits that several panels make of them.
 */
import type { Drawn } from '@nuvet/core/job';
import { type Path, type Transform, transformedPath } from '@nuvet/core/plane';
import { setHand, useHand } from '@/table/hand-store';
import { newDrawn, sourceOf, type Target, takenOver, targetOf } from '@/table/hand-target';
import { useJob } from '../../job-store';

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
          newDrawn(job, 'Copy', sourceOf(target.paths.map((path) => transformedPath(path, map))), {
            purpose: target.drawn?.purpose ?? 'cut',
            name: `${target.name} copy`,
          }),
        ),
      );
      run({ do: 'replace-drawn', word, ids: [], by });
    },
  };
}

/** A drawn thing under a map: a figure that keeps its shape stays a figure where it is only shifted. */
function movedDrawn(drawn: Drawn, target: Target, map: Transform): Drawn {
  const at = (p: { x: number; y: number }) => ({ x: map.a * p.x + map.c * p.y + map.e, y: map.b * p.x + map.d * p.y + map.f });
  const isShift = map.a === 1 && map.d === 1 && map.b === 0 && map.c === 0;
  const live = drawn.live.map((step): LiveStep => {
    if (step.kind === 'mirror') return { ...step, a: at(step.a), b: at(step.b) };
    return step.kind === 'turn' ? { ...step, centre: at(step.centre) } : step;
  });
  const { source } = drawn;
  if (source.kind === 'points') {
    const points = source.points.map((p) => ({
      ...p,
      at: at(p.at),
      ...(p.through ? { through: at(p.through) } : {}),
      ...(p.before ? { before: at(p.before) } : {}),
      ...(p.after ? { after: at(p.after) } : {}),
    }));
    return { ...drawn, live, source: { ...source, points } };
  }
  if (source.kind === 'figure' && isShift) {
    const { figure } = source;
    const shifted = 'centre' in figure ? { ...figure, centre: at(figure.centre) } : { ...figure, from: at(figure.from), to: at(figure.to) };
    return { ...drawn, live, source: { kind: 'figure', figure: shifted } };
  }
  const paths: readonly Path[] = target.paths.map((path) => transformedPath(path, map));
  return { ...drawn, live, source: sourceOf(paths) };
}
