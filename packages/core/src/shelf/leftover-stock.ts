/**
 * In: a material of the shelf, and sheets of it as they are laid out. Out: the material once they are cut: fewer sheets, leftovers that were used
 * gone, what is left of the sheets in their place; and the sheets of a material as a job takes them.
 */
import type { SheetStock } from '../job/sheet-stock.ts';
import { type Path, type Point, pathArea, pathBox, polygonOf, polygonPath } from '../plane/index.ts';
import type { LaidSheet } from '../processes/laid-sheets.ts';
import type { Material } from './material.ts';

/** A material is of boards as thick as it measures, or as it is sold, within this, mm. */
const sameMm = 0.5;
const mostLeftovers = 50;
/** A leftover is no larger than its outline, and at most this much smaller, mm. */
const chordMm = 0.2;

export const isAsThick = ({ measuredMm, nominalMm }: Pick<Material, 'measuredMm' | 'nominalMm'>, thicknessMm: number): boolean => {
  const own = measuredMm ?? nominalMm;
  return own !== null && Math.abs(own - thicknessMm) <= sameMm;
};

/** Its leftovers, the smallest first, then its sheets. */
export function sheetsOf({ sheets, leftovers }: Material, boardMm: number): SheetStock[] {
  const ordered = [...leftovers].sort((a, b) => Math.abs(pathArea(a.outline)) - Math.abs(pathArea(b.outline)));
  return [
    ...ordered.map(({ name, outline }): SheetStock => {
      const straight = inChords(outline);
      const { maxX, maxY } = pathBox(straight);
      return { widthMm: maxX, heightMm: maxY, count: 1, boardMm, leftover: { name, outline: straight } };
    }),
    ...sheets.flatMap(({ widthMm, heightMm, count }): SheetStock[] => (count > 0 ? [{ widthMm, heightMm, count, boardMm }] : [])),
  ];
}

/** As straight chords, rounded, so that a job's settings stay small; its box begins at the origin. */
function inChords(path: Path): Path {
  const places = polygonOf(path, chordMm).map(({ x, y }): Point => ({ x: Math.round(100 * x) / 100, y: Math.round(100 * y) / 100 }));
  const { minX, minY } = pathBox(polygonPath(places));
  return polygonPath(places.map(({ x, y }) => ({ x: Math.round(100 * (x - minX)) / 100, y: Math.round(100 * (y - minY)) / 100 })));
}

/** @param kinds the sheets that were at hand, as the layout names them; @param nameOf the name of a leftover by its number, from 1 */
export function materialAfter(
  before: Material,
  laid: readonly LaidSheet[],
  kinds: readonly SheetStock[],
  nameOf: (number: number) => string,
): Material {
  // One of the stock is as large as it is laid out.
  const used = laid.map(({ kind, layers, outline }) => {
    const { maxX, maxY } = pathBox(outline);
    return { kind: kind === null ? { widthMm: maxX, heightMm: maxY, leftover: undefined } : kinds[kind], layers };
  });
  const gone = new Set(used.flatMap(({ kind }) => (kind?.leftover ? [kind.leftover.name] : [])));
  const sheets = before.sheets.map((sheet) => {
    const taken = used.reduce((sum, { kind, layers }) => (kind && !kind.leftover && kind.widthMm === sheet.widthMm && kind.heightMm === sheet.heightMm ? sum + layers : sum), 0); // biome-ignore format: one line
    return { ...sheet, count: Math.max(0, sheet.count - taken) };
  });
  const kept = before.leftovers.filter(({ name }) => !gone.has(name));
  const names = new Set(kept.map(({ name }) => name));
  const added = laid.flatMap(({ leftovers, layers }) => leftovers.flatMap((outline) => Array.from({ length: layers }, () => outline)));
  let number = 0;
  const fresh = added.map((outline) => {
    do number++;
    while (names.has(nameOf(number)));
    return { name: nameOf(number), outline };
  });
  // The smallest go where there are more than the shelf keeps.
  const leftovers = [...kept, ...fresh]
    .sort((a, b) => Math.abs(pathArea(b.outline)) - Math.abs(pathArea(a.outline)))
    .slice(0, mostLeftovers);
  return { ...before, sheets, leftovers };
}
