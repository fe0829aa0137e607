/**
 * Brings the database to the newest tables; each migration runs once, whole or not at all, and is written down in the database
 * in the same transaction.
 */
import { QueryTypes, type Transaction } from 'sequelize';
import { Umzug } from 'umzug';
import { words } from '../words/index.ts';
import { database } from './database.ts';
import * as bin from './migrations/bin-and-saves.ts';
import * as firstTables from './migrations/first-tables.ts';
import * as motifs from './migrations/motifs.ts';
import * as presets from './migrations/presets.ts';
import * as shelf from './migrations/shelf.ts';
import type { Up } from './migrations/up.ts';
import * as workingCopies from './migrations/working-copies.ts';

/** In order; a name never changes once it has landed. */
export const migrations: { name: string; up: Up }[] = [
  { name: '001-first-tables', up: firstTables.up },
  { name: '002-working-copies', up: workingCopies.up },
  { name: '003-motifs', up: motifs.up },
  { name: '004-presets', up: presets.up },
  { name: '005-bin-and-saves', up: bin.up },
  { name: '006-shelf', up: shelf.up },
];

/** A number of our own for the database's advisory lock, so that two starts at once do not both migrate. */
const migrationLock = 7_262_001;

const ledger = 'migrations';

/** @param until the name of the last migration to run; all where it is left out */
export async function migrate(until?: string): Promise<void> {
  const sequelize = database();
  const tables = sequelize.getQueryInterface();
  await sequelize.transaction(async (transaction) => {
    await sequelize.query('select pg_advisory_xact_lock(:lock)', {
      replacements: { lock: migrationLock },
      type: QueryTypes.SELECT,
      transaction,
    });
    await sequelize.query(`create table if not exists "${ledger}" (name varchar(255) primary key)`, { transaction });
    const umzug = new Umzug({
      migrations: migrations.map(({ name, up }) => ({ name, up: () => up(tables, transaction) })),
      storage: {
        executed: async () => (await done(transaction)).map(({ name }) => name),
        logMigration: async ({ name }) => {
          await tables.bulkInsert(ledger, [{ name }], { transaction });
        },
        unlogMigration: async ({ name }) => {
          await tables.bulkDelete(ledger, { name }, { transaction });
        },
      },
      logger: undefined,
    });
    await umzug.up(until ? { to: until } : {});
  });
}

const done = (transaction?: Transaction): Promise<{ name: string }[]> =>
  database().query(`select name from "${ledger}" order by name`, { type: QueryTypes.SELECT, transaction });

/** What the database lacks, or has that this version does not know; null where it is just right. */
export async function schemaFault(): Promise<string | null> {
  const there = await done().catch(() => []);
  const names = new Set(there.map(({ name }) => name));
  const missing = migrations.filter(({ name }) => !names.has(name));
  const unknown = there.filter(({ name }) => !migrations.some((m) => m.name === name));
  if (unknown.length > 0) return words.server.theDatabaseIsOfANewer(unknown.map(({ name }) => name).join(', '));
  return missing.length > 0 ? words.server.theDatabaseLacksRunTheMigrations(missing.map(({ name }) => name).join(', ')) : null;
}
