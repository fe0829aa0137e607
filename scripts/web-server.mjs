// The web application: built for production when its sources have changed, started, and waited for.
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { cpSync, existsSync, readdirSync, readFileSync, readlinkSync, realpathSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { freePort } from './private-postgres.mjs';
import { baseEnvironment, keptFolder, projectFolder } from './project.mjs';
import { RunError, run, say } from './run.mjs';

const web = join(projectFolder, 'apps/web');
const next = join(projectFolder, 'node_modules/next/dist/bin/next');
/** What lets Node run a TypeScript file. */
const typeScript = ['--import', pathToFileURL(join(projectFolder, 'packages/cli/bin/typescript.mjs')).href];
const stamp = join(keptFolder, 'built-from');

/** A digest over all that the build is made from. */
function sourcesDigest() {
  const hash = createHash('sha256');
  const visit = (path) => {
    for (const entry of readdirSync(path, { withFileTypes: true }).sort((a, b) => (a.name < b.name ? -1 : 1))) {
      if (['node_modules', '.next', '.threads', 'public', 'next-env.d.ts'].includes(entry.name) || entry.name.endsWith('.tsbuildinfo'))
        continue;
      const full = join(path, entry.name);
      if (entry.isDirectory()) visit(full);
      else hash.update(full).update(readFileSync(full));
    }
  };
  visit(web);
  for (const name of ['core', 'pictures']) visit(join(projectFolder, 'packages', name));
  hash.update(readFileSync(join(projectFolder, 'package-lock.json')));
  return hash.digest('hex');
}

/** What the PDF reader fetches while it reads: fonts, character maps and decoders, as its package ships them. */
function copyPdfData() {
  for (const folder of ['standard_fonts', 'cmaps', 'wasm', 'iccs']) {
    cpSync(join(projectFolder, 'node_modules/pdfjs-dist', folder), join(web, 'public/pdf', folder), { recursive: true });
  }
}

/** The programs of the server's own threads, bundled so that Node can run them as they are. */
async function buildThreads() {
  const { build } = await import('esbuild');
  await build({
    entryPoints: [join(web, 'src/server/threads/server.worker.ts')],
    outfile: join(web, '.threads/server.worker.mjs'),
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    external: ['sharp', 'bmp-ts'],
    logLevel: 'error',
    // Packages of the older kind ask for others as they run.
    banner: { js: "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);" },
  });
}

export async function buildWeb() {
  copyPdfData();
  await buildThreads();
  const digest = sourcesDigest();
  const isBuilt = existsSync(stamp) && readFileSync(stamp, 'utf8') === digest && existsSync(join(web, '.next/BUILD_ID'));
  if (isBuilt) return;
  say('building the application');
  rmSync(stamp, { force: true });
  await run(process.execPath, [next, 'build'], { cwd: web, quiet: true, env: { ...baseEnvironment, NODE_ENV: 'production' } });
  writeFileSync(stamp, digest);
}

/** Runs a TypeScript script of the project. */
export const runTypeScript = (script, words = [], environment = {}) =>
  run(process.execPath, [...typeScript, join(projectFolder, script), ...words], {
    cwd: projectFolder,
    env: { ...baseEnvironment, ...environment },
  });

/** A server left over from a killed run is stopped: its database is gone, and it would hold the port. */
async function stopLeftover(pidFile) {
  if (!existsSync(pidFile)) return;
  const pid = Number(readFileSync(pidFile, 'utf8'));
  rmSync(pidFile);
  try {
    // Another program may have the number by now: only one that runs in this folder is ours.
    if (readlinkSync(`/proc/${pid}/cwd`) === realpathSync(web)) {
      say('stopping the application of an earlier run');
      process.kill(pid, 'SIGKILL');
      for (let tries = 0; tries < 50 && existsSync(`/proc/${pid}/cwd`); tries++) await new Promise((resolve) => setTimeout(resolve, 100));
    }
  } catch (error) {
    if (!['ENOENT', 'ESRCH', 'EACCES', 'EPERM'].includes(error.code)) throw error;
  }
}

/** Starts a stand-in for a machine, which says on which port it listens; it ends with this script. */
async function startStandIn(name, words = []) {
  const script = join(projectFolder, 'packages', name, 'src/main.ts');
  const service = spawn(process.execPath, [...typeScript, script, '0', ...words], {
    cwd: projectFolder,
    stdio: ['ignore', 'pipe', 'inherit'],
    env: baseEnvironment,
  });
  process.once('exit', () => service.kill('SIGKILL'));
  const port = await new Promise((resolve, reject) => {
    service.stdout.on('data', (part) => resolve(/listening on (\d+)/.exec(String(part))?.[1]));
    service.once('close', () => reject(new RunError(`The stand-in ${name} did not start.`)));
  });
  return { address: `127.0.0.1:${port}`, stop: () => service.kill('SIGTERM') };
}

/**
 * Starts the built application, with the stand-in scanner and cutter, and waits until it answers.
 * @param {{ name: string, databaseUrl: string, wantedPort?: number }} what the next free port is taken; 0 for any
 * @returns {Promise<{ address: string, pid: number, ended: Promise<number>, stop: () => Promise<void> }>}
 */
export async function startWeb({ name, databaseUrl, wantedPort = 0 }) {
  const pidFile = join(keptFolder, `web-${name}.pid`);
  await stopLeftover(pidFile);
  const port = await freePort(wantedPort);
  const address = `http://127.0.0.1:${port}`;
  const scanner = await startStandIn('scanner', [address, address.replace('127.0.0.1', 'localhost')]);
  const cutter = await startStandIn('cutter');
  const server = spawn(process.execPath, [next, 'start', '-H', '127.0.0.1', '-p', String(port)], {
    cwd: web,
    detached: true,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: {
      ...baseEnvironment,
      NODE_ENV: 'production',
      DATABASE_URL: databaseUrl,
      NUVET_SCANNER: `http://${scanner.address}`,
      NUVET_CUTTER: cutter.address,
    },
  });
  writeFileSync(pidFile, String(server.pid));
  let said = '';
  for (const stream of [server.stdout, server.stderr])
    stream.on('data', (part) => {
      said = (said + part).slice(-4000);
    });
  server.stderr.on('data', (part) => process.stderr.write(part));
  let code = null;
  // Also when the script ends before the application has answered.
  process.once('exit', () => code === null && server.kill('SIGKILL'));
  const ended = new Promise((resolve) =>
    server.on('close', (number) => {
      code = number ?? 1;
      resolve(code);
    }),
  );
  for (let tries = 0; ; tries++) {
    const answers = await fetch(`${address}/api/health`).then(
      (response) => response.ok,
      () => false,
    );
    if (answers) break;
    if (code !== null || tries > 300) throw new RunError(`The application did not start\n${said}`);
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  return {
    address,
    pid: server.pid,
    ended,
    async stop() {
      scanner.stop();
      cutter.stop();
      if (code !== null) return;
      server.kill('SIGTERM');
      const late = setTimeout(() => server.kill('SIGKILL'), 5000);
      await ended;
      clearTimeout(late);
      rmSync(pidFile, { force: true });
    },
  };
}
