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
import { nestedOnSheets } from '../../make/nesting.ts';
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
import { madeBuildSheet } from './build-sheet.ts';
import { formerAxes, formerProgram } from './former-program.ts';

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

/** Of stock whose size is not known, mm. */
const plainSheet = { widthMm: 1200, heightMm: 600 };
const gapMm = 6;
const betweenSheetsMm = 30;

interface SheetKind {
  readonly widthMm: number;
  readonly heightMm: number;
  /** How many are at hand. */
  readonly count: number;
}

/** Formers laid out on sheets, those of one thickness together: on those at hand in their order, or on as many of the stock as it takes. */
function formersOnSheets({ stock, settings }: Work<FoamSettings>, plan: FoamPlan): Piece[] {
  const ofStock = { widthMm: stock.widthMm ?? plainSheet.widthMm, heightMm: stock.heightMm ?? plainSheet.heightMm, count: Infinity };
  const left = new Map((settings.sheets.length > 0 ? settings.sheets : [ofStock]).map((kind) => [kind, kind.count]));
  const groups = new Map<string, Slice[]>();
  for (const slice of plan.slices) {
    const key = slice.thicknessMm.toFixed(2);
    groups.set(key, [...(groups.get(key) ?? []), slice]);
  }
  let x = 0;
  return [...groups.values()].flatMap((group): Piece[] => {
    const pieces: Piece[] = [];
    let rest: readonly Slice[] = group;
    for (const [kind, count] of left) {
      const { placed, remaining, sheets } = onSheets(rest, kind, count);
      pieces.push(...placed.flatMap(({ slice, sheet, place }) => piecesOf(slice, plan, chain(shift(x + sheet * (kind.widthMm + betweenSheetsMm), 0), place)))); // biome-ignore format: one line
      x += sheets * (kind.widthMm + betweenSheetsMm);
      left.set(kind, count - sheets);
      rest = remaining;
    }
    // What finds no sheet lies beside them all the same: it is cut in parts, or of another board.
    for (const slice of rest) {
      const box = pathBox(slice.outline);
      pieces.push(...piecesOf(slice, plan, shift(x - box.minX, -box.minY)));
      x += widthOf(box) + betweenSheetsMm;
    }
    return pieces;
  });
}

interface OnSheets {
  readonly placed: readonly { readonly slice: Slice; readonly sheet: number; readonly place: Parameters<typeof chain>[0] }[];
  readonly remaining: readonly Slice[];
  readonly sheets: number;
}

/** As many as go on to so many sheets of a kind. */
function onSheets(slices: readonly Slice[], { widthMm, heightMm }: SheetKind, count: number): OnSheets {
  if (count <= 0 || slices.length === 0) return { placed: [], remaining: slices, sheets: 0 };
  const parts = slices.map(({ outline }) => ({ outer: outline, holes: [], count: 1 }));
  const angles = [0, Math.PI / 2, Math.PI, (3 * Math.PI) / 2];
  const { placed, sheets } = finished(nestedOnSheets(parts, { widthMm, heightMm, marginMm: gapMm, gapMm, angles }));
  const kept = placed.filter(({ sheet }) => sheet < count);
  const laid = new Set(kept.map(({ part }) => part));
  return {
    placed: kept.map(({ part, sheet, place }) => ({ slice: slices[part] as Slice, sheet, place })),
    remaining: slices.filter((_, k) => !laid.has(k)),
    sheets: Math.min(sheets, count),
  };
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
  make: madeBuildSheet,
};

export const formerFiles: Record<string, FoamFile> = { formers: pages, ...drawings, wire, cutlist: table, build: buildSheet };
