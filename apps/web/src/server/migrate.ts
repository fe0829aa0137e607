/**
 * Brings the database to the newest tables; each migration runs once and is written down in the database.
 */
import { type QueryInterface, QueryTypes } from 'sequelize';
import { SequelizeStorage, Umzug } from 'umzug';
import { database } from './database.ts';
import * as firstTables from './migrations/first-tables.ts';
import * as motifs from './migrations/motifs.ts';
import * as presets from './migrations/presets.ts';
import * as workingCopies from './migrations/working-copies.ts';

/** In order; a name never changes once it has landed. */
const migrations: { name: string; up: (tables: QueryInterface) => Promise<void> }[] = [
  { name: '001-first-tables', up: firstTables.up },
  { name: '002-working-copies', up: workingCopies.up },
  { name: '003-motifs', up: motifs.up },
  { name: '004-presets', up: presets.up },
];

/** A number of our own for the database's advisory lock, so that two starts at once do not both migrate. */
const migrationLock = 7_262_001;

export async function migrate(): Promise<void> {
  const sequelize = database();
  const umzug = new Umzug({
    migrations: migrations.map(({ name, up }) => ({ name, up: () => up(sequelize.getQueryInterface()) })),
    storage: new SequelizeStorage({ sequelize, tableName: 'migrations' }),
    logger: undefined,
  });
  await sequelize.transaction(async (transaction) => {
    await sequelize.query('select pg_advisory_xact_lock(:lock)', {
      replacements: { lock: migrationLock },
      type: QueryTypes.SELECT,
      transaction,
    });
    await umzug.up();
  });
}
