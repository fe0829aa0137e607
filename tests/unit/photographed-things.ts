/**
 * Things of known height on a sheet about the scale card, rendered through a pinhole in three dimensions (packages/truth), trued up by the card and
 * traced: what each shows, and the plan that it was drawn from.
 */
import { defaultTraceSettings, fitOf, newPicture, type Picture, type Piece, traceOnSheet } from '@nuvet/core/job';
import { type Path, type Point, pathArea, pathBox, polygonOf, polygonPath, project, shift, transformedPath } from '@nuvet/core/plane';
import { greyPicture, warped } from '@nuvet/core/raster';
import { distanceTo, unitedOutlines } from '@nuvet/core/shape';
import { finished } from '@nuvet/core/steps';
import { tracePicture } from '@nuvet/core/trace';
import { findScaleCard, rectificationPlan } from '@nuvet/core/trueup';
import { foundersTools, onScaleCard, photographScene, type Scene, type StandingPart } from '@nuvet/truth';

export const p = (x: number, y: number): Point => ({ x, y });
export const round = (at: Point, radius: number): Point[] => Array.from({ length: 240 }, (_, k) => p(at.x + radius * Math.cos((k * Math.PI) / 120), at.y + radius * Math.sin((k * Math.PI) / 120))); // biome-ignore format: one line

/** A bar with round ends, from above. */
function barPlan(from: Point, to: Point, radius: number): Path {
  const angle = Math.atan2(to.y - from.y, to.x - from.x);
  const end = (at: Point, start: number): Point[] => Array.from({ length: 121 }, (_, k) => p(at.x + radius * Math.cos(start + (k * Math.PI) / 120), at.y + radius * Math.sin(start + (k * Math.PI) / 120))); // biome-ignore format: one line
  return polygonPath([...end(to, angle - Math.PI / 2), ...end(from, angle + Math.PI / 2)]);
}

export interface Thing {
  readonly parts: readonly StandingPart[];
  readonly plan: Path;
}
const upright = (plan: Point[], heightMm: number): Thing => ({ parts: [{ kind: 'upright', plan, heightMm }], plan: polygonPath(plan) });
const bar = (from: Point, to: Point, radiusMm: number): Thing => ({ parts: [{ kind: 'bar', from, to, radiusMm }], plan: barPlan(from, to, radiusMm) }); // biome-ignore format: one line
export const heightOfThing = ({ parts: [part] }: Thing): number => (part?.kind === 'bar' ? 2 * part.radiusMm : (part?.heightMm ?? 0));
export const edgeOfThing = ({ parts: [part] }: Thing): 'round' | 'upright' => (part?.kind === 'bar' ? 'round' : 'upright');

export const things: readonly Thing[] = [
  upright([p(30, 40), p(80, 40), p(80, 120), p(30, 120)], 25),
  bar(p(40, 180), p(60, 270), 9),
  upright(round(p(365, 80), 25), 40),
  bar(p(340, 240), p(395, 180), 12),
];

/** The scale card in the middle of a larger sheet, things to its left and right. */
const card = onScaleCard({ name: '', widthMm: 0, heightMm: 0, pieces: [] } as Scene, p(0, 0));
const onSheet = (path: Path): Path => transformedPath(path, shift(105, 0));
const sheet: Scene = { name: 'things', widthMm: 420, heightMm: 300, pieces: card.pieces.map(({ outer, holes }) => ({ outer: onSheet(outer), holes: holes.map(onSheet) })) }; // biome-ignore format: one line

const [widthPx, heightPx] = [2800, 2000];

/** The bell founder's tools of the demo: a hammer of two bars and a square of two strips are among them. */
export const tools = foundersTools.map(({ parts }): Thing => ({ parts, plan: unitedOutlines(parts.map((part) => (part.kind === 'bar' ? barPlan(part.from, part.to, part.radiusMm) : polygonPath(part.plan))))[0] as Path })); // biome-ignore format: one line

/** A photograph trued up by the card and traced: what it shows of each thing, and where the truth lies. */
export function photographed(settings: { tiltDegrees: number; leanDegrees: number; focalShare: number }, laid: readonly Thing[] = things) {
  const photo = photographScene(sheet, { widthPx, heightPx, seed: 3, ...settings }, laid.flatMap(({ parts }) => parts)); // biome-ignore format: one line
  const found = findScaleCard(photo.picture) as NonNullable<ReturnType<typeof findScaleCard>>;
  const plain = newPicture({ id: '6f2f3a1e-8f5e-4f5f-9b1a-0c9a4f6d2b10', name: 'things.png', widthPx, heightPx, resolution: null });
  const picture: Picture = { ...plain, marks: [{ id: 'card', kind: 'scale-card', points: found.points, places: found.places, stated: [{ text: '100', value: 100 }] }] }; // biome-ignore format: one line
  const fit = fitOf(picture);
  const plan = rectificationPlan(fit, fit.mmPerPx);
  const flat = finished(warped({ width: widthPx, height: heightPx, grey: photo.picture.data, colour: null }, plan));
  const traced = tracePicture(greyPicture(flat.grey, flat.width, flat.height), plan.mmPerPx, defaultTraceSettings);
  const { pieces } = traceOnSheet(picture, defaultTraceSettings, traced, plan, fit);
  const home = project(fit.projection, photo.at(p(0, 0)));
  const shown = laid.map((thing) => {
    const truth = transformedPath(thing.plan, shift(home.x, home.y));
    const box = pathBox(truth);
    const middle = p((box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2);
    const near = pieces.filter(({ outer }) => pathArea(outer) < 3 * pathArea(truth) && distanceTo([outer])(middle) < 60 && pathArea(outer) > 0.7 * pathArea(truth)); // biome-ignore format: one line
    const away = (one: Piece): number => Math.hypot((pathBox(one.outer).minX + pathBox(one.outer).maxX) / 2 - middle.x, (pathBox(one.outer).minY + pathBox(one.outer).maxY) / 2 - middle.y); // biome-ignore format: one line
    const [piece] = near.sort((a, b) => away(a) - away(b));
    if (!piece) throw new Error('a thing is not traced');
    return { thing, truth, piece: { ...piece, name: 'thing' } };
  });
  return { photo, picture, shown, home, pieces };
}

/** How far two outlines lie apart at most, either way, mm. */
export function apart(a: Path, b: Path): number {
  const [toA, toB] = [distanceTo([a]), distanceTo([b])];
  return Math.max(...polygonOf(a, 0.01).map(toB), ...polygonOf(b, 0.01).map(toA));
}
