/**
 * In: pieces, and how they are cut. Out: the ways of the tool in the order that they are travelled: kerf taken off, areas
 * filled with lines, holes before what is round them, led in and out, with how far it is and how long it takes.
 */

import type { Machine } from '../job/machine.ts';
import { makeOf, type Purpose, purposeKinds, purposes } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import type { Message } from '../messages/index.ts';
import {
  type Box,
  boxAroundBoxes,
  directionOn,
  distance,
  endOf,
  type Path,
  type Point,
  pathArea,
  pathBox,
  pathLength,
  reversedPath,
  type Step,
  stepsOf,
} from '../plane/index.ts';
import { CutLines } from './common-lines.ts';
import { type Cutting, powerSettingOf } from './cutting.ts';
import { hatchLines } from './hatch.ts';
import { kerfCompensated } from './kerf.ts';
import { hasRoom, type IsWaste, ledInAndOut, wasteBeside } from './leads.ts';
import { loopsRound } from './loops-round.ts';
import { legsOf, travelTime } from './motion.ts';
import { type Ordered, orderedStops, type Stop, travelOf } from './order.ts';
import { perforated } from './perforation.ts';
import { originOn } from './placement.ts';
import { startedAt, startPoints } from './start-points.ts';
import { tabPlaces, withoutTabs } from './tabs.ts';

/** One way with the tool on. */
export interface Run {
  readonly purpose: Purpose;
  readonly path: Path;
  readonly pieceId: string;
  readonly name: string;
  /** How far the tool moves along, off, before and after, mm: lines that fill an area. */
  readonly overscanMm: number;
}

export interface CutPlan {
  readonly runs: readonly Run[];
  /** What the tool cannot make, in words. */
  readonly lost: readonly (Message & { readonly pieceId: string; readonly isFailure: boolean })[];
  /** Between runs, as drawn and as ordered, mm. */
  readonly travelBeforeMm: number;
  readonly travelMm: number;
  readonly purposes: readonly { readonly purpose: Purpose; readonly lengthMm: number; readonly seconds: number }[];
  readonly travelSeconds: number;
  /** Round all runs. */
  readonly box: Box | null;
}

/** Where nothing is cut. */
export const noCut: CutPlan = { runs: [], lost: [], travelBeforeMm: 0, travelMm: 0, purposes: [], travelSeconds: 0, box: null };

/** Purposes in the order that they are made in. */
const turns = [...purposes].sort((a, b) => purposeKinds[a].order - purposeKinds[b].order);

/** Something that is made in one go: a loop, a line, the lines of an area; the ways it may begin. */
interface Task {
  readonly purpose: Purpose;
  readonly piece: Piece;
  /** A closed way that is still to be started somewhere, waste on its right. */
  readonly loop: Path | null;
  readonly runs: readonly Path[];
  readonly overscanMm: number;
  readonly isReversible: boolean;
  readonly isOuter: boolean;
}

/** Plans the cutting of pieces; yields the share done. */
export function* cutPlan(pieces: readonly Piece[], cutting: Cutting, machine: Machine): Generator<number, CutPlan> {
  const lost: CutPlan['lost'][number][] = [];
  const tasks: Task[] = [];
  const material: Path[] = [];
  for (const [k, piece] of pieces.entries()) {
    if (makeOf(piece) === 'nothing') continue;
    const { parts, lost: what, isFailure } = kerfCompensated(piece, cutting);
    if (what) lost.push({ pieceId: piece.id, ...what, isFailure });
    if (makeOf(piece) === 'part' && piece.outer.closed) material.push(piece.outer, ...piece.holes);
    tasks.push(...parts.flatMap((part) => tasksOf(piece, part, cutting)));
    if (k % 20 === 19) yield (0.3 * k) / pieces.length;
  }
  const box = boxAroundBoxes(tasks.flatMap((t) => (t.loop ? [t.loop] : t.runs)).map(pathBox));
  let at = box ? originOn(box, machine) : { x: 0, y: 0 };
  const home = at;
  const isWaste = wasteBeside(material, cutting.kerfMm / 2);
  const places = new Map(tasks.map((task) => [task, placesToStart(task, cutting, isWaste)]));
  const done: { task: Task; runs: Path[] }[] = [];
  for (const purpose of turns) {
    const own = tasks.filter((t) => t.purpose === purpose);
    if (own.length === 0) continue;
    const made = yield* orderedTasks(own, places, at, cutting, isWaste);
    done.push(...made);
    at = endOfRuns(made) ?? at;
  }
  const cutLines = new CutLines();
  const runs = done.flatMap(({ task, runs: paths }) =>
    (cutting.commonLines && makeOf(task) === 'part' ? paths.flatMap((path) => cutLines.rest(path)) : paths).map(
      (path): Run => ({ purpose: task.purpose, path, pieceId: task.piece.id, name: task.piece.name, overscanMm: task.overscanMm }),
    ),
  );
  const asDrawn = turns.flatMap((purpose) =>
    tasks
      .filter((t) => t.purpose === purpose)
      .flatMap((t) => (t.loop ? [begun(t, places.get(t)?.[0] as Point, cutting, isWaste)] : [[...t.runs]])),
  );
  return {
    runs,
    lost,
    travelBeforeMm: travelAlong(asDrawn.flat(), home),
    travelMm: travelAlong(
      runs.map((r) => r.path),
      home,
    ),
    ...timesOf(runs, cutting, machine, home),
    box: boxAroundBoxes(runs.map((r) => pathBox(r.path))),
  };
}

/** All at once. */
export function plannedCut(pieces: readonly Piece[], cutting: Cutting, machine: Machine): CutPlan {
  const steps = cutPlan(pieces, cutting, machine);
  let step = steps.next();
  while (!step.done) step = steps.next();
  return step.value;
}

/** Waste lies right of the way: outer outlines run counter-clockwise, holes clockwise. */
const oriented = (path: Path, left: boolean): Path => (pathArea(path) > 0 === left ? path : reversedPath(path));

function tasksOf(piece: Piece, part: { outer: Path; holes: readonly Path[] }, cutting: Cutting): Task[] {
  const { purpose } = piece;
  const task = (more: Partial<Task>): Task => ({
    purpose,
    piece,
    loop: null,
    runs: [],
    overscanMm: 0,
    isReversible: false,
    isOuter: false,
    ...more,
  });
  if (makeOf({ purpose }) === 'fill') {
    const lines = part.outer.closed ? hatchLines([part.outer, ...part.holes], cutting.hatch.angle, cutting.hatch.spacingMm) : [part.outer];
    return lines.length > 0 ? [task({ runs: lines, overscanMm: cutting.hatch.overscanMm })] : [];
  }
  if (makeOf({ purpose }) === 'dashes')
    return [part.outer, ...part.holes].map((path) => task({ runs: perforated(path, cutting.perforation), isReversible: true }));
  const closed = [...part.holes.map((hole) => ({ path: oriented(hole, false), isOuter: false })), { path: part.outer, isOuter: true }];
  return closed.map(({ path, isOuter }) =>
    path.closed ? task({ loop: isOuter ? oriented(path, true) : path, isOuter }) : task({ runs: [path], isReversible: true }),
  );
}

/**
 * Where a loop may start: of its corners those where the lead has room; else of its joints, since inner corners have none and
 * outer ones are rounded by the kerf.
 */
function placesToStart({ loop, purpose }: Task, cutting: Cutting, isWaste: IsWaste): Point[] {
  if (!loop) return [];
  const places = startPoints(loop, cutting.start);
  if (purposeKinds[purpose].make !== 'part' || cutting.lead.kind === 'none' || cutting.start !== 'corner') return places;
  const isRoomy = ({ from, segment }: Step): boolean => hasRoom(from, directionOn(from, segment, 0), cutting.lead, isWaste);
  const joints = stepsOf(loop);
  const corners = joints.filter(({ from }) => places.some(({ x, y }) => x === from.x && y === from.y));
  for (const some of [corners, joints]) {
    const roomy = some.filter(isRoomy);
    if (roomy.length > 0) return roomy.map(({ from }) => from);
  }
  return places;
}

/** A task's ways once its start is chosen. */
function begun(task: Task, start: Point, cutting: Cutting, isWaste: IsWaste): Path[] {
  if (!task.loop) return [...task.runs];
  const loop = startedAt(task.loop, start);
  if (makeOf(task) !== 'part') return [loop];
  if (task.isOuter) {
    const tabs = tabPlaces(loop, cutting.tabs);
    // The tool takes half a kerf off either side of a bridge.
    if (tabs.length > 0) return withoutTabs(loop, tabs, cutting.tabs.widthMm + cutting.kerfMm);
  }
  return [ledInAndOut(loop, cutting, isWaste)];
}

/** Of more tasks a third order would take longer than it saves. */
const manyTasks = 500;

function* orderedTasks(
  tasks: readonly Task[],
  startsOf: ReadonlyMap<Task, Point[]>,
  from: Point,
  cutting: Cutting,
  isWaste: IsWaste,
): Generator<number, { task: Task; runs: Path[] }[]> {
  const waits = waitingIn(tasks);
  const places = tasks.map((t) => startsOf.get(t) ?? []);
  let starts = places.map((list) => list[0] ?? null);
  let best: { toolpaths: Path[][]; ordered: Ordered } | null = null;
  // Where a loop may start in several places the first order tells which is on the way; then it is ordered once more.
  const rounds = tasks.length > manyTasks ? 2 : 3;
  for (let round = 0; round < rounds; round++) {
    const toolpaths = tasks.map((t, k) => begun(t, (starts[k] ?? { x: 0, y: 0 }) as Point, cutting, isWaste));
    const stops = toolpaths.map((paths, k): Stop => ({ entry: entryOf(paths), exit: exitOf(paths), isReversible: (tasks[k] as Task).isReversible, before: waits[k] as number | null })); // biome-ignore format: one line
    const ordered = yield* orderedStops(stops, from);
    if (best && ordered.travelMm >= best.ordered.travelMm - 1e-6) break;
    best = { toolpaths, ordered };
    starts = nearerStarts(ordered, stops, places, starts, from);
  }
  const { toolpaths, ordered } = best as NonNullable<typeof best>;
  return ordered.order.map((k) => {
    const paths = toolpaths[k] as Path[];
    return { task: tasks[k] as Task, runs: ordered.isReversed[k] ? paths.map(reversedPath).reverse() : paths };
  });
}

/** Of each loop the start that lies best between what comes before and what comes after. */
function nearerStarts(
  ordered: Ordered,
  stops: readonly Stop[],
  places: readonly Point[][],
  starts: readonly (Point | null)[],
  from: Point,
): (Point | null)[] {
  const next = [...starts];
  let at = from;
  ordered.order.forEach((k, i) => {
    const list = places[k] as Point[];
    const after = ordered.order[i + 1];
    const to = after === undefined ? null : (stops[after] as Stop).entry;
    if (list.length > 1) {
      const cost = (p: Point): number => distance(at, p) + (to ? distance(p, to) : 0);
      next[k] = list.reduce((best, p) => (cost(p) < cost(best) ? p : best));
      at = next[k] as Point;
    } else at = ordered.isReversed[k] ? (stops[k] as Stop).entry : (stops[k] as Stop).exit;
  });
  return next;
}

const entryOf = (paths: readonly Path[]): Point => (paths[0] as Path).start;
const exitOf = (paths: readonly Path[]): Point => endOf(paths.at(-1) as Path);

function endOfRuns(made: readonly { runs: Path[] }[]): Point | null {
  const last = made.at(-1);
  return last ? exitOf(last.runs) : null;
}

/** For each loop which is just round it and must wait: holes come before their outer, nested pieces before the hole they lie in. */
function waitingIn(tasks: readonly Task[]): (number | null)[] {
  const justRound = loopsRound(tasks.map(({ loop }) => loop));
  return tasks.map((task, k) => {
    if (makeOf(task) !== 'part') return null;
    const first = task.runs[0];
    return task.loop ? justRound.loop(k) : first ? justRound.place(first.start) : null;
  });
}

function travelAlong(paths: readonly Path[], home: Point): number {
  const stops = paths.map((path): Stop => ({ entry: path.start, exit: endOf(path), isReversible: false, before: null }));
  return travelOf(stops, [...stops.keys()], home);
}

function timesOf(runs: readonly Run[], cutting: Cutting, machine: Machine, home: Point) {
  const by = new Map<Purpose, { lengthMm: number; seconds: number }>();
  let at = home;
  let travelSeconds = 0;
  const jump = (to: Point): void => {
    const lengthMm = distance(at, to);
    if (lengthMm > 1e-9)
      travelSeconds += travelTime(
        [{ lengthMm, from: { x: 1, y: 0 }, to: { x: 1, y: 0 } }],
        machine.travelMmPerMin / 60,
        machine.accelerationMmPerS2,
      );
    at = to;
  };
  for (const { purpose, path, overscanMm } of runs) {
    const { speedMmPerMin, passes } = powerSettingOf(cutting, purpose);
    jump(path.start);
    const legs = legsOf(path);
    const [first, last] = [legs[0], legs.at(-1)];
    const airy =
      overscanMm > 0 && first && last
        ? [{ lengthMm: overscanMm, from: first.from, to: first.from }, ...legs, { lengthMm: overscanMm, from: last.to, to: last.to }]
        : legs;
    const own = by.get(purpose) ?? { lengthMm: 0, seconds: 0 };
    own.lengthMm += passes * pathLength(path);
    own.seconds += passes * travelTime(airy, speedMmPerMin / 60, machine.accelerationMmPerS2);
    by.set(purpose, own);
    at = endOf(path);
  }
  return { purposes: turns.flatMap((purpose) => { const own = by.get(purpose); return own ? [{ purpose, ...own }] : []; }), travelSeconds }; // biome-ignore format: one line
}
