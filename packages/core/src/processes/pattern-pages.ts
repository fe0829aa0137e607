/**
 * In: patterns of paths, each at its true size. Out: a PDF with as many on a page as fit; what no page can hold goes over several, with
 * marks that meet. Read back from its bytes before it is handed over.
 */
import {
  clip,
  closePath,
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
  setDashPattern,
  setLineWidth,
  stroke,
} from 'pdf-lib';
import { checked } from '../files/made-file.ts';
import { fileDeviation } from '../formats/deviation.ts';
import { steadyDates } from '../formats/pdf.ts';
import { drawCheckBars, type OntoPage, pathOperators, pointsPerMm, printable, quietInk, write } from '../formats/pdf-drawing.ts';
import { readPdfPaths } from '../formats/pdf-reading.ts';
import { papers } from '../make/tiles.ts';
import { english } from '../messages/index.ts';
import { type Box, boxAroundBoxes, type Path, type Point, pathBox, shift, transformedPath } from '../plane/index.ts';
import type { ProcessFileMade } from './process.ts';

/** How a line on a page looks, and what it is called where the page is read back. */
export const patternLines = {
  cutting: { widthMm: 0.3, dashMm: [] },
  sewing: { widthMm: 0.25, dashMm: [2.5, 1.5] },
  mark: { widthMm: 0.2, dashMm: [] },
} as const;
export type PatternLine = keyof typeof patternLines;

export interface PatternText {
  readonly at: Point;
  readonly text: string;
  /** In points. */
  readonly size: number;
  readonly isBold?: boolean;
}

export interface Pattern {
  readonly name: string;
  readonly lines: readonly { readonly kind: PatternLine; readonly path: Path }[];
  /** Each begins at its place, or lies about it. */
  readonly texts: readonly PatternText[];
}

const marginMm = 8;
/** Room at the foot of a page for its bars. */
const footMm = 18;
const apartMm = 5;
/** Neighbouring pages of one large pattern share a strip so wide. */
const overlapMm = 15;
/** Files may be off by so much, mm. */
const toleranceMm = 0.01;

interface Placed {
  readonly pattern: Pattern;
  /** From the pattern to the page's lower left corner, mm. */
  readonly x: number;
  readonly y: number;
}

interface PatternPage {
  readonly placed: readonly Placed[];
  /** Of a pattern that goes over several pages, which part this is. */
  readonly part: string | null;
}

export async function patternsPdf(title: string, patterns: readonly Pattern[], paper: string, note: string): Promise<ProcessFileMade> {
  const [width, height] = papers[paper] ?? (papers.A4 as readonly [number, number]);
  const pages = pagesOf(patterns, width, height);
  const pdf = await PDFDocument.create();
  pdf.setTitle(title);
  steadyDates(pdf);
  const [font, bold] = [await pdf.embedFont(StandardFonts.Helvetica), await pdf.embedFont(StandardFonts.HelveticaBold)];
  pages.forEach(({ placed, part }, k) => {
    const page = pdf.addPage([width * pointsPerMm, height * pointsPerMm]);
    if (part) clipAbove(page, width, height);
    for (const one of placed) drawPattern(page, font, bold, one);
    if (part) page.pushOperators(popGraphicsState());
    drawCheckBars(page, font, marginMm + 2, marginMm);
    const about = [title, part, english.files.pageOf(k + 1, pages.length)].filter((word) => word !== null).join(', ');
    write(page, font, fitted(about, font, 8, width - 2 * marginMm - 108), marginMm + 108, marginMm + 5, 8, quietInk);
    write(page, font, note, marginMm + 108, marginMm + 1, 7, quietInk);
  });
  const bytes = await pdf.save();
  const largestMm = await farthestOff(bytes, pages);
  checked('PDF', { bytes, largestMm, toleranceMm, widthMm: width, heightMm: height });
  return { bytes, largestMm, toleranceMm, widthMm: width, heightMm: height, pages: pages.length };
}

/** A text cut short where there is no room for it, mm. */
function fitted(text: string, font: PDFFont, size: number, roomMm: number): string {
  let shown = text;
  while (shown.length > 4 && font.widthOfTextAtSize(printable(shown), size) > roomMm * pointsPerMm) shown = `${shown.slice(0, -2)}…`;
  return shown;
}

const boxOf = ({ lines }: Pattern): Box => boxAroundBoxes(lines.map(({ path }) => pathBox(path))) ?? { minX: 0, minY: 0, maxX: 0, maxY: 0 };

/** In rows, the highest first; what is larger than a page gets pages of its own. */
function pagesOf(patterns: readonly Pattern[], width: number, height: number): PatternPage[] {
  const room = { width: width - 2 * marginMm, height: height - 2 * marginMm - footMm };
  const sized = patterns.map((pattern) => ({ pattern, box: boxOf(pattern) }));
  const fits = ({ box }: (typeof sized)[0]): boolean => box.maxX - box.minX <= room.width && box.maxY - box.minY <= room.height;
  const pages: { placed: Placed[]; rows: { y: number; x: number; high: number }[] }[] = [];
  const highFirst = sized.filter(fits).sort((a, b) => b.box.maxY - b.box.minY - (a.box.maxY - a.box.minY));
  for (const { pattern, box } of highFirst) {
    const [w, h] = [box.maxX - box.minX, box.maxY - box.minY];
    const put = (page: (typeof pages)[0], x: number, top: number): void => {
      page.placed.push({ pattern, x: marginMm + x - box.minX, y: height - marginMm - top - h - box.minY });
    };
    const isPut = pages.some((page) => {
      const row = page.rows.find((one) => one.x + w <= room.width && h <= one.high);
      if (row) {
        put(page, row.x, row.y);
        row.x += w + apartMm;
        return true;
      }
      const top = page.rows.reduce((max, one) => Math.max(max, one.y + one.high + apartMm), 0);
      if (top + h > room.height) return false;
      page.rows.push({ y: top, x: w + apartMm, high: h });
      put(page, 0, top);
      return true;
    });
    if (isPut) continue;
    const page = { placed: [], rows: [{ y: 0, x: w + apartMm, high: h }] };
    pages.push(page);
    put(page, 0, 0);
  }
  const large = sized.filter((one) => !fits(one)).flatMap(({ pattern, box }) => partsOf(pattern, box, room));
  return [...pages.map(({ placed }) => ({ placed, part: null })), ...large];
}

/** A large pattern page by page, from its upper left, each with a strip of the next. */
function partsOf(pattern: Pattern, box: Box, room: { readonly width: number; readonly height: number }): PatternPage[] {
  const [stepX, stepY] = [room.width - overlapMm, room.height - overlapMm];
  const columns = Math.max(1, Math.ceil((box.maxX - box.minX - overlapMm) / stepX));
  const rows = Math.max(1, Math.ceil((box.maxY - box.minY - overlapMm) / stepY));
  return Array.from({ length: rows * columns }, (_, k): PatternPage => {
    const [row, column] = [Math.floor(k / columns), k % columns];
    const [left, top] = [box.minX + column * stepX, box.maxY - row * stepY];
    const joins = joinsIn(box, stepX, stepY, rows, columns);
    const marked: Pattern = { ...pattern, lines: [...pattern.lines, ...joins.map((path) => ({ kind: 'mark' as const, path }))] };
    return {
      placed: [{ pattern: marked, x: marginMm - left, y: marginMm + footMm + room.height - top }],
      part: english.files.partOf(pattern.name, row + 1, column + 1, rows, columns),
    };
  });
}

/** Crosses in the strips that two pages share. */
function joinsIn(box: Box, stepX: number, stepY: number, rows: number, columns: number): Path[] {
  const crosses: Path[] = [];
  const cross = (x: number, y: number): void => {
    for (const [dx, dy] of [[3, 0], [0, 3]] as const) crosses.push({ start: { x: x - dx, y: y - dy }, segments: [{ kind: 'line', to: { x: x + dx, y: y + dy } }], closed: false }); // biome-ignore format: one line
  };
  for (let column = 1; column < columns; column++)
    for (let row = 0; row < rows; row++)
      for (const share of [0.25, 0.75]) cross(box.minX + column * stepX + overlapMm / 2, box.maxY - row * stepY - share * stepY);
  for (let row = 1; row < rows; row++)
    for (let column = 0; column < columns; column++)
      for (const share of [0.25, 0.75]) cross(box.minX + column * stepX + share * stepX, box.maxY - row * stepY - overlapMm / 2);
  return crosses;
}

/** Nothing of a large pattern is drawn over the margins or the foot. */
function clipAbove(page: PDFPage, width: number, height: number): void {
  const [l, b, r, t] = [marginMm, marginMm + footMm, width - marginMm, height - marginMm].map((v) => v * pointsPerMm) as [number, number, number, number]; // biome-ignore format: one line
  page.pushOperators(pushGraphicsState(), moveTo(l, b), lineTo(r, b), lineTo(r, t), lineTo(l, t), closePath(), clip(), endPath());
}

function drawPattern(page: PDFPage, font: PDFFont, bold: PDFFont, { pattern, x, y }: Placed): void {
  const at: OntoPage = (p) => [(p.x + x) * pointsPerMm, (p.y + y) * pointsPerMm];
  for (const kind of Object.keys(patternLines) as PatternLine[]) {
    const own = pattern.lines.filter((line) => line.kind === kind);
    if (own.length === 0) continue;
    const { widthMm, dashMm } = patternLines[kind];
    page.pushOperators(
      pushGraphicsState(),
      PDFOperator.of(Ops.BeginMarkedContent, [PDFName.of(kind)]),
      setLineWidth(widthMm * pointsPerMm),
      setDashPattern(dashMm.map((d) => d * pointsPerMm), 0),
      ...own.flatMap(({ path }) => [...pathOperators(path, at), stroke()]),
      PDFOperator.of(Ops.EndMarkedContent),
      popGraphicsState(),
    ); // biome-ignore format: operators in turn
  }
  for (const { at: place, text, size, isBold } of pattern.texts) {
    const face = isBold ? bold : font;
    const half = face.widthOfTextAtSize(text, size) / pointsPerMm / 2;
    write(page, face, text, place.x + x - half, place.y + y, size);
  }
}

/** Each page's lines as the file has them against the lines as they should be there. */
async function farthestOff(bytes: Uint8Array, pages: readonly PatternPage[]): Promise<number> {
  const read = await readPdfPaths(bytes);
  let worst = 0;
  pages.forEach(({ placed }, k) => {
    for (const kind of ['cutting', 'sewing'] as const) {
      const wanted = placed.flatMap(({ pattern, x, y }) => pattern.lines.filter((line) => line.kind === kind).map(({ path }) => transformedPath(path, shift(x, y)))); // biome-ignore format: one line
      const found = (read[k]?.paths ?? []).filter(({ mark }) => mark === kind).map(({ path }) => path);
      if (wanted.length > 0 || found.length > 0) worst = Math.max(worst, fileDeviation(wanted, found).largestMm);
    }
  });
  return worst;
}
