/**
 * In: whatever a handler threw. Out: the problem that is answered, plain and without a word of the program's inside; what is ours to
 * mend is logged, without what people have typed.
 */
import { BaseError, ConnectionError, DatabaseError } from 'sequelize';
import { z } from 'zod';
import { words } from '../words/index.ts';
import { HttpError } from './http-error.ts';
import { log } from './log.ts';

/** Codes of PostgreSQL: no room on the disk; connection lost; shut down, starting, or given up by a time limit. */
const noRoom = ['53100', 'ENOSPC'];
const away = /^(08...|57P..|57014|25P03|53300|ECONN.*|EPIPE|ETIMEDOUT)$/;
const awayWords = /Connection terminated|Query read timeout|timeout expired|Client has encountered a connection error|not queryable/;

export function asHttpError(error: unknown): HttpError {
  if (error instanceof HttpError) return error;
  if (error instanceof z.ZodError) return new HttpError(400, 'not-understood', words.server.invalidRequest(firstFault(error)));
  const code = codeOf(error);
  if (noRoom.includes(code)) {
    log.error({ code }, 'no room left on the disk');
    return new HttpError(507, 'disk-full', words.server.theDiskOfTheServerIs);
  }
  if (isAway(error, code)) {
    log.warn({ code, message: messageOf(error) }, 'the database is away');
    return new HttpError(503, 'database-away', words.server.theDatabaseDoesNotAnswerJust, 2);
  }
  log.error({ code, message: messageOf(error), stack: error instanceof Error ? error.stack : undefined }, 'a request failed');
  return new HttpError(500, 'our-fault', words.server.somethingWentWrongHereNothingWas);
}

const codeOf = (error: unknown): string =>
  String((error instanceof DatabaseError ? (error.parent as { code?: string }).code : (error as { code?: string })?.code) ?? '');

/** Of a database's error its own words alone, not the statement with all that it carried. */
const messageOf = (error: unknown): string =>
  error instanceof DatabaseError ? error.parent.message : error instanceof Error ? error.message : String(error);

function isAway(error: unknown, code: string): boolean {
  if (error instanceof ConnectionError) return true;
  return (
    away.test(code) ||
    (error instanceof BaseError && awayWords.test(error.message)) ||
    (error instanceof Error && awayWords.test(error.message))
  );
}

/** The first thing that is wrong, as "name: too long". */
function firstFault({ issues }: z.ZodError): string {
  const [first] = issues;
  if (!first) return words.server.somethingInItIsMissing;
  const place = first.path.map(String).join(' ');
  return `${place ? `${place}: ` : ''}${first.message.replace(/[.✖]+$/, '')}`;
}
