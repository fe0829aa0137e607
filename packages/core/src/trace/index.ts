export { fittedWay } from './along-edge.ts';
export { annotationsOf } from './annotations.ts';
export { type BorderSettings, closerToBorders } from './closer.ts';
export { type ColourInk, type ColourMap, type ColourPiece, colourInk, colourMap, colourPieces, meantInGrey } from './colour-map.ts';
export { type Strayed, strayOf } from './deviation.ts';
export { findInk, type Ink, type InkSettings } from './ink.ts';
export { type Refitted, refittedBetween } from './refit.ts';
export { type Relation, type RelationKind, relationKinds, relationsIn, type SegmentRef } from './relations.ts';
export { madeRelated, type Related } from './relations-solve.ts';
export { madeSymmetric } from './symmetric-rebuild.ts';
export { imageOf, type Mirror, type Outlines, type Symmetry, symmetriesOf, type Turned } from './symmetry.ts';
export {
  type Borders,
  colourBorders,
  firstLook,
  fitInk,
  inkBorders,
  plainTraceSettings,
  type Take,
  type Trace,
  type TracedPiece,
  type TraceSettings,
  takes,
  traceColours,
  tracePicture,
} from './trace.ts';
export { wallsOf } from './walls.ts';
