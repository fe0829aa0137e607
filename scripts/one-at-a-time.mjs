// One run of a kind at a time in a folder: a second one says so instead of stopping the first one's servers.
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { keptFolder } from './project.mjs';
import { RunError } from './run.mjs';

/** @throws RunError where another script of this project runs under the same name; a killed one does not count */
export function claim(name) {
  const file = join(keptFolder, `running-${name}`);
  if (existsSync(file)) {
    const pid = readFileSync(file, 'utf8').trim();
    const command = existsSync(`/proc/${pid}/cmdline`) ? readFileSync(`/proc/${pid}/cmdline`, 'utf8') : '';
    if (command.includes('scripts/')) throw new RunError(`This is running already, as process ${pid}. Stop it with Ctrl-C first.`);
  }
  writeFileSync(file, String(process.pid));
  process.once('exit', () => rmSync(file, { force: true }));
}
