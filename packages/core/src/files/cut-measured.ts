/**
 * In: pieces, the plan that they were cut by, and what a tool burnt. Out: how far the edges that it left lie from the outlines.
 * The edge lies half a kerf beside the middle of the burn. Where the plan itself leaves an outline (bridges, hollow corners that
 * the tool is too round for) nothing is measured.
 */

import { placesAlong } from '../formats/deviation.ts';
import { isFollowed, makeOf } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import type { CutPlan } from '../make/plan.ts';
import type { Path, Point } from '../plane/index.ts';
import { distanceTo } from '../shape/index.ts';

export interface CutMeasured {
  readonly largestMm: number;
  readonly at: Point | null;
  /** Of the outlines the share that was measured, 0 to 1. */
  readonly share: number;
}

/** What the plan may leave an outline by and still mean to follow it, mm. */
const followsMm = 0.006;

/** @param burnt ways of the tool's middle on the sheet, mm */
export function cutMeasured(pieces: readonly Piece[], plan: CutPlan, burnt: readonly Path[], kerfMm: number): CutMeasured {
  const [toPlan, toBurn] = [distanceTo(plan.runs.filter((r) => r.overscanMm === 0).map((r) => r.path)), distanceTo(burnt)]; // biome-ignore format: one line
  let worst: { mm: number; at: Point | null } = { mm: 0, at: null };
  let [measured, all] = [0, 0];
  for (const { purpose, outer, holes } of pieces) {
    if (!isFollowed({ purpose })) continue;
    const half = makeOf({ purpose }) === 'part' && outer.closed ? kerfMm / 2 : 0;
    for (const p of placesAlong([outer, ...holes])) {
      all++;
      if (Math.abs(toPlan(p) - half) > followsMm) continue;
      measured++;
      const mm = Math.abs(toBurn(p) - half);
      if (mm > worst.mm) worst = { mm, at: p };
    }
  }
  return { largestMm: worst.mm, at: worst.at, share: all === 0 ? 0 : measured / all };
}
