/**
 * In: a quilt's plan with a quilting line. Out: the line as files: single lines for drawing programs and plotters, pages to print, and its
 * stitches as a table; each read back before it is handed over.
 */
import { strToU8 } from 'fflate';
import Papa from 'papaparse';
import { type FileKind, FileRefused, fileKinds } from '../../files/file-kinds.ts';
import { checked, madeFile } from '../../files/made-file.ts';
import { csvText } from '../../formats/csv.ts';
import type { Piece } from '../../job/schema.ts';
import { plainCutting, powerSettingOf } from '../../make/cutting.ts';
import { cutPlan, noCut } from '../../make/plan.ts';
import { english, say } from '../../messages/index.ts';
import type { Path, Point } from '../../plane/index.ts';
import { type QuiltingLine, type QuiltingSettings, type QuiltPlan, stitchesOfRuns } from '../../quilting/index.ts';
import { finished } from '../../steps.ts';
import { patternsPdf } from '../paged-patterns.ts';
import type { ProcessFile, Work } from '../process.ts';

type QuiltFile = ProcessFile<QuiltingSettings, QuiltPlan>;

const isOffered = ({ line }: QuiltingSettings): boolean => line.pattern !== 'none';

/** @throws FileRefused where nothing is quilted yet */
function lineIn({ line }: QuiltPlan): QuiltingLine {
  if (!line) throw new FileRefused(say.quilting.noLineYet());
  return line;
}

const kinds: readonly FileKind[] = ['svg', 'dxf', 'hpgl', 'gcode'];

const asPieces = ({ runs, passes }: QuiltingLine): Piece[] => {
  const named = passes ? passes.passes.flatMap((pass, n) => pass.runs.map(({ path }, k) => ({ path, name: english.quilting.runOfPass(n + 1, k + 1) }))) : runs.map(({ path }, k) => ({ path, name: english.quilting.run(k + 1) })); // biome-ignore format: one line
  const piece = (outer: Path, name: string, id: string, purpose: Piece['purpose']): Piece => ({ id, name, purpose, leftOut: false, runsOff: false, outer, holes: [] }); // biome-ignore format: one line
  return [
    ...named.map(({ path, name }, k) => piece(path, name, `run ${k + 1}`, 'stitch')),
    ...(passes?.marks ?? []).map((path, k) => piece(path, english.quilting.passMark, `mark ${k + 1}`, 'score')),
  ];
};

/** The line for drawing programs and plotters: open where it is open, in the order in which it is sewn. */
const drawings: Record<string, QuiltFile> = Object.fromEntries(
  kinds.map((kind): [string, QuiltFile] => {
    const { word, ending, mediaType, holds } = fileKinds[kind];
    return [
      `line-${kind}`,
      {
        word: english.quilting.lineAs(word),
        about: english.quilting.lineAbout,
        ending,
        mediaType,
        what: 'line',
        isOffered,
        make({ title, machine }, plan, { dpi }) {
          const pieces = asPieces(lineIn(plan));
          const cut = holds === 'cut' ? finished(cutPlan(pieces, plainCutting, machine)) : noCut;
          const powerSetting = (purpose: Parameters<typeof powerSettingOf>[1]) => powerSettingOf(plainCutting, purpose);
          return madeFile(kind, pieces, { kerfMm: 0, corners: plainCutting.corners }, { title, machine, plan: cut, powerSettingOf: powerSetting, dpi }); // biome-ignore format: one line
        },
      },
    ];
  }),
);

const pages: QuiltFile = {
  word: english.quilting.linePages,
  about: english.quilting.linePagesAbout,
  ending: 'pdf',
  mediaType: 'application/pdf',
  what: 'line',
  isOffered,
  make({ title, settings }, plan) {
    const { runs, passes } = lineIn(plan);
    const marks = (passes?.marks ?? []).map((path) => ({ kind: 'mark', path }) as const);
    const lines = [...runs.map(({ path }) => ({ kind: 'sewing', path }) as const), ...marks];
    return patternsPdf(english.quilting.lineOf(title), [{ name: english.quilting.lineWord, lines, texts: [] }], settings.paper, english.quilting.printSewn); // biome-ignore format: one line
  },
};

/** The columns of the table of stitches; what the needle does at each place: `jump` moves there with the needle up. */
export const stitchColumns = ['x', 'y', 'command'] as const;
const stitchToleranceMm = 0.001;

const table: QuiltFile = {
  word: english.quilting.stitchTable,
  about: english.quilting.stitchTableAbout,
  ending: 'csv',
  mediaType: 'text/csv',
  what: 'stitches',
  isOffered,
  async make({ settings }: Work<QuiltingSettings>, plan) {
    const { runs, area } = lineIn(plan);
    const sewn = stitchesOfRuns(runs, settings.line);
    const rows = sewn.flatMap((places) => places.map(({ x, y }, k) => [x.toFixed(3), y.toFixed(3), k === 0 ? 'jump' : 'stitch']));
    const text = csvText(stitchColumns, [...rows, ['', '', 'end']]);
    const read = Papa.parse<string[]>(text, { skipEmptyLines: true }).data.slice(1, -1);
    const all: readonly Point[] = sewn.flat();
    const largestMm = read.length === all.length ? read.reduce((most, [x, y], k) => Math.max(most, Math.abs(Number(x) - (all[k] as Point).x), Math.abs(Number(y) - (all[k] as Point).y)), 0) : Infinity; // biome-ignore format: one line
    const made = { bytes: strToU8(text), largestMm, toleranceMm: stitchToleranceMm, widthMm: area.maxX - area.minX, heightMm: area.maxY - area.minY }; // biome-ignore format: one line
    return checked('CSV', made);
  },
};

export const lineFiles: Record<string, QuiltFile> = { ...drawings, 'line-pages': pages, stitches: table };
