/** Quilting: how long a large block, a long walk and a filling take; and how often a scanned block becomes the right patches. */
import { defaultTraceSettings, newPicture, traceOnSheet } from '@nuvet/core/job';
import { nestedOnSheets } from '@nuvet/core/nesting';
import { distance, type Path, pathArea, polygonPath, rectanglePath } from '@nuvet/core/plane';
import {
  blockOf,
  foundationsOf,
  type GraphEdge,
  inchMm,
  patchShapes,
  piecingOrder,
  plainQuilting,
  quiltPlan,
  routeInspection,
  stippled,
  templatesOf,
} from '@nuvet/core/quilting';
import { finished } from '@nuvet/core/steps';
import { tracePicture } from '@nuvet/core/trace';
import { demoJobs, type Scene, scanScene } from '@nuvet/truth';
import { blockDrafts } from '../tests/unit/block-drafts.ts';
import { draftedBlock, drawings, scannedPieces } from '../tests/unit/scanned-blocks.ts';

const line = (name: string, text: string) => console.log(`${name.padEnd(46)} ${text}`);
const timed = <T>(work: () => T): { ms: number; value: T } => {
  const start = performance.now();
  const value = work();
  return { ms: performance.now() - start, value };
};

export function measureQuilting(): void {
  measureBlock();
  measureWalk();
  measureStippling();
  measureLapQuilt();
  measureNesting();
  measureScans();
  measureDrawings();
}

/** Two hundred patches: squares of a grid, every one cut across. */
function measureBlock(): void {
  const seam = (x0: number, y0: number, x1: number, y1: number): Path => ({ start: { x: x0, y: y0 }, segments: [{ kind: 'line', to: { x: x1, y: y1 } }], closed: false }); // biome-ignore format: one line
  const rows = Array.from({ length: 11 }, (_, k) => k * 12);
  const grid = rows.flatMap((v) => [seam(v, 0, v, 120), seam(0, v, 120, v)]);
  const cuts = rows
    .slice(0, -1)
    .flatMap((x) => rows.slice(0, -1).map((y) => ((x + y) % 24 === 0 ? seam(x, y, x + 12, y + 12) : seam(x, y + 12, x + 12, y))));
  const pieces = [...grid, ...cuts].map((outer, k) => ({ id: String(k), outer, holes: [] }));
  finished(quiltPlan(pieces, plainQuilting));
  const { ms, value: block } = timed(() => {
    const made = blockOf(pieces, plainQuilting);
    templatesOf(made, patchShapes(made), plainQuilting);
    piecingOrder(made.map);
    return made;
  });
  const sections = timed(() => foundationsOf(block.map));
  line('quilting: map, templates, sewing order', `${block.map.faces.length} patches in ${ms.toFixed(0)} ms (300 asked)`);
  line(
    'quilting: foundations',
    `${sections.value.sections.length} sections of ${block.map.faces.length} patches in ${sections.ms.toFixed(0)} ms`,
  );
}

function measureWalk(): void {
  let state = 7;
  const random = () => {
    state = (state * 1_103_515_245 + 12_345) & 0x7fffffff;
    return state / 0x7fffffff;
  };
  const nodes = 600;
  const edges: GraphEdge[] = Array.from({ length: nodes - 1 }, (_, k) => ({
    from: Math.floor(random() * (k + 1)),
    to: k + 1,
    length: 1 + 9 * random(),
  }));
  while (edges.length < 1000)
    edges.push({ from: Math.floor(random() * nodes), to: Math.floor(random() * nodes), length: 1 + 9 * random() });
  const { ms, value } = timed(() => routeInspection(edges, { start: null, end: null, comesBack: false }));
  line('quilting: least retracing of 1,000 lines', `${ms.toFixed(0)} ms (2000 asked), ${value.again.length} walked twice`);
}

function measureStippling(): void {
  const block = rectanglePath({ minX: 0, minY: 0, maxX: 304.8, maxY: 304.8 });
  for (const spacingMm of [12.7, 6.35, 3.2]) {
    const { ms, value } = timed(() => stippled([block], { spacingMm, seed: 3 }));
    line(`quilting: stippling of 12 in, ${spacingMm} mm apart`, `${ms.toFixed(0)} ms (1000 asked), ${value[0]?.segments.length} curves`);
  }
}

/** Motifs in every block of a lap quilt, waves in its sashing and round its border: the whole line with its findings. */
function measureLapQuilt(): void {
  const frame = { id: 'f', outer: rectanglePath({ minX: 0, minY: 0, maxX: 100, maxY: 100 }), holes: [] };
  const own = plainQuilting.line;
  const settings = {
    ...plainQuilting,
    ...{ columns: 3, rows: 4, sashingMm: 50.8, hasPosts: true, borders: [{ widthMm: 101.6, fabric: 0 }] },
    line: { ...own, pattern: 'net' as const, over: 'block' as const, isInEveryBlock: true },
    further: [
      { ...own, pattern: 'feather' as const, over: 'borders' as const, repeatMm: 101.6 },
      { ...own, pattern: 'river-wave' as const, over: 'sashing' as const, repeatMm: 76.2, rowMm: 50.8 },
    ],
  };
  const { ms, value } = timed(() => finished(quiltPlan([frame], settings)));
  line('quilting: motifs all over a lap quilt', `${((value.line?.lengthMm ?? 0) / 1000).toFixed(0)} m in ${ms.toFixed(0)} ms`);
}

/** Parts of many shapes on sheets, a gap between them. */
function measureNesting(): void {
  let state = 11;
  const random = () => {
    state = (state * 1_103_515_245 + 12_345) & 0x7fffffff;
    return state / 0x7fffffff;
  };
  const parts = Array.from({ length: 60 }, () => {
    const [wide, high, corners] = [60 + 200 * random(), 60 + 160 * random(), 16];
    const at = (k: number) => {
      const [angle, r] = [(2 * Math.PI * k) / corners, 0.35 + 0.15 * random()];
      return { x: wide * r * Math.cos(angle), y: high * r * Math.sin(angle) };
    };
    return { outer: polygonPath(Array.from({ length: corners }, (_, k) => at(k))), holes: [], count: 1 };
  });
  const angles = [0, Math.PI / 2, Math.PI, (3 * Math.PI) / 2];
  const { ms, value } = timed(() => finished(nestedOnSheets(parts, { widthMm: 600, heightMm: 1200, marginMm: 5, gapMm: 4, angles })));
  const area = parts.reduce((sum, { outer }) => sum + pathArea(outer), 0);
  const used = (value.sheets - 1) * 600 * 1200 + 600 * value.usedMm;
  line('nesting: 60 parts, four ways round', `${ms.toFixed(0)} ms (5000 asked), ${((100 * area) / used).toFixed(0)} % of the sheets used`);
}

const scans = 100;
const millRaceBlock = demoJobs.find(({ name }) => name.includes('Mill Race'))?.scene as Scene;

/** The block scanned at 150 and 300 dpi, tilted and noisy: right patches, and corners off the draft before they are moved on to its grid. */
function measureScans(): void {
  const truth = [0, 1, 1.5, 2, 3, 4, 4.5, 5, 6];
  let right = 0;
  const off: number[] = [];
  for (let k = 0; k < scans; k++) {
    const dpi = k % 2 === 0 ? 150 : 300;
    const scan = scanScene(millRaceBlock, { dpi, tiltDegrees: -2.5 + (5 * k) / scans, noise: 2 + (k % 8), seed: 100 + k });
    const settings = defaultTraceSettings;
    const traced = tracePicture(scan.picture, 25.4 / dpi, settings);
    const picture = newPicture({
      id: '00000000-0000-4000-8000-000000000001',
      name: 'scan',
      widthPx: scan.picture.width,
      heightPx: scan.picture.height,
      resolution: { dpi, source: 'png', trusted: true },
    });
    const level = millRaceBlock.marks?.level as { x: number; y: number }[];
    const [a, b] = level.map(scan.at) as [{ x: number; y: number }, { x: number; y: number }];
    const levelled = { ...picture, marks: [{ id: 'level', kind: 'level' as const, points: [a, b], stated: [] }] };
    const pieces = traceOnSheet(levelled, settings, traced).pieces.map(({ id, outer, holes }) => ({ id, outer, holes }));
    const drawn = blockOf(pieces, { ...plainQuilting, finishedMm: 152.4, grid: 'none' });
    const onGrid = blockOf(pieces, { ...plainQuilting, finishedMm: 152.4 });
    if (onGrid.map.faces.length === 32 && onGrid.grid === '12') right++;
    for (const p of drawn.map.nodes) {
      const near = truth
        .flatMap((x) => truth.map((y) => ({ x: x * 25.4, y: y * 25.4 })))
        .reduce((best, q) => (distance(p, q) < distance(p, best) ? q : best));
      off.push(distance(p, near));
    }
  }
  off.sort((a, b) => a - b);
  const at = (share: number): string => (off[Math.min(off.length - 1, Math.floor(share * off.length))] as number).toFixed(3);
  line(
    'quilting: scanned blocks with the right patches',
    `${right} of ${scans}; corners off by ${at(0.5)} mm, 95 % within ${at(0.95)}, all within ${at(1)} (0.05 asked)`,
  );
}

/** Twenty traditional blocks, drawn in three ways, scanned at two resolutions: how many have the patches that they were drafted with. */
function measureDrawings(): void {
  for (const drawing of drawings) {
    let right = 0;
    for (const draft of blockDrafts) {
      const wanted = draftedBlock(draft);
      for (const dpi of [150, 300]) {
        const found = blockOf(scannedPieces(draft, drawing, dpi, 1.7, 11), { ...plainQuilting, finishedMm: draft.finishedIn * inchMm });
        if (found.map.faces.length === wanted.map.faces.length && found.grid === wanted.grid) right++;
      }
    }
    line(`quilting: blocks drawn as ${drawing}`, `${right} of ${2 * blockDrafts.length} with the right patches and grid`);
  }
}
