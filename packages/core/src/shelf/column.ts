/**
 * The columns of a shelf's table: what each is called, what may stand in it, and how it is read and written as text. Grid and CSV both
 * rest on them.
 */
import { parseLength } from '../length/index.ts';
import { english } from '../messages/index.ts';

export type ColumnKind = 'text' | 'length' | 'number' | 'choice' | 'sheets' | 'colour';

export interface Column {
  /** The field of an item, and the heading in a CSV file, where lengths are in mm. */
  readonly field: string;
  readonly word: string;
  readonly kind: ColumnKind;
  /** Of a number what it counts in. */
  readonly unit?: string;
  readonly choices?: readonly string[];
}

/** A sheet of stock: its size, and how many there are. */
export interface Sheet {
  readonly widthMm: number;
  readonly heightMm: number;
  readonly count: number;
}

/** Text that means nothing in its column. */
export class ColumnError extends Error {
  readonly code = 'not-in-column';
}

/** What stands in a CSV field. */
export function textOf({ kind }: Column, value: unknown): string {
  if (value === null || value === undefined) return '';
  if (kind === 'sheets') return (value as Sheet[]).map(({ widthMm, heightMm, count }) => `${widthMm}x${heightMm}x${count}`).join('; ');
  return String(value);
}

/**
 * In: what was typed or stands in a CSV field. Out: the value; empty is none.
 * @param unit that a bare length is in
 * @throws ColumnError
 */
export function parsedValue(column: Column, text: string, unit: 'mm' | 'in' = 'mm'): unknown {
  const typed = text.trim();
  if (typed === '') return column.kind === 'sheets' ? [] : column.kind === 'text' ? '' : null;
  switch (column.kind) {
    case 'text':
      return typed;
    case 'colour':
      if (!/^#[0-9a-f]{6}$/i.test(typed)) throw new ColumnError(english.shelf.noColour(typed));
      return typed.toLowerCase();
    case 'choice': {
      const choice = column.choices?.find((one) => one.toLowerCase() === typed.toLowerCase());
      if (!choice) throw new ColumnError(english.shelf.noChoice(typed, (column.choices ?? []).join(', ')));
      return choice;
    }
    case 'length': {
      const read = parseLength(typed, unit, 'any');
      if (!read.ok) throw new ColumnError(read.message);
      return read.mm;
    }
    case 'number': {
      const number = Number(typed.replace(',', '.'));
      if (!Number.isFinite(number)) throw new ColumnError(english.shelf.noNumber(typed));
      return number;
    }
    case 'sheets':
      return typed.split(/[;\n]/).flatMap((one) => (one.trim() === '' ? [] : [sheetOf(one, unit)]));
  }
}

function sheetOf(text: string, unit: 'mm' | 'in'): Sheet {
  const [width, height, count = '1', ...more] = text.split(/\s*[x×]\s*/i);
  const size = (word: string | undefined): number => {
    const read = parseLength(word ?? '', unit, 'positive');
    if (!read.ok) throw new ColumnError(english.shelf.noSheet(text.trim()));
    return read.mm;
  };
  const n = Number(count.replace(/[^\d.]/g, ''));
  if (more.length > 0 || !Number.isInteger(n) || n < 0) throw new ColumnError(english.shelf.noSheet(text.trim()));
  return { widthMm: size(width), heightMm: size(height), count: n };
}
