export type { Engagement } from './engagement.ts';
export { HeightField, sweepMoves } from './height-field.ts';
export { type InlayFit, inlayFit } from './inlay-fit.ts';
export { type MillNote, type MillPlan, type MillRun, millPlan, programsOf } from './mill-plan.ts';
export {
  chipLoadOf,
  halfAngleOf,
  type MillTool,
  type MillToolKind,
  millToolSchema,
  profileOf,
  radiusOf,
  reachOf,
  type ToolShape,
} from './mill-tool.ts';
export { type Gouge, type LeftStanding, type Milled, milledAgainst } from './milled-against.ts';
export { chordsOfMove, type Move, moveLength, type Place, secondsOf, segmentOfMove } from './moves.ts';
export {
  type Operation,
  type OperationKind,
  type OperationOf,
  operationKinds,
  operationSchema,
  operationWords,
  plainTabs,
} from './operations.ts';
export { innerCornersOf } from './profile-runs.ts';
export { type Clamp, type MillingSettings, millingSchema, plainMilling } from './settings.ts';
export { cellFor, provedPlan, type RunInto, type Simulated, simulated, type ToolMoves } from './simulation.ts';
export { readToolsCsv, toolSaid } from './tools-csv.ts';
export { Trial, type TrialShown } from './trial.ts';
