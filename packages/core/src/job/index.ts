export { applyCommand, type Command, CommandError, commandSchema, labelOf, traceLabel } from './commands.ts';
export { type Edit, edited, redone, undone } from './history.ts';
export { measuresOf, overallBox, type PieceMeasures } from './measures.ts';
export {
  defaultTraceSettings,
  emptyJob,
  type Job,
  type JobTrace,
  type JobTraceSettings,
  jobSchema,
  type Mark,
  markSchema,
  type Picture,
  type Piece,
  type Purpose,
  pathSchema,
  pictureSchema,
  pieceSchema,
  pointSchema,
  purposes,
  traceSchema,
  traceSettingsSchema,
  transformSchema,
  ways,
} from './schema.ts';
export { fitOf, pullingMarks } from './sizing.ts';
export { keptPieces, traceOnSheet } from './tracing.ts';
