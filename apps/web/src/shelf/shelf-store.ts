'use client';
/**
 * The workshop's shelf as this page knows it: read when it is first needed, saved as it is changed.
 */
import type { ShelfCopy } from '@nuvet/core/job';
import { type ShelfItem, type ShelfKind, type ShelfValues, shelfKinds } from '@nuvet/core/shelf';
import { useEffect } from 'react';
import { z } from 'zod';
import { create } from 'zustand';
import { ask } from '@/ui/requests';

const itemOf = <K extends ShelfKind>(kind: K) =>
  z.object({ id: z.uuid(), kind: z.literal(kind), revision: z.int().positive(), value: shelfKinds[kind].schema });
const itemsSchema = z.array(z.discriminatedUnion('kind', [itemOf('material'), itemOf('tool'), itemOf('machine')])) as unknown as z.ZodType<
  ShelfItem[]
>;

const savedSchema = z.array(z.object({ id: z.uuid(), revision: z.int().positive() }));

export interface ShelfSaving<K extends ShelfKind = ShelfKind> {
  readonly kind: K;
  readonly id?: string;
  /** Null for a new one. */
  readonly revision: number | null;
  readonly value: ShelfValues[K];
}

interface Shelf {
  /** Null until it is read. */
  readonly items: readonly ShelfItem[] | null;
  readonly fault: string | null;
}

export const useShelfStore = create<Shelf>(() => ({ items: null, fault: null }));

let coming: Promise<readonly ShelfItem[]> | null = null;

/** Reads the shelf; once, unless it is asked anew. */
export function readShelf(isAnew = false): Promise<readonly ShelfItem[]> {
  const { items: known } = useShelfStore.getState();
  if (!isAnew && known) return Promise.resolve(known);
  if (!isAnew && coming) return coming;
  coming = ask('GET', '/api/shelf', itemsSchema).then(
    (items) => {
      useShelfStore.setState({ items, fault: null });
      return items;
    },
    (error: Error) => {
      coming = null;
      useShelfStore.setState({ fault: error.message });
      return [];
    },
  );
  return coming;
}

/** Items at once are saved in parts of so many. */
const partSize = 500;

/**
 * Saves items and takes over what became of them.
 * @param onShare called with the share that is saved
 * @throws RequestError where one was changed elsewhere, or its name is taken
 */
export async function saveToShelf(
  saving: readonly ShelfSaving[],
  { byName = false, onShare = () => {} }: { byName?: boolean; onShare?: (share: number) => void } = {},
): Promise<ShelfItem[]> {
  const saved: ShelfItem[] = [];
  for (let k = 0; k < saving.length; k += partSize) {
    const part = saving.slice(k, k + partSize);
    const told = await ask('POST', '/api/shelf', savedSchema, { items: part, byName });
    told.forEach(({ id, revision }, n) => {
      const { kind, value } = part[n] as ShelfSaving;
      saved.push({ id, kind, revision, value });
    });
    onShare(Math.min(1, (k + partSize) / saving.length));
  }
  const ids = new Set(saved.map(({ id }) => id));
  useShelfStore.setState(({ items }) => ({ items: sorted([...(items ?? []).filter(({ id }) => !ids.has(id)), ...saved]) }));
  return saved;
}

/**
 * Puts an item on the shelf under its name, in the place of one of that name: as that is now, another window may have changed it.
 * @throws RequestError where somebody else was quicker
 */
export async function putOnShelf<K extends ShelfKind>(
  kind: K,
  name: string,
  valueFrom: (before: ShelfValues[K] | null) => ShelfValues[K],
): Promise<ShelfCopy> {
  const before = ofKind(await readShelf(true), kind).find(({ value }) => value.name === name);
  const value = valueFrom(before?.value ?? null);
  const [saved] = await saveToShelf([{ kind, value, revision: before?.revision ?? null, ...(before ? { id: before.id } : {}) }]);
  const { id, revision } = saved as ShelfItem;
  return { id, revision };
}

export async function removeFromShelf(ids: readonly string[]): Promise<void> {
  for (let k = 0; k < ids.length; k += partSize) await ask('POST', '/api/shelf/deleted', z.null(), { ids: ids.slice(k, k + partSize) });
  const gone = new Set(ids);
  useShelfStore.setState(({ items }) => ({ items: (items ?? []).filter(({ id }) => !gone.has(id)) }));
}

const byName = new Intl.Collator('en', { numeric: true });
const sorted = (items: ShelfItem[]): ShelfItem[] => items.sort((a, b) => byName.compare(a.value.name, b.value.name));

const isOf =
  <K extends ShelfKind>(kind: K) =>
  (item: ShelfItem): item is ShelfItem<K> =>
    item.kind === kind;

export const ofKind = <K extends ShelfKind>(items: readonly ShelfItem[] | null, kind: K): ShelfItem<K>[] =>
  ((items ?? []) as ShelfItem[]).filter(isOf(kind)) as ShelfItem<K>[];

/** The shelf, read if it was not yet. */
export function useShelf(): Shelf {
  useEffect(() => void readShelf(), []);
  return useShelfStore();
}
