/**
 * In: a job's outlines and the settings of a solid. Out: the solid as closed meshes: what is joined less what is cut, and each body apart; what
 * it holds and weighs, and what could not be as it was asked. Solids have to be loaded before (`loadSolids`).
 */
import { makeOf } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import { type Message, SaidError, say } from '../messages/index.ts';
import {
  apply,
  type Box,
  boxAroundBoxes,
  centreOf,
  circlePath,
  type Path,
  type Point,
  pathBox,
  polygonOf,
  rectanglePath,
  shift,
  transformedPath,
} from '../plane/index.ts';
import { offsetPiece } from '../shape/index.ts';
import { bandsAlong } from './bands.ts';
import { joinedLess, meshOfSolid, partSphere, type Solid, solidOf, turnedBody } from './booleans.ts';
import { type Mesh, sizeOf } from './mesh.ts';
import { prismOf } from './prism.ts';
import { halvesOf, middleOf, type PairedHalves, standing } from './push-together.ts';
import type { BodySetting, PairSetting, SolidSettings } from './settings.ts';

export type SolidNote = Message & { readonly pieceId: string; readonly isFailure: boolean };

export interface SolidPart {
  readonly name: string;
  readonly mesh: Mesh;
}

export interface SolidPlan {
  readonly parts: readonly SolidPart[];
  readonly min: readonly [number, number, number];
  readonly max: readonly [number, number, number];
  readonly volumeMm3: number;
  /** The middle of what all bodies hold. */
  readonly middle: readonly [number, number, number];
  readonly massG: number;
  /** How much filament it takes, m, and how long at the flow that is set, s. */
  readonly filamentM: number;
  readonly seconds: number;
  readonly layers: number;
  /** Bodies that are pushed together. */
  readonly pairs: readonly PairedHalves[];
  readonly notes: readonly SolidNote[];
}

/** Bodies that stand on the base are sunk into it by this, so that they are one with it, mm. */
const sunkMm = 0.2;
/** What is cut reaches so far beyond faces that it opens, so that no skin is left, mm. */
const beyondMm = 0.05;
/** Between a hole to hang by and the base's edge there stays at least this, mm. */
const rimMm = 1.5;
/** Bands leave their lines by this share of what chords may. */
const bandShare = 0.5;
/** Between a body and its second half beside it, mm. */
const besideMm = 10;
const plainEdge: BodySetting['top'] = { kind: 'sharp', sizeMm: 0 };

interface Body {
  readonly solid: Solid;
  readonly how: BodySetting['how'];
  readonly name: string;
}

/** Two bodies that are pushed together. */
interface Pair {
  readonly first: Body;
  readonly second: Body;
  readonly middles: readonly [Point, Point];
  readonly zMiddles: readonly [number, number];
  readonly setting: PairSetting;
}

/** Yields the share done. @throws SaidError where there is nothing to make a body of */
export function* solidPlan(pieces: readonly Piece[], settings: SolidSettings): Generator<number, SolidPlan> {
  const outlines = pieces.filter((piece) => makeOf(piece) !== 'nothing' && (piece.outer.closed || settings.lines !== null));
  if (outlines.length === 0) throw new SaidError(say.solid.noOutlines());
  const building = new Building(outlines, settings);
  const paired = building.addPairs();
  const turned = new Map(settings.turned.map(({ pieceId, degrees }) => [pieceId, degrees]));
  for (const [k, piece] of outlines.entries()) {
    const degrees = turned.get(piece.id);
    if (degrees !== undefined) building.bodies.push({ solid: turnedOn(piece, degrees, settings), how: 'apart', name: piece.name });
    else if (piece.outer.closed && !paired.has(piece.id)) building.add(piece, piece, ruleOf(piece, settings));
    yield (0.7 * (k + 1)) / outlines.length;
  }
  building.addLines();
  building.addSpheres(pieces);
  building.addBase();
  const { parts, placeOf } = partsOf(building.bodies);
  yield 0.9;
  const sizes = parts.map(({ mesh }) => sizeOf(mesh));
  const volumeMm3 = sizes.reduce((sum, size) => sum + size.volumeMm3, 0);
  if (parts.length === 0 || !(volumeMm3 > 0)) throw new SaidError(say.solid.nothingLeft());
  const byAxis = (of: (axis: number) => number): [number, number, number] => [of(0), of(1), of(2)];
  const min = byAxis((axis) => Math.min(...sizes.map((size) => size.min[axis] as number)));
  const max = byAxis((axis) => Math.max(...sizes.map((size) => size.max[axis] as number)));
  return {
    parts,
    min,
    max,
    volumeMm3,
    middle: byAxis((axis) => sizes.reduce((sum, size) => sum + (size.volumeMm3 * (size.middle[axis] as number)) / volumeMm3, 0)),
    massG: (volumeMm3 / 1000) * settings.density,
    filamentM: volumeMm3 / ((Math.PI / 4) * settings.filamentMm ** 2) / 1000,
    seconds: volumeMm3 / settings.flowMm3PerS,
    layers: Math.ceil((max[2] - min[2]) / settings.layerMm - 1e-9),
    pairs: building.pairs.flatMap((pair) => assembledOf(pair, parts, placeOf)),
    notes: building.notes,
  };
}

function assembledOf(
  { first, second, middles, zMiddles, setting }: Pair,
  parts: readonly SolidPart[],
  placeOf: (body: Body) => number,
): PairedHalves[] {
  const [one, other] = [placeOf(first), placeOf(second)];
  const mesh = parts[other]?.mesh;
  if (one < 0 || !mesh) return [];
  const angle = (setting.degrees * Math.PI) / 180;
  const assembled = standing(mesh, middles[1], middles[0], setting.degrees, zMiddles);
  return [{ first: one, second: other, assembled, across: { x: -Math.sin(angle), y: Math.cos(angle) }, askedMm: setting.playMm }];
}

/** Bodies as they come, and what could not be as it was asked. */
class Building {
  readonly bodies: Body[] = [];
  readonly notes: SolidNote[] = [];
  readonly pairs: Pair[] = [];

  constructor(
    private readonly outlines: readonly Piece[],
    private readonly settings: SolidSettings,
  ) {}

  /** The body of an outline; null where it has none, which is noted. */
  add(piece: Pick<Piece, 'id' | 'name'>, outline: { outer: Path; holes: readonly Path[] }, body: BodySetting): Body | null {
    const asked = { ...body, fromMm: sunk(body, this.settings), draft: (body.draftDegrees * Math.PI) / 180, top: edgeOf(body.top), bottom: edgeOf(body.bottom) }; // biome-ignore format: one line
    const prism = prismOf(outline, asked, this.settings.chordMm);
    if (!prism) {
      this.notes.push({ ...say.solid.noBody(piece.name), pieceId: piece.id, isFailure: true });
      return null;
    }
    for (const [edge, sizeMm] of [[body.top, prism.topMm], [body.bottom, prism.bottomMm]] as const)
      if (edge.kind !== 'sharp' && sizeMm < edge.sizeMm - 0.005) this.notes.push({ ...say.solid.edgesMadeSmaller(piece.name, { mm: edge.sizeMm }, { mm: sizeMm }), pieceId: piece.id, isFailure: false }); // biome-ignore format: one line
    const made: Body = { solid: solidOf(prism.mesh), how: body.how, name: piece.name };
    this.bodies.push(made);
    return made;
  }

  /** Bodies with slots that go into one another; the outlines that they are of. */
  addPairs(): ReadonlySet<string> {
    const paired = new Set<string>();
    const closed = (id: string): Piece | undefined => this.outlines.find((piece) => piece.id === id && piece.outer.closed);
    for (const setting of this.settings.pairs) {
      const [first, second] = [closed(setting.pieceId), closed(setting.otherId ?? setting.pieceId)];
      if (!first || !second) this.notes.push({ ...say.solid.halfGone(), pieceId: '', isFailure: true });
      else if (this.addPair(first, second, setting)) paired.add(first.id).add(second.id);
    }
    return paired;
  }

  private addPair(first: Piece, second: Piece, setting: PairSetting): boolean {
    const [bodyA, bodyB] = [ruleOf(first, this.settings), ruleOf(second, this.settings)];
    const [thickA, thickB] = [bodyA.toMm - bodyA.fromMm, bodyB.toMm - bodyB.fromMm];
    const halves = halvesOf(first, second, setting.degrees, [thickB + setting.playMm, thickA + setting.playMm]);
    if (typeof halves === 'string') {
      const failed = halves === 'misses' ? say.solid.slotMisses(first.name) : say.solid.slotCutsThrough(first.name, { mm: Math.max(thickA, thickB) + setting.playMm }); // biome-ignore format: one line
      this.notes.push({ ...failed, pieceId: first.id, isFailure: true });
      return false;
    }
    // A second one of the same outline lies beside it.
    const { minX, maxX } = pathBox(first.outer);
    const aside = shift(second === first ? maxX - minX + besideMm : 0, 0);
    const to = (path: Path): Path => transformedPath(path, aside);
    const one = this.add(first, halves.first, { ...bodyA, how: 'apart' });
    const other = this.add(second, { outer: to(halves.second.outer), holes: halves.second.holes.map(to) }, { ...bodyB, how: 'apart' });
    const middles = [middleOf(first.outer), apply(aside, middleOf(second.outer))] as const;
    const zMiddles = [(bodyA.fromMm + bodyA.toMm) / 2, (bodyB.fromMm + bodyB.toMm) / 2] as const;
    if (one && other) this.pairs.push({ first: one, second: other, middles, zMiddles, setting });
    return true;
  }

  /** Drawn lines as bands. */
  addLines(): void {
    const { lines, body, chordMm } = this.settings;
    const drawn = this.outlines.filter(({ outer }) => !outer.closed);
    if (!lines || !drawn[0]) return;
    const band = { ...body, ...lines, draftDegrees: 0, top: plainEdge, bottom: plainEdge };
    for (const outline of bandsAlong(drawn.map(({ outer }) => outer), lines.widthMm, bandShare * chordMm)) this.add(drawn[0], outline, band); // biome-ignore format: one line
  }

  addSpheres(pieces: readonly Piece[]): void {
    for (const sphere of this.settings.spheres) {
      const piece = pieces.find(({ id }) => id === sphere.pieceId);
      if (!piece) this.notes.push({ ...say.solid.sphereGone(), pieceId: '', isFailure: false });
      else this.bodies.push({ ...sphereOn(piece, sphere, this.settings), name: piece.name });
    }
  }

  addBase(): void {
    if (!this.settings.base) return;
    const { outline, thicknessMm, isHoleLeftOut } = baseUnder(this.outlines.map(({ outer }) => pathBox(outer)), this.settings.base); // biome-ignore format: one line
    this.add({ id: '', name: '' }, outline, { fromMm: -thicknessMm, toMm: 0, draftDegrees: 0, top: plainEdge, bottom: plainEdge, how: 'join' }); // biome-ignore format: one line
    if (isHoleLeftOut) this.notes.push({ ...say.solid.noHangingHole(), pieceId: '', isFailure: false });
  }
}

const edgeOf = ({ kind, sizeMm }: BodySetting['top']) => (kind === 'sharp' ? ({ kind } as const) : { kind, sizeMm });

/** As it is set for the outline, else for its purpose, else for all. */
function ruleOf({ id, purpose }: Piece, { body, rules }: SolidSettings): BodySetting {
  return rules.find(({ pieceId }) => pieceId === id) ?? rules.find((rule) => rule.pieceId === null && rule.purpose === purpose) ?? body;
}

/** What stands on the base goes into it a little; what is cut goes beyond the plane that it begins at. */
function sunk({ fromMm, how }: BodySetting, { base }: SolidSettings): number {
  if (how === 'cut') return fromMm - beyondMm;
  return base && fromMm === 0 && how === 'join' ? -Math.min(sunkMm, base.thicknessMm / 2) : fromMm;
}

function sphereOn(
  piece: Piece,
  { diameterMm, faceMm, depthMm, how }: SolidSettings['spheres'][number],
  { chordMm }: SolidSettings,
): Pick<Body, 'solid' | 'how'> {
  const { x, y } = centreOf(pathBox(piece.outer));
  const r = diameterMm / 2;
  const deep = Math.min(depthMm, diameterMm);
  const isBoss = how === 'boss';
  const z = isBoss ? faceMm + deep - r : faceMm - deep + r;
  const range: [number, number] = isBoss ? [Math.max(faceMm - sunkMm, z - r), z + r] : [z - r, faceMm + beyondMm];
  return { solid: partSphere({ x, y, z }, r, range, segmentsRound(r, chordMm)), how: isBoss ? 'join' : 'cut' };
}

/** Half a profile turned about the left edge of its box: it stands on the plane where that edge lies. */
function turnedOn({ outer, holes }: Piece, degrees: number, { chordMm }: SolidSettings): Solid {
  const { minX, maxX, minY } = pathBox(outer);
  const contours = [outer, ...holes].map((path) => polygonOf(path, chordMm).map(({ x, y }) => ({ x: Math.max(0, x - minX), y: y - minY })));
  const solid = turnedBody(contours, degrees, segmentsRound(maxX - minX, chordMm));
  const placed = solid.translate(minX, minY, 0);
  solid.delete();
  return placed;
}

/** So many segments round a circle that chords leave it by no more than they may. */
const segmentsRound = (radiusMm: number, chordMm: number): number => 4 * Math.max(3, Math.ceil(Math.PI / 4 / Math.acos(1 - Math.min(0.5, chordMm / radiusMm)))); // biome-ignore format: one line

/** A plate a margin larger than all outlines, its corners rounded, with a hole to hang it by in the middle of its upper margin. */
function baseUnder(boxes: readonly Box[], { marginMm, thicknessMm, cornerMm, holeMm }: NonNullable<SolidSettings['base']>) {
  const { minX, minY, maxX, maxY } = boxAroundBoxes(boxes) as Box;
  const room = Math.min(maxX - minX, maxY - minY) / 2 + marginMm;
  const corner = Math.min(cornerMm, 0.999 * room);
  const inner = rectanglePath({ minX: minX - marginMm + corner, minY: minY - marginMm + corner, maxX: maxX + marginMm - corner, maxY: maxY + marginMm - corner }); // biome-ignore format: one line
  const [plate] = corner > 0 ? offsetPiece({ outer: inner, holes: [] }, corner) : [{ outer: inner, holes: [] }];
  const fits = holeMm !== null && holeMm + 2 * rimMm <= marginMm;
  const hole = fits ? [circlePath({ x: (minX + maxX) / 2, y: maxY + marginMm / 2 }, holeMm / 2)] : [];
  return { outline: { outer: plate?.outer ?? inner, holes: hole }, thicknessMm, isHoleLeftOut: holeMm !== null && !fits };
}

/** The parts, and which of them a body apart has become. */
function partsOf(bodies: readonly Body[]): { parts: SolidPart[]; placeOf: (body: Body) => number } {
  const of = (how: BodySetting['how']): Body[] => bodies.filter((body) => body.how === how);
  const parts: SolidPart[] = [];
  const places = new Map<Body, number>();
  const joined = of('join');
  const put = (name: string, solid: Solid): boolean => {
    const mesh = meshOfSolid(solid);
    solid.delete();
    if (mesh.triangles.length > 0) parts.push({ name, mesh });
    return mesh.triangles.length > 0;
  };
  const cut = of('cut');
  if (joined.length > 0)
    put(joined[0]?.name ?? '', joinedLess(joined.map(({ solid }) => solid), cut.map(({ solid }) => solid))); // biome-ignore format: one line
  else for (const { solid } of cut) solid.delete();
  for (const body of of('apart')) if (put(body.name, body.solid)) places.set(body, parts.length - 1);
  return { parts, placeOf: (body) => places.get(body) ?? -1 };
}
