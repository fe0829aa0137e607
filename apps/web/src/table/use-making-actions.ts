'use client';
/**
 * Pointer and keys while a job is proved and made ready: two places taken for a size or a bridge, bridges and pages dragged.
 * Every answer is whether the event was taken.
 */
import type { Piece } from '@nuvet/core/job';
import { distance, type Point } from '@nuvet/core/plane';
import { placeNear } from '@nuvet/core/proof';
import { nanoid } from 'nanoid';
import { useRef } from 'react';
import { useJob } from '@/stages/job-store';
import { words } from '@/words';
import { letMakingGo, setMaking, useMaking } from './making-store';
import { toScreen, toSheet, type View } from './view';

const pickPx = 12;
/** A place on an outline is taken from this near, screen pixels. */
const aimPx = 24;

interface Surroundings {
  readonly stage: string;
  readonly pieces: readonly Piece[];
  readonly view: () => View;
  readonly onMessage: (text: string) => void;
}

export function useMakingActions({ stage, pieces, view, onMessage }: Surroundings) {
  const run = useJob((s) => s.run);
  const job = useJob((s) => s.job);
  const from = useRef<{ screen: Point; place: Point } | null>(null);

  /** The place on an outline that is meant by one on the screen. */
  const aimAt = (screen: Point): Point | null => {
    const place = placeNear(pieces, toSheet(view(), screen));
    return place && distance(toScreen(view(), place), screen) <= aimPx ? place : null;
  };

  const holdUnder = (screen: Point) => {
    for (const hold of job.proof.holds)
      for (const end of ['from', 'to'] as const)
        if (distance(toScreen(view(), hold[end]), screen) <= pickPx) return { id: hold.id, end, at: hold[end] };
    return null;
  };

  const down = (screen: Point): boolean => {
    if (stage === 'prove' && !useMaking.getState().asking) {
      const hold = holdUnder(screen);
      if (hold) setMaking({ draggedHold: hold });
      return hold !== null;
    }
    const { tray, tiling } = useMaking.getState();
    if (stage === 'make-ready' && tray === 'print' && tiling) {
      from.current = { screen, place: tiling.place };
      setMaking({ draggedPages: tiling.place });
      return true;
    }
    return false;
  };

  const move = (screen: Point): boolean => {
    const { asking, draggedHold, draggedPages } = useMaking.getState();
    if (draggedHold) {
      const at = aimAt(screen);
      if (at) setMaking({ draggedHold: { ...draggedHold, at } });
      return true;
    }
    if (draggedPages && from.current) {
      const { scale } = view();
      const { screen: start, place } = from.current;
      setMaking({ draggedPages: { x: place.x + (screen.x - start.x) / scale, y: place.y - (screen.y - start.y) / scale } });
      return true;
    }
    if (asking) setMaking({ aim: aimAt(screen) });
    return false;
  };

  const up = (): boolean => {
    const { draggedHold, draggedPages } = useMaking.getState();
    if (draggedHold) {
      const { id, end, at } = draggedHold;
      setMaking({ draggedHold: null });
      const before = job.proof.holds.find((h) => h.id === id);
      if (before && distance(before[end], at) > 1e-6)
        run({ do: 'prove-by', change: { holds: job.proof.holds.map((h) => (h.id === id ? { ...h, [end]: at } : h)) } });
      return true;
    }
    if (draggedPages && from.current) {
      const isMoved = distance(draggedPages, from.current.place) > 1e-6;
      from.current = null;
      setMaking({ draggedPages: null });
      if (isMoved) run({ do: 'set-up', change: { printing: { ...job.setup.printing, place: draggedPages } } });
      return true;
    }
    return false;
  };

  const click = (screen: Point): boolean => {
    const { asking, taken } = useMaking.getState();
    if (!asking) return false;
    const at = aimAt(screen);
    if (!at) {
      onMessage(words.table.thereIsNoOutlineNearBy);
      return true;
    }
    const [first] = taken;
    if (!first) {
      setMaking({ taken: [at] });
      return true;
    }
    if (distance(first, at) < 0.01) return true;
    if (asking === 'size') {
      const mm = Number(distance(first, at).toFixed(2));
      const name = words.table.size(job.proof.pinned.length + 1);
      run({
        do: 'prove-by',
        change: { pinned: [...job.proof.pinned, { id: nanoid(10), name, of: { kind: 'between', a: first, b: at }, mm, toleranceMm: 0.1 }] },
      });
    } else {
      const widthMm = job.proof.holds[0]?.widthMm ?? Math.max(1, job.proof.thinnestMm);
      run({ do: 'prove-by', change: { holds: [...job.proof.holds, { id: nanoid(10), from: first, to: at, widthMm }] } });
    }
    letMakingGo();
    return true;
  };

  const key = (event: { key: string }): boolean => {
    const { asking, taken } = useMaking.getState();
    if (event.key !== 'Escape' || (!asking && taken.length === 0)) return false;
    if (taken.length > 0) setMaking({ taken: [] });
    else letMakingGo();
    return true;
  };

  return { down, move, up, click, key };
}
