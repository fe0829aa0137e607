/**
 * In: the runs of a quilting line, and how far up the machine reaches in one pass. Out: the runs pass by pass, from the top down, cut where
 * one pass ends, with marks there by which the next one is laid.
 */
import { type Box, boxAroundBoxes, type Path, type Point, pathBox, pointOn, type Segment } from '../plane/index.ts';
import { pathCrossings, splitAtPlaces } from '../shape/index.ts';
import { inTurn, type LineRun, type StretchKind } from './continuous-line.ts';

export interface SewingPass {
  /** From its top to its foot, mm up. */
  readonly top: number;
  readonly foot: number;
  readonly runs: readonly LineRun[];
}

export interface Passes {
  readonly passes: readonly SewingPass[];
  /** A cross wherever a line goes on in the next pass. */
  readonly marks: readonly Path[];
}

/** How far a mark reaches to either side, mm. */
const markMm = 4;

/** Null where one pass reaches all of it. */
export function inPasses(runs: readonly LineRun[], throatMm: number | null): Passes | null {
  if (throatMm === null || runs.length === 0) return null;
  const box = boxAroundBoxes(runs.map(({ path }) => pathBox(path))) as Box;
  const count = Math.ceil((box.maxY - box.minY) / throatMm - 1e-9);
  if (count < 2) return null;
  // Passes as high as one another.
  const height = (box.maxY - box.minY) / count;
  const borders = Array.from({ length: count - 1 }, (_, k): Path => ({ start: { x: box.minX - 1, y: box.maxY - (k + 1) * height }, segments: [{ kind: 'line', to: { x: box.maxX + 1, y: box.maxY - (k + 1) * height } }], closed: false })); // biome-ignore format: one line
  const marks: Path[] = [];
  const bands: LineRun[][] = Array.from({ length: count }, () => []);
  for (const run of runs) {
    const { onA } = pathCrossings([run.path], borders);
    for (const { at } of onA) marks.push(...crossAt(at));
    for (const part of partsOf(run, onA)) {
      const [first] = part.path.segments as [Segment, ...Segment[]];
      const { y } = pointOn(part.path.start, first, 0.5);
      bands[Math.min(count - 1, Math.max(0, Math.floor((box.maxY - y) / height)))]?.push(part);
    }
  }
  const passes = bands.map((own, k) => ({ top: box.maxY - k * height, foot: box.maxY - (k + 1) * height, runs: inTurn(own) }));
  return { passes, marks };
}

/** A run cut at places; each part keeps what it knows of its segments. */
function partsOf({ path, kinds }: LineRun, places: Parameters<typeof splitAtPlaces>[1]): LineRun[] {
  if (places.length === 0) return [{ path, kinds }];
  const parts = splitAtPlaces({ ...path, closed: false }, places);
  // Whole segments and their parts come in order: each part goes on where the last one ended.
  let segment = 0;
  return parts.map((part) => {
    const own = part.segments.map((one): StretchKind => {
      const kind = kinds[segment] ?? 'drawn';
      const end = path.segments[segment]?.to;
      if (end && Math.hypot(end.x - one.to.x, end.y - one.to.y) < 1e-9) segment++;
      return kind;
    });
    return { path: part, kinds: own };
  });
}

function crossAt({ x, y }: Point): Path[] {
  const line = (x0: number, y0: number, x1: number, y1: number): Path => ({ start: { x: x0, y: y0 }, segments: [{ kind: 'line', to: { x: x1, y: y1 } }], closed: false }); // biome-ignore format: one line
  return [line(x - markMm, y, x + markMm, y), line(x, y - markMm, x, y + markMm)];
}
