export { mostSheets, type NestedPart, type Nesting, type NestingPart, type NestingSettings, nestedOnSheets } from './bottom-left.ts';
export { leftoversOf } from './leftovers.ts';
export { type Nested, type NestRules, type NestSheet, type NestStep, nest } from './nest.ts';
export { type LayoutFault, type LayoutStep, layoutFaults, layoutOfPieces, type PieceLayout } from './piece-layout.ts';
