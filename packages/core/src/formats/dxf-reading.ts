/**
 * In: a DXF file's text. Out: its outlines in mm, y up.
 * Rests on: the published DXF reference: group codes, HEADER $INSUNITS, layers and their line types, blocks and their
 * inserts, entities with bulges (the tangent of a quarter of the sweep), ellipses and splines.
 */

import { purposeNamed } from '../job/purposes.ts';
import { english, say } from '../messages/index.ts';
import { circlePath, type Path, transformedPath } from '../plane/path.ts';
import { distance, norm, type Point } from '../plane/point.ts';
import type { Segment } from '../plane/segment.ts';
import { chain, identity, shift, stretch, type Transform, turn } from '../plane/transform.ts';
import { DrawingError, type DrawingRead, type DrawnOutline, ReadingBudget } from './drawing.ts';
import { splineAsCubics } from './nurbs.ts';

/** Millimetres in a unit of $INSUNITS; others, and 0, state none. */
const insertUnits: Readonly<Record<number, number>> = {
  1: 25.4, 2: 304.8, 3: 1_609_344, 4: 1, 5: 10, 6: 1000, 7: 1e6, 8: 25.4e-6, 9: 0.0254, 10: 914.4, 13: 0.001, 14: 100, 21: 304.8006096,
}; // biome-ignore format: a code a value
const toleranceMm = 0.0005;
const deepestInsert = 40;
/** Outlines made of inserts between two looks at whether to go on. */
const outlinesAStep = 2000;
const linesAStep = 60_000;
/** Entities looked at within blocks, however often they are inserted. */
const maxSteps = 1_000_000;

type Group = readonly [code: number, value: string];

interface Entity {
  readonly kind: string;
  readonly groups: Group[];
  /** Vertices of an old polyline. */
  readonly vertices: Group[][];
}

interface Layer {
  readonly isHidden: boolean;
  readonly lineType: string;
}

/** Yields the share read. @throws DrawingError where it is no DXF text */
export function* readDxf(text: string): Generator<number, DrawingRead> {
  const file = yield* sectionsOf(text);
  const unitCode = Number(file.header.get('$INSUNITS') ?? 0);
  const mmPerUnit = insertUnits[unitCode] ?? 1;
  const reader = new EntityReader(file.blocks, file.layers, toleranceMm / mmPerUnit);
  const grow = stretch(mmPerUnit);
  const outlines: DrawnOutline[] = [];
  for (let k = 0; k < file.entities.length; k++) {
    for (const { path, purpose } of reader.outlinesOf(file.entities[k] as Entity, null, [])) {
      outlines.push({ path: transformedPath(path, grow, toleranceMm), purpose });
      if (outlines.length % outlinesAStep === 0) yield 0.8 + 0.2 * (k / file.entities.length);
    }
    if (k % 4000 === 0) yield 0.8 + 0.2 * (k / file.entities.length);
  }
  return { outlines, mmPerUnit, unitIsStated: insertUnits[unitCode] !== undefined, notes: reader.notes() };
}

interface Sections {
  readonly header: Map<string, string>;
  readonly layers: Map<string, Layer>;
  readonly blocks: Map<string, { readonly base: Point; readonly entities: Entity[] }>;
  readonly entities: Entity[];
}

function* sectionsOf(text: string): Generator<number, Sections> {
  if (/^[^\n]{0,40}Binary DXF/.test(text)) throw new DrawingError('not-readable', say.files.binaryDxf());
  const sections: Sections = { header: new Map(), layers: new Map(), blocks: new Map(), entities: [] };
  const taker = new SectionTaker(sections);
  let [at, line] = [0, 0];
  const nextLine = (): string | null => {
    if (at >= text.length) return null;
    let end = text.indexOf('\n', at);
    if (end < 0) end = text.length;
    const found = text.slice(at, end).replace(/\r$/, '');
    at = end + 1;
    line++;
    return found;
  };
  for (let first = nextLine(); first !== null; first = nextLine()) {
    const value = nextLine();
    const code = Number(first);
    if (value === null) break;
    if (!Number.isInteger(code) || first.trim() === '') {
      throw new DrawingError('not-readable', say.files.damagedDxf(line - 1));
    }
    taker.take(code, value);
    if (line % linesAStep < 2) yield 0.8 * (at / text.length);
  }
  if (!taker.sawSection) throw new DrawingError('not-readable', say.files.noDxf());
  taker.finish();
  return sections;
}

interface LayerHead {
  name: string;
  flags: number;
  colour: number;
  lineType: string;
}

interface BlockHead {
  name: string;
  readonly base: { x: number; y: number };
  readonly entities: Entity[];
}

/** Sorts group codes into sections, entities and blocks. */
class SectionTaker {
  sawSection = false;
  private section = '';
  private variable = '';
  private entity: Entity | null = null;
  private polyline: Entity | null = null;
  private block: BlockHead | null = null;
  private isBlockHead = false;
  private layer: LayerHead | null = null;

  constructor(private readonly sections: Sections) {}

  take(code: number, value: string): void {
    const word = value.trim();
    if (code === 0) this.begin(word);
    else if (this.section === '?' && code === 2) this.section = word;
    else if (this.section === 'HEADER') this.takeVariable(code, word);
    else if (this.layer) this.takeLayer(this.layer, code, word);
    else if (this.isBlockHead && this.block) this.takeBlockHead(this.block, code, word);
    else if (this.entity) this.entity.groups.push([code, word]);
  }

  private takeVariable(code: number, word: string): void {
    if (code === 9) this.variable = word;
    else if (!this.sections.header.has(this.variable)) this.sections.header.set(this.variable, word);
  }

  private takeLayer(layer: LayerHead, code: number, word: string): void {
    if (code === 2) layer.name = word;
    if (code === 70) layer.flags = Number(word);
    if (code === 62) layer.colour = Number(word);
    if (code === 6) layer.lineType = word;
  }

  private takeBlockHead(block: BlockHead, code: number, word: string): void {
    if (code === 2) block.name = word;
    if (code === 10) block.base.x = Number(word);
    if (code === 20) block.base.y = Number(word);
  }

  private begin(word: string): void {
    this.endEntity();
    this.layer = null;
    if (word === 'SECTION') {
      this.section = '?';
      this.sawSection = true;
    } else if (word === 'ENDSEC') this.section = '';
    else if (this.section === 'TABLES' && word === 'LAYER') this.layer = { name: '', flags: 0, colour: 7, lineType: '' };
    else if (this.section === 'BLOCKS' && word === 'BLOCK') {
      this.block = { name: '', base: { x: 0, y: 0 }, entities: [] };
      this.isBlockHead = true;
    } else if (word === 'ENDBLK') {
      if (this.block) this.sections.blocks.set(this.block.name, this.block);
      this.block = null;
      this.isBlockHead = false;
    } else if (this.section === 'ENTITIES' || this.section === 'BLOCKS') {
      this.isBlockHead = false;
      this.entity = { kind: word, groups: [], vertices: [] };
    }
  }

  private endEntity(): void {
    if (this.layer)
      this.sections.layers.set(this.layer.name, {
        isHidden: (this.layer.flags & 1) === 1 || this.layer.colour < 0,
        lineType: this.layer.lineType,
      });
    const { entity } = this;
    this.entity = null;
    if (!entity) return;
    if (this.polyline && entity.kind === 'VERTEX') {
      this.polyline.vertices.push(entity.groups);
      return;
    }
    if (this.polyline) {
      this.keep(this.polyline);
      this.polyline = null;
      if (entity.kind === 'SEQEND') return;
    }
    if (entity.kind === 'POLYLINE') this.polyline = entity;
    else if (entity.kind !== 'SEQEND') this.keep(entity);
  }

  private keep(entity: Entity): void {
    if (this.section === 'BLOCKS') this.block?.entities.push(entity);
    else this.sections.entities.push(entity);
  }

  finish(): void {
    this.endEntity();
    if (this.polyline) this.keep(this.polyline);
  }
}

/** Entities to paths in the file's own unit. */
class EntityReader {
  private readonly aside = new Map<string, number>();
  private readonly budget = new ReadingBudget();
  /** Entities looked at within blocks. */
  private steps = 0;

  constructor(
    private readonly blocks: Sections['blocks'],
    private readonly layers: Sections['layers'],
    private readonly tolerance: number,
  ) {}

  notes(): string[] {
    return [...this.aside].map(([what, n]) => english.files.leftAside(what, n));
  }

  private leave(what: string): void {
    this.aside.set(what, (this.aside.get(what) ?? 0) + 1);
  }

  /** @param within the blocks that are being inserted: one of them again would never end */
  *outlinesOf(
    entity: Entity,
    inserted: { purpose: DrawnOutline['purpose'] } | null,
    within: readonly string[],
  ): Generator<DrawnOutline, void> {
    const layerName = textOf(entity, 8) ?? '0';
    const layer = this.layers.get(layerName);
    if (layer?.isHidden) return this.leave(english.files.onHiddenLayers);
    if (textOf(entity, 67) === '1') return;
    if (hasOddNumber(entity)) return this.leave(english.files.unreadableNumbers);
    const lineType = textOf(entity, 6) ?? layer?.lineType ?? '';
    const isDashed = /dash|hidden|dot|phantom|center|score/i.test(lineType);
    const purpose = purposeNamed(layerName) ?? (isDashed ? 'score' : (inserted?.purpose ?? 'cut'));
    if (entity.kind === 'INSERT') return yield* this.insertOf(entity, purpose, within);
    const path = this.pathOf(entity);
    if (!path) return;
    this.budget.take(1, path.segments.length);
    // Seen from below, x runs the other way.
    const isMirrored = numberOf(entity, 230, 1) < 0 && entity.kind !== 'LINE';
    yield { path: isMirrored ? transformedPath(path, stretch(-1, 1), this.tolerance) : path, purpose };
  }

  private *insertOf(entity: Entity, purpose: DrawnOutline['purpose'], within: readonly string[]): Generator<DrawnOutline, void> {
    const name = textOf(entity, 2) ?? '';
    const block = this.blocks.get(name);
    if (!block) return this.leave(english.files.blocksMissing);
    if (within.includes(name) || within.length >= deepestInsert) return this.leave(english.files.blocksInThemselves);
    const inside = [...this.insideOf(block.entities, purpose, [...within, name])];
    const [columns, rows] = [Math.max(1, numberOf(entity, 70, 1)), Math.max(1, numberOf(entity, 71, 1))];
    const copies = Math.floor(columns) * Math.floor(rows);
    // Counted before a single copy is made.
    this.budget.take((copies - 1) * Math.max(1, inside.length), (copies - 1) * inside.reduce((sum, o) => sum + o.path.segments.length, 0));
    const [sx, sy] = [numberOf(entity, 41, 1), numberOf(entity, 42, 1)];
    const angle = (numberOf(entity, 50, 0) * Math.PI) / 180;
    for (let row = 0; row < Math.floor(rows); row++) {
      for (let column = 0; column < Math.floor(columns); column++) {
        const step = shift(column * numberOf(entity, 44, 0), row * numberOf(entity, 45, 0));
        const body = chain(step, chain(stretch(sx, sy), shift(-block.base.x, -block.base.y)));
        const place = chain(shift(numberOf(entity, 10, 0), numberOf(entity, 20, 0)), chain(angle === 0 ? identity : turn(angle), body));
        for (const o of inside) yield { ...o, path: transformedPath(o.path, place, this.tolerance) };
      }
    }
  }

  private *insideOf(
    entities: readonly Entity[],
    purpose: DrawnOutline['purpose'],
    within: readonly string[],
  ): Generator<DrawnOutline, void> {
    for (const entity of entities) {
      this.steps++;
      if (this.steps > maxSteps) throw new DrawingError('too-many', say.files.blocksTooDeep());
      yield* this.outlinesOf(entity, { purpose }, within);
    }
  }

  private pathOf(entity: Entity): Path | null {
    const n = (code: number, otherwise = 0) => numberOf(entity, code, otherwise);
    switch (entity.kind) {
      case 'LINE': {
        const [from, to] = [
          { x: n(10), y: n(20) },
          { x: n(11), y: n(21) },
        ];
        return distance(from, to) > 0 ? { start: from, segments: [{ kind: 'line', to }], closed: false } : null;
      }
      case 'CIRCLE':
        return n(40) > 0 ? circlePath({ x: n(10), y: n(20) }, n(40)) : null;
      case 'ARC': {
        const [from, to] = [(n(50) * Math.PI) / 180, (n(51) * Math.PI) / 180];
        return n(40) > 0 ? arcPath(chain(shift(n(10), n(20)), stretch(n(40))), from, to, this.tolerance) : null;
      }
      case 'ELLIPSE': {
        const [mx, my, ratio] = [n(11), n(21), n(40, 1)];
        const place: Transform = { a: mx, b: my, c: -my * ratio, d: mx * ratio, e: n(10), f: n(20) };
        return norm(mx, my) > 0 && ratio > 0 ? arcPath(place, n(41, 0), n(42, 2 * Math.PI), this.tolerance) : null;
      }
      case 'LWPOLYLINE':
        return polylinePath(lightVertices(entity), (n(70) & 1) === 1);
      case 'POLYLINE': {
        const isMesh = (n(70) & (16 | 64)) !== 0;
        if (isMesh) this.leave('meshes');
        const drawn = entity.vertices.filter((groups) => (groupNumber(groups, 70, 0) & 16) === 0);
        const vertices = drawn.map((groups) => ({
          at: { x: groupNumber(groups, 10, 0), y: groupNumber(groups, 20, 0) },
          bulge: groupNumber(groups, 42, 0),
        }));
        return isMesh ? null : polylinePath(vertices, (n(70) & 1) === 1);
      }
      case 'SPLINE':
        return this.splinePath(entity);
      default:
        if (!silent.has(entity.kind)) this.leave(asideWords[entity.kind] ?? english.files.entitiesOfKind(entity.kind));
        return null;
    }
  }

  private splinePath(entity: Entity): Path | null {
    const all = (code: number) => entity.groups.filter(([c]) => c === code).map(([, v]) => Number(v));
    const [xs, ys] = [all(10), all(20)];
    const points = xs.map((x, k) => ({ x, y: ys[k] ?? 0 }));
    const spline = { degree: numberOf(entity, 71, 3), knots: all(40), points, weights: all(41) };
    const made = splineAsCubics(spline, this.tolerance);
    if (!made) {
      this.leave(english.files.splinesWithoutControlPoints);
      return null;
    }
    const last = made.segments.at(-1);
    const isClosed = last !== undefined && distance(last.to, made.start) < this.tolerance;
    return { ...made, closed: isClosed };
  }
}

const silent = new Set(['POINT', 'VIEWPORT', 'ATTDEF', 'ATTRIB', 'SEQEND']);
const asideWords: Readonly<Record<string, string>> = {
  TEXT: english.files.text,
  MTEXT: english.files.text,
  DIMENSION: english.files.dimensions,
  HATCH: english.files.hatching,
  IMAGE: english.files.picturesInsideTheDrawing,
};

/** Codes of coordinates, sizes, counts and angles. */
const isNumeric = (code: number): boolean => (code >= 10 && code <= 59) || (code >= 210 && code <= 239);
const hasOddNumber = ({ groups, vertices }: Entity): boolean =>
  [groups, ...vertices].some((list) => list.some(([code, value]) => isNumeric(code) && !Number.isFinite(Number(value))));

const groupNumber = (groups: readonly Group[], code: number, otherwise: number): number => {
  const value = Number(groups.find(([c]) => c === code)?.[1] ?? otherwise);
  return Number.isFinite(value) ? value : otherwise;
};
const numberOf = (entity: Entity, code: number, otherwise: number): number => groupNumber(entity.groups, code, otherwise);
const textOf = (entity: Entity, code: number): string | undefined => entity.groups.find(([c]) => c === code)?.[1];

/** A part of the unit circle, counter-clockwise from one angle to the other, brought to its place. */
function arcPath(place: Transform, from: number, to: number, tolerance: number): Path {
  const whole = 2 * Math.PI;
  const sweep = (((to - from) % whole) + whole) % whole;
  if (sweep < 1e-9 || whole - sweep < 1e-9) return transformedPath(circlePath({ x: 0, y: 0 }, 1), place, tolerance);
  const at = (angle: number): Point => ({ x: Math.cos(angle), y: Math.sin(angle) });
  return transformedPath({ start: at(from), segments: [{ kind: 'arc', to: at(from + sweep), sweep }], closed: false }, place, tolerance);
}

interface Vertex {
  readonly at: Point;
  readonly bulge: number;
}

function lightVertices({ groups }: Entity): Vertex[] {
  const vertices: { at: { x: number; y: number }; bulge: number }[] = [];
  for (const [code, value] of groups) {
    const last = vertices.at(-1);
    if (code === 10) vertices.push({ at: { x: Number(value), y: 0 }, bulge: 0 });
    else if (code === 20 && last) last.at.y = Number(value);
    else if (code === 42 && last) last.bulge = Number(value);
  }
  return vertices.filter((v) => Number.isFinite(v.at.x) && Number.isFinite(v.at.y));
}

function polylinePath(vertices: readonly Vertex[], isClosed: boolean): Path | null {
  const [first] = vertices;
  if (!first || vertices.length < 2) return null;
  const segments: Segment[] = [];
  const ends = isClosed ? [...vertices.slice(1), first] : vertices.slice(1);
  ends.forEach(({ at: to }, k) => {
    const { at: from, bulge } = vertices[k] as Vertex;
    if (distance(from, to) === 0) return;
    // A hair's breadth of a bulge is a straight line.
    segments.push(Math.abs(bulge) < 1e-9 ? { kind: 'line', to } : { kind: 'arc', to, sweep: 4 * Math.atan(bulge) });
  });
  const last = segments.at(-1);
  if (!last) return null;
  return { start: first.at, segments, closed: isClosed || (segments.length > 2 && distance(last.to, first.at) === 0) };
}
