'use client';
/**
 * Edits of the shelf, saved as they are made, each of which can be undone; what the server says against one stands until the next.
 */
import { type ShelfItem, type ShelfKind, type ShelfValues, shelfKinds } from '@nuvet/core/shelf';
import { create } from 'zustand';
import { words } from '@/words';
import { ofKind, readShelf, removeFromShelf, type ShelfSaving, saveToShelf, useShelfStore } from './shelf-store';

interface Undoable {
  readonly label: string;
  undo(): Promise<unknown>;
}

interface ShelfEdits {
  /** What can be undone, the newest last. */
  readonly done: readonly Undoable[];
  readonly fault: string | null;
  readonly isBusy: boolean;
}

export const useShelfEdits = create<ShelfEdits>(() => ({ done: [], fault: null, isBusy: false }));
const set = useShelfEdits.setState;

export const setShelfFault = (fault: string | null): void => set({ fault });

const now = (): readonly ShelfItem[] => useShelfStore.getState().items ?? [];
const savingOf = ({ id, kind, value }: ShelfItem, revision: number | null): ShelfSaving => ({ id, kind, value, revision });

/** Takes items back to what they were, whatever they are by now. */
const putBack = (items: readonly ShelfItem[]): Promise<unknown> =>
  saveToShelf(items.map((item) => savingOf(item, now().find(({ id }) => id === item.id)?.revision ?? null)));

/** Does an edit; whether it went well. */
async function attempt(work: () => Promise<Undoable | null>): Promise<boolean> {
  set({ isBusy: true });
  try {
    const edit = await work();
    set(({ done }) => ({ done: edit ? [...done, edit] : done, fault: null }));
    return true;
  } catch (error) {
    set({ fault: (error as Error).message });
    // What is shown may be older than what is there.
    void readShelf(true);
    return false;
  } finally {
    set({ isBusy: false });
  }
}

export const changeItem = <K extends ShelfKind>(before: ShelfItem<K>, value: ShelfValues[K]): Promise<boolean> =>
  attempt(async () => {
    await saveToShelf([{ ...savingOf(before, before.revision), value }]);
    return { label: words.shelf.changeOf(before.value.name), undo: () => putBack([before]) };
  });

/** Adds an item, under another name where its own is taken; its id, or null where it did not go well. */
export async function addItem<K extends ShelfKind>(kind: K, value: ShelfValues[K]): Promise<string | null> {
  let id: string | null = null;
  await attempt(async () => {
    const [saved] = await saveToShelf([{ kind, value: { ...value, name: freeName(kind, value.name) }, revision: null }]);
    if (!saved) return null;
    id = saved.id;
    return { label: words.shelf.adding(saved.value.name), undo: () => removeFromShelf([saved.id]) };
  });
  return id;
}

export const removeItems = (items: readonly ShelfItem[]): Promise<boolean> =>
  attempt(async () => {
    await removeFromShelf(items.map(({ id }) => id));
    return { label: words.shelf.removing(items.length, items[0]?.value.name ?? ''), undo: () => putBack(items) };
  });

/** Many at once, those of a known name in its place. */
export const bringIn = <K extends ShelfKind>(
  kind: K,
  values: readonly ShelfValues[K][],
  onShare: (share: number) => void,
): Promise<boolean> =>
  attempt(async () => {
    const before = new Map(ofKind(now(), kind).map((item) => [item.value.name, item]));
    const replaced = values.flatMap(({ name }) => before.get(name) ?? []);
    const saving = values.map((value) => ({ kind, value, revision: null }));
    const saved = await saveToShelf(saving, { byName: true, onShare });
    const added = saved.filter(({ value: { name } }) => !before.has(name)).map(({ id }) => id);
    return {
      label: words.shelf.bringingIn(values.length),
      undo: async () => {
        await removeFromShelf(added);
        await putBack(replaced);
      },
    };
  });

export const undoEdit = (): Promise<boolean> =>
  attempt(async () => {
    const last = useShelfEdits.getState().done.at(-1);
    await last?.undo();
    set(({ done }) => ({ done: done.filter((edit) => edit !== last) }));
    return null;
  });

/** A name that nothing of its kind has: the one that is wanted, or with a number behind. */
function freeName(kind: ShelfKind, wanted: string): string {
  const taken = new Set(ofKind(now(), kind).map(({ value }) => value.name));
  if (!taken.has(wanted)) return wanted;
  for (let k = 2; ; k++) if (!taken.has(`${wanted} ${k}`)) return `${wanted} ${k}`;
}

/** An item that was just begun. */
export const newValue = <K extends ShelfKind>(kind: K): ShelfValues[K] =>
  shelfKinds[kind].schema.parse({ name: words.shelf.newName[kind] });
