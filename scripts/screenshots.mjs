// `npm run screenshots`: takes the pictures in docs/screenshots anew, from freshly loaded demo data.
import { installNodePackages } from './node-packages.mjs';
import { fail } from './run.mjs';
import { withApplication } from './running-application.mjs';
import { installMissing, needs } from './system-packages.mjs';
import { runTypeScript } from './web-server.mjs';

try {
  await installMissing(needs.postgresql, needs.chromium);
  await installNodePackages();
  await withApplication('postgres-screenshots', ({ address }) =>
    runTypeScript('tests/e2e/take-screenshots.ts', [], { NUVET_ADDRESS: address }),
  );
} catch (error) {
  fail(error);
}
