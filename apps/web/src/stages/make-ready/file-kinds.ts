'use client';
/**
 * The kinds of files, and which of them was downloaded last for a machine: that one the main button offers.
 */
import { type FileKind, fileKinds } from '@nuvet/core/make';
import { useSyncExternalStore } from 'react';

const keyOf = (machine: string): string => `nuvet file kind ${machine}`;
const plainKind: FileKind = 'dxf';
const listeners = new Set<() => void>();

/** DXF until another one was downloaded; in the browser only. */
export function lastKind(machine: string): FileKind {
  const kept = localStorage.getItem(keyOf(machine));
  return fileKinds.find((kind) => kind === kept) ?? plainKind;
}

/** The same for what is shown; the page as the server sends it shows DXF. */
export function useLastKind(machine: string): FileKind {
  return useSyncExternalStore(
    (onChange) => {
      listeners.add(onChange);
      return () => listeners.delete(onChange);
    },
    () => lastKind(machine),
    () => plainKind,
  );
}

export function rememberKind(machine: string, kind: FileKind): void {
  localStorage.setItem(keyOf(machine), kind);
  for (const tell of listeners) tell();
}
