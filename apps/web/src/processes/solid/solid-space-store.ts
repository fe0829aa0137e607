'use client';
/** How a solid is looked at in space. */
import { create } from 'zustand';

interface SolidSpaceState {
  /** The height over which it is not shown; null for the whole of it. */
  readonly cutAtMm: number | null;
}

export const useSolidSpace = create<SolidSpaceState>(() => ({ cutAtMm: null }));
export const setSolidSpace = useSolidSpace.setState;
