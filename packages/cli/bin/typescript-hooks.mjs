// Strips the types of a TypeScript module as it is loaded. Names of inner functions are not kept: keeping them costs a call for
// each function made, which in loops over curves and pixels takes up to half of the time.
import { readFile } from 'node:fs/promises';
import { fileURLToPath } from 'node:url';
import { transform } from 'esbuild';

export async function load(url, context, next) {
  if (!url.endsWith('.ts')) return next(url, context);
  const sourcefile = fileURLToPath(url);
  const { code } = await transform(await readFile(sourcefile, 'utf8'), {
    loader: 'ts',
    format: 'esm',
    target: 'node20',
    sourcemap: 'inline',
    sourcefile,
  });
  return { format: 'module', source: code, shortCircuit: true };
}
