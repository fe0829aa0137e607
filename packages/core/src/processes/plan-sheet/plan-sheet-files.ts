/** In: a plan sheet. Out: its files, each read back: every line of the view from the front has to be there, and every dimension. */
import { strToU8 } from 'fflate';
import { type PlanSheetSettings, type SheetPlan, sheetScales } from '../../drafting/index.ts';
import { FileRefused } from '../../files/file-kinds.ts';
import { readDxf } from '../../formats/dxf-reading.ts';
import { readPdfPaths } from '../../formats/pdf-reading.ts';
import { writePlanSheetDxf, writePlanSheetPdf, writePlanSheetSvg } from '../../formats/plan-sheet-files.ts';
import { readSvg } from '../../formats/svg-reading.ts';
import { say } from '../../messages/index.ts';
import { type Path, pathBox, stretch, transformedPath } from '../../plane/index.ts';
import { finished } from '../../steps.ts';
import type { ProcessFile, ProcessFileMade } from '../process.ts';

type PlanSheetFile = ProcessFile<PlanSheetSettings, SheetPlan>;
/** Boxes of outlines come back this exactly, mm of the paper. */
const toleranceMm = 0.02;

/** @param read what the file holds, in paper mm, its lower left corner wherever it lies */
function madeFile(plan: SheetPlan, bytes: Uint8Array, read: readonly Path[]): ProcessFileMade {
  const found = read.map(pathBox);
  // The frame tells where the paper lies in what was read.
  const own = [...plan.strokes.map(({ path }) => pathBox(path)), ...plan.dimensions.flatMap(({ strokes }) => strokes.map(pathBox))];
  const corner = (boxes: readonly { minX: number; minY: number }[]) => ({ x: Math.min(...boxes.map(({ minX }) => minX)), y: Math.min(...boxes.map(({ minY }) => minY)) }); // biome-ignore format: one line
  const [a, b] = [corner(own), corner(found)];
  const largestMm = plan.front.reduce((most, path) => {
    const { minX, minY, maxX, maxY } = pathBox(path);
    const off = found.reduce((least, box) => Math.min(least, Math.max(Math.abs(box.minX - b.x - minX + a.x), Math.abs(box.minY - b.y - minY + a.y), Math.abs(box.maxX - b.x - maxX + a.x), Math.abs(box.maxY - b.y - maxY + a.y))), Infinity); // biome-ignore format: one line
    return Math.max(most, off);
  }, 0);
  if (!(largestMm <= toleranceMm)) throw new FileRefused(say.drafting.notReadBack());
  return { bytes, largestMm, toleranceMm, widthMm: plan.widthMm, heightMm: plan.heightMm };
}

export const planSheetFiles: Record<string, PlanSheetFile> = {
  pdf: {
    word: 'PDF',
    about: 'The sheet to print at 100 %.',
    ending: 'pdf',
    mediaType: 'application/pdf',
    what: 'plan',
    async make({ title }, plan) {
      const bytes = await writePlanSheetPdf(plan, title);
      const [page] = await readPdfPaths(bytes);
      return madeFile(
        plan,
        bytes,
        (page?.paths ?? []).map(({ path }) => path),
      );
    },
  },
  svg: {
    word: 'SVG',
    about: 'The sheet for a page, or to be drawn on.',
    ending: 'svg',
    mediaType: 'image/svg+xml',
    what: 'plan',
    async make({ title }, plan) {
      const text = writePlanSheetSvg(plan, title);
      return madeFile(plan, strToU8(text), finished(readSvg(text)).outlines.map(({ path }) => path)); // biome-ignore format: one line
    },
  },
  dxf: {
    word: 'DXF',
    about: 'The sheet in the pieces’ own millimetres, with dimensions that stay dimensions.',
    ending: 'dxf',
    mediaType: 'image/vnd.dxf',
    what: 'plan',
    async make(_, plan) {
      const text = writePlanSheetDxf(plan);
      const toPaper = stretch(sheetScales[plan.scale]);
      return madeFile(plan, strToU8(text), finished(readDxf(text)).outlines.map(({ path }) => transformedPath(path, toPaper))); // biome-ignore format: one line
    },
  },
};
