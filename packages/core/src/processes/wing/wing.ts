/** Wing cores: a panel between two sections, cut from foam by a hot wire between two towers. */
import { coreOf, plainWing, type WingPlan, type WingSettings, wingPlan, wingSchema } from '../../foam/index.ts';
import { pathBox, polygonPath, widthOf } from '../../plane/index.ts';
import { processKind, type SheetLine } from '../process.ts';
import { withReports } from '../reports.ts';
import { wingFiles } from './wing-files.ts';
import { wingJob } from './wing-job.ts';

const section = 'a section, where it is chosen as one';

const reportOf = ({ panel, cut, block, massG }: WingPlan) => ({
  panel: { root: panel.root.name, tip: panel.tip.name, spanMm: panel.spanMm, sweepMm: panel.sweepMm, washoutDegrees: panel.washout },
  cores: (['root', 'tip'] as const).map((face) => ({ face, lengthMm: widthOf(pathBox(polygonPath(coreOf(cut.faces[face])))) })),
  block,
  massG,
  feedMmPerMin: cut.feedMmPerMin,
  minutes: cut.minutes,
});

export const wing = processKind<WingSettings, WingPlan>({
  word: 'Wing cores',
  about: 'Cuts wing panels from foam by hot wire: four-digit, traced or listed sections, templates and programs for both towers.',
  settings: wingSchema,
  plain: plainWing,
  makes: { part: section, line: null, dashes: null, fill: null, nothing: null },
  purposes: {},
  ofMaterial: ['burn', 'density'],
  limits: () => ({ kerfMm: 0, thinnestMm: 0 }),
  *plan({ pieces, settings }) {
    yield 0;
    return wingPlan(pieces, settings);
  },
  notes: ({ notes }) => notes,
  estimate: ({ cut }) => ({ rows: [], seconds: 60 * cut.minutes }),
  drawing: ({ cut }) => (['root', 'tip'] as const).map((face): SheetLine => ({ path: polygonPath(coreOf(cut.faces[face])), kind: 'frame', purpose: null })), // biome-ignore format: one line
  files: withReports(wingFiles, reportOf),
  standIn: wingJob,
});
