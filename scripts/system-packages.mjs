// Debian packages: installs what is missing where it may, else says exactly what to install.
import { existsSync } from 'node:fs';
import { RunError, run, say, succeeds } from './run.mjs';

/** What each part of the project needs from Debian, and the file that tells whether it is there. */
export const needs = {
  postgresql: { package: 'postgresql-15', file: '/usr/lib/postgresql/15/bin/postgres' },
  chromium: { package: 'chromium-headless-shell', file: '/usr/bin/chromium-headless-shell' },
  admesh: { package: 'admesh', file: '/usr/bin/admesh' },
  ezdxf: { package: 'python3-ezdxf', file: '/usr/lib/python3/dist-packages/ezdxf/__init__.py' },
};

export async function installMissing(...wanted) {
  const missing = wanted.filter(({ file }) => !existsSync(file)).map((need) => need.package);
  if (missing.length === 0) return;
  const isRoot = process.getuid?.() === 0;
  const prefix = isRoot ? [] : (await succeeds('sudo', ['-n', 'true'])) ? ['sudo', '-n'] : null;
  const byHand = `sudo apt-get update && sudo apt-get install -y --no-install-recommends ${missing.join(' ')}`;
  if (!prefix || !existsSync('/usr/bin/apt-get')) {
    throw new RunError(`These packages are missing and cannot be installed from here. Please run:\n  ${byHand}`);
  }
  say(`installing ${missing.join(', ')}`);
  const apt = (...words) => {
    const [program, ...rest] = [...prefix, 'env', 'DEBIAN_FRONTEND=noninteractive', 'apt-get', '-o', 'DPkg::Lock::Timeout=300', ...words];
    return run(program, rest, { quiet: true });
  };
  await apt('update').catch(() => say('the package lists could not be refreshed; trying with those at hand'));
  // An installation that was broken off is finished first.
  const [program, ...rest] = [...prefix, 'dpkg', '--configure', '-a'];
  await run(program, rest, { quiet: true }).catch(() => {});
  await apt('install', '-y', '--no-install-recommends', ...missing);
  const still = wanted.filter(({ file }) => !existsSync(file)).map((need) => need.package);
  if (still.length > 0) throw new RunError(`${still.join(', ')} did not install. Please run:\n  ${byHand}`);
}
