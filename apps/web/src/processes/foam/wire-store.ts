'use client';
/** Which formers the wire cuts. */
import { create } from 'zustand';

interface WireState {
  /** By its number; null for all of them. */
  readonly chosen: number | null;
  /** Those that were sent to it last, by their numbers. */
  readonly begun: readonly number[];
  /** The one that is under it. */
  readonly under: number | null;
}

export const useWire = create<WireState>(() => ({ chosen: null, begun: [], under: null }));
export const setWire = useWire.setState;
