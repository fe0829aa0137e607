/** Plan sheet: a drawing for the workshop, with views at a stated scale, dimensions, a parts list and a title block. */
import { type PlanSheetSettings, plainPlanSheet, planSheet as planned, planSheetSchema, type SheetPlan, type SheetScale, sheetPapers, sheetScales } from '../../drafting/index.ts'; // biome-ignore format: one line
import { lengthOption } from '../length-option.ts';
import { processKind } from '../process.ts';
import { planSheetFiles } from './plan-sheet-files.ts';

const drawn = 'drawn to scale, with its dimensions';

function oneOf<T extends string>(words: readonly T[], word: string): T {
  const found = words.find((one) => one.toLowerCase() === word.toLowerCase());
  if (!found) throw new Error(`${words.join(', ')} are there`);
  return found;
}

export const planSheet = processKind<PlanSheetSettings, SheetPlan>({
  word: 'Plan sheet',
  about: 'A drawing for the workshop: views to scale, dimensions, a parts list and a title block.',
  settings: planSheetSchema,
  plain: plainPlanSheet,
  makes: { part: drawn, line: drawn, dashes: drawn, fill: drawn, nothing: null },
  purposes: {},
  ofMaterial: [],
  limits: () => ({ kerfMm: 0, thinnestMm: 0 }),
  // A drawing shows what is there.
  ignores: ['open', 'near-miss', 'crosses-another', 'crosses-itself', 'doubled', 'inside-another', 'too-near', 'drops-out'],
  *plan({ title, pieces, stock, settings }) {
    yield 0;
    return planned(title, pieces, stock, settings);
  },
  notes: ({ notes }) => notes,
  estimate: () => ({ rows: [], seconds: null }),
  drawing: () => [],
  files: planSheetFiles,
  options: {
    paper: { takes: 'word', about: `${sheetPapers.join(', ')}, upright or with a wide side down: A3 wide`, read: (word) => ({ paper: oneOf(sheetPapers, word.replace(/\s+wide$/i, '')), isLandscape: /\swide$/i.test(word) }) }, // biome-ignore format: one line
    scale: { takes: 'word', about: `one of ${Object.keys(sheetScales).join(', ')}`, read: (word) => ({ scale: oneOf(Object.keys(sheetScales) as SheetScale[], word) }) }, // biome-ignore format: one line
    inches: { takes: 'nothing', about: 'dimensions in decimal inches', read: () => ({ system: 'inch' as const }) },
    section: { takes: 'word', about: 'a section so far from the left edge', read: (word) => ({ sectionAtMm: lengthOption(word, 'mm') }) },
  },
});
