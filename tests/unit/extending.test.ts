/** The worked patches of docs/extending.md still apply, touch as few files as it says, leave the types whole, and are seen by the command. */
import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, expect, it } from 'vitest';

const root = fileURLToPath(new URL('../..', import.meta.url));
const folder = join(root, 'docs/extending');
/** How many files a new kind of each may touch, its own among them. */
const limits = { 'segment-kind': 4, 'mark-kind': 3, finding: 2, 'file-kind': 2, purpose: 1, process: 4 } as const;
const patches = Object.keys(limits) as (keyof typeof limits)[];
const copy = mkdtempSync(join(tmpdir(), 'nuvet-extending-'));
afterAll(() => rmSync(copy, { recursive: true, force: true }));
const patch = (name: string): string => readFileSync(join(folder, `${name}.patch`), 'utf8');

it('every patch is here', () => expect(readdirSync(folder).sort()).toEqual(patches.map((name) => `${name}.patch`).sort()));

it.each(patches)('%s touches no more files than it may', (name) => {
  expect(patch(name).match(/^diff --git /gm) ?? []).toHaveLength(limits[name]);
});

it('a process is two folders, and a line with its import in each of two registries', () => {
  const [own, registries] = [/^\+\+\+ b\/(.*\/processes)\/pen\//gm, /^\+\+\+ b\/(.*\/processes)\/registry\.ts$/gm].map((pattern) =>
    [...patch('process').matchAll(pattern)].map((found) => found[1]).sort(),
  );
  expect(own).toEqual(['apps/web/src/processes', 'packages/core/src/processes']);
  expect(registries).toEqual(own);
  const changed = patch('process')
    .split(/^diff --git /m)
    .filter((part) => part.includes('/registry.ts'));
  for (const part of changed) {
    expect(part.match(/^\+(?!\+\+)/gm)).toHaveLength(2);
    expect(part.match(/^-(?!--)/gm)).toBeNull();
  }
});

it('all apply together, the types hold, and the new process is seen by the command', () => {
  const run = (program: string, ...words: string[]): string => {
    try {
      return execFileSync(program, words, { cwd: copy, encoding: 'utf8', stdio: 'pipe' });
    } catch (error) {
      return `${(error as { stdout: string }).stdout}${(error as { stderr: string }).stderr}`;
    }
  };
  for (const part of ['packages', 'apps/web/src', 'apps/web/tsconfig.json', 'apps/web/package.json', 'tsconfig.json', 'package.json'])
    execFileSync('cp', ['-r', '--parents', part, copy], { cwd: root });
  // Tests lean on helpers that lie elsewhere.
  execFileSync('find', [copy, '-name', '*.test.ts*', '-delete']);
  mkdirSync(join(copy, 'node_modules/@nuvet'), { recursive: true });
  for (const name of readdirSync(join(root, 'node_modules')))
    if (name !== '@nuvet') symlinkSync(join(root, 'node_modules', name), join(copy, 'node_modules', name));
  for (const name of readdirSync(join(copy, 'packages')))
    symlinkSync(join(copy, 'packages', name), join(copy, 'node_modules/@nuvet', name));
  for (const name of patches) expect(run('git', 'apply', join(folder, `${name}.patch`))).toBe('');
  const tsc = join(root, 'node_modules/.bin/tsc');
  expect(run(tsc, '--noEmit', '-p', 'packages/core/tsconfig.json')).toBe('');
  expect(run(tsc, '--noEmit', '-p', 'apps/web/tsconfig.json')).toBe('');
  writeFileSync(
    join(copy, 'plate.svg'),
    '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="40mm" viewBox="0 0 60 40"><path d="M0 0H60V40H0Z"/></svg>',
  );
  const nuvet = (...words: string[]): string => run(process.execPath, join(copy, 'packages/cli/bin/nuvet.mjs'), ...words);
  expect(nuvet('--help')).toMatch(/--for pen +Draws the outlines with a pen.*\.hpgl, \.svg/);
  expect(nuvet('make', 'plate.svg', '--for', 'pen', '--out', 'plate.hpgl')).toMatch(
    /plate\.hpgl: 0\.0\d\d mm off at most, 60\.00 x 40\.00 mm/,
  );
});
