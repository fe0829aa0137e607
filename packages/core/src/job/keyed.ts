/**
 * In: a list of things with ids. Out: the same kept by id, and back. A change of one of them is then a change at one place,
 * wherever in the list it stands. The same list gives the same object, and the other way round.
 */

export interface Keyed<T> {
  readonly order: readonly string[];
  readonly byId: Readonly<Record<string, T>>;
}

const keyedLists = new WeakMap<readonly unknown[], Keyed<unknown>>();
const lists = new WeakMap<Keyed<unknown>, readonly unknown[]>();

/** @param idOf of two with the same id the list is refused @throws RangeError */
export function keyedBy<T>(list: readonly T[], idOf: (one: T) => string): Keyed<T> {
  const known = keyedLists.get(list);
  if (known) return known as Keyed<T>;
  const byId: Record<string, T> = Object.create(null);
  const order = list.map((one) => {
    const id = idOf(one);
    if (id in byId) throw new RangeError(`two things with the id ${id}`);
    byId[id] = one;
    return id;
  });
  const keyed = { order, byId: { ...byId } };
  keyedLists.set(list, keyed);
  lists.set(keyed, list);
  return keyed;
}

/** What an order names and nobody keeps is left out. */
export function listOf<T>(keyed: Keyed<T>): readonly T[] {
  const known = lists.get(keyed);
  if (known) return known as readonly T[];
  const list = keyed.order.flatMap((id) => (Object.hasOwn(keyed.byId, id) ? [keyed.byId[id] as T] : []));
  lists.set(keyed, list);
  keyedLists.set(list, keyed);
  return list;
}

export const isKeyed = (value: unknown): value is Keyed<unknown> =>
  typeof value === 'object' &&
  value !== null &&
  Array.isArray((value as Partial<Keyed<unknown>>).order) &&
  typeof (value as Partial<Keyed<unknown>>).byId === 'object' &&
  (value as Partial<Keyed<unknown>>).byId !== null;
