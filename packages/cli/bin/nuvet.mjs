#!/usr/bin/env node
// The command is TypeScript and runs as it stands, so that it works right after `npm ci`.
import './typescript.mjs';

const { main } = await import('../src/main.ts');
process.exitCode = await main(process.argv.slice(2));
