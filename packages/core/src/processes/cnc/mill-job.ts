/** In: a plan of milling. Out: what the mill that stands in is sent: its programs, the stock, the tools, and the outlines to measure against. */
import { originOn } from '../../make/placement.ts';
import { halfAngleOf, type MillingSettings, type MillPlan, type MillTool, reachOf } from '../../milling/index.ts';
import { type Path, type Point, polygonOf } from '../../plane/index.ts';
import type { Work } from '../process.ts';
import type { StandInJob } from '../stand-in.ts';
import { nameOf, numberOf, proved } from './program-files.ts';

/** Outlines are sent as chords that leave them by at most this, mm. */
const chordMm = 0.002;

/** @throws FileRefused where a program would spoil the work */
export async function millJob(work: Work<MillingSettings>, plan: MillPlan): Promise<StandInJob> {
  const { programs } = proved(work, plan);
  const { settings, machine } = work;
  const { minX, minY, maxX, maxY } = plan.stock;
  const corner = { x: minX, y: minY };
  const origin = originOn(plan.stock, machine);
  const used = [...new Set(plan.runs.map(({ tool }) => tool))];
  const isByHand = machine.toolChange !== 'changer';
  return {
    programs: programs.map(({ text, tools }) => ({
      text,
      tools: (isByHand ? tools : tools.slice(0, 1)).map((tool) => ({ number: numberOf(tool, settings), name: nameOf(tool) })),
    })),
    mill: {
      setUp: {
        widthMm: maxX - minX,
        heightMm: maxY - minY,
        thicknessMm: -plan.bottomZ,
        zero: { x: origin.x - minX, y: origin.y - minY, z: settings.zeroZ === 'top' ? 0 : plan.bottomZ },
        y: machine.y,
        tools: used.map((tool) => ({ number: numberOf(tool, settings), ...formOf(tool) })),
      },
      outlines: outlinesOf(plan, corner),
    },
  };
}

const formOf = (tool: MillTool) => ({
  kind: tool.kind,
  diameterMm: tool.diameterMm,
  tipMm: tool.tipMm,
  angle: ['V-bit', 'tapered', 'drill'].includes(tool.kind) ? (2 * halfAngleOf(tool) * 180) / Math.PI : null,
});

function outlinesOf({ parts, allowed, runs }: MillPlan, corner: Point) {
  const flat = (path: Path): number[] => polygonOf(path, chordMm).flatMap(({ x, y }) => [x - corner.x, y - corner.y]);
  const ring = ({ outer, holes }: { readonly outer: Path; readonly holes: readonly Path[] }): number[][] =>
    [outer, ...holes].map(flat).filter(({ length }) => length >= 6);
  const cutThrough = new Set(runs.filter(({ operation }) => operation.kind === 'profile').map(({ pieceId }) => pieceId));
  return {
    parts: parts
      .filter((piece) => cutThrough.has(piece.id) && piece.outer.closed)
      .map((piece) => ({ name: piece.name, rings: ring(piece) })),
    taken: allowed.flatMap((one) =>
      one.kind === 'area' && one.area.outer.closed
        ? [
            {
              name: one.name,
              rings: ring(one.area),
              depthMm: Math.max(0, -one.bottomZ),
              isFloor: one.isWanted && one.wall === null,
            },
          ]
        : [],
    ),
    lines: allowed.flatMap((one) => {
      if (one.kind === 'area') return [];
      const points = polygonOf(one.path, chordMm);
      const [first] = points;
      const closed = one.path.closed && first ? [...points, first] : points;
      return [
        { points: closed.flatMap(({ x, y }) => [x - corner.x, y - corner.y]), besideMm: Math.max(one.widthMm, reachOf(one.tool)(0)) },
      ];
    }),
  };
}
