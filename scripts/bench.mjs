// `npm run bench`: prints the measured figures; ratios against a reference in the same run. With --core only the
// computation is measured, without application, database and browser.
import { installNodePackages } from './node-packages.mjs';
import { freePort, startPostgres } from './private-postgres.mjs';
import { fail } from './run.mjs';
import { installMissing, needs } from './system-packages.mjs';
import { buildWeb, runTypeScript, startWeb } from './web-server.mjs';

let [database, web] = [null, null];
try {
  await installNodePackages();
  if (process.argv.includes('--core')) await runTypeScript('bench/bench.ts');
  else {
    await installMissing(needs.postgresql, needs.chromium);
    await buildWeb();
    database = await startPostgres({ name: 'postgres-bench', fresh: true });
    await runTypeScript('scripts/load-demo.ts', [], { DATABASE_URL: database.url });
    web = await startWeb({ databaseUrl: database.url, port: await freePort() });
    await runTypeScript('bench/bench.ts', ['--browser'], { NUVET_ADDRESS: web.address });
  }
} catch (error) {
  await web?.stop();
  await database?.stop();
  fail(error);
}
await web?.stop();
await database?.stop();
