'use client';
/**
 * A list that stays the same one while its items do, so that nothing is drawn again for a new list of the same.
 */
import { useRef } from 'react';

export function useKeptList<T>(list: readonly T[]): readonly T[] {
  const kept = useRef(list);
  if (list.length !== kept.current.length || list.some((item, k) => item !== kept.current[k])) kept.current = list;
  return kept.current;
}
