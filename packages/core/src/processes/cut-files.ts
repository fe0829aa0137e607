/**
 * What processes share that cut along outlines: their drawing and program files, their plan's drawing, estimate and notes.
 */
import { type FileKind, fileKinds } from '../files/file-kinds.ts';
import { madeFile } from '../files/made-file.ts';
import { type Cutting, powerSettingOf } from '../make/cutting.ts';
import type { CutPlan } from '../make/plan.ts';
import { endOf, type Point } from '../plane/index.ts';
import type { Estimate, PlanNote, ProcessFile, SheetLine } from './process.ts';

/** Files of some kinds, for a process whose settings say how it cuts. */
export const cutFiles = <Settings>(
  kinds: readonly FileKind[],
  cuttingOf: (settings: Settings) => Cutting,
): Record<string, ProcessFile<Settings, CutPlan>> =>
  Object.fromEntries(
    kinds.map((kind) => {
      const { word, about, ending, mediaType, holds, isRaster } = fileKinds[kind];
      const file: ProcessFile<Settings, CutPlan> = {
        word,
        about,
        ending,
        mediaType,
        what: holds,
        ...(isRaster && { isRaster }),
        make: ({ title, pieces, settings, machine }, plan, { dpi }) => {
          const cutting = cuttingOf(settings);
          const powerSetting = (purpose: Parameters<typeof powerSettingOf>[1]) => powerSettingOf(cutting, purpose);
          return madeFile(kind, pieces, cutting, { title, machine, plan, powerSettingOf: powerSetting, dpi });
        },
      };
      return [kind, file];
    }),
  );

export const notesOfCut = ({ lost }: CutPlan): readonly PlanNote[] => lost;

export const estimateOfCut = ({ purposes, travelSeconds }: CutPlan): Estimate => ({
  rows: purposes,
  seconds: travelSeconds + purposes.reduce((sum, { seconds }) => sum + seconds, 0),
});

/** The toolpaths in their order, with how the tool gets from each to the next. */
export function drawingOfCut({ runs }: CutPlan): SheetLine[] {
  const lines: SheetLine[] = [];
  let at: Point | null = null;
  for (const { path, purpose, overscanMm } of runs) {
    if (at) lines.push({ path: { start: at, segments: [{ kind: 'line', to: path.start }], closed: false }, kind: 'travel', purpose: null });
    lines.push({ path, kind: overscanMm > 0 ? 'hatch' : 'work', purpose });
    at = endOf(path);
  }
  return lines;
}
