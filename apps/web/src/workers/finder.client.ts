'use client';
/**
 * The page's finding worker, started when it is first needed.
 */
import { type Remote, wrap } from 'comlink';
import type { Finder } from './finder.worker';

let worker: Remote<Finder> | null = null;

export function finder(): Remote<Finder> {
  worker ??= wrap<Finder>(new Worker(new URL('./finder.worker.ts', import.meta.url), { type: 'module' }));
  return worker;
}
