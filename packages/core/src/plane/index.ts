export { arcAbout, arcAsCubics, type Circle, circleOf } from './arc.ts';
export { cubicAsArcs } from './biarc.ts';
export { type Box, boxAround, boxAroundBoxes, boxDistance, centreOf, heightOf, isInBox, widthOf } from './box.ts';
export { type CachedSegment, cachedSegment, cachedSegments } from './cached-segment.ts';
export { opsOf } from './curves.ts';
export { axesOf, turnsLeft } from './ellipse.ts';
export { bent, type Lens, unbent } from './lens.ts';
export {
  chordsOf,
  circlePath,
  ellipsePath,
  endOf,
  isInside,
  largestPath,
  levelCrossings,
  nearestOnPath,
  type Path,
  pathArea,
  pathBox,
  pathLength,
  polygonOf,
  polygonPath,
  rectanglePath,
  reducedSteps,
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
export { subPath } from './sub-path.ts';
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
