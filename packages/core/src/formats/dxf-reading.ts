/**
 * In: a DXF file's text. Out: its outlines in mm, y up, as they are seen from above.
 * Rests on: the published DXF reference from R12 to 2018: $INSUNITS, layers and their line types, object coordinates by the arbitrary axis algorithm,
 * blocks and their inserts.
 */
import { purposeNamed } from '../job/purposes.ts';
import { english, say } from '../messages/index.ts';
import { circlePath, type Path, pathBox, pathLength, polygonPath, transformedPath } from '../plane/path.ts';
import { distance, type Point } from '../plane/point.ts';
import { apply, chain, determinant, identity, shift, stretch, type Transform, turn } from '../plane/transform.ts';
import { plainOffset } from '../shape/raw-offset.ts';
import { strokeOutline } from '../shape/stroke-outline.ts';
import { Asides, DrawingError, type DrawingRead, type DrawnOutline, ReadingBudget } from './drawing.ts';
import { arcPath, hatchBoundaries, lightVertices, polylinePath, taperedBand, type Vertex } from './dxf-polylines.ts';
import { type Entity, groupNumber, numberOf, type Sections, sectionsOf, textOf } from './dxf-sections.ts';
import { splineThrough } from './fit-points.ts';
import { splineAsCubics } from './nurbs.ts';

/** Millimetres in a unit of $INSUNITS; others, and 0, state none. */
const insertUnits: Readonly<Record<number, number>> = {
  1: 25.4, 2: 304.8, 3: 1_609_344, 4: 1, 5: 10, 6: 1000, 7: 1e6, 8: 25.4e-6, 9: 0.0254, 10: 914.4, 11: 1e-7, 12: 1e-6, 13: 0.001, 14: 100, 15: 1e4,
  16: 1e5, 17: 1e12, 21: 1_200_000 / 3937, 22: 100_000 / 3937, 23: 3_600_000 / 3937, 24: (5280 * 1_200_000) / 3937,
}; // biome-ignore format: a code a value
const toleranceMm = 0.0005;
const deepestInsert = 40;
/** Outlines made of inserts between two looks at whether to go on. */
const outlinesAStep = 2000;
/** Entities looked at within blocks, however often they are inserted. */
const maxSteps = 1_000_000;
/** A plane that stands so nearly upright is seen as a line: the share of an area that is left of it. */
const edgeOnShare = 1e-6;
/** A hatch whose boundary is that of an outline within this is the fill of that outline, mm. */
const sameMm = 0.001;

/** Yields the share read. @throws DrawingError where it is no DXF text */
export function* readDxf(text: string): Generator<number, DrawingRead> {
  const file = yield* sectionsOf(text);
  const unitCode = Number(file.header.get('$INSUNITS') ?? 0);
  const mmPerUnit = insertUnits[unitCode] ?? 1;
  const asides = new Asides();
  const reader = new EntityReader(file.blocks, file.layers, toleranceMm / mmPerUnit, mmPerUnit, asides);
  const grow = stretch(mmPerUnit);
  const outlines: EntityOutline[] = [];
  for (let k = 0; k < file.entities.length; k++) {
    for (const outline of reader.outlinesOf(file.entities[k] as Entity, null, [])) {
      outlines.push({ ...outline, path: transformedPath(outline.path, grow, toleranceMm) });
      if (outlines.length % outlinesAStep === 0) yield 0.8 + 0.2 * (k / file.entities.length);
    }
    if (k % 4000 === 0) yield 0.8 + 0.2 * (k / file.entities.length);
  }
  return { outlines: withoutFills(outlines), mmPerUnit, unitIsStated: insertUnits[unitCode] !== undefined, asides: asides.list() };
}

/** An outline, and whether it bounds a hatch. */
interface EntityOutline extends DrawnOutline {
  readonly isFill: boolean;
}

/** Without boundaries of hatches where an outline lies on them. */
function withoutFills(outlines: readonly EntityOutline[]): DrawnOutline[] {
  const keyOf = ({ path }: DrawnOutline): string => {
    const { minX, minY, maxX, maxY } = pathBox(path);
    return [minX, minY, maxX, maxY, pathLength(path)].map((v) => Math.round(v / (20 * sameMm))).join(' ');
  };
  const isFilled = outlines.some(({ isFill }) => isFill);
  const drawn = isFilled ? new Set(outlines.filter(({ isFill }) => !isFill).map(keyOf)) : null;
  return outlines.filter((one) => !one.isFill || !drawn?.has(keyOf(one))).map(({ path, purpose }) => ({ path, purpose }));
}

interface Inserted {
  readonly purpose: DrawnOutline['purpose'];
  /** The layer that what lies on layer 0 of the block is on. */
  readonly layer: string;
}

/** Entities to paths in the file's own unit. */
class EntityReader {
  private readonly budget = new ReadingBudget();
  /** Entities looked at within blocks. */
  private steps = 0;

  constructor(
    private readonly blocks: Sections['blocks'],
    private readonly layers: Sections['layers'],
    private readonly tolerance: number,
    private readonly mmPerUnit: number,
    private readonly asides: Asides,
  ) {}

  private leave(what: string, entity: Entity): void {
    const [x, y] = [numberOf(entity, 10, Number.NaN), numberOf(entity, 20, Number.NaN)];
    const at = Number.isFinite(x + y) ? apply(stretch(this.mmPerUnit), apply(placeOf(entity), { x, y })) : null;
    this.asides.leave(what, { at });
  }

  /** @param within the blocks that are being inserted: one of them again would never end */
  *outlinesOf(entity: Entity, inserted: Inserted | null, within: readonly string[]): Generator<EntityOutline, void> {
    const own = textOf(entity, 8) ?? '0';
    const layerName = own === '0' && inserted ? inserted.layer : own;
    const layer = this.layers.get(layerName);
    // What a block on a layer that is off holds on others is seen; one that is frozen hides it all.
    const isHidden = layer?.isFrozen || (layer?.isOff && entity.kind !== 'INSERT');
    if (isHidden) return this.asides.leave(english.files.onHiddenLayers, { isSeen: false });
    if (textOf(entity, 60) === '1') return this.asides.leave(english.files.invisible, { isSeen: false });
    if (textOf(entity, 67) === '1') return;
    if (hasOddNumber(entity)) return this.leave(english.files.unreadableNumbers, entity);
    const lineType = textOf(entity, 6) ?? layer?.lineType ?? '';
    const isDashed = /dash|hidden|dot|phantom|center|score/i.test(lineType);
    const purpose = purposeNamed(layerName) ?? (isDashed ? 'score' : (inserted?.purpose ?? 'cut'));
    if (entity.kind === 'INSERT') return yield* this.insertOf(entity, { purpose, layer: layerName }, within);
    const paths = this.pathsOf(entity);
    const place = inObjectCoordinates.has(entity.kind) ? placeOf(entity) : identity;
    if (paths.length > 0 && Math.abs(determinant(place)) < edgeOnShare) return this.leave(english.files.edgeOn, entity);
    for (const path of paths) {
      this.budget.take(1, path.segments.length);
      const placed = place === identity ? path : transformedPath(path, place, this.tolerance);
      yield { path: placed, purpose, isFill: entity.kind === 'HATCH' };
    }
  }

  private *insertOf(entity: Entity, inserted: Inserted, within: readonly string[]): Generator<EntityOutline, void> {
    const name = textOf(entity, 2) ?? '';
    const block = this.blocks.get(name);
    if (!block) return this.leave(english.files.blocksMissing, entity);
    if (within.includes(name) || within.length >= deepestInsert) return this.leave(english.files.blocksInThemselves, entity);
    const inside = [...this.insideOf(block.entities, inserted, [...within, name])];
    const [columns, rows] = [Math.max(1, numberOf(entity, 70, 1)), Math.max(1, numberOf(entity, 71, 1))];
    const copies = Math.floor(columns) * Math.floor(rows);
    // Counted before a single copy is made.
    this.budget.take((copies - 1) * Math.max(1, inside.length), (copies - 1) * inside.reduce((sum, o) => sum + o.path.segments.length, 0));
    const [sx, sy] = [numberOf(entity, 41, 1), numberOf(entity, 42, 1)];
    const angle = (numberOf(entity, 50, 0) * Math.PI) / 180;
    const base = shift(-block.base.x, -block.base.y);
    const inPlane = chain(shift(numberOf(entity, 10, 0), numberOf(entity, 20, 0)), angle === 0 ? identity : turn(angle));
    const place = chain(placeOf(entity), inPlane);
    if (inside.length > 0 && Math.abs(determinant(place) * sx * sy) < edgeOnShare) return this.leave(english.files.edgeOn, entity);
    for (let row = 0; row < Math.floor(rows); row++) {
      for (let column = 0; column < Math.floor(columns); column++) {
        const step = shift(column * numberOf(entity, 44, 0), row * numberOf(entity, 45, 0));
        const whole = chain(place, chain(step, chain(stretch(sx, sy), base)));
        for (const o of inside) yield { ...o, path: transformedPath(o.path, whole, this.tolerance) };
      }
    }
  }

  private *insideOf(entities: readonly Entity[], inserted: Inserted, within: readonly string[]): Generator<EntityOutline, void> {
    for (const entity of entities) {
      this.steps++;
      if (this.steps > maxSteps) throw new DrawingError('too-many', say.files.blocksTooDeep());
      yield* this.outlinesOf(entity, inserted, within);
    }
  }

  private pathsOf(entity: Entity): Path[] {
    const n = (code: number, otherwise = 0) => numberOf(entity, code, otherwise);
    const at = (code: number): Point => ({ x: n(code), y: n(code + 10) });
    const list = (path: Path | null): Path[] => (path ? [path] : []);
    switch (entity.kind) {
      case 'LINE': {
        const [from, to] = [at(10), at(11)];
        return distance(from, to) > 0 ? [{ start: from, segments: [{ kind: 'line', to }], closed: false }] : [];
      }
      case 'CIRCLE':
        return n(40) > 0 ? [circlePath(at(10), n(40))] : [];
      case 'ARC': {
        const [from, to] = [(n(50) * Math.PI) / 180, (n(51) * Math.PI) / 180];
        return n(40) > 0 ? [arcPath(chain(shift(n(10), n(20)), stretch(n(40))), from, to, this.tolerance)] : [];
      }
      case 'ELLIPSE':
        return this.ellipsePaths(entity);
      case 'LWPOLYLINE':
        return this.polylinePaths(lightVertices(entity.groups, n(43)), (n(70) & 1) === 1);
      case 'POLYLINE':
        return this.oldPolylinePaths(entity);
      case 'SPLINE':
        return list(this.splinePath(entity));
      case 'HATCH': {
        const { paths, unread } = hatchBoundaries(entity.groups, this.tolerance);
        if (unread > 0 || paths.length === 0) this.leave(english.files.hatching, entity);
        return paths;
      }
      case 'SOLID':
      case 'TRACE':
        // Its third and fourth corner stand crosswise.
        return list(polygonOfCorners([at(10), at(11), at(13), at(12)]));
      case '3DFACE':
        return list(polygonOfCorners([at(10), at(11), at(12), at(13)]));
      default:
        if (!silent.has(entity.kind))
          this.leave(
            Object.hasOwn(asideWords, entity.kind) ? (asideWords[entity.kind] as string) : english.files.entitiesOfKind(entity.kind),
            entity,
          );
        return [];
    }
  }

  /** Its centre and long half axis lie in world coordinates; the short one stands square to it and to the extrusion. */
  private ellipsePaths(entity: Entity): Path[] {
    const n = (code: number, otherwise = 0) => numberOf(entity, code, otherwise);
    const [mx, my, mz, ratio] = [n(11), n(21), n(31), n(40, 1)];
    const [nx, ny, nz] = normalOf(entity);
    const place: Transform = { a: mx, b: my, c: (ny * mz - nz * my) * ratio, d: (nz * mx - nx * mz) * ratio, e: n(10), f: n(20) };
    if (!(Math.hypot(mx, my, mz) > 0 && ratio > 0)) return [];
    if (Math.abs(determinant(place)) < edgeOnShare * Math.hypot(mx, my, mz) ** 2 * ratio) {
      this.leave(english.files.edgeOn, entity);
      return [];
    }
    return [arcPath(place, n(41, 0), n(42, 2 * Math.PI), this.tolerance)];
  }

  /** A line as wide as it says is the outline of its band. */
  private polylinePaths(vertices: readonly Vertex[], isClosed: boolean): Path[] {
    const path = polylinePath(vertices, isClosed);
    if (!path) return [];
    const drawn = isClosed ? vertices : vertices.slice(0, -1);
    const widths = drawn.flatMap((vertex) => vertex.widths);
    const [width = 0] = widths;
    if (widths.every((w) => !(w > 0))) return [path];
    if (widths.every((w) => Math.abs(w - width) < 1e-9)) {
      const bands = strokeOutline(path, width, 'flat', { corners: 'mitre', mitreLimit: 10, toleranceMm: this.tolerance });
      return bands.flatMap(({ outer, holes }) => [outer, ...holes]);
    }
    return drawn.flatMap((vertex, k) => {
      const to = (vertices[(k + 1) % vertices.length] as Vertex).at;
      if (vertex.bulge === 0) return taperedBand(vertex, to) ?? [];
      const arc = polylinePath([vertex, { at: to, bulge: 0 }], false);
      const middle = (vertex.widths[0] + vertex.widths[1]) / 2;
      return arc && middle > 0
        ? strokeOutline(arc, middle, 'flat', { ...plainOffset, toleranceMm: this.tolerance }).flatMap(({ outer, holes }) => [
            outer,
            ...holes,
          ])
        : [];
    });
  }

  private oldPolylinePaths(entity: Entity): Path[] {
    const flags = numberOf(entity, 70, 0);
    if ((flags & (16 | 64)) !== 0) {
      this.leave(english.files.meshes, entity);
      return [];
    }
    const [from, to] = [numberOf(entity, 40, 0), numberOf(entity, 41, 0)];
    // Control points of a curve that was fitted are not on it.
    const drawn = entity.vertices.filter((groups) => (groupNumber(groups, 70, 0) & 16) === 0);
    const vertices = drawn.map(
      (groups): Vertex => ({
        at: { x: groupNumber(groups, 10, 0), y: groupNumber(groups, 20, 0) },
        bulge: groupNumber(groups, 42, 0),
        widths: [groupNumber(groups, 40, from), groupNumber(groups, 41, to)],
      }),
    );
    return this.polylinePaths(vertices, (flags & 1) === 1);
  }

  private splinePath(entity: Entity): Path | null {
    const all = (code: number) => entity.groups.filter(([c]) => c === code).map(([, v]) => Number(v));
    const points = (code: number): Point[] => {
      const ys = all(code + 10);
      return all(code).map((x, k) => ({ x, y: ys[k] ?? 0 }));
    };
    const spline = { degree: numberOf(entity, 71, 3), knots: all(40), points: points(10), weights: all(41) };
    const isPeriodic = (numberOf(entity, 70, 0) & 1) === 1;
    const direction = (code: number): Point | null => points(code)[0] ?? null;
    const made =
      spline.points.length > 0
        ? splineAsCubics(spline, this.tolerance)
        : splineThrough(points(11), isPeriodic, { start: direction(12), end: direction(13) });
    if (!made) {
      this.leave(english.files.splinesWithoutControlPoints, entity);
      return null;
    }
    const last = made.segments.at(-1);
    const isClosed = last !== undefined && distance(last.to, made.start) < this.tolerance;
    return { ...made, closed: isClosed };
  }
}

/** Closed, without corners that are there twice; null where there is no area. */
function polygonOfCorners(corners: readonly Point[]): Path | null {
  const apart = corners.filter((p, k) => distance(p, corners[(k + corners.length - 1) % corners.length] as Point) > 1e-12);
  return apart.length > 2 ? polygonPath(apart) : null;
}

/** Kinds whose places are those of the object's own plane; all others lie in world coordinates. */
const inObjectCoordinates = new Set(['CIRCLE', 'ARC', 'LWPOLYLINE', 'POLYLINE', 'HATCH', 'SOLID', 'TRACE']);

function normalOf(entity: Entity): readonly [number, number, number] {
  const [x, y, z] = [numberOf(entity, 210, 0), numberOf(entity, 220, 0), numberOf(entity, 230, 1)];
  const size = Math.hypot(x, y, z);
  return size > 0 ? [x / size, y / size, z / size] : [0, 0, 1];
}

/** Nearer to the z axis than this the arbitrary axis algorithm takes the y axis to begin with. */
const nearAxis = 1 / 64;

/** From an entity's own plane to the xy plane, seen from above. */
function placeOf(entity: Entity): Transform {
  const isThreeDimensional = entity.kind === 'POLYLINE' && (numberOf(entity, 70, 0) & 8) !== 0;
  const [nx, ny, nz] = isThreeDimensional ? [0, 0, 1] : normalOf(entity);
  if (nx === 0 && ny === 0 && nz > 0) return identity;
  const raw: readonly [number, number, number] = Math.abs(nx) < nearAxis && Math.abs(ny) < nearAxis ? [nz, 0, -nx] : [-ny, nx, 0];
  const size = Math.hypot(raw[0], raw[1], raw[2]);
  const [ax, ay, az] = [raw[0] / size, raw[1] / size, raw[2] / size];
  const [bx, by] = [ny * az - nz * ay, nz * ax - nx * az];
  const elevation = entity.kind === 'LWPOLYLINE' ? numberOf(entity, 38, 0) : numberOf(entity, 30, 0);
  return { a: ax, b: ay, c: bx, d: by, e: elevation * nx, f: elevation * ny };
}

const silent = new Set(['POINT', 'VIEWPORT', 'ATTDEF', 'SEQEND']);
const asideWords: Readonly<Record<string, string>> = {
  TEXT: english.files.text,
  MTEXT: english.files.text,
  ATTRIB: english.files.text,
  DIMENSION: english.files.dimensions,
  ARC_DIMENSION: english.files.dimensions,
  IMAGE: english.files.picturesInsideTheDrawing,
  LEADER: english.files.leaders,
  MULTILEADER: english.files.leaders,
  MLEADER: english.files.leaders,
  MLINE: english.files.multipleLines,
  MESH: english.files.meshes,
};

/** Codes of coordinates, sizes, counts and angles. */
const isNumeric = (code: number): boolean => (code >= 10 && code <= 59) || (code >= 210 && code <= 239);
const hasOddNumber = ({ groups, vertices }: Entity): boolean =>
  [groups, ...vertices].some((list) => list.some(([code, value]) => isNumeric(code) && !Number.isFinite(Number(value))));
