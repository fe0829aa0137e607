/**
 * In: a plan sheet. Out: it as a PDF, an SVG and a DXF (AC1009) whose dimensions are DIMENSION entities, each with a block that draws it; the DXF
 * is in the pieces' own millimetres, so that what a program measures on it is real.
 * Rests on: ISO 32000-1:2008; SVG 1.1; the published DXF Reference, release 12 (sections, DIMENSION groups 10 to 16 and 70, blocks *D).
 */
import { degrees, fill, PDFDocument, popGraphicsState, pushGraphicsState, StandardFonts, setDashPattern, setLineWidth, stroke } from 'pdf-lib'; // biome-ignore format: one line
import { type DrawnDimension, type LineKind, lineLooks, type SheetPlan, type SheetText, sheetScales } from '../drafting/index.ts';
import { type Path, type Point, reducedSteps, stretch, transformedPath } from '../plane/index.ts';
import { section, type Tag, tagsWritten } from './dxf-tags.ts';
import { steadyDates } from './pdf.ts';
import { ink, pathOperators, pointsPerMm, printable } from './pdf-drawing.ts';
import { pathData } from './svg.ts';

const allTexts = ({ texts, dimensions }: SheetPlan): SheetText[] => [...texts, ...dimensions.map(({ text }) => text)];
const allStrokes = ({ strokes, dimensions }: SheetPlan): { path: Path; kind: LineKind }[] => [...strokes, ...dimensions.flatMap((one) => one.strokes.map((path) => ({ path, kind: 'dimension' as const })))]; // biome-ignore format: one line

export async function writePlanSheetPdf(plan: SheetPlan, title: string): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  pdf.setTitle(title);
  steadyDates(pdf);
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  const page = pdf.addPage([plan.widthMm * pointsPerMm, plan.heightMm * pointsPerMm]);
  const at = ({ x, y }: Point): readonly [number, number] => [x * pointsPerMm, y * pointsPerMm];
  for (const { path, kind } of allStrokes(plan)) {
    const { widthMm, dashMm } = lineLooks[kind];
    page.pushOperators(pushGraphicsState(), setLineWidth(widthMm * pointsPerMm), setDashPattern(dashMm.map((mm) => mm * pointsPerMm), 0), ...pathOperators(path, at), stroke(), popGraphicsState()); // biome-ignore format: one line
  }
  for (const { arrows } of plan.dimensions) for (const arrow of arrows) page.pushOperators(pushGraphicsState(), ...pathOperators(arrow, at), fill(), popGraphicsState()); // biome-ignore format: one line
  for (const { text, at: place, heightMm, anchor, degrees: turned } of allTexts(plan)) {
    // A letter's height is that of a capital: 0.72 of the size, in Helvetica.
    const size = (heightMm / 0.72) * pointsPerMm;
    const shown = printable(text);
    const back = (anchor === 'start' ? 0 : anchor === 'middle' ? 0.5 : 1) * font.widthOfTextAtSize(shown, size);
    const angle = (turned * Math.PI) / 180;
    const [x, y] = at(place);
    page.drawText(shown, { x: x - back * Math.cos(angle), y: y - back * Math.sin(angle), size, font, color: ink, rotate: degrees(turned) });
  }
  return pdf.save();
}

const escaped = (text: string): string => text.replace(/[<>&"]/g, (c) => `&#${c.charCodeAt(0)};`);

export function writePlanSheetSvg(plan: SheetPlan, title: string): string {
  const { widthMm, heightMm } = plan;
  const strokes = allStrokes(plan).map(({ path, kind }) => {
    const { widthMm: wide, dashMm } = lineLooks[kind];
    return `<path d="${pathData(path, heightMm)}" stroke-width="${wide}"${dashMm.length > 0 ? ` stroke-dasharray="${dashMm.join(' ')}"` : ''}/>`;
  });
  const arrows = plan.dimensions.flatMap((one) =>
    one.arrows.map((path) => `<path d="${pathData(path, heightMm)}" fill="#20303a" stroke="none"/>`),
  );
  const texts = allTexts(plan).map(({ text, at, heightMm: high, anchor, degrees: turned }) => {
    const [x, y] = [at.x.toFixed(3), (heightMm - at.y).toFixed(3)];
    return `<text x="${x}" y="${y}" font-size="${(high / 0.72).toFixed(3)}" text-anchor="${anchor}"${turned === 0 ? '' : ` transform="rotate(${-turned} ${x} ${y})"`}>${escaped(text)}</text>`; // biome-ignore format: one line
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm}mm" height="${heightMm}mm" viewBox="0 0 ${widthMm} ${heightMm}"><title>${escaped(title)}</title><g fill="none" stroke="#20303a">${strokes.join('')}${arrows.join('')}</g><g fill="#20303a" font-family="Helvetica, Arial, sans-serif">${texts.join('')}</g></svg>\n`; // biome-ignore format: one line
}

/** Layers of the DXF, and their line types. */
const layers: Readonly<Record<LineKind, { readonly name: string; readonly lineType: string; readonly colour: number }>> = {
  visible: { name: 'OUTLINES', lineType: 'CONTINUOUS', colour: 7 },
  hidden: { name: 'HIDDEN', lineType: 'DASHED', colour: 8 },
  centre: { name: 'CENTRES', lineType: 'CENTRE', colour: 8 },
  dimension: { name: 'DIMENSIONS', lineType: 'CONTINUOUS', colour: 5 },
  hatch: { name: 'HATCH', lineType: 'CONTINUOUS', colour: 8 },
  frame: { name: 'FRAME', lineType: 'CONTINUOUS', colour: 7 },
};
/** How far arcs may leave the curves that they stand for, mm. */
const curveMm = 0.005;

export function writePlanSheetDxf(plan: SheetPlan): string {
  const grow = 1 / sheetScales[plan.scale];
  const place = stretch(grow);
  const at = (code: number, { x, y }: Point): Tag[] => [[code, grow * x], [code + 10, grow * y], [code + 20, 0]]; // biome-ignore format: three tags
  const polyline = (path: Path, layer: string): Tag[] => polylineTags(transformedPath(path, place), layer);
  const text = ({ text: said, at: where, heightMm, anchor, degrees: turned }: SheetText, layer: string): Tag[] => [
    [0, 'TEXT'],
    [8, layer],
    ...at(10, where),
    [40, grow * heightMm],
    [1, inDxf(said)],
    [50, turned],
    ...(anchor === 'start' ? [] : ([[72, anchor === 'middle' ? 1 : 2], ...at(11, where)] as Tag[])),
  ];
  const solid = (path: Path, layer: string): Tag[] => {
    const corners = [path.start, ...path.segments.map(({ to }) => to)].slice(0, 3);
    const [a, b, c] = corners as [Point, Point, Point];
    return [[0, 'SOLID'], [8, layer], ...at(10, a), ...at(11, b), ...at(12, c), ...at(13, c)];
  };
  const layer = layers.dimension.name;
  const blocks = plan.dimensions.flatMap(({ strokes, arrows, text: said }, k): Tag[] => [
    [0, 'BLOCK'], [8, layer], [2, `*D${k}`], [70, 1], [10, 0], [20, 0], [30, 0], [3, `*D${k}`],
    ...strokes.flatMap((path) => polyline(path, layer)),
    ...arrows.flatMap((path) => solid(path, layer)),
    ...text(said, layer),
    [0, 'ENDBLK'], [8, layer],
  ]); // biome-ignore format: by entity
  const dimensions = plan.dimensions.flatMap((one, k): Tag[] => [
    [0, 'DIMENSION'],
    [8, layer],
    [2, `*D${k}`],
    ...dimensionTags(one, at),
    ...at(11, one.text.at),
    [3, 'STANDARD'],
  ]);
  const tags: Tag[] = [
    [999, 'Nuvet: a plan sheet, in millimetres of the pieces.'],
    ...section('HEADER', [[9, '$ACADVER'], [1, 'AC1009'], [9, '$INSUNITS'], [70, 4]]),
    ...section('TABLES', tables(grow)),
    ...section('BLOCKS', blocks),
    ...section('ENTITIES', [
      ...plan.strokes.flatMap(({ path, kind }) => polyline(path, layers[kind].name)),
      ...dimensions,
      ...plan.texts.flatMap((one) => text(one, layers.frame.name)),
    ]),
    [0, 'EOF'],
  ]; // biome-ignore format: by section
  return tagsWritten(tags);
}

/** Letters that old readers take; signs as DXF writes them. */
const inDxf = (text: string): string =>
  text
    .replace(/Ø/g, '%%c')
    .replace(/°/g, '%%d')
    .replace(/±/g, '%%p')
    .replace(/[^\x20-\x7e]/g, '?');

/** What it is between, by its kind: linear 0, diameter 3, radius 4; an angle as one of three points (5). */
function dimensionTags({ kind, from, to, line }: DrawnDimension, at: (code: number, p: Point) => Tag[]): Tag[] {
  switch (kind) {
    case 'horizontal':
      return [[70, 0], ...at(10, line), ...at(13, from), ...at(14, to), [50, 0]];
    case 'vertical':
      return [[70, 0], ...at(10, line), ...at(13, from), ...at(14, to), [50, 90]];
    case 'radius':
      return [[70, 4], ...at(10, from), ...at(15, to)];
    case 'diameter':
      return [[70, 3], ...at(10, { x: 2 * from.x - to.x, y: 2 * from.y - to.y }), ...at(15, to)];
    case 'angle':
      return [[70, 5], ...at(10, to), ...at(13, from), ...at(14, to), ...at(15, line)];
  }
}

function polylineTags(path: Path, layer: string): Tag[] {
  const steps = [...reducedSteps(path, ['line', 'arc'], curveMm)];
  const vertex = ({ x, y }: Point, bulge: number): Tag[] => [[0, 'VERTEX'], [8, layer], [10, x], [20, y], [30, 0], ...(bulge === 0 ? [] : ([[42, bulge]] as Tag[]))]; // biome-ignore format: one line
  const vertices = steps.flatMap(({ from, segment }) => vertex(from, segment.kind === 'arc' ? Math.tan(segment.sweep / 4) : 0));
  const last = path.closed ? [] : vertex((steps.at(-1) as (typeof steps)[0]).segment.to, 0);
  return [[0, 'POLYLINE'], [8, layer], [66, 1], [10, 0], [20, 0], [30, 0], [70, path.closed ? 1 : 0], ...vertices, ...last, [0, 'SEQEND'], [8, layer]]; // biome-ignore format: one line
}

/** @param grow line patterns and heads are as large on the paper as they are drawn */
function tables(grow: number): Tag[] {
  const lineType = (name: string, pattern: readonly number[]): Tag[] => [[0, 'LTYPE'], [2, name], [70, 0], [3, name], [72, 65], [73, pattern.length], [40, grow * pattern.reduce((sum, mm) => sum + Math.abs(mm), 0)], ...pattern.map((mm): Tag => [49, grow * mm])]; // biome-ignore format: one line
  const table = (name: string, count: number, tags: readonly Tag[]): Tag[] => [
    [0, 'TABLE'],
    [2, name],
    [70, count],
    ...tags,
    [0, 'ENDTAB'],
  ];
  const named = Object.values(layers);
  return [
    ...table('LTYPE', 3, [
      ...lineType('CONTINUOUS', []),
      ...lineType('DASHED', [3, -0.75]),
      ...lineType('CENTRE', [6, -0.75, 0.25, -0.75]),
    ]),
    ...table('LAYER', named.length, named.flatMap(({ name, lineType: own, colour }): Tag[] => [[0, 'LAYER'], [2, name], [70, 0], [62, colour], [6, own]])), // biome-ignore format: one line
    ...table('STYLE', 1, [
      [0, 'STYLE'],
      [2, 'STANDARD'],
      [70, 0],
      [40, 0],
      [41, 1],
      [50, 0],
      [71, 0],
      [42, 2.5],
      [3, 'txt'],
      [4, ''],
    ]),
    ...table('DIMSTYLE', 1, [[0, 'DIMSTYLE'], [2, 'STANDARD'], [70, 0], [40, 1], [41, grow * 3], [42, grow], [44, grow * 2], [140, grow * 3.5], [144, 1]]), // biome-ignore format: one line
  ];
}
