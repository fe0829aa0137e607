/**
 * In: a line and a stitch length. Out: where the needle goes down: at every corner, and between corners at equal stitches, shorter where
 * the line bends so that a stitch would leave it by more than a chord error.
 * A chord of length s on a curve of radius r leaves it by s^2 / 8 r.
 */
import { between, directionOn, distance, type Path, type Point, pointOn, type Step, stepsOf, turnBetween } from '../plane/index.ts';

export interface StitchSettings {
  readonly stitchMm: number;
  /** How far a stitch may leave the line, mm. */
  readonly chordMm: number;
}

/** A line turns sharply by more than this, degrees. */
const cornerDegrees = 30;
/** The line is looked at in steps as long as this, mm, and no fewer than so many to a segment. */
const lookMm = 0.25;
const fewestLooks = 8;
const mostLooks = 4000;
/** No stitch is made shorter than this by a bend, mm. */
const shortestMm = 0.4;

export function stitchesAlong(path: Path, { stitchMm, chordMm }: StitchSettings): Point[] {
  const steps = stepsOf(path).filter(({ from, segment }) => segment.kind !== 'line' || distance(from, segment.to) > 0);
  const chains: Step[][] = [];
  for (const step of steps) {
    const last = chains.at(-1)?.at(-1);
    const turn = last ? turnBetween(directionOn(last.from, last.segment, 1), directionOn(step.from, step.segment, 0)) : Math.PI;
    if (Math.abs(turn) * (180 / Math.PI) > cornerDegrees) chains.push([step]);
    else chains.at(-1)?.push(step);
  }
  return [path.start, ...chains.flatMap((chain) => stitchesOf(chain, stitchMm, chordMm))];
}

/** A short stitch at the end of a thread, mm. */
const tieOffMm = 0.8;

/**
 * The stitches of runs, one after another: where the needle is lifted between them each is tied off at both ends, by so many short stitches
 * to and fro.
 */
export function stitchesOfRuns(
  runs: readonly { readonly path: Path }[],
  settings: StitchSettings & { readonly tieOffs: number },
): Point[][] {
  const sewn = runs.map(({ path }) => stitchesAlong(path, settings));
  return runs.length > 1 ? sewn.map((stitches) => tiedOff(stitches, settings.tieOffs)) : sewn;
}

function tiedOff(stitches: readonly Point[], times: number): Point[] {
  const [first, second] = stitches;
  const [before, last] = stitches.slice(-2);
  if (!first || !second || !before || !last) return [...stitches];
  const short = (end: Point, next: Point): Point => between(end, next, Math.min(1, tieOffMm / Math.max(distance(end, next), 1e-9)));
  const toAndFro = (end: Point, next: Point): Point[] => Array.from({ length: times }, () => [short(end, next), end]).flat();
  return [first, ...toAndFro(first, second), ...stitches.slice(1), ...toAndFro(last, before)];
}

function stitchesOf(chain: readonly Step[], stitchMm: number, chordMm: number): Point[] {
  const places = chain.flatMap(({ from, segment }, k) => {
    const rough = distance(from, segment.to) + 1e-9;
    const count = segment.kind === 'line' ? 1 : Math.min(mostLooks, Math.max(fewestLooks, Math.ceil((3 * rough) / lookMm)));
    const own = Array.from({ length: count }, (_, j) => (j === count - 1 ? segment.to : pointOn(from, segment, (j + 1) / count)));
    return k === 0 ? [from, ...own] : own;
  });
  // How many stitches lie up to each place: each stretch counts for its length over the stitch that its bend allows.
  const upTo = [0];
  for (let k = 1; k < places.length; k++) {
    const [p, q] = [places[k - 1] as Point, places[k] as Point];
    const length = distance(p, q);
    const radius = Math.min(radiusAt(places, k - 1), radiusAt(places, k));
    const longest = Math.max(shortestMm, Math.min(stitchMm, Math.sqrt(8 * chordMm * radius)));
    upTo.push((upTo[k - 1] as number) + length / longest);
  }
  const all = upTo.at(-1) as number;
  const count = Math.max(1, Math.ceil(all - 1e-6));
  const made: Point[] = [];
  for (let n = 1, k = 1; n <= count; n++) {
    const wanted = (all * n) / count;
    while (k < upTo.length - 1 && (upTo[k] as number) < wanted) k++;
    const [before, after] = [upTo[k - 1] as number, upTo[k] as number];
    const t = after > before ? (wanted - before) / (after - before) : 1;
    const [p, q] = [places[k - 1] as Point, places[k] as Point];
    made.push(n === count ? (places.at(-1) as Point) : { x: p.x + (q.x - p.x) * t, y: p.y + (q.y - p.y) * t });
  }
  return made;
}

/** The radius of the circle through a place and its neighbours; infinite at the ends and on a straight. */
function radiusAt(places: readonly Point[], k: number): number {
  const [a, b, c] = [places[k - 1], places[k], places[k + 1]];
  if (!a || !b || !c) return Infinity;
  const twiceArea = Math.abs((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x));
  return twiceArea < 1e-12 ? Infinity : (distance(a, b) * distance(b, c) * distance(a, c)) / (2 * twiceArea);
}
