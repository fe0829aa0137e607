/**
 * A workshop's shelf in the database: materials, tools and machines, listed, saved, deleted, and the jobs that use them. A job keeps a
 * copy of what it used: an item's revision tells whether the shelf has a newer one.
 */
import { randomUUID } from 'node:crypto';
import { type ShelfItem, type ShelfKind, shelfKindNames, shelfKinds } from '@nuvet/core/shelf';
import { literal, Op, QueryTypes, type Transaction, UniqueConstraintError } from 'sequelize';
import { z } from 'zod';
import { words } from '../words/index.ts';
import type { Person } from './access.ts';
import { HttpError } from './http-error.ts';
import { models, type ShelfRow } from './models.ts';

const id = z.uuid();
const savesOf = <K extends ShelfKind>(kind: K) =>
  z.strictObject({ kind: z.literal(kind), id: id.optional(), revision: z.int().positive().nullable(), value: shelfKinds[kind].schema });

/** Items to save: new ones have no revision; `byName` lets one of the same name give way, whatever its revision. */
export const shelfSaveSchema = z.strictObject({
  items: z
    .array(z.discriminatedUnion('kind', [savesOf('material'), savesOf('tool'), savesOf('machine')]))
    .min(1)
    .max(500),
  byName: z.boolean().default(false),
});
export type ShelfSave = z.infer<typeof shelfSaveSchema>;

export const shelfDeleteSchema = z.strictObject({ ids: z.array(id).min(1).max(500) });
/** A save of many tools; of materials each may have its photograph. */
export const maxShelfBytes = 8e6;
const maxItems = 20_000;

const asItem = (row: ShelfRow): ShelfItem => ({ id: row.id, kind: row.kind, revision: row.revision, value: row.value });

export async function listShelf({ workshopId }: Person, kinds: readonly ShelfKind[] = shelfKindNames): Promise<ShelfItem[]> {
  const rows = await models().ShelfRow.findAll({ where: { workshopId, kind: [...kinds] }, order: [['name', 'ASC'], 'id'] });
  return rows.map(asItem);
}

/** All in one statement: hundreds of models would cost more than their rows. */
const upsert = `insert into shelf_items (id, workshop_id, kind, name, value, revision, created_at, updated_at)
  select (r->>'id')::uuid, :workshopId, r->>'kind', r->'value'->>'name', r->'value', (r->>'revision')::int, now(), now()
  from jsonb_array_elements(:items::jsonb) r
  on conflict (id) do update set name = excluded.name, value = excluded.value, revision = excluded.revision, updated_at = now()
  where shelf_items.workshop_id = excluded.workshop_id`;

/**
 * Saves items, all or none; their ids and revisions as they are then.
 * @throws HttpError 409 where one was changed elsewhere since (or is there already, though it was to be new), where its name is taken, or where the shelf is full
 */
export async function saveShelf({ workshopId }: Person, { items, byName }: ShelfSave): Promise<Pick<ShelfItem, 'id' | 'revision'>[]> {
  const { sequelize, ShelfRow } = models();
  return sequelize.transaction(async (transaction) => {
    const rows = await lockedRows(workshopId, items, transaction);
    const saved: ShelfItem[] = [];
    for (const { kind, id: wanted, revision, value } of items) {
      const named = rows.find((row) => row.kind === kind && row.name === value.name);
      const isByName = byName && revision === null;
      const own = isByName ? named : rows.find((row) => row.id === wanted);
      if (!isByName && (own?.revision ?? null) !== revision)
        throw new HttpError(409, 'changed-elsewhere', words.server.shelfItemChanged(value.name));
      if (named && named !== own) throw new HttpError(409, 'name-taken', words.server.shelfNameTaken(value.name));
      saved.push({ id: own?.id ?? wanted ?? randomUUID(), kind, revision: (own?.revision ?? 0) + 1, value } as ShelfItem);
    }
    for (const kind of new Set(items.map((item) => item.kind)))
      if ((await ShelfRow.count({ where: { workshopId, kind }, transaction })) + saved.filter((s) => s.revision === 1).length > maxItems)
        throw new HttpError(409, 'shelf-full', words.server.shelfFull);
    const replacements = { workshopId, items: JSON.stringify(saved) };
    const [, count] = await sequelize.query(upsert, { replacements, type: QueryTypes.INSERT, transaction }).catch((error) => {
      // Of the same name twice in one save, or another save was quicker.
      throw error instanceof UniqueConstraintError ? new HttpError(409, 'name-taken', words.server.shelfNameTwice) : error;
    });
    // An id that is anybody else's.
    if (count !== saved.length) throw new HttpError(409, 'name-taken', words.server.shelfIdTaken);
    return saved.map(({ id: own, revision }) => ({ id: own, revision }));
  });
}

/** The rows that a save may touch: those that it names, and those of the same names. */
const lockedRows = (workshopId: string, items: ShelfSave['items'], transaction: Transaction): Promise<ShelfRow[]> =>
  models().ShelfRow.findAll({
    where: {
      workshopId,
      [Op.or]: [{ id: items.flatMap((item) => item.id ?? []) }, { name: items.map(({ value }) => value.name) }],
    },
    lock: true,
    transaction,
  });

export async function deleteFromShelf({ workshopId }: Person, { ids }: z.infer<typeof shelfDeleteSchema>): Promise<void> {
  await models().ShelfRow.destroy({ where: { workshopId, id: ids } });
}

export interface UsingJob {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
}

const maxUsing = 200;

/** The jobs, outside the bin, that keep a copy of an item, the newest first. */
export async function jobsUsing({ workshopId }: Person, itemId: string): Promise<UsingJob[]> {
  const rows = await models().JobRow.findAll({
    where: {
      workshopId,
      deletedAt: null,
      [Op.and]: [literal(`summary @> ${models().sequelize.escape(JSON.stringify({ uses: [itemId] }))}::jsonb`)],
    },
    attributes: ['id', 'summary', 'revision'],
    order: [['updatedAt', 'DESC']],
    limit: maxUsing,
  });
  return rows.map(({ id: jobId, summary, revision }) => ({ id: jobId, name: summary.name, revision }));
}
