export { type KnownAxis, knownAxes } from './axes.ts';
export { bridgeOutline, withBridges } from './bridges.ts';
export { measuredBy } from './checks.ts';
export { cleanText } from './clean-text.ts';
export { CommandError } from './commands/command-kind.ts';
export { applyCommand, type Command, commandSchema, labelOf } from './commands/commands.ts';
export { traceLabel } from './commands/piece-commands.ts';
export { checkChange, documentOf, type JobDocument, jobOfDocument } from './document.ts';
export {
  areRings,
  canHold,
  type Drawn,
  type DrawnSource,
  drawnOf,
  drawnPieces,
  drawnSchema,
  type Master,
  masterOf,
  outlinesFrom,
} from './drawn.ts';
export { frameToTraceIn } from './framed.ts';
export { type Edit, edited, patched, redone, undone } from './history.ts';
export { type Machine, machineSchema, plainMachine } from './machine.ts';
export {
  type Making,
  type ProcessEntry,
  plainFileNames,
  plainMaking,
  plainStock,
  processEntrySchema,
  type Stock,
  stockSchema,
} from './making.ts';
export { measuresOf, overallBox, type PieceMeasures, sheetBoxOf, shownBoxOf, workBoxOf } from './measures.ts';
export { pathsOf } from './piece-paths.ts';
export { piecesToMake, piecesToProve } from './pieces-to-make.ts';
export { type Bridge, type PinnedSize, type ProofSettings, plainProof } from './proof-settings.ts';
export { isFollowed, makeOf, mustClose, type Purpose, purposeKinds, purposeNamed, purposes } from './purposes.ts';
export { type KeyedRelation, relatedPieces, relationsOfPieces } from './related-pieces.ts';
export {
  type Drawing,
  defaultTraceSettings,
  drawingSchema,
  emptyJob,
  type Job,
  type JobTrace,
  type JobTraceSettings,
  jobSchema,
  type Mark,
  markSchema,
  newPicture,
  type Picture,
  type Piece,
  pathSchema,
  pictureSchema,
  pieceSchema,
  plainTone,
  pointSchema,
  resolutionSources,
  type Stated,
  type Tone,
  traceSchema,
  traceSettingsSchema,
  transformSchema,
} from './schema.ts';
export { maxCoordinate, type ShelfCopy } from './schema-parts.ts';
export { type PhotographedPieces, photographedPieces, type SeenFrom, seenFrom } from './seen-from.ts';
export {
  type LaidCopy,
  longestNesting,
  mostCopies,
  mostKeptOff,
  mostLaid,
  plainLayout,
  type SheetLayout,
  sheetLayoutSchema,
} from './sheet-layout.ts';
export { copyPlace, isLaid, outlinesKey, piecesOnSheet, type SheetPart, sheetParts } from './sheet-parts.ts';
export { type SheetStock, sheetStockSchema } from './sheet-stock.ts';
export {
  fitOf,
  fromOriginal,
  isWaiting,
  pullingMarks,
  type RasterSource,
  type RectifiedPlan,
  rasterSourceOf,
  rectifiedPlanOf,
} from './sizing.ts';
export { strokeOutlined } from './stroke-outlines.ts';
export { isPartlyByHand } from './touched.ts';
export { amongOtherTraces, keptPieces, piecesOf, traceOf, traceOnSheet, traceWith, type WithPieces, withTraceOf } from './tracing.ts';
export { mergeUserEdits } from './user-edits.ts';
