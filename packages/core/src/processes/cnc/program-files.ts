/**
 * In: a plan of milling. Out: its programs, a tool each or one whole; each is read back from its bytes, milled from them, and measured
 * against the outlines before it is handed over.
 */
import { strToU8 } from 'fflate';
import { FileRefused } from '../../files/file-kinds.ts';
import { type ProgramRun, writeMillingProgram } from '../../formats/milling-program.ts';
import { type ReadTool, readMillingProgram } from '../../formats/milling-reading.ts';
import { writeHeightFieldStl } from '../../formats/stl.ts';
import type { Machine } from '../../job/machine.ts';
import { originOn } from '../../make/placement.ts';
import { say } from '../../messages/index.ts';
import {
  chordsOfMove,
  inlayFit,
  type Milled,
  type MillingSettings,
  type MillPlan,
  type MillRun,
  type MillTool,
  type Move,
  operationWords,
  type Place,
  programsOf,
  provedPlan,
  type Simulated,
  type ToolMoves,
} from '../../milling/index.ts';
import { boxAroundBoxes, heightOf, pathBox, widthOf } from '../../plane/index.ts';
import { finished } from '../../steps.ts';
import type { ProcessFileMade, Work } from '../process.ts';

/** How far what a program says may lie from what was planned, mm. */
const programToleranceMm = 0.01;

interface Program {
  readonly text: string;
  /** The tools in it, in order. */
  readonly tools: readonly MillTool[];
  readonly runs: readonly MillRun[];
}

const inMachineMm = (machine: Machine, plan: MillPlan, settings: MillingSettings) => ({
  machine,
  stock: plan.stock,
  zeroBelowTopMm: settings.zeroZ === 'top' ? 0 : -plan.bottomZ,
});

/** The programs as the machine wants them: a tool each, or all in one. */
function programsText({ title, settings, machine }: Work<MillingSettings>, plan: MillPlan): Program[] {
  const groups = programsOf(plan);
  const byProgram = machine.toolChange === 'program' ? groups.map((group) => [group]) : [groups];
  return byProgram.map((list): Program => {
    const runs = list.flatMap(({ runs: own }) => own);
    const tools = list.map(({ tool }) => tool);
    const written = runs.map(
      (run): ProgramRun => ({
        tool: { number: numberOf(run.tool, settings), name: nameOf(run.tool), speedRpm: run.tool.speedRpm },
        comment: `${operationWords[run.operation.kind]}: ${run.name}`,
        start: run.start,
        moves: run.moves,
      }),
    );
    const options = {
      ...inMachineMm(machine, plan, settings),
      title,
      safeZ: plan.heights.safeZ,
      about: aboutOf(plan, machine, settings, tools),
    };
    return { text: writeMillingProgram(written, options), tools, runs };
  });
}

export const numberOf = (tool: MillTool, { tools }: MillingSettings): number => tools.findIndex(({ id }) => id === tool.id) + 1;
export const nameOf = ({ name, diameterMm, flutes }: MillTool): string =>
  `${name.includes(`${diameterMm} mm`) ? name : `${name}, ${diameterMm} mm`}, ${flutes} ${flutes === 1 ? 'flute' : 'flutes'}`;

function aboutOf(plan: MillPlan, { unit, origin }: Machine, { zeroZ }: MillingSettings, tools: readonly MillTool[]): string[] {
  const { minX, minY, maxX, maxY } = plan.stock;
  return [
    `Units: ${unit === 'mm' ? 'millimetres' : 'inches'}. Stock ${(maxX - minX).toFixed(2)} x ${(maxY - minY).toFixed(2)} x ${(-plan.bottomZ).toFixed(2)} mm`,
    `x 0 y 0: ${origin.replace('-', ' ')} of the ${origin === 'sheet' ? 'drawing' : 'stock'}. z 0: ${zeroZ === 'top' ? 'top of the stock' : 'the bed'}`,
    ...tools.map((tool) => `Needs ${nameOf(tool)}`),
  ];
}

/** What a program's moves are on the sheet again. */
function readBack(text: string, tools: readonly MillTool[], machine: Machine, plan: MillPlan, settings: MillingSettings): ToolMoves[] {
  const { stock, zeroBelowTopMm } = inMachineMm(machine, plan, settings);
  const { x, y } = originOn(stock, machine);
  const up = machine.y === 'up' ? 1 : -1;
  const back = (p: Place): Place => ({ x: p.x + x, y: up * p.y + y, z: p.z - zeroBelowTopMm });
  return readMillingProgram(text).tools.map(({ start, moves }: ReadTool, k) => ({
    tool: tools[Math.min(k, tools.length - 1)] as MillTool,
    start: back(start),
    moves: moves.map((move): Move => ({ ...move, to: back(move.to), sweep: up * move.sweep })),
  }));
}

const chordMm = 0.0005;

function placesOf(all: readonly ToolMoves[]): Place[] {
  return all.flatMap(({ start, moves }) => {
    let at = start;
    return moves.flatMap((move) => {
      const places = chordsOfMove(at, move, chordMm);
      at = move.to;
      return move.isRapid ? [] : places;
    });
  });
}

/** How far the cuts of two lists of moves lie from one another at most, mm: each place is looked for along the other, on from the last. */
function programDeviation(planned: readonly ToolMoves[], read: readonly ToolMoves[]): number {
  const [a, b] = [placesOf(planned), placesOf(read)];
  return Math.max(farthestAlong(a, b), farthestAlong(b, a));
}

const ahead = 400;

function farthestAlong(a: readonly Place[], b: readonly Place[]): number {
  if (a.length === 0) return 0;
  if (b.length === 0) return Infinity;
  let [worst, at] = [0, 0];
  for (const p of a) {
    let [best, bestAt] = [Infinity, at];
    // The first that is near, and the few after it: the same place may come again in a later pass.
    for (let k = Math.max(0, at - 4), end = Math.min(b.length, at + ahead); k < end; k++) {
      const d = toChord(p, b[Math.max(0, k - 1)] as Place, b[k] as Place);
      if (d < best) {
        [best, bestAt] = [d, k];
        if (best < programToleranceMm / 5) end = Math.min(end, k + 3);
      }
    }
    worst = Math.max(worst, best);
    at = bestAt;
  }
  return worst;
}

function toChord(p: Place, a: Place, b: Place): number {
  const [dx, dy, dz] = [b.x - a.x, b.y - a.y, b.z - a.z];
  const square = dx * dx + dy * dy + dz * dz;
  const t = square > 0 ? Math.min(1, Math.max(0, ((p.x - a.x) * dx + (p.y - a.y) * dy + (p.z - a.z) * dz) / square)) : 0;
  return Math.hypot(a.x + t * dx - p.x, a.y + t * dy - p.y, a.z + t * dz - p.z);
}

/** The programs, and what was found when they were milled from their bytes. */
interface ProgramsProved {
  readonly programs: readonly Program[];
  readonly largestMm: number;
  readonly simulated: Simulated;
  readonly milled: Milled;
}

/** What was found last of a plan: its programs and the solid that they leave are asked for one after another. */
const known = new WeakMap<MillPlan, { readonly work: Work<MillingSettings>; readonly found: ProgramsProved }>();

/** @throws FileRefused where they would spoil the work */
export function proved(work: Work<MillingSettings>, plan: MillPlan): ProgramsProved {
  const before = known.get(plan);
  if (before?.work === work) return before.found;
  const found = provedAnew(work, plan);
  known.set(plan, { work, found });
  return found;
}

/** @throws FileRefused where they would spoil the work */
function provedAnew(work: Work<MillingSettings>, plan: MillPlan): ProgramsProved {
  const failed = plan.notes.find(({ isFailure }) => isFailure);
  if (failed) throw new FileRefused(say.make.noFileWasMade(failed.message));
  if (plan.runs.length === 0) throw new FileRefused(say.milling.nothingToMill());
  const programs = programsText(work, plan);
  const read = programs.flatMap(({ text, tools }) => readBack(text, tools, work.machine, plan, work.settings));
  const largestMm = programDeviation(plan.runs, read);
  if (largestMm > programToleranceMm) throw new FileRefused(say.milling.programOff(largestMm.toFixed(3)));
  const { simulated, milled } = finished(provedPlan(plan, read));
  const place = (v: number): string => v.toFixed(1);
  const [gouge] = milled.gouges;
  if (gouge) {
    const { name, beyondMm, areaMm2, at } = gouge;
    throw new FileRefused(say.make.noFileWasMade(say.milling.gouges(name || 'the stock', beyondMm.toFixed(2), areaMm2.toFixed(2), place(at.x), place(at.y)).message)); // biome-ignore format: one line
  }
  const [hit] = simulated.runsInto;
  if (hit) {
    const said = hit.what === 'clamp' ? say.milling.hitsClamp : say.milling.rapidThrough;
    throw new FileRefused(say.make.noFileWasMade(said(hit.tool, place(hit.at.x), place(hit.at.y)).message));
  }
  return { programs, largestMm, simulated, milled };
}

export async function madePrograms(work: Work<MillingSettings>, plan: MillPlan): Promise<ProcessFileMade> {
  const found = proved(work, plan);
  const { programs, largestMm } = found;
  const box = boxAroundBoxes(work.pieces.map(({ outer }) => pathBox(outer))) ?? plan.stock;
  const about = { largestMm, toleranceMm: programToleranceMm, widthMm: widthOf(box), heightMm: heightOf(box) };
  const files = programs.map(({ text, tools }, k) => ({
    ...about,
    bytes: strToU8(text),
    ...(programs.length > 1 && { part: partOf(tools[0] as MillTool, k) }),
  }));
  const [first, ...further] = files;
  return { ...(first as ProcessFileMade), further, report: reportOf(plan, found) };
}

/** What stands after a program's name: its turn and its tool. */
const partOf = ({ name }: MillTool, k: number): string =>
  `${k + 1}-${name
    .toLowerCase()
    .replace(/[^a-z0-9.]+/g, '-')
    .replace(/^-|-$/g, '')
    .slice(0, 40)}`;

/** All that was found, as plain data. */
function reportOf(plan: MillPlan, { programs, largestMm, simulated, milled }: ProgramsProved) {
  return {
    stock: { widthMm: plan.stock.maxX - plan.stock.minX, heightMm: plan.stock.maxY - plan.stock.minY, thicknessMm: -plan.bottomZ },
    operations: plan.operations.map((operation) => {
      const runs = plan.runs.filter((run) => run.operation === operation);
      const engaged = runs.flatMap(({ engagement }) => (engagement ? [engagement] : []));
      return {
        ...operation,
        tools: [...new Set(runs.map(({ tool }) => tool.name))],
        runs: runs.length,
        lengthMm: runs.reduce((sum, run) => sum + run.lengthMm, 0),
        seconds: runs.reduce((sum, run) => sum + run.seconds, 0),
        engagement: engaged.length === 0 ? null : { largest: Math.max(...engaged.map(({ largest }) => largest)), mean: engaged.reduce((sum, { mean }) => sum + mean, 0) / engaged.length }, // biome-ignore format: one line
      };
    }),
    programs: programs.map(({ tools, runs }) => ({
      tools: tools.map(({ name }) => name),
      seconds: runs.reduce((sum, { seconds }) => sum + seconds, 0),
    })),
    seconds: plan.seconds,
    largestMm,
    gouges: milled.gouges,
    leftStanding: milled.left,
    floorOffMm: milled.floorOffMm,
    wallOffMm: milled.wallOffMm,
    tabs: milled.tabs,
    inlays: plan.inlays.map((cut) => finished(inlayFit(cut))),
    removedMm3: milled.removedMm3,
    lowestZ: simulated.lowestZ,
    cellMm: simulated.field.cellMm,
    notes: plan.notes.map(({ message }) => message),
  };
}

/** The stock as the programs leave it. */
export async function madeSolid(work: Work<MillingSettings>, plan: MillPlan): Promise<ProcessFileMade> {
  const { simulated } = proved(work, plan);
  const { minX, minY, maxX, maxY } = plan.stock;
  return {
    bytes: writeHeightFieldStl(simulated.field, plan.bottomZ),
    largestMm: null,
    toleranceMm: null,
    widthMm: maxX - minX,
    heightMm: maxY - minY,
  };
}
