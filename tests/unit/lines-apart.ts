import Flatbush from 'flatbush';
/** In: two drawings as lines of places. Out: how far the lines of the one go from those of the other at most. */
export type At = readonly [number, number];

/** So many chords whose boxes are nearest are looked at. */
const nearest = 24;
/** Of places along a curve with more than so many every so many-th will do. */
const [many, everyOf] = [100, 5];

/** @param apart how far apart places are looked for along straight lines */
export function farthest(lines: readonly At[][], others: readonly At[][], apart = 1): number {
  let most = 0;
  const chords = others.flatMap((line) => line.slice(1).map((q, k) => [line[k] as At, q] as const));
  if (chords.length === 0) return lines.length === 0 ? 0 : Infinity;
  const index = new Flatbush(chords.length);
  for (const [p, q] of chords) index.add(Math.min(p[0], q[0]), Math.min(p[1], q[1]), Math.max(p[0], q[0]), Math.max(p[1], q[1]));
  index.finish();
  for (const line of lines)
    for (const [k, q] of line.entries()) {
      if (line.length > many && k % everyOf !== 0) continue;
      const p = line[Math.max(0, k - 1)] as At;
      const count = Math.max(1, Math.min(200, Math.ceil(Math.hypot(q[0] - p[0], q[1] - p[1]) / apart)));
      for (let j = 1; j <= count; j++) {
        const at: At = [p[0] + ((q[0] - p[0]) * j) / count, p[1] + ((q[1] - p[1]) * j) / count];
        let least = Infinity;
        // Boxes come by their distance: a few nearest ones hold the nearest chord where the lines agree; where they do not, that is told all the same.
        for (const n of index.neighbors(at[0], at[1], nearest)) {
          const [a, b] = chords[n] as readonly [At, At];
          const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
          const t = Math.min(1, Math.max(0, ((at[0] - a[0]) * dx + (at[1] - a[1]) * dy) / (dx * dx + dy * dy || 1)));
          least = Math.min(least, Math.hypot(at[0] - a[0] - t * dx, at[1] - a[1] - t * dy));
        }
        most = Math.max(most, least);
      }
    }
  return most;
}
