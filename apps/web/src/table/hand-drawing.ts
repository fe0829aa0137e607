/**
 * What clicks of the drawing tools do: every point is in the job as soon as it is set, so that nothing drawn is ever lost.
 */
import type { Command, Drawn, Job } from '@nuvet/core/job';
import { boxAroundBoxes, distance, type Path, type Point, pathBox, stepsOf } from '@nuvet/core/plane';
import {
  arcLeaving,
  arcThrough,
  circleThrough,
  circleTouching,
  type DrawnPoint,
  type Figure,
  figurePath,
  lineAcross,
  lineMidway,
  pathThrough,
  pointsAlong,
  reversedPoints,
} from '@nuvet/core/shape';
import { words } from '@/words';
import { type DrawTool, setHand, useHand } from './hand-store';
import { newDrawn, type PointsSource } from './hand-target';

type Run = (command: Command) => void;
/** An open outline as the points that it was, or could have been, drawn by. */
function pointsOf(source: Drawn['source'] | undefined): PointsSource | null {
  if (source?.kind === 'points') return source;
  const points = source?.kind === 'path' && !source.path.closed ? pointsAlong(source.path) : null;
  return points && { kind: 'points', points: points as PointsSource['points'], closed: false };
}

/** The outline that goes on, its points in the order in which it grows. */
export function growing(job: Job): { readonly id: string; readonly points: readonly DrawnPoint[]; readonly atStart: boolean } | null {
  const { goingOn } = useHand.getState();
  const source = goingOn && pointsOf(job.drawn.find((d) => d.id === goingOn.id)?.source);
  if (!goingOn || !source || source.closed) return null;
  const atStart = goingOn.end === 'start';
  return { id: goingOn.id, points: inOrder(source.points as DrawnPoint[], atStart), atStart };
}

/** Points in the order in which the outline grows, or back in the order in which they are kept. */
const inOrder = (points: readonly DrawnPoint[], atStart: boolean): DrawnPoint[] => (atStart ? reversedPoints(points) : [...points]);

const stored = (points: readonly DrawnPoint[], atStart: boolean) => inOrder(points, atStart) as PointsSource['points'];

/** A new point at the end; `handle` where it was pulled into a curve. */
export function addPoint(run: Run, job: Job, at: Point, closeWithin: number, handle: Point | null): void {
  const { pointKind, through, tool, purpose } = useHand.getState();
  const now = growing(job);
  if (!now) {
    const open = tool === 'outline' ? openEndAt(job, at, closeWithin) : null;
    if (open) {
      setHand({ goingOn: open });
      return;
    }
    const source = { kind: 'points', points: [pointAt(at, pointKind, null, null)], closed: false } as const;
    const drawn = newDrawn(job, words.table.outline, { ...source, points: [...source.points] }, { purpose });
    run({ do: 'draw', drawn });
    setHand({ goingOn: { id: drawn.id, end: 'end' }, chosen: [drawn.id], through: null });
    return;
  }
  const [first] = now.points;
  if (first && now.points.length > 2 && distance(first.at, at) <= closeWithin) {
    closeOutline(run, job, through);
    return;
  }
  // Twice on the same place is a slip of the hand.
  if (distance((now.points.at(-1) as DrawnPoint).at, at) < 1e-6) return;
  const points = [...now.points, pointAt(at, pointKind, through, handle)];
  run({ do: 'redraw', drawnId: now.id, source: { kind: 'points', points: stored(points, now.atStart), closed: false } });
  // What was typed was meant for this one.
  setHand({ through: null, typedLength: null, typedAngle: null });
}

function pointAt(at: Point, kind: 'corner' | 'curve', through: Point | null, handle: Point | null): DrawnPoint {
  const point: DrawnPoint = { at, corner: kind === 'corner' && !handle };
  if (through) return { ...point, through };
  return handle ? { ...point, after: handle, before: { x: 2 * at.x - handle.x, y: 2 * at.y - handle.y } } : point;
}

/** An end of an open drawn outline near a place, to go on from. */
function openEndAt(job: Job, p: Point, within: number): { id: string; end: 'start' | 'end' } | null {
  for (const { id, source } of job.drawn) {
    const open = pointsOf(source);
    if (!open || open.closed) continue;
    const [first, last] = [open.points[0], open.points.at(-1)];
    if (last && distance(last.at, p) <= within) return { id, end: 'end' };
    if (first && distance(first.at, p) <= within) return { id, end: 'start' };
  }
  return null;
}

/** The outline that goes on led back to its start. */
export function closeOutline(run: Run, job: Job, through: Point | null = null): void {
  const now = growing(job);
  if (!now || now.points.length < 2) return;
  // An arc that closes the outline stands at the point it ends on.
  const points = stored(now.points, now.atStart).map((p, k) => (through && k === 0 ? { ...p, through } : p));
  run({ do: 'redraw', drawnId: now.id, source: { kind: 'points', points, closed: true } });
  setHand({ goingOn: null, through: null });
}

/** The last point taken back; with the only one goes the outline. */
export function takePointBack(run: Run, job: Job): boolean {
  const { places } = useHand.getState();
  if (places.length > 0) {
    setHand({ places: places.slice(0, -1) });
    return true;
  }
  const now = growing(job);
  if (!now) return false;
  const points = now.points.slice(0, -1);
  if (points.length === 0) {
    run({ do: 'replace-drawn', word: words.table.takingThePointBack, ids: [now.id], by: [] });
    setHand({ goingOn: null, chosen: [] });
  } else run({ do: 'redraw', drawnId: now.id, source: { kind: 'points', points: stored(points, now.atStart), closed: false } });
  return true;
}

/** What the outline would be with the place under the pointer. */
export function outlineWith(job: Job, aim: Point, handle: Point | null): Path | null {
  const { pointKind, through } = useHand.getState();
  const now = growing(job);
  return now && pathThrough([...now.points, pointAt(aim, pointKind, through, handle)], false);
}

const needed: Record<Exclude<DrawTool, 'outline'>, number> = { line: 2, rectangle: 2, circle: 2, ellipse: 2, arc: 3, polygon: 2, slot: 2 };

export function placesNeeded(tool: DrawTool): number {
  const { circleBy, arcBy } = useHand.getState();
  if (tool === 'circle') return circleBy === 'three' ? 3 : circleBy === 'touching' ? 3 : 2;
  if (tool === 'arc') return arcBy === 'three' ? 3 : 2;
  return tool === 'outline' ? Infinity : needed[tool];
}

const figureWords: Record<DrawTool, string> = {
  outline: 'Outline',
  line: words.table.line,
  rectangle: words.table.rectangle,
  circle: words.table.circle,
  ellipse: words.table.ellipse,
  arc: words.table.arc,
  polygon: words.table.polygon,
  slot: words.table.slot,
};

/** Lines right across, and midway between others, are drawn by, whatever else is drawn for. */
export const isGuideLine = (tool: DrawTool, lineBy: 'ends' | 'across' | 'midway'): boolean => tool === 'line' && lineBy !== 'ends';

/** A figure that is done, in the job. */
export function placeFigure(run: Run, job: Job, tool: DrawTool, figure: Figure): void {
  const source = { kind: 'figure', figure: figure as Extract<Drawn['source'], { kind: 'figure' }>['figure'] } as const;
  const { purpose, lineBy } = useHand.getState();
  const drawn = newDrawn(job, figureWords[tool], source, { purpose: isGuideLine(tool, lineBy) ? 'guide' : purpose });
  run({ do: 'draw', drawn });
  setHand({ places: [], chosen: [drawn.id], typedLength: null, typedAngle: null });
}

/** The figure that places make; null while it is none yet. `job` lends its lines to circles that touch and arcs that leave. */
export function figureFrom(tool: DrawTool, places: readonly Point[], outlines: readonly Path[]): Figure | null {
  const [a, b, c] = places;
  const { sides, cornerRadius, slot } = useHand.getState();
  if (!a || !b) return null;
  switch (tool) {
    case 'line':
      return lineFrom(a, b, outlines);
    case 'rectangle': {
      const [width, height] = [Math.abs(b.x - a.x), Math.abs(b.y - a.y)];
      const radius = Math.min(cornerRadius, width / 2, height / 2);
      return Math.min(width, height) > 1e-6 ? { kind: 'rectangle', centre: middle(a, b), width, height, radius, angle: 0 } : null;
    }
    case 'ellipse': {
      const [rx, ry] = [Math.abs(b.x - a.x) / 2, Math.abs(b.y - a.y) / 2];
      return Math.min(rx, ry) > 1e-6 ? { kind: 'ellipse', centre: middle(a, b), rx, ry, angle: 0 } : null;
    }
    case 'polygon': {
      const radius = distance(a, b);
      return radius > 1e-6 ? { kind: 'polygon', centre: a, sides, radius, angle: Math.atan2(b.y - a.y, b.x - a.x) } : null;
    }
    case 'slot':
      return distance(a, b) > 1e-6 ? { kind: 'slot', from: a, to: b, ...slot } : null;
    case 'circle':
      return circleFrom(a, b, c, outlines);
    case 'arc':
      return arcFrom(a, b, c, outlines);
    case 'outline':
      return null;
  }
}

function lineFrom(a: Point, b: Point, outlines: readonly Path[]): Figure | null {
  const { lineBy } = useHand.getState();
  const box = boxAroundBoxes(outlines.map(pathBox));
  if (lineBy === 'midway') {
    const [one, two] = [lineAt(outlines, a), lineAt(outlines, b)];
    if (!one || !two || (one[0] === two[0] && one[1] === two[1])) return null;
    const { at, along } = lineMidway(one, two, a, b);
    return lineAcross(at, along, box);
  }
  if (distance(a, b) <= 1e-6) return null;
  return lineBy === 'ends' ? { kind: 'line', from: a, to: b } : lineAcross(a, { x: b.x - a.x, y: b.y - a.y }, box);
}

const middle = (a: Point, b: Point): Point => ({ x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 });

function circleFrom(a: Point, b: Point, c: Point | undefined, outlines: readonly Path[]): Figure | null {
  const { circleBy, radius } = useHand.getState();
  const made = (found: { centre: Point; radius: number } | null): Figure | null =>
    found && found.radius > 1e-6 ? { kind: 'circle', ...found } : null;
  if (circleBy === 'centre') return made({ centre: a, radius: distance(a, b) });
  if (circleBy === 'two') return made({ centre: middle(a, b), radius: distance(a, b) / 2 });
  if (!c) return null;
  if (circleBy === 'three') return made(circleThrough(a, b, c));
  const [one, two] = [lineAt(outlines, a), lineAt(outlines, b)];
  return one && two ? made(circleTouching(one, two, radius, c)) : null;
}

/** The straight segment nearest to a place. */
function lineAt(outlines: readonly Path[], p: Point): [Point, Point] | null {
  let best: { ends: [Point, Point]; off: number } | null = null;
  for (const path of outlines)
    for (const { from, segment } of stepsOf(path)) {
      if (segment.kind !== 'line') continue;
      const [dx, dy] = [segment.to.x - from.x, segment.to.y - from.y];
      const square = dx * dx + dy * dy;
      const t = square > 0 ? Math.min(1, Math.max(0, ((p.x - from.x) * dx + (p.y - from.y) * dy) / square)) : 0;
      const off = Math.hypot(from.x + t * dx - p.x, from.y + t * dy - p.y);
      if (!best || off < best.off) best = { ends: [from, segment.to], off };
    }
  return best?.ends ?? null;
}

function arcFrom(a: Point, b: Point, c: Point | undefined, outlines: readonly Path[]): Figure | null {
  const { arcBy } = useHand.getState();
  if (arcBy === 'three') {
    if (!c) return null;
    const arc = arcThrough(a, b, c);
    return arc?.kind === 'arc' ? { kind: 'arc', from: a, to: c, sweep: arc.sweep } : { kind: 'line', from: a, to: c };
  }
  const leaving = directionAt(outlines, a);
  return arcLeaving(a, leaving ?? { x: 1, y: 0 }, b);
}

/** Which way an outline that ends at a place would go on. */
function directionAt(outlines: readonly Path[], p: Point): Point | null {
  for (const path of outlines) {
    const steps = stepsOf(path);
    const [first, last] = [steps[0], steps.at(-1)];
    if (path.closed || !first || !last) continue;
    if (distance(last.segment.to, p) < 1e-6) return towards(last.from, last.segment.to);
    if (distance(path.start, p) < 1e-6) return towards(first.segment.to, path.start);
  }
  return null;
}

function towards(a: Point, b: Point): Point {
  const size = distance(a, b) || 1;
  return { x: (b.x - a.x) / size, y: (b.y - a.y) / size };
}

/** The outline that a figure would have; null where it cannot be yet. */
export function figurePreview(figure: Figure | null, thicknessMm: number | null): Path | null {
  if (!figure) return null;
  try {
    return figurePath(figure, thicknessMm ?? 3);
  } catch {
    return null;
  }
}
