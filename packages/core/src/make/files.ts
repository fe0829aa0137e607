/**
 * In: a job's pieces and how it is made. Out: its files. Each is read back from its bytes and compared with the outlines before
 * it is handed over.
 * @throws FileRefused where a file would not match the outlines
 */
import { strFromU8, strToU8 } from 'fflate';
import { deviationOf, distanceTo, farthest, placesAlong } from '../formats/deviation.ts';
import { writeDxf } from '../formats/dxf.ts';
import { readDxf } from '../formats/dxf-reading.ts';
import { type ToolWay, writeGcode } from '../formats/gcode.ts';
import { readGcode } from '../formats/gcode-reading.ts';
import { plotterUnitMm, readHpgl, writeHpgl } from '../formats/hpgl.ts';
import { pdfWindows, writePdf } from '../formats/pdf.ts';
import { readPdfPaths } from '../formats/pdf-reading.ts';
import { type FilePiece, placedAtOrigin } from '../formats/placement.ts';
import { readGreyPng, writePng } from '../formats/png.ts';
import { writeSvg } from '../formats/svg.ts';
import { readSvg } from '../formats/svg-reading.ts';
import { cleanText } from '../job/clean-text.ts';
import type { Piece } from '../job/schema.ts';
import { type Setup, strengthOf } from '../job/setup.ts';
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
import { contoursAt, filledGrey, greyPicture } from '../raster/index.ts';
import { bandAbout } from '../shape/index.ts';
import { finished } from '../steps.ts';
import { kerfCompensated } from './kerf.ts';
import { toMachine } from './placement.ts';
import type { CutPlan } from './plan.ts';

export const fileKinds = ['svg', 'dxf', 'pdf', 'gcode', 'hpgl', 'png'] as const;
export type FileKind = (typeof fileKinds)[number];

export const fileTypes: Readonly<Record<FileKind, { readonly ending: string; readonly type: string }>> = {
  svg: { ending: 'svg', type: 'image/svg+xml' },
  dxf: { ending: 'dxf', type: 'image/vnd.dxf' },
  pdf: { ending: 'pdf', type: 'application/pdf' },
  gcode: { ending: 'gcode', type: 'text/x-gcode' },
  hpgl: { ending: 'hpgl', type: 'application/vnd.hp-hpgl' },
  png: { ending: 'png', type: 'image/png' },
};

export interface MadeFile {
  readonly kind: FileKind;
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

export interface FileWishes {
  readonly title: string;
  readonly setup: Setup;
  readonly plan: CutPlan;
  /** Pixels of a PNG in an inch. */
  readonly dpi: number;
}

/** What is left of rounding to a file's last digit, mm. */
const digitMm = 0.0005;
/** Lines in a PNG are drawn this wide, mm. */
const lineMm = 0.2;
const mostPixels = 120e6;

/** The outlines that a drawing file holds: the pieces, as the tool must go round them. */
export const outlinesToWrite = (pieces: readonly Piece[], setup: Setup): FilePiece[] =>
  pieces.flatMap((piece) =>
    kerfCompensated(piece, setup.cutting).parts.map(
      ({ outer, holes }): FilePiece => ({ name: piece.name, purpose: piece.purpose, outer, holes }),
    ),
  );

export async function madeFile(kind: FileKind, pieces: readonly Piece[], wishes: FileWishes): Promise<MadeFile> {
  const failed = wishes.plan.lost.find((l) => l.isFailure);
  if (failed && wishes.setup.cutting.kerfMm > 0) throw new FileRefused(say.make.noFileWasMade(failed.message));
  const outlines = outlinesToWrite(pieces, wishes.setup);
  const made = await makers[kind](outlines, wishes);
  const file = { kind, ...made };
  if (!(file.largestMm <= file.toleranceMm)) {
    throw new FileRefused(say.make.fileOff(kind.toUpperCase(), file.largestMm.toFixed(3), file.toleranceMm.toFixed(3)));
  }
  return file;
}

type Made = Omit<MadeFile, 'kind'>;
const pathsOf = (pieces: readonly FilePiece[]): Path[] => pieces.flatMap((p) => [p.outer, ...p.holes]);

const makers: Record<FileKind, (outlines: readonly FilePiece[], wishes: FileWishes) => Promise<Made>> = {
  async svg(outlines, { title, setup }) {
    const bytes = strToU8(writeSvg(outlines, title, setup.machine.unit));
    const found = finished(readSvg(strFromU8(bytes))).outlines.map((o) => o.path);
    return { bytes, toleranceMm: 2 * digitMm, ...compared(atLowerLeft(pathsOf(outlines)), atLowerLeft(found)) };
  },
  async dxf(outlines, { title, setup: { machine } }) {
    const place = toMachine(boxOf(outlines), machine);
    const bytes = strToU8(writeDxf(outlines, title, { dxf: machine.dxf, unit: machine.unit, toleranceMm: machine.toleranceMm, place }));
    const found = finished(readDxf(strFromU8(bytes))).outlines.map((o) => o.path);
    return { bytes, toleranceMm: machine.toleranceMm + 2 * digitMm, ...compared(moved(pathsOf(outlines), place), found) };
  },
  async pdf(outlines, { title }) {
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
    return { bytes, toleranceMm: 2 * digitMm, ...compared(wanted, found) };
  },
  async gcode(_, { title, setup, plan }) {
    const { machine, cutting } = setup;
    const box = boxOfPlan(plan);
    const ways = waysOf(plan);
    const bytes = strToU8(writeGcode(ways, { title, machine, box, strengthOf: (p) => strengthOf(cutting, p) }));
    const found = readGcode(strFromU8(bytes)).ways.map((w) => w.path);
    return {
      bytes,
      toleranceMm: machine.toleranceMm + 2 * digitMm,
      ...compared(moved(burnt(ways, setup), toMachine(box, machine)), found),
    };
  },
  async hpgl(_, { setup, plan }) {
    const { machine, cutting } = setup;
    const box = boxOfPlan(plan);
    const ways = waysOf(plan);
    const bytes = strToU8(writeHpgl(ways, { machine, box, strengthOf: (p) => strengthOf(cutting, p) }));
    const found = readHpgl(strFromU8(bytes)).ways.map((w) => w.path);
    // Half a plotter unit either way, across.
    const toleranceMm = machine.toleranceMm + plotterUnitMm * Math.SQRT1_2 + digitMm;
    return {
      bytes,
      toleranceMm,
      ...compared(
        moved(
          ways.map((w) => w.path),
          toMachine(box, machine),
        ),
        found,
      ),
    };
  },
  async png(outlines, { dpi }) {
    const rim = 1;
    const { pieces, widthMm, heightMm } = placedAtOrigin(outlines);
    const pxPerMm = Math.min(Math.round((dpi / 25.4) * 1000) / 1000, Math.sqrt(mostPixels / ((widthMm + 2 * rim) * (heightMm + 2 * rim))));
    const [width, height] = [Math.ceil((widthMm + 2 * rim) * pxPerMm), Math.ceil((heightMm + 2 * rim) * pxPerMm)];
    const toPixels: Transform = { a: pxPerMm, b: 0, c: 0, d: -pxPerMm, e: rim * pxPerMm, f: height - rim * pxPerMm };
    const areas = pieces.filter((p) => p.outer.closed && (p.purpose === 'cut' || p.purpose === 'pocket'));
    const lines = pieces
      .filter((p) => !areas.includes(p))
      .flatMap((p) => pathsOf([p]).flatMap((path) => bandAbout(path, lineMm, 'round').flatMap((b) => [b.outer, ...b.holes])));
    const drawn = [...pathsOf(areas), ...lines].map((path) => transformedPath(path, toPixels));
    const bytes = writePng({ width, height, data: filledGrey(drawn, width, height) }, pxPerMm);
    const back = readGreyPng(bytes);
    const contours = contoursAt(greyPicture(back.data, back.width, back.height), 127.5).contours.map(({ points }) => points);
    const found = contours.map((points) => asPath(points, inverse(toPixels)));
    const wanted = [...pathsOf(areas), ...lines];
    // A pixel's width: corners and what is thinner than a pixel are rounded by less.
    const toleranceMm = 1 / pxPerMm;
    const { mm } = farthest(found, wanted);
    const off = distanceTo(found);
    const missing = areas.find((piece) => piece.purpose === 'cut' && !isSeen(piece.outer, off, toleranceMm));
    if (missing) throw new FileRefused(say.make.notSeenInPng(missing.name));
    const box = boxAroundBoxes(found.map(pathBox));
    return { bytes, toleranceMm, largestMm: mm, widthMm: box ? box.maxX - box.minX : 0, heightMm: box ? box.maxY - box.minY : 0 };
  },
};

const compared = (wanted: readonly Path[], found: readonly Path[]): Pick<MadeFile, 'largestMm' | 'widthMm' | 'heightMm'> =>
  deviationOf(wanted, found);

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

export const waysOf = (plan: CutPlan): ToolWay[] => plan.runs.map(({ purpose, name, path, airMm }) => ({ purpose, name, path, airMm }));

/** The ways along which anything burns: not those of no strength. */
const burnt = (ways: readonly ToolWay[], { cutting }: Setup): Path[] =>
  ways.filter((w) => strengthOf(cutting, w.purpose).strength > 0).map((w) => w.path);

function asPath(points: ArrayLike<number>, toSheet: Transform): Path {
  const at = (k: number) => ({ x: points[2 * k] as number, y: points[2 * k + 1] as number });
  const n = points.length / 2;
  const corners = Array.from({ length: n }, (_, k) => at(k));
  const [start, ...rest] = corners as [{ x: number; y: number }, ...{ x: number; y: number }[]];
  return transformedPath({ start, segments: [...rest, start].map((to) => ({ kind: 'line', to })), closed: true }, toSheet);
}

/** A file's name by the job's pattern, without what file systems refuse. */
export function fileName(pattern: string, facts: { job: string; what: string; date: string; revision: number }, ending: string): string {
  const said = pattern
    .replaceAll('{job}', facts.job)
    .replaceAll('{what}', facts.what)
    .replaceAll('{date}', facts.date)
    .replaceAll('{revision}', String(facts.revision));
  const clean = cleanText(said)
    .replace(/[^\p{L}\p{N} ._-]+/gu, ' ')
    .trim()
    .replace(/\s+/g, '-')
    .replace(/^[.-]+/, '');
  // Names of devices, which one family of systems keeps for itself whatever their ending.
  const isDevice = /^(con|prn|aux|nul|com\d|lpt\d)$/i.test(clean);
  return `${isDevice ? `job-${clean}` : clean || 'job'}.${ending}`;
}
