'use client';
/**
 * Which file was downloaded last for a machine: that one the main button offers.
 */
import type { ProcessEntry } from '@nuvet/core/job';
import { processKinds } from '@nuvet/core/processes';
import { useSyncExternalStore } from 'react';

type Whose = Pick<ProcessEntry, 'process' | 'machine'>;

const keyOf = ({ process, machine }: Whose): string => `nuvet last file ${process} ${machine.name}`;
const listeners = new Set<() => void>();

/** The first of the machine's set, or the process's first file, until another one was downloaded. */
function firstName({ process, machine }: Whose): string {
  const names = Object.keys(processKinds[process]?.files ?? {});
  return machine.files.find((name) => names.includes(name)) ?? names[0] ?? '';
}

/** In the browser only. */
export function lastFile(whose: Whose): string {
  const kept = localStorage.getItem(keyOf(whose));
  return kept !== null && Object.hasOwn(processKinds[whose.process]?.files ?? {}, kept) ? kept : firstName(whose);
}

/** The same for what is shown; the page as the server sends it shows the first. */
export function useLastFile(whose: Whose | null): string {
  return useSyncExternalStore(
    (onChange) => {
      listeners.add(onChange);
      return () => listeners.delete(onChange);
    },
    () => (whose ? lastFile(whose) : ''),
    () => (whose ? firstName(whose) : ''),
  );
}

export function rememberFile(whose: Whose, name: string): void {
  localStorage.setItem(keyOf(whose), name);
  for (const tell of listeners) tell();
}
