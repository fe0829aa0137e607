'use client';
/**
 * The plan of the open process, worked out in the worker whenever what it rests on changes.
 */
import type { PhotographedPieces, Piece } from '@nuvet/core/job';
import { photographedPieces } from '@nuvet/core/job';
import { proxy } from 'comlink';
import { useEffect, useMemo } from 'react';
import { useJob } from '@/job/job-store';
import { setMaking, useMaking } from '@/table/making-store';
import { toldError } from '@/words/told';
import { maker } from '@/workers/maker.client';
import { greySources } from './grey-sources';
import { panelOf } from './process-on-table';
import type { OpenProcess } from './process-view';

const pauseMs = 150;

/** Which pieces come from which picture, where that is asked for. */
function usePhotographs(isAsked: boolean): PhotographedPieces[] | null {
  const { pictures, traces, planScale } = useJob((s) => s.job);
  return useMemo(() => (isAsked ? photographedPieces({ pictures, traces, planScale }) : null), [isAsked, pictures, traces, planScale]);
}

export function usePlan(open: OpenProcess | null, pieces: readonly Piece[]): void {
  const title = useJob((s) => s.job.name);
  const photographs = usePhotographs(open?.kind.takesPhotographs === true);
  const panel = useMaking((s) => s.panel);
  const { entry, stock } = open ?? {};
  const drag = open ? panelOf(open, panel)?.drag : undefined;
  const dragged = useMaking((s) => (drag?.isFollowed ? s.dragged : null));
  const settings = useMemo(
    () => (open && dragged && drag ? { ...open.settings, ...drag.to(dragged, open.plan, open.settings) } : open?.settings),
    [open, dragged, drag],
  );
  const { id, process, machine } = entry ?? {};
  const { pictures, planScale } = useJob((s) => s.job);
  const sources = useMemo(
    () => (open?.kind.greysIn && settings ? greySources(open.kind, settings, { pictures, planScale }) : null),
    [open?.kind, settings, pictures, planScale],
  );
  useEffect(() => {
    if (!id || !process || !machine || !settings || !stock) return;
    let isWanted = true;
    const work = { title, pieces, settings, machine, stock, ...(photographs && { photographs }), ...(sources && { greySources: sources }) };
    const timer = setTimeout(
      async () => {
        setMaking({ planning: 0, planFault: null });
        try {
          const planned = await maker().plan(
            process,
            work,
            proxy((share: number) => isWanted && setMaking({ planning: share })),
          );
          if (isWanted) setMaking(planned ? { planned: { ...planned, processId: id }, planning: null } : { planning: null });
        } catch (error) {
          if (isWanted) setMaking({ planned: null, planning: null, planFault: toldError(error) });
        }
      },
      dragged ? 0 : pauseMs,
    );
    return () => {
      isWanted = false;
      clearTimeout(timer);
    };
  }, [id, process, machine, settings, stock, title, pieces, photographs, sources, dragged]);
}
