export { arcAbout, arcAsCubics, type Circle, circleOf } from './arc.ts';
export { cubicAsArcs } from './biarc.ts';
export { type Box, boxAround, boxAroundBoxes, boxDistance, centreOf, heightOf, isInBox, widthOf } from './box.ts';
export { cubicLoop } from './cubic.ts';
export { axesOf, turnsLeft } from './ellipse.ts';
export { type KnownStep, knownStep, knownSteps } from './known-step.ts';
export {
  circlePath,
  ellipsePath,
  isInside,
  nearestOnPath,
  type Path,
  pathArea,
  pathBox,
  pathLength,
  polygonOf,
  polygonPath,
  reversedPath,
  type Step,
  splitPath,
  stepsOf,
  transformedPath,
  withoutLoops,
  withPoint,
} from './path.ts';
export {
  add,
  between,
  cross,
  crossing,
  distance,
  dot,
  middleOf,
  type Point,
  point,
  subtract,
  turnBetween,
  unitVector,
} from './point.ts';
export {
  affineAt,
  asProjection,
  chainProjections,
  depthAt,
  type FourPoints,
  inverseProjection,
  isSpread,
  type Projection,
  project,
  projectedPath,
  projectionOfFour,
} from './projection.ts';
export {
  type ArcSegment,
  asCubics,
  type CubicSegment,
  chordPoints,
  directionOn,
  type EllipseSegment,
  type LineSegment,
  type Nearest,
  nearestOnSegment,
  pointOn,
  type Segment,
  segmentArea,
  segmentBox,
  segmentLength,
  splitSegment,
  transformedSegment,
} from './segment.ts';
export {
  about,
  apply,
  chain,
  determinant,
  identity,
  inverse,
  isSimilarity,
  scaleOf,
  shift,
  stretch,
  type Transform,
  turn,
} from './transform.ts';
