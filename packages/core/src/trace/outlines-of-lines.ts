/**
 * In: open lines that end on one another and cross. Out: the closed outlines about all that they enclose, and what is left: lines
 * inside, and tips that run on past where they met.
 * Rests on: the planar map of the lines; tips and stems that bound no face are taken off, and what remains is walked about with the
 * outside always on the same hand (face traversal of a planar subdivision, de Berg et al. 2008, 2.2).
 */
import { endOf, nearestOnPath, type Path, pathArea, pathBox, pathLength, polygonOf, reversedPath } from '../plane/path.ts';
import { distance, type Point } from '../plane/point.ts';
import { boxIndex } from '../shape/box-index.ts';
import { closedExactly, concatenated, splitAtPlaces } from '../shape/chains.ts';
import { merged } from '../shape/merging.ts';
import { withoutNeedless } from '../shape/needless.ts';
import { type CutPlace, selfCrossings } from '../shape/path-crossings.ts';
import { parameters } from './parameters.ts';

/** An end this near to another line ends on it, px. */
const touchPx = 0.6;
/** Which way a line sets out from a node is seen over this much of it, px. */
const setOutPx = 6;

export interface OutlinesOfLines {
  readonly outlines: Path[];
  readonly rest: Path[];
}

interface Edge {
  readonly line: number;
  readonly run: Path;
  readonly from: number;
  readonly to: number;
}

/** An edge and which way it is walked. */
interface Half {
  readonly edge: number;
  readonly isBack: boolean;
}

export function outlinesOfLines(lines: readonly Path[]): OutlinesOfLines {
  const edges = edgesOf(lines);
  const isLeft = new Set(edges.keys());
  takeOffTips(edges, isLeft);
  const loops = outerLoops(edges, isLeft);
  const used = new Set(loops.flat().map(({ edge }) => edge));
  const outlines = loops.map((loop) => {
    const runs = loop.map((half) => walked(edges, half));
    // Where lines were cut at one another a straight goes on as before.
    return withoutNeedless(merged(closedExactly(concatenated(runs, true))), parameters.needlessPx).path;
  });
  return { outlines, rest: restOf(lines, edges, used) };
}

const walked = (edges: readonly Edge[], { edge, isBack }: Half): Path => {
  const { run } = edges[edge] as Edge;
  return isBack ? reversedPath(run) : run;
};

/** The lines cut where they meet, with the places that they lead from and to. */
function edgesOf(lines: readonly Path[]): Edge[] {
  const cuts: CutPlace[][] = lines.map(() => []);
  for (const place of [...selfCrossings(lines), ...touches(lines)]) cuts[place.path]?.push(place);
  const nodes = nodeFinder();
  return lines.flatMap((path, line) =>
    splitAtPlaces(path, cuts[line] ?? []).map((run): Edge => ({ line, run, from: nodes(run.start), to: nodes(endOf(run)) })),
  );
}

/** Where ends of lines lie on others, at their very ends. */
function touches(lines: readonly Path[]): CutPlace[] {
  const index = boxIndex(lines.map(pathBox), touchPx);
  return lines.flatMap((line, k) =>
    [line.start, endOf(line)].flatMap((end) =>
      (index?.search(end.x, end.y, end.x, end.y) ?? []).flatMap((other): CutPlace[] => {
        if (other === k) return [];
        const path = lines[other] as Path;
        const { index: segment, t, point } = nearestOnPath(path, end);
        const isEnd = distance(point, path.start) <= touchPx || distance(point, endOf(path)) <= touchPx;
        return isEnd || distance(point, end) > touchPx ? [] : [{ path: other, segment, t, at: end }];
      }),
    ),
  );
}

/** Numbers for places; those within reach of each other are one. */
function nodeFinder(): (p: Point) => number {
  const byCell = new Map<string, { p: Point; node: number }[]>();
  let count = 0;
  return (p) => {
    const [i, j] = [Math.floor(p.x / touchPx), Math.floor(p.y / touchPx)];
    for (const x of [i - 1, i, i + 1])
      for (const y of [j - 1, j, j + 1])
        for (const known of byCell.get(`${x} ${y}`) ?? []) if (distance(known.p, p) <= touchPx) return known.node;
    const key = `${i} ${j}`;
    byCell.set(key, [...(byCell.get(key) ?? []), { p, node: count }]);
    return count++;
  };
}

/** Edges that lead to a node where nothing else is, again and again. */
function takeOffTips(edges: readonly Edge[], isLeft: Set<number>): void {
  const at = new Map<number, Set<number>>();
  for (const [k, { from, to }] of edges.entries()) for (const node of [from, to]) at.set(node, (at.get(node) ?? new Set()).add(k));
  const degree = (node: number): number => [...(at.get(node) ?? [])].reduce((n, k) => n + (edges[k]?.from === edges[k]?.to ? 2 : 1), 0);
  const loose = [...at.keys()].filter((node) => degree(node) === 1);
  for (let node = loose.pop(); node !== undefined; node = loose.pop()) {
    const [only] = at.get(node) ?? [];
    if (only === undefined || degree(node) !== 1) continue;
    isLeft.delete(only);
    const { from, to } = edges[only] as Edge;
    for (const end of [from, to]) at.get(end)?.delete(only);
    loose.push(from === node ? to : from);
  }
}

/** The way about each connected part; stems between two parts are walked there and back and are taken off first. */
function outerLoops(edges: readonly Edge[], isLeft: Set<number>): Half[][] {
  for (;;) {
    const cycles = cyclesOf(edges, isLeft);
    const stems = cycles.flatMap((cycle) => {
      const walkedOnce = new Set<number>();
      return cycle.flatMap(({ edge }) => {
        if (walkedOnce.has(edge)) return [edge];
        walkedOnce.add(edge);
        return [];
      });
    });
    if (stems.length === 0) return outermost(edges, isLeft, cycles);
    for (const edge of stems) isLeft.delete(edge);
    takeOffTips(
      edges.map((edge, k) => (isLeft.has(k) ? edge : nowhere)),
      isLeft,
    );
  }
}

const nowhere: Edge = { line: -1, run: { start: { x: 0, y: 0 }, segments: [], closed: false }, from: -1, to: -1 };

/** Every face's border, each edge walked once either way. */
function cyclesOf(edges: readonly Edge[], isLeft: ReadonlySet<number>): Half[][] {
  const leaving = new Map<number, { half: Half; angle: number }[]>();
  const put = (node: number, half: Half) => {
    leaving.set(node, [...(leaving.get(node) ?? []), { half, angle: settingOut(walked(edges, half)) }]);
  };
  for (const k of isLeft) {
    const { from, to } = edges[k] as Edge;
    put(from, { edge: k, isBack: false });
    put(to, { edge: k, isBack: true });
  }
  for (const list of leaving.values()) list.sort((a, b) => a.angle - b.angle);
  const key = ({ edge, isBack }: Half): string => `${edge} ${isBack}`;
  const seen = new Set<string>();
  const cycles: Half[][] = [];
  for (const list of leaving.values())
    for (const { half: first } of list) {
      if (seen.has(key(first))) continue;
      const cycle: Half[] = [];
      for (let half = first; !seen.has(key(half)); ) {
        seen.add(key(half));
        cycle.push(half);
        const { from, to } = edges[half.edge] as Edge;
        const around = leaving.get(half.isBack ? from : to) ?? [];
        // On by the next line after the one that was come by.
        const back = around.findIndex(({ half: h }) => h.edge === half.edge && h.isBack !== half.isBack);
        half = (around[(back + 1) % around.length] as { half: Half }).half;
      }
      cycles.push(cycle);
    }
  return cycles;
}

/** Of each connected part the border that goes about all of it. */
function outermost(edges: readonly Edge[], isLeft: ReadonlySet<number>, cycles: readonly Half[][]): Half[][] {
  const part = partsOf(edges, isLeft);
  const best = new Map<number, { cycle: Half[]; area: number }>();
  for (const cycle of cycles) {
    const area = Math.abs(pathArea(closedExactly(concatenated(cycle.map((half) => walked(edges, half)), true)))); // biome-ignore format: one line
    const [first] = cycle;
    if (!first) continue;
    const of = part((edges[first.edge] as Edge).from);
    if (area > (best.get(of)?.area ?? 0)) best.set(of, { cycle, area });
  }
  return [...best.values()].map(({ cycle }) => cycle);
}

/** Which part of the map a node belongs to (union-find). */
function partsOf(edges: readonly Edge[], isLeft: ReadonlySet<number>): (node: number) => number {
  const parent = new Map<number, number>();
  const root = (node: number): number => {
    let at = node;
    while ((parent.get(at) ?? at) !== at) at = parent.get(at) as number;
    return at;
  };
  for (const k of isLeft) {
    const { from, to } = edges[k] as Edge;
    parent.set(root(from), root(to));
  }
  return root;
}

/** The direction in which a path leaves its start, radians. */
function settingOut(path: Path): number {
  const chords = polygonOf(path, 0.05);
  const reach = Math.min(setOutPx, pathLength(path) / 2);
  const away = chords.find((q) => distance(q, path.start) >= reach) ?? endOf(path);
  // A chord may be longer than the reach: along it the direction is the same.
  return Math.atan2(away.y - path.start.y, away.x - path.start.x);
}

/** What is not used, runs of one line that follow each other as one; untouched lines as they were. */
function restOf(lines: readonly Path[], edges: readonly Edge[], used: ReadonlySet<number>): Path[] {
  return lines.flatMap((line, k) => {
    const own = edges.flatMap((edge, index) => (edge.line === k ? [{ run: edge.run, isUsed: used.has(index) }] : []));
    if (own.every(({ isUsed }) => !isUsed)) return [line];
    const groups: Path[][] = [[]];
    for (const { run, isUsed } of own) {
      if (isUsed) groups.push([]);
      else groups.at(-1)?.push(run);
    }
    return groups.filter((group) => group.length > 0).map((group) => merged(concatenated(group, false)));
  });
}
