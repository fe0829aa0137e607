// Lets Node load TypeScript modules: `node --import .../typescript.mjs file.ts`.
import { register } from 'node:module';

register('./typescript-hooks.mjs', import.meta.url);
