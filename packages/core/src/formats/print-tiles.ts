/**
 * In: pieces, and the pages that they are printed on. Out: a PDF to print at 100 %: a map of the pages first, then each page with
 * its name, what lies on it, marks that meet across sheets, and bars to measure.
 */
import {
  clip,
  closePath,
  concatTransformationMatrix,
  drawObject,
  endPath,
  lineTo,
  moveTo,
  PDFOperatorNames as Ops,
  PDFDocument,
  type PDFFont,
  PDFName,
  PDFOperator,
  type PDFPage,
  popGraphicsState,
  pushGraphicsState,
  StandardFonts,
  setLineWidth,
  stroke,
} from 'pdf-lib';
import { marksOf, type Page, type Tiling } from '../make/tiles.ts';
import { english } from '../messages/index.ts';
import { boxAroundBoxes } from '../plane/box.ts';
import { pathBox } from '../plane/path.ts';
import type { Transform } from '../plane/transform.ts';
import { steadyDates } from './pdf.ts';
import { drawCheckBars, drawPdfPieces, ink, pathOperators, pointsPerMm, quietInk, write } from './pdf-drawing.ts';
import type { FilePiece } from './placement.ts';

/** A picture to lie under the outlines: PNG, as pale as it shall be printed, and where its pixels lie on the sheet. */
export interface Underlay {
  readonly png: Uint8Array;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly toSheet: Transform;
}

const markMm = 4;
/** How far within its cell a page has its bars and its name, mm. */
const barInsetMm = 5;

export async function writeTiles(
  pieces: readonly FilePiece[],
  tiling: Tiling,
  title: string,
  underlay: Underlay | null,
): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  pdf.setTitle(title);
  steadyDates(pdf);
  const [font, bold] = [await pdf.embedFont(StandardFonts.Helvetica), await pdf.embedFont(StandardFonts.HelveticaBold)];
  const size: [number, number] = [tiling.paper.widthMm * pointsPerMm, tiling.paper.heightMm * pointsPerMm];
  const picture = underlay ? await pdf.embedPng(underlay.png) : null;
  drawMap(pdf.addPage(size), font, bold, pieces, tiling, title);
  for (const tile of tiling.pages) {
    const page = pdf.addPage(size);
    const { marginMm } = tiling;
    const at = ({ x, y }: { x: number; y: number }) =>
      [(x - tile.window.minX + marginMm) * pointsPerMm, (y - tile.window.minY + marginMm) * pointsPerMm] as const;
    clipTo(page, tiling);
    if (picture && underlay) {
      const name = page.node.newXObject('Picture', picture.ref);
      const { a, b, c, d, e, f } = underlay.toSheet;
      const [x, y] = at({ x: e + c * underlay.heightPx, y: f + d * underlay.heightPx });
      const [w, h] = [underlay.widthPx * pointsPerMm, underlay.heightPx * pointsPerMm];
      // The picture is a unit square with y up; its pixels count y down from the top.
      page.pushOperators(
        pushGraphicsState(),
        concatTransformationMatrix(a * w, b * w, -c * h, -d * h, x, y),
        drawObject(name),
        popGraphicsState(),
      );
    }
    drawPdfPieces(page, pieces, at);
    drawMarks(page, tile, at);
    page.pushOperators(popGraphicsState());
    // Within the page's own cell, beside its marks.
    const edge = marginMm + (tile.cell.minX - tile.window.minX) + barInsetMm;
    drawCheckBars(page, font, edge, edge);
    write(page, bold, tile.name, edge, tiling.paper.heightMm - edge - 4, 16);
    write(page, font, title, edge + 16, tiling.paper.heightMm - edge - 3, 8, quietInk);
  }
  return pdf.save();
}

/** Nothing is drawn past the margins: a page carries its own cell and half the overlap. */
function clipTo(page: PDFPage, { marginMm, paper }: Tiling): void {
  const [l, b, r, t] = [marginMm, marginMm, paper.widthMm - marginMm, paper.heightMm - marginMm].map((v) => v * pointsPerMm) as [
    number,
    number,
    number,
    number,
  ];
  page.pushOperators(pushGraphicsState(), moveTo(l, b), lineTo(r, b), lineTo(r, t), lineTo(l, t), closePath(), clip(), endPath());
}

/** A thin cross at each mark and a hairline along the cell's border, which two pages share. */
function drawMarks(page: PDFPage, tile: Page, at: (p: { x: number; y: number }) => readonly [number, number]): void {
  page.pushOperators(PDFOperator.of(Ops.BeginMarkedContent, [PDFName.of('marks')]));
  const line = (x0: number, y0: number, x1: number, y1: number, mm: number): void => {
    const [[ax, ay], [bx, by]] = [at({ x: x0, y: y0 }), at({ x: x1, y: y1 })];
    page.drawLine({ start: { x: ax, y: ay }, end: { x: bx, y: by }, thickness: mm * pointsPerMm, color: ink });
  };
  const { minX, minY, maxX, maxY } = tile.cell;
  for (const { x, y } of marksOf(tile)) {
    line(x - markMm, y, x + markMm, y, 0.12);
    line(x, y - markMm, x, y + markMm, 0.12);
  }
  for (const [x0, y0, x1, y1] of [
    [minX, minY, maxX, minY],
    [minX, maxY, maxX, maxY],
    [minX, minY, minX, maxY],
    [maxX, minY, maxX, maxY],
  ] as const)
    line(x0, y0, x1, y1, 0.04);
  page.pushOperators(PDFOperator.of(Ops.EndMarkedContent));
}

/** How the pages lie together, small, with what to look out for. */
function drawMap(page: PDFPage, font: PDFFont, bold: PDFFont, pieces: readonly FilePiece[], tiling: Tiling, title: string): void {
  const { paper, marginMm, pages, rows, columns, place, cellWidthMm, cellHeightMm } = tiling;
  const [left, top] = [Math.max(marginMm, 12), paper.heightMm - Math.max(marginMm, 12)];
  write(page, bold, title, left, top - 6, 16);
  write(page, font, english.files.pagesAfter(pages.length), left, top - 14, 9.5);
  write(page, font, english.files.measureBarFirst, left, top - 19, 9.5);
  write(page, font, english.files.howToTape, left, top - 24, 9.5);
  const room = { width: paper.widthMm - 2 * left, height: top - 32 - left - 18 };
  const scale = Math.min(room.width / (columns * cellWidthMm), room.height / (rows * cellHeightMm), 0.4);
  const [x0, y0] = [left, top - 32 - rows * cellHeightMm * scale];
  const at = ({ x, y }: { x: number; y: number }) =>
    [(x0 + (x - place.x) * scale) * pointsPerMm, (y0 + (y - place.y) * scale) * pointsPerMm] as const;
  for (const { cell, name } of pages) {
    const [x, y] = at({ x: cell.minX, y: cell.minY });
    page.drawRectangle({
      x,
      y,
      width: cellWidthMm * scale * pointsPerMm,
      height: cellHeightMm * scale * pointsPerMm,
      borderColor: quietInk,
      borderWidth: 0.6,
    });
    page.drawText(name, { x: x + 4, y: y + cellHeightMm * scale * pointsPerMm - 12, size: 9, font: bold, color: ink });
  }
  page.pushOperators(PDFOperator.of(Ops.BeginMarkedContent, [PDFName.of('map')]));
  // Small as they are, the outlines need thinner lines; which purpose they have is told on the pages.
  for (const path of pieces.flatMap((p) => [p.outer, ...p.holes])) drawThin(page, path, at);
  page.pushOperators(PDFOperator.of(Ops.EndMarkedContent));
  const box = boxAroundBoxes(pieces.map((p) => pathBox(p.outer)));
  if (box)
    write(page, font, english.files.workSize((box.maxX - box.minX).toFixed(1), (box.maxY - box.minY).toFixed(1)), left, top - 29, 9.5);
  drawCheckBars(page, font, left, Math.max(marginMm, 8) + 2);
}

function drawThin(page: PDFPage, path: FilePiece['outer'], at: Parameters<typeof drawPdfPieces>[2]): void {
  page.pushOperators(pushGraphicsState(), setLineWidth(0.5), ...pathOperators(path, at), stroke(), popGraphicsState());
}
