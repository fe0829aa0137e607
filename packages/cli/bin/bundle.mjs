// The command as one file of JavaScript, bundled from the TypeScript beside it whenever that has changed. It is kept in node_modules,
// so that the command works right after `npm ci` and starts at once after the first time.
import { mkdirSync, readdirSync, renameSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const packages = fileURLToPath(new URL('../../', import.meta.url));
const cache = join(packages, '../node_modules/.cache/nuvet');

/** Changes with every file that the command is made from: names, sizes and times, which is quicker than to read them all. */
function stamp() {
  let mark = Math.round(statSync(fileURLToPath(import.meta.url)).mtimeMs);
  const visit = (folder) => {
    for (const entry of readdirSync(folder, { withFileTypes: true })) {
      const path = join(folder, entry.name);
      if (entry.isDirectory()) visit(path);
      else if (/\.ts$/.test(entry.name) && !/\.test\.ts$/.test(entry.name)) {
        const { mtimeMs, size } = statSync(path);
        mark = (mark * 31 + Math.round(mtimeMs) + 7 * size + entry.name.length) % 9_007_199_254_740;
      }
    }
  };
  for (const name of ['cli', 'core', 'pictures']) visit(join(packages, name, 'src'));
  return mark.toString(36);
}

/** @returns the path of the bundle, made first where there is none of the sources as they are */
export async function bundle() {
  const file = join(cache, `nuvet-${stamp()}.mjs`);
  try {
    statSync(file);
    return file;
  } catch {
    mkdirSync(cache, { recursive: true });
  }
  const { build } = await import('esbuild');
  const part = `${file}.${process.pid}.part`;
  await build({
    entryPoints: [join(packages, 'cli/src/entry.ts')],
    outfile: part,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    external: ['sharp', 'bmp-ts', '@napi-rs/canvas', 'pdfjs-dist', 'pdfjs-dist/*', 'esbuild', 'manifold-3d'],
    logLevel: 'error',
    // Packages of the older kind ask for others as they run.
    banner: { js: "import { createRequire as nuvetRequire } from 'node:module'; const require = nuvetRequire(import.meta.url);" },
  });
  renameSync(part, file);
  return file;
}
