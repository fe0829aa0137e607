/**
 * The kinds of files, and which of them was downloaded last for a machine: that one the main button offers.
 */
import { type FileKind, fileKinds } from '@nuvet/core/make';

export type WantedFile = FileKind;

const keyOf = (machine: string): string => `nuvet file kind ${machine}`;

/** DXF until another one was downloaded. */
export function lastKind(machine: string): FileKind {
  const kept = typeof localStorage === 'undefined' ? null : localStorage.getItem(keyOf(machine));
  return fileKinds.find((kind) => kind === kept) ?? 'dxf';
}

export const rememberKind = (machine: string, kind: FileKind): void => localStorage.setItem(keyOf(machine), kind);
