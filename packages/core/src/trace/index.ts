export { type Trace, type TracedPiece, type TraceSettings, tracePicture, traceSteps } from './trace.ts';
