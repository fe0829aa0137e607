'use client';
/**
 * What proving and making ready draw over the outlines: places of findings, sizes that must come out, bridges, the way of the
 * tool, pages, the burnt sheet. In screen pixels.
 */
import type { Job, Piece } from '@nuvet/core/job';
import { printMm } from '@nuvet/core/length';
import type { CutPlan, Tiling } from '@nuvet/core/make';
import type { Point } from '@nuvet/core/plane';
import type { ProvedSize } from '@nuvet/core/proof';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { outlinePath2d } from './drawing-outlines';
import { drawWord } from './drawing-words';
import { sheetToScreen, toScreen, type View } from './view';

type Canvas = CanvasRenderingContext2D;
const pale = 'rgba(255, 253, 248, 0.95)';

function withRim(canvas: Canvas, colour: string, width: number, trace: () => void): void {
  for (const [style, size] of [
    [pale, width + 3],
    [colour, width],
  ] as const) {
    canvas.strokeStyle = style;
    canvas.lineWidth = size;
    canvas.beginPath();
    trace();
    canvas.stroke();
  }
}

/** A ring at each place of the finding that is looked at. */
export function drawPlaces(canvas: Canvas, view: View, places: readonly Point[]): void {
  for (const place of places) {
    const { x, y } = toScreen(view, place);
    withRim(canvas, colours.madder, 2.4, () => canvas.arc(x, y, 13, 0, 2 * Math.PI));
  }
}

/** Each size between its two places, with what it is. */
export function drawSizes(canvas: Canvas, view: View, sizes: readonly ProvedSize[]): void {
  for (const { pinned, ends, isMm, holds } of sizes) {
    const [a, b] = ends.map((p) => toScreen(view, p));
    if (!a || !b || isMm === null || pinned.of.kind !== 'between') continue;
    const colour = holds ? colours.verdigris : colours.madder;
    const size = Math.hypot(b.x - a.x, b.y - a.y) || 1;
    const [nx, ny] = [(-(b.y - a.y) / size) * 6, ((b.x - a.x) / size) * 6];
    withRim(canvas, colour, 1.8, () => {
      canvas.moveTo(a.x, a.y);
      canvas.lineTo(b.x, b.y);
      for (const p of [a, b]) {
        canvas.moveTo(p.x - nx, p.y - ny);
        canvas.lineTo(p.x + nx, p.y + ny);
      }
    });
    drawWord(canvas, words.table.measured(printMm(isMm)), { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }, colour);
  }
}

/** The ends of each bridge, to be dragged along their outlines. */
export function drawHolds(
  canvas: Canvas,
  view: View,
  holds: Job['proof']['holds'],
  dragged: { id: string; end: 'from' | 'to'; at: Point } | null,
): void {
  for (const hold of holds) {
    const ends = (['from', 'to'] as const).map((end) =>
      toScreen(view, dragged?.id === hold.id && dragged.end === end ? dragged.at : hold[end]),
    );
    const [a, b] = ends as [Point, Point];
    canvas.setLineDash([5, 3]);
    withRim(canvas, colours.ink, 1.2, () => {
      canvas.moveTo(a.x, a.y);
      canvas.lineTo(b.x, b.y);
    });
    canvas.setLineDash([]);
    for (const { x, y } of ends) {
      canvas.beginPath();
      canvas.arc(x, y, 5, 0, 2 * Math.PI);
      canvas.fillStyle = colours.sheet;
      canvas.fill();
      canvas.strokeStyle = colours.ink;
      canvas.lineWidth = 1.8;
      canvas.stroke();
    }
  }
}

/** Places taken so far and the one that a click would take. */
export function drawTaken(canvas: Canvas, view: View, taken: readonly Point[], aim: Point | null): void {
  const points = [...taken, ...(aim ? [aim] : [])].map((p) => toScreen(view, p));
  const [a, b] = points;
  if (a && b)
    withRim(canvas, colours.ink, 1.5, () => {
      canvas.moveTo(a.x, a.y);
      canvas.lineTo(b.x, b.y);
    });
  for (const { x, y } of points) withRim(canvas, colours.madder, 2, () => canvas.arc(x, y, 7, 0, 2 * Math.PI));
}

const planned = new WeakMap<CutPlan, { travel: Path2D; ways: Path2D; lines: Path2D }>();

function pathsOfPlan(plan: CutPlan): { travel: Path2D; ways: Path2D; lines: Path2D } {
  let drawn = planned.get(plan);
  if (!drawn) {
    drawn = { travel: new Path2D(), ways: new Path2D(), lines: new Path2D() };
    let at: Point | null = null;
    for (const { path, airMm } of plan.runs) {
      (airMm > 0 ? drawn.lines : drawn.ways).addPath(outlinePath2d(path));
      if (at) {
        drawn.travel.moveTo(at.x, at.y);
        drawn.travel.lineTo(path.start.x, path.start.y);
      }
      at = path.closed ? path.start : (path.segments.at(-1)?.to ?? path.start);
    }
    planned.set(plan, drawn);
  }
  return drawn;
}

/** Numbers are told apart up to so many starts. */
const mostNumbers = 60;

/** The ways of the tool in their order: cuts in ink, travel thin and dashed, starts numbered. */
export function drawPlan(canvas: Canvas, view: View, plan: CutPlan): void {
  const { travel, ways, lines } = pathsOfPlan(plan);
  const t = sheetToScreen(view);
  canvas.save();
  canvas.transform(t.a, t.b, t.c, t.d, t.e, t.f);
  canvas.strokeStyle = 'rgba(122, 75, 134, 0.55)';
  canvas.lineWidth = 0.8 / view.scale;
  canvas.stroke(lines);
  canvas.strokeStyle = colours.ink;
  canvas.lineWidth = 1.1 / view.scale;
  canvas.stroke(ways);
  canvas.strokeStyle = colours.madder;
  canvas.lineWidth = 1 / view.scale;
  canvas.setLineDash([5 / view.scale, 4 / view.scale]);
  canvas.stroke(travel);
  canvas.restore();
  const starts = plan.runs.filter((r) => r.airMm === 0);
  canvas.font = '600 11px "Figtree Variable", sans-serif';
  canvas.textAlign = 'center';
  canvas.textBaseline = 'middle';
  starts.slice(0, mostNumbers).forEach(({ path }, k) => {
    const { x, y } = toScreen(view, path.start);
    canvas.beginPath();
    canvas.arc(x, y, 8.5, 0, 2 * Math.PI);
    canvas.fillStyle = colours.sheet;
    canvas.fill();
    canvas.strokeStyle = colours.ink;
    canvas.lineWidth = 1.2;
    canvas.stroke();
    canvas.fillStyle = colours.ink;
    canvas.fillText(String(k + 1), x, y + 0.5);
  });
}

/** The pages as they lie over the work, each with its name; dragged they move as a whole. */
export function drawPages(canvas: Canvas, view: View, tiling: Tiling, dragged: Point | null): void {
  const by = dragged ? { x: dragged.x - tiling.place.x, y: dragged.y - tiling.place.y } : { x: 0, y: 0 };
  for (const { cell, window, name } of tiling.pages) {
    const corner = (b: typeof cell) => {
      const [p, q] = [toScreen(view, { x: b.minX + by.x, y: b.maxY + by.y }), toScreen(view, { x: b.maxX + by.x, y: b.minY + by.y })];
      return [p.x, p.y, q.x - p.x, q.y - p.y] as const;
    };
    canvas.fillStyle = 'rgba(53, 80, 143, 0.05)';
    canvas.fillRect(...corner(window));
    canvas.strokeStyle = 'rgba(53, 80, 143, 0.35)';
    canvas.lineWidth = 1;
    canvas.setLineDash([3, 3]);
    canvas.strokeRect(...corner(window));
    canvas.setLineDash([]);
    canvas.strokeStyle = colours.indigo;
    canvas.lineWidth = 1.5;
    canvas.strokeRect(...corner(cell));
    const [x, y] = corner(cell);
    drawWord(canvas, name, { x: x + 24, y: y + 20 }, colours.indigo);
  }
}

/** Once all is cut the pieces lie loose: a little raised, with a shadow. */
function drawLoose(canvas: Canvas, view: View, pieces: readonly Piece[]): void {
  const t = sheetToScreen(view);
  for (const { purpose, outer, holes } of pieces) {
    if (purpose !== 'cut' || !outer.closed) continue;
    const whole = new Path2D();
    for (const path of [outer, ...holes]) whole.addPath(outlinePath2d(path));
    canvas.save();
    canvas.transform(t.a, t.b, t.c, t.d, t.e, t.f);
    canvas.shadowColor = 'rgba(60, 45, 20, 0.45)';
    canvas.shadowBlur = 9;
    canvas.shadowOffsetX = 2;
    canvas.shadowOffsetY = 4;
    canvas.fillStyle = '#E9D3AE';
    canvas.fill(whole, 'evenodd');
    canvas.restore();
  }
}

/** What has been burnt into the stock, and the head. */
export function drawBurnt(
  canvas: Canvas,
  view: View,
  pieces: readonly Piece[],
  burnt: { stretches: readonly (readonly Point[])[]; head: Point; isOver: boolean; isDone: boolean },
  kerfMm: number,
): void {
  if (burnt.isDone) drawLoose(canvas, view, pieces);
  canvas.save();
  canvas.strokeStyle = '#4A2F1B';
  canvas.lineWidth = Math.max(1.4, kerfMm * view.scale);
  canvas.lineCap = 'round';
  canvas.lineJoin = 'round';
  canvas.beginPath();
  for (const stretch of burnt.stretches) {
    stretch.forEach((p, k) => {
      const { x, y } = toScreen(view, p);
      if (k === 0) canvas.moveTo(x, y);
      else canvas.lineTo(x, y);
    });
  }
  canvas.stroke();
  canvas.restore();
  if (burnt.isOver) return;
  const { x, y } = toScreen(view, burnt.head);
  withRim(canvas, colours.madder, 2.4, () => {
    canvas.arc(x, y, 6, 0, 2 * Math.PI);
    canvas.moveTo(x - 11, y);
    canvas.lineTo(x + 11, y);
    canvas.moveTo(x, y - 11);
    canvas.lineTo(x, y + 11);
  });
}
