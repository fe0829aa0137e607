// `npm run bench`: prints the measured figures; ratios against a reference in the same run.
import { installNodePackages } from './node-packages.mjs';
import { fail } from './run.mjs';
import { runTypeScript } from './web-server.mjs';

try {
  await installNodePackages();
  await runTypeScript('bench/bench.ts', process.argv.slice(2));
} catch (error) {
  fail(error);
}
