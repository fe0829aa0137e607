/**
 * In: a picture's size, its resolution if known, and the marks on it. Out: the true-up fit: the map from the
 * picture's pixels to the sheet in mm, with what is left over at every mark and how far it can be relied on.
 * Rests on: weighted least squares over a ladder of models; a richer model is recommended where an F-test says that
 * it explains more than chance would (Snedecor & Cochran 1989), the noise being what marks placed by hand have and
 * what is left over shows, together.
 */
import { type Box, boxAround } from '../plane/box.ts';
import { distance, type Point } from '../plane/point.ts';
import {
  affineAt,
  asProjection,
  chainProjections,
  depthAt,
  type FourPoints,
  inverseProjection,
  isSpread,
  type Projection,
  project,
  projectionOfFour,
} from '../plane/projection.ts';
import { chain, shift, stretch, type Transform, turn as turnBy } from '../plane/transform.ts';
import { chanceOfF } from './f-test.ts';
import { type LeftOver, leftOverAt } from './left-overs.ts';
import {
  handNoisePx,
  type MarkKind,
  markShapes,
  type PictureSize,
  type Placing,
  plainPlacing,
  type ShapeModel,
  shapeModels,
  type TrueUpMark,
} from './marks.ts';
import { type Normal, normalOf, normalProjection, pixelProjection, type ShapeValues, shapeOf, sizeOf } from './shape.ts';
import { findSlips, measuredOf, type Slip } from './slips.ts';
import { type Problem, type Solution, solveShape } from './solve.ts';
import { isDirection, isPlate, isSizing, platePlaces } from './strain.ts';

const mmPerInch = 25.4;
/** Shown at this scale until the true one is known: one pixel of a 96 dpi screen. */
const provisionalDpi = 96;
/** The noise known beforehand counts as so many residuals. */
const priorWeight = 4;
/** A richer model must explain what chance would in fewer cases than this. */
const significance = 0.01;
/** A left-over this unlikely by chance is named. */
const suspicion = 0.005;
/** What a model's extra parameters must be known to, for hand-placed marks, before it is offered. */
const carriedTo = 0.03;
/** Beyond this a stretch or shear is a wrong mark rather than a wrong scanner. */
const mostStretch = 0.15;
/** What lies more than twice as far from the camera as the marks is left out: it is too coarse to be of use. */
const leastDepth = 0.5;

/** Where the scale comes from, and how rich the fit is. */
export type TrueUpModel = 'unsized' | 'resolution' | ShapeModel;

export interface Suspect {
  readonly id: string;
  /** How unlikely so large a left-over is by chance. */
  readonly chance: number;
}

export interface TrueUpFit {
  readonly model: TrueUpModel;
  /** The models that the marks can carry, plainest first. */
  readonly carried: readonly ShapeModel[];
  readonly recommended: ShapeModel | null;
  /** Why that one, in words. */
  readonly reason: string;
  /** Pixels to mm. Under perspective: what touches it in the picture's middle; `projection` is exact always. */
  readonly toSheet: Transform;
  readonly projection: Projection;
  /** In the picture's middle, and along its own two axes. */
  readonly mmPerPx: number;
  readonly mmPerPxAlong: { readonly x: number; readonly y: number };
  /** Radians counter-clockwise, quarter turns left out. */
  readonly turn: number;
  readonly leftOvers: readonly LeftOver[];
  /** One deviation of the marks' noise, pixels, as found; null where nothing is left to tell. */
  readonly noisePx: number | null;
  /** Two standard errors of a length across the picture's middle; null where no mark decides the scale. */
  readonly expect: { readonly overMm: number; readonly plusMinusMm: number } | null;
  /** Standard error of the scale, as a share of it; 0 where no mark decides it. */
  readonly scaleError: number;
  readonly slips: readonly Slip[];
  readonly suspects: readonly Suspect[];
  /** The picture's box on the sheet. */
  readonly sheetBox: Box;
  readonly sheetWidthMm: number;
  readonly sheetHeightMm: number;
}

export class TrueUpError extends Error {
  constructor(
    readonly code: 'marks-coincide' | 'in-one-line',
    message: string,
    readonly markId: string,
  ) {
    super(message);
  }
}

export interface FitWish {
  /** The model to use wherever the marks carry it. */
  readonly pinned?: ShapeModel | null;
  readonly placing?: Placing;
  /** The noise of the marks where it is known, pixels: one deviation along each axis. */
  readonly noisePx?: number;
}

/**
 * Fits the picture to its marks. Marks decide the scale where one states a size, else the resolution does.
 * @param dpi pixels per inch as the file or the person states it, or null
 * @throws TrueUpError where a mark's points coincide, or lie in one line where they must not
 */
export function fitTrueUp(size: PictureSize, marks: readonly TrueUpMark[], dpi: number | null, wish: FitWish = {}): TrueUpFit {
  for (const mark of marks) refuseUseless(mark);
  const placing = wish.placing ?? plainPlacing;
  const slips = findSlips(marks, dpi);
  const setAside = new Set(slips.map((s) => s.id));
  // What must be level after an odd quarter turn must be plumb before it.
  const pulling = marks.filter((m) => !setAside.has(m.id)).map((m) => (placing.quarterTurns % 2 === 1 ? swapped(m) : m));
  const normal = normalOf(
    pulling.flatMap((m) => m.points),
    size,
  );
  const scaleIsFree = pulling.some(isSizing);
  const start = startOf(pulling, normal, dpi ?? provisionalDpi);
  const rungs = climbed(pulling, normal, start, scaleIsFree);
  const choice = chosen(rungs, wish.pinned ?? null, wish.noisePx);
  const rung = choice.rung;
  const flat = rung ? pixelProjection(rung.solution.values, normal) : pixelProjection(start, normal);
  const placed = placedOnSheet(size, flat, placing);
  const pulls = pullsOf(pulling, rung?.solution);
  const values = rung?.solution.values ?? start;
  return {
    model: scaleIsFree && rung ? rung.model : dpi ? 'resolution' : 'unsized',
    carried: scaleIsFree ? rungs.map((r) => r.model) : [],
    recommended: scaleIsFree ? choice.recommended : null,
    reason: scaleIsFree ? choice.reason : '',
    ...placed,
    turn: values[1],
    leftOvers: marks.map((m) => leftOverAt(m, placed.projection, pulls.get(m.id) ?? 0, setAside.has(m.id))),
    noisePx: rung && rung.solution.freedom > 0 ? Math.sqrt(rung.variance) : null,
    expect: rung && scaleIsFree ? expectation(rung, normal, placed.sheetBox, size) : null,
    scaleError: rung && scaleIsFree ? Math.sqrt(rung.solution.covariance.get(0, 0) * rung.variance) : 0,
    slips,
    suspects: rung ? suspectsOf(pulling, rung, pulls) : [],
  };
}

/**
 * Refuses a mark that no fit can use, whatever is stated of it.
 * @throws TrueUpError
 */
export function refuseUseless({ id, kind, points }: Pick<TrueUpMark, 'id' | 'points'> & { readonly kind: MarkKind }): void {
  const { least } = markShapes[kind];
  if (points.length < least) throw new RangeError(`a ${kind} needs ${least} points`);
  const isPair = least === 2;
  const nearest = kind === 'box' ? Infinity : Math.min(...points.flatMap((p, k) => points.slice(k + 1).map((q) => distance(p, q))));
  if (nearest < 0.5) {
    throw new TrueUpError(
      'marks-coincide',
      isPair ? 'The two ends of a mark lie on the same place.' : 'Two points of a mark lie on the same place.',
      id,
    );
  }
  if (kind === 'frame' && !isSpread(points as unknown as FourPoints)) {
    throw new TrueUpError('in-one-line', 'Three corners of the frame lie in one line. Mark the four corners of a rectangle.', id);
  }
  if ((kind === 'circle' || kind === 'check-radius') && !hasBend(points)) {
    throw new TrueUpError('in-one-line', 'The marks on the rim lie in one line. Spread them round the circle.', id);
  }
}

/** Whether points leave their longest chord by more than a thousandth of it. */
function hasBend(points: readonly Point[]): boolean {
  let chord: readonly [Point, Point, number] = [points[0] as Point, points[0] as Point, 0];
  for (const p of points) for (const q of points) if (distance(p, q) > chord[2]) chord = [p, q, distance(p, q)];
  const [a, b, length] = chord;
  return points.some((p) => Math.abs((b.x - a.x) * (p.y - a.y) - (b.y - a.y) * (p.x - a.x)) > 1e-3 * length * length);
}

const swapped = (mark: TrueUpMark): TrueUpMark =>
  mark.kind === 'level' ? { ...mark, kind: 'plumb' } : mark.kind === 'plumb' ? { ...mark, kind: 'level' } : mark;

/** Scale from the median of what each mark states, turn from the mean of the doubled angles of its lines. */
function startOf(marks: readonly TrueUpMark[], normal: Normal, dpi: number): ShapeValues {
  const scales = marks
    .filter((m) => isSizing(m) && m.kind !== 'scale-card')
    .flatMap((m) =>
      measuredOf(m, m.points).map((px, k) => ((m.stated[k] as number) + (m.kind === 'clearance' ? (m.stated[1] as number) : 0)) / px),
    );
  for (const card of marks.filter((m) => m.kind === 'scale-card')) {
    const [p, q, r, s] = [card.points[0], card.points[2], platePlaces(card)[0], platePlaces(card)[2]] as [Point, Point, Point, Point];
    scales.push(distance(r, s) / distance(p, q));
  }
  scales.sort((a, b) => a - b);
  const mmPerPx = scales[scales.length >> 1] ?? mmPerInch / dpi;
  return [Math.log(mmPerPx * normal.unitPx), turnFrom(marks), 0, 0, 0, 0];
}

/** The least turn that brings the lines to their directions together, over -90 to 90 degrees (Mardia & Jupp 2000, axial data). */
function turnFrom(marks: readonly TrueUpMark[]): number {
  let [sines, cosines] = [0, 0];
  for (const { kind, points } of marks.filter(isDirection)) {
    const [a, b] = points as [Point, Point];
    const angle = Math.atan2(a.y - b.y, b.x - a.x) - (kind === 'plumb' ? Math.PI / 2 : 0);
    const weight = distance(a, b) ** 2;
    sines += weight * Math.sin(2 * angle);
    cosines += weight * Math.cos(2 * angle);
  }
  return sines === 0 && cosines === 0 ? 0 : -Math.atan2(sines, cosines) / 2;
}

interface Rung {
  readonly model: ShapeModel;
  readonly solution: Solution;
  /** Square of one deviation of the marks' noise, square pixels. */
  readonly variance: number;
}

/** The models that the marks carry, plainest first. The plainest is always among them where anything is free. */
function climbed(marks: readonly TrueUpMark[], normal: Normal, start: ShapeValues, scaleIsFree: boolean): Rung[] {
  const hasDirections = marks.some(isDirection);
  const plates = marks.filter(isPlate);
  const turnIsFree = hasDirections || plates.length > 0;
  if (!turnIsFree && !scaleIsFree) return [];
  // Without a level or plumb line the first plate lies square on the sheet; the others may lie as they do.
  const turning = new Set((hasDirections ? plates : plates.slice(1)).map((m) => m.id));
  const problem = { marks, normal, scaleIsFree, turnIsFree, turning };
  const rungs: Rung[] = [];
  let from = startTurned(marks, normal, start, hasDirections);
  for (const model of scaleIsFree ? shapeModels : (['uniform'] as const)) {
    const plate = model === 'perspective' ? plates[0] : undefined;
    const best = (plate && fromPlate(plate, problem, normal)) ?? solveShape({ ...problem, model }, from);
    if (!best || (model !== 'uniform' && !isCarried(model, best, marks, normal))) continue;
    rungs.push({ model, solution: best, variance: varianceOf(best) });
    from = best.values;
  }
  return rungs;
}

/** A plate that squares the sheet turns it by less than an eighth, to where its sides lie. */
function startTurned(marks: readonly TrueUpMark[], normal: Normal, start: ShapeValues, hasDirections: boolean): ShapeValues {
  const plate = marks.find(isPlate);
  if (!plate || hasDirections) return start;
  const places = platePlaces(plate);
  const placed = plate.points.map((p) => project(pixelProjection(start, normal), p));
  const [f0, f1, t0, t1] = [places[0], places[1], placed[0], placed[1]] as [Point, Point, Point, Point];
  const raw = Math.atan2(t1.y - t0.y, t1.x - t0.x) - Math.atan2(f1.y - f0.y, f1.x - f0.x);
  const quarter = Math.PI / 2;
  return [start[0], -(raw - quarter * Math.round(raw / quarter)), start[2], start[3], start[4], start[5]];
}

/** Perspective started from the closed form of a plate's first four points. */
function fromPlate(plate: TrueUpMark, problem: Omit<Problem, 'model'>, normal: Normal): Solution | null {
  const toNormal = normalProjection(normal);
  const four = (plate.points.length === 4 ? [0, 1, 2, 3] : [0, 5, 10, 15]).map((k) => k % plate.points.length);
  const places = platePlaces(plate);
  const from = four.map((k) => project(toNormal, plate.points[k] as Point)) as unknown as FourPoints;
  const square = Math.round(turnOfPlate(plate) / (Math.PI / 2)) * (Math.PI / 2);
  const [c, s] = [Math.cos(square), Math.sin(square)];
  const to = four.map((k) => {
    const { x, y } = places[k] as Point;
    return { x: c * x - s * y, y: s * x + c * y };
  }) as unknown as FourPoints;
  const closed = projectionOfFour(from, to);
  const values = closed && shapeOf(closed);
  return values ? solveShape({ ...problem, model: 'perspective' }, values) : null;
}

/** How a plate's first side lies in the picture, radians, y up, less how it lies on the plate. */
function turnOfPlate(plate: TrueUpMark): number {
  const places = platePlaces(plate);
  const [p, q, f, t] = [plate.points[0], plate.points[1], places[0], places[1]] as [Point, Point, Point, Point];
  return Math.atan2(p.y - q.y, q.x - p.x) - Math.atan2(t.y - f.y, t.x - f.x);
}

function isCarried(model: ShapeModel, { values, covariance }: Solution, marks: readonly TrueUpMark[], normal: Normal): boolean {
  for (let k = 2; k < sizeOf[model]; k++) if (Math.sqrt(covariance.get(k, k)) * handNoisePx > carriedTo) return false;
  if (Math.abs(values[2]) > (model === 'perspective' ? 1.2 : mostStretch)) return false;
  if (model !== 'perspective') return Math.abs(values[3]) < 2 * mostStretch;
  const flat = pixelProjection(values, normal);
  return marks.every((m) => m.points.every((p) => depthAt(flat, p) > 0.1));
}

const varianceOf = ({ squares, freedom }: Solution): number => (priorWeight * handNoisePx ** 2 + squares) / (priorWeight + freedom);

const modelWords: Record<ShapeModel, string> = {
  uniform: 'One scale and a turn',
  stretch: 'Two scales, along and across the picture,',
  affine: 'Two scales and a slant',
  perspective: 'Perspective',
};

function chosen(rungs: readonly Rung[], pinned: ShapeModel | null, noisePx: number | undefined) {
  if (rungs.length === 0) return { rung: null, recommended: null, reason: '' };
  let at = 0;
  let reason = `${modelWords[(rungs[0] as Rung).model]} explains the marks: a richer model would not fit them better than chance.`;
  if (rungs.length === 1) reason = 'The marks can carry one scale and a turn, and no more.';
  for (let k = 1; k < rungs.length; k++) {
    const [plain, rich] = [rungs[at] as Rung, rungs[k] as Rung];
    const extra = sizeOf[rich.model] - sizeOf[plain.model];
    const variance = noisePx ? noisePx ** 2 : rich.variance;
    const f = Math.max(0, plain.solution.squares - rich.solution.squares) / extra / variance;
    const chance = chanceOfF(f, extra, noisePx ? 1e6 : priorWeight + rich.solution.freedom);
    if (chance >= significance) continue;
    const off = (r: Rung) => Math.sqrt(r.solution.squares / Math.max(1, r.solution.residuals.flat().length));
    reason = `${modelWords[rich.model]} explains the marks far better: ${off(plain).toFixed(1)} pixels were left over with the plainer model, ${off(rich).toFixed(1)} with this one (F ${f > 999 ? 'over 1000' : `= ${f.toFixed(1)}`}, by chance in ${chance < 0.001 ? 'less than 1 of 1000' : `${(1000 * chance).toFixed(0)} of 1000`} cases).`;
    at = k;
  }
  const recommended = (rungs[at] as Rung).model;
  const rung = rungs.find((r) => r.model === pinned) ?? (rungs[at] as Rung);
  return { rung: noisePx ? { ...rung, variance: noisePx ** 2 } : rung, recommended, reason };
}

/** Each mark's share of what all tell of scale, turn and shape. */
function pullsOf(marks: readonly TrueUpMark[], solution: Solution | undefined): Map<string, number> {
  if (!solution) return new Map();
  const { freeIndices: free, covariance } = solution;
  const perMark = solution.informationPerMark();
  return new Map(
    marks.map((m, k) => {
      const information = perMark[k] as (typeof perMark)[0];
      let trace = 0;
      for (const [a, i] of free.entries()) for (const [b, j] of free.entries()) trace += covariance.get(i, j) * information.get(b, a);
      return [m.id, free.length > 0 ? trace / free.length : 0];
    }),
  );
}

/** Marks whose left-over is larger than chance allows, by what would be left over without them. */
function suspectsOf(marks: readonly TrueUpMark[], { solution, variance }: Rung, pulls: ReadonlyMap<string, number>): Suspect[] {
  const { freedom, freeIndices } = solution;
  const scores = marks.map((m, k) => {
    const residuals = solution.residuals[k] as readonly number[];
    const own = residuals.reduce((s, r) => s + r * r, 0);
    const lever = Math.min(0.95, ((pulls.get(m.id) ?? 0) * freeIndices.length) / residuals.length);
    return { id: m.id, rows: residuals.length, gain: own / (1 - lever) };
  });
  const worst = scores.toSorted((a, b) => b.gain - a.gain)[0];
  if (!worst || freedom < worst.rows) return [];
  const total = variance * (priorWeight + freedom);
  const others = Math.max(priorWeight * handNoisePx ** 2, total - worst.gain) / (priorWeight + freedom - worst.rows);
  const chance = Math.min(1, marks.length * chanceOfF(worst.gain / worst.rows / others, worst.rows, priorWeight + freedom - worst.rows));
  if (chance > suspicion) return [];
  // Two that only contradict each other are both named.
  return scores.filter((s) => s.gain > 0.8 * worst.gain).map((s) => ({ id: s.id, chance }));
}

function placedOnSheet(size: PictureSize, flat: Projection, { quarterTurns, flipped, datum, place }: Placing) {
  const turned = chain(stretch(flipped ? -1 : 1, 1), turnBy((quarterTurns * Math.PI) / 2));
  // Exact quarter turns, free of the rounding of cos(pi/2).
  const exact: Transform = {
    ...turned,
    a: Math.round(turned.a),
    b: Math.round(turned.b),
    c: Math.round(turned.c),
    d: Math.round(turned.d),
  };
  const upright = chainProjections(asProjection(exact), flat);
  const seen = seenPart(size, upright);
  const box = boxAround(seen.map((p) => project(upright, p))) as Box;
  const home = datum ? project(upright, datum) : { x: box.minX, y: box.minY };
  const [dx, dy] = [place.x - home.x, place.y - home.y];
  const projection = chainProjections(asProjection(shift(dx, dy)), upright);
  const middle = { x: size.widthPx / 2, y: size.heightPx / 2 };
  const isAffine = projection.g === 0 && projection.h === 0;
  const toSheet = isAffine
    ? affineOf(projection)
    : affineAt(projection, depthAt(projection, middle) > leastDepth ? middle : centreOfPoints(seen));
  return {
    projection,
    toSheet,
    mmPerPx: Math.sqrt(Math.abs(toSheet.a * toSheet.d - toSheet.b * toSheet.c)),
    mmPerPxAlong: { x: Math.hypot(toSheet.a, toSheet.b), y: Math.hypot(toSheet.c, toSheet.d) },
    sheetBox: { minX: box.minX + dx, minY: box.minY + dy, maxX: box.maxX + dx, maxY: box.maxY + dy },
    sheetWidthMm: box.maxX - box.minX,
    sheetHeightMm: box.maxY - box.minY,
  };
}

function affineOf({ a, b, c, d, e, f, i }: Projection): Transform {
  return { a: a / i, b: b / i, c: c / i, d: d / i, e: e / i, f: f / i };
}

function centreOfPoints(points: readonly Point[]): Point {
  return { x: points.reduce((s, p) => s + p.x, 0) / points.length, y: points.reduce((s, p) => s + p.y, 0) / points.length };
}

/** The picture's rectangle, cut off where it is too far away to be of use. */
export function seenPart({ widthPx, heightPx }: PictureSize, p: Projection): Point[] {
  const corners = [
    { x: 0, y: 0 },
    { x: widthPx, y: 0 },
    { x: widthPx, y: heightPx },
    { x: 0, y: heightPx },
  ];
  return corners.flatMap((from, k) => {
    const to = corners[(k + 1) % 4] as Point;
    const [near, far] = [depthAt(p, from) - leastDepth, depthAt(p, to) - leastDepth];
    const cut = near / (near - far);
    const crossing = near > 0 !== far > 0 ? [{ x: from.x + (to.x - from.x) * cut, y: from.y + (to.y - from.y) * cut }] : [];
    return near > 0 ? [from, ...crossing] : crossing;
  });
}

/** Two standard errors of a length through the picture's middle, the worse of level and plumb. */
function expectation({ solution, variance }: Rung, normal: Normal, box: Box, size: PictureSize) {
  const extent = Math.max(box.maxX - box.minX, box.maxY - box.minY);
  const decade = 10 ** Math.floor(Math.log10(extent));
  const overMm = decade * ([5, 2, 1].find((k) => k * decade <= extent) ?? 1);
  const flat = pixelProjection(solution.values, normal);
  const back = inverseProjection(flat);
  const middle = project(flat, { x: size.widthPx / 2, y: size.heightPx / 2 });
  const errors = [
    { x: overMm / 2, y: 0 },
    { x: 0, y: overMm / 2 },
  ].map(({ x, y }) => {
    const ends = [project(back, { x: middle.x - x, y: middle.y - y }), project(back, { x: middle.x + x, y: middle.y + y })] as const;
    const lengthAt = (k: number, by: number) => {
      const moved = pixelProjection(solution.values.map((v, j) => (j === k ? v + by : v)) as unknown as ShapeValues, normal);
      return distance(project(moved, ends[0]), project(moved, ends[1]));
    };
    const slopes = [0, 1, 2, 3, 4, 5].map((k) => (lengthAt(k, 1e-6) - lengthAt(k, -1e-6)) / 2e-6);
    let sum = 0;
    for (const [i, s] of slopes.entries()) for (const [j, t] of slopes.entries()) sum += s * t * solution.covariance.get(i, j);
    return Math.sqrt(Math.max(0, sum) * variance);
  });
  return { overMm, plusMinusMm: 2 * Math.max(...errors) };
}

/** The largest left-over of any mark that pulls, mm; 0 where there are none. */
export function worstLeftOver(fit: TrueUpFit): number {
  return fit.leftOvers.reduce((worst, l) => (l.isSetAside ? worst : Math.max(worst, Math.abs(l.offMm))), 0);
}
