/**
 * In: pieces. Out: a PDF at true size: one page as large as the work; what no page can hold is tiled.
 */
import { PDFDocument } from 'pdf-lib';
import { ownPaper, tiled } from '../make/tiles.ts';
import type { Box } from '../plane/box.ts';
import { drawPdfPieces, pointsPerMm } from './pdf-drawing.ts';
import { type FilePiece, type PlacedPieces, placedAtOrigin } from './placement.ts';

/** A page may measure 14 400 points (ISO 32000-1:2008, Annex C): mm. */
const largestPageMm = 14_400 / pointsPerMm;
/** Lines on the very edge of the work would lose half their width, mm. */
const pageRimMm = 1;

/** The same bytes on any day. */
export function steadyDates(pdf: PDFDocument): void {
  pdf.setCreationDate(new Date(Date.UTC(2026, 0, 1)));
  pdf.setModificationDate(new Date(Date.UTC(2026, 0, 1)));
}

/** @throws EmptyFileError where there are no pieces */
export async function writePdf(pieces: readonly FilePiece[], title: string): Promise<Uint8Array> {
  const placed = placedAtOrigin(pieces);
  const pdf = await PDFDocument.create();
  pdf.setTitle(title);
  pdf.setSubject(`True size, ${placed.widthMm.toFixed(2)} x ${placed.heightMm.toFixed(2)} mm. Print at 100 %.`);
  steadyDates(pdf);
  for (const { minX, minY, maxX, maxY } of pdfWindows(placed)) {
    const page = pdf.addPage([(maxX - minX) * pointsPerMm, (maxY - minY) * pointsPerMm]);
    drawPdfPieces(page, placed.pieces, ({ x, y }) => [(x - minX) * pointsPerMm, (y - minY) * pointsPerMm]);
  }
  return pdf.save();
}

/** What each page shows, mm: one page round the work, or as many as it takes. */
export function pdfWindows(placed: PlacedPieces): Box[] {
  const [width, height] = [placed.widthMm + pageRimMm, placed.heightMm + pageRimMm];
  const min = -pageRimMm;
  if (width - min <= largestPageMm && height - min <= largestPageMm) return [{ minX: min, minY: min, maxX: width, maxY: height }];
  const size = largestPageMm - 1;
  const paths = placed.pieces.flatMap((p) => [p.outer, ...p.holes]);
  const printing = { paper: ownPaper, widthMm: size, heightMm: size, landscape: false, marginMm: 0, overlapMm: 2 * pageRimMm, place: null, withPicture: false }; // biome-ignore format: one line
  return tiled(paths, printing).pages.map(({ window }) => window);
}
