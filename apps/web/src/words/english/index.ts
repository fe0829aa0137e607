import { app } from './app';
import { bringIn } from './bring-in';
import { byHand } from './by-hand';
import { job } from './job';
import { makeReady } from './make-ready';
import { prove } from './prove';
import { server } from './server';
import { table } from './table';
import { trace } from './trace';
import { trueUp } from './true-up';
import { ui } from './ui';
import { workers } from './workers';

export const english = {
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
