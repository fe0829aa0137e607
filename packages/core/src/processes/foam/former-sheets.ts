/**
 * In: a body's formers, and the sheets at hand. Out: where each former lies on which sheet: those of one board together, on sheets of its thickness
 * in their order, or, where there are none, on as many of the stock as it takes; and what is left of every sheet.
 */
import type { FoamPlan, FoamSettings, Slice } from '../../foam/index.ts';
import type { SheetStock } from '../../job/sheet-stock.ts';
import { english } from '../../messages/index.ts';
import { leftoversOf, nestedOnSheets } from '../../nesting/index.ts';
import { type Box, type Path, pathBox, rectanglePath, type Transform, transformedPath } from '../../plane/index.ts';
import { asPart } from '../../steps.ts';
import type { LaidOut, LaidSheet } from '../laid-sheets.ts';
import type { Work } from '../process.ts';

/** Of stock whose size is not known, mm. */
const plainSheet = { widthMm: 1200, heightMm: 600 };
const gapMm = 6;
const angles = [0, Math.PI / 2, Math.PI, (3 * Math.PI) / 2];
/** Boards as thick as one another within this are one, mm. */
const sameMm = 0.05;
/** What is left of a sheet is kept from this width and height on, mm. */
const leastLeftoverMm = 60;

/** A former where it lies on a sheet. */
export interface LaidFormer {
  readonly slice: Slice;
  readonly place: Transform;
}

export interface FormerSheet extends Pick<LaidSheet, 'thicknessMm' | 'layers' | 'kind' | 'outline'> {
  readonly formers: readonly LaidFormer[];
}

type Sheet = Pick<SheetStock, 'widthMm' | 'heightMm' | 'boardMm' | 'leftover'>;

const outlineOf = ({ leftover, widthMm, heightMm }: Sheet): Path => leftover?.outline ?? rectanglePath({ minX: 0, minY: 0, maxX: widthMm, maxY: heightMm }); // biome-ignore format: one line

/** Yields the share done. Formers that find no sheet are told apart. */
export function* formerSheets(
  { stock, settings }: Pick<Work<FoamSettings>, 'stock' | 'settings'>,
  { slices, boards }: Pick<FoamPlan, 'slices' | 'boards'>,
): Generator<number, { readonly sheets: readonly FormerSheet[]; readonly unplaced: readonly Slice[] }> {
  const ofStock = { widthMm: stock.widthMm ?? plainSheet.widthMm, heightMm: stock.heightMm ?? plainSheet.heightMm };
  const left = settings.sheets.map(({ count }) => count);
  const groups = new Map<string, { thicknessMm: number; layers: number; slices: Slice[] }>();
  for (const slice of slices) {
    const { thicknessMm, layers = 1 } = boards[slice.board] ?? { thicknessMm: slice.thicknessMm };
    const key = `${thicknessMm.toFixed(2)} ${layers}`;
    const group = groups.get(key) ?? { thicknessMm, layers, slices: [] };
    group.slices.push(slice);
    groups.set(key, group);
  }
  const sheets: FormerSheet[] = [];
  const unplaced: Slice[] = [];
  let done = 0;
  for (const { thicknessMm, layers, slices: group } of groups.values()) {
    let rest: readonly Slice[] = group;
    const fits = ({ boardMm }: Sheet): boolean => boardMm === undefined || Math.abs(boardMm - thicknessMm) <= sameMm;
    const own = settings.sheets.flatMap((kind, k) => (fits(kind) ? [{ kind, k }] : []));
    for (const { kind, k } of own.length > 0 ? own : [{ kind: ofStock, k: null }]) {
      const most = k === null ? Infinity : Math.floor((left[k] as number) / layers);
      if (rest.length === 0 || most < 1) continue;
      const laid = yield* asPart(onSheets(rest, kind, most), done / slices.length, (done + rest.length) / slices.length);
      sheets.push(...laid.map((formers) => ({ thicknessMm, layers, kind: k, outline: outlineOf(kind), formers })));
      if (k !== null) left[k] = (left[k] as number) - layers * laid.length;
      const placed = new Set(laid.flatMap((formers) => formers.map(({ slice }) => slice)));
      rest = rest.filter((slice) => !placed.has(slice));
    }
    unplaced.push(...rest);
    done += group.length;
  }
  return { sheets, unplaced };
}

/** Formers as they lie on as many sheets of a kind as they take, no more than there are. */
function* onSheets(slices: readonly Slice[], kind: Sheet, most: number): Generator<number, LaidFormer[][]> {
  const { widthMm, heightMm, leftover } = kind;
  const parts = slices.map(({ outline }) => ({ outer: outline, holes: [], count: 1 }));
  const { placed, sheets } = yield* nestedOnSheets(parts, { widthMm, heightMm, marginMm: gapMm, gapMm, angles, outline: leftover?.outline }); // biome-ignore format: one line
  return Array.from({ length: Math.min(sheets, most) }, (_, sheet) =>
    placed.flatMap((one): LaidFormer[] => (one.sheet === sheet ? [{ slice: slices[one.part] as Slice, place: one.place }] : [])),
  ).filter((formers) => formers.length > 0);
}

const withGap = ({ minX, minY, maxX, maxY }: Box): Box => ({ minX: minX - gapMm, minY: minY - gapMm, maxX: maxX + gapMm, maxY: maxY + gapMm }); // biome-ignore format: one line

/** The same as plain data, with what is left of each sheet. */
export function* laidFormers(work: Work<FoamSettings>, plan: FoamPlan): Generator<number, LaidOut> {
  const { sheets, unplaced } = yield* formerSheets(work, plan);
  return {
    sheets: sheets.map(({ formers, ...sheet }): LaidSheet => {
      const parts = formers.map(({ slice: { number, outline, holes }, place }) => ({
        name: String(number),
        outer: transformedPath(outline, place),
        holes: holes.map((hole) => transformedPath(hole, place)),
      }));
      return { ...sheet, parts, leftovers: leftoversOf(sheet.outline, parts.map(({ outer }) => withGap(pathBox(outer))), leastLeftoverMm) }; // biome-ignore format: one line
    }),
    unplaced: unplaced.map(({ number }) => english.foam.former(number)),
  };
}
