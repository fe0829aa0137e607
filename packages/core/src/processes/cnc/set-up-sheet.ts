/**
 * In: a plan of milling. Out: one page to lie beside the machine: the stock and its zero, clamps, tools with their feeds, the operations
 * in their order with times, and how the work looks from above.
 */
import { PDFDocument, type PDFFont, type PDFPage, rgb, StandardFonts } from 'pdf-lib';
import { steadyDates } from '../../formats/pdf.ts';
import { drawPdfPieces, pointsPerMm, quietInk, write } from '../../formats/pdf-drawing.ts';
import { originOn } from '../../make/placement.ts';
import { english } from '../../messages/index.ts';
import { chipLoadOf, type MillingSettings, type MillPlan, operationWords, programsOf } from '../../milling/index.ts';
import type { Point } from '../../plane/index.ts';
import type { ProcessFileMade, Work } from '../process.ts';

const [width, height, edge] = [210, 297, 14];
const mostRows = 16;

export async function madeSetUpSheet(work: Work<MillingSettings>, plan: MillPlan): Promise<ProcessFileMade> {
  const pdf = await PDFDocument.create();
  pdf.setTitle(english.milling.setUp(work.title));
  steadyDates(pdf);
  const [font, bold] = [await pdf.embedFont(StandardFonts.Helvetica), await pdf.embedFont(StandardFonts.HelveticaBold)];
  const page = pdf.addPage([width * pointsPerMm, height * pointsPerMm]);
  write(page, bold, english.milling.setUp(work.title), edge, height - 20, 18);
  const { minX, minY, maxX, maxY } = plan.stock;
  const lines = [
    english.milling.setUpStock(work.stock.name ?? '', (maxX - minX).toFixed(1), (maxY - minY).toFixed(1), (-plan.bottomZ).toFixed(2)),
    english.milling.setUpZero(work.machine.origin.replace('-', ' '), work.settings.zeroZ),
    english.milling.setUpHeights(plan.heights.safeZ.toFixed(1), work.settings.spoilMm.toFixed(2)),
  ];
  lines.forEach((line, k) => void write(page, font, line, edge, height - 28 - 6 * k, 10, quietInk));
  drawStock(page, font, work, plan);
  let y = table(page, bold, font, height - 158, [english.milling.tool, english.milling.diameter, english.milling.stickOut, english.milling.speed, english.milling.feed, english.milling.chipLoad], toolRows(work.settings, plan)); // biome-ignore format: one line
  y = table(page, bold, font, y - 8, ['', english.milling.operation, english.milling.tool, english.milling.cuts, english.milling.time, ''], operationRows(plan)); // biome-ignore format: one line
  write(page, bold, english.milling.inAll(minutes(plan.seconds)), edge, y - 8, 10);
  write(page, font, english.files.sheetNotAtSize, edge, 10, 7.5, quietInk);
  return { bytes: await pdf.save(), largestMm: null, toleranceMm: null, widthMm: width, heightMm: height };
}

const minutes = (seconds: number): string => `${Math.floor(seconds / 60)}:${String(Math.round(seconds % 60)).padStart(2, '0')}`;

/** The stock from above, as large as the place allows, with pieces, clamps and the place of zero. */
function drawStock(page: PDFPage, font: PDFFont, { machine, settings }: Work<MillingSettings>, plan: MillPlan): void {
  const { minX, minY, maxX, maxY } = plan.stock;
  const place = { x: edge, y: height - 150, width: width - 2 * edge, height: 98 };
  const scale = Math.min(place.width / (maxX - minX), place.height / (maxY - minY));
  const at = ({ x, y }: Point) => [(place.x + (x - minX) * scale) * pointsPerMm, (place.y + (y - minY) * scale) * pointsPerMm] as const;
  const rectangle = (x: number, y: number, w: number, h: number, isClamp: boolean): void => {
    const [px, py] = at({ x, y });
    page.drawRectangle({
      x: px,
      y: py,
      width: w * scale * pointsPerMm,
      height: h * scale * pointsPerMm,
      borderWidth: 0.8,
      borderColor: rgb(0.13, 0.19, 0.23),
      ...(isClamp && { color: rgb(0.85, 0.8, 0.72) }),
    });
  };
  rectangle(minX, minY, maxX - minX, maxY - minY, false);
  for (const { x, y, widthMm, heightMm } of settings.clamps) rectangle(x, y, widthMm, heightMm, true);
  drawPdfPieces(page, plan.parts, at);
  const pockets = plan.allowed.flatMap((one) => (one.kind === 'area' ? [{ name: one.name, purpose: 'pocket' as const, ...one.area }] : []));
  drawPdfPieces(page, pockets, at);
  const [zx, zy] = at(originOn(plan.stock, machine));
  page.drawCircle({ x: zx, y: zy, size: 4, borderWidth: 1.2, borderColor: rgb(0.69, 0.27, 0.18) });
  page.drawText('0', { x: zx + 6, y: zy + 3, size: 9, font, color: rgb(0.69, 0.27, 0.18) });
}

const columns = [edge, 24, 84, 128, 156, 180];

function table(
  page: PDFPage,
  bold: PDFFont,
  font: PDFFont,
  top: number,
  heads: readonly string[],
  rows: readonly (readonly string[])[],
): number {
  const places = heads[0] === '' ? columns : [edge, 74, 100, 128, 154, 178];
  heads.forEach((head, k) => void write(page, bold, head, places[k] as number, top, 8.5));
  rows.slice(0, mostRows).forEach((row, r) => {
    row.forEach((word, k) => void write(page, font, word.slice(0, 38), places[k] as number, top - 6 * (r + 1), 8.5));
  });
  return top - 6 * (Math.min(rows.length, mostRows) + 1);
}

function toolRows({ tools }: MillingSettings, plan: MillPlan): string[][] {
  const used = [...new Set(plan.runs.map(({ tool }) => tool))];
  return used.map((tool) => {
    const lowest = plan.runs.filter((run) => run.tool === tool).flatMap(({ moves }) => moves).reduce((z, { to }) => Math.min(z, to.z), 0); // biome-ignore format: one line
    const number = tools.findIndex(({ id }) => id === tool.id) + 1;
    return [
      `T${number}  ${tool.name}`,
      `${tool.diameterMm} mm`,
      `${(-lowest + 3).toFixed(0)} mm`,
      `${tool.speedRpm}/min`,
      `${tool.feedMmPerMin} mm/min`,
      `${chipLoadOf(tool).toFixed(3)} mm`,
    ];
  });
}

const operationRows = (plan: MillPlan): string[][] =>
  programsOf(plan).flatMap(({ tool, runs }, k) =>
    [...new Set(runs.map(({ operation }) => operation))].map((operation) => {
      const own = runs.filter((run) => run.operation === operation);
      const sum = (of: (run: (typeof own)[0]) => number): number => own.reduce((all, run) => all + of(run), 0);
      return [`${k + 1}`, operationWords[operation.kind], tool.name, `${(sum(({ lengthMm }) => lengthMm) / 1000).toFixed(2)} m`, minutes(sum(({ seconds }) => seconds)), '']; // biome-ignore format: one line
    }),
  );
