/**
 * In: a closed way of the tool, travelled so that the waste lies on its right, and what must not be cut. Out: the way led in
 * and out through the waste, and cut on over its start.
 */

import {
  directionOn,
  isInBox,
  type Path,
  type Point,
  pathBox,
  pathLength,
  pointOn,
  reversedPath,
  type Segment,
  stepsOf,
  subPath,
} from '../plane/index.ts';
import { nearnessTo, windingNumber } from '../shape/index.ts';
import type { Cutting } from './cutting.ts';

/** What is left round the pieces: whether a lead, open and of one segment, lies in it from where it leaves the way outwards. */
export type IsWaste = (lead: Path) => boolean;

/** By so much a way may lie nearer to its outline than half the kerf: what offsets are off, mm. */
const slackMm = 0.006;
/** Steps along a lead are no shorter, mm. */
const minStepMm = 0.004;
/** Of a way without kerf, which begins on the piece itself, this share of a lead may lie by it. */
const besideShare = 0.25;

/**
 * @param material outlines of what must stay whole
 * @param clearMm how far the tool's middle keeps off them: half the kerf
 */
export function wasteBeside(material: readonly Path[], clearMm: number): IsWaste {
  const isNear = nearnessTo(material);
  const boxed = material.map((path) => ({ path, box: pathBox(path) }));
  const isMaterial = (p: Point): boolean => {
    const round = boxed.flatMap(({ path, box }) => (isInBox(box, p) ? [path] : []));
    return round.length > 0 && windingNumber(round, p) !== 0;
  };
  return (lead) => {
    const [{ from, segment }] = stepsOf(lead) as [ReturnType<typeof stepsOf>[0]];
    const length = pathLength(lead);
    if ([0.25, 0.5, 0.75, 1].some((t) => isMaterial(pointOn(from, segment, t)))) return false;
    // A place is as far from the outlines as the one before it but for the step: where that is much, the next step is long.
    for (let at = 0, step = minStepMm; ; ) {
      const p = pointOn(from, segment, at / length);
      const clear = Math.max(clearMm - slackMm, at > besideShare * length ? slackMm / 2 : 0);
      if (clear > 0 && isNear(p, clear)) return false;
      if (at >= length) return true;
      while (step > minStepMm && isNear(p, clear + step)) step /= 2;
      at = Math.min(length, at + step);
      step *= 2;
    }
  };
}

/** Leads shorter than this are not worth having, mm. */
const minLead = 0.1;

/** A closed way with its lead-in, its overcut and its lead-out, as one open path. Leads are made shorter where there is no room. */
export function ledInAndOut(path: Path, { lead, overcutMm }: Pick<Cutting, 'lead' | 'overcutMm'>, isWaste: IsWaste): Path {
  const whole = pathLength(path);
  const over = Math.min(overcutMm, whole / 2);
  const segments = over > 0 ? [...path.segments, ...subPath(path, 0, over).segments] : [...path.segments];
  const [first] = stepsOf(path);
  if (!first) return path;
  const into = longestLead(path.start, directionOn(first.from, first.segment, 0), lead.kind, lead.inMm, isWaste, 'in');
  const end = (segments.at(-1) as Segment).to;
  const last = stepsOf({ start: path.start, segments: segments, closed: false }).at(-1) as ReturnType<typeof stepsOf>[0];
  const out = longestLead(end, directionOn(last.from, last.segment, 1), lead.kind, lead.outMm, isWaste, 'out');
  if (!into && !out && over === 0) return path;
  return {
    start: into?.start ?? path.start,
    segments: [...(into?.segments ?? []), ...segments, ...(out?.segments ?? [])],
    closed: false,
  };
}

/** Whether the lead into a way that starts at a place in a direction has room for its whole length. */
export const hasRoom = (at: Point, direction: Point, { kind, inMm }: Cutting['lead'], isWaste: IsWaste): boolean =>
  kind === 'none' || isWaste(leadOut(at, direction, kind, inMm, 'in'));

type Which = 'in' | 'out';

function longestLead(at: Point, direction: Point, kind: Cutting['lead']['kind'], wanted: number, isWaste: IsWaste, which: Which) {
  if (kind === 'none') return null;
  for (let size = wanted; size >= minLead; size /= 2) {
    const lead = leadOut(at, direction, kind, size, which);
    if (isWaste(lead)) return which === 'out' ? lead : reversedPath(lead);
  }
  return null;
}

/** A lead from the way outwards: straight at half a right angle, so that the tool does not turn back on itself, or a quarter of a circle without a corner. */
function leadOut(at: Point, d: Point, kind: 'line' | 'arc', size: number, which: Which): Path {
  const sign = which === 'in' ? -1 : 1;
  const by = kind === 'line' ? size / Math.SQRT2 : size;
  const to = { x: at.x + by * (d.y + sign * d.x), y: at.y + by * (-d.x + sign * d.y) };
  return { start: at, segments: [kind === 'line' ? { kind, to } : { kind, to, sweep: (-sign * Math.PI) / 2 }], closed: false };
}
