/** In: a quilt's plan. Out: its templates at full size, a page or more: cut along the solid line, sew along the dashed one. */
import { english } from '../../messages/index.ts';
import { add, apply, chain, circlePath, heightOf, isInside, type Path, type Point, pathBox, shift, transformedPath, turn, widthOf } from '../../plane/index.ts'; // biome-ignore format: one line
import { middleWithin, type QuiltingSettings, type QuiltPlan, type Template } from '../../quilting/index.ts';
import { type Pattern, type PatternText, patternsPdf } from '../paged-patterns.ts';
import type { ProcessFileMade, Work } from '../process.ts';

export function madeTemplates({ title, settings }: Work<QuiltingSettings>, { templates, sets }: QuiltPlan): Promise<ProcessFileMade> {
  // Patches of one shape in different fabrics share a template: it shows the grain of the first.
  const grainOf = ({ shape }: Template): number => settings.grain[sets.find((set) => set.shape.name === shape.name)?.name ?? ''] ?? 0;
  return patternsPdf(english.quilting.templates(title), templates.map((one) => patternOf(title, one, grainOf(one))), settings.paper, english.quilting.lines); // biome-ignore format: one line
}

const matchPointMm = 0.5;

function patternOf(
  block: string,
  { shape, sewing, cutting, notches, matchPoints, count, reversed }: Template,
  grainDegrees: number,
): Pattern {
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
      ...[...notches, ...matchPoints.map((p) => circlePath(p, matchPointMm)), ...grainArrow(sewing, at, room, grainDegrees)].map(
        (path) => ({ kind: 'mark', path }) as const,
      ),
    ],
    texts,
  };
}
/** Of patches smaller than this only the name is printed, mm. */
const smallMm = 24;

/** Along the threads of the cloth: up the block, turned by what is said of the grain. */
function grainArrow(sewing: Path, { x, y }: Point, room: number, grainDegrees: number): Path[] {
  const [half, head] = [Math.min(12, room / 6), 1.6];
  const turned = turn((grainDegrees * Math.PI) / 180);
  // Beside the name, where all of it lies within the patch.
  const middle = [-1, 1]
    .map((sign) => add({ x, y }, apply(turned, { x: sign * Math.min(16, room / 4), y: 0 })))
    .find((at) => [-half, half].every((end) => isInside(sewing, add(at, apply(turned, { x: 0, y: end })))));
  if (room < smallMm || !middle) return [];
  const to = chain(shift(middle.x, middle.y), turned);
  const line = (...places: Point[]): Path => transformedPath({ start: places[0] as Point, segments: places.slice(1).map((end) => ({ kind: 'line', to: end })), closed: false }, to); // biome-ignore format: one line
  const tip = (end: number, by: number): Path => line({ x: -head, y: end - by }, { x: 0, y: end }, { x: head, y: end - by });
  return [line({ x: 0, y: -half }, { x: 0, y: half }), tip(half, head), tip(-half, -head)];
}

/** Every shape of an appliqué where it lies, numbered from the lowest. */
export function madePlacementGuide({ title, settings }: Work<QuiltingSettings>, { block }: QuiltPlan): Promise<ProcessFileMade> {
  const [background, ...shapes] = block.map.faces.map(({ outer }) => outer);
  const stems = block.stems.flatMap(({ outline }) => outline.flatMap(({ outer, holes }) => [outer, ...holes]));
  const lines = [...(background ? [{ kind: 'cutting', path: background } as const] : []), ...[...stems, ...shapes].map((path) => ({ kind: 'sewing', path }) as const)]; // biome-ignore format: one line
  const texts = shapes.map((path, k): PatternText => ({ at: middleWithin(path), text: String(k + 1), size: 10, isBold: true }));
  return patternsPdf(english.quilting.placement(title), [{ name: english.quilting.placementWord, lines, texts }], settings.paper, english.quilting.placementHow); // biome-ignore format: one line
}
