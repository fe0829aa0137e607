'use client';
/** The views of the body on the light table: each framed, with a tag that is dragged on to its outline; one that is not used lies at the right. */
import { type FoamPlan, type FoamSettings, noView } from '@nuvet/core/foam';
import { type Box, heightOf, isInBox, type Point, widthOf } from '@nuvet/core/plane';
import { drawWord } from '@/table/drawing-words';
import type { Dragged, Handle } from '@/table/table-process';
import { toScreen, type View } from '@/table/view';
import { colours } from '@/ui/colours';
import { words } from '@/words';

const views = ['side', 'above', 'front'] as const;
type ViewName = (typeof views)[number];
const looks: Readonly<Record<ViewName, string>> = { side: colours.verdigris, above: colours.indigo, front: colours.plum };
const tags: Readonly<Record<ViewName, string>> = words.foam.viewTags;

/** Tags of views that are not used lie at the right, this far apart, as a share of the width of what is drawn. */
const parkedApart = 0.08;

const outlineOf = (name: ViewName, { sideId, aboveId, frontId }: FoamPlan): string | null => ({ side: sideId, above: aboveId, front: frontId })[name]; // biome-ignore format: one line

/** The outline of a view, and where its tag lies. */
function placeOf(name: ViewName, plan: FoamPlan): { at: Point; box: Box | null } {
  const id = outlineOf(name, plan);
  const box = plan.outlines.find((one) => one.id === id)?.box ?? null;
  if (box) return { at: { x: (box.minX + box.maxX) / 2, y: box.maxY }, box };
  const boxes = plan.outlines.map((one) => one.box);
  const [left, right] = [Math.min(...boxes.map(({ minX }) => minX)), Math.max(...boxes.map(({ maxX }) => maxX))];
  const top = Math.max(...boxes.map(({ maxY }) => maxY));
  const apart = parkedApart * (right - left);
  return { at: { x: right + apart, y: top - apart * views.indexOf(name) }, box: null };
}

export const viewHandles = (plan: FoamPlan): Handle[] => views.map((name) => ({ id: name, at: placeOf(name, plan).at }));

export function drawViews(canvas: CanvasRenderingContext2D, view: View, plan: FoamPlan, dragged: Dragged | null): void {
  canvas.save();
  for (const name of views) {
    const { at, box } = placeOf(name, plan);
    if (box) {
      const [p, q] = [toScreen(view, { x: box.minX, y: box.maxY }), toScreen(view, { x: box.maxX, y: box.minY })];
      canvas.strokeStyle = looks[name];
      canvas.lineWidth = 1.2;
      canvas.setLineDash([6, 4]);
      canvas.strokeRect(Math.min(p.x, q.x) - 6, Math.min(p.y, q.y) - 6, Math.abs(q.x - p.x) + 12, Math.abs(q.y - p.y) + 12);
      canvas.setLineDash([]);
    }
    drawWord(canvas, tags[name], toScreen(view, dragged?.id === name ? dragged.at : at), looks[name]);
  }
  canvas.restore();
}

/** The settings once a tag was dragged: on to an outline it is that view, and what was that view before takes its place; beside all it is none. */
export function withViewAt(dragged: Dragged, plan: FoamPlan): Partial<FoamSettings> {
  const name = views.find((one) => one === dragged.id);
  if (!name) return {};
  const under = plan.outlines.filter(({ box }) => isInBox(box, dragged.at)).sort((a, b) => areaOf(a.box) - areaOf(b.box))[0];
  const before = outlineOf(name, plan);
  if (under?.id === before || (!under && name === 'side')) return {};
  const other = views.find((one) => one !== name && under && outlineOf(one, plan) === under.id);
  return { ...settingOf(name, under?.id ?? null), ...(other ? settingOf(other, before) : {}) };
}

const areaOf = (box: Box): number => widthOf(box) * heightOf(box);

function settingOf(name: ViewName, id: string | null): Partial<FoamSettings> {
  if (name === 'side') return { sideId: id };
  return name === 'above' ? { aboveId: id ?? noView } : { frontId: id };
}
