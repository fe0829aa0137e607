/** The WebAssembly of the core: which texts there are, and the module that holds a text's bytes. */
import { fileURLToPath } from 'node:url';
import wabt from 'wabt';

const raster = fileURLToPath(new URL('../packages/core/src/raster/', import.meta.url));

export const kernels = ['warp-kernel'].map((name) => ({ text: `${raster}${name}.wat`, module: `${raster}${name}.ts` }));

/** The bytes of a WebAssembly text, in base64, as a TypeScript module. */
export async function moduleOf(text: string): Promise<string> {
  const assembler = await wabt();
  const parsed = assembler.parseWat('kernel.wat', text, { simd: true });
  parsed.validate();
  const bytes = Buffer.from(parsed.toBinary({}).buffer).toString('base64');
  return `/** Made from the text beside it by \`npm run assemble\`. */\nexport const kernelBytes =\n  // biome-ignore format: one line\n  '${bytes}';\n`;
}
