/** In: pieces and how they were laid out. Out: the sheets as they are drawn, with what is left of each. */
import { type Piece, piecesOnSheet, type SheetLayout } from '@nuvet/core/job';
import { leftoversOf } from '@nuvet/core/nesting';
import { type Box, type Path, pathBox, rectanglePath } from '@nuvet/core/plane';
import type { LaidOut } from '@nuvet/core/processes';

/** What is left of a sheet is kept from this width and height on, mm. */
const leastLeftoverMm = 60;

export function laidOut(pieces: readonly Piece[], layout: SheetLayout, thicknessMm: number): LaidOut {
  const { laid, gapMm } = layout;
  const sheets = (laid?.sheets ?? []).map((kind, k) => {
    const { widthMm, heightMm, leftover } = layout.sheets[kind] ?? { widthMm: 100, heightMm: 100 };
    const outline: Path = leftover?.outline ?? rectanglePath({ minX: 0, minY: 0, maxX: widthMm, maxY: heightMm });
    const parts = piecesOnSheet(pieces, layout, k).map(({ name, outer, holes }) => ({ name, outer, holes }));
    const used = parts.map(({ outer }) => withGap(pathBox(outer), gapMm));
    return { thicknessMm, layers: 1, kind, outline, parts, leftovers: leftoversOf(outline, used, leastLeftoverMm) };
  });
  return { sheets, unplaced: [] };
}

const withGap = ({ minX, minY, maxX, maxY }: Box, gap: number): Box => ({ minX: minX - gap, minY: minY - gap, maxX: maxX + gap, maxY: maxY + gap }); // biome-ignore format: one line
