/**
 * The one connection to PostgreSQL, named by DATABASE_URL.
 */
import { Sequelize } from 'sequelize';

const kept = globalThis as { nuvetDatabase?: Sequelize };

/** How long a connection, and a statement, may take. */
const waitMs = 5000;
const statementMs = 15_000;

/** The connection; the same for all of a process, also when the framework loads this file twice. */
export function database(): Sequelize {
  const url = process.env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set; `npm run demo` sets it.');
  kept.nuvetDatabase ??= new Sequelize(url, {
    dialect: 'postgres',
    logging: false,
    pool: { max: 10, acquire: waitMs },
    define: { underscored: true },
    // A database that hangs answers no sooner for being waited for: a request gives up and can be made again.
    dialectOptions: {
      connectionTimeoutMillis: waitMs,
      statement_timeout: statementMs,
      query_timeout: statementMs + 1000,
      idle_in_transaction_session_timeout: 2 * statementMs,
      keepAlive: true,
    },
  });
  return kept.nuvetDatabase;
}
