/**
 * In: how an edge between a face and the sides is treated. Out: how far in the outline lies at which depth below the face: a round follows a
 * quarter of a circle by chords that leave it by no more than a given error.
 */
export type EdgeTreatment = { readonly kind: 'sharp' } | { readonly kind: 'round' | 'bevel' | 'step'; readonly sizeMm: number };

/** Below the face, and in from the outline, mm. */
export interface EdgePlace {
  readonly depthMm: number;
  readonly insetMm: number;
}

const mostChords = 90;

/** From the side up to the face: the first has no inset, the last no depth; none where the edge is sharp. */
export function edgePlaces(treatment: EdgeTreatment, chordMm: number): EdgePlace[] {
  if (treatment.kind === 'sharp' || treatment.sizeMm <= 0) return [];
  const r = treatment.sizeMm;
  if (treatment.kind === 'bevel') return [{ depthMm: r, insetMm: 0 }, { depthMm: 0, insetMm: r }]; // biome-ignore format: two places
  if (treatment.kind === 'step') return [{ depthMm: r, insetMm: 0 }, { depthMm: r, insetMm: r }, { depthMm: 0, insetMm: r }]; // biome-ignore format: three places
  const chords = Math.min(mostChords, Math.max(2, Math.ceil(Math.PI / 4 / Math.acos(1 - Math.min(1, chordMm / r)))));
  return Array.from({ length: chords + 1 }, (_, k) => {
    const angle = (Math.PI / 2) * (k / chords);
    return { depthMm: k === chords ? 0 : r * (1 - Math.sin(angle)), insetMm: k === 0 ? 0 : r * (1 - Math.cos(angle)) };
  });
}
