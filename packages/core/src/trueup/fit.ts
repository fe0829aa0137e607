/**
 * In: a picture's size, its resolution if known, and the marks on it. Out: the true-up fit: the map from the
 * picture's pixels to the sheet in mm, with the residual at every mark and how far it can be relied on.
 * Rests on: weighted least squares over nested models (model-selection.ts), placed on the sheet (sheet-pose.ts).
 */

import { type Message, SaidError, say } from '../messages/index.ts';
import type { Box } from '../plane/box.ts';
import { distance, type Point } from '../plane/point.ts';
import type { Projection } from '../plane/projection.ts';
import type { Transform } from '../plane/transform.ts';
import { cornersInTurn } from './frame.ts';
import {
  impliedLengthsOf,
  isDirection,
  isSizing,
  isTemplate,
  type MarkKind,
  markKinds,
  type TrueUpMark,
  templatePoints,
} from './mark-kinds.ts';
import { type PictureSize, type Placing, plainPlacing, type ShapeModel } from './marks.ts';
import { type ModelParameters, type Normalization, normalizationOf, pixelProjection } from './model.ts';
import { fittedCandidates, selectModel } from './model-selection.ts';
import { type Residual, residualAt } from './residual-report.ts';
import { sheetPose } from './sheet-pose.ts';
import { expectation, leverageOf, type Outlier, outliersOf, propagated } from './uncertainty.ts';
import { findUnitMistakes, type UnitMistake } from './unit-mistakes.ts';

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
  readonly residuals: readonly Residual[];
  /** One deviation of the marks' noise, pixels, as found; null where nothing is left to tell. */
  readonly noisePx: number | null;
  /** Two standard errors of a length across the picture's middle; null where no mark decides the scale. */
  readonly expect: { readonly overMm: number; readonly plusMinusMm: number } | null;
  /** Standard error of the scale, as a share of it; 0 where no mark decides it. */
  readonly scaleError: number;
  readonly unitMistakes: readonly UnitMistake[];
  readonly outliers: readonly Outlier[];
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

export interface FitOptions {
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
export function fitTrueUp(size: PictureSize, given: readonly TrueUpMark[], dpi: number | null, options: FitOptions = {}): TrueUpFit {
  const placing = options.placing ?? plainPlacing;
  const { marks, pulling, normal, start, scaleIsFree, candidates, choice, unitMistakes } = chosen(size, given, dpi, options);
  const setAside = new Set(unitMistakes.map((s) => s.id));
  const candidate = choice.candidate;
  const flat = candidate ? pixelProjection(candidate.solution.values, normal) : pixelProjection(start, normal);
  const placed = sheetPose(size, flat, placing);
  const leverages = leverageOf(pulling, candidate?.solution);
  const values = candidate?.solution.values ?? start;
  return {
    model: scaleIsFree && candidate ? candidate.model : dpi ? 'resolution' : 'unsized',
    carried: scaleIsFree ? candidates.map((r) => r.model) : [],
    recommended: scaleIsFree ? choice.recommended : null,
    reason: scaleIsFree ? choice.reason : '',
    ...placed,
    turn: values[1],
    residuals: marks.map((m) => residualAt(m, placed.projection, leverages.get(m.id) ?? 0, setAside.has(m.id))),
    noisePx: candidate && candidate.solution.freedom > 0 ? Math.sqrt(candidate.variance) : null,
    expect: candidate && scaleIsFree ? expectation(candidate, normal, placed.sheetBox, size) : null,
    scaleError: candidate && scaleIsFree ? Math.sqrt(candidate.solution.covariance.get(0, 0) * candidate.variance) : 0,
    unitMistakes,
    outliers: candidate ? outliersOf(pulling, candidate, leverages) : [],
    crossedFrames: marks.filter((mark, k) => mark !== given[k]).map(({ id }) => id),
  };
}

/** The marks that pull, and the model that they choose. */
function chosen(
  size: PictureSize,
  given: readonly TrueUpMark[],
  dpi: number | null,
  { placing = plainPlacing, pinned, noisePx }: FitOptions,
) {
  for (const mark of given) refuseUseless(mark);
  const marks = given.map((mark) => (mark.kind === 'frame' ? cornersInTurn(mark) : mark));
  const unitMistakes = findUnitMistakes(marks, dpi);
  const setAside = new Set(unitMistakes.map((s) => s.id));
  // What must be level after an odd quarter turn must be plumb before it.
  const pulling = marks.filter((m) => !setAside.has(m.id)).map((m) => (placing.quarterTurns % 2 === 1 ? swapped(m) : m));
  const normal = normalizationOf(
    pulling.flatMap((m) => m.points),
    size,
  );
  const scaleIsFree = pulling.some(isSizing);
  const start = startOf(pulling, normal, dpi ?? provisionalDpi);
  const candidates = fittedCandidates(pulling, normal, start, scaleIsFree);
  return { marks, pulling, normal, start, scaleIsFree, candidates, choice: selectModel(candidates, pinned ?? null, noisePx), unitMistakes };
}

/**
 * One standard error of what is measured on the fit of marks, as their own noise has it; null where no mark decides the fit.
 * @param measure of the map from pixels to mm: something that does not change where the sheet is moved
 */
export function standardErrorOf(
  size: PictureSize,
  given: readonly TrueUpMark[],
  dpi: number | null,
  options: FitOptions,
  measure: (toSheet: Projection) => number,
): number | null {
  const { normal, choice } = chosen(size, given, dpi, options);
  return choice.candidate && propagated(choice.candidate, normal, measure);
}

/**
 * Refuses a mark that no fit can use, whatever is stated of it.
 * @throws TrueUpError
 */
export function refuseUseless({ id, kind, points }: Pick<TrueUpMark, 'id' | 'points'> & { readonly kind: MarkKind }): void {
  const { min, mayCoincide, flaw } = markKinds[kind];
  if (points.length < min) throw new RangeError(`a ${kind} needs ${min} points`);
  const isPair = min === 2;
  const nearest = mayCoincide ? Infinity : Math.min(...points.flatMap((p, k) => points.slice(k + 1).map((q) => distance(p, q))));
  if (nearest < 0.5) {
    throw new TrueUpError('marks-coincide', isPair ? say.trueUp.endsCoincide() : say.trueUp.pointsCoincide(), id);
  }
  const message = flaw?.(points);
  if (message) throw new TrueUpError('in-one-line', message, id);
}

const swapped = (mark: TrueUpMark): TrueUpMark => ({ ...mark, kind: markKinds[mark.kind].quartered ?? mark.kind });

/** Scale from the median of what each mark states, turn from the mean of the doubled angles of its lines. */
function startOf(marks: readonly TrueUpMark[], normal: Normalization, dpi: number): ModelParameters {
  const scales = marks.flatMap((m) => impliedLengthsOf(m, m.points).map(({ stated, measured }) => stated / measured));
  for (const card of marks.filter((m) => isTemplate(m) && impliedLengthsOf(m, m.points).length === 0)) {
    const [p, q, r, s] = [card.points[0], card.points[2], templatePoints(card)[0], templatePoints(card)[2]] as [Point, Point, Point, Point];
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
    const angle = Math.atan2(a.y - b.y, b.x - a.x) - (markKinds[kind].pair === 'run' ? Math.PI / 2 : 0);
    const weight = distance(a, b) ** 2;
    sines += weight * Math.sin(2 * angle);
    cosines += weight * Math.cos(2 * angle);
  }
  return sines === 0 && cosines === 0 ? 0 : -Math.atan2(sines, cosines) / 2;
}

/** The largest residual of any mark that counts, mm; 0 where there are none. */
export function worstResidual(fit: TrueUpFit): number {
  return fit.residuals.reduce((worst, l) => (l.isSetAside ? worst : Math.max(worst, Math.abs(l.offMm))), 0);
}
