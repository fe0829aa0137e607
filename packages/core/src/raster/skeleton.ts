/**
 * In: thinned lines of one pixel. Out: their network: chains of pixels between ends and junctions.
 * Rests on: the graph of 8-neighbours without diagonals that two straight steps make as well.
 */
import { aroundIn, inkOf, isInk, type Mask } from './ink-mask.ts';

/** A run of pixels, as indices into the mask, from one node to another; a closed run has none. */
export interface Chain {
  pixels: number[];
  /** The nodes at its first and last pixel, or -1 where the chain is closed. */
  nodes: [number, number];
}

export interface Skeleton {
  readonly chains: Chain[];
  /** How many nodes there are; a node with one chain is a free end. */
  readonly nodeCount: number;
}

/** The network of thinned ink. */
export function skeletonOf(mask: Mask): Skeleton {
  const pixels = inkOf(mask);
  const linked = linksIn(mask);
  const { nodeOf, nodeCount } = nodesOf(pixels, linked);
  const chains: Chain[] = [];
  const walked = new Set<number>();
  for (const [p, node] of nodeOf) {
    for (const first of linked(p)) {
      const other = nodeOf.get(first);
      if (other !== undefined) {
        if (other > node) chains.push({ pixels: [p, first], nodes: [node, other] });
      } else if (!walked.has(first)) chains.push(chainFrom(p, first, node, linked, nodeOf, walked));
    }
  }
  for (const p of pixels) {
    if (nodeOf.has(p) || walked.has(p)) continue;
    walked.add(p);
    const [first] = linked(p);
    if (first !== undefined) chains.push(chainFrom(p, first, -1, linked, nodeOf, walked));
  }
  return { chains, nodeCount };
}

/** A pixel's neighbours. A diagonal step counts only where neither of the two straight ways round it exists. */
function linksIn(mask: Mask): (p: number) => number[] {
  const around = aroundIn(mask.width);
  const isLinked = (p: number, k: number) => isInk(mask, p + (around[k & 7] as number));
  return (p) => {
    const found: number[] = [];
    for (let k = 0; k < 8; k++) {
      if (isLinked(p, k) && (k % 2 === 0 || !(isLinked(p, k - 1) || isLinked(p, k + 1)))) found.push(p + (around[k] as number));
    }
    return found;
  };
}

/** Ends and junctions; junction pixels that touch are one junction. */
function nodesOf(pixels: readonly number[], linked: (p: number) => number[]): { nodeOf: Map<number, number>; nodeCount: number } {
  const nodeOf = new Map<number, number>();
  let nodeCount = 0;
  for (const p of pixels) {
    const degree = linked(p).length;
    if (degree === 2 || nodeOf.has(p)) continue;
    const node = nodeCount++;
    nodeOf.set(p, node);
    for (const queue = degree > 2 ? [p] : []; queue.length > 0; ) {
      for (const q of linked(queue.pop() as number)) {
        if (nodeOf.has(q) || linked(q).length < 3) continue;
        nodeOf.set(q, node);
        queue.push(q);
      }
    }
  }
  return { nodeOf, nodeCount };
}

function chainFrom(
  start: number,
  first: number,
  node: number,
  linked: (p: number) => number[],
  nodeOf: ReadonlyMap<number, number>,
  walked: Set<number>,
): Chain {
  const pixels = [start, first];
  for (let [before, here] = [start, first]; ; ) {
    const end = nodeOf.get(here);
    if (end !== undefined) return { pixels, nodes: [node, end] };
    walked.add(here);
    const next = linked(here).find((q) => q !== before && !(walked.has(q) && !nodeOf.has(q)));
    // A closed run has come back to where it started.
    if (next === undefined || next === start) return { pixels, nodes: next === start && node >= 0 ? [node, node] : [-1, -1] };
    pixels.push(next);
    [before, here] = [here, next];
  }
}

/** Without chains that end freely within `longest` pixels of a junction, and with what then runs on made one chain. */
export function pruned({ chains, nodeCount }: Skeleton, longest: number): Skeleton {
  const degree = new Int32Array(nodeCount);
  const count = (list: readonly Chain[]) => {
    degree.fill(0);
    for (const { nodes } of list) for (const n of nodes) if (n >= 0) degree[n] = (degree[n] as number) + 1;
  };
  count(chains);
  const isSpur = ({ nodes: [a, b], pixels }: Chain) =>
    a >= 0 &&
    a !== b &&
    pixels.length <= longest &&
    Math.min(degree[a] as number, degree[b] as number) === 1 &&
    Math.max(degree[a] as number, degree[b] as number) > 2;
  // Thinning leaves small rings about a junction now and then.
  const isRing = ({ nodes: [a, b], pixels }: Chain) => a === b && pixels.length <= 3 * longest;
  const kept = chains.filter((chain) => !isSpur(chain) && !isRing(chain));
  count(kept);
  const at = new Map<number, Chain[]>();
  for (const chain of kept) for (const n of chain.nodes) if (n >= 0 && degree[n] === 2) at.set(n, [...(at.get(n) ?? []), chain]);
  const gone = new Set<Chain>();
  for (const [node, two] of at) {
    const [a, b] = two.map((chain) => chain) as [Chain, Chain];
    if (a === b) {
      // Its two ends meet: a closed run.
      a.nodes = [-1, -1];
      continue;
    }
    const first = a.nodes[1] === node ? a : reversed(a);
    const second = b.nodes[0] === node ? b : reversed(b);
    first.pixels = [...first.pixels, ...second.pixels.slice(1)];
    first.nodes = [first.nodes[0], second.nodes[1]];
    gone.add(second);
    const far = at.get(second.nodes[1]);
    if (far) far[far.indexOf(second)] = first;
  }
  return { chains: kept.filter((chain) => !gone.has(chain)), nodeCount };
}

function reversed(chain: Chain): Chain {
  chain.pixels = chain.pixels.toReversed();
  chain.nodes = [chain.nodes[1], chain.nodes[0]];
  return chain;
}

/** Junctions that a chain of at most `longest` pixels joins made one, as the two that a thinned crossing falls into. */
export function mergedJunctions({ chains, nodeCount }: Skeleton, longest: number): Skeleton {
  const degree = new Int32Array(nodeCount);
  for (const { nodes } of chains) for (const n of nodes) if (n >= 0) degree[n] = (degree[n] as number) + 1;
  const home = Int32Array.from({ length: nodeCount }, (_, k) => k);
  const find = (n: number): number => {
    let at = n;
    while (home[at] !== at) at = home[at] as number;
    return at;
  };
  const kept = chains.filter(({ pixels, nodes: [a, b] }) => {
    const isShort = a >= 0 && a !== b && pixels.length <= longest && (degree[a] as number) > 2 && (degree[b] as number) > 2;
    if (isShort) home[find(b)] = find(a);
    return !isShort;
  });
  for (const chain of kept) chain.nodes = chain.nodes.map((n) => (n >= 0 ? find(n) : n)) as [number, number];
  return { chains: kept, nodeCount };
}
