/**
 * Laser: pieces are cut free along the middle of the burn, half a kerf beside their outlines; areas are cleared line by line.
 */
import { strFromU8 } from 'fflate';
import { drawingKinds } from '../../files/file-kinds.ts';
import { type Cutting, cuttingSchema, plainCutting } from '../../make/cutting.ts';
import { type CutPlan, cutPlan } from '../../make/plan.ts';
import { cutFiles, drawingOfCut, estimateOfCut, notesOfCut } from '../cut-files.ts';
import { processKind } from '../process.ts';

export type LaserSettings = Cutting;

const files = cutFiles<LaserSettings>([...drawingKinds, 'gcode'], (settings) => settings);

export const laser = processKind<LaserSettings, CutPlan>({
  word: 'Laser',
  about: 'Cuts, scores and engraves flat stock with a beam.',
  settings: cuttingSchema,
  plain: plainCutting,
  makes: {
    part: 'cut right through, beside the line',
    line: 'followed along the line',
    dashes: 'cut in dashes',
    fill: 'engraved all over, line by line',
    nothing: null,
  },
  purposes: { score: 'burnt shallow, along the line', engrave: 'engraved along the line', stitch: 'marked along the line' },
  ofMaterial: ['kerfMm', 'powerSettings'],
  cutsSheets: true,
  limits: ({ kerfMm }) => ({ kerfMm, thinnestMm: 0 }),
  plan: ({ pieces, settings, machine }) => cutPlan(pieces, settings, machine),
  notes: notesOfCut,
  estimate: estimateOfCut,
  drawing: drawingOfCut,
  files,
  async standIn(work, plan) {
    const made = await files.gcode?.make(work, plan, { dpi: 600, underlay: null });
    return { programs: made ? [{ text: strFromU8(made.bytes), tools: [] }] : [], mill: null };
  },
});
