/**
 * One page for all tests of a file. What it logs as an error fails the file at its end, where no test has looked before.
 */
import { join } from 'node:path';
import type { Page } from 'playwright-core';
import { afterAll, beforeAll, expect, inject } from 'vitest';
import { keptPage } from './browser.ts';
import { address } from './server.ts';

/** @returns what the page has logged as errors so far */
export function drivenPage(take: (page: Page) => void): string[] {
  let page: Page | undefined;
  const errors: string[] = [];
  beforeAll(async () => {
    const folder = join(inject('browserFolders'), `${process.env.VITEST_POOL_ID}`);
    page = await keptPage(folder, address, (text) => errors.push(text));
    take(page);
  });
  afterAll(async () => {
    await page?.context().close();
    expect(errors).toEqual([]);
  });
  return errors;
}
