'use client';
/** A trial run as the page shows it: the time that is looked at, what is measured, and how it is drawn. Kept while the page is open. */
import type { TrialShown } from '@nuvet/core/milling';
import { create } from 'zustand';
import type { TrialMeasured } from '@/workers/maker.worker';

export type ColourBy = 'depth' | 'operation' | 'left';

interface TrialState {
  /** How long the cuts of the plan take, s; null until it is begun. */
  readonly whole: number | null;
  readonly seconds: number;
  readonly isPlaying: boolean;
  readonly speed: number;
  readonly shown: TrialShown | null;
  readonly measured: TrialMeasured | null;
  /** 0 to 1 while it is measured. */
  readonly measuring: number | null;
  readonly colourBy: ColourBy;
  /** Where the stock is cut open, mm from its lower edge; null where it is whole. */
  readonly sectionMm: number | null;
  /** A place to look at, on the sheet, and how often one was asked for. */
  readonly look: { readonly x: number; readonly y: number; readonly count: number } | null;
}

export const useTrial = create<TrialState>(() => ({
  whole: null,
  seconds: 0,
  isPlaying: false,
  speed: 10,
  shown: null,
  measured: null,
  measuring: null,
  colourBy: 'depth',
  sectionMm: null,
  look: null,
}));

export const setTrial = useTrial.setState;
