/**
 * In: a job's outlines and the settings of a solid. Out: the solid as closed meshes: what is joined less what is cut, and each body apart; what
 * it holds and weighs, and what could not be as it was asked. Solids have to be loaded before (`loadSolids`).
 */
import { makeOf } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import { type Message, SaidError, say } from '../messages/index.ts';
import {
  type Box,
  boxAroundBoxes,
  centreOf,
  chain,
  circlePath,
  type Path,
  pathBox,
  polygonOf,
  rectanglePath,
  reversedPath,
  shift,
  stretch,
  transformedPath,
} from '../plane/index.ts';
import { combined, counterClockwise, nested, offsetPiece } from '../shape/index.ts';
import { bandsAlong } from './bands.ts';
import { common, joinedLess, meshOfSolid, partSphere, type Solid, solidOf, turnedBody } from './booleans.ts';
import { type Mesh, sizeOf } from './mesh.ts';
import { prismOf } from './prism.ts';
import { assembledPoses, halvesOf, type PairedHalves, type Pose, posedIn, posedMesh, slotAxis, standing, undone } from './push-together.ts';
import { type GreyOnSheet, reliefBlock, reliefSurface } from './relief.ts';
import type { BodySetting, PairSetting, ReliefSetting, SolidSettings } from './settings.ts';

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
  /** Bodies that are pushed together, two by two; and each of them as it stands when all are put together. */
  readonly pairs: readonly PairedHalves[];
  readonly assembled: readonly { readonly part: number; readonly mesh: Mesh }[];
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

/** An outline that is pushed together with others: it gets its slots one after another. */
interface Half {
  readonly piece: Piece;
  readonly rule: BodySetting;
  /** As it is drawn, which its slots go by. */
  readonly drawn: Path;
  shape: { readonly outer: Path; readonly holes: readonly Path[] };
  body: Body | null;
}

/** Two that are pushed together, and how the second stands in the first. */
interface Pair {
  readonly first: Half;
  readonly second: Half;
  readonly pose: Pose;
  readonly setting: PairSetting;
}

/** @param greys of pictures that reliefs are of. Yields the share done. @throws SaidError where there is nothing to make a body of */
export function* solidPlan(
  pieces: readonly Piece[],
  settings: SolidSettings,
  greys: readonly GreyOnSheet[] = [],
): Generator<number, SolidPlan> {
  const outlines = pieces.filter((piece) => makeOf(piece) !== 'nothing' && (piece.outer.closed || settings.lines !== null));
  if (outlines.length === 0) throw new SaidError(say.solid.noOutlines());
  const building = new Building(outlines, settings);
  const paired = building.addPairs();
  const reliefs = new Map(settings.reliefs.map((one) => [one.pieceId, one]));
  const turned = new Map(settings.turned.map((one) => [one.pieceId, one]));
  for (const [k, piece] of outlines.entries()) {
    const round = turned.get(piece.id);
    const relief = reliefs.get(piece.id);
    if (round) building.addTurned(piece, round);
    else if (relief && piece.outer.closed && !paired.has(piece.id)) building.addRelief(piece, relief, greys);
    else if (piece.outer.closed && !paired.has(piece.id)) building.add(piece, piece, ruleOf(piece, settings));
    yield (0.7 * (k + 1)) / outlines.length;
  }
  building.addLines();
  building.addSpheres(pieces);
  building.addBase();
  const { parts, placeOf } = partsOf(building.bodies);
  const together = putTogether(building.pairs, parts, placeOf);
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
    ...together,
    notes: building.notes,
  };
}

function putTogether(
  pairs: readonly Pair[],
  parts: readonly SolidPart[],
  placeOf: (body: Body) => number,
): Pick<SolidPlan, 'pairs' | 'assembled'> {
  const placed = ({ body }: Half): number => (body ? placeOf(body) : -1);
  const made = pairs.filter(({ first, second }) => placed(first) >= 0 && placed(second) >= 0);
  const poses = assembledPoses(made);
  const meshOf = (half: Half): Mesh => (parts[placed(half)] as SolidPart).mesh;
  return {
    pairs: made.map(({ first, second, setting: { degrees, playMm } }): PairedHalves => {
      const inFirst = posedIn(undone(poses.get(first) as Pose), poses.get(second) as Pose);
      const angle = (degrees * Math.PI) / 180;
      return { first: placed(first), second: placed(second), assembled: posedMesh(meshOf(second), inFirst), across: { x: -Math.sin(angle), y: Math.cos(angle) }, askedMm: playMm }; // biome-ignore format: one line
    }),
    assembled: [...poses].map(([half, pose]) => ({ part: placed(half), mesh: posedMesh(meshOf(half), pose) })),
  };
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
    const halves = new Map<string, Half>();
    for (const setting of this.settings.pairs) {
      const [first, second] = [this.closed(setting.pieceId), this.closed(setting.otherId ?? setting.pieceId)];
      if (!first || !second) this.notes.push({ ...say.solid.halfGone(), pieceId: '', isFailure: true });
      else this.addPair(first, second, setting, halves);
    }
    for (const half of halves.values()) half.body = this.add(half.piece, half.shape, { ...half.rule, how: 'apart' });
    return new Set([...halves.values()].map(({ piece }) => piece.id));
  }

  private closed = (id: string): Piece | undefined => this.outlines.find((piece) => piece.id === id && piece.outer.closed);

  private addPair(piece: Piece, other: Piece, setting: PairSetting, halves: Map<string, Half>): void {
    // A second one of the same outline lies beside it, a third beside that.
    const again = [...halves.values()].filter((half) => half.piece === piece).length || 1;
    const first = halves.get(piece.id) ?? halfOf(piece, this.settings, 0);
    const second = setting.otherId === null ? halfOf(piece, this.settings, again) : (halves.get(other.id) ?? halfOf(other, this.settings, 0)); // biome-ignore format: one line
    const [thickA, thickB] = [thicknessOf(first), thicknessOf(second)];
    const [asideA, asideB] = setting.asideMm;
    const axes = [slotAxis(first.drawn, setting.degrees, asideA), slotAxis(second.drawn, setting.degrees, asideB)] as const;
    const made = halvesOf(first.shape, second.shape, axes, [thickB + setting.playMm, thickA + setting.playMm]);
    if (typeof made === 'string') {
      const failed = made === 'misses' ? say.solid.slotMisses(piece.name) : say.solid.slotCutsThrough(piece.name, { mm: Math.max(thickA, thickB) + setting.playMm }); // biome-ignore format: one line
      this.notes.push({ ...failed, pieceId: piece.id, isFailure: true });
      return;
    }
    first.shape = made.first;
    second.shape = made.second;
    halves.set(piece.id, first);
    halves.set(setting.otherId ?? `${piece.id} ${again}`, second);
    this.pairs.push({ first, second, pose: standing(axes[0], axes[1], [middleHeight(first), middleHeight(second)]), setting });
  }

  /** Drawn lines as bands. */
  addLines(): void {
    const { lines, body, chordMm } = this.settings;
    const drawn = this.outlines.filter(({ outer }) => !outer.closed);
    if (!lines || !drawn[0]) return;
    const band = { ...body, ...lines, draftDegrees: 0, top: plainEdge, bottom: plainEdge };
    for (const outline of bandsAlong(drawn.map(({ outer }) => outer), lines.widthMm, bandShare * chordMm)) this.add(drawn[0], outline, band); // biome-ignore format: one line
  }

  /** A body that ends in a surface as high as a picture is light; flat, where the picture is not at hand. */
  addRelief(piece: Piece, relief: ReliefSetting, greys: readonly GreyOnSheet[]): void {
    const body = ruleOf(piece, this.settings);
    const picture = greys.find(({ pictureId }) => pictureId === relief.pictureId);
    if (!picture) {
      this.notes.push({ ...say.solid.noPictureOfRelief(piece.name), pieceId: piece.id, isFailure: true });
      this.add(piece, piece, body);
      return;
    }
    const { minX, minY, maxX, maxY } = pathBox(piece.outer);
    const about = { minX: minX - beyondMm, minY: minY - beyondMm, maxX: maxX + beyondMm, maxY: maxY + beyondMm };
    const surface = reliefSurface(about, picture, relief);
    if (surface.stepMm > relief.stepMm + 1e-9) this.notes.push({ ...say.solid.reliefMadeCoarser(piece.name, { mm: relief.stepMm }, { mm: surface.stepMm }), pieceId: piece.id, isFailure: false }); // biome-ignore format: one line
    const [low, high] = [Math.min(relief.blackMm, relief.whiteMm), Math.max(relief.blackMm, relief.whiteMm)];
    const isCut = body.how === 'cut';
    // What is cut reaches from the surface up beyond the top of the body; what is raised from its bottom up to the surface.
    const plane = isCut ? Math.max(body.toMm, high) + beyondMm : sunk(body, this.settings);
    if (isCut ? plane <= high : plane >= low) {
      this.notes.push({ ...say.solid.reliefBelowBody(piece.name), pieceId: piece.id, isFailure: true });
      return;
    }
    const heights = { fromMm: Math.min(plane, low) - (isCut ? beyondMm : 0), toMm: Math.max(plane, high) + beyondMm };
    const sides = prismOf(piece, { ...heights, draft: 0, top: edgeOf(plainEdge), bottom: edgeOf(plainEdge) }, this.settings.chordMm);
    if (!sides) this.notes.push({ ...say.solid.noBody(piece.name), pieceId: piece.id, isFailure: true });
    else this.bodies.push({ solid: common(solidOf(sides.mesh), solidOf(reliefBlock(surface, plane))), how: body.how, name: piece.name });
  }

  addTurned(piece: Piece, { degrees, wallMm }: SolidSettings['turned'][number]): void {
    const profile = wallMm === null ? piece : walled(piece, wallMm);
    if (!profile) this.notes.push({ ...say.solid.wallTooThick(piece.name, { mm: wallMm ?? 0 }), pieceId: piece.id, isFailure: false });
    this.bodies.push({ solid: turnedOn(piece, profile ?? piece, degrees, this.settings), how: 'apart', name: piece.name });
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

/** @param again how many of it lie beside it already */
function halfOf(piece: Piece, settings: SolidSettings, again: number): Half {
  const { minX, maxX } = pathBox(piece.outer);
  const aside = shift(again * (maxX - minX + besideMm), 0);
  const to = (path: Path): Path => transformedPath(path, aside);
  const shape = { outer: to(piece.outer), holes: piece.holes.map(to) };
  return { piece, rule: ruleOf(piece, settings), drawn: shape.outer, shape, body: null };
}
const thicknessOf = ({ rule: { fromMm, toMm } }: Half): number => toMm - fromMm;
const middleHeight = ({ rule: { fromMm, toMm } }: Half): number => (fromMm + toMm) / 2;

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

/**
 * What is left of half a profile where all is taken away that lies farther than a wall from its outline, the axis apart; open above where the
 * profile ends flat there. Null where nothing lies so far in.
 */
function walled({ outer, holes }: Piece, wallMm: number): Pick<Piece, 'outer' | 'holes'> | null {
  const { minX, maxX, maxY } = pathBox(outer);
  const half = counterClockwise(outer);
  // The two halves lie over one another a little, so that they are one.
  const left = transformedPath(half, shift(-overMm, 0));
  const mirrored = reversedPath(transformedPath(left, chain(shift(2 * minX, 0), stretch(-1, 1))));
  const across = { minX: minX - (maxX - minX) - 1, maxX: maxX + 1 };
  const top = combined([half], [rectanglePath({ ...across, minY: maxY - flatMm, maxY: maxY + 1 })], 'keep-common').map(pathBox);
  const rim = Math.max(minX, ...top.map((box) => box.maxX));
  const raised = rectanglePath({ minX: 2 * minX - rim, minY: maxY - flatMm, maxX: rim, maxY: maxY + 2 * wallMm + 1 });
  const both = combined([left], [mirrored], 'unite');
  const [whole] = nested(rim > minX + wallMm ? combined(both, [raised], 'unite') : both);
  const hollow = whole ? offsetPiece({ outer: whole.outer, holes: [] }, -wallMm).map((inner) => inner.outer) : [];
  const [shell] = hollow.length > 0 ? nested(combined([half, ...holes], hollow, 'take-away')) : [];
  return shell ?? null;
}
/** A profile ends flat above where it is wider than its wall so little below its top, mm. */
const flatMm = 0.01;
const overMm = 0.001;

/** Half a profile turned about the left edge of its box: it stands on the plane where that edge lies. */
function turnedOn(drawn: Piece, { outer, holes }: Pick<Piece, 'outer' | 'holes'>, degrees: number, { chordMm }: SolidSettings): Solid {
  const { minX, maxX, minY } = pathBox(drawn.outer);
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
