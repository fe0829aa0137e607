'use client';
/**
 * Pointer and keys while a job is proved and made ready: two places taken for a size or a bridge; bridges, and what a process lets be
 * dragged.
 * Every answer is whether the event was taken.
 */
import type { Piece } from '@nuvet/core/job';
import { distance, isInBox, isInside, type Point } from '@nuvet/core/plane';
import { placeNear } from '@nuvet/core/proof';
import { nanoid } from 'nanoid';
import { useRef } from 'react';
import { useJob } from '@/job/job-store';
import { words } from '@/words';
import { letMakingGo, setMaking, useMaking } from './making-store';
import type { Handle, TableProcess } from './table-process';
import { toScreen, toSheet, type View } from './view';

const pickPx = 12;
/** A place on an outline is taken from this near, screen pixels. */
const aimPx = 24;

interface Surroundings {
  readonly stage: string;
  readonly pieces: readonly Piece[];
  readonly view: () => View;
  /** The process that is open, while it is made ready. */
  readonly process: TableProcess | null;
  readonly onMessage: (text: string) => void;
}

export function useMakingActions({ stage, pieces, view, process, onMessage }: Surroundings) {
  const run = useJob((s) => s.run);
  const job = useJob((s) => s.job);
  const from = useRef<{ screen: Point; handle: Handle } | null>(null);

  /** The place on an outline that is meant by one on the screen. */
  const aimAt = (screen: Point): Point | null => {
    const place = placeNear(pieces, toSheet(view(), screen));
    return place && distance(toScreen(view(), place), screen) <= aimPx ? place : null;
  };

  const bridgeUnder = (screen: Point) => {
    for (const bridge of job.proof.bridges)
      for (const end of ['from', 'to'] as const)
        if (distance(toScreen(view(), bridge[end]), screen) <= pickPx) return { id: bridge.id, end, at: bridge[end] };
    return null;
  };

  const handleUnder = (handles: readonly Handle[], screen: Point): Handle | null => {
    const place = toSheet(view(), screen);
    const isUnder = ({ at, box, outline }: Handle): boolean =>
      outline
        ? isInside(outline, place)
        : box === undefined
          ? distance(toScreen(view(), at), screen) <= pickPx
          : box === null || isInBox(box, place);
    return handles.findLast(isUnder) ?? null;
  };

  const down = (screen: Point): boolean => {
    if (stage === 'prove' && !useMaking.getState().asking) {
      const bridge = bridgeUnder(screen);
      if (bridge) setMaking({ draggedBridge: bridge });
      return bridge !== null;
    }
    const handle = stage === 'make-ready' && process ? handleUnder(process.handles, screen) : null;
    if (handle) {
      from.current = { screen, handle };
      setMaking({ dragged: { id: handle.id, at: handle.at } });
    }
    return handle !== null;
  };

  const move = (screen: Point): boolean => {
    const { asking, draggedBridge, dragged } = useMaking.getState();
    if (draggedBridge) {
      const at = aimAt(screen);
      if (at) setMaking({ draggedBridge: { ...draggedBridge, at } });
      return true;
    }
    if (dragged && from.current) {
      const { scale } = view();
      const { screen: start, handle } = from.current;
      const at = { x: handle.at.x + (screen.x - start.x) / scale, y: handle.at.y - (screen.y - start.y) / scale };
      setMaking({ dragged: { id: handle.id, at } });
      return true;
    }
    if (asking) setMaking({ aim: aimAt(screen) });
    return false;
  };

  const up = (): boolean => {
    const { draggedBridge, dragged } = useMaking.getState();
    if (draggedBridge) {
      const { id, end, at } = draggedBridge;
      setMaking({ draggedBridge: null });
      const before = job.proof.bridges.find((h) => h.id === id);
      if (before && distance(before[end], at) > 1e-6)
        run({ do: 'prove-by', change: { bridges: job.proof.bridges.map((h) => (h.id === id ? { ...h, [end]: at } : h)) } });
      return true;
    }
    if (dragged && from.current) {
      const { handle } = from.current;
      const isMoved = distance(dragged.at, handle.at) > 1e-6;
      from.current = null;
      setMaking({ dragged: null });
      if (isMoved) process?.drop(dragged);
      else process?.click(handle);
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
      const widthMm = job.proof.bridges[0]?.widthMm ?? Math.max(1, job.proof.thinnestMm);
      run({ do: 'prove-by', change: { bridges: [...job.proof.bridges, { id: nanoid(10), from: first, to: at, widthMm }] } });
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
