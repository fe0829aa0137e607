'use client';
/**
 * Outlines on the light table: dash and weight show the purpose, insides are tinted, the selection is lit, with its points.
 */
import { type Piece, type Purpose, purposeKinds } from '@nuvet/core/job';
import { circleOf, directionOn, dot, type Path, reducedSteps, stepsOf } from '@nuvet/core/plane';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { sheetToScreen, toScreen, type View } from './view';

type Canvas = CanvasRenderingContext2D;

/** Screen pixels for a millimetre of a purpose's dashes, the least of a dash, and pixels for a millimetre of its weight. */
const [dashPx, minDashPx, weightPx] = [3.5, 2, 9];
/** Dash pattern and weight show the purpose first, colour second; screen pixels. */
const strokes = Object.fromEntries(
  Object.entries(purposeKinds).map(([purpose, { look }]) => [
    purpose,
    {
      colour: look.colour,
      width: weightPx * look.widthMm,
      dash: look.dashMm.map((mm) => Math.max(minDashPx, dashPx * mm)),
    },
  ]),
) as Record<Purpose, { colour: string; width: number; dash: number[] }>;

const drawnPaths = new WeakMap<Path, Path2D>();

/** An outline as the canvas draws it, in mm; kept by identity. */
export function outlinePath2d(path: Path): Path2D {
  let drawn = drawnPaths.get(path);
  if (!drawn) {
    drawn = new Path2D();
    drawn.moveTo(path.start.x, path.start.y);
    for (const { from, segment } of reducedSteps(path, ['line', 'arc', 'cubic'], 0.0005)) {
      if (segment.kind === 'line') drawn.lineTo(segment.to.x, segment.to.y);
      else if (segment.kind === 'cubic')
        drawn.bezierCurveTo(segment.c1.x, segment.c1.y, segment.c2.x, segment.c2.y, segment.to.x, segment.to.y);
      else {
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
}

const tint = 'rgba(30, 123, 107, 0.09)';
/** A pale rim keeps lines to be seen on black ink. */
const rim = 'rgba(255, 253, 248, 0.85)';
/** What is left out. */
const quiet = 'rgba(85, 100, 109, 0.75)';

/** How much wider the rim is than its line, screen pixels. */
const rimWidth = 1.6;

/** Of more segments all do without the pale rim, which would cost as much again. */
export const maxWithRim = 4000;
/** Of more segments lines are made up of hairlines, on screens where those are one pixel wide. */
const fewWide = 600;

const drawnGroups = new WeakMap<readonly Piece[], Group[]>();

function groupsOf(pieces: readonly Piece[]): Group[] {
  let groups = drawnGroups.get(pieces);
  if (!groups) {
    const byLook = new Map<string, Group>();
    for (const piece of pieces) {
      const isOpen = !piece.outer.closed;
      const look = `${piece.leftOut ? words.table.excluded : piece.purpose} ${isOpen}`;
      const group = byLook.get(look) ?? { purpose: piece.purpose, leftOut: piece.leftOut, isOpen, path: new Path2D() };
      group.path.addPath(wholeOf(piece));
      byLook.set(look, group);
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

/** Segments of pieces all told. */
export const segmentsIn = (pieces: readonly Piece[]): number =>
  pieces.reduce((n, { outer, holes }) => holes.reduce((m, hole) => m + hole.segments.length, n + outer.segments.length), 0);

/** The pieces as they are when none is chosen. */
export function drawPieces(canvas: Canvas, view: View, pieces: readonly Piece[], isRimmed?: boolean): void {
  const segments = segmentsIn(pieces);
  const hasRim = isRimmed ?? segments <= maxWithRim;
  const isByHairlines = devicePixelRatio === 1 && segments > fewWide;
  const [whole, bare] = isByHairlines ? [strokeInHairlines, bareInHairlines] : [strokeWide, strokeBare];
  const stroke = hasRim ? whole : bare;
  canvas.save();
  onSheet(canvas, view);
  for (const { purpose, leftOut, isOpen, path } of groupsOf(pieces)) {
    if (!leftOut) drawOutlines(canvas, path, purpose, view.scale, !isOpen, stroke);
    else {
      canvas.strokeStyle = quiet;
      canvas.lineWidth = 1 / view.scale;
      canvas.setLineDash([3 / view.scale, 3 / view.scale]);
      canvas.stroke(path);
      canvas.setLineDash([]);
    }
  }
  canvas.restore();
}

/** From here on the canvas is drawn on in mm of the sheet. */
function onSheet(canvas: Canvas, view: View): void {
  const place = sheetToScreen(view);
  canvas.transform(place.a, place.b, place.c, place.d, place.e, place.f);
  canvas.lineJoin = 'round';
}

/** The piece under the pointer, the selected and the chosen ones once more, lit up. */
export function drawChosenPieces(
  canvas: Canvas,
  view: View,
  pieces: readonly Piece[],
  lit: string | null,
  selected: string | null,
  chosenIds: readonly string[],
): void {
  canvas.save();
  onSheet(canvas, view);
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

function drawOutlines(
  canvas: Canvas,
  path: Path2D,
  purpose: Purpose,
  scale: number,
  hasInside: boolean,
  stroke: Stroke = strokeWide,
): void {
  const { colour, width, dash } = strokes[purpose];
  canvas.fillStyle = tint;
  if (hasInside) canvas.fill(path, 'evenodd');
  stroke(canvas, path, scale, { colour, width, dash });
}

type Stroke = (canvas: Canvas, path: Path2D, scale: number, look: { colour: string; width: number; dash: readonly number[] }) => void;

const strokeWide: Stroke = (canvas, path, scale, look) => {
  canvas.strokeStyle = rim;
  canvas.lineWidth = (look.width + rimWidth) / scale;
  canvas.stroke(path);
  strokeBare(canvas, path, scale, look);
};

const strokeBare: Stroke = (canvas, path, scale, { colour, width, dash }) => {
  canvas.setLineDash(dash.map((d) => d / scale));
  canvas.strokeStyle = colour;
  canvas.lineWidth = width / scale;
  canvas.stroke(path);
  canvas.setLineDash([]);
};

/** Hairlines side by side: a processor that paints takes a tenth of the time for one that it takes for a wider line. */
const rimInHairlines: Stroke = (canvas, path, scale, { width }) => {
  const far = (width + rimWidth - 1) / 2;
  canvas.lineWidth = 1 / scale;
  canvas.strokeStyle = rim;
  for (const [x, y] of [[far, 0], [-far, 0], [0, far], [0, -far]] as const) strokeBeside(canvas, path, scale, x, y); // biome-ignore format: one line
};

const bareInHairlines: Stroke = (canvas, path, scale, { colour, width, dash }) => {
  const near = 0.45 * (width - 1);
  canvas.lineWidth = 1 / scale;
  canvas.setLineDash(dash.map((d) => d / scale));
  canvas.strokeStyle = colour;
  for (const [x, y] of [[near, near], [-near, near], [near, -near], [-near, -near]] as const) strokeBeside(canvas, path, scale, x, y); // biome-ignore format: one line
  canvas.setLineDash([]);
};

const strokeInHairlines: Stroke = (canvas, path, scale, look) => {
  rimInHairlines(canvas, path, scale, look);
  bareInHairlines(canvas, path, scale, look);
};

function strokeBeside(canvas: Canvas, path: Path2D, scale: number, x: number, y: number): void {
  canvas.translate(x / scale, y / scale);
  canvas.stroke(path);
  canvas.translate(-x / scale, -y / scale);
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
