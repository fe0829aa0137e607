export { appliqueBlock } from './applique.ts';
export { isLineMotif, isRowPattern } from './area-filling.ts';
export { type Block, BlockError, type BlockPiece, blockOf } from './block.ts';
export { type BlockGrid, blockGrids, gridOf } from './block-grid.ts';
export { type ContinuousLine, continuousLine, type LineRun, type StretchKind } from './continuous-line.ts';
export { type CuttingList, type CuttingRow, lengthToBuy, type PatchSet } from './cutting.ts';
export { edgeToEdge, type Rows } from './edge-to-edge.ts';
export { type Foundations, foundationsOf, pieceOrder, type Section } from './foundation.ts';
export { type LineMotifName, lineMotifNames, lineMotifs } from './line-motifs.ts';
export { middleWithin } from './middle-within.ts';
export { sidePaths } from './outline-sides.ts';
export { letters, type Patch, type PatchShape, patchShapes } from './patches.ts';
export { fabricsFromPicture } from './picture-colours.ts';
export { borderUnits, type Ring } from './pieced-border.ts';
export { isSetIn, piecingOrder, type Seam, type SeamKinds, seamKinds, type Unit, unitsOf } from './piecing.ts';
export { type PiecingStep, piecingSteps } from './piecing-steps.ts';
export { type Quilt, type QuiltPart, type QuiltPartKind, quiltOf } from './quilt.ts';
export { blockAreas, type QuiltArea, quiltAreas } from './quilt-areas.ts';
export { isAboutLine, type PlacedNote, type QuiltPiece, type QuiltPlan, quiltPlan } from './quilt-plan.ts';
export { type QuiltingLine, quiltingLine } from './quilting-line.ts';
export { cutText, figureWords, type RotaryCut, type RotaryFigure, rotaryCut, upToEighths } from './rotary.ts';
export { type GraphEdge, type Inspection, routeInspection } from './route-inspection.ts';
export { type RowPatternName, repeatOf, rowPatternNames, rowPatterns } from './row-patterns.ts';
export { type SeamLine, seamLines } from './seam-lines.ts';
export {
  type Border,
  type BorderPieces,
  blockEdges,
  blockSettings,
  borderPieces,
  type Fabric,
  fabricAt,
  inchMm,
  isInBlock,
  type KeptQuilting,
  type LinePattern,
  type LineSettings,
  linePatterns,
  mostBorders,
  mostColourings,
  mostFabrics,
  mostFurther,
  mostOwnMotifs,
  mostPinned,
  type OwnMotif,
  plainQuilting,
  type QuiltedPlace,
  type QuiltingLineSettings,
  type QuiltingSettings,
  quiltedPlaces,
  quiltingSchema,
  techniques,
  templateCopies,
  turnings,
  wholeQuilting,
} from './settings.ts';
export { stippled } from './stippling.ts';
export { stitchesAlong, stitchesOfRuns } from './stitches.ts';
export { sideName, type Template, templatesOf } from './templates.ts';
