'use client';
/** How parts lie on their sheets, as far as they are laid out. */
import type { LaidOut } from '@nuvet/core/processes';
import { create } from 'zustand';

interface SheetsState {
  /** Null until it is laid out. */
  readonly laid: LaidOut | null;
  /** The share that is laid out; null where nothing is under way. */
  readonly share: number | null;
}

export const useSheets = create<SheetsState>(() => ({ laid: null, share: null }));
export const setSheets = useSheets.setState;
