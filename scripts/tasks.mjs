// `npm run tasks`: fifteen makers' tasks through the real interface, each with its actions, its time and its error. Words behind it
// choose tasks, such as T4.
import { installNodePackages } from './node-packages.mjs';
import { fail } from './run.mjs';
import { withApplication } from './running-application.mjs';
import { installMissing, needs } from './system-packages.mjs';
import { runTypeScript } from './web-server.mjs';

try {
  await installMissing(needs.postgresql, needs.chromium, needs.ezdxf);
  await installNodePackages();
  await withApplication('postgres-tasks', ({ address }) =>
    runTypeScript('bench/tasks/tasks.ts', process.argv.slice(2), { NUVET_ADDRESS: address }),
  );
} catch (error) {
  fail(error);
}
