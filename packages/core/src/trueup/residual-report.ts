/**
 * In: a mark and the map to the sheet. Out: what is stated of it, what it comes to, and the difference.
 */
import { distance, middleOf, type Point } from '../plane/point.ts';
import { type Projection, project } from '../plane/projection.ts';
import { impliedLengthsOf, isTemplate, markKinds, type PullingKind, type TrueUpMark, templatePoints } from './mark-kinds.ts';
import { templateAngle } from './solve.ts';

export interface Part {
  readonly name: 'length' | 'passage' | 'width' | 'height' | 'diameter';
  readonly statedMm: number;
  readonly measuredMm: number;
  /** Measured less stated. */
  readonly offMm: number;
  readonly offPercent: number;
}

export interface Residual {
  readonly kind: PullingKind;
  readonly id: string;
  /** One for each length that the mark states. */
  readonly parts: readonly Part[];
  /** The largest residual of the mark, mm: of its lengths, of a template's corners, or of a line's rise over its run. */
  readonly offMm: number;
  /** How far a line or corner leaves its direction, radians; null for lengths. */
  readonly offAngle: number | null;
  /** The share of all that the marks tell which this one tells, 0 to 1. */
  readonly leverage: number;
  /** Whether the mark was set aside, because its statement looks like a slip of units. */
  readonly isSetAside: boolean;
}

export function residualAt(mark: TrueUpMark, toSheet: Projection, leverage: number, isSetAside: boolean): Residual {
  const p = mark.points.map((q) => project(toSheet, q));
  const parts = partsOf(mark, p);
  const common = { kind: mark.kind, id: mark.id, leverage, isSetAside };
  const off = markKinds[mark.kind].offDirection?.(p);
  if (off) return { ...common, parts, offAngle: off.angle, offMm: off.mm };
  const worst = parts.reduce((off, part) => (Math.abs(part.offMm) > Math.abs(off) ? part.offMm : off), 0);
  const corners = isTemplate(mark) ? worstCorner(templatePoints(mark), p) : 0;
  return { ...common, parts, offAngle: null, offMm: corners > Math.abs(worst) ? corners : worst };
}

const partsOf = (mark: TrueUpMark, placed: readonly Point[]): Part[] =>
  impliedLengthsOf(mark, placed).map(({ index, stated, measured }) => {
    const offMm = measured - stated;
    const name = markKinds[mark.kind].parts?.[index] ?? 'length';
    return { name, statedMm: stated, measuredMm: measured, offMm, offPercent: (100 * offMm) / stated };
  });

/** How far the worst of a template's points is from its place once the template is laid on them as well as it goes. */
function worstCorner(places: readonly Point[], placed: readonly Point[]): number {
  const [from, to, angle] = [middleOf(places), middleOf(placed), templateAngle(places, placed)];
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return Math.max(
    ...places.map((q, k) => {
      const [x, y] = [q.x - from.x, q.y - from.y];
      return distance({ x: to.x + c * x - s * y, y: to.y + s * x + c * y }, placed[k] as Point);
    }),
  );
}
