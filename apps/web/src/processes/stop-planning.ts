'use client';
import { setMaking } from '@/table/making-store';
import { maker } from '@/workers/maker.client';

/** Ends the planning that is under way. */
export function stopPlanning(): void {
  void maker().stopPlan();
  setMaking({ planning: null });
}
