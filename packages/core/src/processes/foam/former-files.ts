/**
 * In: a body's plan. Out: its formers as files: at full size on pages to print, as drawings laid out on sheets of the stock, and as a table.
 */
import { strToU8 } from 'fflate';
import { FileRefused } from '../../files/file-kinds.ts';
import { type FoamPlan, type FoamSettings, matchedTicks, type Slice } from '../../foam/index.ts';
import { csvText } from '../../formats/csv.ts';
import { readWireProgram, wireProgramDeviation } from '../../formats/index.ts';
import type { Piece } from '../../job/schema.ts';
import { printMm } from '../../length/index.ts';
import { english, say } from '../../messages/index.ts';
import {
  chain,
  heightOf,
  levelCrossings,
  type Path,
  type Point,
  pathBox,
  polygonOf,
  shift,
  transformedPath,
  widthOf,
} from '../../plane/index.ts';
import { finished } from '../../steps.ts';
import { drawingFiles } from '../drawing-files.ts';
import { type Pattern, patternsPdf } from '../paged-patterns.ts';
import type { ProcessFile, ProcessFileMade, Work } from '../process.ts';
import { formerAxes, formerProgram } from './former-program.ts';
import { formerSheets } from './former-sheets.ts';

type FoamFile = ProcessFile<FoamSettings, FoamPlan>;

const line = (...places: readonly Point[]): Path => ({ start: places[0] as Point, segments: places.slice(1).map((to) => ({ kind: 'line', to })), closed: false }); // biome-ignore format: one line

/** Of a datum line this share is left free at either end. */
const inset = 0.08;
const chordMm = 0.05;

/**
 * The upright middle line, and the level line at half the body's height, the same on every former that it crosses: formers laid on one another
 * by both lie in line.
 */
function datumLines({ outline }: Slice, { heightMm }: FoamPlan): Path[] {
  const { minY, maxY } = pathBox(outline);
  const level = heightMm / 2;
  const across = levelCrossings(polygonOf(outline, chordMm), level);
  const [from, to] = [Math.min(...across), Math.max(...across)];
  return [
    line({ x: 0, y: minY + inset * (maxY - minY) }, { x: 0, y: maxY - inset * (maxY - minY) }),
    ...(to > from ? [line({ x: from + inset * (to - from), y: level }, { x: to - inset * (to - from), y: level })] : []),
  ];
}

/** Around both faces. */
const tickCount = 40;

function patternOf(slice: Slice, plan: FoamPlan): Pattern {
  const { outline, holes, marked, number, thicknessMm, from } = slice;
  const { minY, maxY } = pathBox(outline);
  const middle = (minY + maxY) / 2;
  // On the side of the level line where there is more room.
  const up = (maxY - minY) / 4;
  const y = plan.heightMm / 2 > middle ? middle - up : middle + up;
  const ticks = marked && matchedTicks(outline, marked, tickCount);
  return {
    name: english.foam.former(number),
    lines: [
      ...[outline, ...holes].map((path) => ({ kind: 'cutting', path }) as const),
      ...(marked ? [{ kind: 'sewing', path: marked } as const] : []),
      ...datumLines(slice, plan).map((path) => ({ kind: 'mark', path }) as const),
      ...(ticks?.lines ?? []).map((path) => ({ kind: 'mark', path }) as const),
    ],
    texts: [
      { at: { x: 3, y }, text: String(number), size: Math.min(18, Math.max(7, up)), isBold: true },
      { at: { x: 3, y: y - 5 }, text: english.foam.boardOf(printMm(thicknessMm), printMm(from)), size: 6 },
      ...(ticks?.numbers ?? []).map(({ at, number: tick }) => ({ at, text: String(tick), size: 5 })),
    ],
  };
}

const pages: FoamFile = {
  word: 'Formers',
  about: 'Every former at full size, numbered from the nose, on pages to print.',
  ending: 'pdf',
  mediaType: 'application/pdf',
  what: 'formers',
  make: ({ title, settings }, plan) => patternsPdf(english.foam.formers(title), plan.slices.map((slice) => patternOf(slice, plan)), settings.paper, english.foam.formersHow), // biome-ignore format: one line
};

const betweenSheetsMm = 30;

/** Formers as they lie on their sheets, one sheet beside another; what finds no sheet lies beside them: it is cut in parts, or of another board. */
function formersOnSheets(work: Work<FoamSettings>, plan: FoamPlan): Piece[] {
  const { sheets, unplaced } = finished(formerSheets(work, plan));
  let x = 0;
  const laid = sheets.flatMap(({ outline, formers }): Piece[] => {
    const across = shift(x, 0);
    x += widthOf(pathBox(outline)) + betweenSheetsMm;
    return formers.flatMap(({ slice, place }) => piecesOf(slice, plan, chain(across, place)));
  });
  const beside = unplaced.flatMap((slice): Piece[] => {
    const box = pathBox(slice.outline);
    const to = shift(x - box.minX, -box.minY);
    x += widthOf(box) + betweenSheetsMm;
    return piecesOf(slice, plan, to);
  });
  return [...laid, ...beside];
}

function piecesOf(slice: Slice, plan: FoamPlan, to: Parameters<typeof transformedPath>[1]): Piece[] {
  const name = english.foam.former(slice.number);
  const piece = (what: string, purpose: Piece['purpose'], outer: Path, holes: readonly Path[] = []): Piece => ({ id: `${slice.number} ${what}`, name, purpose, leftOut: false, runsOff: false, outer: transformedPath(outer, to), holes: holes.map((hole) => transformedPath(hole, to)) }); // biome-ignore format: one line
  return [
    piece('former', 'cut', slice.outline, slice.holes),
    ...(slice.marked ? [piece('face', 'score', slice.marked)] : []),
    ...datumLines(slice, plan).map((path, k) => piece(`datum ${k + 1}`, 'score', path)),
  ];
}

const drawings = drawingFiles<FoamSettings, FoamPlan>(
  'Formers laid out on sheets of the stock: outlines to cut, middle lines and smaller faces to score.',
  'formers',
  formersOnSheets,
);

export const formerColumns = ['number', 'thicknessMm', 'fromMm', 'toMm', 'widthMm', 'heightMm', 'stepMm', 'isHollow'] as const;

const table: FoamFile = {
  word: 'Cut list',
  about: 'Each former: its board, where it lies, how large it is, and what is left to sand, as a table.',
  ending: 'csv',
  mediaType: 'text/csv',
  what: 'cutlist',
  async make(_, { slices, widthMm, heightMm }) {
    const rows = slices.map(({ number, thicknessMm, from, to, outline, stepMm, isHollow }) => {
      const box = pathBox(outline);
      return [number, ...[thicknessMm, from, to, widthOf(box), heightOf(box), stepMm].map((v) => v.toFixed(3)), isHollow ? 'yes' : 'no'];
    });
    return { bytes: strToU8(csvText(formerColumns, rows)), largestMm: null, toleranceMm: null, widthMm, heightMm };
  },
};

/** What rounding leaves of a place, mm. */
const roundedMm = 1e-4;

const wire: FoamFile = {
  word: 'Hot wire',
  about: 'A program for each former: in from the edge, round it, through a slit into its hollow, half the burn outside of it; read back.',
  ending: 'gcode',
  mediaType: 'text/plain',
  what: 'wire',
  async make(work, { slices, widthMm, heightMm }) {
    const made = slices.map((slice): ProcessFileMade => {
      const { towers, text } = formerProgram(slice, work);
      const largestMm = wireProgramDeviation(towers, readWireProgram(text, formerAxes));
      return { bytes: strToU8(text), part: String(slice.number).padStart(2, '0'), largestMm, toleranceMm: roundedMm, widthMm, heightMm };
    });
    const [first, ...further] = made;
    if (!first) throw new FileRefused(say.foam.noBoards());
    return { ...first, further };
  },
};

const buildSheet: FoamFile = {
  word: 'Build sheet',
  about: 'The side view with every former in its place, a table, and every former small, with its number.',
  ending: 'pdf',
  mediaType: 'application/pdf',
  what: 'build-sheet',
  make: async (work, plan) => (await import('./build-sheet.ts')).madeBuildSheet(work, plan),
};

export const formerFiles: Record<string, FoamFile> = { formers: pages, ...drawings, wire, cutlist: table, build: buildSheet };
