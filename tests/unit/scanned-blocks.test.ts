import { blockOf, inchMm, patchShapes, piecingOrder, plainQuilting, seamKinds } from '@nuvet/core/quilting';
import { describe, expect, it } from 'vitest';
import { type BlockDraft, blockDrafts } from './block-drafts.ts';
import { draftedBlock, drawings, scannedPieces } from './scanned-blocks.ts';

describe.each(drawings)('a scanned block drawn as %s', (drawing) => {
  it.each(['Sawtooth Star', 'Churn Dash', 'Drunkard’s Path', 'Attic Window'])(
    '%s has the patches and seams that it was drafted with',
    (name) => {
      const draft = blockDrafts.find((one) => one.name === name) as BlockDraft;
      const [wanted, found] = [draftedBlock(draft), blockOf(scannedPieces(draft, drawing, 150, 1.7, 11), { ...plainQuilting, finishedMm: draft.finishedIn * inchMm })]; // biome-ignore format: one line
      expect(found.grid).toBe(wanted.grid);
      const shapes = (block: typeof found) =>
        patchShapes(block).map(({ name: letter, patches, areaMm2 }) => [letter, patches.length, Math.round(areaMm2 / 20)]);
      expect(shapes(found)).toEqual(shapes(wanted));
      expect(seamKinds(found.map, piecingOrder(found.map))).toEqual(seamKinds(wanted.map, piecingOrder(wanted.map)));
    },
  );
});
