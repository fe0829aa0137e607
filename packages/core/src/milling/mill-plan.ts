/**
 * In: pieces, how they are milled, the machine and the stock. Out: the tools' moves in their order, with how long they take, what they may
 * take off, and what the tools cannot make.
 */
import type { Machine } from '../job/machine.ts';
import type { Stock } from '../job/making.ts';
import { makeOf } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import { loopsRound } from '../make/loops-round.ts';
import { orderedStops, type Stop } from '../make/order.ts';
import { length, type Message, say } from '../messages/index.ts';
import { type Box, boxAroundBoxes, heightOf, type Point, pathBox, widthOf } from '../plane/index.ts';
import { asPart } from '../steps.ts';
import { operationsFor } from './from-purposes.ts';
import type { InlayCut } from './inlay-fit.ts';
import type { MillTool } from './mill-tool.ts';
import { type Heights, type Move, moveLength, type Place, secondsOf } from './moves.ts';
import { type Allowed, isFilled, piecesMeant, type RunMade } from './operation-made.ts';
import { operationRuns } from './operation-runs.ts';
import { type Operation, type OperationOf, operationWords } from './operations.ts';
import type { Clamp, MillingSettings } from './settings.ts';

/** What one tool does in one go: a pocket, a border, a line, a hole. */
export interface MillRun extends Omit<RunMade, 'border'> {
  readonly operation: Operation;
  readonly seconds: number;
  /** Along what is cut, mm. */
  readonly lengthMm: number;
}

export type MillNote = Message & { readonly pieceId: string; readonly isFailure: boolean; readonly operationId: string | null };

export interface MillPlan {
  readonly operations: readonly Operation[];
  readonly runs: readonly MillRun[];
  readonly notes: readonly MillNote[];
  /** On the sheet. Its top is at 0 and its bottom at `bottomZ`, mm. */
  readonly stock: Box;
  readonly bottomZ: number;
  readonly heights: Heights;
  readonly clamps: readonly Clamp[];
  /** The pieces that must stay, and what may be taken off all the same. */
  readonly parts: readonly Piece[];
  readonly allowed: readonly Allowed[];
  /** What is inlaid, so that both halves can be tried. */
  readonly inlays: readonly InlayCut[];
  /** With all rapids and tool changes, s. */
  readonly seconds: number;
}

/** What a change of tool by hand takes, s: common practice. */
const toolChangeSeconds = 60;
/** Round pieces on stock whose size is not known, mm beside the widest tool. */
const marginMm = 5;

/** Where the stock lies on the sheet. */
function stockBox(pieces: readonly Piece[], { stockAt, tools }: MillingSettings, { widthMm, heightMm }: Stock): Box {
  const box = boxAroundBoxes(pieces.map(({ outer }) => pathBox(outer))) ?? { minX: 0, minY: 0, maxX: 100, maxY: 100 };
  if (widthMm === null || heightMm === null) {
    const margin = marginMm + 2 * tools.reduce((max, { diameterMm }) => Math.max(max, diameterMm), 3);
    return { minX: box.minX - margin, minY: box.minY - margin, maxX: box.maxX + margin, maxY: box.maxY + margin };
  }
  const corner = stockAt ?? { x: (box.minX + box.maxX - widthMm) / 2, y: (box.minY + box.maxY - heightMm) / 2 };
  return { minX: corner.x, minY: corner.y, maxX: corner.x + widthMm, maxY: corner.y + heightMm };
}

/** Plans the milling of pieces; yields the share done. */
export function* millPlan(
  pieces: readonly Piece[],
  settings: MillingSettings,
  machine: Machine,
  stock: Stock,
): Generator<number, MillPlan> {
  const notes: MillNote[] = [];
  const note = (message: Message, isFailure: boolean, operation: Operation | null = null, pieceId = ''): void => {
    // What is said of one operation need not be said again of the next.
    if (notes.some((one) => one.message === message.message)) return;
    notes.push({ ...message, pieceId, isFailure, operationId: operation?.id ?? null });
  };
  const made = pieces.filter((piece) => makeOf(piece) !== 'nothing');
  const operations = settings.operations ?? operationsFor(made, settings, stock.thicknessMm);
  const box = stockBox(made, settings, stock);
  const thickness = stock.thicknessMm;
  const bottomZ = -(thickness ?? 0);
  const clampsMm = settings.clamps.reduce((max, { overMm }) => Math.max(max, overMm), 0);
  const heights: Heights = { safeZ: Math.max(settings.safeMm, clampsMm + 1), hopZ: Math.min(settings.hopMm, settings.safeMm) };
  if (settings.tools.length === 0) note(say.milling.noTools(), true);
  else if (thickness === null) note(say.milling.noThickness(), true);
  else checkedOperations(operations, settings, thickness, note);
  for (const piece of made) if (!isWithin(pathBox(piece.outer), box)) note(say.milling.outsideStock(piece.name), true, null, piece.id);
  const runs: MillRun[] = [];
  const allowed: Allowed[] = [];
  let topZ = 0;
  const active = notes.some(({ isFailure }) => isFailure) ? [] : operations.filter(({ isOn }) => isOn);
  for (const [k, operation] of active.entries()) {
    const work = { pieces: made, operations: active, tools: settings.tools, stock: box, topZ, bottomZ, spoilMm: settings.spoilMm, heights };
    const one = yield* asPart(operationRuns(operation, work), k / active.length, (k + 1) / active.length);
    for (const { message, isFailure, pieceId } of one.notes) note(message, isFailure, operation, pieceId);
    allowed.push(...one.allowed);
    for (const { border: _, ...run } of yield* nearestOrder(one.runs, runs.at(-1)?.moves.at(-1)?.to)) {
      const seconds = secondsOf(run.start, run.moves, machine.travelMmPerMin, machine.accelerationMmPerS2);
      runs.push({ ...run, operation, seconds, lengthMm: cutLength(run.start, run.moves) });
    }
    if (operation.kind === 'face') topZ = -operation.depthMm;
  }
  const parts = made.filter((piece) => makeOf(piece) === 'part' && piece.outer.closed);
  checkedMachine(runs, machine, heights, note);
  return {
    operations,
    runs,
    notes,
    stock: box,
    bottomZ,
    heights,
    clamps: settings.clamps,
    parts,
    allowed,
    inlays: active.flatMap((operation) => (operation.kind === 'inlay' ? inlaysOf(operation, made, settings.tools) : [])),
    seconds: secondsInAll(runs, machine),
  };
}

const inlaysOf = (operation: OperationOf<'inlay'>, pieces: readonly Piece[], tools: readonly MillTool[]): InlayCut[] =>
  pieces
    .filter((piece) => piecesMeant(operation, piece, isFilled) && piece.outer.closed)
    .map((piece) => ({ operation, piece, tools: tools.filter(({ id }) => id === operation.tool || id === operation.floorTool) }));

const isWithin = (inner: Box, outer: Box): boolean =>
  inner.minX >= outer.minX - 1e-6 && inner.maxX <= outer.maxX + 1e-6 && inner.minY >= outer.minY - 1e-6 && inner.maxY <= outer.maxY + 1e-6;

type Note = (message: Message, isFailure: boolean, operation?: Operation | null, pieceId?: string) => void;

/** What can be said of operations before anything is worked out. */
function checkedOperations(operations: readonly Operation[], { tools, spoilMm }: MillingSettings, thicknessMm: number, note: Note): void {
  for (const operation of operations.filter(({ isOn }) => isOn)) {
    const used = toolIdsOf(operation).map((id) => tools.find((tool) => tool.id === id));
    if (!used[0]) note(say.milling.noTool(operationWords[operation.kind]), true, operation);
    else for (const tool of used) if (tool) checkedDepth(operation, tool, spoilMm, thicknessMm, note);
  }
}

function toolIdsOf(operation: Operation): (string | null)[] {
  if (operation.kind === 'pocket') return [operation.tool, operation.restTool];
  return operation.kind === 'carve' || operation.kind === 'inlay' ? [operation.tool, operation.floorTool] : [operation.tool];
}

function checkedDepth(operation: Operation, tool: MillTool, spoilMm: number, thicknessMm: number, note: Note): void {
  if (operation.kind === 'chamfer') return;
  const word = operationWords[operation.kind];
  const isThrough = operation.depthMm === null && operation.kind !== 'pocket';
  const depth = operation.depthMm ?? (isThrough ? thicknessMm : thicknessMm / 2);
  if (depth > thicknessMm + 1e-9) note(say.milling.deeperThanStock(word, length(depth), length(thicknessMm)), true, operation);
  const deepest = isThrough ? depth + spoilMm : depth;
  if (tool.cutLengthMm !== null && deepest > tool.cutLengthMm + 1e-9)
    note(say.milling.deeperThanEdges(word, length(deepest), tool.name, length(tool.cutLengthMm)), true, operation);
}

/** What the machine cannot do. */
function checkedMachine(runs: readonly MillRun[], machine: Machine, { safeZ }: Heights, note: Note): void {
  const places = runs.flatMap(({ moves }) => moves.map(({ to }) => to));
  if (places.length === 0) return;
  const box = boxAroundBoxes(places.map(({ x, y }) => ({ minX: x, minY: y, maxX: x, maxY: y }))) as Box;
  const { bedWidthMm: width, bedHeightMm: height, travelZMm } = machine;
  if ((width !== null && widthOf(box) > width) || (height !== null && heightOf(box) > height))
    note(say.milling.outsideMachine(length(widthOf(box)), length(heightOf(box)), length(width ?? 0), length(height ?? 0)), true);
  const lowest = places.reduce((min, { z }) => Math.min(min, z), 0);
  if (travelZMm !== null && safeZ - lowest > travelZMm) note(say.milling.beyondDepth(length(safeZ - lowest), length(travelZMm)), true);
  for (const tool of new Set(runs.map((run) => run.tool))) {
    const { spindleMaxRpm: max, spindleMinRpm: min } = machine;
    if (max !== null && tool.speedRpm > max) note(say.milling.fasterThanSpindle(tool.name, `${tool.speedRpm}`, `${max}`), false);
    if (min !== null && tool.speedRpm < min) note(say.milling.slowerThanSpindle(tool.name, `${tool.speedRpm}`, `${min}`), false);
  }
}

/** The runs of an operation in the order that travels least, those of one tool together; what lies inside a border before it. */
function* nearestOrder(runs: readonly RunMade[], from: Place | undefined): Generator<number, RunMade[]> {
  const ordered: RunMade[] = [];
  let at: Point = from ?? { x: 0, y: 0 };
  for (const tool of new Set(runs.map((run) => run.tool))) {
    const own = runs.filter((run) => run.tool === tool);
    const justRound = loopsRound(own.map(({ border }) => border));
    const stops = own.map((run, k): Stop => ({ entry: run.start, exit: endOfRun(run), isReversible: false, before: justRound.loop(k) }));
    const { order } = yield* orderedStops(stops, at);
    for (const k of order) ordered.push(own[k] as RunMade);
    at = endOfRun(ordered.at(-1) as RunMade);
  }
  return ordered;
}

const endOfRun = ({ start, moves }: Pick<MillRun, 'start' | 'moves'>): Place => moves.at(-1)?.to ?? start;

function cutLength(start: Place, moves: readonly Move[]): number {
  let at = start;
  let sum = 0;
  for (const move of moves) {
    if (!move.isRapid) sum += moveLength(at, move);
    at = move.to;
  }
  return sum;
}

const across = (to: Place): Move => ({ isRapid: true, to, sweep: 0, feedMmPerMin: 0 });

function secondsInAll(runs: readonly MillRun[], machine: Machine): number {
  let seconds = 0;
  let last: MillRun | null = null;
  for (const run of runs) {
    seconds += run.seconds;
    if (last) seconds += secondsOf(endOfRun(last), [across(run.start)], machine.travelMmPerMin, machine.accelerationMmPerS2);
    if (last && last.tool !== run.tool) seconds += toolChangeSeconds;
    last = run;
  }
  return seconds;
}

/** The runs of each tool, as long as it stays in the spindle: what one program is for. */
export function programsOf({ runs }: Pick<MillPlan, 'runs'>): { readonly tool: MillTool; readonly runs: MillRun[] }[] {
  const programs: { tool: MillTool; runs: MillRun[] }[] = [];
  for (const run of runs) {
    const last = programs.at(-1);
    if (last && last.tool.id === run.tool.id) last.runs.push(run);
    else programs.push({ tool: run.tool, runs: [run] });
  }
  return programs;
}
