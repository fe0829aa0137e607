'use client';
/**
 * Pointer and keys while something is drawn or corrected by hand: which of the two tools they go to. Every answer is whether the event
 * was taken.
 */
import type { Point } from '@nuvet/core/plane';
import { useRef } from 'react';
import { useJob } from '@/job/job-store';
import { isDrawTool, setHand, useHand } from './hand-store';
import { type CorrectingPress, corrector } from './tools/corrector';
import { type DrawingPress, drawer } from './tools/drawer';
import type { HandSurroundings, HandTool, TimedKeys } from './tools/hand-tool';
import type { Keys } from './tools/tool';

export function useHandActions(surroundings: Omit<HandSurroundings, 'job' | 'run'>) {
  const run = useJob((s) => s.run);
  const job = useJob((s) => s.job);
  const drawing = useRef<DrawingPress | null>(null);
  const correcting = useRef<CorrectingPress | null>(null);
  const around: HandSurroundings = { ...surroundings, job, run };
  const [draws, corrects] = [drawer(around, drawing), corrector(around, correcting)];

  /** The tool that takes the pointer now; null where none is in hand. */
  const atHand = (): HandTool | null => {
    const { tray, tool, asking } = useHand.getState();
    if (tray === 'find' || (tool === null && asking === null)) return null;
    return asking !== null || isDrawTool(tool) ? draws : corrects;
  };
  /** The tool that holds the press. */
  const holder = (): HandTool | null => (drawing.current ? draws : correcting.current ? corrects : null);
  const letGo = (): void => {
    drawing.current = null;
    correcting.current = null;
  };

  return {
    down(screen: Point, event: TimedKeys): boolean {
      letGo();
      return atHand()?.down(screen, event) ?? false;
    },
    move(screen: Point, event: Keys & { readonly buttons: number }): boolean {
      const tool = atHand();
      if (!tool) return false;
      if (event.buttons > 0 && holder() === tool) return tool.drag(screen, event);
      tool.hover(screen, event);
      return false;
    },
    up(screen: Point, event: TimedKeys): boolean {
      const tool = atHand();
      const isOwn = tool !== null && holder() === tool;
      const isTaken = isOwn && tool.up(screen, event);
      letGo();
      return isTaken;
    },
    /** A press that the system took away: nothing has moved. */
    cancel(): void {
      letGo();
      setHand({ shaped: null, frame: null, snap: null });
    },
    doubleClick: (screen: Point): boolean => corrects.doubleClick(screen),
    key(event: Keys & { readonly key: string }): boolean {
      const { tray, tool } = useHand.getState();
      if (tray === 'find') return false;
      return (isDrawTool(tool) ? draws : corrects).key(event);
    },
  };
}
