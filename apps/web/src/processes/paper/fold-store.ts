'use client';
/**
 * How far each crease of the die line is folded, while it is looked at.
 */
import { create } from 'zustand';

interface FoldState {
  /** For each hinge, radians; hinges that are not in it are folded as `all` says. */
  readonly own: Readonly<Record<number, number>>;
  readonly all: number;
}

export const useFold = create<FoldState>(() => ({ own: {}, all: Math.PI / 3 }));
export const setFold = useFold.setState;
