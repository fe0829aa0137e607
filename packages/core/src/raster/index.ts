export { type Contour, type Contours, contoursAt } from './contours.ts';
export { type GreyPicture, greyFromRgba, greyPicture } from './grey.ts';
export { classMeans, histogram, isBilevel, otsuThreshold, type Threshold } from './threshold.ts';
