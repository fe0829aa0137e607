/** Foam: a body from its views becomes formers, each as thick as its board really is. */
import { type FoamPlan, type FoamSettings, foamPlan, foamSchema, plainFoam, type Slice } from '../../foam/index.ts';
import { about, centreOf, type Path, pathBox, transformedPath, turn } from '../../plane/index.ts';
import { lengthOption } from '../length-option.ts';
import { processKind, type SheetLine } from '../process.ts';
import { withReports } from '../reports.ts';
import { formerFiles } from './former-files.ts';
import { formerBlock, formerProgram } from './former-program.ts';
import { laidFormers } from './former-sheets.ts';

const viewed = 'a view of the body';

/** Upright lines across a view where slices meet. */
function stationLines(view: Path, axisDegrees: number, { lengthMm, nose, slices }: FoamPlan): SheetLine[] {
  const { minX, minY, maxX, maxY } = pathBox(view);
  const scale = (maxX - minX) / lengthMm;
  const back = about(centreOf({ minX, minY, maxX, maxY }), turn((axisDegrees * Math.PI) / 180));
  const stations = [...slices.map(({ from }) => from), slices.at(-1)?.to ?? lengthMm];
  return stations.map((station): SheetLine => {
    const x = nose === 'left' ? minX + station * scale : maxX - station * scale;
    return {
      path: transformedPath({ start: { x, y: minY }, segments: [{ kind: 'line', to: { x, y: maxY } }], closed: false }, back),
      kind: 'frame',
      purpose: null,
    };
  });
}

/** What a report says of a body: its sizes, what it weighs, and its slices. */
const reportOf = ({ lengthMm, widthMm, heightMm, bodyMm3, foamMm3, massG, middleMm, largestStepMm, slices }: FoamPlan) => ({
  body: { lengthMm, widthMm, heightMm, volumeMm3: bodyMm3 },
  foam: { volumeMm3: foamMm3, massG, centreOfGravityMm: middleMm, largestStepMm },
  slices: slices.map(({ number, thicknessMm, from, to, stepMm, isHollow, holes }) => ({ number, thicknessMm, fromMm: from, toMm: to, stepMm, isHollow, holes: holes.length })), // biome-ignore format: one line
});

export const foam = processKind<FoamSettings, FoamPlan>({
  word: 'Foam',
  about: 'Slices a body into formers as thick as its boards: outlines, shells and pages to print.',
  settings: foamSchema,
  plain: plainFoam,
  makes: { part: viewed, line: null, dashes: null, fill: null, nothing: null },
  purposes: {},
  ofMaterial: ['density', 'wireBurnMm'],
  limits: () => ({ kerfMm: 0, thinnestMm: 0 }),
  plan: ({ pieces, settings, stock }) => foamPlan(pieces, settings, stock),
  notes: ({ notes }) => notes,
  estimate: () => ({ rows: [], seconds: null }),
  drawing: (plan) => [
    ...stationLines(plan.side, plan.sideAxis, plan),
    ...(plan.above ? stationLines(plan.above, plan.aboveAxis, plan) : []),
  ],
  files: withReports(formerFiles, reportOf),
  laidOut: laidFormers,
  async standIn(work, { slices }) {
    const programs = slices.map((slice) => formerProgram(slice, work));
    return {
      programs: programs.map(({ text }) => ({ text, tools: [] })),
      mill: null,
      wire: { blocks: programs.map((program, k) => formerBlock(slices[k] as Slice, program, work.settings)) },
    };
  },
  options: {
    board: { takes: 'word', about: 'how thick the boards measure', read: (word) => ({ boards: [{ thicknessMm: lengthOption(word, 'mm'), count: null }] }) }, // biome-ignore format: one line
    shell: { takes: 'word', about: 'how thick the shell is at least; solid where it is not said', read: (word) => ({ shellMm: lengthOption(word, 'mm') }) }, // biome-ignore format: one line
    sanding: { takes: 'word', about: 'what is left on for sanding', read: (word) => ({ sandingMm: lengthOption(word, 'mm') }) },
  },
});
