import { english as messages } from '@nuvet/core/messages';
import { app } from './app.ts';
import { bringIn } from './bring-in.ts';
import { byHand } from './by-hand.ts';
import { job } from './job.ts';
import { makeReady } from './make-ready.ts';
import { prove } from './prove.ts';
import { server } from './server.ts';
import { table } from './table.ts';
import { trace } from './trace.ts';
import { trueUp } from './true-up.ts';
import { ui } from './ui.ts';
import { workers } from './workers.ts';

export const english = {
  /** What the core says: findings, refusals, what undo is of. */
  messages,
  app,
  bringIn,
  byHand,
  job,
  makeReady,
  prove,
  server,
  table,
  trace,
  trueUp,
  ui,
  workers,
};
