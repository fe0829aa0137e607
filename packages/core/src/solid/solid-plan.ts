/**
 * In: a job's outlines and the settings of a solid. Out: the solid as closed meshes: what is joined less what is cut, and each body apart; what
 * it holds and weighs, and what could not be as it was asked. Solids have to be loaded before (`loadSolids`).
 */
import { makeOf } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import { type Message, SaidError, say } from '../messages/index.ts';
import { type Box, boxAroundBoxes, centreOf, circlePath, type Path, pathBox, polygonOf, rectanglePath } from '../plane/index.ts';
import { offsetPiece } from '../shape/index.ts';
import { bandsAlong } from './bands.ts';
import { joinedLess, meshOfSolid, partSphere, type Solid, solidOf, turnedBody } from './booleans.ts';
import { type Mesh, sizeOf } from './mesh.ts';
import { prismOf } from './prism.ts';
import type { BodySetting, SolidSettings } from './settings.ts';

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
  readonly massG: number;
  /** How much filament it takes, m, and how long at the flow that is set, s. */
  readonly filamentM: number;
  readonly seconds: number;
  readonly layers: number;
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
const plainEdge: BodySetting['top'] = { kind: 'sharp', sizeMm: 0 };

interface Body {
  readonly solid: Solid;
  readonly how: BodySetting['how'];
  readonly name: string;
}

/** Yields the share done. @throws SaidError where there is nothing to make a body of */
export function* solidPlan(pieces: readonly Piece[], settings: SolidSettings): Generator<number, SolidPlan> {
  const notes: SolidNote[] = [];
  const bodies: Body[] = [];
  const outlines = pieces.filter((piece) => makeOf(piece) !== 'nothing' && (piece.outer.closed || settings.lines !== null));
  if (outlines.length === 0) throw new SaidError(say.solid.noOutlines());
  const add = (piece: Pick<Piece, 'id' | 'name'>, outline: { outer: Path; holes: readonly Path[] }, body: BodySetting): void => {
    const asked = { ...body, fromMm: sunk(body, settings), draft: (body.draftDegrees * Math.PI) / 180, top: edgeOf(body.top), bottom: edgeOf(body.bottom) }; // biome-ignore format: one line
    const prism = prismOf(outline, asked, settings.chordMm);
    if (!prism) {
      notes.push({ ...say.solid.noBody(piece.name), pieceId: piece.id, isFailure: true });
      return;
    }
    for (const [edge, sizeMm] of [[body.top, prism.topMm], [body.bottom, prism.bottomMm]] as const)
      if (edge.kind !== 'sharp' && sizeMm < edge.sizeMm - 0.005) notes.push({ ...say.solid.edgesMadeSmaller(piece.name, { mm: edge.sizeMm }, { mm: sizeMm }), pieceId: piece.id, isFailure: false }); // biome-ignore format: one line
    bodies.push({ solid: solidOf(prism.mesh), how: body.how, name: piece.name });
  };
  const turned = new Map(settings.turned.map(({ pieceId, degrees }) => [pieceId, degrees]));
  for (const [k, piece] of outlines.entries()) {
    if (turned.has(piece.id))
      bodies.push({ solid: turnedOn(piece, turned.get(piece.id) as number, settings), how: 'apart', name: piece.name });
    else if (piece.outer.closed) add(piece, piece, ruleOf(piece, settings));
    yield (0.7 * (k + 1)) / outlines.length;
  }
  const lines = outlines.filter(({ outer }) => !outer.closed);
  if (settings.lines && lines[0]) {
    const band = { ...settings.body, ...settings.lines, draftDegrees: 0, top: plainEdge, bottom: plainEdge };
    for (const outline of bandsAlong(lines.map(({ outer }) => outer), settings.lines.widthMm, bandShare * settings.chordMm)) add(lines[0], outline, band); // biome-ignore format: one line
  }
  for (const sphere of settings.spheres) {
    const piece = pieces.find(({ id }) => id === sphere.pieceId);
    if (!piece) notes.push({ ...say.solid.sphereGone(), pieceId: '', isFailure: false });
    else bodies.push({ ...sphereOn(piece, sphere, settings), name: piece.name });
  }
  const base = settings.base && baseUnder(outlines.map(({ outer }) => pathBox(outer)), settings.base); // biome-ignore format: one line
  if (base) {
    add({ id: '', name: '' }, base.outline, { fromMm: -base.thicknessMm, toMm: 0, draftDegrees: 0, top: plainEdge, bottom: plainEdge, how: 'join' }); // biome-ignore format: one line
    if (base.isHoleLeftOut) notes.push({ ...say.solid.noHangingHole(), pieceId: '', isFailure: false });
  }
  const parts = partsOf(bodies);
  yield 0.9;
  const sizes = parts.map(({ mesh }) => sizeOf(mesh));
  if (parts.length === 0 || !(sizes.reduce((sum, { volumeMm3 }) => sum + volumeMm3, 0) > 0)) throw new SaidError(say.solid.nothingLeft());
  const corner = (key: 'min' | 'max', pick: (...values: number[]) => number): [number, number, number] => [0, 1, 2].map((axis) => pick(...sizes.map((size) => size[key][axis] as number))) as [number, number, number]; // biome-ignore format: one line
  const volumeMm3 = sizes.reduce((sum, size) => sum + size.volumeMm3, 0);
  const [min, max] = [corner('min', Math.min), corner('max', Math.max)];
  return {
    parts,
    min,
    max,
    volumeMm3,
    massG: (volumeMm3 / 1000) * settings.density,
    filamentM: volumeMm3 / ((Math.PI / 4) * settings.filamentMm ** 2) / 1000,
    seconds: volumeMm3 / settings.flowMm3PerS,
    layers: Math.ceil((max[2] - min[2]) / settings.layerMm - 1e-9),
    notes,
  };
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
  // biome-ignore format: one line
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

function partsOf(bodies: readonly Body[]): SolidPart[] {
  const of = (how: BodySetting['how']): Body[] => bodies.filter((body) => body.how === how);
  const parts: SolidPart[] = [];
  const joined = of('join');
  const put = (name: string, solid: Solid): void => {
    const mesh = meshOfSolid(solid);
    solid.delete();
    if (mesh.triangles.length > 0) parts.push({ name, mesh });
  };
  const cut = of('cut');
  if (joined.length > 0)
    put(joined[0]?.name ?? '', joinedLess(joined.map(({ solid }) => solid), cut.map(({ solid }) => solid))); // biome-ignore format: one line
  else for (const { solid } of cut) solid.delete();
  for (const { solid, name } of of('apart')) put(name, solid);
  return parts;
}
