/**
 * In: a heading and rows. Out: a table of comma-separated values (RFC 4180); a text in it that a spreadsheet would run as a formula is
 * quoted first.
 * Rests on: Papa Parse for the format.
 */
import Papa from 'papaparse';

type Cell = string | number | null;

/** @returns lines that end in CR LF */
export function csvText(heading: readonly string[], rows: readonly (readonly Cell[])[]): string {
  const cells = rows.map((row) => row.map((cell) => (typeof cell === 'string' ? safe(cell) : cell)));
  return `${Papa.unparse([[...heading], ...cells], { newline: '\r\n' })}\r\n`;
}

/** What begins like a formula is kept from being one by an apostrophe. */
const safe = (text: string): string => (/^[=+@\t\r']|^-(?!\d)/.test(text) ? `'${text}` : text);

/** A text as it was before it was written. */
export const fromCsvCell = (text: string): string => (/^'[=+@\t\r'-]/.test(text) ? text.slice(1) : text);
