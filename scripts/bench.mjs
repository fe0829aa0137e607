// `npm run bench`: prints the measured figures; ratios against a reference in the same run. With --core only the
// computation is measured, without application, database and browser; with --sensitivity how much each stage depends on each of its
// constants; with a stage's name after it, that stage alone.
import { installNodePackages } from './node-packages.mjs';
import { fail } from './run.mjs';
import { withApplication } from './running-application.mjs';
import { installMissing, needs } from './system-packages.mjs';
import { runTypeScript } from './web-server.mjs';

try {
  await installNodePackages();
  const sensitivity = process.argv.indexOf('--sensitivity');
  if (sensitivity >= 0) await runTypeScript('bench/sensitivity.ts', process.argv.slice(sensitivity + 1));
  else if (process.argv.includes('--core')) await runTypeScript('bench/bench.ts');
  else {
    await installMissing(needs.postgresql, needs.chromium);
    await withApplication('postgres-bench', ({ address, pid }) =>
      runTypeScript('bench/bench.ts', ['--browser'], { NUVET_ADDRESS: address, NUVET_SERVER_PID: String(pid) }),
    );
  }
} catch (error) {
  fail(error);
}
