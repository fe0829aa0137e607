/**
 * Knife: a blade follows the line itself and takes nothing away; creases are pressed, areas are not cleared.
 */
import { drawingKinds } from '../../files/file-kinds.ts';
import { makeOf } from '../../job/purposes.ts';
import { type Cutting, cuttingSchema, plainCutting } from '../../make/cutting.ts';
import { type CutPlan, cutPlan } from '../../make/plan.ts';
import { cutFiles, drawingOfCut, estimateOfCut, notesOfCut } from '../cut-files.ts';
import { processKind } from '../process.ts';

export type KnifeSettings = Pick<Cutting, 'start' | 'overcutMm' | 'commonLines' | 'tabs' | 'perforation' | 'powerSettings'>;

/** As the shared steps take it: no kerf, no leads. */
const cuttingOf = (settings: KnifeSettings): Cutting => ({ ...plainCutting, ...settings });
const { start, overcutMm, commonLines, tabs, perforation, powerSettings } = plainCutting;

export const knife = processKind<KnifeSettings, CutPlan>({
  word: 'Knife',
  about: 'Cuts and creases paper, board, film and cloth with a blade.',
  settings: cuttingSchema.pick({ start: true, overcutMm: true, commonLines: true, tabs: true, perforation: true, powerSettings: true }),
  plain: { start, overcutMm, commonLines, tabs, perforation, powerSettings },
  makes: { part: 'cut right through, on the line', line: 'followed along the line', dashes: 'cut in dashes', fill: null, nothing: null },
  purposes: { score: 'creased or half cut, along the line', engrave: 'scratched along the line', stitch: 'pricked along the line' },
  ofMaterial: ['powerSettings'],
  cutsSheets: true,
  limits: () => ({ kerfMm: 0, thinnestMm: 0 }),
  plan: ({ pieces, settings, machine }) =>
    cutPlan(
      pieces.filter((piece) => makeOf(piece) !== 'fill'),
      cuttingOf(settings),
      machine,
    ),
  notes: notesOfCut,
  estimate: estimateOfCut,
  drawing: drawingOfCut,
  files: cutFiles<KnifeSettings>([...drawingKinds, 'hpgl', 'gcode'], cuttingOf),
});
