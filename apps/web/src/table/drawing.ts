'use client';
/**
 * What is drawn over the picture: the sheet with its millimetre ruling, outlines, points, marks. Everything is drawn in
 * screen pixels on the canvas that it is given.
 */
import type { Mark } from '@nuvet/core/job';
import { printBoth } from '@nuvet/core/length';
import { type Box, heightOf, type Point, widthOf } from '@nuvet/core/plane';
import { centreOfRim } from '@nuvet/core/trueup';
import { type MarkView, markViews } from '@/job/mark-views';
import { colours } from '@/ui/colours';
import { drawWord } from './drawing-words';
import { type Size, toScreen, toSheet, type View } from './view';

type Canvas = CanvasRenderingContext2D;

export function drawSheet(canvas: Canvas, view: View, box: Box): void {
  const [topLeft, bottomRight] = [toScreen(view, { x: box.minX, y: box.maxY }), toScreen(view, { x: box.maxX, y: box.minY })];
  canvas.save();
  canvas.shadowColor = 'rgba(60, 45, 20, 0.18)';
  canvas.shadowBlur = 18;
  canvas.shadowOffsetY = 3;
  canvas.fillStyle = colours.sheet;
  canvas.fillRect(topLeft.x, topLeft.y, bottomRight.x - topLeft.x, bottomRight.y - topLeft.y);
  canvas.restore();
}

/** Millimetre ruling over the sheet: 10 mm lines from 3 screen pixels a millimetre, single ones from 9. */
export function drawRuling(canvas: Canvas, view: View, box: Box, screen: Size): void {
  const from = toSheet(view, { x: 0, y: screen.height });
  const to = toSheet(view, { x: screen.width, y: 0 });
  const shown = (pitch: number, min: number) => Math.min(1, Math.max(0, (view.scale * pitch - min) / min));
  for (const [pitch, min, strength] of [
    [1, 9, 0.1],
    [10, 26, 0.16],
  ] as const) {
    const share = shown(pitch, min);
    if (share === 0) continue;
    canvas.strokeStyle = `rgba(32, 48, 58, ${strength * share})`;
    canvas.lineWidth = 1;
    canvas.beginPath();
    const [x0, x1] = [Math.max(box.minX, from.x), Math.min(box.maxX, to.x)];
    const [y0, y1] = [Math.max(box.minY, from.y), Math.min(box.maxY, to.y)];
    for (let x = Math.ceil(x0 / pitch) * pitch; x <= x1; x += pitch) {
      const p = Math.round(toScreen(view, { x, y: 0 }).x) + 0.5;
      canvas.moveTo(p, toScreen(view, { x, y: y0 }).y);
      canvas.lineTo(p, toScreen(view, { x, y: y1 }).y);
    }
    for (let y = Math.ceil(y0 / pitch) * pitch; y <= y1; y += pitch) {
      const p = Math.round(toScreen(view, { x: 0, y }).y) + 0.5;
      canvas.moveTo(toScreen(view, { x: x0, y }).x, p);
      canvas.lineTo(toScreen(view, { x: x1, y }).x, p);
    }
    canvas.stroke();
  }
}

/** The sheet's origin: a short corner mark with its word, so that a chosen datum can be seen. */
export function drawDatum(canvas: Canvas, view: View): void {
  const p = toScreen(view, { x: 0, y: 0 });
  canvas.save();
  for (const [style, width] of [
    ['rgba(255, 253, 248, 0.9)', 4],
    [colours.ink, 1.6],
  ] as const) {
    canvas.strokeStyle = style;
    canvas.lineWidth = width;
    canvas.beginPath();
    canvas.moveTo(p.x + 22, p.y);
    canvas.lineTo(p.x - 6, p.y);
    canvas.moveTo(p.x, p.y + 6);
    canvas.lineTo(p.x, p.y - 22);
    canvas.stroke();
  }
  canvas.font = '600 12px "Figtree Variable", sans-serif';
  canvas.fillStyle = colours.ink;
  canvas.fillText('0, 0', p.x + 5, p.y + 15);
  canvas.restore();
}

const lookOf = (kind: ShownMark['kind']): MarkView['look'] =>
  kind === 'crop' ? { colour: colours.madder, lines: 'closed' } : markViews[kind].look;

export interface ShownMark {
  readonly kind: Mark['kind'] | 'crop';
  /** Screen pixels. */
  readonly points: readonly Point[];
  /** Read beside the mark. */
  readonly word: string;
  readonly selected: number | null;
  /** One that is only suggested. */
  readonly isGhost: boolean;
  readonly isOutlier: boolean;
}

/** How a mark's points are joined: in turn, all round, or as the circle through them. */
function linesOf({ kind, points }: ShownMark): Path2D {
  const path = new Path2D();
  const [first, ...rest] = points;
  if (!first) return path;
  const { lines } = lookOf(kind);
  if (lines === 'rim' && points.length >= 3) {
    const { x, y, radius } = centreOfRim(points);
    path.arc(x, y, radius, 0, 2 * Math.PI);
    return path;
  }
  if (lines === 'squares') {
    for (let k = 0; k + 3 < points.length; k += 4) {
      const [p, ...others] = points.slice(k, k + 4) as [Point, Point, Point, Point];
      path.moveTo(p.x, p.y);
      for (const q of others) path.lineTo(q.x, q.y);
      path.closePath();
    }
    return path;
  }
  path.moveTo(first.x, first.y);
  for (const p of rest) path.lineTo(p.x, p.y);
  if (lines === 'closed' && points.length > 2) path.closePath();
  return path;
}

/** A mark: thin lines between rings, with its word beside the middle. */
export function drawMark(canvas: Canvas, mark: ShownMark): void {
  const look = lookOf(mark.kind);
  const colour = mark.isOutlier ? colours.madder : look.colour;
  const lines = linesOf(mark);
  canvas.save();
  canvas.lineCap = 'round';
  canvas.globalAlpha = mark.isGhost ? 0.75 : 1;
  for (const [style, width] of [
    ['rgba(255, 253, 248, 0.9)', 4.5],
    [colour, 2],
  ] as const) {
    canvas.strokeStyle = style;
    canvas.lineWidth = width;
    const isDashed = look.isDashed || mark.isGhost;
    canvas.setLineDash(isDashed && width === 2 ? [7, 5] : []);
    canvas.stroke(lines);
  }
  canvas.setLineDash([]);
  // A hull's corners and a card's markers are found, not placed: they show no rings.
  if (!look.isFound) {
    mark.points.forEach((p, k) => {
      const isSelected = mark.selected === k;
      canvas.beginPath();
      canvas.arc(p.x, p.y, isSelected ? 8 : 6, 0, 2 * Math.PI);
      canvas.strokeStyle = 'rgba(255, 253, 248, 0.95)';
      canvas.lineWidth = 5;
      canvas.stroke();
      canvas.strokeStyle = colour;
      canvas.lineWidth = isSelected ? 3 : 2;
      canvas.stroke();
      canvas.beginPath();
      canvas.arc(p.x, p.y, 1.2, 0, 2 * Math.PI);
      canvas.fillStyle = colour;
      canvas.fill();
    });
  }
  canvas.globalAlpha = 1;
  if (mark.word) drawWord(canvas, mark.word, wordPlace(mark.points), colour);
  canvas.restore();
}

const wordPlace = (points: readonly Point[]): Point => {
  const [a, b] = points.length === 2 ? points : [points[0], points[1] ?? points[0]];
  // Above the middle of its line.
  return { x: ((a?.x ?? 0) + (b?.x ?? 0)) / 2, y: ((a?.y ?? 0) + (b?.y ?? 0)) / 2 - 21 };
};

/** What the next click would take: one ring and its word. */
export function drawSnap(canvas: Canvas, at: Point, word: string): void {
  canvas.save();
  canvas.beginPath();
  canvas.arc(at.x, at.y, 9, 0, 2 * Math.PI);
  canvas.strokeStyle = 'rgba(255, 253, 248, 0.95)';
  canvas.lineWidth = 5;
  canvas.stroke();
  canvas.strokeStyle = colours.madder;
  canvas.lineWidth = 2;
  canvas.stroke();
  canvas.font = '600 12px "Figtree Variable", sans-serif';
  canvas.lineWidth = 4;
  canvas.strokeStyle = 'rgba(255, 253, 248, 0.95)';
  canvas.strokeText(word, at.x - 14 - canvas.measureText(word).width, at.y + 4);
  canvas.fillStyle = colours.madder;
  canvas.fillText(word, at.x - 14 - canvas.measureText(word).width, at.y + 4);
  canvas.restore();
}

/** The overall width and height of a box of the sheet, as dimension lines beside it. */
export function drawOverallSize(canvas: Canvas, view: View, box: Box, unit: 'mm' | 'in'): void {
  const [low, high] = [toScreen(view, { x: box.minX, y: box.minY }), toScreen(view, { x: box.maxX, y: box.maxY })];
  const [below, beside, tick] = [low.y + 26, low.x - 26, 5];
  canvas.save();
  canvas.strokeStyle = colours.ink;
  canvas.lineWidth = 1;
  canvas.beginPath();
  for (const [ax, ay, bx, by] of [
    [low.x, below, high.x, below],
    [low.x, below - tick, low.x, below + tick],
    [high.x, below - tick, high.x, below + tick],
    [beside, low.y, beside, high.y],
    [beside - tick, low.y, beside + tick, low.y],
    [beside - tick, high.y, beside + tick, high.y],
  ] as const) {
    canvas.moveTo(ax, ay);
    canvas.lineTo(bx, by);
  }
  canvas.stroke();
  drawWord(canvas, printBoth(widthOf(box), unit), { x: (low.x + high.x) / 2, y: below }, colours.line);
  canvas.translate(beside, (low.y + high.y) / 2);
  canvas.rotate(-Math.PI / 2);
  drawWord(canvas, printBoth(heightOf(box), unit), { x: 0, y: 0 }, colours.line);
  canvas.restore();
}
