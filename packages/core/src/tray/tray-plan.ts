/**
 * In: outlines traced in photographs, how high each object is, and a drawer. Out: the tray: each object's true outline, its pocket where it
 * lies in the drawer, and what is cut out of each sheet.
 */
import type { Stock } from '../job/making.ts';
import type { Piece } from '../job/schema.ts';
import { type PhotographedPieces, type SeenFrom, seenFrom } from '../job/seen-from.ts';
import { type Message, SaidError, say } from '../messages/index.ts';
import { nestedOnSheets } from '../nesting/index.ts';
import { type Box, boxAroundBoxes, centreOf, chain, type Path, type Point, pathBox, polygonOf, rectanglePath, reversedPath, shift, type Transform, transformedPath, turn, } from '../plane/index.ts'; // biome-ignore format: one line
import { combined, distanceTo, windingNumber, withCornersCut } from '../shape/index.ts';
import { asPart } from '../steps.ts';
import { numeral, numeralSize } from './numerals.ts';
import { largestOf, type Pocket, pocketOf } from './pocket.ts';
import type { TrayObject, TraySettings } from './settings.ts';
import { type Area, trueOutline } from './true-outline.ts';

export interface TrayPocket {
  /** From 1, in the order of the job's pieces. */
  readonly number: number;
  readonly pieceId: string;
  readonly name: string;
  readonly heightMm: number;
  readonly edge: TraySettings['edge'];
  /** As traced on the sheet, and the true outline there. */
  readonly seen: Path;
  readonly outline: Area;
  /** By how much the outline was seen too large or to the side at most, mm. */
  readonly movedMm: number;
  /** In the drawer. */
  readonly pocket: Area;
  /** The object itself in the drawer. */
  readonly object: Area;
  readonly at: Point;
  readonly turn: number;
  readonly notchAt: number | null;
  /** Where the finger notch lies, in the drawer. */
  readonly notchMiddle: Point | null;
  readonly depthMm: number;
  /** Where its number stands; null where there is no room beside it. */
  readonly numeral: readonly Path[];
}

export interface TrayLayer {
  /** From the top, 1. */
  readonly number: number;
  readonly thicknessMm: number;
  readonly outer: Path;
  readonly pockets: readonly Path[];
}

export interface TrayPlan {
  readonly pockets: readonly TrayPocket[];
  readonly drawer: Path;
  readonly widthMm: number;
  readonly lengthMm: number;
  readonly layers: readonly TrayLayer[];
  /** Of the first photograph whose camera is known. */
  readonly camera: (SeenFrom & { readonly pictureName: string }) | null;
  readonly notes: readonly TrayNote[];
}
export type TrayNote = Message & { readonly pieceId: string; readonly isFailure: boolean };

/** What a tray drew on the sheet begins its name with this, and is no object in it. */
export const drawnByTray = 'tray-';

/** Of stock whose thickness is not known, mm. */
const plainThicknessMm = 20;
/** A sheet is cut through where at least this share of it is wanted. */
const throughShare = 0.5;
/** Whole sheets come as near to a depth as half of one; what is farther off is told. */
const toldShare = 0.55;
const numeralMm = 6;

/** Yields the share done. @throws SaidError where there is nothing to lay in a tray */
export function* trayPlan(
  pieces: readonly Piece[],
  photographs: readonly PhotographedPieces[],
  settings: TraySettings,
  stock: Pick<Stock, 'thicknessMm'>,
): Generator<number, TrayPlan> {
  const closed = objectsAmong(pieces);
  if (closed.length === 0) throw new SaidError(say.tray.noObjects());
  const notes: TrayNote[] = [];
  const views = photographs.map((one) => ({ ...one, from: seenFrom(one.picture, settings.cameraMm) }));
  const found: Found[] = [];
  for (const [k, piece] of closed.entries()) {
    const own = settings.objects.find(({ pieceId }) => pieceId === piece.id);
    const view = views.find(({ pieceIds }) => pieceIds.includes(piece.id));
    const one = foundObject(piece, own, view ?? null, settings, notes);
    if (one) found.push(one);
    yield (0.7 * (k + 1)) / closed.length;
  }
  for (const { picture, pieceIds } of views.filter(({ from, pieceIds }) => !from && closed.some(({ id }) => pieceIds.includes(id))))
    notes.push({ ...say.tray.noCamera(picture.name), pieceId: closed.find(({ id }) => pieceIds.includes(id))?.id ?? '', isFailure: true });
  const places = yield* asPart(placesOf(found, settings, notes), 0.7, 0.9);
  const placed = found.map((one, k): Placed => ({ ...one, place: places[k] as Transform }));
  const drawer = drawerOf(settings);
  const pockets = numbered(placed.map((one, k) => pocketIn(one, k + 1)), settings); // biome-ignore format: one line
  notes.push(...faultsIn(pockets, settings));
  yield 0.95;
  const { layers, notes: deep } = layersOf(pockets, drawer, settings, stock);
  const known = views.find(({ from }) => from !== null);
  return {
    pockets,
    drawer,
    widthMm: settings.widthMm,
    lengthMm: settings.lengthMm,
    layers,
    camera: known?.from ? { ...known.from, pictureName: known.picture.name } : null,
    notes: [...notes, ...deep],
  };
}

/** Closed outlines that are objects: not the ground that others lie in, nor what a tray drew itself. */
function objectsAmong(pieces: readonly Piece[]): Piece[] {
  const closed = pieces.filter(({ outer, id }) => outer.closed && !id.startsWith(drawnByTray));
  const isGround = (piece: Piece): boolean => piece.holes.some((hole) => closed.some((other) => other !== piece && windingNumber([reversedPath(hole)], other.outer.start) > 0)); // biome-ignore format: one line
  return closed.filter((piece) => !isGround(piece));
}

interface Found {
  readonly piece: Piece;
  readonly own: TrayObject | undefined;
  readonly heightMm: number;
  readonly edge: TraySettings['edge'];
  readonly outline: Area;
  readonly movedMm: number;
  readonly pocket: Pocket;
  readonly notchAt: number | null;
  readonly depthMm: number;
}
interface Placed extends Found {
  readonly place: Transform;
}

/** One object brought to its true size, and its pocket, where it was photographed; null where nothing of it stays. */
function foundObject(
  piece: Piece,
  own: TrayObject | undefined,
  view: (PhotographedPieces & { readonly from: SeenFrom | null }) | null,
  settings: TraySettings,
  notes: TrayNote[],
): Found | null {
  const heightMm = own?.heightMm ?? settings.heightMm;
  const edge = own?.edge ?? settings.edge;
  const seen: Area = { outer: piece.outer, holes: piece.holes };
  const camera = view?.from?.camera;
  const say1 = (message: Message, isFailure = true): void => void notes.push({ ...message, pieceId: piece.id, isFailure });
  let outline: Area | null = seen;
  if (view && camera) {
    const eye = { x: camera.x * view.scale, y: camera.y * view.scale, z: camera.z * view.scale };
    if (heightMm >= 0.9 * eye.z) {
      say1(say.tray.overCamera(piece.name));
      return null;
    }
    outline = largestOf(trueOutline(seen, eye, heightMm, edge));
  }
  const notchAt = own?.notchAt === undefined ? balance : own.notchAt;
  const pocket = outline && pocketOf(outline, { ...settings, notchAt });
  if (!outline || !pocket) {
    say1(say.tray.nothingLeft(piece.name, { mm: heightMm }));
    return null;
  }
  if (pocket.tightMm > 0.02) say1(say.tray.cornersTight(piece.name, { mm: pocket.tightMm }));
  const away = distanceTo([outline.outer]);
  const movedMm = corners(seen.outer).reduce((most, p) => Math.max(most, away(p)), 0);
  return { piece, own, heightMm, edge, outline, movedMm, pocket, notchAt: settings.notchMm > 0 ? notchAt : null, depthMm: own?.depthMm ?? settings.depthShare * heightMm }; // biome-ignore format: one line
}

/** Where a finger notch lies, unless it is moved: at the middle of an object's length. */
const balance = 0.5;
const corners = ({ start, segments }: Path): Point[] => [start, ...segments.map(({ to }) => to)];

/** Where each object goes: from where it was photographed into the drawer. */
function* placesOf(found: readonly Found[], settings: TraySettings, notes: TrayNote[]): Generator<number, Transform[]> {
  const { widthMm, lengthMm, marginMm, wallMm, layout } = settings;
  const around = boxAroundBoxes(found.map(({ pocket }) => pathBox(pocket.area.outer)));
  const home = around && { x: widthMm / 2 - centreOf(around).x, y: lengthMm / 2 - centreOf(around).y };
  const plain = home ? shift(home.x, home.y) : shift(0, 0);
  const places = found.map(({ own, pocket }): Transform | null => (own?.place ? placeAt(pocket.area.outer, own.place.at, own.place.turn) : layout === 'as they lie' ? plain : null)); // biome-ignore format: one line
  const free = found.flatMap((_, k) => (places[k] === null ? [k] : []));
  if (free.length === 0) return places as Transform[];
  // Those that a hand has placed do not make room: the others are laid out as if the drawer were theirs.
  const parts = free.map((k) => ({ outer: (found[k] as Found).pocket.area.outer, holes: [], count: 1 }));
  const quarter = Math.PI / 2;
  const { placed, tooLarge } = yield* nestedOnSheets(parts, { widthMm, heightMm: lengthMm, marginMm, gapMm: wallMm, angles: [0, quarter, 2 * quarter, 3 * quarter] }); // biome-ignore format: one line
  for (const { part, sheet, place } of placed) {
    places[free[part] as number] = chain(shift(sheet * (widthMm + wallMm), 0), place);
    if (sheet > 0) notes.push(noRoom(found[free[part] as number] as Found));
  }
  for (const part of tooLarge) {
    places[free[part] as number] = plain;
    notes.push(noRoom(found[free[part] as number] as Found));
  }
  return places as Transform[];
}

const noRoom = ({ piece }: Found): TrayNote => ({ ...say.tray.noRoom(piece.name), pieceId: piece.id, isFailure: true });

/** Turned about its box's middle, which goes to a place. */
export function placeAt(outline: Path, at: Point, angle: number): Transform {
  const middle = centreOf(pathBox(outline));
  return chain(shift(at.x, at.y), chain(turn(angle), shift(-middle.x, -middle.y)));
}

const moved = ({ outer, holes }: Area, to: Transform): Area => ({ outer: transformedPath(outer, to), holes: holes.map((hole) => transformedPath(hole, to)) }); // biome-ignore format: one line

function pocketIn({ piece, outline, pocket, place, heightMm, edge, movedMm, notchAt, depthMm }: Placed, number: number): TrayPocket {
  const middle = centreOf(pathBox(pocket.area.outer));
  const notch = pocket.notch && centreOf(pathBox(pocket.notch));
  const at = (p: Point): Point => ({ x: place.a * p.x + place.c * p.y + place.e, y: place.b * p.x + place.d * p.y + place.f });
  return {
    number,
    pieceId: piece.id,
    name: piece.name,
    heightMm,
    edge,
    seen: piece.outer,
    outline,
    movedMm,
    pocket: moved(pocket.area, place),
    object: moved(outline, place),
    at: at(middle),
    turn: Math.atan2(place.b, place.a),
    notchAt,
    notchMiddle: notch && at(notch),
    depthMm,
    numeral: [],
  };
}

/** Each with its number beside it, where there is room. */
function numbered(pockets: readonly TrayPocket[], { numbered, widthMm, lengthMm }: TraySettings): TrayPocket[] {
  if (!numbered) return [...pockets];
  const borders = pockets.flatMap(({ pocket }) => [pocket.outer, ...pocket.holes]);
  const away = distanceTo(borders);
  const gap = numeralMm / 3;
  return pockets.map((one) => {
    const { width, height } = numeralSize(one.number, numeralMm);
    const box = pathBox(one.pocket.outer);
    const middle = { x: (box.minX + box.maxX - width) / 2, y: (box.minY + box.maxY - height) / 2 };
    const around = [{ x: middle.x, y: box.maxY + gap }, { x: box.maxX + gap, y: middle.y }, { x: box.minX - gap - width, y: middle.y }, { x: middle.x, y: box.minY - gap - height }]; // biome-ignore format: one line
    // Beside a pocket that lies at a slant the box's own corners are free, too.
    const inside = [{ x: box.minX, y: box.maxY - height }, { x: box.maxX - width, y: box.maxY - height }, { x: box.minX, y: box.minY }, { x: box.maxX - width, y: box.minY }]; // biome-ignore format: one line
    const isFree = ({ x, y }: Point): boolean => {
      if (x < gap || y < gap || x + width > widthMm - gap || y + height > lengthMm - gap) return false;
      const middle = { x: x + width / 2, y: y + height / 2 };
      return away(middle) > Math.hypot(width, height) / 2 + gap / 2 && windingNumber(borders, middle) <= 0;
    };
    const at = [...around, ...inside].find(isFree);
    return { ...one, numeral: at ? numeral(one.number, at, numeralMm) : [] };
  });
}

function drawerOf({ widthMm, lengthMm, cornerMm }: TraySettings): Path {
  const path = rectanglePath({ minX: 0, minY: 0, maxX: widthMm, maxY: lengthMm });
  const radius = Math.min(cornerMm, 0.499 * Math.min(widthMm, lengthMm));
  return withCornersCut(path, [0, 1, 2, 3], radius).path;
}

/** Pockets that reach over the drawer's edge, and those with too thin a wall between them. */
function faultsIn(pockets: readonly TrayPocket[], { widthMm, lengthMm, marginMm, wallMm }: TraySettings): TrayNote[] {
  const slack = 1e-3;
  const boxes = pockets.map(({ pocket }) => pathBox(pocket.outer));
  const over = pockets.flatMap(({ name, pieceId }, k): TrayNote[] => {
    const { minX, minY, maxX, maxY } = boxes[k] as Box;
    const by = Math.max(marginMm - minX, marginMm - minY, maxX - widthMm + marginMm, maxY - lengthMm + marginMm);
    return by > slack ? [{ ...say.tray.overEdge(name, { mm: by }), pieceId, isFailure: true }] : [];
  });
  const thin = pockets.flatMap((one, k) =>
    pockets.slice(0, k).flatMap((other, j): TrayNote[] => {
      const [a, b] = [boxes[k] as Box, boxes[j] as Box];
      if (a.minX > b.maxX + wallMm || b.minX > a.maxX + wallMm || a.minY > b.maxY + wallMm || b.minY > a.maxY + wallMm) return [];
      const wall = wallBetween(one.pocket, other.pocket);
      return wall < wallMm - 0.02 ? [{ ...say.tray.thinWall(other.name, one.name, { mm: wall }), pieceId: one.pieceId, isFailure: wall <= 0 }] : []; // biome-ignore format: one line
    }),
  );
  return [...over, ...thin];
}

/** The least distance between two pockets, mm; 0 where they meet. */
function wallBetween(a: Area, b: Area): number {
  const meets = (p: Area, q: Area): boolean => windingNumber([p.outer, ...p.holes], q.outer.start) > 0;
  if (meets(a, b) || meets(b, a) || combined([a.outer], [b.outer], 'keep-common').length > 0) return 0;
  const away = distanceTo([a.outer, ...a.holes]);
  const places = [b.outer, ...b.holes].flatMap((path) => walked(path));
  return places.reduce((least, p) => Math.min(least, away(p)), Infinity);
}

const walkMm = 0.5;

/** Places along an outline, close together. */
function walked(path: Path): Point[] {
  const all = polygonOf(path, walkMm / 10);
  return all.flatMap((p, k) => {
    const q = all[(k + 1) % all.length] as Point;
    const count = Math.max(1, Math.ceil(Math.hypot(q.x - p.x, q.y - p.y) / walkMm));
    return Array.from({ length: count }, (_, n) => ({ x: p.x + ((q.x - p.x) * n) / count, y: p.y + ((q.y - p.y) * n) / count }));
  });
}

function layersOf(
  pockets: readonly TrayPocket[],
  drawer: Path,
  { layersMm }: TraySettings,
  stock: Pick<Stock, 'thicknessMm'>,
): { layers: TrayLayer[]; notes: TrayNote[] } {
  const sheets = layersMm.length > 0 ? layersMm : [stock.thicknessMm ?? plainThicknessMm];
  let top = 0;
  const cutTo = pockets.map(() => 0);
  const layers = sheets.map((thicknessMm, n): TrayLayer => {
    const through = pockets.flatMap(({ depthMm, pocket }, k) => {
      // The uppermost holds every object in place.
      if (n > 0 && depthMm < top + throughShare * thicknessMm) return [];
      cutTo[k] = top + thicknessMm;
      return [pocket.outer, ...pocket.holes];
    });
    top += thicknessMm;
    return { number: n + 1, thicknessMm, outer: drawer, pockets: through };
  });
  const notes = pockets.flatMap(({ name, pieceId, depthMm }, k): TrayNote[] => {
    const made = cutTo[k] as number;
    return Math.abs(made - depthMm) > toldShare * Math.min(...sheets) ? [{ ...say.tray.otherDepth(name, { mm: made }, { mm: depthMm }), pieceId, isFailure: false }] : []; // biome-ignore format: one line
  });
  return { layers, notes };
}
