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
import type { QuiltingSettings } from './settings.ts';

export type QuiltPartKind = 'sash' | 'post' | 'plain square' | 'side triangle' | 'corner triangle' | 'border';

export interface QuiltPart {
  readonly kind: QuiltPartKind;
  readonly outline: Path;
  /** Of a border, which one: from 0, the inner one. */
  readonly border: number;
}

export interface Quilt {
  readonly widthMm: number;
  readonly heightMm: number;
  /** Where each block lies: from the finished block to the quilt. */
  readonly blocks: readonly Transform[];
  readonly parts: readonly QuiltPart[];
}

type Size = { readonly widthMm: number; readonly heightMm: number };

export function quiltOf(block: Size, settings: QuiltingSettings): Quilt {
  const inner = settings.setting === 'on point' ? onPoint(block, settings) : straight(block, settings);
  const widths = settings.borders.map(({ widthMm }) => widthMm);
  const all = widths.reduce((sum, w) => sum + w, 0);
  const move = shift(all, all);
  const moved = inner.parts.map((part) => ({ ...part, outline: transformedPath(part.outline, move) }));
  return {
    widthMm: inner.widthMm + 2 * all,
    heightMm: inner.heightMm + 2 * all,
    blocks: inner.blocks.map((t) => chain(move, t)),
    parts: [...moved, ...bordersAbout(inner, widths, settings.isMitred)],
  };
}

const rectangle = (kind: QuiltPartKind, box: Box, border = 0): QuiltPart => ({ kind, outline: rectanglePath(box), border });

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

function straight(block: Size, settings: QuiltingSettings): Quilt {
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

/** Blocks stand on a corner; squares between their columns and rows are blocks, too, or plain ones. There is no sashing. */
function onPoint(block: Size, settings: QuiltingSettings): Quilt {
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
        parts.push({ kind: 'plain square', outline: polygonPath(corners), border: 0 });
      }
    }
  const triangle = (kind: QuiltPartKind, a: Point, b: Point, c: Point): void => {
    parts.push({ kind, outline: polygonPath([a, b, c]), border: 0 });
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

/** Borders from the inner one out: the two sides first, then along the top and the bottom; or with mitred corners. */
function bordersAbout({ widthMm, heightMm }: Size, widths: readonly number[], isMitred: boolean): QuiltPart[] {
  const all = widths.reduce((sum, w) => sum + w, 0);
  let [minX, minY, maxX, maxY] = [all, all, all + widthMm, all + heightMm];
  return widths.flatMap((w, border): QuiltPart[] => {
    if (w <= 0) return [];
    const inner = { minX, minY, maxX, maxY };
    [minX, minY, maxX, maxY] = [minX - w, minY - w, maxX + w, maxY + w];
    const outer = { minX, minY, maxX, maxY };
    if (!isMitred)
      return [
        rectangle('border', { ...inner, minX: outer.minX, maxX: inner.minX }, border),
        rectangle('border', { ...inner, minX: inner.maxX, maxX: outer.maxX }, border),
        rectangle('border', { ...outer, maxY: inner.minY }, border),
        rectangle('border', { ...outer, minY: inner.maxY }, border),
      ];
    const [a, b, c, d] = cornersOf(inner);
    const [p, q, r, s] = cornersOf(outer);
    return ([[p, q, b, a], [q, r, c, b], [r, s, d, c], [s, p, a, d]] as const).map(([e, f, g, h]) => ({ kind: 'border', outline: polygonPath([e, f, g, h]), border })); // biome-ignore format: one line
  });
}

const cornersOf = ({ minX, minY, maxX, maxY }: Box): [Point, Point, Point, Point] => [
  { x: minX, y: minY },
  { x: maxX, y: minY },
  { x: maxX, y: maxY },
  { x: minX, y: maxY },
];

/** What a part of the quilt is made of. */
export function fabricOfPart(
  kind: QuiltPartKind,
  border: number,
  { borders, sashingFabric, postFabric, plainFabric }: QuiltingSettings,
): number {
  // biome-ignore format: one line
  if (kind === 'border') return borders[border]?.fabric ?? 0;
  return kind === 'sash' ? sashingFabric : kind === 'post' ? postFabric : plainFabric;
}
