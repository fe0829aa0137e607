export { centreOfRim } from './circle.ts';
export { chanceOfF } from './f-test.ts';
export { type FitWish, fitTrueUp, refuseUseless, TrueUpError, type TrueUpFit, type TrueUpModel, worstLeftOver } from './fit.ts';
export { type FlatPlan, flatPlan } from './flattening.ts';
export { cornerAngle, type LeftOver, type Part } from './left-overs.ts';
export {
  type BoxWay,
  handNoisePx,
  type MarkKind,
  markShapes,
  type PictureSize,
  type Placing,
  type PullingKind,
  plainPlacing,
  type ShapeModel,
  shapeModels,
  type TrueUpMark,
} from './marks.ts';
export type { Suspect } from './reliance.ts';
export { cardMarkers, checkLineMm, type FoundCard, findScaleCard, markerCorners, markerSideMm } from './scale-card.ts';
export { sizeInWords } from './size-in-words.ts';
export type { Slip } from './slips.ts';
