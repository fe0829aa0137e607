// `npm run bench`: prints the measured figures; ratios against a reference in the same run. With --core only the
// computation is measured, without application, database and browser.
import { installNodePackages } from './node-packages.mjs';
import { fail } from './run.mjs';
import { withApplication } from './running-application.mjs';
import { installMissing, needs } from './system-packages.mjs';
import { runTypeScript } from './web-server.mjs';

try {
  await installNodePackages();
  if (process.argv.includes('--core')) await runTypeScript('bench/bench.ts');
  else {
    await installMissing(needs.postgresql, needs.chromium);
    await withApplication('postgres-bench', ({ address, pid }) =>
      runTypeScript('bench/bench.ts', ['--browser'], { NUVET_ADDRESS: address, NUVET_SERVER_PID: String(pid) }),
    );
  }
} catch (error) {
  fail(error);
}
