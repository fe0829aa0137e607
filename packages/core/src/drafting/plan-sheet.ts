/**
 * In: a job's pieces, its stock, and what a plan sheet is to show. Out: the sheet: views at a stated scale, dimensions, centre lines, a section
 * or a detail, the parts list and the title block, in millimetres of the paper.
 */
import type { Stock } from '../job/making.ts';
import { makeOf } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import { papers } from '../make/tiles.ts';
import { english, SaidError, say } from '../messages/index.ts';
import { type Box, boxAroundBoxes, chain, circlePath, levelCrossings, type Path, type Point, pathArea, pathBox, polygonOf, rectanglePath, shift, stretch, transformedPath } from '../plane/index.ts'; // biome-ignore format: one line
import { Dimensioning, holeOf, lengthWritten } from './dimensions.ts';
import { type PlanSheetSettings, type SheetScale, sheetScales } from './settings.ts';
import { type DrawnDimension, letters, type SheetStroke, type SheetText } from './sheet-lines.ts';

export interface SheetPlan {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly scale: SheetScale;
  readonly strokes: readonly SheetStroke[];
  readonly texts: readonly SheetText[];
  readonly dimensions: readonly DrawnDimension[];
  /** Names of all dimensions, those that are left out, too. */
  readonly names: readonly string[];
  /** The front view on the paper: files are read back and compared with it. */
  readonly front: readonly Path[];
  readonly notes: readonly (ReturnType<typeof say.drafting.doesNotFit> & { readonly pieceId: string; readonly isFailure: boolean })[];
}

const marginMm = 10;
const [blockWide, blockHigh] = [170, 32];
const rowMm = 5;
/** Kept about the views for their dimensions, paper mm: to the left and below, and elsewhere. */
const [dimensionRoom, otherRoom] = [42, 16];
const betweenViews = 22;
const hatchMm = 2.5;
const centreOver = 2;
const chordMm = 0.02;
const mostParts = 12;

/** @throws SaidError where there is nothing to draw */
export function planSheet(title: string, pieces: readonly Piece[], stock: Stock, settings: PlanSheetSettings): SheetPlan {
  const shown = pieces.filter((piece) => makeOf(piece) !== 'nothing');
  if (shown.length === 0) throw new SaidError(say.drafting.nothingToDraw());
  const paths = shown.flatMap(({ outer, holes }) => [outer, ...holes]);
  const box = boxAroundBoxes(paths.map(pathBox)) as Box;
  const [w, h] = papers[settings.paper] as readonly [number, number];
  const [widthMm, heightMm] = settings.isLandscape ? [h, w] : [w, h];
  const thick = stock.thicknessMm;
  const beside = thick !== null && (settings.hasSideView || settings.sectionAtMm !== null) ? thick : 0;
  const under = thick !== null && settings.hasTopView ? thick : 0;
  const rows = partRows(shown, stock);
  const room = {
    wide: widthMm - 2 * marginMm - dimensionRoom - otherRoom - (beside > 0 ? betweenViews : 0),
    high: heightMm - 2 * marginMm - blockHigh - rowMm * (rows.length + 1) - dimensionRoom - otherRoom - (under > 0 ? betweenViews : 0),
  };
  const [size, isFitting] = scaleFor(settings.scale, (scale) => scale * (box.maxX - box.minX + beside) <= room.wide && scale * (box.maxY - box.minY + under) <= room.high); // biome-ignore format: one line
  const scale = sheetScales[size];
  // Views as a group in the middle of their room.
  const left = marginMm + dimensionRoom + Math.max(0, (room.wide - scale * (box.maxX - box.minX + beside)) / 2);
  const top = heightMm - marginMm - otherRoom - Math.max(0, (room.high - scale * (box.maxY - box.minY + under)) / 2);
  const place = chain(shift(left - scale * box.minX, top - scale * box.maxY), stretch(scale));
  const onPaper = ({ x, y }: Point): Point => ({ x: place.a * x + place.e, y: place.d * y + place.f });
  const front = paths.map((path) => transformedPath(path, place));
  const strokes: SheetStroke[] = front.map((path) => ({ path, kind: 'visible' }));
  const texts: SheetText[] = [];
  for (const hole of paths.flatMap((path) => holeOf(path) ?? [])) strokes.push(...centreLines(onPaper(hole.centre), scale * hole.radius));
  const aside = onPaper({ x: box.maxX, y: box.minY });
  const sideView =
    beside > 0 ? [{ minX: aside.x + betweenViews, minY: aside.y, maxX: aside.x + betweenViews + scale * beside, maxY: top }] : [];
  const dimensioning = new Dimensioning(paths, onPaper, scale, settings, sideView);
  const dimensions = [...dimensioning.place()];
  const names = new Dimensioning(paths, onPaper, scale, { ...settings, leftOut: [] }).place().map(({ name }) => name);
  const foot = onPaper({ x: box.minX, y: box.minY }).y;
  const right = onPaper({ x: box.maxX, y: box.minY }).x;
  const solid = shown.filter(({ outer }) => outer.closed);
  if (thick !== null && settings.sectionAtMm !== null) section(solid, box, thick, settings.sectionAtMm, right + betweenViews, scale, onPaper, strokes, texts); // biome-ignore format: one line
  else if (thick !== null && settings.hasSideView) edgeView(solid, 'y', (value, depth) => ({ x: right + betweenViews + scale * depth, y: onPaper({ x: 0, y: value }).y }), thick, strokes); // biome-ignore format: one line
  if (thick !== null && settings.hasTopView) edgeView(solid, 'x', (value, depth) => ({ x: onPaper({ x: value, y: 0 }).x, y: foot - dimensioning.reach.below - betweenViews / 2 - scale * depth }), thick, strokes); // biome-ignore format: one line
  if (settings.detail)
    detail(
      paths,
      { ...settings.detail, x: box.minX + settings.detail.x, y: box.minY + settings.detail.y },
      onPaper,
      scale,
      { x: widthMm - marginMm - otherRoom, y: top },
      strokes,
      texts,
    );
  titleBlock(title, settings, size, stock, rows, widthMm, heightMm, strokes, texts);
  const notes = isFitting ? [] : [{ ...say.drafting.doesNotFit(size, settings.paper), pieceId: '', isFailure: false }];
  return { widthMm, heightMm, scale: size, strokes, texts, dimensions, names, front, notes };
}

/** The named one, or the largest that fits; else the smallest. */
function scaleFor(named: SheetScale | null, fits: (scale: number) => boolean): [SheetScale, boolean] {
  if (named) return [named, fits(sheetScales[named])];
  const metric = (Object.keys(sheetScales) as SheetScale[]).filter((size) => !size.includes('ft'));
  const found = metric.find((size) => fits(sheetScales[size]));
  return found ? [found, true] : [metric.at(-1) as SheetScale, false];
}

const line = (a: Point, b: Point): Path => ({ start: a, segments: [{ kind: 'line', to: b }], closed: false });

function centreLines({ x, y }: Point, radius: number): SheetStroke[] {
  const r = radius + centreOver;
  return [line({ x: x - r, y }, { x: x + r, y }), line({ x, y: y - r }, { x, y: y + r })].map((path) => ({ path, kind: 'centre' }));
}

/** Plates seen from an edge: each a rectangle, its holes and what lies behind hidden. */
function edgeView(
  pieces: readonly Piece[],
  axis: 'x' | 'y',
  at: (value: number, depth: number) => Point,
  thick: number,
  strokes: SheetStroke[],
): void {
  const range = (path: Path): [number, number] => {
    const { minX, maxX, minY, maxY } = pathBox(path);
    return axis === 'x' ? [minX, maxX] : [minY, maxY];
  };
  const outer = merged(pieces.map(({ outer: path }) => range(path)));
  const cornersOf = ([low, high]: readonly [number, number]): Path[] => {
    const [a, b, c, d] = [at(low, 0), at(high, 0), at(high, thick), at(low, thick)];
    return [line(a, b), line(b, c), line(c, d), line(d, a)];
  };
  strokes.push(...outer.flatMap(cornersOf).map((path) => ({ path, kind: 'visible' as const })));
  const hidden = new Set(pieces.flatMap(({ holes }) => holes.flatMap((hole) => range(hole))).map((value) => value.toFixed(4)));
  const ends = new Set(outer.flat().map((value) => value.toFixed(4)));
  for (const value of hidden)
    if (!ends.has(value)) strokes.push({ path: line(at(Number(value), 0), at(Number(value), thick)), kind: 'hidden' });
}

/** Stretches that overlap or touch as one. */
function merged(ranges: readonly (readonly [number, number])[]): [number, number][] {
  const sorted = [...ranges].sort(([a], [b]) => a - b);
  const made: [number, number][] = [];
  for (const [low, high] of sorted) {
    const last = made.at(-1);
    if (last && low <= last[1]) last[1] = Math.max(last[1], high);
    else made.push([low, high]);
  }
  return made;
}

/** What an upright plane cuts, hatched, beside the view; the plane is marked in the view. */
function section(
  pieces: readonly Piece[],
  box: Box,
  thick: number,
  fromLeftMm: number,
  left: number,
  scale: number,
  onPaper: (p: Point) => Point,
  strokes: SheetStroke[],
  texts: SheetText[],
): void {
  const x = box.minX + fromLeftMm;
  const over = 6;
  const [foot, head] = [onPaper({ x, y: box.minY }), onPaper({ x, y: box.maxY })];
  strokes.push({ path: line({ x: foot.x, y: foot.y - over }, { x: head.x, y: head.y + over }), kind: 'centre' });
  for (const y of [foot.y - over - letters.plain - 1, head.y + over + 1]) texts.push({ text: 'A', at: { x: foot.x, y }, heightMm: letters.plain, anchor: 'middle', degrees: 0 }); // biome-ignore format: one line
  for (const { outer, holes } of pieces) {
    // Crossings with an upright line are those of the outline with its axes exchanged.
    const crossings = [outer, ...holes].flatMap((path) => levelCrossings(polygonOf(path, chordMm).map((p) => ({ x: p.y, y: p.x })), x)).sort((a, b) => a - b); // biome-ignore format: one line
    for (let k = 0; k + 1 < crossings.length; k += 2) {
      const [low, high] = [onPaper({ x, y: crossings[k] as number }).y, onPaper({ x, y: crossings[k + 1] as number }).y];
      const cut = rectanglePath({ minX: left, minY: low, maxX: left + scale * thick, maxY: high });
      strokes.push({ path: cut, kind: 'visible' }, ...hatched(left, low, left + scale * thick, high));
    }
  }
  texts.push({
    text: 'A-A',
    at: { x: left + (scale * thick) / 2, y: head.y + over + 1 },
    heightMm: letters.plain,
    anchor: 'middle',
    degrees: 0,
  });
}

function hatched(minX: number, minY: number, maxX: number, maxY: number): SheetStroke[] {
  const step = hatchMm * Math.SQRT2;
  const strokes: SheetStroke[] = [];
  for (let c = minY - maxX + step; c < maxY - minX; c += step) {
    const [x1, x2] = [Math.max(minX, minY - c), Math.min(maxX, maxY - c)];
    if (x2 > x1) strokes.push({ path: line({ x: x1, y: x1 + c }, { x: x2, y: x2 + c }), kind: 'hatch' });
  }
  return strokes;
}

/** A circle of the drawing at a larger scale, up at the right. */
function detail(
  paths: readonly Path[],
  { x, y, radiusMm, times }: NonNullable<PlanSheetSettings['detail']>,
  onPaper: (p: Point) => Point,
  scale: number,
  corner: Point,
  strokes: SheetStroke[],
  texts: SheetText[],
): void {
  const r = scale * times * radiusMm;
  const middle = { x: corner.x - r, y: corner.y - r };
  const own = onPaper({ x, y });
  strokes.push({ path: circlePath(own, scale * radiusMm), kind: 'dimension' }, { path: circlePath(middle, r), kind: 'dimension' });
  texts.push({
    text: 'B',
    at: { x: own.x + scale * radiusMm + 1, y: own.y + scale * radiusMm },
    heightMm: letters.plain,
    anchor: 'start',
    degrees: 0,
  });
  texts.push({ text: english.drafting.detail(`${Number((scale * times).toFixed(2))}:1`), at: { x: middle.x, y: middle.y - r - letters.plain - 1 }, heightMm: letters.plain, anchor: 'middle', degrees: 0 }); // biome-ignore format: one line
  const to = (p: Point): Point => ({ x: middle.x + scale * times * (p.x - x), y: middle.y + scale * times * (p.y - y) });
  for (const path of paths) {
    const polygon = polygonOf(path, chordMm / times);
    const closed = path.closed ? [...polygon, polygon[0] as Point] : polygon;
    for (const [k, a] of closed.slice(0, -1).entries()) {
      const inside = withinCircle(a, closed[k + 1] as Point, { x, y }, radiusMm);
      if (inside) strokes.push({ path: line(to(inside[0]), to(inside[1])), kind: 'visible' });
    }
  }
}

/** The part of a chord within a circle. */
function withinCircle(a: Point, b: Point, { x, y }: Point, r: number): [Point, Point] | null {
  const [ux, uy, vx, vy] = [b.x - a.x, b.y - a.y, a.x - x, a.y - y];
  const [p, q, c] = [ux * ux + uy * uy, ux * vx + uy * vy, vx * vx + vy * vy - r * r];
  const root = q * q - p * c;
  if (p === 0 || root <= 0) return null;
  const [from, to] = [Math.max(0, (-q - Math.sqrt(root)) / p), Math.min(1, (-q + Math.sqrt(root)) / p)];
  const at = (t: number): Point => ({ x: a.x + t * ux, y: a.y + t * uy });
  return to > from ? [at(from), at(to)] : null;
}

interface PartRow {
  readonly name: string;
  readonly count: number;
  readonly size: readonly [number, number];
  readonly material: string;
}

/** Pieces that are alike in size and area once, with how many there are. */
function partRows(pieces: readonly Piece[], stock: Stock): PartRow[] {
  const rows = new Map<string, PartRow>();
  for (const { name, outer, holes } of pieces) {
    if (!outer.closed) continue;
    const { minX, maxX, minY, maxY } = pathBox(outer);
    const area = Math.abs(pathArea(outer)) - holes.reduce((sum, hole) => sum + Math.abs(pathArea(hole)), 0);
    const key = `${(maxX - minX).toFixed(2)} ${(maxY - minY).toFixed(2)} ${area.toFixed(1)}`;
    const before = rows.get(key);
    rows.set(key, before ? { ...before, count: before.count + 1 } : { name, count: 1, size: [maxX - minX, maxY - minY], material: stock.name ?? '' }); // biome-ignore format: one line
  }
  return [...rows.values()].slice(0, mostParts);
}

function titleBlock(
  title: string,
  settings: PlanSheetSettings,
  scale: SheetScale,
  stock: Stock,
  rows: readonly PartRow[],
  widthMm: number,
  heightMm: number,
  strokes: SheetStroke[],
  texts: SheetText[],
): void {
  const frame = (path: Path): void => {
    strokes.push({ path, kind: 'frame' });
  };
  const thin = (a: Point, b: Point): void => {
    strokes.push({ path: line(a, b), kind: 'dimension' });
  };
  const write = (text: string, x: number, y: number, height: number = letters.plain): void => {
    if (text) texts.push({ text, at: { x, y }, heightMm: height, anchor: 'start', degrees: 0 });
  };
  frame(rectanglePath({ minX: marginMm, minY: marginMm, maxX: widthMm - marginMm, maxY: heightMm - marginMm }));
  const wide = Math.min(blockWide, widthMm - 2 * marginMm);
  const left = widthMm - marginMm - wide;
  const top = marginMm + blockHigh;
  frame(rectanglePath({ minX: left, minY: marginMm, maxX: left + wide, maxY: top }));
  const { system } = settings;
  const say = english.drafting;
  const cell = (word: string, text: string, x: number, y: number): void => {
    write(word, x + 1.5, y + 7, letters.small);
    write(text, x + 1.5, y + 2);
  };
  const third = wide / 3;
  write(title, left + 2, top - 8, letters.title);
  for (const y of [marginMm + 10.5, marginMm + 21]) thin({ x: left, y }, { x: left + wide, y });
  for (const k of [1, 2]) thin({ x: left + k * third, y: marginMm }, { x: left + k * third, y: marginMm + 21 });
  const thick = stock.thicknessMm === null ? '' : lengthWritten(stock.thicknessMm, system);
  cell(say.material, [stock.name ?? '', thick].filter(Boolean).join(', '), left, marginMm + 10.5);
  cell(say.scale, scale, left + third, marginMm + 10.5);
  cell(say.tolerance, `± ${lengthWritten(settings.toleranceMm, system)}`, left + 2 * third, marginMm + 10.5);
  cell(say.drawnBy, [settings.drawnBy, settings.date].filter(Boolean).join(', '), left, marginMm);
  cell(say.number, settings.number, left + third, marginMm);
  cell(say.revision, settings.revision, left + 2 * third, marginMm);
  const columns = [0, 0.48, 0.6, 0.82].map((share) => left + share * wide + 1.5);
  const row = (words: readonly string[], y: number): void => {
    for (const [k, word] of words.entries()) write(word, columns[k] as number, y, letters.small);
  };
  for (const [k, { name, count, size, material }] of rows.entries()) row([name, `${count}`, size.map((mm) => lengthWritten(mm, system)).join(' x '), material], top + rowMm * k + 1.3); // biome-ignore format: one line
  row([say.part, say.count, say.size, say.material], top + rowMm * rows.length + 1.3);
  for (let k = 1; k <= rows.length + 1; k++) thin({ x: left, y: top + rowMm * k }, { x: left + wide, y: top + rowMm * k });
  for (const x of [left, left + wide]) thin({ x, y: top }, { x, y: top + rowMm * (rows.length + 1) });
}
