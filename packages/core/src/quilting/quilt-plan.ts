/**
 * In: pieces and the settings of a quilt. Out: the whole plan: the block and its patches, how it is sewn, templates, foundations, the
 * quilt, and what is cut from which fabric.
 */
import type { Purpose } from '../job/purposes.ts';
import { type Message, say } from '../messages/index.ts';
import { apply, boxAroundBoxes, pathBox, rectanglePath } from '../plane/index.ts';
import { appliqueBlock } from './applique.ts';
import { type Block, type BlockPiece, blockOf } from './block.ts';
import { type CuttingList, cuttingList, type PatchSet, patchSets } from './cutting.ts';
import { type Foundations, foundationsOf } from './foundation.ts';
import { type PatchShape, patchShapes } from './patches.ts';
import { isSetIn, piecingOrder, type SeamKinds, seamKinds, type Unit, unitsOf } from './piecing.ts';
import { type Quilt, quiltOf } from './quilt.ts';
import { LineError, type QuiltingLine, type QuiltTop, quiltingLine, shortStitchMm } from './quilting-line.ts';
import { type SeamEase, seamEases } from './seam-ease.ts';
import { isInBlock, type LinePattern, type LineSettings, type QuiltingSettings } from './settings.ts';
import { appliqueTemplates, type Template, templatesOf } from './templates.ts';

export interface QuiltPlan {
  readonly block: Block;
  readonly shapes: readonly PatchShape[];
  readonly sets: readonly PatchSet[];
  readonly piecing: Unit;
  readonly seams: SeamKinds;
  readonly templates: readonly Template[];
  /** Of each curved seam how long it is on both sides. */
  readonly eases: readonly SeamEase[];
  readonly foundations: Foundations;
  readonly quilt: Quilt;
  readonly cutting: CuttingList;
  /** Null where none was asked for. */
  readonly line: QuiltingLine | null;
  /** Of each pattern that is pinned or quilted in every block, over one block; null where it has no room there. */
  readonly pinned: ReadonlyMap<LinePattern, QuiltingLine | null>;
  readonly notes: readonly PlacedNote[];
}

/** A piece as far as a quilt asks. */
export interface QuiltPiece extends BlockPiece {
  readonly purpose?: Purpose;
}

/** Lines alone to quilt along lie on one piece of cloth, as large as all of them. */
function clothUnder(lines: readonly QuiltPiece[]): BlockPiece[] {
  const box = boxAroundBoxes(lines.map(({ outer }) => pathBox(outer)));
  return box && lines[0] ? [{ id: lines[0].id, outer: rectanglePath(box), holes: [] }] : [];
}

/** What is wrong with the drawing as a block, and where on the sheet, mm. */
export type PlacedNote = Message & { readonly pieceId: string; readonly isFailure: boolean; readonly at: { x: number; y: number } | null };

/** Yields the share done. @throws BlockError, TemplateError */
export function* quiltPlan(pieces: readonly QuiltPiece[], settings: QuiltingSettings): Generator<number, QuiltPlan> {
  const inMotifs = new Set(settings.ownMotifs.flatMap(({ pieceIds }) => pieceIds));
  const others = pieces.filter(({ id }) => !inMotifs.has(id));
  // Lines to stitch along are quilted, not sewn together.
  const quilted = others.filter(({ purpose }) => purpose === 'stitch');
  const patches = others.filter(({ purpose }) => purpose !== 'stitch');
  const isApplique = settings.technique === 'appliqué';
  const drawn = patches.length > 0 ? patches : clothUnder(quilted);
  const block = isApplique ? appliqueBlock(drawn, settings) : blockOf(drawn, settings);
  yield 0.3;
  const shapes = patchShapes(block);
  const piecing: Unit = isApplique ? { faces: block.map.faces.map((_, k) => k), parts: [], seam: null } : piecingOrder(block.map);
  yield 0.5;
  const templates = isApplique ? appliqueTemplates(shapes, settings) : templatesOf(block, shapes, settings);
  yield 0.7;
  const foundations = isApplique ? { sections: [], setIn: [] } : foundationsOf(block.map);
  const sets = patchSets(block, shapes, settings);
  const quilt = quiltOf(block, settings);
  const top: QuiltTop = {
    block,
    sets,
    quilt,
    drawn: pathsOf(quilted),
    ownMotifs: settings.ownMotifs.map(({ pieceIds }) => pathsOf(pieces.filter(({ id }) => pieceIds.includes(id)))),
  };
  const cutting = cuttingList(block, sets, templates, quilt, settings);
  yield 0.8;
  const wanted = [settings.line, ...settings.further].filter((one): one is LineSettings => one.pattern !== 'none');
  const { line, fault } = wanted.length > 0 ? lineOrFault(top, wanted) : { line: null, fault: null };
  const tried = { ...settings.line, over: isInBlock(settings.line.over) ? settings.line.over : 'block', isInEveryBlock: false } as const;
  // What is quilted in every block is looked at on one, too.
  const looked =
    settings.line.isInEveryBlock && settings.line.pattern !== 'none' ? [...settings.pinned, settings.line.pattern] : settings.pinned;
  const pinned = new Map(looked.map((pattern) => [pattern, lineOrFault(top, [{ ...tried, pattern } as LineSettings]).line]));
  const notes = [...notesOf(block, shapes, piecing), ...(fault ? [noteOf(fault)] : []), ...(line ? notesOfLine(line, settings) : [])];
  return { block, shapes, sets, piecing, seams: seamKinds(block.map, piecing), templates, eases: seamEases(block, shapes), foundations, quilt, cutting, line, pinned, notes }; // biome-ignore format: one line
}

const pathsOf = (pieces: readonly QuiltPiece[]) => pieces.flatMap(({ outer, holes }) => [outer, ...holes]);

/** The line, or why there is none: the rest of the quilt is planned all the same. */
function lineOrFault(top: QuiltTop, wanted: readonly LineSettings[]): { line: QuiltingLine | null; fault: Message | null } {
  try {
    return { line: quiltingLine(top, wanted), fault: null };
  } catch (error) {
    if (error instanceof LineError) return { line: null, fault: { said: error.said, message: error.message } };
    throw error;
  }
}

function notesOf(block: Block, shapes: readonly PatchShape[], piecing: Unit): PlacedNote[] {
  const ends = block.map.looseEnds.map((p) => {
    const at = apply(block.toSheet, p);
    return noteOf(say.quilting.looseEnd(at.x.toFixed(1), at.y.toFixed(1)), at);
  });
  const nameOf = new Map(shapes.flatMap(({ name, patches }) => patches.map(({ face }) => [face, name] as const)));
  const within = block.map.faces.flatMap(({ holes, outer }, k) => (holes.length > 0 ? [noteOf(say.quilting.liesWithin(nameOf.get(k) ?? ''), apply(block.toSheet, outer.start))] : [])); // biome-ignore format: one line
  const setIn = unitsOf(piecing).filter(isSetIn).map(({ faces }) => {
    const names = [...new Set(faces.map((face) => nameOf.get(face) ?? ''))].sort();
    return noteOf(say.quilting.mustBeSetIn(faces.length, names.join(', ')));
  }); // biome-ignore format: as it reads
  const far = block.moved.filter(({ from, to }) => Math.hypot(to.x - from.x, to.y - from.y) > farMoveMm);
  const moved = far.length > 0 ? [noteOf(say.quilting.movedFar(far.length, { mm: Math.max(...far.map(({ from, to }) => Math.hypot(to.x - from.x, to.y - from.y))) }))] : []; // biome-ignore format: one line
  return [...ends, ...within, ...setIn, ...moved];
}
const noteOf = (message: Message, at: PlacedNote['at'] = null): PlacedNote => ({ ...message, pieceId: '', isFailure: false, at });

function notesOfLine(
  { runs, jumpsMm, shortStitches, crowded, sharp, passes }: QuiltingLine,
  { line, further }: QuiltingSettings,
): PlacedNote[] {
  const far = Math.max(0, ...jumpsMm);
  const isDrawnAlone = line.pattern === 'drawn' && further.length === 0;
  return [
    ...(isDrawnAlone && !passes && runs.length > 1 ? [noteOf(say.quilting.severalParts(runs.length, { mm: far }))] : []),
    ...(shortStitches > 0 ? [noteOf(say.quilting.shortStitches(shortStitches, { mm: shortStitchMm }))] : []),
    ...(crowded.count > 0 ? [noteOf(say.quilting.crowded(crowded.count, line.mostLayers))] : []),
    ...(sharp.count > 0 ? [noteOf(say.quilting.sharpTurns(sharp.count, line.sharpestDegrees))] : []),
    ...(passes ? [noteOf(say.quilting.inPasses(passes.passes.length, { mm: line.throatMm ?? 0 }))] : []),
  ];
}

const lineCodes = (['severalParts', 'shortStitches', 'crowded', 'sharpTurns', 'inPasses', 'nothingQuilted', 'tooDense', 'tooManyRuns'] as const).map((code) => `quilting.${code}`); // biome-ignore format: one line
/** Whether a note is about the quilting line, rather than the block. */
export const isAboutLine = ({ said }: Message): boolean => lineCodes.includes(said.code);

/** A corner that was drawn farther than this from the grid may not be meant to lie on it, mm at the finished size. */
const farMoveMm = 2.5;
