/**
 * In: pieces in mm, y up. Out: a DXF file (AC1015), units millimetres, a layer a purpose, every outline one closed
 * polyline: lines and arcs exact (bulges), cubic curves as tangent arcs within a tolerance, or the whole outline as a spline; a
 * whole ellipse is one ellipse. A plain variant (AC1009) knows polylines with arcs only.
 * Rests on: the published DXF Reference, release 2000: sections, tables, handles and owners as it lists them.
 */

import { type Purpose, purposeKinds, purposes } from '../job/purposes.ts';
import { circleOf } from '../plane/arc.ts';
import { axesOf } from '../plane/ellipse.ts';
import { type Path, reducedSteps, stepsOf, transformedPath } from '../plane/path.ts';
import { distance, type Point } from '../plane/point.ts';
import { type ArcSegment, type Segment, splitSegment } from '../plane/segment.ts';
import { stretch, type Transform } from '../plane/transform.ts';
import { section, type Tag, tagsWritten } from './dxf-tags.ts';
import { type FilePiece, type PlacedPieces, placedAtOrigin } from './placement.ts';

/** How far arcs may leave the cubic that they stand for, mm. */
export const dxfCurveToleranceMm = 0.005;

const solidLine = { name: 'CONTINUOUS', text: 'Solid line', pattern: [] as readonly number[] };

/** A purpose's line type: its dashes as DXF has them, gaps negative, what is shorter than half a millimetre a dot; none is a solid line. */
function lineTypeOf(purpose: Purpose): typeof solidLine {
  const { dashMm } = purposeKinds[purpose].look;
  if (dashMm.length === 0) return solidLine;
  const pattern = dashMm.map((mm, k) => (k % 2 === 1 ? -mm : mm < 0.5 ? 0 : mm));
  return { name: `NUVET_${purpose.toUpperCase()}`, text: `Line to ${purposeKinds[purpose].word}`, pattern };
}

/** Handles that the file refers to from several places. */
const at = {
  modelRecord: '1F', paperRecord: '1B', modelBlock: '20', modelEnd: '21', paperBlock: '1C', paperEnd: '1D',
  root: 'C', groups: 'D', vportTable: '8', lineTypeTable: '5', layerTable: '2', styleTable: '3', viewTable: '6',
  ucsTable: '7', appTable: '9', dimTable: 'A', recordTable: '1',
} as const; // biome-ignore format: a table
const firstFreeHandle = 0x40;

export interface DxfOptions {
  /** Curves as arcs of closed polylines; as splines; or a plain file (AC1009) of polylines with arcs, for old controllers. */
  readonly dxf: 'arcs' | 'splines' | 'plain';
  readonly unit: 'mm' | 'in';
  /** How far arcs may leave the curves that they stand for, mm. */
  readonly toleranceMm: number;
  /** From the sheet to where the file has it, mm; without one the lower left corner of all pieces is 0, 0. */
  readonly place?: Transform;
}

const plainDxf: DxfOptions = { dxf: 'arcs', unit: 'mm', toleranceMm: dxfCurveToleranceMm };

/** @throws EmptyFileError where there are no pieces */
export function writeDxf(pieces: readonly FilePiece[], title: string, options: DxfOptions = plainDxf): string {
  const placed = inUnit(options.place ? moved(pieces, options.place) : placedAtOrigin(pieces), options.unit);
  const tags = options.dxf === 'plain' ? plainFile(placed, title, options) : fullFile(placed, title, options);
  return tagsWritten(tags);
}

function moved(pieces: readonly FilePiece[], place: Transform): PlacedPieces {
  const { widthMm, heightMm } = placedAtOrigin(pieces);
  return {
    widthMm,
    heightMm,
    pieces: pieces.map((p) => ({ ...p, outer: transformedPath(p.outer, place), holes: p.holes.map((h) => transformedPath(h, place)) })),
  };
}

/** Lengths in the file's unit. */
interface InUnit extends PlacedPieces {
  readonly unit: 'mm' | 'in';
}

function inUnit(placed: PlacedPieces, unit: 'mm' | 'in'): InUnit {
  if (unit === 'mm') return { ...placed, unit };
  const grow = stretch(1 / 25.4);
  return {
    unit,
    widthMm: placed.widthMm / 25.4,
    heightMm: placed.heightMm / 25.4,
    pieces: placed.pieces.map((p) => ({
      ...p,
      outer: transformedPath(p.outer, grow),
      holes: p.holes.map((h) => transformedPath(h, grow)),
    })),
  };
}

const inWords = { mm: 'millimetres', in: 'inches' } as const;

function remarks({ widthMm, heightMm, unit }: InUnit, title: string, { place, toleranceMm }: DxfOptions): Tag[] {
  return [
    [999, `${title.replace(/[^\x20-\x7e]/g, '?')}: ${widthMm.toFixed(3)} x ${heightMm.toFixed(3)} ${unit}`],
    [999, `Units: ${inWords[unit]}. ${place ? 'Placed as the machine expects it.' : 'y up. Origin: lower left corner of all pieces.'}`],
    [999, `Curves within ${toleranceMm} mm.`],
  ];
}

function fullFile(placed: InUnit, title: string, options: DxfOptions): Tag[] {
  let free = firstFreeHandle;
  const handle = (): string => (free++).toString(16).toUpperCase();
  const used = purposes.filter((purpose) => placed.pieces.some((p) => p.purpose === purpose));
  const tables = tableSection(used, handle, placed);
  const tolerance = placed.unit === 'mm' ? options.toleranceMm : options.toleranceMm / 25.4;
  const isCurved = (path: Path): boolean => path.segments.some((s) => s.kind !== 'line' && s.kind !== 'arc');
  const entities = placed.pieces.flatMap(({ purpose, outer, holes }) => {
    const layer = purpose.toUpperCase();
    return [outer, ...holes].flatMap((path) => {
      const ellipse = wholeEllipse(path, layer, handle);
      if (ellipse) return ellipse;
      return options.dxf === 'splines' && isCurved(path) ? spline(path, layer, handle()) : polyline(path, layer, handle(), tolerance);
    });
  });
  return [
    ...remarks(placed, title, options),
    ...section('HEADER', header(placed, free)),
    ...section('CLASSES', []),
    ...section('TABLES', tables),
    ...section('BLOCKS', [
      ...block('*Model_Space', at.modelRecord, at.modelBlock, at.modelEnd, false),
      ...block('*Paper_Space', at.paperRecord, at.paperBlock, at.paperEnd, true),
    ]),
    ...section('ENTITIES', entities),
    ...section('OBJECTS', objects),
    [0, 'EOF'],
  ];
}

/** Old polylines in a file of release 12: a layer a purpose, nothing that an old controller would have to skip. */
function plainFile(placed: InUnit, title: string, options: DxfOptions): Tag[] {
  const used = purposes.filter((purpose) => placed.pieces.some((p) => p.purpose === purpose));
  const tolerance = placed.unit === 'mm' ? options.toleranceMm : options.toleranceMm / 25.4;
  const outlines = placed.pieces.flatMap(({ purpose, outer, holes }) =>
    [outer, ...holes].map((path) => ({ path, layer: purpose.toUpperCase() })),
  );
  return [
    ...remarks(placed, title, options),
    ...section('HEADER', [
      [9, '$ACADVER'], [1, 'AC1009'],
      [9, '$EXTMIN'], [10, 0], [20, 0], [30, 0],
      [9, '$EXTMAX'], [10, placed.widthMm], [20, placed.heightMm], [30, 0],
      [9, '$INSUNITS'], [70, placed.unit === 'mm' ? 4 : 1],
    ]),
    ...section('TABLES', [
      [0, 'TABLE'], [2, 'LAYER'], [70, used.length],
      ...used.flatMap((p): Tag[] => [[0, 'LAYER'], [2, p.toUpperCase()], [70, 0], [62, purposeKinds[p].dxfColour], [6, 'CONTINUOUS']]),
      [0, 'ENDTAB'],
    ]),
    ...section('ENTITIES', outlines.flatMap(({ path, layer }): Tag[] => [
      [0, 'POLYLINE'], [8, layer], [66, 1], [10, 0], [20, 0], [30, 0], [70, path.closed ? 1 : 0],
      ...bulges(path, tolerance).flatMap(({ at: { x, y }, bulge }): Tag[] => [[0, 'VERTEX'], [8, layer], [10, x], [20, y], [30, 0], ...(bulge === 0 ? [] : [[42, bulge] as Tag])]),
      [0, 'SEQEND'], [8, layer],
    ])),
    [0, 'EOF'],
  ]; // biome-ignore format: a group a line
}

/**
 * One outline as one rational spline of degree three, exact for lines, arcs and curves alike: an arc's weights are those of
 * its quadratic form raised by a degree (Piegl & Tiller 1997, 5.5 and 7.3). Joints are knots of multiplicity three.
 */
function spline(path: Path, layer: string, handle: string): Tag[] {
  const control: { p: Point; w: number }[] = [{ p: path.start, w: 1 }];
  for (const { from, segment } of reducedSteps(path, ['line', 'arc', 'cubic'], 1e-4)) {
    if (segment.kind === 'line') control.push(...straight(from, segment.to));
    else if (segment.kind === 'arc') control.push(...arcControl(from, segment));
    else control.push({ p: segment.c1, w: 1 }, { p: segment.c2, w: 1 }, { p: segment.to, w: 1 });
  }
  const parts = (control.length - 1) / 3;
  const knots = [0, ...Array.from({ length: parts + 1 }, (_, k) => [k, k, k]).flat(), parts];
  const isRational = control.some(({ w }) => w !== 1);
  return [
    [0, 'SPLINE'], [5, handle], [330, at.modelRecord], [100, 'AcDbEntity'], [8, layer], [100, 'AcDbSpline'],
    [210, 0], [220, 0], [230, 1],
    // 1: closed, 4: rational, 8: planar.
    [70, 8 + (path.closed ? 1 : 0) + (isRational ? 4 : 0)], [71, 3], [72, knots.length], [73, control.length], [74, 0], [42, 1e-9], [43, 1e-9],
    ...knots.map((k): Tag => [40, k]),
    ...(isRational ? control.map(({ w }): Tag => [41, w]) : []),
    ...control.flatMap(({ p }): Tag[] => [[10, p.x], [20, p.y], [30, 0]]),
  ]; // biome-ignore format: a group a line
}

const straight = (a: Point, b: Point): { p: Point; w: number }[] => [
  { p: { x: (2 * a.x + b.x) / 3, y: (2 * a.y + b.y) / 3 }, w: 1 },
  { p: { x: (a.x + 2 * b.x) / 3, y: (a.y + 2 * b.y) / 3 }, w: 1 },
  { p: b, w: 1 },
];

function arcControl(from: Point, arc: ArcSegment): { p: Point; w: number }[] {
  if (Math.abs(arc.sweep) > Math.PI / 2 + 1e-9) {
    const [a, b] = splitSegment(from, arc, 0.5) as [ArcSegment, ArcSegment];
    return [...arcControl(from, a), ...arcControl(a.to, b)];
  }
  const { centre } = circleOf(from, arc);
  const w = Math.cos(arc.sweep / 2);
  const middle = { x: (from.x + arc.to.x) / 2 - centre.x, y: (from.y + arc.to.y) / 2 - centre.y };
  // Where the tangents at both ends meet: out from the centre through the chord's middle.
  const tip = { x: centre.x + middle.x / (w * w), y: centre.y + middle.y / (w * w) };
  const raised = (1 + 2 * w) / 3;
  const mix = (end: Point): { p: Point; w: number } => ({
    p: { x: (end.x + 2 * w * tip.x) / (1 + 2 * w), y: (end.y + 2 * w * tip.y) / (1 + 2 * w) },
    w: raised,
  });
  return [mix(from), mix(arc.to), { p: arc.to, w: 1 }];
}

function header({ widthMm, heightMm, unit }: InUnit, nextHandle: number): Tag[] {
  return [
    [9, '$ACADVER'], [1, 'AC1015'],
    [9, '$DWGCODEPAGE'], [3, 'ANSI_1252'],
    [9, '$INSBASE'], [10, 0], [20, 0], [30, 0],
    [9, '$EXTMIN'], [10, 0], [20, 0], [30, 0],
    [9, '$EXTMAX'], [10, widthMm], [20, heightMm], [30, 0],
    [9, '$LIMMIN'], [10, 0], [20, 0],
    [9, '$LIMMAX'], [10, widthMm], [20, heightMm],
    [9, '$LTSCALE'], [40, 1],
    [9, '$LUNITS'], [70, 2],
    [9, '$LUPREC'], [70, 4],
    // 4: millimetres, 1: inches; measurement 1: metric.
    [9, '$INSUNITS'], [70, unit === 'mm' ? 4 : 1],
    [9, '$MEASUREMENT'], [70, unit === 'mm' ? 1 : 0],
    [9, '$HANDSEED'], [5, nextHandle.toString(16).toUpperCase()],
  ]; // biome-ignore format: a variable a line
}

function table(name: string, handle: string, entries: readonly Tag[][], more: readonly Tag[] = []): Tag[] {
  return [
    [0, 'TABLE'],
    [2, name],
    [5, handle],
    [330, '0'],
    [100, 'AcDbSymbolTable'],
    [70, entries.length],
    ...more,
    ...entries.flat(),
    [0, 'ENDTAB'],
  ];
}

function record(kind: string, handle: string, owner: string, subclass: string, name: string, tags: readonly Tag[]): Tag[] {
  const handleCode = kind === 'DIMSTYLE' ? 105 : 5;
  return [[0, kind], [handleCode, handle], [330, owner], [100, 'AcDbSymbolTableRecord'], [100, subclass], [2, name], ...tags];
}

function tableSection(used: readonly Purpose[], handle: () => string, { widthMm, heightMm }: { widthMm: number; heightMm: number }): Tag[] {
  const lineType = ({ name, text, pattern }: ReturnType<typeof lineTypeOf>): Tag[] => {
    const total = pattern.reduce((sum, part) => sum + Math.abs(part), 0);
    const parts = pattern.flatMap((part): Tag[] => [
      [49, part],
      [74, 0],
    ]);
    return record('LTYPE', handle(), at.lineTypeTable, 'AcDbLinetypeTableRecord', name, [
      [70, 0],
      [3, text],
      [72, 65],
      [73, pattern.length],
      [40, total],
      ...parts,
    ]);
  };
  const plainType = (name: string): Tag[] =>
    record('LTYPE', handle(), at.lineTypeTable, 'AcDbLinetypeTableRecord', name, [
      [70, 0],
      [3, ''],
      [72, 65],
      [73, 0],
      [40, 0],
    ]);
  const layer = (name: string, colour: number, lineTypeName: string): Tag[] =>
    record('LAYER', handle(), at.layerTable, 'AcDbLayerTableRecord', name, [
      [70, 0],
      [62, colour],
      [6, lineTypeName],
    ]);
  const view: Tag[] = [
    [70, 0], [10, 0], [20, 0], [11, 1], [21, 1], [12, widthMm / 2], [22, heightMm / 2], [13, 0], [23, 0], [14, 10], [24, 10],
    [15, 10], [25, 10], [16, 0], [26, 0], [36, 1], [17, 0], [27, 0], [37, 0], [40, Math.max(1, heightMm * 1.1)],
    [41, 1.5], [42, 50], [43, 0], [44, 0], [50, 0], [51, 0], [71, 0], [72, 100], [73, 1], [74, 3], [75, 0], [76, 0], [77, 0], [78, 0],
  ]; // biome-ignore format: the reference's own order
  const types = new Map([solidLine, ...used.map(lineTypeOf)].map((type) => [type.name, type]));
  return [
    ...table('VPORT', at.vportTable, [record('VPORT', handle(), at.vportTable, 'AcDbViewportTableRecord', '*Active', view)]),
    ...table('LTYPE', at.lineTypeTable, [plainType('ByBlock'), plainType('ByLayer'), ...[...types.values()].map(lineType)]),
    ...table('LAYER', at.layerTable, [
      layer('0', 7, solidLine.name),
      ...used.map((p) => layer(p.toUpperCase(), purposeKinds[p].dxfColour, lineTypeOf(p).name)),
    ]),
    ...table('STYLE', at.styleTable, [
      record('STYLE', handle(), at.styleTable, 'AcDbTextStyleTableRecord', 'Standard', [
        [70, 0],
        [40, 0],
        [41, 1],
        [50, 0],
        [71, 0],
        [42, 2.5],
        [3, 'txt'],
        [4, ''],
      ]),
    ]),
    ...table('VIEW', at.viewTable, []),
    ...table('UCS', at.ucsTable, []),
    ...table('APPID', at.appTable, [record('APPID', handle(), at.appTable, 'AcDbRegAppTableRecord', 'ACAD', [[70, 0]])]),
    ...table(
      'DIMSTYLE',
      at.dimTable,
      [record('DIMSTYLE', handle(), at.dimTable, 'AcDbDimStyleTableRecord', 'Standard', [[70, 0]])],
      [[100, 'AcDbDimStyleTable']],
    ),
    ...table('BLOCK_RECORD', at.recordTable, [
      record('BLOCK_RECORD', at.modelRecord, at.recordTable, 'AcDbBlockTableRecord', '*Model_Space', []),
      record('BLOCK_RECORD', at.paperRecord, at.recordTable, 'AcDbBlockTableRecord', '*Paper_Space', []),
    ]),
  ];
}

function block(name: string, owner: string, handle: string, end: string, isPaper: boolean): Tag[] {
  const space: Tag[] = isPaper ? [[67, 1]] : [];
  return [
    [0, 'BLOCK'], [5, handle], [330, owner], [100, 'AcDbEntity'], ...space, [8, '0'], [100, 'AcDbBlockBegin'], [2, name], [70, 0],
    [10, 0], [20, 0], [30, 0], [3, name], [1, ''],
    [0, 'ENDBLK'], [5, end], [330, owner], [100, 'AcDbEntity'], ...space, [8, '0'], [100, 'AcDbBlockEnd'],
  ]; // biome-ignore format: an entity a line
}

const objects: Tag[] = [
  [0, 'DICTIONARY'], [5, at.root], [330, '0'], [100, 'AcDbDictionary'], [281, 1], [3, 'ACAD_GROUP'], [350, at.groups],
  [0, 'DICTIONARY'], [5, at.groups], [330, at.root], [100, 'AcDbDictionary'], [281, 1],
]; // biome-ignore format: an object a line

/** A closed path that is one ellipse, as an ELLIPSE; null for any other. */
function wholeEllipse(path: Path, layer: string, handle: () => string): Tag[] | null {
  const steps = stepsOf(path);
  const [first] = steps;
  if (!path.closed || first?.segment.kind !== 'ellipse') return null;
  const { centre } = first.segment;
  const { major, minor, angle } = axesOf(first.from, first.segment);
  const isSame = steps.every(({ from, segment }) => {
    if (segment.kind !== 'ellipse' || distance(segment.centre, centre) > 1e-6) return false;
    const other = axesOf(from, segment);
    return Math.abs(other.major - major) < 1e-6 && Math.abs(other.minor - minor) < 1e-6;
  });
  if (!isSame) return null;
  return [
    [0, 'ELLIPSE'], [5, handle()], [330, at.modelRecord], [100, 'AcDbEntity'], [8, layer], [100, 'AcDbEllipse'],
    [10, centre.x], [20, centre.y], [30, 0], [11, major * Math.cos(angle)], [21, major * Math.sin(angle)], [31, 0],
    [210, 0], [220, 0], [230, 1], [40, minor / major], [41, 0], [42, 2 * Math.PI],
  ]; // biome-ignore format: a group a line
}

/** The points of an outline, each with the bulge of the arc that leaves it: the tangent of a quarter of its sweep. */
function bulges(path: Path, toleranceMm: number): { at: Point; bulge: number }[] {
  const vertices: { at: Point; bulge: number }[] = [];
  for (const { from, segment } of reducedSteps(path, ['line', 'arc'], toleranceMm))
    vertices.push({ at: from, bulge: segment.kind === 'arc' ? Math.tan(segment.sweep / 4) : 0 });
  if (!path.closed) vertices.push({ at: (path.segments.at(-1) as Segment).to, bulge: 0 });
  return vertices;
}

/** One outline as an LWPOLYLINE. */
function polyline(path: Path, layer: string, handle: string, toleranceMm: number): Tag[] {
  const vertices = bulges(path, toleranceMm);
  return [
    [0, 'LWPOLYLINE'], [5, handle], [330, at.modelRecord], [100, 'AcDbEntity'], [8, layer], [100, 'AcDbPolyline'],
    [90, vertices.length], [70, path.closed ? 1 : 0], [43, 0],
    ...vertices.flatMap(({ at: { x, y }, bulge }): Tag[] => [[10, x], [20, y], ...(bulge === 0 ? [] : [[42, bulge] as Tag])]),
  ]; // biome-ignore format: a group a line
}
