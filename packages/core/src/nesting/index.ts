export { mostSheets, type NestedPart, type Nesting, type NestingPart, type NestingSettings, nestedOnSheets } from './bottom-left.ts';
export { type LayoutFault, layoutFaults } from './layout-faults.ts';
export { leftoversOf } from './leftovers.ts';
export { type Nested, type NestRules, type NestSheet, type NestStep, nest } from './nest.ts';
export { type LayoutStep, layoutOfPieces, type PieceLayout } from './piece-layout.ts';
export { settled } from './settled.ts';
