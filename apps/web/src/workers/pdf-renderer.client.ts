'use client';
/**
 * A worker for one PDF; stopping ends it, wherever it is.
 */
import { type Remote, wrap } from 'comlink';
import type { PdfRenderer } from './pdf-renderer.worker';

export function pdfRenderer(signal: AbortSignal): { renderer: Remote<PdfRenderer>; end: () => void } {
  const worker = new Worker(new URL('./pdf-renderer.worker.ts', import.meta.url), { type: 'module' });
  const end = () => worker.terminate();
  signal.addEventListener('abort', end);
  return { renderer: wrap<PdfRenderer>(worker), end };
}
