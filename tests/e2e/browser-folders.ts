/** Folders that the browsers keep their compiled scripts in, for as long as the tests run. */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { TestProject } from 'vitest/node';

declare module 'vitest' {
  interface ProvidedContext {
    browserFolders: string;
  }
}

export default function setup({ provide }: TestProject): () => void {
  const folder = mkdtempSync(join(tmpdir(), 'nuvet-browsers-'));
  provide('browserFolders', folder);
  return () => rmSync(folder, { recursive: true, force: true });
}
