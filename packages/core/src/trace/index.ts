export { pathAlongEdge } from './along-edge.ts';
export { annotationsOf } from './annotations.ts';
export { type ColourInk, type ColourMap, type ColourPiece, colourInk, colourMap, colourPieces, meantInGrey } from './colour-map.ts';
export { type Related, regularize } from './constraint-solver.ts';
export { type ContourDeviation, contourDeviation } from './deviation.ts';
export { withFewerPoints } from './fewer-points.ts';
export { findInk, type Ink, type InkSettings } from './ink.ts';
export { type Refitted, refittedBetween } from './refit.ts';
export { type Relation, type RelationKind, relationKinds, relationsIn, type SegmentRef } from './relations.ts';
export { type BorderSettings, snapToEdge } from './snap-to-edge.ts';
export { symmetrize } from './symmetrize.ts';
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
