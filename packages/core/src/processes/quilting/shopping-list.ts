/** In: a quilt's plan. Out: a page with the fabrics that it takes, and how its patches are cut. */
import {
  fillAndStroke,
  PDFDocument,
  type PDFFont,
  type PDFPage,
  popGraphicsState,
  pushGraphicsState,
  rgb,
  StandardFonts,
  setFillingRgbColor,
  setLineWidth,
  setStrokingRgbColor,
} from 'pdf-lib';
import { steadyDates } from '../../formats/pdf.ts';
import { pathOperators, pointsPerMm, quietInk, write } from '../../formats/pdf-drawing.ts';
import { printInches, printMm } from '../../length/index.ts';
import { papers } from '../../make/tiles.ts';
import { english } from '../../messages/index.ts';
import { type CuttingRow, cutText, lengthToBuy, type QuiltingSettings, type QuiltPlan, quiltAreas } from '../../quilting/index.ts';
import type { ProcessFileMade, Work } from '../process.ts';

const edge = 14;
const columns = [0, 36, 82, 116, 134, 150];
const rowMm = 5.6;

export async function madeShoppingList({ title, settings }: Work<QuiltingSettings>, plan: QuiltPlan): Promise<ProcessFileMade> {
  const [width, height] = papers[settings.paper] ?? (papers.A4 as readonly [number, number]);
  const pdf = await PDFDocument.create();
  pdf.setTitle(english.quilting.shopping(title));
  steadyDates(pdf);
  const [font, bold] = [await pdf.embedFont(StandardFonts.Helvetica), await pdf.embedFont(StandardFonts.HelveticaBold)];
  const addPage = (): PDFPage => pdf.addPage([width * pointsPerMm, height * pointsPerMm]);
  let page = addPage();
  const { block, quilt, cutting } = plan;
  write(page, bold, english.quilting.shopping(title), edge, height - 20, 16);
  write(page, font, english.quilting.finishedSize(inBoth(block.widthMm), inBoth(block.heightMm)), edge, height - 28, 9.5, quietInk);
  write(page, font, english.quilting.quiltSize(inBoth(quilt.widthMm), inBoth(quilt.heightMm), quilt.blocks.length), edge, height - 33, 9.5, quietInk); // biome-ignore format: one line
  drawQuilt(page, plan, settings, { x: width - edge - 62, y: height - 108, width: 62, height: 68 });
  let y = height - 46;
  const line = (face: PDFFont, words: readonly string[], places: readonly number[] = columns): void => {
    if (y < 20) {
      page = addPage();
      y = height - 20;
    }
    words.forEach((word, k) => void write(page, face, word, edge + (places[k] as number), y, 9));
    y -= rowMm;
  };
  for (const { fabric, lengthMm } of cutting.needs) line(font, [settings.fabrics[fabric]?.name ?? '', lengthToBuy(lengthMm)], [8, 52]);
  line(font, [english.quilting.backing(cutting.backing.panels), lengthToBuy(cutting.backing.lengthMm)], [8, 52]);
  line(font, [english.quilting.batting(inBoth(cutting.batting.widthMm), inBoth(cutting.batting.heightMm))], [8]);
  drawSwatches(page, settings, cutting.needs.map(({ fabric }) => fabric), height - 46); // biome-ignore format: one line
  y = Math.min(y - 4, height - 116);
  const { what, figure, cutIn, pieces, strips, fabric } = english.quilting;
  line(bold, [what, figure, cutIn, pieces, strips, fabric]);
  for (const row of cutting.rows) line(font, rowWords(row, settings));
  return { bytes: await pdf.save(), largestMm: null, toleranceMm: null, widthMm: width, heightMm: height };
}

const inBoth = (mm: number): string => `${printInches(mm)} (${printMm(mm, 0)})`;
const rowWords = (row: CuttingRow, { fabrics }: QuiltingSettings): string[] => [
  row.what,
  row.figure,
  `${cutText(row)}${row.stripMm === null ? '' : ' in'}`,
  row.reversed > 0 ? `${row.count} (${row.reversed} r)` : String(row.count),
  String(row.strips),
  fabrics[row.fabric]?.name ?? '',
];

const shares = (hex: string) => rgb(...([1, 3, 5].map((k) => Number.parseInt(hex.slice(k, k + 2), 16) / 255) as [number, number, number]));

function drawSwatches(page: PDFPage, { fabrics }: QuiltingSettings, used: readonly number[], top: number): void {
  used.forEach((fabric, k) => {
    const { colour } = fabrics[fabric] ?? { colour: '#ffffff' };
    page.drawRectangle({
      x: edge * pointsPerMm,
      y: (top - k * rowMm - 0.8) * pointsPerMm,
      width: 5 * pointsPerMm,
      height: 3.8 * pointsPerMm,
      color: shares(colour),
      borderColor: quietInk,
      borderWidth: 0.4,
    });
  });
}

/** The quilt in its fabrics, as large as the place allows. */
function drawQuilt(
  page: PDFPage,
  plan: QuiltPlan,
  settings: QuiltingSettings,
  place: { x: number; y: number; width: number; height: number },
): void {
  const scale = Math.min(place.width / plan.quilt.widthMm, place.height / plan.quilt.heightMm);
  const top = place.y + place.height - plan.quilt.heightMm * scale;
  for (const { outline, fabric } of quiltAreas(plan, settings)) {
    const words = pathOperators(outline, ({ x, y }) => [(place.x + x * scale) * pointsPerMm, (top + y * scale) * pointsPerMm]);
    const { colour } = settings.fabrics[fabric] ?? { colour: '#ffffff' };
    fillWith(page, words, colour);
  }
}

function fillWith(page: PDFPage, words: ReturnType<typeof pathOperators>, colour: string): void {
  const [r, g, b] = [1, 3, 5].map((k) => Number.parseInt(colour.slice(k, k + 2), 16) / 255) as [number, number, number];
  page.pushOperators(
    pushGraphicsState(),
    setFillingRgbColor(r, g, b),
    setStrokingRgbColor(0.33, 0.39, 0.43),
    setLineWidth(0.3),
    ...words,
    fillAndStroke(),
    popGraphicsState(),
  );
}
