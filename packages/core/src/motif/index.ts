export { fittedMotif, type MotifFit } from './fitting.ts';
export { type Motif, shippedMotifs } from './shipped.ts';
