/** In: a quilt's plan. Out: its templates at full size, a page or more: cut along the solid line, sew along the dashed one. */
import { english } from '../../messages/index.ts';
import { circlePath, heightOf, isInside, type Path, type Point, pathBox, widthOf } from '../../plane/index.ts';
import { middleWithin, type QuiltingSettings, type QuiltPlan, type Template } from '../../quilting/index.ts';
import type { ProcessFileMade, Work } from '../process.ts';
import { type Pattern, type PatternText, patternsPdf } from './paged-patterns.ts';

export function madeTemplates({ title, settings }: Work<QuiltingSettings>, { templates }: QuiltPlan): Promise<ProcessFileMade> {
  return patternsPdf(english.quilting.templates(title), templates.map((one) => patternOf(title, one)), settings.paper, english.quilting.lines); // biome-ignore format: one line
}

const matchPointMm = 0.5;

function patternOf(block: string, { shape, sewing, cutting, notches, matchPoints, count, reversed }: Template): Pattern {
  const at = middleWithin(sewing);
  const room = Math.min(widthOf(pathBox(sewing)), heightOf(pathBox(sewing)));
  const texts: PatternText[] = [
    { at: { x: at.x, y: at.y + Math.min(2, room / 14) }, text: shape.name, size: Math.min(16, Math.max(6, room / 2.4)), isBold: true },
    ...(room > smallMm
      ? [
          { at: { x: at.x, y: at.y - 3.5 }, text: english.quilting.cutCount(count, reversed), size: 7 },
          { at: { x: at.x, y: at.y - 6.8 }, text: block.slice(0, 28), size: 6 },
        ]
      : []),
  ];
  return {
    name: english.quilting.patch(shape.name),
    lines: [
      { kind: 'cutting', path: cutting },
      { kind: 'sewing', path: sewing },
      ...[...notches, ...matchPoints.map((p) => circlePath(p, matchPointMm)), ...grainArrow(sewing, at, room)].map(
        (path) => ({ kind: 'mark', path }) as const,
      ),
    ],
    texts,
  };
}
/** Of patches smaller than this only the name is printed, mm. */
const smallMm = 24;

/** Along the threads of the cloth, as the block lies. */
function grainArrow(sewing: Path, { x, y }: Point, room: number): Path[] {
  const [half, head] = [Math.min(12, room / 6), 1.6];
  // Beside the name, where all of it lies within the patch.
  const side = [-1, 1].map((sign) => x + sign * Math.min(16, room / 4)).find((at) => [y - half, y + half].every((end) => isInside(sewing, { x: at, y: end }))); // biome-ignore format: one line
  if (room < smallMm || side === undefined) return [];
  const line = (...places: Point[]): Path => ({ start: places[0] as Point, segments: places.slice(1).map((to) => ({ kind: 'line', to })), closed: false }); // biome-ignore format: one line
  const tip = (end: number, by: number): Path =>
    line({ x: side - head, y: end - by }, { x: side, y: end }, { x: side + head, y: end - by });
  return [line({ x: side, y: y - half }, { x: side, y: y + half }), tip(y + half, head), tip(y - half, -head)];
}

/** Every shape of an appliqué where it lies, numbered from the lowest. */
export function madePlacementGuide({ title, settings }: Work<QuiltingSettings>, { block }: QuiltPlan): Promise<ProcessFileMade> {
  const [background, ...shapes] = block.map.faces.map(({ outer }) => outer);
  const stems = block.stems.flatMap(({ outline }) => outline.flatMap(({ outer, holes }) => [outer, ...holes]));
  const lines = [...(background ? [{ kind: 'cutting', path: background } as const] : []), ...[...stems, ...shapes].map((path) => ({ kind: 'sewing', path }) as const)]; // biome-ignore format: one line
  const texts = shapes.map((path, k): PatternText => ({ at: middleWithin(path), text: String(k + 1), size: 10, isBold: true }));
  return patternsPdf(english.quilting.placement(title), [{ name: english.quilting.placementWord, lines, texts }], settings.paper, english.quilting.placementHow); // biome-ignore format: one line
}
