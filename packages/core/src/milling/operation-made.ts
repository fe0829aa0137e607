/**
 * What an operation comes to, as it is put together: its runs, what it may take off, and what its tool cannot make.
 */
import { makeOf, type Purpose } from '../job/purposes.ts';
import type { Piece } from '../job/schema.ts';
import { type Message, say } from '../messages/index.ts';
import type { Box, Path, Point } from '../plane/index.ts';
import { boundedEngagement, type Cleared, type Engagement } from './engagement.ts';
import { type MillTool, radiusOf, reachOf, type ToolShape } from './mill-tool.ts';
import type { Heights, Move, Moves, Place } from './moves.ts';
import { type Operation, operationWords } from './operations.ts';
import type { Area } from './tool-rings.ts';

export interface OperationWork {
  readonly pieces: readonly Piece[];
  /** All that are done, in their order. */
  readonly operations: readonly Operation[];
  readonly tools: readonly MillTool[];
  readonly stock: Box;
  /** Of the stock as it then is, and its bottom; mm above the top as it came. */
  readonly topZ: number;
  readonly bottomZ: number;
  readonly spoilMm: number;
  readonly heights: Heights;
}

/** What an operation may take off a piece, down to which height; plain data. */
export type Allowed =
  | {
      readonly kind: 'area';
      readonly area: Area;
      readonly topZ: number;
      readonly bottomZ: number;
      /** The pointed tool whose flank its walls are; null where they are upright. */
      readonly wall: ToolShape | null;
      /** Whether all of it must be cleared. */
      readonly isWanted: boolean;
      readonly name: string;
      readonly pieceId: string;
    }
  | {
      readonly kind: 'line';
      readonly path: Path;
      readonly bottomZ: number;
      /** What follows the line with its tip at that height, and how far from the line it reaches at the top, mm. */
      readonly tool: ToolShape;
      readonly widthMm: number;
    };

export interface RunMade {
  readonly tool: MillTool;
  readonly pieceId: string;
  readonly name: string;
  readonly purpose: Purpose;
  readonly start: Place;
  readonly moves: readonly Move[];
  /** The closed border that it goes round; null where it follows a line or clears. */
  readonly border: Path | null;
  readonly tabsAt: readonly Point[];
  readonly engagement: Engagement | null;
}

interface Said {
  readonly message: Message;
  readonly isFailure: boolean;
  readonly pieceId: string;
}

export interface OperationMade {
  readonly runs: RunMade[];
  readonly allowed: Allowed[];
  readonly notes: Said[];
}

/** A tool that leaves less than this says nothing of it, square mm. */
export const worthSayingMm2 = 0.02;

/** Whether an operation is done to a piece: by its id, by its purpose, or as it plainly is. */
export function piecesMeant({ of, pieces }: Operation, piece: Piece, isPlainly: (piece: Piece) => boolean): boolean {
  if (pieces) return pieces.includes(piece.id);
  return of ? piece.purpose === of : isPlainly(piece);
}

/** What an operation comes to, as it is put together. */
export class Made implements OperationMade {
  readonly runs: RunMade[] = [];
  readonly allowed: Allowed[] = [];
  readonly notes: Said[] = [];
  readonly tool: MillTool;

  constructor(
    private readonly operation: Operation,
    private readonly work: OperationWork,
  ) {
    this.tool = this.toolOf(operation.tool) as MillTool;
  }

  toolOf(id: string | null): MillTool | null {
    return this.work.tools.find((tool) => tool.id === id) ?? null;
  }

  /** The pieces that it is done to. */
  pieces(isPlainly: (piece: Piece) => boolean): Piece[] {
    return this.work.pieces.filter((piece) => piecesMeant(this.operation, piece, isPlainly));
  }

  add(tool: MillTool, piece: Piece | null, { start, list }: Pick<Moves, 'start' | 'list'>, more: Partial<RunMade> = {}): void {
    const name = piece?.name ?? operationWords[this.operation.kind];
    const purpose = piece?.purpose ?? 'cut';
    this.runs.push({ tool, pieceId: piece?.id ?? '', name, purpose, start, moves: list, border: null, tabsAt: [], engagement: null, ...more }); // biome-ignore format: one line
  }

  /** Adds what clears an area, slowed where more of the tool's front bites than `limit` degrees. */
  addCleared(tool: MillTool, piece: Piece, moves: Moves, limit: number, before: Cleared | null = null): void {
    const depthMm = moves.list.reduce((deepest, { to }) => Math.max(deepest, this.work.topZ - to.z), 0);
    const passMm = Math.min(tool.stepdownMm, depthMm);
    const { moves: list, engagement } = boundedEngagement(moves.start, moves.list, radiusOf(tool), passMm, limit, before);
    this.add(tool, piece, { start: moves.start, list }, { engagement });
  }

  /** Lets an area be taken off down to a height. */
  allow(area: Area, bottomZ: number, piece: Piece | null, more: { isWanted?: boolean; wall?: ToolShape } = {}): void {
    this.allowed.push({
      kind: 'area',
      area,
      topZ: this.work.topZ,
      bottomZ,
      wall: more.wall ? shapeOf(more.wall) : null,
      isWanted: more.isWanted ?? true,
      name: piece?.name ?? operationWords[this.operation.kind],
      pieceId: piece?.id ?? '',
    });
  }

  /** Lets a tool take off what it does that follows a line at a height. */
  allowAlong(path: Path, tool: ToolShape, bottomZ: number): void {
    this.allowed.push({ kind: 'line', path, bottomZ, tool: shapeOf(tool), widthMm: reachOf(tool)(this.work.topZ - bottomZ) });
  }

  say(message: Message, isFailure: boolean, piece: Piece | null): void {
    this.notes.push({ message, isFailure, pieceId: piece?.id ?? '' });
  }

  /** Whether a piece has an inside to be cleared; says so where it has none. */
  isArea(piece: Piece): boolean {
    if (!piece.outer.closed) this.say(say.milling.notClosed(piece.name), false, piece);
    return piece.outer.closed;
  }
}

const shapeOf = ({ kind, diameterMm, tipMm, angle }: ToolShape): ToolShape => ({ kind, diameterMm, tipMm, angle });

/** Says what stays in corners, and which smaller tool would leave less. */
export function sayLost(lostBy: (radius: number) => number, piece: Piece, made: Made, { tools }: OperationWork): void {
  const lost = lostBy(radiusOf(made.tool));
  if (lost < worthSayingMm2) return;
  const smaller = tools
    .filter(({ kind, diameterMm }) => kind === 'end mill' && diameterMm < made.tool.diameterMm)
    .sort((a, b) => b.diameterMm - a.diameterMm)
    .find((tool) => lostBy(radiusOf(tool)) < 0.6 * lost);
  const area = lost.toFixed(2);
  const message = smaller
    ? say.milling.leavesOffering(made.tool.name, area, piece.name, smaller.name)
    : say.milling.leaves(made.tool.name, area, piece.name);
  made.say(message, false, piece);
}

export const isFilled = (piece: Piece): boolean => makeOf(piece) === 'fill';
export const isPart = (piece: Piece): boolean => makeOf(piece) === 'part';

export const radiansOf = (degrees: number | null): number | null => (degrees === null ? null : (degrees * Math.PI) / 180);
