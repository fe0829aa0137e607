/** Tables as RFC 4180 has them, read back by Papa Parse, and what a spreadsheet would run. */
import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { lawRuns } from '../../../../tests/unit/random-laws.ts';
import { csvText, fromCsvCell } from './csv.ts';

describe('a table of comma-separated values', () => {
  it('has a heading, lines that end in CR LF, and quotes where RFC 4180 wants them (section 2, rules 1, 3, 6 and 7)', () => {
    const text = csvText(['number', 'name'], [[1, 'Bell, "small"'], [2, 'two\r\nlines'], [3, null]]); // biome-ignore format: one line
    expect(text).toBe('number,name\r\n1,"Bell, ""small"""\r\n2,"two\r\nlines"\r\n3,\r\n');
  });
  it.each(['=1+1', '+SUM(A1)', '@A1', '-A1', '\tx', "'quoted"])('keeps a spreadsheet from running “%s”, and gives it back', (word) => {
    const [row] = Papa.parse<string[]>(csvText(['a'], [[word]]), { skipEmptyLines: true }).data.slice(1);
    expect(row?.[0]).toBe(`'${word}`);
    expect(fromCsvCell(row?.[0] as string)).toBe(word);
  });
  it('leaves numbers alone, those below zero, too', () => {
    expect(csvText(['x'], [['-3.50'], [-2], ['4']])).toBe('x\r\n-3.50\r\n-2\r\n4\r\n');
  });
  it('comes back as it was written, whatever stands in it', () => {
    const cell = fc.string({ unit: 'grapheme-ascii', minLength: 1, maxLength: 12 });
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 6 }), (rows) => {
        const read = Papa.parse<string[]>(csvText(['a', 'b'], rows), { delimiter: ',' }).data.slice(1, -1);
        expect(read.map((row) => row.map(fromCsvCell))).toEqual(rows);
      }),
      { numRuns: lawRuns(400) },
    );
  });
});
