/** In: a job's outlines, the settings of its body, and the stock. Out: the body as figures, its slices, and what could not be as it was asked. */
import type { Stock } from '../job/making.ts';
import type { Piece } from '../job/schema.ts';
import { type Message, SaidError, say } from '../messages/index.ts';
import {
  about,
  type Box,
  centreOf,
  distance,
  endOf,
  type Path,
  type Point,
  pathBox,
  transformedPath,
  turn,
  widthOf,
} from '../plane/index.ts';
import { asPart } from '../steps.ts';
import { aroundOutline } from './around-outline.ts';
import { type Body, bodyOf, type KnownSection, volumeOf } from './body.ts';
import { sectionOutline } from './body-section.ts';
import type { Cutout } from './cutouts.ts';
import { profileOfOutline, profileThrough, unevenness } from './section-profile.ts';
import { type FoamSettings, noView } from './settings.ts';
import { type SliceCount, sliceCounts } from './slice-counts.ts';
import { type Board, foamIn, type Slice, slicesOf } from './slices.ts';

export interface FoamPlan {
  readonly lengthMm: number;
  readonly heightMm: number;
  readonly widthMm: number;
  readonly side: Path;
  readonly above: Path | null;
  readonly sideId: string;
  readonly aboveId: string | null;
  readonly frontId: string | null;
  /** Closed outlines that may be views, by their ids, as they are drawn. */
  readonly outlines: readonly { readonly id: string; readonly box: Box }[];
  readonly nose: FoamSettings['nose'];
  /** How far each view was turned back, degrees. */
  readonly sideAxis: number;
  readonly aboveAxis: number;
  readonly slices: readonly Slice[];
  /** What they are cut from: as it was said, else of the stock. */
  readonly boards: readonly Board[];
  /** The fair body: outlines at even stations, each of as many places, to be seen. */
  readonly skin: readonly { readonly atMm: number; readonly places: readonly Point[] }[];
  /** How many slices would leave how much to sand. */
  readonly counts: readonly SliceCount[];
  /** The section where each known one stands, from the nose. */
  readonly sections: readonly { readonly atMm: number; readonly outline: Path }[];
  readonly bodyMm3: number;
  /** In all slices, mm³, and what it weighs, g. */
  readonly foamMm3: number;
  readonly massG: number;
  /** How far aft of the nose the slices' middle lies, mm. */
  readonly middleMm: number;
  readonly largestStepMm: number;
  readonly notes: readonly FoamNote[];
}

export type FoamNote = Message & { readonly pieceId: string; readonly isFailure: boolean };

/** Of stock whose thickness is not known, mm. */
const plainThicknessMm = 50;
/** Views whose lengths differ by more are told, mm. */
const sameLengthMm = 0.5;
/** A view from above that is not named is as long as the side view within this share. */
const alikeShare = 0.15;

/** Yields the share done. @throws SaidError where there is no body, or it cannot be sliced */
export function* foamPlan(
  pieces: readonly Piece[],
  settings: FoamSettings,
  stock: Pick<Stock, 'thicknessMm'>,
): Generator<number, FoamPlan> {
  const views = viewsOf(pieces, settings);
  const sideAxis = axisOf(pieces, settings.sideAxisId) ?? settings.sideAxis;
  const aboveAxis = axisOf(pieces, settings.aboveAxisId) ?? settings.aboveAxis;
  const side = turnedBack(views.side, sideAxis);
  const above = views.above && turnedBack(views.above, aboveAxis);
  const { nose, topExponent, bottomExponent, widestAt, shellMm } = settings;
  const known = knownSections(pieces, settings);
  const { front } = views;
  const body = bodyOf({ side: side.outer, above: above?.outer ?? null, front, nose }, { topExponent, bottomExponent, widestAt }, known);
  const cutouts = cutoutsOf(pieces, settings, side.outer);
  yield 0.1;
  const { volumeMm3 } = volumeOf(body);
  const boards = settings.boards.length > 0 ? settings.boards : [{ thicknessMm: stock.thicknessMm ?? plainThicknessMm, count: null }];
  const slices = yield* asPart(slicesOf(body, { ...settings, boards, cutouts }), 0.2, 1);
  const foam = slices.map(foamIn);
  const foamMm3 = foam.reduce((sum, mm3) => sum + mm3, 0);
  const moment = slices.reduce((sum, { from, to }, k) => sum + ((from + to) / 2) * (foam[k] as number), 0);
  const hollow = slices.filter(({ isHollow }) => isHollow).length;
  const short = slices.filter(({ holes }) => settings.dowels.length > holes.length && shellMm === null).length;
  const missed = slices.filter(({ missedSlots }) => missedSlots > 0).length;
  const outside = known.filter(({ atMm }) => atMm > body.lengthMm).length;
  return {
    lengthMm: body.lengthMm,
    heightMm: body.heightMm,
    widthMm: body.widthMm,
    side: side.outer,
    above: above?.outer ?? null,
    sideId: side.id,
    aboveId: above?.id ?? null,
    frontId: settings.frontId,
    outlines: pieces.flatMap(({ id, outer }) => (outer.closed ? [{ id, box: pathBox(outer) }] : [])),
    nose,
    sideAxis,
    aboveAxis,
    slices,
    boards,
    counts: sliceCounts(body),
    skin: skinOf(body),
    sections: known.flatMap(({ atMm }) => sectionAt(body, atMm)),
    bodyMm3: volumeMm3,
    foamMm3,
    massG: (foamMm3 * settings.density) / 1e6,
    middleMm: foamMm3 > 0 ? moment / foamMm3 : 0,
    largestStepMm: slices.reduce((most, { stepMm }) => Math.max(most, stepMm), 0),
    notes: [
      ...(Math.abs(body.longerMm) > sameLengthMm ? [noteOf(say.foam.viewsDiffer({ mm: Math.abs(body.longerMm) }))] : []),
      ...frontNotes(body, front),
      ...(shellMm !== null && hollow === 0 ? [noteOf(say.foam.allSolid())] : []),
      ...(shellMm !== null && hollow > 0 && hollow < slices.length ? [noteOf(say.foam.shellThick(slices.length - hollow))] : []),
      ...(short > 0 ? [noteOf(say.foam.dowelsOutside(short))] : []),
      ...(missed > 0 ? [noteOf(say.foam.slotsMissed(missed))] : []),
      ...(outside > 0 ? [noteOf(say.foam.stationsOutside(outside))] : []),
    ],
  };
}

/** What the view from the front does not have as the others do. */
function frontNotes({ frontLarger }: Body, front: Path | null): FoamNote[] {
  if (!front || !frontLarger) return [];
  const { wideMm, highMm } = frontLarger;
  const unevenMm = unevenness(front);
  return [
    ...(Math.max(Math.abs(wideMm), Math.abs(highMm)) > sameLengthMm ? [noteOf(say.foam.frontDiffers({ mm: Math.abs(wideMm) }, wideMm < 0, { mm: Math.abs(highMm) }, highMm < 0))] : []),
    ...(unevenMm > sameLengthMm ? [noteOf(say.foam.frontUneven({ mm: unevenMm }))] : []),
  ]; // biome-ignore format: a note a line
}

const skinStations = 48;
const skinPlaces = 64;
const skinChordMm = 0.2;

function skinOf(body: Body): FoamPlan['skin'] {
  return Array.from({ length: skinStations + 1 }, (_, k) => (body.lengthMm * k) / skinStations).flatMap((atMm) => {
    const section = body.section(atMm);
    return section ? [{ atMm, places: placesAround(sectionOutline(section), skinPlaces) }] : [];
  });
}

/** Places evenly along an outline, from where it is farthest right. */
function placesAround(outline: Path, count: number): Point[] {
  const around = aroundOutline(outline, skinChordMm, ({ x }) => x);
  return Array.from({ length: count }, (_, k) => around(k / count).at);
}

function sectionAt(body: Body, atMm: number): { atMm: number; outline: Path }[] {
  const section = body.section(Math.min(atMm, body.lengthMm));
  return section ? [{ atMm, outline: sectionOutline(section) }] : [];
}

/** @throws SaidError where an outline that a section is taken from is gone, or is none */
function knownSections(pieces: readonly Piece[], { sections }: FoamSettings): KnownSection[] {
  return sections.map((one): KnownSection => {
    if (one.kind === 'rule') return { atMm: one.atMm, shape: one };
    if (one.kind === 'drawn') return { atMm: one.atMm, shape: profileThrough(one.points) };
    const piece = pieces.find(({ id }) => id === one.pieceId);
    if (!piece) throw new SaidError(say.foam.noSectionOutline());
    return { atMm: one.atMm, shape: profileOfOutline(piece.outer) };
  });
}

/** @throws SaidError where the outline of an opening is gone */
function cutoutsOf(pieces: readonly Piece[], { cutouts, nose }: FoamSettings, side: Path): Cutout[] {
  const { minX, maxX, minY } = pathBox(side);
  return cutouts.map(({ pieceId, widthMm }): Cutout => {
    const outline = pieces.find(({ id }) => id === pieceId)?.outer;
    if (!outline) throw new SaidError(say.foam.cutoutGone());
    const xAt = (station: number): number => (nose === 'left' ? minX + station : maxX - station);
    return { outline, xAt, footY: minY, widthMm };
  });
}

/** How far a line rises from left to right, degrees; null where there is none. */
function axisOf(pieces: readonly Piece[], id: string | null): number | null {
  const line = pieces.find((piece) => piece.id === id);
  if (!line || line.outer.closed) return null;
  const [p, q] = [line.outer.start, endOf(line.outer)];
  const [left, right] = p.x <= q.x ? [p, q] : [q, p];
  return distance(left, right) > 0 ? (Math.atan2(right.y - left.y, right.x - left.x) * 180) / Math.PI : null;
}

/** A view with its axis level: turned about its box's middle. */
function turnedBack(view: Piece, axisDegrees: number): Piece {
  if (axisDegrees === 0) return view;
  const middle = centreOf(pathBox(view.outer));
  return { ...view, outer: transformedPath(view.outer, about(middle, turn((-axisDegrees * Math.PI) / 180))) };
}

const noteOf = (message: Message): FoamNote => ({ ...message, pieceId: '', isFailure: false });

/** Outlines as long as the longest within this share are told apart by which was drawn first. */
const sameShare = 0.01;

/**
 * The pieces that are named as views; else the longest, and of those about as long the next. There is a view from the front only where one is
 * named. @throws SaidError where there is no side view, or the outline of the front view is gone
 */
function viewsOf(
  pieces: readonly Piece[],
  { sideId, aboveId, frontId, sections, cutouts }: FoamSettings,
): { side: Piece; above: Piece | null; front: Path | null } {
  const length = ({ outer }: Piece): number => widthOf(pathBox(outer));
  const others = new Set([...sections.flatMap((one) => (one.kind === 'outline' ? [one.pieceId] : [])), ...cutouts.map(({ pieceId }) => pieceId), ...(frontId ? [frontId] : [])]); // biome-ignore format: one line
  const closed = pieces.filter(({ outer, id }) => outer.closed && !others.has(id));
  const longest = closed.reduce((most, piece) => Math.max(most, length(piece)), 0);
  const rank = (piece: Piece): number => (length(piece) > (1 - sameShare) * longest ? longest : length(piece));
  const ordered = closed.sort((a, b) => rank(b) - rank(a));
  const side = ordered.find(({ id }) => id === sideId) ?? ordered.find(({ id }) => id !== aboveId);
  if (!side) throw new SaidError(say.foam.noViews());
  const front = frontId === null ? null : pieces.find(({ id }) => id === frontId)?.outer;
  if (front === undefined) throw new SaidError(say.foam.frontGone());
  if (aboveId === noView) return { side, above: null, front };
  const named = ordered.find(({ id }) => id === aboveId);
  const alike = ordered.find((one) => one !== side && Math.abs(length(one) / length(side) - 1) < alikeShare);
  return { side, above: named ?? alike ?? null, front };
}
