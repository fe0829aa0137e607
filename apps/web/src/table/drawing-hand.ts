/**
 * What drawing and correcting by hand show on the table: the figure in the making, points and handles, gaps, what a click
 * takes, the comb of curvature.
 */
import { type Job, masterOf } from '@nuvet/core/job';
import { fittedMotif, type MotifFit } from '@nuvet/core/motif';
import { circleOf, directionOn, distance, type Path, type Point, pointOn, stepsOf } from '@nuvet/core/plane';
import { isSmooth, pointCount, pointOf } from '@nuvet/core/shape';
import { colours } from '@/ui/colours';
import { drawHeld } from './drawing-held';
import { outlinePath2d } from './drawing-outlines';
import { showsHandles } from './hand-correcting';
import { figureFrom, figurePreview, growing, outlineWith } from './hand-drawing';
import { isDrawTool, useHand } from './hand-store';
import { targetOf } from './hand-target';
import { sheetToScreen, toScreen, type View } from './view';

type Canvas = CanvasRenderingContext2D;

export function drawHand(
  canvas: Canvas,
  view: View,
  job: Job,
  outlines: readonly Path[],
  gaps: readonly { at: Point; gapMm: number }[],
): void {
  const hand = useHand.getState();
  canvas.save();
  for (const id of hand.chosen) drawMaster(canvas, view, job, id);
  if (hand.hasComb) for (const path of hand.shaped?.paths ?? chosenPaths(job)) drawComb(canvas, view, path);
  if (hand.tool === 'points') drawPointsOf(canvas, view, job);
  for (const id of hand.chosen) drawHeldOf(canvas, view, job, id);
  for (const path of hand.sketch) strokePath(canvas, view, path, colours.brass, 2.2, [7, 4]);
  for (const { at } of gaps) drawGap(canvas, toScreen(view, at));
  drawUnfinished(canvas, view, job);
  drawSketch(canvas, view, job, outlines);
  if (hand.frame) drawFrame(canvas, toScreen(view, hand.frame.a), toScreen(view, hand.frame.b));
  const shown = hand.aim && (isDrawTool(hand.tool) || hand.asking || hand.shaped);
  if (shown && hand.aim) drawAim(canvas, toScreen(view, hand.aim), hand.snap?.word ?? null);
  canvas.restore();
}

function chosenPaths(job: Job): readonly Path[] {
  const id = useHand.getState().chosen.at(-1);
  return (id ? targetOf(job, id)?.paths : null) ?? [];
}

function strokePath(canvas: Canvas, view: View, path: Path, colour: string, width: number, dash: readonly number[] = []): void {
  const place = sheetToScreen(view);
  canvas.save();
  canvas.transform(place.a, place.b, place.c, place.d, place.e, place.f);
  canvas.setLineDash(dash.map((d) => d / view.scale));
  canvas.strokeStyle = colour;
  canvas.lineWidth = width / view.scale;
  canvas.stroke(outlinePath2d(path));
  canvas.restore();
}

/** What was drawn itself, where something follows from it. */
function drawMaster(canvas: Canvas, view: View, job: Job, id: string): void {
  const target = targetOf(job, id);
  if (!target?.drawn || target.drawn.live.length === 0) return;
  const { shaped } = useHand.getState();
  for (const path of shaped?.pieceId === id ? shaped.paths : target.paths) strokePath(canvas, view, path, colours.ink, 1.6, [6, 4]);
}

/** The measures that a chosen thing keeps, also while it is dragged. */
function drawHeldOf(canvas: Canvas, view: View, job: Job, id: string): void {
  const drawn = job.drawn.find((d) => d.id === id);
  if (!drawn?.held) return;
  const { shaped } = useHand.getState();
  const { paths, off } = masterOf(shaped?.pieceId === id ? { ...drawn, source: shaped.source } : drawn, job.making.stock.thicknessMm);
  const [path] = paths;
  if (path) drawHeld(canvas, view, path, drawn.held, off);
}

function drawPointsOf(canvas: Canvas, view: View, job: Job): void {
  const { chosen, shaped, points, segment } = useHand.getState();
  const id = chosen.at(-1);
  const target = id ? targetOf(job, id) : null;
  const paths = shaped && shaped.pieceId === target?.pieceId ? shaped.paths : (target?.paths ?? []);
  paths.forEach((path, k) => {
    if (segment?.path === k) {
      const step = stepsOf(path)[segment.index];
      if (step) strokePath(canvas, view, { start: step.from, segments: [step.segment], closed: false }, colours.brass, 3);
    }
    path.segments.forEach((s, index) => {
      if (s.kind !== 'cubic' || !showsHandles(path, k, index, points, segment)) return;
      drawHandle(canvas, toScreen(view, pointOf(path, index)), toScreen(view, s.c1));
      drawHandle(canvas, toScreen(view, s.to), toScreen(view, s.c2));
    });
    drawPoints(canvas, view, path, points?.path === k ? points.indices : []);
  });
}

function drawHandle(canvas: Canvas, from: Point, to: Point): void {
  canvas.strokeStyle = colours.quietInk;
  canvas.lineWidth = 1;
  canvas.beginPath();
  canvas.moveTo(from.x, from.y);
  canvas.lineTo(to.x, to.y);
  canvas.stroke();
  canvas.beginPath();
  canvas.arc(to.x, to.y, 3.5, 0, 2 * Math.PI);
  canvas.fillStyle = colours.quietInk;
  canvas.fill();
}

/** Smooth points nearer to the last one drawn could not be told from it, screen pixels. */
const nearestPx = 5;

/** A path's points, those of a kind in one go; where they crowd only as many as can be told apart. */
function drawPoints(canvas: Canvas, view: View, path: Path, chosen: readonly number[]): void {
  const isChosen = new Set(chosen);
  const [smooth, corners, picked] = [new Path2D(), new Path2D(), new Path2D()];
  let last: Point | null = null;
  for (let index = 0; index < pointCount(path); index++) {
    const p = toScreen(view, pointOf(path, index));
    const isRound = isSmooth(path, index);
    if (isChosen.has(index)) addPoint(picked, p, isRound, 5.5);
    else if (!isRound) addPoint(corners, p, false, 4);
    else if (!last || distance(last, p) >= nearestPx) {
      addPoint(smooth, p, true, 4);
      last = p;
    }
  }
  paintPoints(canvas, smooth, colours.sheet, colours.verdigris);
  paintPoints(canvas, corners, colours.verdigris, colours.sheet);
  paintPoints(canvas, picked, colours.brass, colours.sheet);
}

function addPoint(to: Path2D, { x, y }: Point, isRound: boolean, r: number): void {
  to.moveTo(isRound ? x + r : x, isRound ? y : y - r - 1);
  if (isRound) to.arc(x, y, r, 0, 2 * Math.PI);
  else {
    to.lineTo(x + r + 1, y);
    to.lineTo(x, y + r + 1);
    to.lineTo(x - r - 1, y);
  }
  to.closePath();
}

function paintPoints(canvas: Canvas, points: Path2D, fill: string, rim: string): void {
  canvas.fillStyle = fill;
  canvas.fill(points);
  canvas.strokeStyle = rim;
  canvas.lineWidth = 1.4;
  canvas.stroke(points);
}

function drawPoint(canvas: Canvas, p: Point, isRound: boolean): void {
  const one = new Path2D();
  addPoint(one, p, isRound, 4);
  paintPoints(canvas, one, isRound ? colours.sheet : colours.verdigris, isRound ? colours.verdigris : colours.sheet);
}

/** Points of an outline that is still drawn, a single first one with them. */
function drawUnfinished(canvas: Canvas, view: View, job: Job): void {
  const now = growing(job);
  for (const { id, source } of job.drawn) {
    if (source.kind !== 'points' || (source.closed && now?.id !== id)) continue;
    const shown = now?.id === id ? source.points : source.points.length === 1 ? source.points : [];
    for (const { at, corner } of shown) drawPoint(canvas, toScreen(view, at), !corner);
  }
}

function drawSketch(canvas: Canvas, view: View, job: Job, outlines: readonly Path[]): void {
  const { tool, aim, places, through, asking, motif, motifFit } = useHand.getState();
  const [first] = places;
  if (asking === 'motif' && motif && aim && first && distance(first, aim) * view.scale > 2) {
    for (const path of motifSketch(motif.paths, { kind: motifFit, a: first, b: aim }))
      strokePath(canvas, view, path, colours.verdigris, 1.6);
  }
  for (const p of [...places, ...(through ? [through] : [])]) drawPoint(canvas, toScreen(view, p), true);
  if (asking && aim && places.length > 0) strokeLine(canvas, toScreen(view, places.at(-1) as Point), toScreen(view, aim));
  if (!aim || !isDrawTool(tool)) return;
  const path =
    tool === 'outline'
      ? outlineWith(job, aim, null)
      : figurePreview(figureFrom(tool, [...places, aim], outlines), job.making.stock.thicknessMm);
  if (path) strokePath(canvas, view, path, colours.verdigris, 1.8, [7, 4]);
  else if (places.length > 0) strokeLine(canvas, toScreen(view, places.at(-1) as Point), toScreen(view, aim));
}

function motifSketch(paths: readonly Path[], fit: MotifFit): readonly Path[] {
  try {
    return fittedMotif(paths, fit);
  } catch {
    // A box that is still a line holds nothing yet.
    return [];
  }
}

function strokeLine(canvas: Canvas, a: Point, b: Point): void {
  canvas.setLineDash([7, 4]);
  canvas.strokeStyle = colours.verdigris;
  canvas.lineWidth = 1.6;
  canvas.beginPath();
  canvas.moveTo(a.x, a.y);
  canvas.lineTo(b.x, b.y);
  canvas.stroke();
  canvas.setLineDash([]);
}

/** The box drawn over points. */
function drawFrame(canvas: Canvas, a: Point, b: Point): void {
  canvas.setLineDash([5, 4]);
  canvas.strokeStyle = colours.brass;
  canvas.lineWidth = 1.4;
  canvas.strokeRect(Math.min(a.x, b.x), Math.min(a.y, b.y), Math.abs(b.x - a.x), Math.abs(b.y - a.y));
  canvas.setLineDash([]);
}

/** Where ends should meet and do not. */
function drawGap(canvas: Canvas, { x, y }: Point): void {
  canvas.strokeStyle = colours.madder;
  canvas.lineWidth = 2;
  canvas.beginPath();
  canvas.arc(x, y, 8, 0, 2 * Math.PI);
  canvas.stroke();
}

function drawAim(canvas: Canvas, { x, y }: Point, word: string | null): void {
  canvas.strokeStyle = word ? colours.madder : colours.quietInk;
  canvas.lineWidth = 1.8;
  canvas.beginPath();
  canvas.arc(x, y, word ? 7 : 3, 0, 2 * Math.PI);
  canvas.stroke();
  if (!word) return;
  canvas.font = '600 12.5px "Figtree Variable", sans-serif';
  const width = canvas.measureText(word).width;
  canvas.fillStyle = 'rgba(255, 253, 248, 0.92)';
  canvas.fillRect(x + 11, y - 20, width + 8, 17);
  canvas.fillStyle = colours.madder;
  canvas.fillText(word, x + 15, y - 7);
}

/** Teeth as long as the curve bends, to its outer side: what is fair runs even. */
function drawComb(canvas: Canvas, view: View, path: Path): void {
  canvas.strokeStyle = 'rgba(122, 75, 134, 0.75)';
  canvas.lineWidth = 1;
  const tips: Point[] = [];
  canvas.beginPath();
  for (const { from, segment } of stepsOf(path)) {
    const count = segment.kind === 'line' ? 1 : 24;
    for (let k = 0; k <= count; k++) {
      const t = k / count;
      const bend = segment.kind === 'arc' ? Math.sign(segment.sweep) / circleOf(from, segment).radius : bendOn(from, segment, t);
      const [p, d] = [pointOn(from, segment, t), directionOn(from, segment, t)];
      const reach = Math.max(-60, Math.min(60, bend * 600)) / view.scale;
      const [a, b] = [toScreen(view, p), toScreen(view, { x: p.x + d.y * reach, y: p.y - d.x * reach })];
      tips.push(b);
      canvas.moveTo(a.x, a.y);
      canvas.lineTo(b.x, b.y);
    }
  }
  canvas.stroke();
  canvas.beginPath();
  tips.forEach((p, k) => {
    if (k === 0) canvas.moveTo(p.x, p.y);
    else canvas.lineTo(p.x, p.y);
  });
  canvas.stroke();
}

function bendOn(from: Point, segment: Path['segments'][0], t: number): number {
  if (segment.kind === 'line') return 0;
  const h = 1e-3;
  const [a, b] = [Math.max(0, t - h), Math.min(1, t + h)];
  const [d, e, p, q] = [directionOn(from, segment, a), directionOn(from, segment, b), pointOn(from, segment, a), pointOn(from, segment, b)];
  const gone = Math.hypot(q.x - p.x, q.y - p.y);
  return gone > 0 ? Math.atan2(d.x * e.y - d.y * e.x, d.x * e.x + d.y * e.y) / gone : 0;
}
