/**
 * Outlines: the drawing itself, for a program or a machine that plans its own cut; set out by half a tool's width where one is typed.
 */
import { drawingKinds } from '../../files/file-kinds.ts';
import { type Cutting, cuttingSchema, plainCutting } from '../../make/cutting.ts';
import { kerfCompensated } from '../../make/kerf.ts';
import { type CutPlan, noCut } from '../../make/plan.ts';
import { cutFiles, notesOfCut } from '../cut-files.ts';
import { processKind } from '../process.ts';

export type OutlinesSettings = Pick<Cutting, 'kerfMm' | 'corners'>;

const cuttingOf = (settings: OutlinesSettings): Cutting => ({ ...plainCutting, ...settings });
const asDrawn = 'written as drawn';

export const outlines = processKind<OutlinesSettings, CutPlan>({
  word: 'Outlines',
  about: 'Clean outlines at true size, for a program that plans its own work.',
  settings: cuttingSchema.pick({ kerfMm: true, corners: true }),
  plain: { kerfMm: plainCutting.kerfMm, corners: plainCutting.corners },
  makes: { part: asDrawn, line: asDrawn, dashes: asDrawn, fill: asDrawn, nothing: asDrawn },
  purposes: {},
  ofMaterial: ['kerfMm'],
  cutsSheets: true,
  limits: ({ kerfMm }) => ({ kerfMm, thinnestMm: 0 }),
  *plan({ pieces, settings }) {
    const lost: CutPlan['lost'][number][] = [];
    for (const [k, piece] of pieces.entries()) {
      const { lost: what, isFailure } = kerfCompensated(piece, settings);
      if (what) lost.push({ pieceId: piece.id, ...what, isFailure });
      if (k % 20 === 19) yield k / pieces.length;
    }
    return { ...noCut, lost };
  },
  notes: notesOfCut,
  estimate: () => ({ rows: [], seconds: null }),
  drawing: () => [],
  files: cutFiles<OutlinesSettings>(drawingKinds, cuttingOf),
});
