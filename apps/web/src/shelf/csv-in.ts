'use client';
/**
 * Brings a CSV file in: read in slices, so that the page stays alive, and saved; the lines that could not be read are listed.
 */
import { type FaultyLine, readCsv, type ShelfKind, withFields } from '@nuvet/core/shelf';
import { useState } from 'react';
import { words } from '@/words';
import { runInSlices } from '@/workers/slices';
import { bringIn, setShelfFault } from './shelf-edits';
import { ofKind, useShelfStore } from './shelf-store';

export interface CsvOutcome {
  readonly message: string;
  readonly faulty: readonly FaultyLine[];
  readonly ignored: readonly string[];
}

/** Of the way to the end reading is so much, saving the rest. */
const readingShare = 0.3;

export function useCsvIn() {
  /** 0 to 1 while a file comes in. */
  const [share, setShare] = useState<number | null>(null);
  const [outcome, setOutcome] = useState<CsvOutcome | null>(null);
  const take = async (kind: ShelfKind, file: File | undefined) => {
    if (!file) return;
    setShare(0);
    setOutcome(null);
    const began = performance.now();
    try {
      const { items, faulty, fields, ignored } = await runInSlices(readCsv(kind, await file.text()), (s) => setShare(readingShare * s));
      const before = new Map(ofKind(useShelfStore.getState().items, kind).map(({ value }) => [value.name, value]));
      const values = items.map((item) => {
        const known = before.get(item.name);
        return known ? withFields(known, item, fields) : item;
      });
      const isWell = values.length === 0 || (await bringIn(kind, values, (s) => setShare(readingShare + (1 - readingShare) * s)));
      const seconds = ((performance.now() - began) / 1000).toFixed(1);
      if (isWell) setOutcome({ message: words.shelf.csvTaken(values.length, faulty.length, seconds), faulty, ignored });
    } catch (error) {
      setShelfFault((error as Error).message);
    }
    setShare(null);
  };
  return { share, outcome, take, dismiss: () => setOutcome(null) };
}
