'use client';
/**
 * How far each crease of the die line is folded, while it is looked at.
 */
import { create } from 'zustand';

interface FoldState {
  /** For each hinge, radians; hinges that are not in it are folded as `all` says. */
  readonly own: Readonly<Record<number, number>>;
  readonly all: number;
  readonly hovered: number | null;
}

export const useFold = create<FoldState>(() => ({ own: {}, all: Math.PI / 3, hovered: null }));
export const setFold = useFold.setState;
