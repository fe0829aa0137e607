/**
 * The one connection to PostgreSQL, named by DATABASE_URL.
 */
import { Sequelize } from 'sequelize';

const kept = globalThis as { nuvetDatabase?: Sequelize };

/** The connection; the same for all of a process, also when the framework loads this file twice. */
export function database(): Sequelize {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set; `npm run demo` sets it.');
  kept.nuvetDatabase ??= new Sequelize(url, { dialect: 'postgres', logging: false, pool: { max: 10 }, define: { underscored: true } });
  return kept.nuvetDatabase;
}
