'use client';
/**
 * What a process says is drawn on the sheet, in screen pixels: work in ink with its starts numbered in their order, lines that fill areas
 * pale, travel dashed, frames blue.
 */
import type { SheetLine } from '@nuvet/core/processes';
import { outlinePath2d } from '@/table/drawing-outlines';
import { sheetToScreen, toScreen, type View } from '@/table/view';
import { colours } from '@/ui/colours';

type Canvas = CanvasRenderingContext2D;
type Kind = SheetLine['kind'];

/** In the order in which they are drawn. */
const looks: Readonly<Record<Kind, { colour: string; widthPx: number; dashPx: readonly number[] }>> = {
  hatch: { colour: 'rgba(122, 75, 134, 0.55)', widthPx: 0.8, dashPx: [] },
  work: { colour: colours.ink, widthPx: 1.1, dashPx: [] },
  travel: { colour: colours.madder, widthPx: 1, dashPx: [5, 4] },
  frame: { colour: colours.indigo, widthPx: 1.5, dashPx: [] },
};
const kinds = Object.keys(looks) as Kind[];

const together = new WeakMap<readonly SheetLine[], Readonly<Record<Kind, Path2D>>>();

/** Lines that are drawn alike as one path, kept by identity: few large strokes are far quicker than many small ones. */
function pathsOf(lines: readonly SheetLine[]): Readonly<Record<Kind, Path2D>> {
  let paths = together.get(lines);
  if (!paths) {
    paths = { hatch: new Path2D(), work: new Path2D(), travel: new Path2D(), frame: new Path2D() };
    for (const { kind, path } of lines) paths[kind].addPath(outlinePath2d(path));
    together.set(lines, paths);
  }
  return paths;
}

/** Numbers are told apart up to so many starts. */
const maxNumbers = 60;

export function drawLines(canvas: Canvas, view: View, lines: readonly SheetLine[]): void {
  const paths = pathsOf(lines);
  const t = sheetToScreen(view);
  canvas.save();
  canvas.transform(t.a, t.b, t.c, t.d, t.e, t.f);
  for (const kind of kinds) {
    const { colour, widthPx, dashPx } = looks[kind];
    canvas.strokeStyle = colour;
    canvas.lineWidth = widthPx / view.scale;
    canvas.setLineDash(dashPx.map((px) => px / view.scale));
    canvas.stroke(paths[kind]);
  }
  canvas.restore();
  drawNumbers(canvas, view, lines.filter(({ kind }) => kind === 'work').slice(0, maxNumbers));
}

function drawNumbers(canvas: Canvas, view: View, lines: readonly SheetLine[]): void {
  canvas.font = '600 11px "Figtree Variable", sans-serif';
  canvas.textAlign = 'center';
  canvas.textBaseline = 'middle';
  for (const [k, { path }] of lines.entries()) {
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
  }
}
