/** `npm run assemble`: makes the WebAssembly of the core from its text, as a module beside it that holds the bytes. */
import { readFileSync, writeFileSync } from 'node:fs';
import { kernels, moduleOf } from './kernel-bytes.ts';

for (const { text, module } of kernels) writeFileSync(module, await moduleOf(readFileSync(text, 'utf8')));
