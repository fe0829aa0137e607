/**
 * In: a quilt's plan. Out: its foundations at full size, a section each: mirrored, since fabric lies on the side that is not printed, its
 * patches numbered in the order that they are sewn in, an allowance round it all.
 */
import { FileRefused } from '../../files/file-kinds.ts';
import { english, say } from '../../messages/index.ts';
import { type Path, pathArea, pathBox, reversedPath, type Transform, transformedPath, widthOf } from '../../plane/index.ts';
import { middleWithin, type QuiltingSettings, type QuiltPlan, type Section } from '../../quilting/index.ts';
import { unitedOutlines } from '../../shape/combine.ts';
import { offsetClosed, plainOffset } from '../../shape/index.ts';
import type { ProcessFileMade, Work } from '../process.ts';
import { type Pattern, patternsPdf } from './paged-patterns.ts';

export async function madeFoundations({ title, settings }: Work<QuiltingSettings>, plan: QuiltPlan): Promise<ProcessFileMade> {
  const { sections } = plan.foundations;
  if (sections.length === 0) throw new FileRefused(say.quilting.noSections());
  const patterns = sections.map((section, k) => sectionPattern(plan, section, k, settings));
  return patternsPdf(english.quilting.foundations(title), patterns, settings.paper, english.quilting.foundationHow);
}

/** Fabric lies behind the paper: what is printed is the block seen from behind. */
const mirror: Transform = { a: -1, b: 0, c: 0, d: 1, e: 0, f: 0 };

/** A, B, C and the number of the patch in its section: A1, A2. */
export const sectionLetter = (section: number): string => String.fromCharCode(65 + (section % 26));

function sectionPattern(
  { block, foundations: { sections } }: QuiltPlan,
  { order }: Section,
  k: number,
  { allowanceMm }: QuiltingSettings,
): Pattern {
  // biome-ignore format: one line
  const { map } = block;
  const outers = order.map((face) => map.faces[face]?.outer as Path);
  const whole = unitedOutlines(outers).map((path) => turnedOver(path));
  const inner = map.edges.flatMap(({ from, left, right, segment }) =>
    order.includes(left) && order.includes(right) ? [{ start: map.nodes[from] as Path['start'], segments: [segment], closed: false }] : [],
  );
  const letter = sections.length > 1 ? sectionLetter(k) : '';
  return {
    name: english.quilting.section(k + 1, sections.length),
    lines: [
      ...whole.flatMap((path) => offsetClosed(path, -Math.sign(pathArea(path)) * allowanceMm, { ...plainOffset, corners: 'mitre' })).map((path) => ({ kind: 'cutting', path }) as const), // biome-ignore format: one line
      ...[...whole, ...inner.map((path) => transformedPath(path, mirror))].map((path) => ({ kind: 'sewing', path }) as const),
    ],
    texts: outers.map((outer, n) => {
      const at = middleWithin(outer);
      const size = Math.max(6, Math.min(14, widthOf(pathBox(outer)) / 3));
      return { at: { x: -at.x, y: at.y - size / 8 }, text: `${letter}${n + 1}`, size, isBold: true };
    }),
  };
}

const turnedOver = (path: Path): Path => reversedPath(transformedPath(path, mirror));
