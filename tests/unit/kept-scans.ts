// Scans that tests draw are kept in node_modules, by a digest of the scene, its settings and the code that draws it: the second run
// reads what the first one drew.
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { keepScansIn } from '@nuvet/truth';

const project = fileURLToPath(new URL('../../', import.meta.url));
const folder = join(project, 'node_modules/.cache/nuvet-scans');
mkdirSync(folder, { recursive: true });

const code = createHash('sha256');
for (const source of ['packages/truth/src', 'packages/core/src/plane'])
  for (const name of readdirSync(join(project, source)).sort())
    if (/\.ts$/.test(name) && !/\.test\.ts$/.test(name)) code.update(readFileSync(join(project, source, name)));
const drawnBy = code.digest('hex');

const fileFor = (what: string): string => join(folder, createHash('sha256').update(drawnBy).update(what).digest('hex'));

keepScansIn({
  get(what) {
    const file = fileFor(what);
    return existsSync(file) ? new Uint8Array(readFileSync(file)) : null;
  },
  put(what, pixels) {
    const file = fileFor(what);
    const part = `${file}.${process.pid}-${Math.floor(performance.now() * 1000)}`;
    writeFileSync(part, pixels);
    renameSync(part, file);
  },
});
