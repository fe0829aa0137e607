/** In: what a process makes pieces of that are drawn at their true size. Out: its drawing files: DXF, SVG and the like, nothing compensated. */
import { drawingKinds } from '../files/file-kinds.ts';
import type { Piece } from '../job/schema.ts';
import { plainCutting } from '../make/cutting.ts';
import { noCut } from '../make/plan.ts';
import { cutFiles } from './cut-files.ts';
import type { ProcessFile, Work } from './process.ts';

/** @param what stands for {what} in a file's name */
export function drawingFiles<Settings, Plan>(
  about: string,
  what: string,
  piecesOf: (work: Work<Settings>, plan: Plan) => Piece[],
): Record<string, ProcessFile<Settings, Plan>> {
  const kinds = drawingKinds.filter((kind) => kind !== 'pdf');
  return Object.fromEntries(
    Object.entries(cutFiles<Settings>(kinds, () => plainCutting)).map(([name, file]): [string, ProcessFile<Settings, Plan>] => [
      name,
      { ...file, about, what, make: (work, plan, choices) => file.make({ ...work, pieces: piecesOf(work, plan) }, noCut, choices) },
    ]),
  );
}
