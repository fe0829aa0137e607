/**
 * Debian's Chromium, headless, driven by Playwright; a page of the size that the interface is drawn for.
 */
import { type Browser, chromium, type Page } from 'playwright-core';

export function startBrowser(): Promise<Browser> {
  return chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [
      '--no-sandbox',
      '--disable-gpu',
      // WebGL drawn by the processor.
      '--enable-unsafe-swiftshader',
      '--disable-quic',
      '--no-first-run',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
    ],
  });
}

/** A fresh page; what the page logs as an error is handed over. */
export async function freshPage(browser: Browser, onError: (text: string) => void = () => {}): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, acceptDownloads: true });
  // The TypeScript runner names functions by a helper that pages do not have.
  await context.addInitScript('globalThis.__name = (f) => f');
  const page = await context.newPage();
  page.on('pageerror', (error) => onError(error.stack ?? error.message));
  return page;
}

/** Waits until the light table has drawn every tile that is in sight and the job is saved. */
export async function settled(page: Page): Promise<void> {
  await page.waitForLoadState('networkidle');
  await page.locator('[data-saving="saved"]').waitFor({ timeout: 20_000 });
  await page.waitForTimeout(400);
}
