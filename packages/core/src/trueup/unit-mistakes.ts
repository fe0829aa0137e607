/**
 * In: marks with what is stated of them. Out: statements that are off by the ratio of two units, as when 74 cm is
 * typed as 74 mm: which, by how much, and what was likely meant.
 * Rests on: the median of the logarithms of mm per pixel, which one wrong statement among three cannot move.
 */

import { english } from '../messages/index.ts';
import { type FourPoints, project, projectionOfFour } from '../plane/projection.ts';
import { impliedLengthsOf, isSizing, isTemplate, type TrueUpMark, templatePoints } from './mark-kinds.ts';
import { parameters } from './parameters.ts';
import { checkLineMm } from './scale-card.ts';

export interface UnitMistake {
  readonly id: string;
  /** Which of the mark's statements. */
  readonly index: number;
  /** What the statement must be multiplied by. */
  readonly factor: number;
  /** What it looks like: "centimetres". */
  readonly looksLike: string;
  readonly mendedMm: number;
  /** Whether it is as likely that the other statement is the wrong one: then neither is used. */
  readonly isEither: boolean;
}

/** Ratios of units that people mix up; what the number typed looks like when the truth is so many times as long. */
const ratios: readonly (readonly [factor: number, looksLike: string])[] = [
  [10, 'centimetres'],
  [25.4, 'inches'],
  [2.54, english.trueUp.inchesNotCentimetres],
  [12, english.trueUp.feetNotInches],
  [304.8, 'feet'],
  [1000, 'metres'],
  [1 / 10, english.trueUp.millimetresNotCentimetres],
  [1 / 25.4, english.trueUp.millimetresNotInches],
  [1 / 2.54, english.trueUp.centimetresNotInches],
  [1 / 12, english.trueUp.inchesNotFeet],
  [1 / 304.8, english.trueUp.millimetresNotFeet],
  [1 / 1000, english.trueUp.millimetresNotMetres],
];

interface Statement {
  readonly id: string;
  readonly index: number;
  readonly mm: number;
  /** Log of stated over measured; only differences between them count. */
  readonly level: number;
}

/**
 * @param dpi the file's resolution where it can be trusted: it decides between two statements that contradict each other;
 * without it neither wins
 */
export function findUnitMistakes(marks: readonly TrueUpMark[], dpi: number | null): UnitMistake[] {
  const statements = statementsOf(marks);
  if (new Set(statements.map((s) => s.id)).size < 2) return [];
  const common = commonLevels(statements, dpi);
  return statements.flatMap(({ id, index, mm, level }): UnitMistake[] => {
    const other = common.find((c) => Math.exp(Math.abs(c - level)) >= parameters.minUnitRatio);
    if (other === undefined) return [];
    const found = ratios.find(([factor]) => Math.abs(other - level - Math.log(factor)) < parameters.unitNearness);
    return found ? [{ id, index, factor: found[0], looksLike: found[1], mendedMm: mm * found[0], isEither: common.length > 1 }] : [];
  });
}

/** The level that most agree on; of two that contradict each other, the resolution's side; without one, both. */
function commonLevels(statements: readonly Statement[], dpi: number | null): number[] {
  const levels = statements.map((s) => s.level).sort((a, b) => a - b);
  const [low, high] = [levels[0] as number, levels.at(-1) as number];
  const below = levels.filter((l) => l - low < high - l).length;
  if (2 * below !== levels.length || high - low < Math.log(parameters.minUnitRatio)) return [levels[levels.length >> 1] as number];
  if (dpi !== null) {
    const level = Math.log(25.4 / dpi);
    return [Math.abs(level - low) < Math.abs(level - high) ? low : high];
  }
  return [low, high];
}

function statementsOf(marks: readonly TrueUpMark[]): Statement[] {
  const sizing = marks.filter((m) => isSizing(m));
  const plate = sizing.find(isTemplate);
  const flat =
    plate &&
    projectionOfFour(plate.points.slice(0, 4) as unknown as FourPoints, templatePoints(plate).slice(0, 4) as unknown as FourPoints);
  return sizing.flatMap((mark): Statement[] => {
    if (mark === plate && flat) {
      const sides = mark.kind === 'frame' ? mark.stated : [checkLineMm, checkLineMm];
      return sides.map((mm, index) => ({ id: mark.id, index, mm, level: 0 }));
    }
    const points = flat ? mark.points.map((p) => project(flat, p)) : mark.points;
    return impliedLengthsOf(mark, points).map(({ index, stated, measured }) => ({
      id: mark.id,
      index,
      mm: mark.stated[index] as number,
      level: Math.log(stated / measured),
    }));
  });
}
