export { chanceOfF } from '../numeric/f-distribution.ts';
export { type Camera, cameraAt, cameraOf, focalFrom } from './camera.ts';
export { centreOfRim } from './circle.ts';
export {
  type FitOptions,
  fitTrueUp,
  refuseUseless,
  standardErrorOf,
  TrueUpError,
  type TrueUpFit,
  type TrueUpModel,
  worstResidual,
} from './fit.ts';
export { type FoundLens, lensOfEdges } from './lens.ts';
export {
  cornerAngle,
  isCheck,
  isPulling,
  type MarkKind,
  type Measured,
  markKindNames,
  markKinds,
  type PullingKind,
  type TrueUpMark,
} from './mark-kinds.ts';
export {
  type BoxFit,
  type PictureSize,
  type Placing,
  plainPlacing,
  type ShapeModel,
  shapeModels,
} from './marks.ts';
export { lensOfPhotograph } from './photograph-lens.ts';
export { type RectificationPlan, rectificationPlan } from './rectification.ts';
export type { Part, Residual } from './residual-report.ts';
export { cardMarkers, checkLineMm, type FoundCard, findScaleCard, markerCorners, markerSideMm } from './scale-card.ts';
export { sizeInWords } from './size-in-words.ts';
export type { Outlier } from './uncertainty.ts';
export type { UnitMistake } from './unit-mistakes.ts';
