/**
 * Out: the scale card as a PDF of one page, A4 or US Letter, at true size.
 */
import { PDFDocument, rgb, StandardFonts } from 'pdf-lib';
import { english } from '../messages/index.ts';
import { markerCells } from '../raster/square-markers.ts';
import { cardMarkers, checkLineMm, markerSideMm } from '../trueup/scale-card.ts';

const pointsPerMm = 72 / 25.4;
const pages = { a4: { widthMm: 210, heightMm: 297 }, letter: { widthMm: 215.9, heightMm: 279.4 } } as const;
export type CardPage = keyof typeof pages;

/** The bytes of the PDF. Markers are drawn as filled squares, so that they are sharp at any resolution. */
export async function writeScaleCard(page: CardPage): Promise<Uint8Array> {
  const { widthMm, heightMm } = pages[page];
  const pdf = await PDFDocument.create();
  pdf.setTitle('Nuvet scale card');
  // The same card on any day, byte for byte.
  pdf.setCreationDate(new Date(Date.UTC(2026, 0, 1)));
  pdf.setModificationDate(new Date(Date.UTC(2026, 0, 1)));
  const sheet = pdf.addPage([widthMm * pointsPerMm, heightMm * pointsPerMm]);
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  const at = (x: number, y: number) => ({ x: (x + widthMm / 2) * pointsPerMm, y: (y + heightMm / 2) * pointsPerMm });
  const square = (x: number, y: number, side: number, isWhite: boolean) =>
    sheet.drawRectangle({
      ...at(x, y),
      width: side * pointsPerMm,
      height: side * pointsPerMm,
      color: isWhite ? rgb(1, 1, 1) : rgb(0, 0, 0),
    });
  const cell = markerSideMm / 7;
  for (const { id, x, y } of cardMarkers) {
    square(x - markerSideMm / 2, y - markerSideMm / 2, markerSideMm, false);
    markerCells(id).forEach((row, r) => {
      row.forEach((isWhite, c) => {
        // A hair wider than the cell, so that no line shows between neighbours.
        if (isWhite)
          square(x - markerSideMm / 2 + (c + 1) * cell - 0.005, y + markerSideMm / 2 - (r + 2) * cell - 0.005, cell + 0.01, true);
      });
    });
  }
  const line = (x0: number, y0: number, x1: number, y1: number) =>
    sheet.drawLine({ start: at(x0, y0), end: at(x1, y1), thickness: 0.7, color: rgb(0, 0, 0) });
  const half = checkLineMm / 2;
  line(-half, 0, half, 0);
  for (let k = 0; k <= checkLineMm; k += 10) line(k - half, k % 50 === 0 ? -3 : -1.5, k - half, k % 50 === 0 ? 3 : 1.5);
  const text = (words: string, y: number, size: number) => {
    const width = font.widthOfTextAtSize(words, size) / pointsPerMm;
    sheet.drawText(words, { ...at(-width / 2, y), size, font, color: rgb(0.13, 0.19, 0.23) });
  };
  text('Nuvet scale card', 42, 16);
  text(english.files.cardPrint, 10, 9);
  text(english.files.cardLay, -14, 9);
  text(english.files.cardFinds, -20, 9);
  return pdf.save();
}
