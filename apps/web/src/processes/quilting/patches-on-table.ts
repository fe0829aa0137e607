'use client';
/**
 * The block over the outlines, in screen pixels, painted in its fabrics; and patches to click on, or to drag on to another
 * so that it takes their fabric.
 */
import { apply, chain, determinant, isInside, type Path, type Point, reversedPath, transformedPath } from '@nuvet/core/plane';
import { blockAreas, middleWithin, type QuiltArea, type QuiltingLine, type QuiltingSettings, type QuiltPlan } from '@nuvet/core/quilting';
import { outlinePath2d } from '@/table/drawing-outlines';
import { drawWord } from '@/table/drawing-words';
import type { Dragged, Handle } from '@/table/table-process';
import { sheetToScreen, toScreen, type View } from '@/table/view';
import { colours } from '@/ui/colours';
import { useFabricInHand } from './fabric-in-hand';
import { paintAreas } from './painted-areas';
import { printsNow } from './prints';

type Canvas = CanvasRenderingContext2D;

/** What is drawn of a plan, the same from frame to frame. */
interface OnTable {
  readonly areas: readonly QuiltArea[];
  readonly labels: readonly { readonly text: string; readonly at: Point; readonly areaMm2: number }[];
}
const onTable = new WeakMap<QuiltPlan, OnTable>();

function drawnOf(plan: QuiltPlan, settings: QuiltingSettings): OnTable {
  const known = onTable.get(plan);
  if (known) return known;
  const { block, shapes } = plan;
  const labels = shapes.flatMap(({ name, patches, areaMm2, isSymmetric }) =>
    patches.map(({ face, isReversed }) => ({
      // Shapes of an appliqué are told apart by where they lie in their order.
      text: [block.layers.length > 0 && face > 0 ? `${face}: ${name}` : name, ...(isReversed && !isSymmetric ? ['r'] : [])].join(' '),
      at: apply(block.toSheet, middleWithin(block.map.faces[face]?.outer as Path)),
      areaMm2,
    })),
  );
  const drawn = { areas: blockAreas(plan, settings, block.toSheet), labels };
  onTable.set(plan, drawn);
  return drawn;
}

function paint(canvas: Canvas, view: View, areas: readonly QuiltArea[], settings: QuiltingSettings): void {
  const t = sheetToScreen(view);
  canvas.save();
  canvas.transform(t.a, t.b, t.c, t.d, t.e, t.f);
  paintAreas(canvas, areas, settings, printsNow(), { opacity: 0.8, edge: colours.ink, edgeWidth: 1 / view.scale });
  canvas.restore();
}

/** Patches are named where they are at least so wide on the screen. */
const namedFromPx = 26;

export function drawBlock(canvas: Canvas, view: View, plan: QuiltPlan, settings: QuiltingSettings): void {
  const { areas, labels } = drawnOf(plan, settings);
  paint(canvas, view, areas, settings);
  const scale = view.scale * Math.hypot(plan.block.toSheet.a, plan.block.toSheet.b);
  for (const { text, at, areaMm2 } of labels)
    if (Math.sqrt(areaMm2) * scale >= namedFromPx) drawWord(canvas, text, toScreen(view, at), colours.ink);
  drawTroubles(canvas, view, plan);
}

/** Where the drawing is no block: rings about the places that its notes name. */
function drawTroubles(canvas: Canvas, view: View, { notes }: QuiltPlan): void {
  canvas.strokeStyle = colours.madder;
  canvas.lineWidth = 2;
  for (const { at } of notes) {
    if (!at) continue;
    const { x, y } = toScreen(view, at);
    canvas.beginPath();
    canvas.arc(x, y, 11, 0, 2 * Math.PI);
    canvas.stroke();
  }
}

export function patchHandles({ block }: QuiltPlan): Handle[] {
  return block.map.faces.map(({ outer }, face) => {
    const path = transformedPath(outer, block.toSheet);
    const outline = determinant(block.toSheet) < 0 ? reversedPath(path) : path;
    return { id: String(face), at: apply(block.toSheet, middleWithin(outer)), outline };
  });
}

const setOf = ({ sets }: QuiltPlan, face: number) => sets.find(({ faces }) => faces.includes(face));

const painted = (settings: QuiltingSettings, plan: QuiltPlan, face: number, fabric: number): Partial<QuiltingSettings> => {
  const set = setOf(plan, face);
  return set ? { fabricOf: { ...settings.fabricOf, [set.name]: fabric } } : {};
};

/** The patches like the one that was clicked on take the fabric in hand. */
export const withPatchPainted = (handle: Handle, plan: QuiltPlan, settings: QuiltingSettings): Partial<QuiltingSettings> =>
  painted(settings, plan, Number(handle.id), useFabricInHand.getState().fabric);

/** A patch dragged on to another: that one and those like it take its fabric. */
export function withFabricCarried({ id, at }: Dragged, plan: QuiltPlan, settings: QuiltingSettings): Partial<QuiltingSettings> {
  const { block } = plan;
  // In an appliqué the background lies under every shape: the uppermost is meant.
  const to = block.map.faces.findLastIndex(({ outer }) => isInside(transformedPath(outer, block.toSheet), at));
  const from = setOf(plan, Number(id));
  return to < 0 || !from ? {} : painted(settings, plan, to, from.fabric);
}

const triedPaths = new WeakMap<QuiltingLine, Path2D>();

function pathOf(line: QuiltingLine): Path2D {
  const known = triedPaths.get(line);
  if (known) return known;
  const whole = new Path2D();
  for (const { path } of line.runs) whole.addPath(outlinePath2d(path));
  triedPaths.set(line, whole);
  return whole;
}

/** The quilting line over the block where it is drawn, in the middle of a photograph, say: a light line with a dark rim is seen on any cloth. */
export function drawTriedLine(canvas: Canvas, view: View, { block, line, pinned }: QuiltPlan, settings: QuiltingSettings): void {
  const tried = line?.isOnBlock ? line : pinned.get(settings.line.pattern);
  if (!tried) return;
  const t = chain(sheetToScreen(view), block.toSheet);
  canvas.save();
  canvas.transform(t.a, t.b, t.c, t.d, t.e, t.f);
  canvas.lineJoin = 'round';
  const scale = Math.hypot(t.a, t.b);
  for (const [colour, widthPx] of [[colours.ink, 4], [colours.sheet, 2]] as const) {
    canvas.strokeStyle = colour;
    canvas.lineWidth = widthPx / scale;
    canvas.stroke(pathOf(tried));
  } // biome-ignore format: rim and line
  canvas.restore();
}
