/**
 * In: a picture's size, its resolution if known, and the marks on it. Out: the true-up fit: the map from the
 * picture's pixels to the sheet in mm, with the residual at every mark and how far it can be relied on.
 * Rests on: weighted least squares over a ladder of models (ladder.ts), placed on the sheet (placing.ts).
 */

import { type Message, SaidError, say } from '../messages/index.ts';
import type { Box } from '../plane/box.ts';
import { distance, type Point } from '../plane/point.ts';
import { type FourPoints, isSpread, type Projection } from '../plane/projection.ts';
import type { Transform } from '../plane/transform.ts';
import { claimsOf } from './claims.ts';
import { cornersInTurn } from './frame.ts';
import { chosen, climbed } from './ladder.ts';
import { type LeftOver, leftOverAt } from './left-overs.ts';
import { type MarkKind, markShapes, type PictureSize, type Placing, plainPlacing, type ShapeModel, type TrueUpMark } from './marks.ts';
import { placedOnSheet } from './placing.ts';
import { expectation, pullsOf, type Suspect, suspectsOf } from './reliance.ts';
import { type Normal, normalOf, pixelProjection, type ShapeValues } from './shape.ts';
import { findSlips, type Slip } from './slips.ts';
import { isDirection, isSizing, platePlaces } from './strain.ts';

const mmPerInch = 25.4;
/** Shown at this scale until the true one is known: one pixel of a 96 dpi screen. */
const provisionalDpi = 96;

/** Where the scale comes from, and how rich the fit is. */
export type TrueUpModel = 'unsized' | 'resolution' | ShapeModel;

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
  /** Frames whose corners were given crosswise, by their marks: they were taken in turn. */
  readonly crossedFrames: readonly string[];
  /** The picture's box on the sheet. */
  readonly sheetBox: Box;
  readonly sheetWidthMm: number;
  readonly sheetHeightMm: number;
}

export class TrueUpError extends SaidError {
  constructor(
    readonly code: 'marks-coincide' | 'in-one-line',
    message: Message,
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
export function fitTrueUp(size: PictureSize, given: readonly TrueUpMark[], dpi: number | null, wish: FitWish = {}): TrueUpFit {
  for (const mark of given) refuseUseless(mark);
  const marks = given.map((mark) => (mark.kind === 'frame' ? cornersInTurn(mark) : mark));
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
    crossedFrames: marks.filter((mark, k) => mark !== given[k]).map(({ id }) => id),
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
    throw new TrueUpError('marks-coincide', isPair ? say.trueUp.endsCoincide() : say.trueUp.pointsCoincide(), id);
  }
  if (kind === 'frame' && !isSpread(points as unknown as FourPoints)) {
    throw new TrueUpError('in-one-line', say.trueUp.frameInOneLine(), id);
  }
  if ((kind === 'circle' || kind === 'check-radius') && !hasBend(points)) {
    throw new TrueUpError('in-one-line', say.trueUp.rimInOneLine(), id);
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
  const scales = marks.flatMap((m) => claimsOf(m, m.points).map(({ stated, measured }) => stated / measured));
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

/** The largest left-over of any mark that pulls, mm; 0 where there are none. */
export function worstLeftOver(fit: TrueUpFit): number {
  return fit.leftOvers.reduce((worst, l) => (l.isSetAside ? worst : Math.max(worst, Math.abs(l.offMm))), 0);
}
