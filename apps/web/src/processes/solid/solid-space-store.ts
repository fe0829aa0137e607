'use client';
/** How a solid is looked at in space: cut open, put together, measured; and what was found for printing it. */
import type { PrintChecks } from '@nuvet/core/solid';
import { create } from 'zustand';
import type { PrintLayer } from '@/workers/maker.worker';

export type Place = readonly [number, number, number];

interface SolidSpaceState {
  /** The height over which it is not shown; null for the whole of it. */
  readonly cutAtMm: number | null;
  /** The layer at that height. */
  readonly layer: PrintLayer | null;
  /** Whether pairs stand as they are pushed together. */
  readonly isAssembled: boolean;
  /** What was found, and the share that was looked at; null before, and where nothing is under way. */
  readonly checks: PrintChecks | null;
  readonly share: number | null;
  /** Corners that were clicked on, two at most. */
  readonly measured: readonly Place[];
}

export const useSolidSpace = create<SolidSpaceState>(() => ({
  cutAtMm: null,
  layer: null,
  isAssembled: false,
  checks: null,
  share: null,
  measured: [],
}));
export const setSolidSpace = useSolidSpace.setState;
