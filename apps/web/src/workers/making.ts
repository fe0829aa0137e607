'use client';
/**
 * The page's making worker, started when it is first needed.
 */
import { type Remote, wrap } from 'comlink';
import type { Maker } from './maker';

let worker: Remote<Maker> | null = null;

export function maker(): Remote<Maker> {
  worker ??= wrap<Maker>(new Worker(new URL('./maker.ts', import.meta.url), { type: 'module' }));
  return worker;
}
