// The whole application with freshly loaded demo data and a database of its own, for as long as some work takes.
import { claim } from './one-at-a-time.mjs';
import { startPostgres } from './private-postgres.mjs';
import { buildWeb, runTypeScript, startWeb } from './web-server.mjs';

/**
 * Starts database and application, does the work, and stops both, also when the work fails or is broken off.
 * @param {string} name of the database cluster's folder
 * @param {(running: { address: string, pid: number, databaseUrl: string, emptyDatabaseUrl: string }) => Promise<void>} work
 */
export async function withApplication(name, work) {
  claim(name);
  let [database, web] = [null, null];
  const stop = async () => {
    await web?.stop();
    await database?.stop();
  };
  const breakOff = () => stop().finally(() => process.exit(130));
  for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, breakOff);
  try {
    await buildWeb();
    database = await startPostgres({ name, fresh: true });
    await runTypeScript('scripts/load-demo.ts', [], { DATABASE_URL: database.url });
    web = await startWeb({ name, databaseUrl: database.url });
    await work({
      address: web.address,
      pid: web.pid,
      databaseUrl: database.url,
      emptyDatabaseUrl: await database.madeDatabase('server_tests'),
    });
  } finally {
    await stop();
    for (const signal of ['SIGINT', 'SIGTERM']) process.off(signal, breakOff);
  }
}
