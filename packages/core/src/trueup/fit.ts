/**
 * In: a picture's size, its resolution if known, and the marks on it. Out: the true-up fit: the transform from the
 * picture's pixels to the sheet in mm, with what is left over at every mark.
 * Rests on: least squares. Scale: the sum of (k d - L)^2 is least at k = sum(d L) / sum(d^2), every mark being as
 * exact in mm as any other. Turn: the sum of squared rises d^2 sin^2(angle + turn) is least on the mean axis of the
 * doubled angles (Mardia & Jupp 2000, axial data).
 */
import { boxAround } from '../plane/box.ts';
import { distance } from '../plane/point.ts';
import { apply, chain, shift, stretch, type Transform, turn as turnBy } from '../plane/transform.ts';
import type { DirectionLine, KnownLength, PictureSize, TrueUpMark } from './marks.ts';

const mmPerInch = 25.4;
/** Shown at this scale until the true one is known: one pixel of a 96 dpi screen. */
const provisionalDpi = 96;

/** Where the scale comes from. Richer models (stretch, affine, perspective) will be further values. */
export type TrueUpModel = 'unsized' | 'resolution' | 'uniform';

export type LeftOver =
  | {
      readonly kind: 'known-length';
      readonly id: string;
      readonly statedMm: number;
      readonly measuredMm: number;
      /** Measured less stated. */
      readonly offMm: number;
      readonly offPercent: number;
    }
  | {
      readonly kind: 'level' | 'plumb';
      readonly id: string;
      /** How far the line still leaves its direction, radians counter-clockwise, and over its length in mm. */
      readonly offAngle: number;
      readonly offMm: number;
    };

export interface TrueUpFit {
  readonly model: TrueUpModel;
  /** Pixels to mm; the turned picture's box has its lower left corner at the sheet's origin. */
  readonly toSheet: Transform;
  readonly mmPerPx: number;
  /** Radians counter-clockwise. */
  readonly turn: number;
  readonly leftOvers: readonly LeftOver[];
  /** The turned picture's box on the sheet. */
  readonly sheetWidthMm: number;
  readonly sheetHeightMm: number;
}

export class TrueUpError extends Error {
  readonly code = 'marks-coincide';
}

/**
 * Fits scale and turn. Marks decide the scale where there is a known length, else the resolution does.
 * @param dpi pixels per inch as the file or the person states it, or null
 * @throws TrueUpError where the two ends of a mark are the same point
 */
export function fitTrueUp(size: PictureSize, marks: readonly TrueUpMark[], dpi: number | null): TrueUpFit {
  for (const mark of marks) {
    if (distance(mark.a, mark.b) < 0.5) throw new TrueUpError('The two ends of a mark lie on the same place.');
  }
  const lengths = marks.filter((m): m is KnownLength => m.kind === 'known-length');
  const directions = marks.filter((m): m is DirectionLine => m.kind !== 'known-length');
  const model: TrueUpModel = lengths.length > 0 ? 'uniform' : dpi ? 'resolution' : 'unsized';
  const mmPerPx = lengths.length > 0 ? scaleFrom(lengths) : mmPerInch / (dpi ?? provisionalDpi);
  const turn = turnFrom(directions);
  return { model, mmPerPx, turn, ...placed(size, mmPerPx, turn), leftOvers: marks.map((m) => leftOverAt(m, mmPerPx, turn)) };
}

function scaleFrom(lengths: readonly KnownLength[]): number {
  let [products, squares] = [0, 0];
  for (const { a, b, mm } of lengths) {
    const px = distance(a, b);
    products += px * mm;
    squares += px * px;
  }
  return products / squares;
}

/** The angle of a line on the sheet before it is turned; for a plumb line, how far it is from upright. */
function angleOf({ kind, a, b }: DirectionLine): number {
  const angle = Math.atan2(a.y - b.y, b.x - a.x);
  return kind === 'level' ? angle : angle - Math.PI / 2;
}

/** The least turn that brings the lines to their directions together, over -90 to 90 degrees. */
function turnFrom(lines: readonly DirectionLine[]): number {
  let [sines, cosines] = [0, 0];
  for (const line of lines) {
    const weight = distance(line.a, line.b) ** 2;
    sines += weight * Math.sin(2 * angleOf(line));
    cosines += weight * Math.cos(2 * angleOf(line));
  }
  return lines.length === 0 ? 0 : -Math.atan2(sines, cosines) / 2;
}

function placed({ widthPx, heightPx }: PictureSize, mmPerPx: number, turn: number) {
  const turned = chain(turnBy(turn), stretch(mmPerPx, -mmPerPx));
  const corners = [
    [0, 0],
    [widthPx, 0],
    [widthPx, heightPx],
    [0, heightPx],
  ].map(([x, y]) => apply(turned, { x, y } as { x: number; y: number }));
  const box = boxAround(corners) as NonNullable<ReturnType<typeof boxAround>>;
  return {
    toSheet: chain(shift(-box.minX, -box.minY), turned),
    sheetWidthMm: box.maxX - box.minX,
    sheetHeightMm: box.maxY - box.minY,
  };
}

function leftOverAt(mark: TrueUpMark, mmPerPx: number, turn: number): LeftOver {
  const measuredMm = distance(mark.a, mark.b) * mmPerPx;
  if (mark.kind === 'known-length') {
    const offMm = measuredMm - mark.mm;
    return { kind: mark.kind, id: mark.id, statedMm: mark.mm, measuredMm, offMm, offPercent: (100 * offMm) / mark.mm };
  }
  // Back to within a quarter turn: which end was marked first does not matter.
  const raw = angleOf(mark) + turn;
  const offAngle = raw - Math.PI * Math.round(raw / Math.PI);
  return { kind: mark.kind, id: mark.id, offAngle, offMm: measuredMm * Math.sin(offAngle) };
}

/** The largest left-over of any mark, mm; 0 where there are none. */
export function worstLeftOver(fit: TrueUpFit): number {
  return fit.leftOvers.reduce((worst, l) => Math.max(worst, Math.abs(l.offMm)), 0);
}
