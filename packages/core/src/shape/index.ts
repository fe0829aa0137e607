export { type Alignment, aligned, alignments, distributed } from './arrange.ts';
export { boxIndex } from './box-index.ts';
export { closedExactly, joinChains, splitAtPlaces } from './chains.ts';
export {
  type Combining,
  combined,
  counterClockwise,
  divided,
  nested,
  overlapsUnited,
  simpleParts,
  unitedOutlines,
} from './combine.ts';
export {
  type Copies,
  gridImages,
  imagesAlong,
  joinedImages,
  mirrorAbout,
  mirrorImages,
  stationAt,
  turnAbout,
  turnedImages,
} from './copies.ts';
export { type CornerCut, cornerCuts, cornersOf, largestCut, type PathCorner, placeAlong, withCornersCut } from './corner-cuts.ts';
export { type Crossing, samePlaceMm, segmentCrossings } from './crossings.ts';
export { type Dimension, dimensionsCarried, measured, solveDimensions } from './dimensional-constraints.ts';
export { distanceTo } from './distance-to.ts';
export { arcLeaving, circleThrough, circleTouching, type Figure, FigureError, figurePath, lineAcross, lineMidway } from './figures.ts';
export { type HalfSide, halfAtAxis } from './half-at-axis.ts';
export {
  type BridgeKind,
  bridgeKinds,
  cutByLine,
  type EndPair,
  endPairs,
  extended,
  type Fullness,
  plainFullness,
  splitAt,
  trimmed,
  withEndsJoined,
} from './joining.ts';
export { type FlatSettings, type FlatStrip, layFlat, onCurve, stripOf } from './lay-flat.ts';
export { followed, type LiveResult, type LiveStep } from './live-steps.ts';
export { type AxisBranch, type AxisPlace, type AxisSettings, medialAxis } from './medial-axis.ts';
export { merged } from './merging.ts';
export { withoutNeedless } from './needless.ts';
export { insidePoint, nestedRegions, type Region } from './nesting.ts';
export { offsetClosed, offsetPiece } from './offset.ts';
export { validLoops } from './offset-loops.ts';
export { type CutPlace, pathCrossings, selfCrossings } from './path-crossings.ts';
export {
  type LineGraph,
  lineGraph,
  type MapEdge,
  type MapFace,
  type MapSide,
  type PlanarMap,
  planarMap,
  transformedMap,
  withNodesAt,
} from './planar-map.ts';
export {
  arcThrough,
  brokenAt,
  isSmooth,
  madeCorner,
  madeSmooth,
  pointCount,
  pointOf,
  startMoved,
  withHandleMoved,
  withoutPoints,
  withPointsMoved,
  withSegmentAs,
  withSegmentPulled,
} from './points.ts';
export { type CornerKind, cornerKinds, type OffsetSettings, plainOffset } from './raw-offset.ts';
export { type SheetSnap, type SnapWord, snapToOutlines, squareLocked } from './snapping.ts';
export { type EndKind, endKinds, strokeOutline } from './stroke-outline.ts';
export { type DrawnPoint, pathThrough, pointsAlong, reversedPoints, spanBetween } from './through-points.ts';
export { nearnessTo, windingNumber } from './winding-number.ts';
