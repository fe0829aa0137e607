/** In: a quilt's plan. Out: its cutting list as a table, and what a report says of the block. */
import { strToU8 } from 'fflate';
import { csvText } from '../../formats/csv.ts';
import { type CuttingRow, cutText, type QuiltingSettings, type QuiltPlan } from '../../quilting/index.ts';
import type { ProcessFileMade, Work } from '../process.ts';

/** The columns of the table, as they are named in its first line. */
export const cuttingColumns = ['what', 'figure', 'cutIn', 'count', 'reversed', 'cuts', 'strips', 'stripMm', 'lengthMm', 'fabric'] as const;

export async function madeCuttingCsv({ settings }: Work<QuiltingSettings>, { cutting }: QuiltPlan): Promise<ProcessFileMade> {
  const rows = cutting.rows.map((row) => [
    row.what,
    row.figure,
    cutText(row),
    row.count,
    row.reversed,
    row.cuts,
    row.strips,
    row.stripMm === null ? '' : row.stripMm.toFixed(3),
    row.lengthMm === null ? '' : row.lengthMm.toFixed(3),
    settings.fabrics[row.fabric]?.name ?? '',
  ]);
  return { bytes: strToU8(csvText(cuttingColumns, rows)), largestMm: null, toleranceMm: null, widthMm: 0, heightMm: 0 };
}

/** What a report says of the block: its patches, and how they are cut. */
export function quiltReport({
  shapes,
  cutting,
  block,
  seams,
  eases,
  foundations,
  quilt,
  line,
}: QuiltPlan): Readonly<Record<string, unknown>> {
  return {
    block: { widthMm: block.widthMm, heightMm: block.heightMm, grid: block.grid, gapMm: block.gapMm, seams, sections: foundations.sections.length, setIn: foundations.setIn.length }, // biome-ignore format: one line
    quilt: { widthMm: quilt.widthMm, heightMm: quilt.heightMm, blocks: quilt.blocks.length },
    patches: shapes.map(({ name, patches, areaMm2, isSymmetric }) => ({
      name,
      count: patches.length,
      reversed: isSymmetric ? 0 : patches.filter(({ isReversed }) => isReversed).length,
      finishedAreaMm2: areaMm2,
    })),
    curvedSeams: eases.map(({ shapes: between, lengthMm, easeMm, count }) => ({ between, lengthMm, easeMm, count })),
    line: line && { lengthMm: line.lengthMm, sewnTwiceMm: line.againMm, alongSeamsMm: line.alongSeamsMm, runs: line.runs.length, stitches: line.stitches, gapMm: 2 * line.gapMm, passes: line.passes?.passes.length ?? 1 }, // biome-ignore format: one line
    cutting: cutting.rows.filter(({ kind }) => kind === 'patch').map(cutOf),
    further: cutting.rows.filter(({ kind }) => kind !== 'patch').map(cutOf),
  };
}

const cutOf = (row: CuttingRow) => ({ patch: row.what, figure: row.figure, cutIn: cutText(row), count: row.count });
