/** In: a body's plan. Out: the sheet to build it by: the side view with every slice's place, a table, and every former small, with its number. */
import { PDFDocument, type PDFFont, type PDFPage, popGraphicsState, pushGraphicsState, StandardFonts, setLineWidth, stroke } from 'pdf-lib';
import type { FoamPlan, Slice } from '../../foam/index.ts';
import { steadyDates } from '../../formats/pdf.ts';
import { pathOperators, pointsPerMm, quietInk, write } from '../../formats/pdf-drawing.ts';
import { printMm } from '../../length/index.ts';
import { english } from '../../messages/index.ts';
import { chain, heightOf, type Path, type Point, pathBox, shift, stretch, transformedPath, widthOf } from '../../plane/index.ts';
import type { ProcessFileMade, Work } from '../process.ts';

const [width, height, edge] = [210, 297, 14];
const rowsOnFirst = 30;
const rowsOnPage = 44;
const rowMm = 5.4;
const columns = [edge, 34, 62, 92, 122, 152, 178];
const gridColumns = 4;
const gridRows = 6;

export async function madeBuildSheet({ title }: Pick<Work<object>, 'title'>, plan: FoamPlan): Promise<ProcessFileMade> {
  const pdf = await PDFDocument.create();
  pdf.setTitle(english.foam.buildSheet(title));
  steadyDates(pdf);
  const [font, bold] = [await pdf.embedFont(StandardFonts.Helvetica), await pdf.embedFont(StandardFonts.HelveticaBold)];
  const page = (): PDFPage => pdf.addPage([width * pointsPerMm, height * pointsPerMm]);
  const first = page();
  write(first, bold, english.foam.buildSheet(title), edge, height - 20, 18);
  const { lengthMm, widthMm, heightMm, massG, middleMm, slices } = plan;
  write(first, font, english.foam.buildSizes(mm(lengthMm), mm(widthMm), mm(heightMm)), edge, height - 28, 10, quietInk);
  write(first, font, english.foam.buildMass(slices.length, massG.toFixed(0), mm(middleMm)), edge, height - 34, 10, quietInk);
  drawSide(first, font, plan);
  let rest = table(first, bold, font, height - 112, slices.slice(0, rowsOnFirst), plan);
  for (let from = rowsOnFirst; from < slices.length; from += rowsOnPage) rest = table(page(), bold, font, height - 20, slices.slice(from, from + rowsOnPage), plan); // biome-ignore format: one line
  const each = gridColumns * gridRows;
  for (let from = 0; from < slices.length; from += each) drawGrid(page(), bold, slices.slice(from, from + each), plan);
  write(first, font, english.files.sheetNotAtSize, edge, Math.min(10, rest), 7.5, quietInk);
  return { bytes: await pdf.save(), largestMm: null, toleranceMm: null, widthMm: width, heightMm: height };
}

const mm = (length: number): string => printMm(length, 1);

function strokePath(page: PDFPage, path: Path, to: Parameters<typeof transformedPath>[1], widthPt: number): void {
  const placed = transformedPath(path, to);
  page.pushOperators(pushGraphicsState(), setLineWidth(widthPt), ...pathOperators(placed, ({ x, y }: Point) => [x * pointsPerMm, y * pointsPerMm]), stroke(), popGraphicsState()); // biome-ignore format: one line
}

/** The side view as wide as the page, an upright line where slices meet, the numbers below. */
function drawSide(page: PDFPage, font: PDFFont, { side, slices, lengthMm, nose }: FoamPlan): void {
  const box = pathBox(side);
  const scale = Math.min((width - 2 * edge) / widthOf(box), 56 / heightOf(box));
  const low = height - 102;
  const to = chain(shift(edge - box.minX * scale, low - box.minY * scale), stretch(scale));
  strokePath(page, side, to, 0.9);
  const xAt = (station: number): number => (nose === 'left' ? box.minX + station : box.maxX - station);
  const tall = heightOf(box) + 6 / scale;
  for (const station of [...slices.map(({ from }) => from), slices.at(-1)?.to ?? lengthMm]) {
    const x = xAt(station);
    strokePath(page, { start: { x, y: box.minY - 3 / scale }, segments: [{ kind: 'line', to: { x, y: box.minY - 3 / scale + tall } }], closed: false }, to, 0.35); // biome-ignore format: one line
  }
  // As many numbers as there is room for.
  const every = Math.max(1, Math.ceil((4 * slices.length) / (widthOf(box) * scale)));
  for (const { number, from, to: end } of slices) {
    if ((number - 1) % every !== 0) continue;
    write(page, font, String(number), edge + (xAt((from + end) / 2) - box.minX) * scale - 1, low - 7, 7);
  }
}

function table(page: PDFPage, bold: PDFFont, font: PDFFont, top: number, slices: readonly Slice[], { lengthMm }: FoamPlan): number {
  const heads = [english.foam.number, english.foam.board, english.foam.fromNose, english.foam.toNose, english.foam.wide, english.foam.high, english.foam.toSand]; // biome-ignore format: one line
  heads.forEach((head, k) => void write(page, bold, head, columns[k] as number, top, 8.5));
  slices.forEach(({ number, thicknessMm, from, to, outline, stepMm }, r) => {
    const box = pathBox(outline);
    const row = [
      String(number),
      ...[thicknessMm, from, Math.min(to, lengthMm), widthOf(box), heightOf(box), stepMm].map((v) => v.toFixed(1)),
    ];
    row.forEach((word, k) => void write(page, font, word, columns[k] as number, top - rowMm * (r + 1), 8.5));
  });
  return top - rowMm * (slices.length + 1);
}

function drawGrid(page: PDFPage, bold: PDFFont, slices: readonly Slice[], { widthMm, heightMm }: FoamPlan): void {
  const [wide, high] = [(width - 2 * edge) / gridColumns, (height - 2 * edge) / gridRows];
  const scale = Math.min((0.84 * wide) / widthMm, (0.72 * high) / heightMm);
  slices.forEach(({ number, outline, holes }, k) => {
    const [column, row] = [k % gridColumns, Math.floor(k / gridColumns)];
    const [x, y] = [edge + (column + 0.5) * wide, height - edge - (row + 0.9) * high];
    // As high over the foot of its field as it lies over the body's lowest place.
    const to = chain(shift(x, y), stretch(scale));
    for (const path of [outline, ...holes]) strokePath(page, path, to, 0.6);
    write(page, bold, String(number), x - 2, y + heightMm * scale + 2, 9);
  });
}
