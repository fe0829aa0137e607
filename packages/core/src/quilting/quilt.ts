/**
 * In: a finished block's size and how blocks are set. Out: the quilt: where each block, sash, post, setting triangle and border lies, and
 * its size over all. The lower left corner of the quilt is the origin.
 * On point, a block takes its diagonal: its side times sqrt 2.
 */
import {
  type Box,
  chain,
  type Path,
  type Point,
  polygonPath,
  rectanglePath,
  shift,
  type Transform,
  transformedPath,
  turn,
} from '../plane/index.ts';
import { piecedBorder, type Ring } from './pieced-border.ts';
import { type BorderPieces, fabricAt, type QuiltingSettings } from './settings.ts';

export type QuiltPartKind = 'sash' | 'post' | 'plain square' | 'side triangle' | 'corner triangle' | 'border';

export interface QuiltPart {
  readonly kind: QuiltPartKind;
  readonly outline: Path;
  /** Of a border, which one: from 0, the inner one. */
  readonly border: number;
  /** Of a pieced border, of its second fabric, or a square at its corner. */
  readonly role: 'first' | 'second' | 'corner';
}

export interface Quilt {
  readonly widthMm: number;
  readonly heightMm: number;
  /** Where each block lies: from the finished block to the quilt. */
  readonly blocks: readonly Transform[];
  readonly parts: readonly QuiltPart[];
  /** Its borders, from the inner one out; those of no width left out. */
  readonly rings: readonly Ring[];
}

type Size = { readonly widthMm: number; readonly heightMm: number };

export function quiltOf(block: Size, settings: QuiltingSettings): Quilt {
  const inner = innerQuilt(block, settings);
  const { borders, isMitred } = settings;
  const all = borders.reduce((sum, { widthMm }) => sum + widthMm, 0);
  const move = shift(all, all);
  const moved = inner.parts.map((part) => ({ ...part, outline: transformedPath(part.outline, move) }));
  let [minX, minY, maxX, maxY] = [all, all, all + inner.widthMm, all + inner.heightMm];
  const rings = borders.map(({ widthMm: w }): Ring => {
    const within = { minX, minY, maxX, maxY };
    [minX, minY, maxX, maxY] = [minX - w, minY - w, maxX + w, maxY + w];
    return { inner: within, outer: { minX, minY, maxX, maxY } };
  });
  return {
    widthMm: inner.widthMm + 2 * all,
    heightMm: inner.heightMm + 2 * all,
    blocks: inner.blocks.map((t) => chain(move, t)),
    parts: [
      ...moved,
      ...borders.flatMap(({ widthMm, pieces = 'plain' }, k) => (widthMm > 0 ? borderParts(rings[k] as Ring, k, pieces, isMitred) : [])),
    ],
    rings: rings.filter((_, k) => (borders[k]?.widthMm ?? 0) > 0),
  };
}

type Inner = Omit<Quilt, 'rings'>;

/** The quilt without its borders. */
function innerQuilt(block: Size, settings: QuiltingSettings): Inner {
  if (settings.setting === 'on point') return onPoint(block, settings);
  if (settings.setting === 'strips') return strips(block, settings);
  return straight(block, settings.setting === 'medallion' ? { ...settings, columns: 1, rows: 1, alternate: false } : settings);
}

const part = (kind: QuiltPartKind, outline: Path, border = 0, role: QuiltPart['role'] = 'first'): QuiltPart => ({ kind, outline, border, role }); // biome-ignore format: one line
const rectangle = (kind: QuiltPartKind, box: Box): QuiltPart => part(kind, rectanglePath(box));

/** How the block in a column and row is turned, about its own middle. */
function turnedAt({ turning }: QuiltingSettings, column: number, row: number, { widthMm, heightMm }: Size): Transform {
  const middle: Point = { x: widthMm / 2, y: heightMm / 2 };
  const back = shift(-middle.x, -middle.y);
  const there = shift(middle.x, middle.y);
  if (turning === 'mirrored') {
    const [a, d] = [column % 2 === 0 ? 1 : -1, row % 2 === 0 ? 1 : -1];
    return chain(there, chain({ a, b: 0, c: 0, d, e: 0, f: 0 }, back));
  }
  // Round and round: right, down, left, up.
  const quarters = turning === 'quarter turns' ? (row % 2 === 0 ? column % 2 : 3 - (column % 2)) : 0;
  const isTurned = quarters !== 0 && Math.abs(widthMm - heightMm) < 1e-6;
  return chain(there, chain(turn(isTurned ? (quarters * Math.PI) / 2 : 0), back));
}

function straight(block: Size, settings: QuiltingSettings): Inner {
  const { columns, rows, sashingMm: sash, hasPosts, alternate } = settings;
  const [stepX, stepY] = [block.widthMm + sash, block.heightMm + sash];
  const [widthMm, heightMm] = [columns * stepX - sash, rows * stepY - sash];
  const blocks: Transform[] = [];
  const parts: QuiltPart[] = [];
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      const [x, y] = [column * stepX, row * stepY];
      const [right, top] = [x + block.widthMm, y + block.heightMm];
      if (alternate && (row + column) % 2 === 1) parts.push(rectangle('plain square', { minX: x, minY: y, maxX: right, maxY: top }));
      else blocks.push(chain(shift(x, y), turnedAt(settings, column, row, block)));
      if (sash <= 0) continue;
      if (column < columns - 1) parts.push(rectangle('sash', { minX: right, minY: y, maxX: right + sash, maxY: top }));
      if (row >= rows - 1) continue;
      if (hasPosts) {
        parts.push(rectangle('sash', { minX: x, minY: top, maxX: right, maxY: top + sash }));
        if (column < columns - 1) parts.push(rectangle('post', { minX: right, minY: top, maxX: right + sash, maxY: top + sash }));
      } else if (column === 0) parts.push(rectangle('sash', { minX: 0, minY: top, maxX: widthMm, maxY: top + sash }));
    }
  return { widthMm, heightMm, blocks, parts };
}

/** Columns of blocks, strips between them from top to bottom. */
function strips(block: Size, settings: QuiltingSettings): Inner {
  const { columns, rows, sashingMm: sash, alternate } = settings;
  const step = block.widthMm + sash;
  const [widthMm, heightMm] = [columns * step - sash, rows * block.heightMm];
  const blocks: Transform[] = [];
  const parts: QuiltPart[] = [];
  for (let column = 0; column < columns; column++) {
    const x = column * step;
    for (let row = 0; row < rows; row++) {
      const y = row * block.heightMm;
      if (alternate && (row + column) % 2 === 1)
        parts.push(rectangle('plain square', { minX: x, minY: y, maxX: x + block.widthMm, maxY: y + block.heightMm }));
      else blocks.push(chain(shift(x, y), turnedAt(settings, column, row, block)));
    }
    if (sash > 0 && column < columns - 1)
      parts.push(rectangle('sash', { minX: x + block.widthMm, minY: 0, maxX: x + step, maxY: heightMm }));
  }
  return { widthMm, heightMm, blocks, parts };
}

/** Blocks stand on a corner; squares between their columns and rows are blocks, too, or plain ones. There is no sashing. */
function onPoint(block: Size, settings: QuiltingSettings): Inner {
  const { columns, rows, alternate } = settings;
  const side = Math.max(block.widthMm, block.heightMm);
  const diagonal = side * Math.SQRT2;
  const half = diagonal / 2;
  const [widthMm, heightMm] = [columns * diagonal, rows * diagonal];
  const blocks: Transform[] = [];
  const parts: QuiltPart[] = [];
  /** From the block to its place with its middle there. */
  const stood = (x: number, y: number, column: number, row: number): Transform =>
    chain(
      shift(x, y),
      chain(turn(Math.PI / 4), chain(shift(-block.widthMm / 2, -block.heightMm / 2), turnedAt(settings, column, row, block))),
    );
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) blocks.push(stood(half + column * diagonal, half + row * diagonal, column, row));
  for (let row = 1; row < rows; row++)
    for (let column = 1; column < columns; column++) {
      const [x, y] = [column * diagonal, row * diagonal];
      if (!alternate) blocks.push(stood(x, y, column, row));
      else {
        const corners = [{ x: x - half, y }, { x, y: y - half }, { x: x + half, y }, { x, y: y + half }]; // biome-ignore format: one line
        parts.push(part('plain square', polygonPath(corners)));
      }
    }
  const triangle = (kind: QuiltPartKind, a: Point, b: Point, c: Point): void => {
    parts.push(part(kind, polygonPath([a, b, c])));
  };
  for (let column = 1; column < columns; column++) {
    const x = column * diagonal;
    triangle('side triangle', { x: x - half, y: 0 }, { x: x + half, y: 0 }, { x, y: half });
    triangle('side triangle', { x: x + half, y: heightMm }, { x: x - half, y: heightMm }, { x, y: heightMm - half });
  }
  for (let row = 1; row < rows; row++) {
    const y = row * diagonal;
    triangle('side triangle', { x: 0, y: y + half }, { x: 0, y: y - half }, { x: half, y });
    triangle('side triangle', { x: widthMm, y: y - half }, { x: widthMm, y: y + half }, { x: widthMm - half, y });
  }
  triangle('corner triangle', { x: 0, y: 0 }, { x: half, y: 0 }, { x: 0, y: half });
  triangle('corner triangle', { x: widthMm, y: 0 }, { x: widthMm, y: half }, { x: widthMm - half, y: 0 });
  triangle('corner triangle', { x: widthMm, y: heightMm }, { x: widthMm - half, y: heightMm }, { x: widthMm, y: heightMm - half });
  triangle('corner triangle', { x: 0, y: heightMm }, { x: 0, y: heightMm - half }, { x: half, y: heightMm });
  return { widthMm, heightMm, blocks, parts };
}

/** A plain border: the two sides first, then along the top and the bottom; or with mitred corners. A pieced one has squares at its corners. */
function borderParts({ inner, outer }: Ring, border: number, pieces: BorderPieces, isMitred: boolean): QuiltPart[] {
  if (pieces !== 'plain')
    return piecedBorder(inner, inner.minX - outer.minX, pieces).map(({ outline, role }) => part('border', outline, border, role));
  const [a, b, c, d] = cornersOf(inner);
  const [p, q, r, s] = cornersOf(outer);
  if (isMitred) return ([[p, q, b, a], [q, r, c, b], [r, s, d, c], [s, p, a, d]] as const).map((places) => part('border', polygonPath(places), border)); // biome-ignore format: one line
  return [
    { ...inner, minX: outer.minX, maxX: inner.minX },
    { ...inner, minX: inner.maxX, maxX: outer.maxX },
    { ...outer, maxY: inner.minY },
    { ...outer, minY: inner.maxY },
  ].map((box) => part('border', rectanglePath(box), border));
}

const cornersOf = ({ minX, minY, maxX, maxY }: Box): [Point, Point, Point, Point] => [
  { x: minX, y: minY },
  { x: maxX, y: minY },
  { x: maxX, y: maxY },
  { x: minX, y: maxY },
];

/** What a part of the quilt is made of, as a position among the fabrics. */
export function fabricOfPart({ kind, border, role }: QuiltPart, settings: QuiltingSettings): number {
  const { borders, sashingFabric, postFabric, plainFabric } = settings;
  const { fabric = 0, second = 0, corner = second } = borders[border] ?? {};
  const own = { border: { first: fabric, second, corner }[role], sash: sashingFabric, post: postFabric };
  return fabricAt(settings, kind === 'border' || kind === 'sash' || kind === 'post' ? own[kind] : plainFabric);
}
