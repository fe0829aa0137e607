/** The files that a job is made from, read by programs and readers that know nothing of their writers. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createCanvas } from '@napi-rs/canvas';
import { type FileKind, type FileOptions, FileRefused, fileKindNames, fileName, madeFile, outlinesToWrite } from '@nuvet/core/files';
import {
  type FilePiece,
  GcodeError,
  PlotError,
  PngError,
  readGcode,
  readGreyPng,
  readHpgl,
  writePng,
  writeTiles,
} from '@nuvet/core/formats';
import { type Machine, machineSchema, type Piece, type Purpose, plainMachine } from '@nuvet/core/job';
import { type CutPlan, type Cutting, plainCutting, plainPrinting, plannedCut, powerSettingOf, tiled, toMachine } from '@nuvet/core/make';
import { say } from '@nuvet/core/messages';
import { circlePath, ellipsePath, type Path, type Point, pathBox, pathLength, transformedPath } from '@nuvet/core/plane';
import { distanceTo, stationAt } from '@nuvet/core/shape';
import { type Instruction, Interpreter, type Move, placeOn } from '@nuvet/cutter/interpreter';
import { curveThrough, demoJobs, piece, roundedRectangle, star } from '@nuvet/truth';
import { afterAll, describe, expect, it } from 'vitest';
import { dxfSeenByEzdxf, polylinesSeenByDxfParser, svgSeen } from './outside-readers.ts';

const folder = mkdtempSync(join(tmpdir(), 'nuvet-made-'));
afterAll(() => rmSync(folder, { recursive: true }));

const made = (name: string, purpose: Purpose, p: { outer: Path; holes: readonly Path[] }): Piece => ({
  id: name,
  name,
  purpose,
  leftOut: false,
  runsOff: false,
  outer: p.outer,
  holes: [...p.holes],
});
const pieces: Piece[] = [
  made('Plate', 'cut', piece(roundedRectangle(30, 40, 90, 60, 8), [circlePath({ x: 42, y: 52 }, 3)])),
  made('Leaf', 'cut', piece(curveThrough([[30, 120, 'corner'], [60, 135], [90, 130, 'corner'], [60, 115]]))), // biome-ignore format: one line
  made('Oval', 'cut', { outer: ellipsePath({ x: 200, y: 130 }, 20, 8, 0.4), holes: [] }),
  made('Star', 'score', piece(star({ x: 160, y: 70 }, 5, 30, 12))),
  made('Panel', 'pocket', piece(roundedRectangle(100, 120, 40, 10, 2))),
];
interface Setup {
  readonly cutting: Cutting;
  readonly machine: Machine;
}

const plainSetup: Setup = { cutting: plainCutting, machine: plainMachine };
const setupWith = (cutting: Partial<Cutting>, machine: Partial<Machine> = {}): Setup => ({
  cutting: { ...plainCutting, ...cutting },
  machine: machineSchema.parse(machine),
});
const optionsOf = ({ cutting, machine }: Setup, plan: CutPlan): FileOptions => ({
  title: 'Weir gate',
  machine,
  plan,
  powerSettingOf: (purpose) => powerSettingOf(cutting, purpose),
  dpi: 300,
});

async function file(
  kind: FileKind,
  setup: Setup,
  of = pieces,
): Promise<{ bytes: Uint8Array; text: string; plan: CutPlan; wanted: FilePiece[]; made: Awaited<ReturnType<typeof madeFile>> }> {
  const plan = plannedCut(of, setup.cutting, setup.machine);
  const made = await madeFile(kind, of, setup.cutting, optionsOf(setup, plan));
  return { bytes: made.bytes, text: new TextDecoder().decode(made.bytes), plan, wanted: outlinesToWrite(of, setup.cutting), made };
}
const pathsOf = (all: readonly FilePiece[]): Path[] => all.flatMap((p) => [p.outer, ...p.holes]);
const farthestOf = (points: readonly Point[], paths: readonly Path[]): number => {
  const off = distanceTo(paths);
  return points.reduce((max, p) => Math.max(max, off(p)), 0);
};
const kerf = setupWith({ kerfMm: 0.2, lead: { kind: 'arc', inMm: 2, outMm: 1 } });

describe('every kind of file', () => {
  it.each(fileKindNames)('%s says of itself how far it is off, and that is less than it may be', async (kind) => {
    const { made } = await file(kind, kerf);
    expect(made.largestMm).toBeLessThanOrEqual(made.toleranceMm);
    expect(made.widthMm).toBeGreaterThan(180);
  });
  it('is refused where it would not say what was proved', async () => {
    const plan = plannedCut(pieces, kerf.cutting, kerf.machine);
    // A plan of other pieces: the file would hold what nobody proved.
    const box = plan.box;
    const broken = { ...plan, runs: plan.runs.map((r) => ({ ...r, path: { ...r.path, segments: r.path.segments.map((s) => ({ ...s, to: { x: Number.NaN, y: 0 } })) } })), box } as CutPlan; // biome-ignore format: one line
    await expect(madeFile('gcode', pieces, kerf.cutting, optionsOf(kerf, broken))).rejects.toThrow();
    const lost = { ...plan, lost: [{ pieceId: 'Plate', ...say.make.kerfFails('Plate'), isFailure: true }] };
    await expect(madeFile('svg', pieces, kerf.cutting, optionsOf(kerf, lost))).rejects.toThrow(FileRefused);
  });
});

describe('a PNG', () => {
  const plateWith = (holes: Path[]) => made('Plate', 'cut', piece(roundedRectangle(0, 0, 40, 30, 2), holes));
  const insert = made('Insert', 'cut', piece(roundedRectangle(14, 10, 12, 10, 1)));
  it('is refused where a piece would not be seen in it', async () => {
    await expect(file('png', plainSetup, [plateWith([]), insert])).rejects.toThrow(/would not be seen/);
  });
  it('shows a piece within a hole', async () => {
    const { made } = await file('png', plainSetup, [plateWith([circlePath({ x: 20, y: 15 }, 12)]), insert]);
    expect([made.widthMm, made.heightMm].map(Math.round)).toEqual([40, 30]);
  });
});

describe('SVG, by an XML parser and svg-path-properties', () => {
  it('has the compensated outlines, by purpose, also in inches', async () => {
    for (const unit of ['mm', 'in'] as const) {
      const { text } = await file('svg', setupWith({ kerfMm: 0.2 }, { unit }));
      const seen = svgSeen(unit === 'mm' ? text : text.replace(/="([\d.]+)in"/g, (_, v) => `="${(Number(v) * 25.4).toFixed(4)}mm"`));
      expect(seen.groups).toEqual(['cut', 'score', 'pocket']);
      // The plate grown by 0.1 mm all round, with its bore shrunk by as much.
      expect(seen.paths[0]?.length).toBeCloseTo(2 * (90.2 + 60.2) - (8 - 2 * Math.PI) * 8.1 + 2 * Math.PI * 2.9, 2);
      expect(seen.widthMm).toBeCloseTo(seen.viewBox[2] as number, 2);
    }
  });
});

describe('DXF', () => {
  const read = (name: string, text: string) => {
    const path = join(folder, `${name}.dxf`);
    writeFileSync(path, text);
    return dxfSeenByEzdxf(path)[0] as ReturnType<typeof dxfSeenByEzdxf>[0];
  };
  it.each(['arcs', 'splines', 'plain'] as const)('with %s is read without complaint, and lies where it should', async (dxf) => {
    const setup = setupWith({ kerfMm: 0.2 }, { dxf, origin: 'centre' });
    const { text, wanted } = await file('dxf', setup);
    const seen = read(dxf, text);
    expect(seen.errors).toEqual([]);
    expect(seen.version).toBe(dxf === 'plain' ? 'AC1009' : 'AC1015');
    expect(seen.outlines.length).toBe(6);
    expect(seen.outlines.every((o) => o.closed || o.type === 'ELLIPSE')).toBe(true);
    expect(new Set(seen.outlines.map((o) => o.layer))).toEqual(new Set(['CUT', 'SCORE', 'POCKET']));
    const outlines = pathsOf(wanted);
    const box = { minX: Math.min(...outlines.map((p) => pathBox(p).minX)), minY: Math.min(...outlines.map((p) => pathBox(p).minY)), maxX: Math.max(...outlines.map((p) => pathBox(p).maxX)), maxY: Math.max(...outlines.map((p) => pathBox(p).maxY)) }; // biome-ignore format: one line
    const placed = outlines.map((p) => transformedPath(p, toMachine(box, setup.machine)));
    for (const { along } of seen.outlines) expect(farthestOf(along.map(([x, y]) => ({ x, y })), placed)).toBeLessThan(0.0075); // biome-ignore format: one line
  });
  it.each(['arcs', 'splines', 'plain'] as const)('with %s in inches says so', async (dxf) => {
    const { text } = await file('dxf', setupWith({}, { dxf, unit: 'in' }));
    expect(read(`inches of ${dxf}`, text)).toMatchObject({ insunits: 1, errors: [] });
  });
  it('in inches and with y downwards is the mirror image, an inch a unit', async () => {
    const { text } = await file('dxf', setupWith({}, { unit: 'in', y: 'down', origin: 'upper-left' }));
    const seen = read('inches', text);
    expect(seen.insunits).toBe(1);
    expect(seen.min[0]).toBeCloseTo(0, 4);
    expect(seen.min[1]).toBeCloseTo(0, 4);
    expect((seen.max[0] - seen.min[0]) * 25.4).toBeCloseTo(188.68, 1);
    // The leaf lies at the top of the sheet: near 0 where y grows downwards.
    const leaf = seen.outlines.filter((o) => o.layer === 'CUT')[2];
    expect(Math.max(...(leaf?.along ?? []).map(([, y]) => y)) * 25.4).toBeLessThan(40);
  });
  it('plain is read by dxf-parser, too: old polylines with bulges, a layer a purpose', async () => {
    const { text } = await file('dxf', setupWith({}, { dxf: 'plain' }));
    const seen = polylinesSeenByDxfParser(text) as unknown as {
      type: string;
      layer: string;
      vertices: { x: number; y: number; bulge?: number }[];
    }[];
    expect(seen.map((e) => e.type)).toEqual(Array(6).fill('POLYLINE'));
    // The bore is two half circles: a bulge of 1 each.
    expect(seen[1]?.vertices.map((v) => Math.abs(v.bulge ?? 0))).toEqual([1, 1]);
  });
});

describe('G-code, by an interpreter written from the NIST text alone', () => {
  const movesOf = (text: string): Move[] => {
    const interpreter = new Interpreter();
    return text.split('\n').flatMap((line) => {
      const deed: Instruction = interpreter.read(line);
      return deed && 'from' in deed ? [deed] : [];
    });
  };
  it.each([
    ['mm', 'up', 'lower-left'],
    ['in', 'down', 'upper-left'],
    ['mm', 'up', 'centre'],
  ] as const)('in %s with y %s from the %s it burns just along the plan', async (unit, y, origin) => {
    const setup = setupWith(
      { kerfMm: 0.2, lead: { kind: 'line', inMm: 2, outMm: 0 }, tabs: { count: 3, spacingMm: 0, widthMm: 0.6 } },
      { unit, y, origin },
    );
    const { text, plan } = await file('gcode', setup);
    const burns = movesOf(text).filter((m) => m.burns);
    const placed = plan.runs.map((r) => transformedPath(r.path, toMachine(plan.box as NonNullable<CutPlan['box']>, setup.machine)));
    const points = burns.flatMap((m) => Array.from({ length: 9 }, (_, k) => placeOn(m, k / 8)));
    expect(farthestOf(points, placed)).toBeLessThan(0.006);
    const length = burns.reduce(
      (sum, m) => sum + (m.arc ? m.arc.radius * Math.abs(m.arc.sweep) : Math.hypot(m.to.x - m.from.x, m.to.y - m.from.y)),
      0,
    );
    expect(length).toBeCloseTo(
      placed.reduce((sum, p) => sum + pathLength(p), 0),
      0,
    );
  });
  it('keeps arcs as arcs, and says units, origin and tolerance in its own comments', async () => {
    const { text } = await file('gcode', setupWith({}));
    expect(text).toMatch(/^\(Weir gate\)\n\(Units: millimetres\. y grows up\. Origin: lower left\.\)/);
    expect(text).toContain('Curves within 0.005 mm');
    expect(movesOf(text).filter((m) => m.arc && Math.abs(m.arc.radius - 8) < 1e-3).length).toBeGreaterThanOrEqual(4);
    expect(text.trimEnd().split('\n').slice(-3)).toEqual(['M5', 'G0 X0 Y0', 'M2']);
    for (const line of text.split('\n')) expect(line.length).toBeLessThan(120);
  });
  it('gives each purpose its power, speed and passes', async () => {
    const { text } = await file(
      'gcode',
      setupWith({ powerSettings: { score: { power: 0.3, speedMmPerMin: 2000, passes: 2 } } }, { fullS: 255 }),
    );
    const score = movesOf(text).filter((m) => m.burns && Math.abs(m.power - 76.5) < 1e-9);
    expect(score.length).toBe(20);
    expect(score.every((m) => m.feedMmPerMin === 2000)).toBe(true);
  });
});

describe('readers of machine files', () => {
  it('name the line that they cannot read', () => {
    expect(() => readGcode('G21\nG1 X1 Y1\nG5 X3')).toThrow(GcodeError);
    expect(() => readGcode('G21\nG0 X1 Y1\nhello')).toThrow(/Line 3/);
    expect(() => readGcode('M3 S1\nG2 X10 Y0 I3 J0 F1')).toThrow(/off its circle/);
  });
  it('refuse plotter commands and pictures that they do not know', () => {
    expect(() => readHpgl('IN;SP1;PU0,0;CI40;')).toThrow(PlotError);
    expect(() => readHpgl('IN;PUx,1;')).toThrow(PlotError);
    const png = writePng({ width: 3, height: 2, data: Uint8Array.from([0, 50, 100, 150, 200, 250]) }, 12);
    expect(readGreyPng(png)).toMatchObject({ width: 3, height: 2, pxPerMm: 12, data: Uint8Array.from([0, 50, 100, 150, 200, 250]) });
    png[45] = (png[45] as number) ^ 1;
    expect(() => readGreyPng(png)).toThrow(PngError);
  });
  it('a plot file has a pen a purpose and steps of 0.025 mm', async () => {
    const { text } = await file('hpgl', setupWith({}, { origin: 'lower-left' }));
    const { toolpaths } = readHpgl(text);
    expect(new Set(toolpaths.map((w) => w.purpose))).toEqual(new Set(['cut', 'score', 'pocket']));
    const score = toolpaths.find((w) => w.purpose === 'score');
    // Ten straight sides, closed.
    expect(score?.path.segments.length).toBe(10);
    expect(score?.path.closed).toBe(true);
  });
});

describe('names of files', () => {
  it('follow the pattern and hold nothing that a file system refuses', () => {
    const facts = {
      job: 'Heron: lantern/panel',
      what: 'cut',
      process: 'laser',
      machine: 'Heron Lane laser',
      date: '2026-11-26',
      revision: 12,
    };
    expect(fileName('{job}-{what}', facts, 'svg')).toBe('Heron-lantern-panel-cut.svg');
    expect(fileName('{date} {job} r{revision}', facts, 'zip')).toBe('2026-11-26-Heron-lantern-panel-r12.zip');
    expect(fileName('../..', facts, 'pdf')).toBe('job.pdf');
  });
});

/** A page of a PDF as grey pixels, drawn by pdfjs-dist. */
async function rendered(
  bytes: Uint8Array,
  page: number,
  dpi: number,
): Promise<{ grey: Uint8Array; width: number; height: number; pages: number }> {
  const { getDocument, VerbosityLevel } = await import('pdfjs-dist/legacy/build/pdf.mjs');
  const opened = await getDocument({
    data: new Uint8Array(bytes),
    verbosity: VerbosityLevel.ERRORS,
    isEvalSupported: false,
    disableFontFace: true,
  }).promise;
  const proxy = await opened.getPage(page);
  const viewport = proxy.getViewport({ scale: dpi / 72 });
  const [width, height] = [Math.round(viewport.width), Math.round(viewport.height)];
  const canvas = createCanvas(width, height);
  const context = canvas.getContext('2d');
  context.fillStyle = '#ffffff';
  context.fillRect(0, 0, width, height);
  await proxy.render({ canvas: null, canvasContext: context as never, viewport, background: '#ffffff' }).promise;
  const { data } = context.getImageData(0, 0, width, height);
  const pages = opened.numPages;
  await opened.loadingTask.destroy();
  return { grey: Uint8Array.from({ length: width * height }, (_, k) => ((data[4 * k] as number) + (data[4 * k + 1] as number) + (data[4 * k + 2] as number)) / 3), width, height, pages }; // biome-ignore format: one line
}

const asPieces = (scene: (typeof demoJobs)[0]['scene']): Piece[] => scene.pieces.map((p, k) => made(`Piece ${k + 1}`, 'cut', p));

describe('PDF, drawn by pdfjs-dist', () => {
  it('is one page as large as the work with its rim, and the work lies 1 mm in', async () => {
    const { bytes } = await file('pdf', setupWith({}));
    const { grey, width, height, pages } = await rendered(bytes, 1, 300);
    expect(pages).toBe(1);
    const dark: Point[] = [];
    for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) if ((grey[y * width + x] as number) < 200) dark.push({ x, y });
    const mm = 25.4 / 300;
    expect(Math.min(...dark.slice(0, 5000).map((p) => p.y)) * mm).toBeCloseTo(0.9, 0);
    const xs = [dark.reduce((min, p) => Math.min(min, p.x), Infinity), dark.reduce((max, p) => Math.max(max, p.x), 0)] as const;
    // From the middle of the leftmost line to that of the rightmost one, a line's width more.
    expect((xs[1] - xs[0]) * mm).toBeGreaterThan(188.6);
    expect((xs[1] - xs[0]) * mm).toBeLessThan(189.1);
  });
  it.each(demoJobs.map((d) => [d.name, d] as const))('%s: the 100 mm bar of its printed pages is 100.0 mm', async (name, { scene }) => {
    const outlines = outlinesToWrite(asPieces(scene), plainCutting);
    const tiling = tiled(pathsOf(outlines), plainPrinting);
    const bytes = await writeTiles(outlines, tiling, name, null);
    for (const page of [1, 2]) {
      const { grey, width, height } = await rendered(bytes, page, 300);
      const px = 300 / 25.4;
      const { marginMm, overlapMm } = plainPrinting;
      const left = page === 1 ? 12 : marginMm + overlapMm / 2 + 5;
      const low = page === 1 ? Math.max(marginMm, 8) + 2 : marginMm + overlapMm / 2 + 5;
      // Its ticks stand 1.5 mm to either side; where nothing but they stands, their middle by their darkness.
      const row = Math.round(height - (low + 5 - 1.1) * px);
      const middleNear = (x: number): number => {
        let [sum, weight] = [0, 0];
        for (let k = Math.round(x - 8); k <= x + 8; k++) {
          const ink = 255 - (grey[row * width + k] as number);
          sum += ink * (k + 0.5);
          weight += ink;
        }
        expect(weight).toBeGreaterThan(100);
        return sum / weight;
      };
      const bar = (middleNear((left + 100) * px) - middleNear(left * px)) / px;
      expect(Math.abs(bar - 100)).toBeLessThan(0.1);
    }
  });
  it('in pages, laid together by their marks, is the picture of one large page', async () => {
    const outlines = outlinesToWrite([made('Ring', 'cut', piece(circlePath({ x: 150, y: 150 }, 140), [circlePath({ x: 150, y: 150 }, 120)])), made('Bar', 'score', piece(star({ x: 150, y: 150 }, 5, 110, 60)))], plainCutting); // biome-ignore format: one line
    const tiling = tiled(pathsOf(outlines), { ...plainPrinting, landscape: true });
    expect(tiling.pages.length).toBeLessThanOrEqual(4);
    const bytes = await writeTiles(outlines, tiling, 'Ring', null);
    const dpi = 100;
    const px = dpi / 25.4;
    let [seen, missing] = [0, 0];
    for (const [k, tile] of tiling.pages.entries()) {
      const page = await rendered(bytes, k + 2, dpi);
      // Where a place lies on the page follows from the marks at the corners of its cell alone.
      const at = (p: Point) => ({
        x: (p.x - tile.window.minX + tiling.marginMm) * px,
        y: page.height - (p.y - tile.window.minY + tiling.marginMm) * px,
      });
      expect(darkestNear(page, at({ x: tile.cell.minX, y: tile.cell.minY }))).toBeLessThan(200);
      expect(darkestNear(page, at({ x: tile.cell.maxX, y: tile.cell.maxY }))).toBeLessThan(200);
      for (const [n, path] of pathsOf(outlines).entries()) {
        const own = stationsOn(path).filter((q) => isIn(tile.cell, q));
        seen += own.length;
        // Between two dashes of a score nothing is printed; the ring is solid.
        if (n < 2) missing += own.filter((q) => darkestNear(page, at(q)) > 225).length;
      }
    }
    // Every place of every outline lies in just one cell.
    const all = pathsOf(outlines).reduce((n, path) => n + stationsOn(path).length, 0);
    expect(seen).toBe(all);
    expect(missing).toBe(0);
  });
});

const stationsOn = (path: Path): Point[] => Array.from({ length: Math.ceil(pathLength(path) / 3) }, (_, k) => stationAt(path, 3 * k).at);
const isIn = ({ minX, minY, maxX, maxY }: { minX: number; minY: number; maxX: number; maxY: number }, { x, y }: Point): boolean =>
  x >= minX && x < maxX && y >= minY && y < maxY;

function darkestNear({ grey, width }: { grey: Uint8Array; width: number }, { x, y }: Point): number {
  let darkest = 255;
  for (let v = Math.floor(y) - 1; v <= Math.floor(y) + 1; v++)
    for (let u = Math.floor(x) - 1; u <= Math.floor(x) + 1; u++) darkest = Math.min(darkest, grey[v * width + u] ?? 255);
  return darkest;
}
