// `npm run screenshots`: takes the pictures in docs/screenshots anew, from freshly loaded demo data.
import { installNodePackages } from './node-packages.mjs';
import { freePort, startPostgres } from './private-postgres.mjs';
import { fail } from './run.mjs';
import { installMissing, needs } from './system-packages.mjs';
import { buildWeb, runTypeScript, startWeb } from './web-server.mjs';

let [database, web] = [null, null];
try {
  await installMissing(needs.postgresql, needs.chromium);
  await installNodePackages();
  await buildWeb();
  database = await startPostgres({ name: 'postgres-screenshots', fresh: true });
  await runTypeScript('scripts/load-demo.ts', [], { DATABASE_URL: database.url });
  web = await startWeb({ databaseUrl: database.url, port: await freePort() });
  await runTypeScript('tests/e2e/take-screenshots.ts', [], { NUVET_ADDRESS: web.address });
} catch (error) {
  await web?.stop();
  await database?.stop();
  fail(error);
}
await web?.stop();
await database?.stop();
