export { type FileKind, FileRefused, fileKinds, fileName, fileTypes, type MadeFile, madeFile, outlinesToWrite, waysOf } from './files.ts';
export { heldPieces, holdOutline } from './holds.ts';
export { type Compensated, kerfCompensated } from './kerf.ts';
export { type GaugeSettings, kerfGauge, kerfRead, plainGauge, slotsOf } from './kerf-gauge.ts';
export { type Ordered, orderedStops, type Stop, travelOf } from './order.ts';
export { piecesToMake, piecesToProve } from './pieces.ts';
export { originOn, toMachine } from './placement.ts';
export { type CutPlan, cutPlan, plannedCut, type Run } from './plan.ts';
export { ownPaper, type Page, PaperError, paperSize, papers, type Tiling, tiled } from './tiles.ts';
