/**
 * In: a quilt's plan. Out: its foundations at full size, a section each: mirrored, since fabric lies on the side that is not printed, its
 * patches numbered in the order that they are sewn in, an allowance round it all.
 */
import { FileRefused } from '../../files/file-kinds.ts';
import { english, say } from '../../messages/index.ts';
import {
  type Path,
  type Point,
  pathArea,
  pathBox,
  reversedPath,
  type Segment,
  subtract,
  type Transform,
  transformedPath,
  unitVector,
  widthOf,
} from '../../plane/index.ts';
import { letters, middleWithin, type QuiltingSettings, type QuiltPlan, type Section, seamLines } from '../../quilting/index.ts';
import { unitedOutlines } from '../../shape/combine.ts';
import { offsetClosed, type PlanarMap, plainOffset } from '../../shape/index.ts';
import { type Pattern, patternsPdf } from '../paged-patterns.ts';
import type { ProcessFileMade, Work } from '../process.ts';

export async function madeFoundations({ title, settings }: Work<QuiltingSettings>, plan: QuiltPlan): Promise<ProcessFileMade> {
  const { sections } = plan.foundations;
  if (sections.length === 0) throw new FileRefused(say.quilting.noSections());
  const patterns = sections.map((section, k) => sectionPattern(plan, section, k, settings));
  return patternsPdf(english.quilting.foundations(title), patterns, settings.paper, english.quilting.foundationHow);
}

/** Fabric lies behind the paper: what is printed is the block seen from behind. */
const mirror: Transform = { a: -1, b: 0, c: 0, d: 1, e: 0, f: 0 };

function sectionPattern(
  { block, foundations: { sections } }: QuiltPlan,
  { order }: Section,
  k: number,
  { allowanceMm }: QuiltingSettings,
): Pattern {
  const { map } = block;
  const outers = order.map((face) => map.faces[face]?.outer as Path);
  const whole = unitedOutlines(outers).map((path) => turnedOver(path));
  const inner = seamsWithin(map, new Set(order), allowanceMm);
  const letter = sections.length > 1 ? letters(k) : '';
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

/** The seams of a section, each from end to end; where one ends at the section's border it is led on into the allowance, to sew beyond it. */
function seamsWithin(map: PlanarMap, own: ReadonlySet<number>, allowanceMm: number): Path[] {
  const isInner = (k: number): boolean => own.has(map.edges[k]?.left as number) && own.has(map.edges[k]?.right as number);
  const border = new Set(map.edges.flatMap(({ from, to, left, right }) => (own.has(left) !== own.has(right) ? [from, to] : [])));
  return seamLines(map).flatMap((line) => {
    const runs: number[][] = [];
    line.edges.forEach((edge, k) => {
      if (!isInner(edge)) return;
      if (k > 0 && isInner(line.edges[k - 1] as number)) runs.at(-1)?.push(k);
      else runs.push([k]);
    });
    return runs.map((run): Path => {
      const nodes = [...run, (run.at(-1) as number) + 1].map((k) => line.nodes[k] as number);
      const at = (k: number): Point => map.nodes[nodes.at(k) as number] as Point;
      const isStraight = run.every((k) => map.edges[line.edges[k] as number]?.segment.kind === 'line');
      if (!isStraight)
        return alongEdges(
          map,
          run.map((k) => line.edges[k] as number),
          nodes,
        );
      const beyond = (k: number, from: number): Point => {
        if (!border.has(nodes.at(k) as number)) return at(k);
        const d = unitVector(subtract(at(k), at(from)));
        return { x: at(k).x + allowanceMm * d.x, y: at(k).y + allowanceMm * d.y };
      };
      return { start: beyond(0, -1), segments: [{ kind: 'line', to: beyond(-1, 0) }], closed: false };
    });
  });
}

function alongEdges(map: PlanarMap, edges: readonly number[], nodes: readonly number[]): Path {
  const segments = edges.map((k, n): Segment => {
    const { from, segment } = map.edges[k] as PlanarMap['edges'][0];
    const start = map.nodes[from] as Point;
    return from === nodes[n] ? segment : (reversedPath({ start, segments: [segment], closed: false }).segments[0] as Segment);
  });
  return { start: map.nodes[nodes[0] as number] as Point, segments, closed: false };
}

const turnedOver = (path: Path): Path => reversedPath(transformedPath(path, mirror));
