/**
 * A database of its own for a file of tests, made beside the one that `npm test` starts for them.
 */
import { randomBytes } from 'node:crypto';
import { Sequelize } from 'sequelize';
import { database } from '@/server/database';
import { migrate } from '@/server/migrate';

/** Points the server's code at a new, empty database; with the newest tables unless told how far to go. */
export async function freshDatabase(until?: string | null): Promise<void> {
  const base = process.env.NUVET_EMPTY_DATABASE as string;
  const name = `test_${randomBytes(6).toString('hex')}`;
  const beside = new Sequelize(base, { dialect: 'postgres', logging: false });
  await beside.query(`create database ${name}`);
  await beside.close();
  await closeDatabase();
  process.env.DATABASE_URL = base.replace(/\/[^/]*$/, `/${name}`);
  if (until !== null) await migrate(until);
}

const kept = globalThis as { nuvetDatabase?: { close(): Promise<void> } };

/** Lets the connection go, as a server does that ends. */
export async function closeDatabase(): Promise<void> {
  await kept.nuvetDatabase?.close();
  kept.nuvetDatabase = undefined;
}

/** A statement straight to the database, past all of the server's code. */
export async function sql<T>(statement: string, replacements: Record<string, unknown> = {}): Promise<T[]> {
  const [rows] = await database().query(statement, { replacements });
  return rows as T[];
}
