/**
 * What a correction works on: a traced piece or a drawn thing, as its paths, and the commands that write them back.
 */
import {
  type Command,
  type Drawn,
  type DrawnSource,
  drawnOf,
  type Job,
  masterOf,
  outlinesFrom,
  type Piece,
  traceWith,
} from '@nuvet/core/job';
import { apply, determinant, isSimilarity, type Path, type Point, pathArea, type Transform, transformedPath } from '@nuvet/core/plane';
import { pointsAlong } from '@nuvet/core/shape';
import { nanoid } from 'nanoid';
import { words } from '@/words';

export interface Target {
  readonly pieceId: string;
  readonly name: string;
  /** The master's paths: of a drawn thing before what follows from it. */
  readonly paths: readonly Path[];
  readonly drawn: Drawn | null;
  /** Of one that was not drawn: the piece itself, and whether it was traced or brought in with a drawing file. */
  readonly piece: Piece | null;
  readonly isTraced: boolean;
}

export function targetOf(job: Job, pieceId: string): Target | null {
  const drawn = drawnOf(job.drawn, pieceId);
  if (drawn)
    return {
      pieceId: drawn.id,
      name: drawn.name,
      paths: drawn.source.kind === 'strip' ? outlinesFrom(drawn, job).paths : masterOf(drawn, job.making.stock.thicknessMm).paths,
      drawn,
      piece: null,
      isTraced: false,
    };
  const piece = pieceOf(job, pieceId);
  const isTraced = traceWith(job, pieceId) !== null;
  return piece && { pieceId, name: piece.name, paths: [piece.outer, ...piece.holes], drawn: null, piece, isTraced };
}

export function pieceOf(job: Job, pieceId: string): Piece | null {
  return [...job.traces, ...job.drawings].flatMap((d) => d.pieces).find(({ id }) => id === pieceId) ?? null;
}

export const sourceOf = (paths: readonly Path[]): DrawnSource =>
  paths.length === 1 ? { kind: 'path', path: paths[0] as Path } : { kind: 'paths', paths: [...paths] };

/** Moves a target with its points or dimensions. */
export function moveCommand(target: Target, map: Transform): Command {
  if (target.drawn)
    return { do: 'replace-drawn', word: words.table.moving, ids: [target.drawn.id], by: [movedDrawn(target.drawn, target, map)] };
  return shapeCommand(target, target.paths.map((path) => transformedPath(path, map))); // biome-ignore format: one line
}

/** Paths as what they came from is told: an outline drawn point by point can be drawn on. */
function sourceLike(source: DrawnSource, paths: readonly Path[]): DrawnSource {
  const [only] = paths;
  const points = source.kind === 'points' && only && paths.length === 1 ? pointsAlong(only) : null;
  return only && points ? { kind: 'points', points: points as PointsSource['points'], closed: only.closed } : sourceOf(paths);
}

export type PointsSource = Extract<DrawnSource, { kind: 'points' }>;

/** Writes changed paths back to where they came from; what came with a drawing file gives way to a drawn thing. */
export function shapeCommand(target: Target, paths: readonly Path[]): Command {
  if (target.drawn) return { do: 'redraw', drawnId: target.drawn.id, source: sourceLike(target.drawn.source, paths) };
  if (!target.isTraced)
    return { do: 'replace-drawn', word: words.table.aChangeOfAnOutline, ids: [target.pieceId], by: [asDrawn(target, paths)] };
  const [outer, ...holes] = paths;
  return { do: 'reshape', pieceId: target.pieceId, outer: outer as Path, holes: [...holes] };
}

export const newId = (): string => `drawn-${nanoid(10)}`;

/** The longest name that may have a number or a word behind it. */
const maxLetters = 60;

/** A name that counts on: Circle 3. */
export function nextName(job: Job, long: string): string {
  const word = long.slice(0, maxLetters);
  const taken = job.drawn.filter(({ name }) => name.startsWith(`${word} `)).map(({ name }) => Number(name.slice(word.length + 1)));
  return `${word} ${Math.max(0, ...taken.filter(Number.isFinite)) + 1}`;
}

export const newDrawn = (job: Job, word: string, source: DrawnSource, more: Partial<Drawn> = {}): Drawn => ({
  id: newId(),
  name: nextName(job, word),
  purpose: 'cut',
  leftOut: false,
  source,
  live: [],
  ...more,
});

const asDrawn = ({ name, piece, paths: own }: Target, paths: readonly Path[] = own): Drawn => ({
  id: newId(),
  name: name.slice(0, maxLetters),
  purpose: piece?.purpose ?? 'cut',
  leftOut: false,
  source: sourceOf(paths),
  live: [],
});

/** A drawn thing in place of a piece that was traced or brought in, so that steps can follow from it. */
export function takenOver(job: Job, pieceId: string): { readonly drawn: Drawn; readonly ids: readonly string[] } | null {
  const target = targetOf(job, pieceId);
  if (!target) return null;
  return target.drawn ? { drawn: target.drawn, ids: [target.drawn.id] } : { drawn: asDrawn(target), ids: [pieceId] };
}

/** Outer outlines counter-clockwise and holes clockwise, as areas are combined. */
export const areaOf = (paths: readonly Path[]): Path[] => paths.filter((path) => path.closed && Math.abs(pathArea(path)) > 0);

/** Where a motif is fitted moves along; a box that is turned, or a motif that is stretched or mirrored, is fitted no longer. */
export function movedMotif(motif: Drawn['motif'], map: Transform): Drawn['motif'] {
  if (!motif) return undefined;
  const isShift = map.a === 1 && map.d === 1 && map.b === 0 && map.c === 0;
  const isTurn = isSimilarity(map) && determinant(map) > 0;
  if (!isShift && !(isTurn && motif.fit.kind === 'between')) return undefined;
  return { id: motif.id, fit: { kind: motif.fit.kind, a: apply(map, motif.fit.a), b: apply(map, motif.fit.b) } };
}

const otherSide = { left: 'right', right: 'left' } as const;

/** A drawn thing under a map: a figure that keeps its shape stays a figure where it is only shifted. */
export function movedDrawn(drawn: Drawn, target: Target, map: Transform): Drawn {
  const at = (p: Point): Point => apply(map, p);
  const isShift = map.a === 1 && map.d === 1 && map.b === 0 && map.c === 0;
  const live = drawn.live.map((step): Drawn['live'][number] => {
    if (step.kind === 'mirror') {
      // A mirror image has its left where the right was.
      const keeps = step.keeps && determinant(map) < 0 ? otherSide[step.keeps] : step.keeps;
      return { ...step, ...(keeps ? { keeps } : {}), a: at(step.a), b: at(step.b) };
    }
    return step.kind === 'turn' ? { ...step, centre: at(step.centre) } : step;
  });
  const { source } = drawn;
  const motif = movedMotif(drawn.motif, map);
  const held = movedMeasures(drawn.held, map);
  if (source.kind === 'points') {
    const points = source.points.map((p) => ({
      ...p,
      at: at(p.at),
      ...(p.through ? { through: at(p.through) } : {}),
      ...(p.before ? { before: at(p.before) } : {}),
      ...(p.after ? { after: at(p.after) } : {}),
    }));
    return { ...drawn, live, held, source: { ...source, points } };
  }
  if (source.kind === 'strip' && isShift) return { ...drawn, live, source: { ...source, at: at(source.at) } };
  if (source.kind === 'figure' && isShift) {
    const { figure } = source;
    const shifted = 'centre' in figure ? { ...figure, centre: at(figure.centre) } : { ...figure, from: at(figure.from), to: at(figure.to) };
    return { ...drawn, live, source: { kind: 'figure', figure: shifted } };
  }
  const paths: readonly Path[] = target.paths.map((path) => transformedPath(path, map));
  return { ...drawn, live, held, source: sourceOf(paths), motif };
}

/** Measures under a map: what is only moved or turned keeps them, a mirror image turns the other way, a new size has new ones. */
function movedMeasures(held: Drawn['held'], map: Transform): Drawn['held'] {
  if (!isSimilarity(map) || Math.abs(Math.abs(determinant(map)) - 1) > 1e-9) return undefined;
  return determinant(map) > 0 ? held : held?.map((measure) => (measure.kind === 'turn' ? { ...measure, turn: -measure.turn } : measure));
}
