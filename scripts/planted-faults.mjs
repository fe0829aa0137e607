// `npm run test:faults`: plants one fault after another in the sources, and tells which of them the tests catch. Each source file is
// put back as it was, also when the work is broken off. Prints a line for each fault; fails where one goes unseen.
import { spawnSync } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { plantedFaults } from '../tests/planted-faults.mjs';
import { installNodePackages } from './node-packages.mjs';
import { startPostgres } from './private-postgres.mjs';
import { baseEnvironment, projectFolder } from './project.mjs';
import { fail } from './run.mjs';
import { installMissing, needs } from './system-packages.mjs';

const vitest = join(projectFolder, 'node_modules/vitest/vitest.mjs');

/** Whether the tests in these files pass as the sources stand now. */
function passes(project, files, environment) {
  const { status } = spawnSync(process.execPath, [vitest, 'run', '--project', project, '--bail', '1', ...files], {
    cwd: projectFolder,
    env: { ...baseEnvironment, ...environment, NUVET_LOG: 'silent' },
    stdio: 'ignore',
    timeout: 300_000,
  });
  return status === 0;
}

/** Does a piece of work while a source file has a fault in it. */
function withFault({ file, right, wrong }, work) {
  const path = join(projectFolder, file);
  const source = readFileSync(path, 'utf8');
  if (source.split(right).length !== 2) throw new Error(`${file} does not hold exactly once: ${right}`);
  const putBack = () => writeFileSync(path, source);
  const breakOff = () => {
    putBack();
    process.exit(130);
  };
  for (const signal of ['SIGINT', 'SIGTERM']) process.once(signal, breakOff);
  try {
    writeFileSync(
      path,
      source.replace(right, () => wrong),
    );
    return work();
  } finally {
    putBack();
    for (const signal of ['SIGINT', 'SIGTERM']) process.off(signal, breakOff);
  }
}

let database = null;
try {
  await installNodePackages();
  await installMissing(needs.postgresql);
  database = await startPostgres({ name: 'postgres-faults', fresh: true });
  const environment = { NUVET_EMPTY_DATABASE: await database.madeDatabase('server_tests') };
  const unseen = [];
  for (const fault of plantedFaults) {
    const isSeen = withFault(fault, () => !passes(fault.project, fault.tests, environment));
    console.log(`${isSeen ? 'caught' : 'UNSEEN'}  ${fault.what} (${fault.file})`);
    if (!isSeen) unseen.push(fault);
  }
  // A test that fails anyhow would catch everything.
  for (const project of new Set(plantedFaults.map((fault) => fault.project))) {
    const files = [...new Set(plantedFaults.filter((fault) => fault.project === project).flatMap((fault) => fault.tests))];
    if (!passes(project, files, environment)) throw new Error(`Without any fault these fail as well: ${files.join(', ')}`);
  }
  console.log(`${plantedFaults.length - unseen.length} of ${plantedFaults.length} planted faults were caught.`);
  if (unseen.length > 0) process.exitCode = 1;
} catch (error) {
  fail(error);
} finally {
  await database?.stop();
}
