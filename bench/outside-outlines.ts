/**
 * Outlines drawn by others as truth: the letters of two open-licensed fonts (Libre Baskerville and Work Sans, read by
 * opentype.js) and the paths of an open-licensed icon set (Bootstrap Icons), each rendered as a scan.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { readPathData } from '@nuvet/core/formats';
import {
  distance,
  isInside,
  type Path,
  type Point,
  pathArea,
  pathBox,
  pointOn,
  type Segment,
  segmentLength,
  stepsOf,
  transformedPath,
} from '@nuvet/core/plane';
import type { Scene } from '@nuvet/truth';
import opentype, { type PathCommand } from 'opentype.js';

const require = createRequire(import.meta.url);

export interface OutsideOutline {
  readonly name: string;
  readonly scene: Scene;
  readonly outlines: readonly Path[];
}

/** Room about a figure, mm. */
const margin = 4;

function sceneOf(name: string, paths: readonly Path[]): OutsideOutline {
  const boxes = paths.map(pathBox);
  const [minX, minY] = [Math.min(...boxes.map((b) => b.minX)), Math.min(...boxes.map((b) => b.minY))];
  const [maxX, maxY] = [Math.max(...boxes.map((b) => b.maxX)), Math.max(...boxes.map((b) => b.maxY))];
  const home = { a: 1, b: 0, c: 0, d: 1, e: margin - minX, f: margin - minY };
  // Fonts hold segments of no length, which nothing can show.
  const outlines = paths.map((path) => {
    const moved = transformedPath(path, home);
    return { ...moved, segments: stepsOf(moved).flatMap(({ from, segment }) => (segmentLength(from, segment) > 0.01 ? [segment] : [])) };
  });
  const [outer, ...holes] = outlines;
  if (!outer) throw new Error(`${name} has no outline`);
  return {
    name,
    outlines,
    scene: { name, widthMm: maxX - minX + 2 * margin, heightMm: maxY - minY + 2 * margin, pieces: [{ outer, holes }] },
  };
}

/** The capitals and small letters of a font, capitals 48 mm tall. */
export function letters(family: 'libre-baskerville' | 'work-sans', text: string): OutsideOutline[] {
  const weight = family === 'work-sans' ? 500 : 400;
  const file = require.resolve(`@fontsource/${family}/files/${family}-latin-${weight}-normal.woff`);
  const bytes = readFileSync(file);
  const font = opentype.parse(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer);
  const { y1, y2 } = font.getPath('H', 0, 0, 1000).getBoundingBox();
  const size = (48 * 1000) / (y2 - y1);
  return [...text].map((letter) => sceneOf(`${family} ${letter}`, pathsOf(font.getPath(letter, 0, 0, size).commands)));
}

/** Closed paths from drawing commands; y comes down and goes up. */
function pathsOf(commands: readonly PathCommand[]): Path[] {
  const paths: Path[] = [];
  let start: Point = { x: 0, y: 0 };
  let segments: Segment[] = [];
  const up = (x: number, y: number): Point => ({ x, y: -y });
  const close = () => {
    const end = segments.at(-1)?.to;
    if (end && Math.hypot(end.x - start.x, end.y - start.y) > 1e-6) segments.push({ kind: 'line', to: start });
    if (segments.length > 0) paths.push({ start, segments, closed: true });
    segments = [];
  };
  let from = start;
  for (const command of commands) {
    if (command.type === 'Z') close();
    else {
      const to = up(command.x, command.y);
      if (command.type === 'M') {
        // A contour ends where the next one begins.
        close();
        start = to;
      } else if (command.type === 'L') segments.push({ kind: 'line', to });
      else if (command.type === 'C') segments.push({ kind: 'cubic', c1: up(command.x1, command.y1), c2: up(command.x2, command.y2), to });
      else {
        const q = up(command.x1, command.y1);
        const third = (p: Point): Point => ({ x: p.x + (2 / 3) * (q.x - p.x), y: p.y + (2 / 3) * (q.y - p.y) });
        segments.push({ kind: 'cubic', c1: third(from), c2: third(to), to });
      }
      from = to;
    }
  }
  close();
  return paths;
}

/** Icons whose outlines neither cross nor touch, another or themselves, evenly through the set, 40 mm wide. */
export function icons(count: number): OutsideOutline[] {
  const folder = require.resolve('bootstrap-icons/icons/heart-fill.svg').replace(/heart-fill\.svg$/, '');
  const files = readdirSync(folder).filter((file) => file.endsWith('-fill.svg'));
  const step = files.length / count;
  return Array.from({ length: count }, (_, k) => files[Math.floor(k * step)] as string).flatMap((file) => {
    const data = [...readFileSync(folder + file, 'utf8').matchAll(/<path[^>]* d="([^"]+)"/g)].map((m) => m[1] as string);
    const paths = data
      .flatMap((d) => readPathData(d, 1e-4).paths)
      .filter((path) => path.closed)
      .map((path) => transformedPath(path, { a: 2.5, b: 0, c: 0, d: -2.5, e: 0, f: 40 }));
    return paths.length > 0 && isPlain(paths) ? [sceneOf(`icon ${file.replace('.svg', '')}`, paths)] : [];
  });
}

/** Whether every path is seen as it is drawn: none hides in another that is filled, none crosses another. */
const isPlain = (paths: readonly Path[]): boolean =>
  paths.every((a) => Math.abs(pathArea(a)) > 0.5 && !touchesItself(a)) &&
  paths.every((a, k) =>
    paths.slice(k + 1).every((b) => {
      const [insideA, insideB] = [isInside(a, b.start), isInside(b, a.start)];
      const isOpposite = pathArea(a) > 0 !== pathArea(b) > 0;
      const [boxA, boxB] = [pathBox(a), pathBox(b)];
      const isApart = boxA.maxX < boxB.minX || boxB.maxX < boxA.minX || boxA.maxY < boxB.minY || boxB.maxY < boxA.minY;
      return insideA || insideB ? isOpposite : isApart;
    }),
  );

/** Places along an outline are taken so far apart, mm. */
const apart = 0.1;
/** Parts of one outline whose places come nearer than this are seen as one line, mm: three pixels. */
const seenAsOne = 0.06;
/** Nearer along the outline than this its parts are neighbours, mm. */
const neighbours = 1.5;

/** Whether an outline runs back over itself, or crosses or touches itself: what is seen is then another outline. */
function touchesItself(path: Path): boolean {
  const places = stepsOf(path).flatMap(({ from, segment }) => {
    const count = Math.max(1, Math.ceil(segmentLength(from, segment) / apart));
    return Array.from({ length: count }, (_, k) => pointOn(from, segment, k / count));
  });
  const skipped = Math.ceil(neighbours / apart);
  return places.some((a, k) => places.slice(k + skipped, places.length + Math.min(0, k - skipped)).some((b) => distance(a, b) < seenAsOne));
}
