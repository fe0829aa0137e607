/**
 * In: outlines. Out: what draws them on a page of a PDF at true size: lines and curves; arcs as curves within half a micrometre;
 * each purpose with its dash, weight and colour, and its name about it as marked content.
 * Rests on: ISO 32000-1:2008, 8.5 (paths), 8.4.3 (line styles), 14.6 (marked content). A point is 1/72 inch.
 */
import {
  appendBezierCurve,
  closePath,
  lineTo,
  moveTo,
  PDFOperatorNames as Ops,
  type PDFFont,
  PDFName,
  PDFOperator,
  type PDFPage,
  popGraphicsState,
  pushGraphicsState,
  rgb,
  setDashPattern,
  setLineWidth,
  setStrokingRgbColor,
  stroke,
} from 'pdf-lib';
import { purposeKinds, purposes } from '../job/purposes.ts';
import { english } from '../messages/index.ts';
import { type Path, reducedSteps } from '../plane/path.ts';
import type { Point } from '../plane/point.ts';
import type { FilePiece } from './placement.ts';

export const pointsPerMm = 72 / 25.4;
const arcToleranceMm = 0.0005;

/** From the sheet, mm, to the page's points. */
export type OntoPage = (p: Point) => readonly [number, number];

export function pathOperators(path: Path, at: OntoPage): PDFOperator[] {
  const made = [moveTo(...at(path.start))];
  for (const { segment } of reducedSteps(path, ['line', 'cubic'], arcToleranceMm)) {
    if (segment.kind === 'line') made.push(lineTo(...at(segment.to)));
    else made.push(appendBezierCurve(...at(segment.c1), ...at(segment.c2), ...at(segment.to)));
  }
  if (path.closed) made.push(closePath());
  return made;
}

/** Red, green and blue, 0 to 1. */
const inShares = (colour: string): [number, number, number] =>
  [1, 3, 5].map((k) => Number.parseInt(colour.slice(k, k + 2), 16) / 255) as [number, number, number];

/** Draws pieces, each purpose as it looks. */
export function drawPdfPieces(page: PDFPage, pieces: readonly FilePiece[], at: OntoPage): void {
  for (const purpose of purposes) {
    const own = pieces.filter((p) => p.purpose === purpose);
    if (own.length === 0) continue;
    const { colour, widthMm, dashMm } = purposeKinds[purpose].look;
    page.pushOperators(
      pushGraphicsState(),
      PDFOperator.of(Ops.BeginMarkedContent, [PDFName.of(purpose)]),
      setLineWidth(widthMm * pointsPerMm),
      setDashPattern(
        dashMm.map((d) => d * pointsPerMm),
        0,
      ),
      setStrokingRgbColor(...inShares(colour)),
      ...own.flatMap(({ outer, holes }) => [outer, ...holes].flatMap((path) => [...pathOperators(path, at), stroke()])),
      PDFOperator.of(Ops.EndMarkedContent),
      popGraphicsState(),
    );
  }
}

export const ink = rgb(0x20 / 255, 0x30 / 255, 0x3a / 255);
export const quietInk = rgb(0x55 / 255, 0x64 / 255, 0x6d / 255);

/** What the standard fonts can write; other letters become their plain form, or a question mark. */
export const printable = (text: string): string =>
  text
    .normalize('NFC')
    .replace(/[\u2018\u2019]/g, "'")
    .replace(
      /[^\x20-\x7e\u00a0-\u00ff\u2013\u2014\u201c\u201d\u2022\u2026]/g,
      (c) => c.normalize('NFD').replace(/[^\x20-\x7e]/g, '') || '?',
    );

/** A line of text with its size in points, from its lower left, mm on the page. */
export function write(page: PDFPage, font: PDFFont, text: string, xMm: number, yMm: number, size: number, color = ink): void {
  page.drawText(printable(text), { x: xMm * pointsPerMm, y: yMm * pointsPerMm, size, font, color });
}

/** A bar of a stated length with ticks at its ends and its words above; x and y of its left end on the page, mm. */
export function drawCheckBar(page: PDFPage, font: PDFFont, lengthMm: number, words: string, xMm: number, yMm: number): void {
  const line = (x0: number, y0: number, x1: number, y1: number): void =>
    page.drawLine({
      start: { x: x0 * pointsPerMm, y: y0 * pointsPerMm },
      end: { x: x1 * pointsPerMm, y: y1 * pointsPerMm },
      thickness: 0.15 * pointsPerMm,
      color: ink,
    });
  line(xMm, yMm, xMm + lengthMm, yMm);
  for (const x of [xMm, xMm + lengthMm]) line(x, yMm - 1.5, x, yMm + 1.5);
  write(page, font, words, xMm + 2, yMm + 0.8, 7);
}

/** The 100 mm and the 4 inch bar, one above the other. */
export function drawCheckBars(page: PDFPage, font: PDFFont, xMm: number, yMm: number): void {
  drawCheckBar(page, font, 101.6, '4 in', xMm, yMm);
  drawCheckBar(page, font, 100, english.files.checkBar, xMm, yMm + 5);
}
