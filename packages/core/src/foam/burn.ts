/**
 * In: readings of a calibration cut: how wide the wire melts at which speed. Out: the burn at any speed: what it melts however fast, and what
 * falls with the time that it stays, a + b / speed, by least squares.
 */
export interface BurnReading {
  readonly mmPerMin: number;
  /** How wide the cut is, mm. */
  readonly burnMm: number;
}

export type Burn = (mmPerMin: number) => number;

/** No cut is wider than this, however slow the wire, mm. */
const widestMm = 20;

/** What is melted however fast, mm, and what is melted for each minute that a millimetre takes, square mm a minute. */
export function burnLine(readings: readonly BurnReading[]): { readonly burnMm: number; readonly burnMm2PerMin: number } {
  const n = readings.length;
  if (n === 0) return { burnMm: 0, burnMm2PerMin: 0 };
  const slow = readings.map(({ mmPerMin }) => 1 / mmPerMin);
  const mean = slow.reduce((a, b) => a + b, 0) / n;
  const meanBurn = readings.reduce((sum, { burnMm }) => sum + burnMm, 0) / n;
  const spread = slow.reduce((sum, s) => sum + (s - mean) ** 2, 0);
  const slope = spread > 0 ? Math.max(0, readings.reduce((sum, { burnMm }, k) => sum + ((slow[k] as number) - mean) * (burnMm - meanBurn), 0) / spread) : 0; // biome-ignore format: one line
  return { burnMm: meanBurn - slope * mean, burnMm2PerMin: slope };
}

export function burnFrom(readings: readonly BurnReading[]): Burn {
  const { burnMm, burnMm2PerMin } = burnLine(readings);
  return (mmPerMin) => Math.min(widestMm, Math.max(0, burnMm + burnMm2PerMin / Math.max(mmPerMin, 1e-6)));
}
