// node_modules: installed from the lock file when missing, broken off, or older than it.
import { existsSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { projectFolder } from './project.mjs';
import { run, say } from './run.mjs';

export async function installNodePackages() {
  const lock = join(projectFolder, 'package-lock.json');
  // npm writes this file last, so that it tells a whole installation from a broken one.
  const done = join(projectFolder, 'node_modules', '.package-lock.json');
  if (existsSync(done) && statSync(done).mtimeMs >= statSync(lock).mtimeMs) return;
  say('installing packages (npm ci)');
  await run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { cwd: projectFolder, quiet: true });
}
