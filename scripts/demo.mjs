// `npm run demo`: everything from a bare clone to the running application with the demo jobs.
import { installNodePackages } from './node-packages.mjs';
import { claim } from './one-at-a-time.mjs';
import { startPostgres } from './private-postgres.mjs';
import { fail, RunError, say } from './run.mjs';
import { installMissing, needs } from './system-packages.mjs';
import { buildWeb, runTypeScript, startWeb } from './web-server.mjs';

const fresh = process.argv.includes('--fresh');
const own = process.env.DATABASE_URL;

let [database, web] = [null, null];
let stopping = null;
const stop = () => {
  stopping ??= (async () => {
    await web?.stop();
    await database?.stop();
  })();
  return stopping;
};
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) {
  process.on(signal, async () => {
    console.log('\nStopping.');
    await stop();
    process.exit(0);
  });
}

// A demo on a database of one's own may run beside the plain one.
const name = own ? 'demo-elsewhere' : 'demo';

try {
  claim(name);
  if (fresh && own)
    throw new RunError('--fresh would empty the database that DATABASE_URL names. Empty it yourself, or leave DATABASE_URL out.');
  if (!own) await installMissing(needs.postgresql);
  await installNodePackages();
  await buildWeb();
  if (!own) database = await startPostgres({ name: 'postgres-demo', fresh });
  const databaseUrl = own ?? database.url;
  await runTypeScript('scripts/load-demo.ts', [], { DATABASE_URL: databaseUrl });
  web = await startWeb({ name, databaseUrl, wantedPort: Number(process.env.PORT) || 3000 });
  say('Ctrl-C stops the application and its database.');
  console.log(`\nNuvet is ready: ${web.address}\n`);
  const code = await web.ended;
  if (!stopping) {
    await stop();
    fail(new RunError(`The application ended with ${code}.`));
  }
} catch (error) {
  await stop();
  fail(error);
}
