/**
 * The server's log: a line of JSON each, with its time, on standard error.
 */
import pino from 'pino';

export const log = pino(
  { name: 'nuvet', level: process.env.NUVET_LOG ?? 'info', timestamp: pino.stdTimeFunctions.isoTime },
  pino.destination(2),
);
