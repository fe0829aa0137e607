/**
 * In: drawn shapes, some over others, and open lines. Out: an appliqué block: the background at its finished size, each shape as it is cut,
 * led on under what lies over it by a typed amount, so that no gap shows, and lines as stems, strips cut on the bias.
 * Larger shapes lie under smaller ones, until an order is given; stems lie right on the background. A drawn frame about all others is the background; without one it is a square with the shapes in its
 * middle, at the size that they are drawn at.
 */
import { SaidError, say } from '../messages/index.ts';
import {
  boxAroundBoxes,
  centreOf,
  chain,
  heightOf,
  inverse,
  largestPath,
  type Path,
  pathArea,
  pathBox,
  pathLength,
  rectanglePath,
  shift,
  stretch,
  transformedPath,
  widthOf,
} from '../plane/index.ts';
import { combined, counterClockwise } from '../shape/combine.ts';
import { offsetClosed, plainOffset, strokeOutline } from '../shape/index.ts';
import type { Block, BlockPiece } from './block.ts';

export interface AppliqueSettings {
  readonly finishedMm: number;
  /** How far a shape goes on under one that lies over it. */
  readonly underMm: number;
  /** Pieces from the lowest up; those not named lie over them. */
  readonly order: readonly string[];
  /** How wide stems are, finished, mm. */
  readonly stemMm: number;
}

/** Shapes nearer than this touch, mm as drawn. */
const touchMm = 0.8;

/** @throws SaidError where there is no closed shape */
export function appliqueBlock(pieces: readonly BlockPiece[], { finishedMm, underMm, order, stemMm }: AppliqueSettings): Block {
  const area = ({ outer }: BlockPiece): number => Math.abs(pathArea(outer));
  const closed = pieces.filter(({ outer }) => outer.closed).sort((a, b) => area(b) - area(a));
  const [largestPiece, ...smaller] = closed;
  if (!largestPiece) throw new SaidError(say.quilting.nothingDrawn());
  const largest = largestPiece.outer;
  const box = pathBox(largest);
  const others = boxAroundBoxes(smaller.map(({ outer }) => pathBox(outer)));
  const isFrame =
    others !== null && box.minX <= others.minX && box.minY <= others.minY && box.maxX >= others.maxX && box.maxY >= others.maxY;
  const whole = isFrame ? box : (boxAroundBoxes(closed.map(({ outer }) => pathBox(outer))) as typeof box);
  const scale = isFrame ? finishedMm / Math.max(widthOf(whole), heightOf(whole)) : 1;
  const [widthMm, heightMm] = isFrame ? [widthOf(whole) * scale, heightOf(whole) * scale] : [finishedMm, finishedMm];
  const middle = centreOf(whole);
  const toFinished = chain(shift(widthMm / 2, heightMm / 2), chain(stretch(scale), shift(-middle.x, -middle.y)));
  const layers = inOrder(isFrame ? smaller : closed, order);
  const drawn = layers.map(({ outer }) => transformedPath(outer, toFinished));
  const lines = pieces.filter(({ outer }) => !outer.closed).map(({ outer }) => transformedPath(outer, toFinished));
  const background = rectanglePath({ minX: 0, minY: 0, maxX: widthMm, maxY: heightMm });
  const cut = drawn.map((path, k) => ledUnder(path, drawn.slice(k + 1), underMm));
  return {
    // Shapes lie over one another: they are no faces of a plane, and there are no seams between them.
    map: {
      nodes: [],
      edges: [],
      faces: [background, ...cut].map((outer) => ({ sides: [], outer, holes: [], area: Math.abs(pathArea(outer)) })),
      looseEnds: [],
    },
    widthMm,
    heightMm,
    toSheet: inverse(toFinished),
    grid: null,
    moved: [],
    gapMm: 0,
    isDrawn: [false, ...cut.map(() => true)],
    layers: layers.map(({ id }) => id),
    stems: lines.map((path) => ({ path, outline: strokeOutline(path, stemMm, 'flat'), lengthMm: pathLength(path) })),
  };
}

/** Those that are named come first, as they are named. */
function inOrder(pieces: readonly BlockPiece[], order: readonly string[]): BlockPiece[] {
  const place = new Map(order.map((id, k) => [id, k]));
  const named = pieces.filter(({ id }) => place.has(id)).sort((a, b) => (place.get(a.id) as number) - (place.get(b.id) as number));
  return [...named, ...pieces.filter(({ id }) => !place.has(id))];
}

/** A shape and what of it lies hidden under those over it: a strip of theirs along its border, and what the two leave between them. */
function ledUnder(path: Path, over: readonly Path[], underMm: number): Path {
  const own = counterClockwise(path);
  if (underMm <= 0) return own;
  const grown = offsetClosed(own, -(underMm + touchMm), plainOffset);
  return over.reduce((shape, upper) => {
    const reach = offsetClosed(counterClockwise(upper), -touchMm, plainOffset);
    const hidden = combined(grown, reach, 'keep-common');
    return hidden.length > 0 ? (largestPath(combined([shape], hidden, 'unite')) ?? shape) : shape;
  }, own);
}
