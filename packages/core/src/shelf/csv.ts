/**
 * In: a table of the shelf as comma-separated values (RFC 4180), lengths in mm or with their unit. Out: its items, and each line that
 * could not be read, with the reason; and back. The heading names the columns, in any order; columns that are not there stay as they
 * are until then.
 * Rests on: Papa Parse for the format.
 */
import Papa from 'papaparse';
import type { z } from 'zod';
import { csvText, fromCsvCell } from '../formats/csv.ts';
import { english } from '../messages/index.ts';
import { type Column, ColumnError, parsedValue, textOf } from './column.ts';
import { type ShelfKind, type ShelfValues, shelfKinds } from './shelf-kinds.ts';

export interface FaultyLine {
  /** As an editor counts, the heading is 1. */
  readonly line: number;
  readonly reason: string;
}

export interface CsvRead<K extends ShelfKind> {
  readonly items: ShelfValues[K][];
  readonly faulty: FaultyLine[];
  /** Fields that the file says; all others of an item of the same name stay as they are. */
  readonly fields: readonly string[];
  /** Columns of the file that the shelf does not have. */
  readonly ignored: readonly string[];
}

export const maxCsvChars = 8e6;
export const maxCsvLines = 20_000;

/** A file that is no such table at all. */
export class CsvError extends Error {
  readonly code = 'no-table';
}

export function writeCsv<K extends ShelfKind>(kind: K, items: readonly ShelfValues[K][]): string {
  const { columns } = shelfKinds[kind];
  const rows = items.map((item) => columns.map((column) => textOf(column, (item as Record<string, unknown>)[column.field])));
  return csvText(
    columns.map(({ field }) => field),
    rows,
  );
}

/** Yields the share done. @throws CsvError where the heading names no column of the shelf, or there is too much */
export function* readCsv<K extends ShelfKind>(kind: K, text: string): Generator<number, CsvRead<K>> {
  if (text.length > maxCsvChars) throw new CsvError(english.shelf.csvTooLarge(maxCsvChars / 1e6));
  const { columns } = shelfKinds[kind];
  const isKnown = (name: string): boolean => columns.some(({ field }) => field === name);
  const [items, faulty]: [ShelfValues[K][], FaultyLine[]] = [[], []];
  const lines = new Map<string, number>();
  let heading: readonly string[] | null = null;
  for (const { fields, line } of recordsOf(text)) {
    if (!heading) {
      heading = fields.map((field) => field.trim());
      if (!heading.some(isKnown)) break;
      continue;
    }
    const count = items.length + faulty.length;
    if (count >= maxCsvLines) throw new CsvError(english.shelf.csvTooLong(maxCsvLines));
    try {
      const item = itemIn(kind, heading, fields);
      const before = lines.get(item.name);
      if (before !== undefined) throw new ColumnError(english.shelf.nameTwice(item.name, before));
      lines.set(item.name, line);
      items.push(item);
    } catch (error) {
      if (!(error instanceof ColumnError)) throw error;
      faulty.push({ line, reason: error.message });
    }
    if (count % 100 === 99) yield Math.min(1, count / maxCsvLines);
  }
  if (!heading?.some(isKnown)) throw new CsvError(english.shelf.csvHeading(columns.map(({ field }) => field).join(', ')));
  return { items, faulty, fields: heading.filter(isKnown), ignored: heading.filter((name) => name !== '' && !isKnown(name)) };
}

/** @throws ColumnError where the line is no item */
function itemIn<K extends ShelfKind>(kind: K, heading: readonly string[], fields: readonly string[]): ShelfValues[K] {
  const { schema, columns } = shelfKinds[kind];
  if (fields.length > heading.length) throw new ColumnError(english.shelf.tooManyFields(fields.length, heading.length));
  const raw: Record<string, unknown> = {};
  for (const column of columns) {
    const at = heading.indexOf(column.field);
    if (at < 0) continue;
    const value = inColumn(column, fromCsvCell(fields[at] ?? ''));
    // What is left empty is as in an item that was just begun.
    if (value !== null && value !== '') raw[column.field] = value;
  }
  if (raw.name === undefined) throw new ColumnError(english.shelf.nameMissing);
  const parsed = schema.safeParse(raw);
  if (!parsed.success) throw new ColumnError(reasonOf(parsed.error.issues[0]));
  return parsed.data;
}

function inColumn(column: Column, text: string): unknown {
  try {
    return parsedValue(column, text);
  } catch (error) {
    throw error instanceof ColumnError ? new ColumnError(`${column.field}: ${error.message}`) : error;
  }
}

/** What the schema says against a value, in plain words. */
export function reasonOf(issue: z.core.$ZodIssue | undefined): string {
  if (!issue) return english.shelf.notPossible;
  const what =
    issue.code === 'too_small'
      ? english.shelf.tooSmall(String(issue.minimum))
      : issue.code === 'too_big'
        ? english.shelf.tooLarge(String(issue.maximum))
        : english.shelf.notPossible;
  return `${issue.path.join(' ')}: ${what}`;
}

/** Records that are not blank, one by one, with the line of the file that each begins in. */
function* recordsOf(text: string): Generator<{ fields: string[]; line: number }> {
  const { data } = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { skipEmptyLines: false });
  let line = 1;
  for (const fields of data) {
    if (fields.some((field) => field.trim() !== '')) yield { fields, line };
    line += 1 + fields.reduce((n, field) => n + (field.match(/\r\n|\n|\r/g)?.length ?? 0), 0);
  }
}

/** An item with what a file says of it. */
export const withFields = <K extends ShelfKind>(
  before: ShelfValues[K],
  item: ShelfValues[K],
  fields: readonly string[],
): ShelfValues[K] => ({
  ...before,
  ...(Object.fromEntries(fields.map((field) => [field, (item as Record<string, unknown>)[field]])) as Partial<ShelfValues[K]>),
});
