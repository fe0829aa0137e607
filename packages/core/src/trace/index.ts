export { type Strayed, strayOf } from './deviation.ts';
export { findInk, type Ink, type InkSettings } from './ink.ts';
export { madeSymmetric } from './symmetric-rebuild.ts';
export { imageOf, type Mirror, type Outlines, type Symmetry, symmetriesOf, type Turned } from './symmetry.ts';
export { fitInk, plainTraceSettings, type Take, type Trace, type TracedPiece, type TraceSettings, takes, tracePicture } from './trace.ts';
