/**
 * One page for all tests of a file. What it logs as an error fails the file at its end, where no test has looked before.
 */
import type { Browser, Page } from 'playwright-core';
import { afterAll, beforeAll, expect } from 'vitest';
import { freshPage, startBrowser } from './browser.ts';

/** @returns what the page has logged as errors so far */
export function drivenPage(take: (page: Page) => void): string[] {
  let browser: Browser | undefined;
  const errors: string[] = [];
  beforeAll(async () => {
    browser = await startBrowser();
    take(await freshPage(browser, (text) => errors.push(text)));
  });
  afterAll(async () => {
    await browser?.close();
    expect(errors).toEqual([]);
  });
  return errors;
}
