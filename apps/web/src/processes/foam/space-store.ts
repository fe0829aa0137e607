'use client';
/** How the body is looked at in space. */
import { create } from 'zustand';

interface SpaceState {
  /** Between formers, mm. */
  readonly apartMm: number;
  /** From the nose; null for the whole body. */
  readonly cutAtMm: number | null;
  readonly hasFairBody: boolean;
}

export const useSpace = create<SpaceState>(() => ({ apartMm: 0, cutAtMm: null, hasFairBody: false }));
export const setSpace = useSpace.setState;
