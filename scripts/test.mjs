// `npm test`: sets up what the checks need, runs every one, and ends with a line of how many passed and failed.
import { existsSync, readFileSync, rmSync } from 'node:fs';
import { join, relative } from 'node:path';
import { installNodePackages } from './node-packages.mjs';
import { baseEnvironment, keptFolder, projectFolder } from './project.mjs';
import { fail, run, say } from './run.mjs';
import { withApplication } from './running-application.mjs';
import { installMissing, needs } from './system-packages.mjs';

const program = (name) => join(projectFolder, 'node_modules/.bin', name);
const counts = { passed: 0, failed: 0 };
const faults = [];
/** Tests that failed and then passed, as happens where the machine stands still for a while; and as a race in them would. */
const secondTries = [];

async function check(name, work) {
  say(name);
  try {
    await work();
    counts.passed++;
  } catch (error) {
    counts.failed++;
    faults.push(`${name}: ${error.message}`);
  }
}

/** The failed tests of a report of Vitest's, each with its file and the start of what it said. */
function failedTests(testResults) {
  return testResults.flatMap(({ name, message, assertionResults }) => {
    const file = relative(projectFolder, name);
    const failed = assertionResults.filter(({ status }) => status === 'failed');
    if (failed.length === 0 && message) return [`${file}: ${message}`];
    return failed.map(({ fullName, failureMessages }) => `${file}: ${fullName}\n${failureMessages.join('\n').slice(0, 1200)}`);
  });
}

/** Runs Vitest with a configuration and adds what it counted. */
async function vitest(name, config, words, environment = {}) {
  say(name);
  const report = join(keptFolder, `${name.replaceAll(' ', '-')}.json`);
  const triedAgain = join(keptFolder, 'second-tries.json');
  for (const file of [report, triedAgain]) rmSync(file, { force: true });
  const reporters = ['default', 'json', './scripts/second-tries.mjs'].map((one) => `--reporter=${one}`);
  const all = ['run', '--config', config, ...words, ...reporters, `--outputFile.json=${report}`];
  const env = { ...baseEnvironment, ...environment, NUVET_SECOND_TRIES: triedAgain };
  const ended = await run(program('vitest'), all, { cwd: projectFolder, env }).then(
    () => true,
    () => false,
  );
  try {
    const read = JSON.parse(readFileSync(report, 'utf8'));
    const { numPassedTests, numFailedTests, numTotalTestSuites, numFailedTestSuites, success } = read;
    faults.push(...failedTests(read.testResults));
    if (existsSync(triedAgain)) secondTries.push(...JSON.parse(readFileSync(triedAgain, 'utf8')));
    counts.passed += numPassedTests;
    counts.failed += numFailedTests;
    // A file that does not load has no failed test of its own; nor has a run that stumbled outside its tests.
    if (numFailedTests === 0 && (!success || !ended || numTotalTestSuites === 0 || numFailedTestSuites > 0)) {
      counts.failed++;
      faults.push(`${name}: a run that stumbled outside its tests; what it printed stands above`);
    }
  } catch {
    counts.failed++;
    faults.push(`${name}: no report was written`);
  }
}

const isDeep = process.argv.includes('--deep');
/** Random laws at length, from another seed each time. */
const laws = isDeep ? { NUVET_RUNS: '3', NUVET_SEED: 'any' } : {};

/** All that needs no server: types, lint and the unit tests. */
async function plainChecks() {
  for (const [name, config] of [
    ['the packages', 'tsconfig.json'],
    ['core, without Node or DOM', 'packages/core/tsconfig.json'],
    ['the end-to-end tests', 'tests/e2e/tsconfig.json'],
    ['the application', 'apps/web/tsconfig.json'],
  ]) {
    await check(`types of ${name}`, () => run(program('tsc'), ['--noEmit', '-p', config], { cwd: projectFolder, quiet: true }));
  }
  await check('lint and layers', () => run(program('biome'), ['check', '--error-on-warnings', '.'], { cwd: projectFolder, quiet: true }));
}

try {
  const began = performance.now();
  const since = () => `${Math.round((performance.now() - began) / 1000)} s`;
  await installMissing(needs.postgresql, needs.chromium, needs.ezdxf, needs.admesh);
  await installNodePackages();
  say(`installed (${since()})`);
  // What needs no server goes on while the application is built, its database filled and both are started.
  const plain = plainChecks()
    .then(() => vitest('unit tests', 'vitest.config.ts', ['--project', 'pure', '--project', 'command'], laws))
    .then(() => say(`unit tests done (${since()})`));
  const served = withApplication('postgres-test', async ({ address, databaseUrl, emptyDatabaseUrl }) => {
    say(`the application is started (${since()})`);
    await plain;
    await vitest('server tests', 'vitest.config.ts', ['--project', 'server'], {
      ...laws,
      NUVET_EMPTY_DATABASE: emptyDatabaseUrl,
      NUVET_LOG: 'silent',
    });
    say(`server tests done (${since()})`);
    if (!isDeep)
      await vitest('end-to-end tests in Chromium', 'vitest.e2e.config.ts', [], { NUVET_ADDRESS: address, DATABASE_URL: databaseUrl });
    say(`all done (${since()})`);
  });
  await Promise.all([plain, served]);
} catch (error) {
  fail(error);
}
// What failed stands last, where the end of a long log is read first.
for (const test of secondTries) console.log(`Passed at the second try: ${test}`);
for (const fault of faults) console.error(`\nFailed: ${fault}`);
console.log(`\n${counts.passed} passed, ${counts.failed} failed`);
process.exit(counts.failed > 0 ? 1 : 0);
