'use client';
/**
 * What is drawn over the picture: the sheet with its millimetre ruling, outlines, points, marks. Everything is drawn in
 * screen pixels on the canvas that it is given.
 */
import type { Mark, Piece, Purpose } from '@nuvet/core/job';
import { printBoth } from '@nuvet/core/length';
import { asCubics, type Box, circleOf, directionOn, dot, heightOf, type Path, type Point, stepsOf, widthOf } from '@nuvet/core/plane';
import { centreOfRim } from '@nuvet/core/trueup';
import { colours } from '@/ui/theme';
import { drawWord } from './drawing-words';
import { type Size, sheetToScreen, toScreen, toSheet, type View } from './view';

type Canvas = CanvasRenderingContext2D;

/** Purpose is told by dash pattern and weight first, then by colour; screen pixels. */
const strokes: Record<Purpose, { colour: string; width: number; dash: number[] }> = {
  cut: { colour: colours.verdigris, width: 1.8, dash: [] },
  score: { colour: colours.brass, width: 1.8, dash: [14, 5] },
  perforate: { colour: colours.slate, width: 1.8, dash: [5, 5] },
  engrave: { colour: colours.plum, width: 2, dash: [2, 4] },
  pocket: { colour: colours.plum, width: 2.6, dash: [] },
  stitch: { colour: colours.indigo, width: 1.8, dash: [9, 4, 2, 4] },
  guide: { colour: '#8A8A84', width: 1, dash: [] },
};

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
  const shown = (pitch: number, least: number) => Math.min(1, Math.max(0, (view.scale * pitch - least) / least));
  for (const [pitch, least, strength] of [
    [1, 9, 0.1],
    [10, 26, 0.16],
  ] as const) {
    const share = shown(pitch, least);
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

const drawnPaths = new WeakMap<Path, Path2D>();

/** An outline as the canvas draws it, in mm; kept by identity. */
export function outlinePath2d(path: Path): Path2D {
  let drawn = drawnPaths.get(path);
  if (!drawn) {
    drawn = new Path2D();
    drawn.moveTo(path.start.x, path.start.y);
    for (const { from, segment } of stepsOf(path)) {
      if (segment.kind === 'line') drawn.lineTo(segment.to.x, segment.to.y);
      else if (segment.kind === 'cubic')
        drawn.bezierCurveTo(segment.c1.x, segment.c1.y, segment.c2.x, segment.c2.y, segment.to.x, segment.to.y);
      else if (segment.kind === 'ellipse') {
        for (const { c1, c2, to } of asCubics(from, segment, 0.0005)) drawn.bezierCurveTo(c1.x, c1.y, c2.x, c2.y, to.x, to.y);
      } else {
        const { centre, radius, startAngle } = circleOf(from, segment);
        drawn.arc(centre.x, centre.y, radius, startAngle, startAngle + segment.sweep, segment.sweep < 0);
      }
    }
    if (path.closed) drawn.closePath();
    drawnPaths.set(path, drawn);
  }
  return drawn;
}

/** Pieces that are drawn alike, as one path: few large strokes are far quicker than many small ones. */
interface Group {
  readonly purpose: Purpose;
  readonly leftOut: boolean;
  /** Open lines have no inside to tint. */
  readonly isOpen: boolean;
  readonly path: Path2D;
  readonly segments: number;
}

/** Groups of more segments do without the pale rim, which would cost as much again. */
const mostWithRim = 4000;

const drawnGroups = new WeakMap<readonly Piece[], Group[]>();

function groupsOf(pieces: readonly Piece[]): Group[] {
  let groups = drawnGroups.get(pieces);
  if (!groups) {
    const byLook = new Map<string, Group>();
    for (const piece of pieces) {
      const isOpen = !piece.outer.closed;
      const look = `${piece.leftOut ? 'left out' : piece.purpose} ${isOpen}`;
      const group = byLook.get(look) ?? { purpose: piece.purpose, leftOut: piece.leftOut, isOpen, path: new Path2D(), segments: 0 };
      group.path.addPath(wholeOf(piece));
      const segments = piece.holes.reduce((n, hole) => n + hole.segments.length, group.segments + piece.outer.segments.length);
      byLook.set(look, { ...group, segments });
    }
    groups = [...byLook.values()];
    drawnGroups.set(pieces, groups);
  }
  return groups;
}

const wholes = new WeakMap<Piece, Path2D>();

function wholeOf(piece: Piece): Path2D {
  let whole = wholes.get(piece);
  if (!whole) {
    whole = new Path2D();
    for (const path of [piece.outer, ...piece.holes]) whole.addPath(outlinePath2d(path));
    wholes.set(piece, whole);
  }
  return whole;
}

export function drawPieces(
  canvas: Canvas,
  view: View,
  pieces: readonly Piece[],
  lit: string | null,
  selected: string | null,
  chosenIds: readonly string[],
): void {
  const place = sheetToScreen(view);
  canvas.save();
  canvas.transform(place.a, place.b, place.c, place.d, place.e, place.f);
  canvas.lineJoin = 'round';
  for (const { purpose, leftOut, isOpen, path, segments } of groupsOf(pieces)) {
    if (!leftOut) drawOutlines(canvas, path, purpose, view.scale, !isOpen, segments <= mostWithRim);
    else {
      canvas.strokeStyle = 'rgba(85, 100, 109, 0.75)';
      canvas.lineWidth = 1 / view.scale;
      canvas.setLineDash([3 / view.scale, 3 / view.scale]);
      canvas.stroke(path);
      canvas.setLineDash([]);
    }
  }
  const byHand = new Set(chosenIds);
  const chosen = pieces.filter((p) => p.id === lit || p.id === selected || (byHand.size > 0 && byHand.has(p.id.split('/')[0] as string)));
  for (const piece of chosen) {
    const whole = wholeOf(piece);
    canvas.fillStyle = 'rgba(30, 123, 107, 0.22)';
    if (piece.outer.closed) canvas.fill(whole, 'evenodd');
    canvas.strokeStyle = 'rgba(30, 123, 107, 0.35)';
    canvas.lineWidth = 7 / view.scale;
    canvas.stroke(whole);
    if (!piece.leftOut) drawOutlines(canvas, whole, piece.purpose, view.scale, piece.outer.closed);
  }
  canvas.restore();
  for (const piece of chosen) if (piece.id === selected) drawPoints(canvas, view, piece);
}

function drawOutlines(canvas: Canvas, path: Path2D, purpose: Purpose, scale: number, hasInside: boolean, hasRim = true): void {
  const { colour, width, dash } = strokes[purpose];
  canvas.fillStyle = 'rgba(30, 123, 107, 0.09)';
  if (hasInside) canvas.fill(path, 'evenodd');
  // A pale rim keeps the line to be seen on black ink.
  if (hasRim) {
    canvas.strokeStyle = 'rgba(255, 253, 248, 0.85)';
    canvas.lineWidth = (width + 1.6) / scale;
    canvas.stroke(path);
  }
  canvas.setLineDash(dash.map((d) => d / scale));
  canvas.strokeStyle = colour;
  canvas.lineWidth = width / scale;
  canvas.stroke(path);
  canvas.setLineDash([]);
}

/** Points of a piece: open circles where the outline goes on smoothly, filled lozenges at corners. */
function drawPoints(canvas: Canvas, view: View, piece: Piece): void {
  for (const path of [piece.outer, ...piece.holes]) {
    const steps = stepsOf(path);
    steps.forEach(({ from, segment }, k) => {
      const before = steps.at(k - 1) as (typeof steps)[0];
      const p = toScreen(view, from);
      const [arriving, leaving] = [directionOn(before.from, before.segment, 1), directionOn(from, segment, 0)];
      const isSmooth = dot(arriving, leaving) > Math.cos(0.02);
      canvas.beginPath();
      if (isSmooth) canvas.arc(p.x, p.y, 3, 0, 2 * Math.PI);
      else {
        canvas.moveTo(p.x, p.y - 4.4);
        canvas.lineTo(p.x + 4.4, p.y);
        canvas.lineTo(p.x, p.y + 4.4);
        canvas.lineTo(p.x - 4.4, p.y);
        canvas.closePath();
      }
      canvas.fillStyle = isSmooth ? colours.sheet : colours.verdigris;
      canvas.fill();
      canvas.strokeStyle = isSmooth ? colours.verdigris : colours.sheet;
      canvas.lineWidth = 1.4;
      canvas.stroke();
    });
  }
}

const markColours: Record<ShownMark['kind'], string> = {
  'known-length': colours.verdigris,
  level: colours.indigo,
  plumb: colours.indigo,
  'right-angle': colours.indigo,
  frame: colours.verdigris,
  circle: colours.verdigris,
  box: colours.verdigris,
  clearance: colours.verdigris,
  'scale-card': colours.verdigris,
  check: colours.brass,
  'check-angle': colours.brass,
  'check-radius': colours.brass,
  'check-along': colours.brass,
  crop: colours.madder,
};

export interface ShownMark {
  readonly kind: Mark['kind'] | 'crop';
  /** Screen pixels. */
  readonly points: readonly Point[];
  /** Read beside the mark. */
  readonly word: string;
  readonly selected: number | null;
  /** One that is only suggested. */
  readonly isGhost: boolean;
  readonly isSuspect: boolean;
}

/** How a mark's points are joined: in turn, all round, or as the circle through them. */
function linesOf({ kind, points }: ShownMark): Path2D {
  const path = new Path2D();
  const [first, ...rest] = points;
  if (!first) return path;
  if ((kind === 'circle' || kind === 'check-radius') && points.length >= 3) {
    const { x, y, radius } = centreOfRim(points);
    path.arc(x, y, radius, 0, 2 * Math.PI);
    return path;
  }
  if (kind === 'scale-card') {
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
  if (['frame', 'box', 'crop'].includes(kind) && points.length > 2) path.closePath();
  return path;
}

/** A mark: thin lines between rings, with its word beside the middle. */
export function drawMark(canvas: Canvas, mark: ShownMark): void {
  const colour = mark.isSuspect ? colours.madder : markColours[mark.kind];
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
    const isDashed = mark.kind.startsWith('check') || mark.kind === 'box' || mark.isGhost;
    canvas.setLineDash(isDashed && width === 2 ? [7, 5] : []);
    canvas.stroke(lines);
  }
  canvas.setLineDash([]);
  // A hull's corners and a card's markers are found, not placed: they show no rings.
  if (mark.kind !== 'box' && mark.kind !== 'scale-card') {
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
