/**
 * Scans are pure: the same scene and settings give the same pixels. Whoever draws many of them, as tests do, may keep them.
 */

export interface ScanStore {
  /** The pixels kept for what stands for a scan, or null. */
  get(what: string): Uint8Array | null;
  put(what: string, pixels: Uint8Array): void;
}

let store: ScanStore | null = null;

export function keepScansIn(kept: ScanStore): void {
  store = kept;
}

/** @param what all that the pixels depend on, plain data */
export function keptPixels(what: unknown, draw: () => Uint8Array): Uint8Array {
  if (!store) return draw();
  const key = JSON.stringify(what);
  const kept = store.get(key);
  if (kept) return kept;
  const pixels = draw();
  store.put(key, pixels);
  return pixels;
}
