'use client';
/**
 * The page's making worker, started when it is first needed, and anew where it could not be loaded.
 */
import { type Remote, wrap } from 'comlink';
import type { Maker } from './maker.worker';

interface Started {
  readonly remote: Remote<Maker>;
  /** Settles where the worker is lost, as one that is loaded without a connection: it answers nothing more. */
  readonly lost: Promise<'lost'>;
}

let started: Started | null = null;

function start(): Started {
  const worker = new Worker(new URL('./maker.worker.ts', import.meta.url), { type: 'module' });
  const lost = new Promise<'lost'>((resolve) => {
    worker.addEventListener('error', () => {
      started = null;
      worker.terminate();
      resolve('lost');
    });
  });
  return { remote: wrap<Maker>(worker), lost };
}

export function maker(): Remote<Maker> {
  started ??= start();
  return started.remote;
}

/** Settles where the worker that is there now is lost. */
export function makerLost(): Promise<'lost'> {
  started ??= start();
  return started.lost;
}
