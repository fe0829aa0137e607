export { findInkBorders, fitOutlines, type InkBorders, type Trace, type TracedPiece, type TraceSettings, tracePicture } from './trace.ts';
