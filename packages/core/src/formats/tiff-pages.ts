/**
 * In: a TIFF file's bytes. Out: its pages, with their sizes, without reading their pixels.
 * Rests on: TIFF 6.0 (1992): image file directories, each pointing to the next.
 */
export interface TiffPage {
  readonly widthPx: number;
  readonly heightPx: number;
}

const maxPages = 2000;

/** Null where the bytes are no TIFF; pages that cannot be read end the list. */
export function tiffPages(bytes: Uint8Array): TiffPage[] | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 8) return null;
  const little = view.getUint16(0) === 0x4949;
  if (!little && view.getUint16(0) !== 0x4d4d) return null;
  if (view.getUint16(2, little) !== 42) return null;
  const pages: TiffPage[] = [];
  const seen = new Set<number>();
  try {
    for (let at = view.getUint32(4, little); at !== 0 && !seen.has(at) && pages.length < maxPages; ) {
      seen.add(at);
      pages.push(pageAt(view, at, little));
      at = view.getUint32(at + 2 + 12 * view.getUint16(at, little), little);
    }
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
  }
  return pages.length > 0 ? pages : null;
}

/** A page's own small copy is no page and has no size; its place in the file still counts for whoever reads by number. */
function pageAt(view: DataView, at: number, little: boolean): TiffPage {
  const values = new Map<number, number>();
  for (let k = 0; k < view.getUint16(at, little); k++) {
    const entry = at + 2 + 12 * k;
    const isShort = view.getUint16(entry + 2, little) === 3;
    values.set(view.getUint16(entry, little), isShort ? view.getUint16(entry + 8, little) : view.getUint32(entry + 8, little));
  }
  const isReduced = ((values.get(254) ?? 0) & 1) === 1;
  return isReduced ? { widthPx: 0, heightPx: 0 } : { widthPx: values.get(256) ?? 0, heightPx: values.get(257) ?? 0 };
}
