'use client';
/**
 * A worker for one drawing file; stopping ends it, wherever it is.
 */
import { type Remote, wrap } from 'comlink';
import type { DrawingReader } from './drawing-reader.worker';

export function drawingReader(signal: AbortSignal): { reader: Remote<DrawingReader>; end: () => void } {
  const worker = new Worker(new URL('./drawing-reader.worker.ts', import.meta.url), { type: 'module' });
  const end = () => worker.terminate();
  signal.addEventListener('abort', end);
  return { reader: wrap<DrawingReader>(worker), end };
}
