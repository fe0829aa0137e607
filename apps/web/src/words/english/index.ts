import { english as messages } from '@nuvet/core/messages';
import { findingWords } from '@nuvet/core/proof';
import { app } from './app.ts';
import { bringIn } from './bring-in.ts';
import { byHand } from './by-hand.ts';
import { cnc } from './cnc.ts';
import { foam } from './foam.ts';
import { job } from './job.ts';
import { makeReady } from './make-ready.ts';
import { planSheet } from './plan-sheet.ts';
import { prove } from './prove.ts';
import { quilting } from './quilting.ts';
import { server } from './server.ts';
import { sheets } from './sheets.ts';
import { shelf } from './shelf.ts';
import { solid } from './solid.ts';
import { table } from './table.ts';
import { trace } from './trace.ts';
import { tray } from './tray.ts';
import { trueUp } from './true-up.ts';
import { ui } from './ui.ts';
import { wing } from './wing.ts';
import { workers } from './workers.ts';

export const english = {
  /** What the core says: findings, refusals, what undo is of. */
  messages: { ...messages, findings: findingWords },
  app,
  bringIn,
  byHand,
  cnc,
  job,
  makeReady,
  planSheet,
  prove,
  quilting,
  foam,
  server,
  sheets,
  shelf,
  solid,
  table,
  trace,
  tray,
  trueUp,
  ui,
  wing,
  workers,
};
