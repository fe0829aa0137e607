import{createRequire}from'module';const require=createRequire(import.meta.url);

// tests/e2e/browser.ts
import { chromium } from "playwright-core";
var launchSettings = {
  executablePath: "/usr/bin/chromium-headless-shell",
  args: [
    "--no-sandbox",
    "--disable-gpu",
    // WebGL drawn by the processor.
    "--enable-unsafe-swiftshader",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync"
  ]
};
var patienceMs = 12e4;
var pageSettings = { viewport: { width: 1280, height: 800 }, acceptDownloads: true, reducedMotion: "reduce" };
var startBrowser = () => chromium.launch(launchSettings);
var freshPage = async (browser2, onError) => openPage(await browser2.newContext(pageSettings), onError);
async function openPage(context, onError = () => {
}) {
  await context.addInitScript("globalThis.__name = (f) => f");
  await context.addInitScript(countWork);
  context.setDefaultTimeout(patienceMs);
  const opened = await context.newPage();
  opened.on("pageerror", (error) => onError(error.stack ?? error.message));
  return opened;
}
var restMs = 220;
async function settled(page2) {
  await page2.waitForLoadState("load");
  await page2.locator('[data-saving="saved"]').waitFor();
  const rests = page2.waitForFunction((ms) => globalThis.nuvetRestsFor?.(ms) ?? true, restMs, { polling: 40 });
  await rests.catch(async (error) => {
    const open = await page2.evaluate(() => globalThis.nuvetWaitsFor?.() ?? []);
    throw new Error(`the page does not come to rest; it waits for ${open.join(", ") || "nothing"}`, { cause: error });
  });
}
function countWork() {
  const pending = /* @__PURE__ */ new Map();
  let since = performance.now();
  const begin = (key, word) => {
    pending.set(key, word);
  };
  const end = (key) => {
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
  XMLHttpRequest.prototype.send = function(...words) {
    begin(this, "a file that is sent");
    this.addEventListener("loadend", () => end(this));
    return send.apply(this, words);
  };
  globalThis.Worker = class extends PlainWorker {
    calls = /* @__PURE__ */ new Set();
    constructor(...words) {
      super(...words);
      this.addEventListener("message", ({ data }) => {
        if (data?.id && this.calls.delete(data.id)) end(data.id);
      });
      this.addEventListener("error", () => this.forget());
    }
    postMessage(message, ...words) {
      if (message?.id && message.type !== "RELEASE") {
        this.calls.add(message.id);
        begin(message.id, `a worker's ${message.path?.join(".") ?? message.type}`);
      }
      super.postMessage(message, ...words);
    }
    /** What was asked of it is not answered any more. */
    terminate() {
      this.forget();
      super.terminate();
    }
    forget() {
      for (const id2 of this.calls) end(id2);
      this.calls.clear();
    }
  };
  const images = /* @__PURE__ */ new Set();
  const { Image: PlainImage } = globalThis;
  globalThis.Image = class extends PlainImage {
    constructor(width, height) {
      super(width, height);
      const ref = new WeakRef(this);
      images.add(ref);
      for (const event of ["load", "error"])
        this.addEventListener(event, () => {
          images.delete(ref);
          since = performance.now();
        });
    }
  };
  const isLoading = () => [...images].some((ref) => ref.deref()?.complete === false);
  Object.assign(globalThis, {
    nuvetRestsFor: (ms) => pending.size === 0 && !isLoading() && performance.now() - since >= ms,
    nuvetWaitsFor: () => [...pending.values(), ...isLoading() ? ["an image"] : []]
  });
}

// packages/core/src/plane/path.ts
function polygonPath(corners) {
  const [start, ...rest] = corners;
  if (!start || rest.length < 2) throw new RangeError("a polygon needs three corners");
  return { start, segments: [...rest, start].map((to) => ({ kind: "line", to })), closed: true };
}

// tests/e2e/server.ts
var address = process.env.NUVET_ADDRESS ?? "http://127.0.0.1:3000";
async function json(method, path, body) {
  const response = await fetch(`${address}${path}`, {
    method,
    ...body === void 0 ? {} : { headers: { "Content-Type": "application/json" }, body: JSON.stringify(body) }
  });
  return { status: response.status, body: response.status === 204 ? null : await response.json() };
}
async function jobOfOutlines(name, outlines) {
  const { body } = await json("POST", "/api/jobs", { name, pictureIds: [] });
  const { id: id2 } = body;
  const steps = outlines.map(({ name: what, purpose = "cut", paths }, k) => ({
    step: "do",
    command: { do: "draw", drawn: { id: `d${k}`, name: what, purpose, leftOut: false, source: { kind: "paths", paths }, live: [] } }
  }));
  const done = await json("POST", `/api/jobs/${id2}/edits`, { base: 1, steps, wanted: false });
  if (done.status !== 200) throw new Error(`the outlines were refused: ${JSON.stringify(done.body)}`);
  return id2;
}
var boxPath = (x, y, width, height) => polygonPath([
  { x, y },
  { x: x + width, y },
  { x: x + width, y: y + height },
  { x, y: y + height }
]);

// tests/e2e/zz-shot.ts
var address2 = process.env.NUVET_ADDRESS;
var browser = await startBrowser();
var page = await freshPage(browser, (t) => console.log("PAGE ERROR", t.slice(0, 600)));
var shot = async (n) => {
  await page.mouse.move(700, 785);
  await page.waitForTimeout(600);
  await page.screenshot({ path: `/tmp/s/shots/${n}.png` });
};
var id = await jobOfOutlines("Heron kite wing", [{ name: "Plate", paths: [boxPath(0, 0, 40, 30)] }]);
await page.goto(`${address2}/jobs/${id}?stage=make-ready`);
await settled(page);
await page.getByRole("button", { name: "Add a process" }).click();
await settled(page);
await shot("add-process");
await page.getByRole("button", { name: "Add Wing cores" }).click();
await settled(page);
await page.waitForTimeout(1500);
await shot("wing-panel");
await page.getByRole("button", { name: "Cut", exact: true }).click();
await settled(page);
await page.getByRole("button", { name: "Add a calibration cut" }).click();
await settled(page);
await shot("wing-cut");
await page.getByRole("button", { name: "Wire", exact: true }).click();
await settled(page);
await page.getByRole("button", { name: "Cut the panel" }).click();
await page.getByText("Measured by the wire").waitFor({ timeout: 6e4 }).catch((e) => console.log(String(e).slice(0, 200)));
await shot("wing-wire");
var o = await (await fetch(`${address2}/api/jobs?search=Paddle`)).json();
await page.goto(`${address2}/jobs/${o.jobs[0].id}?stage=make-ready`);
await settled(page);
await page.getByText("What it measures").waitFor();
await page.getByRole("button", { name: "Sections", exact: true }).click();
await settled(page);
await page.getByRole("button", { name: "Add a section" }).click();
await settled(page);
await page.waitForTimeout(2500);
await shot("otter-section");
await page.getByRole("button", { name: "In space", exact: true }).click();
await settled(page);
await page.waitForTimeout(2500);
await page.getByRole("slider", { name: "Drawn apart" }).focus();
for (let k = 0; k < 30; k++) await page.keyboard.press("ArrowRight");
await page.waitForTimeout(800);
await shot("otter-space");
await browser.close();
