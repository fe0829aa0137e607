/**
 * Quilting: a traced block becomes patches at their finished size, with templates, sizes to cut, foundations, and the quilt that they are
 * set into.
 */
import { papers } from '../../make/tiles.ts';
import { transformedPath } from '../../plane/index.ts';
import {
  linePatterns,
  plainQuilting,
  type QuiltingSettings,
  type QuiltPlan,
  quiltingSchema,
  quiltPlan,
  wholeQuilting,
} from '../../quilting/index.ts';
import { drawingFiles } from '../drawing-files.ts';
import { lengthOption } from '../length-option.ts';
import { processKind, type SheetLine } from '../process.ts';
import { withReports } from '../reports.ts';
import { madeCuttingCsv, quiltReport } from './cutting-table.ts';
import { madeFoundations } from './foundation-pages.ts';
import { lineFiles } from './line-files.ts';
import { needleJob } from './needle-job.ts';
import { madePlacementGuide, madeTemplates } from './template-pages.ts';
import { templatesOnSheets } from './template-sheets.ts';

/** Templates to be cut from card or acrylic by a machine: the cutting line is cut, the sewing line scored. */
const templateDrawings = drawingFiles<QuiltingSettings, QuiltPlan>(
  'Templates laid out on the sheet, cutting lines to cut and sewing lines to score, for a laser or a knife.',
  'templates',
  templatesOnSheets,
);

const patched = 'a patch of the block, or a seam between patches';

export const quilting = processKind<QuiltingSettings, QuiltPlan>({
  word: 'Quilting',
  about: 'Makes patches of a block: templates, sizes to cut, foundations, and the quilt.',
  settings: quiltingSchema,
  plain: plainQuilting,
  whole: wholeQuilting,
  makes: { part: patched, line: patched, dashes: patched, fill: patched, nothing: null },
  purposes: {},
  ofMaterial: ['usableMm'],
  limits: () => ({ kerfMm: 0, thinnestMm: 0 }),
  ignores: ['open', 'near-miss', 'crosses-another', 'crosses-itself', 'doubled', 'inside-another', 'drops-out', 'purpose-unset'],
  plan: ({ pieces, settings }) => quiltPlan(pieces, settings),
  notes: ({ notes }) => notes,
  estimate: () => ({ rows: [], seconds: null }),
  drawing: ({ block }) =>
    block.map.faces.map(({ outer }): SheetLine => ({ path: transformedPath(outer, block.toSheet), kind: 'work', purpose: 'stitch' })),
  files: withReports(
    {
      templates: {
        word: 'Templates',
        about: 'Every patch at full size with its seam allowance, on pages to print.',
        ending: 'pdf',
        mediaType: 'application/pdf',
        what: 'templates',
        make: madeTemplates,
      },
      guide: {
        word: 'Placement guide',
        about: 'Where each appliqué shape lies, at full size, numbered from the lowest.',
        ending: 'pdf',
        mediaType: 'application/pdf',
        what: 'placement',
        isOffered: ({ technique }) => technique === 'appliqué',
        make: madePlacementGuide,
      },
      foundations: {
        word: 'Foundations',
        about: 'Sections to sew on paper, numbered and mirrored, on pages to print.',
        ending: 'pdf',
        mediaType: 'application/pdf',
        what: 'foundations',
        isOffered: ({ technique }) => technique === 'pieced',
        make: madeFoundations,
      },
      shopping: {
        word: 'Fabrics and cutting',
        about: 'How much of each fabric to buy, and what to cut from it.',
        ending: 'pdf',
        mediaType: 'application/pdf',
        what: 'fabrics',
        make: async (work, plan) => (await import('./shopping-list.ts')).madeShoppingList(work, plan),
      },
      cutting: {
        word: 'Cutting list',
        about: 'Sizes, counts and strips as a table.',
        ending: 'csv',
        mediaType: 'text/csv',
        what: 'cutting',
        make: madeCuttingCsv,
      },
      ...templateDrawings,
      ...lineFiles,
    },
    quiltReport,
  ),
  standIn: needleJob,
  options: {
    finished: { takes: 'word', about: 'the longer side of the finished block', read: (word) => ({ finishedMm: lengthOption(word, 'in') }) },
    quilted: {
      takes: 'word',
      about: `what is quilted along (${linePatterns.join(', ')})`,
      read(word) {
        const pattern = linePatterns.find((one) => one === word);
        if (!pattern) throw new Error(`${linePatterns.join(', ')} are there`);
        return { line: { ...plainQuilting.line, pattern } };
      },
    },
    allowance: { takes: 'word', about: 'the seam allowance', read: (word) => ({ allowanceMm: lengthOption(word, 'in') }) },
    'template-paper': {
      takes: 'word',
      about: `what templates are printed on (${Object.keys(papers).join(', ')})`,
      read(word) {
        if (!papers[word]) throw new Error(`${Object.keys(papers).join(', ')} are there`);
        return { paper: word };
      },
    },
  },
});
