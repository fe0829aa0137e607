/** In: a basic shape or path of an SVG drawing. Out: its outlines in user units, y down. Rests on: SVG 2 (W3C), basic shapes. */
import { english } from '../messages/index.ts';
import { circlePath, type Path, polygonPath, transformedPath } from '../plane/path.ts';
import { distance, type Point } from '../plane/point.ts';
import { chain, shift, stretch } from '../plane/transform.ts';
import type { Asides } from './drawing.ts';
import type { SvgElement } from './svg-document.ts';
import { type LengthContext, lengthIn } from './svg-lengths.ts';
import { readPathData } from './svg-path-data.ts';
import type { Style } from './svg-style.ts';

export const shapeNames = new Set(['path', 'circle', 'ellipse', 'rect', 'line', 'polyline', 'polygon']);

const sideOf: Readonly<Record<string, 'x' | 'y' | 'both'>> = { x: 'x', cx: 'x', x1: 'x', x2: 'x', rx: 'x', width: 'x', y: 'y', cy: 'y', y1: 'y', y2: 'y', ry: 'y', height: 'y', r: 'both' }; // biome-ignore format: one line

/** @param tolerance how far curves may leave what they stand for, in user units */
export function shapePaths(
  { name, attributes }: SvgElement,
  style: Style,
  context: LengthContext,
  tolerance: number,
  asides: Asides,
): Path[] {
  const word = (key: string): string | undefined => style[key] || attributes[key];
  const n = (key: string): number => lengthIn(word(key), context, sideOf[key] as 'x') ?? 0;
  /** Null where it says auto, nothing, or less than nothing. */
  const radius = (key: string): number | null => {
    const value = lengthIn(word(key), context, sideOf[key] as 'x');
    return value === null || value < 0 ? null : value;
  };
  switch (name) {
    case 'path': {
      const d = /^path\(\s*(["'])(.*)\1\s*\)$/s.exec(style.d ?? '')?.[2] ?? attributes.d ?? '';
      const { paths, isWhole } = readPathData(d, tolerance);
      if (!isWhole && d) asides.leave(english.files.pathDataFault);
      return paths;
    }
    case 'circle':
      return n('r') > 0 ? [circlePath({ x: n('cx'), y: n('cy') }, n('r'))] : [];
    case 'ellipse': {
      const [rx, ry] = [radius('rx') ?? radius('ry') ?? 0, radius('ry') ?? radius('rx') ?? 0];
      if (!(rx > 0 && ry > 0)) return [];
      return [transformedPath(circlePath({ x: 0, y: 0 }, 1), chain(shift(n('cx'), n('cy')), stretch(rx, ry)), tolerance)];
    }
    case 'rect': {
      const [width, height] = [n('width'), n('height')];
      const [rx, ry] = [radius('rx') ?? radius('ry') ?? 0, radius('ry') ?? radius('rx') ?? 0];
      return width > 0 && height > 0 ? [rectangle(n('x'), n('y'), width, height, rx, ry, tolerance)] : [];
    }
    case 'line':
      return chordsThrough([{ x: n('x1'), y: n('y1') }, { x: n('x2'), y: n('y2') }], false); // biome-ignore format: one line
    default:
      return chordsThrough(pointList(attributes.points ?? ''), name === 'polygon');
  }
}

/** Points up to the first that is no pair of numbers, as the standard asks. */
function pointList(text: string): Point[] {
  const v = text.split(/[\s,]+/).filter(Boolean).map(Number); // biome-ignore format: one line
  const points: Point[] = [];
  for (let k = 0; k + 1 < v.length && Number.isFinite(v[k]) && Number.isFinite(v[k + 1]); k += 2) {
    points.push({ x: v[k] as number, y: v[k + 1] as number });
  }
  return points;
}

/** Straight lines from point to point; none where all lie on one place. */
function chordsThrough(points: readonly Point[], isClosed: boolean): Path[] {
  const [start, ...rest] = points.filter((p, k) => k === 0 || distance(p, points[k - 1] as Point) > 0);
  const last = rest.at(-1);
  if (!start || !last) return [];
  const meets = rest.length > 2 && distance(start, last) === 0;
  if (isClosed && rest.length > 1) return [polygonPath([start, ...(meets ? rest.slice(0, -1) : rest)])];
  return [{ start, segments: rest.map((to) => ({ kind: 'line', to })), closed: meets }];
}

/** Corners rounded where the rectangle asks for it. */
function rectangle(x: number, y: number, w: number, h: number, givenX: number, givenY: number, tolerance: number): Path {
  const [rx, ry] = [Math.min(w / 2, givenX), Math.min(h / 2, givenY)];
  if (!(rx > 0 && ry > 0)) {
    return polygonPath([
      { x, y },
      { x: x + w, y },
      { x: x + w, y: y + h },
      { x, y: y + h },
    ]);
  }
  // Absolute throughout, so that the last corner ends where the first begins, to the last digit.
  const radii = `${rx} ${ry} 0 0 1`;
  const d = `M${x + rx} ${y}H${x + w - rx}A${radii} ${x + w} ${y + ry}V${y + h - ry}A${radii} ${x + w - rx} ${y + h}H${x + rx}A${radii} ${x} ${y + h - ry}V${y + ry}A${radii} ${x + rx} ${y}z`;
  return readPathData(d, tolerance).paths[0] as Path;
}
