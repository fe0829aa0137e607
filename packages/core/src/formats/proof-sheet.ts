/**
 * In: a job's pieces and what was found of them. Out: one page for the customer or the workshop wall: the pieces with their
 * overall sizes, a list of them, the findings, and the picture beside.
 */
import { degrees, PDFDocument, type PDFFont, type PDFPage, rgb, StandardFonts } from 'pdf-lib';
import { english } from '../messages/index.ts';
import { boxAroundBoxes, heightOf, widthOf } from '../plane/box.ts';
import { pathBox } from '../plane/path.ts';
import { steadyDates } from './pdf.ts';
import { drawPdfPieces, ink, pointsPerMm, quietInk, write } from './pdf-drawing.ts';
import type { FilePiece } from './placement.ts';
import type { ProofRow } from './proof-rows.ts';

export interface ProofFacts {
  readonly job: string;
  readonly revision: number;
  readonly date: string;
  readonly material: string;
  readonly rows: readonly ProofRow[];
  readonly findings: readonly string[];
  readonly sizes: readonly { readonly name: string; readonly text: string; readonly holds: boolean }[];
  readonly picture: { readonly png: Uint8Array } | null;
}

const [width, height, edge] = [210, 297, 14];
const columns = [edge, 74, 88, 122, 148, 172];
const heads = [
  english.files.piece,
  english.files.count,
  english.files.sizeMm,
  english.files.outlineMm,
  english.files.areaCm,
  english.files.purpose,
];
/** The list and the findings stop where they would run into one another. */
const [maxRows, maxFindings] = [16, 8];

export async function writeProofSheet(pieces: readonly FilePiece[], facts: ProofFacts): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  pdf.setTitle(english.files.proof(facts.job));
  steadyDates(pdf);
  const [font, bold] = [await pdf.embedFont(StandardFonts.Helvetica), await pdf.embedFont(StandardFonts.HelveticaBold)];
  const page = pdf.addPage([width * pointsPerMm, height * pointsPerMm]);
  write(page, bold, facts.job, edge, height - 20, 18);
  write(page, font, english.files.proofRevision(facts.revision, facts.date), edge, height - 27, 10, quietInk);
  write(page, font, facts.material, edge, height - 33, 10, quietInk);
  const half = facts.picture ? (width - 2 * edge - 6) / 2 : width - 2 * edge;
  drawWork(page, font, pieces, { x: edge, y: height - 140, width: half, height: 98 });
  if (facts.picture) {
    const picture = await pdf.embedPng(facts.picture.png);
    const box = { x: edge + half + 6, y: height - 140, width: half, height: 98 };
    const scale = Math.min(box.width / picture.width, box.height / picture.height);
    const [w, h] = [picture.width * scale, picture.height * scale];
    page.drawImage(picture, {
      x: (box.x + (box.width - w) / 2) * pointsPerMm,
      y: (box.y + (box.height - h) / 2) * pointsPerMm,
      width: w * pointsPerMm,
      height: h * pointsPerMm,
    });
  }
  let y = drawList(page, font, bold, facts.rows, height - 152);
  y = drawSizes(page, font, bold, facts.sizes, y - 6);
  drawFindings(page, font, bold, facts.findings, y - 6);
  write(page, font, english.files.sheetNotAtSize, edge, 10, 7.5, quietInk);
  return pdf.save();
}

/** The pieces, as large as the place allows, with the overall width and height beside them. */
function drawWork(
  page: PDFPage,
  font: PDFFont,
  pieces: readonly FilePiece[],
  place: { x: number; y: number; width: number; height: number },
): void {
  const box = boxAroundBoxes(pieces.map((p) => pathBox(p.outer)));
  if (!box) return;
  const room = 10;
  const scale = Math.min((place.width - room) / Math.max(widthOf(box), 1e-6), (place.height - room) / Math.max(heightOf(box), 1e-6));
  const [left, low] = [place.x + room, place.y + room + (place.height - room - heightOf(box) * scale) / 2];
  const at = ({ x, y }: { x: number; y: number }) =>
    [(left + (x - box.minX) * scale) * pointsPerMm, (low + (y - box.minY) * scale) * pointsPerMm] as const;
  drawPdfPieces(page, pieces, at);
  const [right, top] = [left + widthOf(box) * scale, low + heightOf(box) * scale];
  const line = (x0: number, y0: number, x1: number, y1: number): void =>
    page.drawLine({
      start: { x: x0 * pointsPerMm, y: y0 * pointsPerMm },
      end: { x: x1 * pointsPerMm, y: y1 * pointsPerMm },
      thickness: 0.5,
      color: ink,
    });
  line(left, low - 3, right, low - 3);
  for (const x of [left, right]) line(x, low - 4.2, x, low - 1.8);
  line(left - 3, low, left - 3, top);
  for (const y of [low, top]) line(left - 4.2, y, left - 1.8, y);
  write(page, font, `${widthOf(box).toFixed(2)}`, (left + right) / 2 - 5, low - 7.5, 8);
  page.drawText(heightOf(box).toFixed(2), {
    x: (left - 4.5) * pointsPerMm,
    y: ((low + top) / 2 - 5) * pointsPerMm,
    size: 8,
    font,
    color: ink,
    rotate: degrees(90),
  });
}

function drawList(page: PDFPage, font: PDFFont, bold: PDFFont, rows: readonly ProofRow[], top: number): number {
  heads.forEach((head, k) => {
    write(page, bold, head, columns[k] as number, top, 8.5);
  });
  page.drawLine({
    start: { x: edge * pointsPerMm, y: (top - 1.6) * pointsPerMm },
    end: { x: (width - edge) * pointsPerMm, y: (top - 1.6) * pointsPerMm },
    thickness: 0.5,
    color: quietInk,
  });
  const shown = rows.length > maxRows ? rows.slice(0, maxRows - 1) : rows;
  shown.forEach((row, k) => {
    const words = [
      row.name.slice(0, 34),
      String(row.count),
      `${row.widthMm.toFixed(2)} x ${row.heightMm.toFixed(2)}`,
      row.perimeterMm.toFixed(1),
      (row.areaMm2 / 100).toFixed(2),
      row.purpose,
    ];
    words.forEach((word, c) => {
      write(page, font, word, columns[c] as number, top - 6 - 4.6 * k, 8.5);
    });
  });
  let y = top - 6 - 4.6 * shown.length;
  if (shown.length < rows.length) {
    write(page, font, english.files.andKindsMore(rows.length - shown.length), edge, y, 8.5, quietInk);
    y -= 4.6;
  }
  return y;
}

function drawSizes(page: PDFPage, font: PDFFont, bold: PDFFont, sizes: ProofFacts['sizes'], top: number): number {
  if (sizes.length === 0) return top;
  write(page, bold, english.files.requiredSizes, edge, top, 9.5);
  sizes.slice(0, maxFindings).forEach(({ name, text, holds }, k) => {
    write(
      page,
      font,
      `${holds ? 'holds' : english.files.isOff}   ${name}: ${text}`,
      edge,
      top - 5.4 - 4.6 * k,
      8.5,
      holds ? ink : rgb(0.69, 0.27, 0.18),
    );
  });
  return top - 5.4 - 4.6 * Math.min(sizes.length, maxFindings);
}

function drawFindings(page: PDFPage, font: PDFFont, bold: PDFFont, findings: readonly string[], top: number): void {
  write(page, bold, findings.length === 0 ? english.files.nothingToMend : english.files.toLookAt(findings.length), edge, top, 9.5);
  findings.slice(0, maxFindings).forEach((text, k) => {
    write(page, font, `- ${text}`.slice(0, 120), edge, top - 5.4 - 4.6 * k, 8.5);
  });
  if (findings.length > maxFindings)
    write(page, font, english.files.andMore(findings.length - maxFindings), edge, top - 5.4 - 4.6 * maxFindings, 8.5, quietInk);
}
