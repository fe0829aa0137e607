/**
 * In: a job document of any version, unchecked. Out: the same with the fields of the newest version, to be checked.
 * What is no document comes out as it is and is refused by the schema.
 */
import { isKeyed, listOf } from './keyed.ts';
import { fourthOf } from './third-version.ts';

type Plain = Readonly<Record<string, unknown>>;
const isPlain = (value: unknown): value is Plain => typeof value === 'object' && value !== null && !Array.isArray(value);

export function migrated(raw: unknown): unknown {
  if (!isPlain(raw)) return raw;
  if (raw.version === 1 || raw.version === 2) return fourthOf(thirdOf(raw));
  if (raw.version === 3) return fourthOf(inLists(raw));
  return raw.version === 4 ? inLists(raw) : raw;
}

/** Versions 1 and 2 had one trace; marks of version 1 are read by their own schema. */
function thirdOf({ trace, ...rest }: Plain): Plain {
  return { ...rest, version: 3, ...(trace === undefined ? {} : { traces: trace === null ? [] : [trace] }) };
}

/** The document keeps by id what lies in lists in memory. */
function inLists(raw: Plain): Plain {
  const { drawn, traces, drawings } = raw;
  return {
    ...raw,
    ...(drawn === undefined ? {} : { drawn: asList(drawn) }),
    ...(traces === undefined ? {} : { traces: withPiecesInLists(asList(traces)) }),
    ...(drawings === undefined ? {} : { drawings: withPiecesInLists(asList(drawings)) }),
  };
}

const asList = (value: unknown): unknown => (isKeyed(value) ? listOf(value) : value);

const withPiecesInLists = (list: unknown): unknown =>
  Array.isArray(list) ? list.map((one) => (isPlain(one) ? { ...one, pieces: asList(one.pieces) } : one)) : list;
