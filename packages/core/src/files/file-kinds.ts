/**
 * The kinds of files: what each is called and how it is made and read back. One entry is all that a new kind needs beside its writer and
 * reader in `formats/`. What a file says is compared with what was proved; how far it is off is part of what is made.
 */
import { strFromU8, strToU8 } from 'fflate';
import { farthest, fileDeviation, placesAlong } from '../formats/deviation.ts';
import { writeDxf } from '../formats/dxf.ts';
import { readDxf } from '../formats/dxf-reading.ts';
import { type Toolpath, writeGcode } from '../formats/gcode.ts';
import { readGcode } from '../formats/gcode-reading.ts';
import { plotterUnitMm, readHpgl, writeHpgl } from '../formats/hpgl.ts';
import { type FilePiece, placedAtOrigin } from '../formats/placement.ts';
import { readGreyPng, writePng } from '../formats/png.ts';
import { writeSvg } from '../formats/svg.ts';
import { readSvg } from '../formats/svg-reading.ts';
import type { Machine } from '../job/machine.ts';
import { makeOf, mustClose, type Purpose } from '../job/purposes.ts';
import type { PowerSetting } from '../make/cutting.ts';
import { toMachine } from '../make/placement.ts';
import type { CutPlan } from '../make/plan.ts';
import { SaidError, say } from '../messages/index.ts';
import {
  type Box,
  boxAroundBoxes,
  inverse,
  type Path,
  type Point,
  pathBox,
  shift,
  type Transform,
  transformedPath,
} from '../plane/index.ts';
import { contoursAt, greyPicture, rasterize } from '../raster/index.ts';
import { distanceTo, strokeOutline } from '../shape/index.ts';
import { finished } from '../steps.ts';

export interface MadeBytes {
  readonly bytes: Uint8Array;
  /** How far what the file says lies from what was proved, at most, and how far it may, mm. */
  readonly largestMm: number;
  readonly toleranceMm: number;
  readonly widthMm: number;
  readonly heightMm: number;
}

export class FileRefused extends SaidError {
  readonly code = 'file-deviates';
}

export interface FileOptions {
  readonly title: string;
  readonly machine: Machine;
  /** The toolpaths, for kinds that hold the cut. */
  readonly plan: CutPlan;
  readonly powerSettingOf: (purpose: Purpose) => PowerSetting;
  /** Pixels of a PNG in an inch. */
  readonly dpi: number;
}

export interface FileKindEntry {
  /** What it is called, and what its line says. */
  readonly word: string;
  readonly about: string;
  readonly ending: string;
  readonly mediaType: string;
  /** The outlines as drawn, or the cut as planned. */
  readonly holds: 'outlines' | 'cut';
  /** Whether it is a picture, of so many pixels in an inch. */
  readonly isRaster?: true;
  make(outlines: readonly FilePiece[], options: FileOptions): Promise<MadeBytes>;
}

/** What is left of rounding to a file's last digit, mm. */
const digitMm = 0.0005;
/** Lines in a PNG are drawn this wide, mm. */
const lineMm = 0.2;
const maxPixels = 120e6;

const pathsOf = (pieces: readonly FilePiece[]): Path[] => pieces.flatMap((p) => [p.outer, ...p.holes]);

const kinds = {
  dxf: {
    word: 'DXF',
    about: 'One layer per purpose; every outline closed.',
    ending: 'dxf',
    mediaType: 'image/vnd.dxf',
    holds: 'outlines',
    async make(outlines, { title, machine }) {
      const place = toMachine(boxOf(outlines), machine);
      const bytes = strToU8(writeDxf(outlines, title, { dxf: machine.dxf, unit: machine.unit, toleranceMm: machine.toleranceMm, place }));
      const found = finished(readDxf(strFromU8(bytes))).outlines.map((o) => o.path);
      return { bytes, toleranceMm: machine.toleranceMm + 2 * digitMm, ...fileDeviation(moved(pathsOf(outlines), place), found) };
    },
  },
  svg: {
    word: 'SVG',
    about: 'One path per piece, holes included; arcs and curves stay exact.',
    ending: 'svg',
    mediaType: 'image/svg+xml',
    holds: 'outlines',
    async make(outlines, { title, machine }) {
      const bytes = strToU8(writeSvg(outlines, title, machine.unit));
      const found = finished(readSvg(strFromU8(bytes))).outlines.map((o) => o.path);
      return { bytes, toleranceMm: 2 * digitMm, ...fileDeviation(atLowerLeft(pathsOf(outlines)), atLowerLeft(found)) };
    },
  },
  pdf: {
    word: 'PDF',
    about: 'One page as large as the work, at true size.',
    ending: 'pdf',
    mediaType: 'application/pdf',
    holds: 'outlines',
    async make(outlines, { title }) {
      // Fonts and all of PDF are heavy: whoever only names the kinds does without.
      const [{ pdfWindows, writePdf }, { readPdfPaths }] = await Promise.all([
        import('../formats/pdf.ts'),
        import('../formats/pdf-reading.ts'),
      ]);
      const bytes = await writePdf(outlines, title);
      const pages = await readPdfPaths(bytes);
      const placed = placedAtOrigin(outlines);
      const wanted = pathsOf(placed.pieces);
      const windows = pdfWindows(placed);
      const found = pages.flatMap(({ paths }, k) => {
        const { minX, minY } = windows[k] as Box;
        return moved(
          paths.map((p) => p.path),
          shift(minX, minY),
        );
      });
      return { bytes, toleranceMm: 2 * digitMm, ...fileDeviation(wanted, found) };
    },
  },
  gcode: {
    word: 'G-code',
    about: 'The planned cut: order, leads, tabs, power, speed; true arcs.',
    ending: 'gcode',
    mediaType: 'text/x-gcode',
    holds: 'cut',
    async make(_, { title, machine, plan, powerSettingOf }) {
      const box = boxOfPlan(plan);
      const toolpaths = toolpathsOf(plan);
      const bytes = strToU8(writeGcode(toolpaths, { title, machine, box, powerSettingOf }));
      const found = readGcode(strFromU8(bytes)).toolpaths.map((w) => w.path);
      return {
        bytes,
        toleranceMm: machine.toleranceMm + 2 * digitMm,
        ...fileDeviation(moved(burnt(toolpaths, powerSettingOf), toMachine(box, machine)), found),
      };
    },
  },
  hpgl: {
    word: 'HPGL',
    about: 'The planned cut for a knife; one pen per purpose, 0.025 mm steps.',
    ending: 'hpgl',
    mediaType: 'application/vnd.hp-hpgl',
    holds: 'cut',
    async make(_, { machine, plan, powerSettingOf }) {
      const box = boxOfPlan(plan);
      const toolpaths = toolpathsOf(plan);
      const bytes = strToU8(writeHpgl(toolpaths, { machine, box, powerSettingOf }));
      const found = readHpgl(strFromU8(bytes)).toolpaths.map((w) => w.path);
      // Half a plotter unit either way, across.
      const toleranceMm = machine.toleranceMm + plotterUnitMm * Math.SQRT1_2 + digitMm;
      const paths = toolpaths.map((w) => w.path);
      return { bytes, toleranceMm, ...fileDeviation(moved(paths, toMachine(box, machine)), found) };
    },
  },
  png: {
    word: 'PNG',
    about: 'The pieces black on white, with their resolution.',
    ending: 'png',
    mediaType: 'image/png',
    holds: 'outlines',
    isRaster: true,
    async make(outlines, { dpi }) {
      const rim = 1;
      const { pieces, widthMm, heightMm } = placedAtOrigin(outlines);
      const pxPerMm = Math.min(Math.round((dpi / 25.4) * 1000) / 1000, Math.sqrt(maxPixels / ((widthMm + 2 * rim) * (heightMm + 2 * rim))));
      const [width, height] = [Math.ceil((widthMm + 2 * rim) * pxPerMm), Math.ceil((heightMm + 2 * rim) * pxPerMm)];
      const toPixels: Transform = { a: pxPerMm, b: 0, c: 0, d: -pxPerMm, e: rim * pxPerMm, f: height - rim * pxPerMm };
      const areas = pieces.filter((p) => p.outer.closed && mustClose(p));
      const lines = pieces
        .filter((p) => !areas.includes(p))
        .flatMap((p) => pathsOf([p]).flatMap((path) => strokeOutline(path, lineMm, 'round').flatMap((b) => [b.outer, ...b.holes])));
      const drawn = [...pathsOf(areas), ...lines].map((path) => transformedPath(path, toPixels));
      const bytes = writePng({ width, height, data: rasterize(drawn, width, height) }, pxPerMm);
      const back = readGreyPng(bytes);
      const contours = contoursAt(greyPicture(back.data, back.width, back.height), 127.5).contours.map(({ points }) => points);
      const found = contours.map((points) => asPath(points, inverse(toPixels)));
      const wanted = [...pathsOf(areas), ...lines];
      // A pixel's width: corners and what is thinner than a pixel are rounded by less.
      const toleranceMm = 1 / pxPerMm;
      const { mm } = farthest(found, wanted);
      const off = distanceTo(found);
      const missing = areas.find((piece) => makeOf(piece) === 'part' && !isSeen(piece.outer, off, toleranceMm));
      if (missing) throw new FileRefused(say.make.notSeenInPng(missing.name));
      const box = boxAroundBoxes(found.map(pathBox));
      return { bytes, toleranceMm, largestMm: mm, widthMm: box ? box.maxX - box.minX : 0, heightMm: box ? box.maxY - box.minY : 0 };
    },
  },
} satisfies Record<string, FileKindEntry>;

export type FileKind = keyof typeof kinds;
export const fileKinds: Readonly<Record<FileKind, FileKindEntry>> = kinds;
export const fileKindNames = Object.keys(kinds) as FileKind[];
/** Those that hold the outlines, for whatever they are made with. */
export const drawingKinds = fileKindNames.filter((kind) => fileKinds[kind].holds === 'outlines');

/** Whether any of an outline stands in a picture, or it is too small to. */
function isSeen(path: Path, off: (p: Point) => number, pixelMm: number): boolean {
  const { minX, minY, maxX, maxY } = pathBox(path);
  if (Math.min(maxX - minX, maxY - minY) < 2 * pixelMm) return true;
  for (const p of placesAlong([path])) if (off(p) <= pixelMm) return true;
  return false;
}

const moved = (paths: readonly Path[], t: Transform): Path[] => paths.map((path) => transformedPath(path, t));

function atLowerLeft(paths: readonly Path[]): Path[] {
  const box = boxAroundBoxes(paths.map(pathBox));
  return box ? moved(paths, shift(-box.minX, -box.minY)) : [];
}

const boxOf = (pieces: readonly FilePiece[]): Box => boxAroundBoxes(pieces.map((p) => pathBox(p.outer))) ?? nowhere;
const boxOfPlan = (plan: CutPlan): Box => plan.box ?? nowhere;
const nowhere: Box = { minX: 0, minY: 0, maxX: 0, maxY: 0 };

export const toolpathsOf = (plan: CutPlan): Toolpath[] =>
  plan.runs.map(({ purpose, name, path, overscanMm }) => ({ purpose, name, path, overscanMm }));

/** The toolpaths along which anything burns: not those of no power. */
const burnt = (toolpaths: readonly Toolpath[], powerSettingOf: FileOptions['powerSettingOf']): Path[] =>
  toolpaths.filter((w) => powerSettingOf(w.purpose).power > 0).map((w) => w.path);

function asPath(points: ArrayLike<number>, toSheet: Transform): Path {
  const at = (k: number) => ({ x: points[2 * k] as number, y: points[2 * k + 1] as number });
  const n = points.length / 2;
  const corners = Array.from({ length: n }, (_, k) => at(k));
  const [start, ...rest] = corners as [{ x: number; y: number }, ...{ x: number; y: number }[]];
  return transformedPath({ start, segments: [...rest, start].map((to) => ({ kind: 'line', to })), closed: true }, toSheet);
}
