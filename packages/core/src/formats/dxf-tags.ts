/** The pairs of a group code and a value that a DXF file is made of, and how they are written. */
export type Tag = readonly [code: number, value: string | number];

export const section = (name: string, tags: readonly Tag[]): Tag[] => [[0, 'SECTION'], [2, name], ...tags, [0, 'ENDSEC']];

export const tagsWritten = (tags: readonly Tag[]): string => tags.map(([code, value]) => `${String(code).padStart(3)}\r\n${shown(code, value)}\r\n`).join(''); // biome-ignore format: one line

/** Real values (codes 10 to 59, 140 to 149, 210 to 239) keep a decimal point; six decimals are a nanometre. */
function shown(code: number, value: string | number): string {
  if (typeof value === 'string') return value;
  const isReal = (code >= 10 && code <= 59) || (code >= 140 && code <= 149) || (code >= 210 && code <= 239);
  if (!isReal) return String(value);
  const text = value.toFixed(9).replace(/0+$/, '');
  return text.endsWith('.') ? `${text}0` : text;
}
