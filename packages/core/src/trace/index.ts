export { findInk, type Ink, type InkSettings } from './ink.ts';
export { fitInk, plainTraceSettings, type Take, type Trace, type TracedPiece, type TraceSettings, takes, tracePicture } from './trace.ts';
