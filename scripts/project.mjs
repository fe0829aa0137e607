// Where the project lies, and the git-ignored folder that its scripts keep things in.
import { mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const projectFolder = dirname(dirname(fileURLToPath(import.meta.url)));
export const keptFolder = join(projectFolder, '.nuvet');
mkdirSync(keptFolder, { recursive: true });

/** The environment of everything that the scripts start: no telemetry of the framework. */
export const baseEnvironment = { ...process.env, NEXT_TELEMETRY_DISABLED: '1' };
