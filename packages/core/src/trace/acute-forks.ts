/**
 * In: runs between the junctions of thinned ink. Out: the same, with lines that come together at a sharp angle led on to where they
 * truly meet: before that their ink has run together, and looks like one line, a stem.
 * Rests on: the crossing of the two arms' own lines, which lies on the stem (good continuation).
 */
import { distance, dot, type Point, subtract } from '../plane/point.ts';
import type { Tip } from './dashes.ts';
import type { RunEnd } from './junction-point.ts';
import { clearOfNode, ledTo, meetingOfBows, type Run, tipsByNode } from './run-ends.ts';

/** Arms with a larger angle between them share too little ink to make a stem, radians. */
const maxAngle = 0.7;
/** The stem goes on between them: it leaves the line half way between by no more, radians. */
const maxAside = 0.35;
/** The place where the arms meet lies beside the stem by no more than so many widths, and beyond its end neither. */
const besideWidths = 0.8;

export function withoutStems(given: readonly Run[]): Run[] {
  const runs: (Run | null)[] = [...given];
  const nodes = tipsByNode(given);
  let nextNode = Math.max(-1, ...nodes.keys()) + 1;
  for (const tips of nodes.values()) {
    if (tips.length !== 3) continue;
    const fork = forkOf(runs, tips);
    if (!fork) continue;
    const { arms, stem, place } = fork;
    const run = runs[stem.run] as Run;
    const far: 0 | 1 = stem.side === 0 ? 1 : 0;
    const isWhole =
      distance(place, run.ends[far].at) < besideWidths * run.width + 2 || run.length < distance(place, run.nodesAt[stem.side]);
    const node = isWhole ? run.ends[far].node : nextNode++;
    for (const { run: k, side } of arms) runs[k] = endingAt(ledTo(clearOfNode(runs[k] as Run, side).run, side, place), side, node, place);
    const shorter = isWhole ? null : withoutStart(run, stem.side, place);
    runs[stem.run] = shorter ? endingAt(shorter, stem.side, node, place) : null;
  }
  return runs.filter((run) => run !== null);
}

/** Which two of three runs come together, along the third, and where their lines meet. */
function forkOf(runs: readonly (Run | null)[], tips: readonly Tip[]): { arms: [Tip, Tip]; stem: Tip; place: Point } | null {
  for (let k = 0; k < 3; k++) {
    const [stem, a, b] = [tips[k], tips[(k + 1) % 3], tips[(k + 2) % 3]] as [Tip, Tip, Tip];
    const [whole, p, q] = [stem, a, b].map(({ run }) => runs[run]);
    if (!whole || !p || !q || p === q || whole === p || whole === q) continue;
    const [e, f] = [clearOfNode(p, a.side).end, clearOfNode(q, b.side).end];
    const angle = Math.acos(Math.max(-1, Math.min(1, dot(e.out, f.out))));
    if (angle > maxAngle || angle < 1e-3) continue;
    const on = { x: e.out.x + f.out.x, y: e.out.y + f.out.y };
    const back = whole.ends[stem.side].out;
    if (-dot(on, back) < Math.cos(maxAside) * Math.sqrt(dot(on, on))) continue;
    const place = meetingOfBows(e, f);
    if (place && isOnStem(whole, stem.side, place)) return { arms: [a, b], stem, place };
  }
  return null;
}

/** Whether a place lies on a stem, beyond the fork by more than the ink is wide. */
function isOnStem(run: Run, side: 0 | 1, place: Point): boolean {
  const from = run.nodesAt[side];
  const { out } = run.ends[side];
  const off = subtract(place, from);
  const along = -dot(off, out);
  const aside = Math.abs(off.x * out.y - off.y * out.x);
  const beside = besideWidths * run.width + 2;
  return along > run.width && along < run.length + beside && aside < beside;
}

/** A run whose end is at another node. */
function endingAt(run: Run, side: 0 | 1, node: number, place: Point): Run {
  const end: RunEnd = { ...run.ends[side], node, at: place };
  const { ends, nodesAt } = run;
  return side === 0
    ? { ...run, ends: [end, ends[1]], nodesAt: [place, nodesAt[1]] }
    : { ...run, ends: [ends[0], end], nodesAt: [nodesAt[0], place] };
}

/** What of a run lies beyond a place on it; null where that is next to nothing. */
function withoutStart(run: Run, side: 0 | 1, place: Point): Run | null {
  const { points, ends } = run;
  const { out } = ends[side];
  const n = points.length / 2;
  const isBeyond = (k: number): boolean => dot(subtract({ x: points[2 * k] as number, y: points[2 * k + 1] as number }, place), out) < 0;
  const kept: number[] = [];
  for (let k = 0; k < n; k++) if (isBeyond(k)) kept.push(points[2 * k] as number, points[2 * k + 1] as number);
  const gone = distance(place, run.nodesAt[side]);
  return kept.length < 4 ? null : { ...run, points: Float64Array.from(kept), length: run.length - gone };
}
