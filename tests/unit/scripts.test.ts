/** The scripts that set everything up: ports, runs beside each other, programs that fail. */
import { spawn } from 'node:child_process';
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterEach, describe, expect, it } from 'vitest';

const root = fileURLToPath(new URL('../..', import.meta.url));
const lock = join(root, '.nuvet/running-unit-check');
afterEach(() => rmSync(lock, { force: true }));

/** Runs a piece of script beside the project's scripts. */
function script(text: string): Promise<{ code: number | null; out: string }> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, ['--input-type=module', '-e', text], { cwd: root });
    let out = '';
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (part) => {
        out += part;
      });
    child.on('close', (code) => resolve({ code, out }));
  });
}

describe('the scripts', () => {
  it('take the port asked for, or the next free one', async () => {
    const server = createServer();
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    const { port } = server.address() as { port: number };
    const { out } = await script(`import { freePort } from './scripts/private-postgres.mjs'; console.log(await freePort(${port}))`);
    await new Promise((resolve) => server.close(resolve));
    expect(Number(out)).toBeGreaterThan(port);
  });
  it('do not run twice under one name, and leave no claim behind', async () => {
    const impliedLength = `import { claim } from './scripts/one-at-a-time.mjs'; claim('unit-check'); console.log('claimed');`;
    expect(await script(impliedLength)).toMatchObject({ code: 0, out: 'claimed\n' });
    expect(existsSync(lock)).toBe(false);
  });
  it('pass over the claim of a run that was killed', async () => {
    writeFileSync(lock, '999999999');
    const { code } = await script(`import { claim } from './scripts/one-at-a-time.mjs'; claim('unit-check');`);
    expect(code).toBe(0);
  });
  it('say plainly what a program that failed has printed', async () => {
    const { out } = await script(
      `import { run } from './scripts/run.mjs'; await run('sh', ['-c', 'echo no such thing >&2; exit 3'], { quiet: true }).catch((e) => console.log(e.message))`,
    );
    expect(out).toMatch(/ended with 3\nno such thing/);
  });
  it('are what .ci/run and package.json call', () => {
    expect(readFileSync(join(root, '.ci/run'), 'utf8')).toContain('npm test');
    const { scripts } = JSON.parse(readFileSync(join(root, 'package.json'), 'utf8'));
    for (const name of ['demo', 'test', 'bench', 'screenshots'])
      expect(existsSync(join(root, (scripts[name] as string).replace('node ', '')))).toBe(true);
  });
  it('record no registry address in the lock file', () => {
    expect(readFileSync(join(root, 'package-lock.json'), 'utf8')).not.toMatch(/"resolved": "https?:/);
  });
});
