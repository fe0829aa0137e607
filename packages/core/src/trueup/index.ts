export { fitTrueUp, type LeftOver, TrueUpError, type TrueUpFit, type TrueUpModel, worstLeftOver } from './fit.ts';
export type { DirectionLine, KnownLength, PictureSize, TrueUpMark } from './marks.ts';
