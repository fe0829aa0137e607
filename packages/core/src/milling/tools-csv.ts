/**
 * In: a table of tools as CSV. Out: the tools; or what is wrong, with its line and column.
 * Columns: name, kind, diameterMm, angleDeg, tipMm, flutes, cutLengthMm, spindleRpm, feedMmPerMin, plungeMmPerMin, stepdownMm, stepover.
 */
import Papa from 'papaparse';
import { SaidError, say } from '../messages/index.ts';
import { type MillTool, type MillToolKind, millToolSchema } from './mill-tool.ts';

const kindsNamed: Readonly<Record<string, MillToolKind>> = {
  'end-mill': 'end mill',
  ball: 'ball',
  'v-bit': 'V-bit',
  'tapered-ball': 'tapered',
  drill: 'drill',
};

/** Columns of figures, and the field that each is; those with a default may be left empty. */
const figures: Readonly<Record<string, { readonly field: keyof MillTool; readonly otherwise?: number | null }>> = {
  diameterMm: { field: 'diameterMm' },
  angleDeg: { field: 'angle', otherwise: null },
  tipMm: { field: 'tipMm', otherwise: 0 },
  flutes: { field: 'flutes', otherwise: 2 },
  cutLengthMm: { field: 'cutLengthMm', otherwise: null },
  spindleRpm: { field: 'speedRpm' },
  feedMmPerMin: { field: 'feedMmPerMin' },
  plungeMmPerMin: { field: 'plungeMmPerMin' },
  stepdownMm: { field: 'stepdownMm' },
  stepover: { field: 'stepover', otherwise: 0.4 },
};

const mostChars = 200_000;
const mostTools = 24;

/** @throws SaidError that names the line and the column */
export function readToolsCsv(text: string): MillTool[] {
  if (text.length > mostChars) throw new SaidError(say.milling.tableTooLong());
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { skipEmptyLines: 'greedy' });
  const [head, ...rows] = data;
  const columns = (head ?? []).map((word) => word.trim());
  if (!columns.includes('name') || !columns.includes('kind')) throw new SaidError(say.milling.tableNeedsColumns());
  if (rows.length === 0) throw new SaidError(say.milling.tableIsEmpty());
  if (rows.length > mostTools) throw new SaidError(say.milling.tooManyTools(mostTools));
  return rows.map((row, k) => toolOf(columns, row, k + 2));
}

function toolOf(columns: readonly string[], row: readonly string[], line: number): MillTool {
  const word = (column: string): string => (row[columns.indexOf(column)] ?? '').trim();
  const name = word('name');
  if (name === '') throw new SaidError(say.milling.badCell(line, 'name', ''));
  const kind = kindsNamed[word('kind').toLowerCase()];
  if (!kind) throw new SaidError(say.milling.badKind(line, word('kind'), Object.keys(kindsNamed).join(', ')));
  const tool: Record<string, unknown> = { id: `tool-${line - 1}`, name, kind };
  for (const [column, { field, otherwise }] of Object.entries(figures)) {
    const raw = word(column);
    const value = raw === '' && otherwise !== undefined ? otherwise : raw === '' ? Number.NaN : Number(raw);
    const shape = millToolSchema.shape[field];
    if (!shape.safeParse(value).success) throw new SaidError(say.milling.badCell(line, column, raw));
    tool[field] = value;
  }
  return millToolSchema.parse(tool);
}

/** A tool in words: `end mill 3.175mm`, `V-bit 60deg`, `ball 6mm`. */
export function toolSaid(words: string): MillTool {
  const kind = Object.entries(kindsNamed).find(([name, value]) =>
    new RegExp(`\\b(?:${name.replace('-', '[ -]?')}|${value})\\b`, 'i').test(words),
  )?.[1];
  const length = /(\d+(?:\.\d+)?)\s*(mm|in|"|inch(?:es)?)/i.exec(words);
  const angle = /(\d+(?:\.\d+)?)\s*(?:deg(?:rees)?|°)/i.exec(words);
  const tip = /tip\s*(\d+(?:\.\d+)?)\s*mm/i.exec(words);
  if (!kind || (!length && kind !== 'V-bit')) throw new SaidError(say.milling.toolNotUnderstood(words));
  const diameter = length ? Number(length[1]) * (/mm/i.test(length[2] as string) ? 1 : 25.4) : 12;
  const parsed = millToolSchema.safeParse({
    id: 'said',
    name: words.trim().slice(0, 100),
    kind,
    diameterMm: diameter,
    angle: angle ? Number(angle[1]) : null,
    tipMm: tip ? Number(tip[1]) : kind === 'tapered' ? 1 : 0,
    speedRpm: 18_000,
    feedMmPerMin: 1000,
    plungeMmPerMin: 300,
    stepdownMm: Math.max(0.1, diameter / 2),
    stepover: 0.4,
  });
  if (!parsed.success) throw new SaidError(say.milling.toolNotUnderstood(words));
  return parsed.data;
}
