export { type KnownAxis, knownAxes } from './axes.ts';
export { type Measured, measuredBy } from './checks.ts';
export { withChoicesKept } from './choices.ts';
export { cleanText } from './clean-text.ts';
export { type Command, commandSchema } from './command-schema.ts';
export { labelOf, traceLabel } from './command-words.ts';
export { applyCommand, CommandError } from './commands.ts';
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
export { measuresOf, overallBox, type PieceMeasures, sheetBoxOf, shownBoxOf, workBoxOf } from './measures.ts';
export { pathsOf } from './piece-paths.ts';
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
  type Purpose,
  pathSchema,
  pictureSchema,
  pieceSchema,
  plainTone,
  pointSchema,
  purposes,
  resolutionSources,
  type Stated,
  type Tone,
  traceSchema,
  traceSettingsSchema,
  transformSchema,
  ways,
} from './schema.ts';
export { maxCoordinate } from './schema-parts.ts';
export {
  type Cutting,
  type Hold,
  leadKinds,
  type Machine,
  machineSchema,
  type PinnedSize,
  type Printing,
  type ProofWishes,
  plainProof,
  plainSetup,
  plainStrengths,
  type Setup,
  type StockPreset,
  type Strength,
  stockPresetSchema,
  strengthOf,
} from './setup.ts';
export {
  fitOf,
  fromOriginal,
  isWaiting,
  pullingMarks,
  type Surface,
  surfaceOf,
  type WorkingPlan,
  workingPlanOf,
} from './sizing.ts';
export { isPartlyByHand } from './touched.ts';
export { amongOtherTraces, keptPieces, piecesOf, traceOf, traceOnSheet, traceWith, type WithPieces, withTraceOf } from './tracing.ts';
