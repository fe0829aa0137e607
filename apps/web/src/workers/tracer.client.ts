'use client';
/**
 * The page's tracing worker, started when it is first needed.
 */
import { proxy, type Remote, wrap } from 'comlink';
import type { Tracer } from './tracer.worker';

let worker: Remote<Tracer> | null = null;

export function tracer(): Remote<Tracer> {
  worker ??= wrap<Tracer>(new Worker(new URL('./tracer.worker.ts', import.meta.url), { type: 'module' }));
  return worker;
}

export const heard = proxy;
