/** In: pieces and their measures. Out: the rows of a proof sheet's list. */
export interface ProofRow {
  readonly name: string;
  readonly count: number;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly perimeterMm: number;
  readonly areaMm2: number;
  readonly purpose: string;
}

/** Pieces that look the same by their measures are one row with their count. */
export function proofRows(rows: readonly Omit<ProofRow, 'count'>[]): ProofRow[] {
  const found = new Map<string, ProofRow>();
  for (const row of rows) {
    const key = [row.purpose, ...[row.widthMm, row.heightMm, row.perimeterMm, row.areaMm2].map((v) => v.toFixed(1))].join(' ');
    const same = found.get(key);
    found.set(key, same ? { ...same, count: same.count + 1 } : { ...row, count: 1 });
  }
  return [...found.values()];
}
