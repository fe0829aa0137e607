/**
 * Debian's Chromium, headless, driven by Playwright; a page of the size that the interface is drawn for.
 */
import { type Browser, type BrowserContext, chromium, type Page } from 'playwright-core';

const launchSettings = {
  executablePath: '/usr/bin/chromium-headless-shell',
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
};
/** How long a page may take for a step before a test gives up: a busy machine now and then stands still for half a minute. */
const patienceMs = 120_000;
/** Nothing glides: every frame of a movement is drawn by the processor here, which the tests would wait for. */
const pageSettings = { viewport: { width: 1280, height: 800 }, acceptDownloads: true, reducedMotion: 'reduce' } as const;

export const startBrowser = (): Promise<Browser> => chromium.launch(launchSettings);

/** A fresh page with a storage of its own; what the page logs as an error is handed over. */
export const freshPage = async (browser: Browser, onError?: (text: string) => void): Promise<Page> =>
  openPage(await browser.newContext(pageSettings), onError);

/**
 * A page of a browser that keeps its compiled scripts in a folder, which spares each load a third of its work.
 * @param folder nothing else uses it meanwhile
 */
export async function keptPage(folder: string, origin: string, onError?: (text: string) => void): Promise<Page> {
  const opened = await openPage(await chromium.launchPersistentContext(folder, { ...launchSettings, ...pageSettings }), onError);
  const devtools = await opened.context().newCDPSession(opened);
  await devtools.send('Storage.clearDataForOrigin', { origin, storageTypes: 'cookies,local_storage,indexeddb' });
  return opened;
}

async function openPage(context: BrowserContext, onError: (text: string) => void = () => {}): Promise<Page> {
  // The TypeScript runner names functions by a helper that pages do not have.
  await context.addInitScript('globalThis.__name = (f) => f');
  await context.addInitScript(countWork);
  context.setDefaultTimeout(patienceMs);
  const opened = await context.newPage();
  opened.on('pageerror', (error) => onError(error.stack ?? error.message));
  return opened;
}

/** Nothing has been under way for so long: longer than what the page gathers before it sets to work. */
const restMs = 220;

/**
 * Waits until the page rests: no request, no worker's answer and no picture is waited for, and has not been for a moment. The page
 * counts by itself; see `countWork`.
 */
export async function settled(page: Page): Promise<void> {
  await page.waitForLoadState('load');
  await page.locator('[data-saving="saved"]').waitFor();
  const rests = page.waitForFunction((ms) => (globalThis as Counting).nuvetRestsFor?.(ms) ?? true, restMs, { polling: 40 });
  await rests.catch(async (error) => {
    const open = await page.evaluate(() => (globalThis as Counting).nuvetWaitsFor?.() ?? []);
    throw new Error(`the page does not come to rest; it waits for ${open.join(', ') || 'nothing'}`, { cause: error });
  });
}

interface Counting {
  nuvetRestsFor?: (ms: number) => boolean;
  nuvetWaitsFor?: () => string[];
}

/** Runs in the page before all else: counts requests, calls to workers, and pictures that load. */
function countWork(): void {
  const pending = new Map<unknown, string>();
  let since = performance.now();
  const begin = (key: unknown, word: string) => {
    pending.set(key, word);
  };
  const end = (key: unknown) => {
    pending.delete(key);
    since = performance.now();
  };
  const { fetch: plainFetch, Worker: PlainWorker } = globalThis;
  globalThis.fetch = (...words) => {
    const key = {};
    begin(key, `a request of ${words[0] instanceof Request ? words[0].url : words[0]}`);
    return plainFetch(...words).finally(() => end(key));
  };
  const { send } = XMLHttpRequest.prototype;
  XMLHttpRequest.prototype.send = function (...words) {
    begin(this, 'a file that is sent');
    this.addEventListener('loadend', () => end(this));
    return send.apply(this, words);
  };
  globalThis.Worker = class extends PlainWorker {
    private readonly calls = new Set<string>();
    constructor(...words: ConstructorParameters<typeof PlainWorker>) {
      super(...words);
      this.addEventListener('message', ({ data }: MessageEvent<{ id?: string } | null>) => {
        if (data?.id && this.calls.delete(data.id)) end(data.id);
      });
      // A worker that could not be loaded answers nothing.
      this.addEventListener('error', () => this.forget());
    }
    override postMessage(message: { id?: string; path?: string[]; type?: string } | null, ...words: unknown[]): void {
      if (message?.id && message.type !== 'RELEASE') {
        this.calls.add(message.id);
        begin(message.id, `a worker's ${message.path?.join('.') ?? message.type}`);
      }
      super.postMessage(message, ...(words as [Transferable[]]));
    }
    /** What was asked of it is not answered any more. */
    override terminate(): void {
      this.forget();
      super.terminate();
    }
    private forget(): void {
      for (const id of this.calls) end(id);
      this.calls.clear();
    }
  };
  // An image that is given up, or gets another source, may never tell: it is asked.
  const images = new Set<WeakRef<HTMLImageElement>>();
  const { Image: PlainImage } = globalThis;
  globalThis.Image = class extends PlainImage {
    constructor(width?: number, height?: number) {
      super(width, height);
      const ref = new WeakRef<HTMLImageElement>(this);
      images.add(ref);
      for (const event of ['load', 'error'])
        this.addEventListener(event, () => {
          images.delete(ref);
          since = performance.now();
        });
    }
  };
  const isLoading = () => [...images].some((ref) => ref.deref()?.complete === false);
  Object.assign(globalThis, {
    nuvetRestsFor: (ms: number) => pending.size === 0 && !isLoading() && performance.now() - since >= ms,
    nuvetWaitsFor: () => [...pending.values(), ...(isLoading() ? ['an image'] : [])],
  });
}
