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
  await context.addInitScript(countWork);
  const page = await context.newPage();
  page.on('pageerror', (error) => onError(error.stack ?? error.message));
  return page;
}

/** Nothing has been under way for so long: longer than what the page gathers before it sets to work. */
const restMs = 220;

/**
 * Waits until the page rests: no request, no worker's answer and no picture is waited for, and has not been for a moment. The page
 * counts by itself; see `countWork`.
 */
export async function settled(page: Page): Promise<void> {
  await page.waitForLoadState('load');
  await page.locator('[data-saving="saved"]').waitFor({ timeout: 20_000 });
  await page.waitForFunction((ms) => (globalThis as { nuvetRestsFor?: (ms: number) => boolean }).nuvetRestsFor?.(ms) ?? true, restMs, {
    timeout: 20_000,
    polling: 40,
  });
}

/** Runs in the page before all else: counts requests, calls to workers, and pictures that load. */
function countWork(): void {
  let pending = 0;
  let since = performance.now();
  const begin = () => {
    pending++;
  };
  const end = () => {
    pending--;
    since = performance.now();
  };
  const { fetch: plainFetch, Worker: PlainWorker } = globalThis;
  globalThis.fetch = (...words) => {
    begin();
    return plainFetch(...words).finally(end);
  };
  const { send } = XMLHttpRequest.prototype;
  XMLHttpRequest.prototype.send = function (...words) {
    begin();
    this.addEventListener('loadend', end);
    return send.apply(this, words);
  };
  globalThis.Worker = class extends PlainWorker {
    private readonly calls = new Set<string>();
    constructor(...words: ConstructorParameters<typeof PlainWorker>) {
      super(...words);
      this.addEventListener('message', ({ data }: MessageEvent<{ id?: string } | null>) => {
        if (data?.id && this.calls.delete(data.id)) end();
      });
    }
    override postMessage(message: { id?: string } | null, ...words: unknown[]): void {
      if (message?.id) {
        this.calls.add(message.id);
        begin();
      }
      super.postMessage(message, ...(words as [Transferable[]]));
    }
  };
  const { Image: PlainImage } = globalThis;
  globalThis.Image = class extends PlainImage {
    constructor(width?: number, height?: number) {
      super(width, height);
      begin();
      for (const event of ['load', 'error']) this.addEventListener(event, end, { once: true });
    }
  };
  Object.assign(globalThis, { nuvetRestsFor: (ms: number) => pending <= 0 && performance.now() - since >= ms });
}
