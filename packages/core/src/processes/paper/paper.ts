/**
 * Paper: full-size prints over as many sheets as it takes, to cut out by hand or to glue on; and die lines folded up.
 */
import { drawingKinds } from '../../files/file-kinds.ts';
import { madeFile, outlinesToWrite } from '../../files/made-file.ts';
import { bleedOutlines } from '../../folding/allowances.ts';
import { finite } from '../../job/schema-parts.ts';
import { plainCutting, powerSettingOf } from '../../make/cutting.ts';
import { noCut } from '../../make/plan.ts';
import { type Printing, plainPrinting, printingSchema } from '../../make/printing.ts';
import { papers, type Tiling, tiled } from '../../make/tiles.ts';
import { type Path, rectanglePath } from '../../plane/index.ts';
import { cutFiles } from '../cut-files.ts';
import { type ProcessFile, processKind, type Work } from '../process.ts';

export interface PaperSettings extends Printing {
  /** How far the printer's colour runs on beyond the die line, mm. */
  readonly bleedMm: number;
}

const noKerf = { kerfMm: 0, corners: plainCutting.corners } as const;
const asDrawn = 'printed as drawn';

const pages: ProcessFile<PaperSettings, Tiling> = {
  word: 'Pages',
  about: 'Full size over sheets of paper, with marks that meet and bars to measure.',
  ending: 'pdf',
  mediaType: 'application/pdf',
  what: 'print',
  async make({ pieces, title, settings }, tiling, { underlay }) {
    const { writeTiles } = await import('../../formats/print-tiles.ts');
    const bytes = await writeTiles(outlinesToWrite(pieces, noKerf), tiling, title, settings.withPicture ? underlay : null);
    const { widthMm, heightMm } = tiling.paper;
    return { bytes, largestMm: null, toleranceMm: null, widthMm, heightMm, pages: tiling.pages.length };
  },
};

const bleed: ProcessFile<PaperSettings, Tiling> = {
  word: 'Die line with bleed',
  about: 'One page with the die line, its creases and the bleed, for the printer.',
  ending: 'pdf',
  mediaType: 'application/pdf',
  what: 'die-line',
  make({ pieces, title, settings, machine }) {
    const around = bleedOutlines(pieces, settings.bleedMm).map(({ holes, ...outline }, k) => ({
      ...outline,
      id: `bleed-${k}`,
      leftOut: false,
      runsOff: false,
      holes: [...holes],
    }));
    const powerSetting = (purpose: Parameters<typeof powerSettingOf>[1]) => powerSettingOf(plainCutting, purpose);
    return madeFile('pdf', [...pieces, ...around], noKerf, { title, machine, plan: noCut, powerSettingOf: powerSetting, dpi: 600 });
  },
};

const drawings = cutFiles<PaperSettings>(drawingKinds, () => plainCutting);

const pathsOf = ({ pieces }: Work<PaperSettings>): Path[] => pieces.flatMap(({ outer, holes }) => [outer, ...holes]);

export const paper = processKind<PaperSettings, Tiling>({
  word: 'Paper',
  about: 'Prints patterns at full size, and folds die lines up to look at.',
  settings: printingSchema.extend({ bleedMm: finite.nonnegative().max(100) }),
  plain: { ...plainPrinting, bleedMm: 3 },
  makes: { part: asDrawn, line: asDrawn, dashes: asDrawn, fill: asDrawn, nothing: asDrawn },
  purposes: { score: 'printed as a crease' },
  ofMaterial: [],
  limits: () => ({ kerfMm: 0, thinnestMm: 0 }),
  // biome-ignore lint/correctness/useYield: pages are found in one go
  *plan(work) {
    return tiled(pathsOf(work), work.settings);
  },
  notes: () => [],
  estimate: () => ({ rows: [], seconds: null }),
  drawing: ({ pages: all }) => all.map(({ cell }) => ({ path: rectanglePath(cell), kind: 'frame', purpose: null })),
  files: {
    pages,
    bleed,
    ...Object.fromEntries(
      Object.entries(drawings).map(([name, file]) => [
        name,
        { ...file, make: (work, _, choices) => file.make(work, noCut, choices) } satisfies ProcessFile<PaperSettings, Tiling>,
      ]),
    ),
  },
  options: {
    paper: {
      takes: 'word',
      about: `what it is printed on (${Object.keys(papers).join(', ')})`,
      read(word) {
        if (!papers[word]) throw new Error(`${Object.keys(papers).join(', ')} are there`);
        return { paper: word };
      },
    },
    landscape: { takes: 'nothing', about: 'paper lies on its side', read: () => ({ landscape: true }) },
  },
});
