/**
 * Fifteen makers' tasks through the real interface: whether each works, in how many actions, how long it takes and how far the outcome
 * is off. Actions before are those of the interface of October 2026, counted by hand.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { keptPieces } from '@nuvet/core/job';
import { type Point, pathBox } from '@nuvet/core/plane';
import { demoJobs, jpegOf, photographScene, pngOf, type Scan, type ScanSettings, type Scene, scanScene } from '@nuvet/truth';
import { PDFDocument } from 'pdf-lib';
import type { Browser } from 'playwright-core';
import { freshPage, settled, startBrowser } from '../../tests/e2e/browser.ts';
import { type DxfSeen, dxfSeenByEzdxf } from '../../tests/unit/outside-readers.ts';
import { Hand } from './hand.ts';
import * as scenes from './scenes.ts';
import { p } from './scenes.ts';

interface Task {
  readonly name: string;
  /** Actions that the same took before. */
  readonly before: number | null;
  /** @returns how far the outcome is off, in words; throws where it does not work */
  run(hand: Hand): Promise<string>;
}

const scan = (scene: Scene, settings: Partial<ScanSettings> = {}): Scan => scanScene(scene, { dpi: 300, noise: 5, seed: 401, ...settings });
const sizeOf = ({ min, max }: DxfSeen): [number, number] => [(max[0] ?? 0) - (min[0] ?? 0), (max[1] ?? 0) - (min[1] ?? 0)];
const off = (is: number, wanted: number): string => `${is - wanted >= 0 ? '+' : ''}${(is - wanted).toFixed(3)}`;

function read(file: string): DxfSeen {
  const [dxf] = dxfSeenByEzdxf(file);
  if (!dxf || dxf.errors.length > 0 || dxf.fixes.length > 0) throw new Error(`ezdxf: ${JSON.stringify(dxf?.errors)}`);
  return dxf;
}

function isClosed(dxf: DxfSeen, count: number): void {
  const open = dxf.outlines.filter((o) => !o.closed).length;
  if (open > 0) throw new Error(`${open} outlines of the file are open`);
  if (dxf.outlines.length !== count) throw new Error(`${dxf.outlines.length} outlines in the file for ${count} wanted`);
}

function near(is: number, wanted: number, within: number): void {
  if (!(Math.abs(is - wanted) <= within)) throw new Error(`${is.toFixed(3)} for ${wanted.toFixed(3)}`);
}

/** A scan without a size, dropped on the list of jobs and sized by two clicks and a length. */
async function sized(hand: Hand, name: string, of: Scan, marks: readonly Point[], length: string, scale = ''): Promise<void> {
  await hand.open();
  await hand.drop(`${name}.png`, 'image/png', await pngOf(of.picture, null));
  for (const place of marks) await hand.clickPicture(of.at(place));
  await hand.type('Its true length', length);
  if (scale) await hand.type('This plan is drawn at', scale);
}

const finish = 'Finish: trace, prove, DXF';

const tasks: readonly Task[] = [
  {
    name: 'T1 room plan, 26 ft, turned by 2.1 degrees, a length checked',
    before: 18,
    async run(hand) {
      const of = scan(scenes.plan, { tiltDegrees: 2.1 });
      await sized(hand, 'plan', of, scenes.plan.marks?.long ?? [], "26'");
      await hand.press(/^(Turn by|Straighten)/);
      await hand.press('Distance');
      for (const place of scenes.plan.marks?.high ?? []) await hand.clickPicture(of.at(place));
      const [check] = (await hand.job()).pictures[0]?.marks.filter((m) => m.kind === 'check') ?? [];
      if (!check) throw new Error('no distance was measured');
      const dxf = read(await hand.download(finish));
      isClosed(dxf, 2);
      const [w, h] = sizeOf(dxf);
      near(w, 7924.8, 8);
      near(h, 5715, 8);
      return `${off(w, 7924.8)} / ${off(h, 5715)} mm of 7924.8 / 5715`;
    },
  },
  {
    name: 'T2 cupboard, 4 ft 5 in at an inch to the foot',
    before: 19,
    async run(hand) {
      const of = scan(scenes.cupboard);
      await sized(hand, 'cupboard', of, scenes.cupboard.marks?.wide ?? [], `4' 5"`, '1 in to the foot');
      await hand.press('On the thing itself');
      const dxf = read(await hand.download(finish));
      isClosed(dxf, 1);
      const [w, h] = sizeOf(dxf);
      const factor = w > 500 ? 12 : 1;
      near(w, scenes.cupboardOnPaper.widthMm * factor, 0.2 * factor);
      near(h, scenes.cupboardOnPaper.heightMm * factor, 0.2 * factor);
      return `${off(w / factor, scenes.cupboardOnPaper.widthMm)} / ${off(h / factor, scenes.cupboardOnPaper.heightMm)} mm on the paper`;
    },
  },
  {
    name: 'T3 half wing, 18 in, datum on the centre line, the line itself no part of it',
    before: 24,
    async run(hand) {
      const of = scan(scenes.halfWing);
      await sized(hand, 'half wing', of, scenes.halfWing.marks?.span ?? [], '18in');
      await hand.press('Click a place');
      await hand.clickPicture(of.at(p(40, 40)));
      await hand.press('Next: trace');
      await hand.traced();
      await hand.press('Drawn line');
      await hand.press('Middle');
      await hand.press('Exclude');
      const dxf = read(await hand.download(/^Finish: prove, DXF/));
      isClosed(dxf, 1);
      const grow = 457.2 / 150;
      const [w, h] = sizeOf(dxf);
      near(w, 457.2, 0.5);
      near(h, 120 * grow, 0.6);
      near(dxf.min[0], 0, 0.4);
      return `span ${off(w, 457.2)}, chord ${off(h, 120 * grow)}, datum x ${dxf.min[0].toFixed(3)} mm`;
    },
  },
  {
    name: 'T4 photograph with a frame of 210 x 297 mm',
    before: 16,
    async run(hand) {
      const photo = photographScene(scenes.photographed, {
        widthPx: 3000,
        heightPx: 4000,
        tiltDegrees: 22,
        leanDegrees: 60,
        fill: 0.75,
        seed: 31,
      });
      await hand.open();
      await hand.drop('sheet.jpg', 'image/jpeg', await jpegOf(photo.picture, 72));
      const found = hand.page.getByRole('button', { name: 'Use the paper’s corners' });
      await found.first().waitFor({ timeout: 30_000 });
      await hand.click(found.first());
      await hand.page.getByText('Show the photograph as taken').waitFor({ timeout: 90_000 });
      await settled(hand.page);
      const dxf = read(await hand.download(finish));
      isClosed(dxf, 3);
      const boxes = dxf.outlines.map(({ along }) => boxOf(along)).sort((a, b) => b.w * b.h - a.w * a.h);
      const [kite, ring, hole] = boxes as [Size, Size, Size];
      near(kite.w, 120, 0.4);
      near(ring.w, 40, 0.15);
      near(hole.w, 24, 0.15);
      return `kite ${off(kite.w, 120)} / ${off(kite.h, 230)}, ring ${off(ring.w, 40)}, its hole ${off(hole.w, 24)} mm`;
    },
  },
  {
    name: 'T5 maze, passages of at least 6 mm',
    before: 14,
    async run(hand) {
      const of = scan(scenes.maze);
      await hand.open();
      await hand.drop('maze.png', 'image/png', await pngOf(of.picture, 300));
      await hand.press('Next: trace');
      await hand.traced();
      await hand.press('Next: prove');
      await hand.type(/^Clearance: passages at least/, '6');
      await hand.page
        .getByText(/^(Narrowest passage|Passage)/)
        .first()
        .waitFor();
      const said = ((await hand.page.locator('#docket').textContent()) ?? '').match(/Narrowest passage[^\d]*([\d.]+) mm/i)?.[1] ?? '';
      await hand.press('Next: make ready');
      const dxf = read(await hand.download('Download DXF'));
      isClosed(dxf, 3);
      const [w] = sizeOf(dxf);
      near(w, 91.5, 0.05);
      near(Number(said), 7.5, 0.06);
      return `overall ${off(w, 91.5)}, narrowest passage said ${said} (7.50) mm`;
    },
  },
  {
    name: 'T6 six-fold star with a slot for stock of 4 mm, half a millimetre of play',
    before: 22,
    async run(hand) {
      const of = scan(scenes.sixFold);
      await hand.open();
      await hand.drop('star.png', 'image/png', await pngOf(of.picture, 300));
      await hand.press(/^Unit/);
      await hand.type(/^Thickness/, '4');
      await hand.page.keyboard.press('Escape');
      await hand.press('Next: trace');
      await hand.traced();
      await hand.click(hand.page.getByRole('table', { name: 'Pieces' }).locator('tbody tr').first());
      await hand.press('Make exact');
      await hand.press('Draw');
      await hand.press('Slot');
      const box = { minX: 0, minY: 0, maxX: of.picture.width * of.mmPerPx, maxY: of.picture.height * of.mmPerPx };
      await hand.clickSheet(p(box.maxX / 2, box.maxY / 2 - 12), box);
      await hand.clickSheet(p(box.maxX / 2, box.maxY / 2 + 12), box);
      await settled(hand.page);
      await hand.press('Next: prove');
      // The slot is a hole by itself: nothing to say but that the size rests on the file.
      await hand.page.getByText('1 to look at', { exact: true }).first().waitFor({ timeout: 20_000 });
      await hand.page.getByText(/rests on the resolution/).waitFor();
      await hand.press('Next: make ready');
      const dxf = read(await hand.download('Download DXF'));
      isClosed(dxf, 2);
      const slot = dxf.outlines.map(({ along }) => boxOf(along)).sort((a, b) => a.w - b.w)[0] as Size;
      near(Math.min(slot.w, slot.h), 4.5, 0.02);
      return `slot ${slot.w.toFixed(3)} x ${slot.h.toFixed(3)} mm`;
    },
  },
  {
    name: 'T7 half profile mirrored about its plumb line, in inches',
    before: 35,
    async run(hand) {
      const of = scan(scenes.halfVase);
      await sized(hand, 'half vase', of, scenes.halfVase.marks?.high ?? [], '4.5in');
      await hand.press('Plumb line');
      for (const place of scenes.halfVase.marks?.axis ?? []) await hand.clickPicture(of.at(place));
      await settled(hand.page);
      await hand.press(/^Unit/);
      await hand.choose('Unit of the job', 'inches');
      await hand.page.keyboard.press('Escape');
      await hand.press('Next: trace');
      await hand.traced();
      await hand.press('Along the edge');
      await hand.press('The middle of a line');
      for (const [x, y] of [[60.3, 20], [95, 20], [83.25, 70], [90, 110], [60.4, 134.1]] as const) await hand.clickPicture(of.at(p(x, y))); // biome-ignore format: places along the line
      await hand.press('Finish open');
      await hand.click(hand.page.getByRole('button', { name: /^Exclude Piece/ }).first());
      await hand.press('Correct');
      await hand.press('Live');
      await hand.press(/^Mirror about the plumb line/);
      await hand.press('Next: prove');
      await hand.press('Next: make ready');
      const dxf = read(await hand.download('Download DXF'));
      isClosed(dxf, 1);
      const [w, h] = sizeOf(dxf);
      const inch = dxf.insunits === 1 ? 25.4 : 1;
      if (inch === 1) throw new Error('the file is in millimetres');
      near(w * inch, 70, 0.5);
      near(h * inch, 114.3, 0.5);
      return `${off(w * inch, 70)} / ${off(h * inch, 114.3)} mm, $INSUNITS 1, closed`;
    },
  },
  {
    name: 'T8 emblem 6 in wide, rings at 3 and 6 mm engraved, full-size PDF',
    before: 20,
    async run(hand) {
      const of = scan(scenes.emblem, { dpi: 200 });
      await hand.open();
      await hand.drop('emblem.png', 'image/png', await pngOf(of.picture, null));
      await hand.press('Box');
      await hand.type('Width it must have', '6in');
      await hand.press('Next: trace');
      await hand.traced();
      await hand.press('Correct');
      await hand.press('Offset');
      await hand.type(/^Rings/, '2');
      await hand.choose('Which outline', ((await optionsOf(hand, 'Which outline'))[1] ?? '').trim());
      await hand.press(/rings, live$/);
      await hand.choose(/^Purpose of outline 3/, 'engrave');
      await hand.choose(/^Purpose of outline 4/, 'engrave');
      await hand.press('Next: prove');
      await hand.page.getByText('Proved', { exact: true }).waitFor({ timeout: 20_000 });
      await hand.press('Next: make ready');
      await hand.press('Files');
      const file = await hand.download(/^PDF: download/);
      const pdf = await PDFDocument.load(readFileSync(file));
      const { width } = pdf.getPage(0).getSize();
      const dxf = read(await hand.download(/^DXF: download/));
      isClosed(dxf, 4);
      const emblem = dxf.outlines.filter((o) => /cut/i.test(o.layer)).map(({ along }) => boxOf(along));
      near(Math.max(...emblem.map((b) => b.w)), 152.4, 0.1);
      const rings = dxf.outlines.filter((o) => /engrave/i.test(o.layer)).length;
      if (rings !== 2) throw new Error(`${rings} rings are engraved`);
      return `width ${off(Math.max(...emblem.map((b) => b.w)), 152.4)} mm, two rings engraved, PDF ${((width / 72) * 25.4).toFixed(1)} mm wide`;
    },
  },
  {
    name: 'T9 ellipse laid flat with two holes, radius typed',
    before: 28,
    async run(hand) {
      const of = scan(scenes.ellipseStrip);
      await hand.open();
      await hand.drop('ellipse.png', 'image/png', await pngOf(of.picture, 300));
      await hand.press('Next: trace');
      await hand.traced();
      await hand.press('Drawn line');
      await hand.press('Middle');
      await hand.press('Correct');
      await hand.press('Live');
      const said = ((await hand.page.locator('#docket').textContent()) ?? '').match(/([\d.]+) mm long/)?.[1] ?? '';
      await hand.press('Unroll to a flat strip, with everything on it');
      const strip = keptPieces(await hand.job()).find(({ name }) => name.startsWith('Strip'));
      if (!strip) throw new Error('no strip');
      const { minX, minY } = pathBox(strip.outer);
      await hand.press('Draw');
      await hand.press('Circle');
      for (const x of [8, 40]) {
        await hand.clickSheet(p(minX + x, minY + 5));
        await hand.clickSheet(p(minX + x + 2, minY + 5));
        await settled(hand.page);
        await hand.type(/^Radius/, '2');
      }
      const circles = (await hand.job()).drawn.filter((d) => d.source.kind === 'figure');
      if (circles.length !== 2) throw new Error(`${circles.length} holes drawn`);
      // Ramanujan 1914, second approximation; here good to a nanometre.
      const [a, b] = [30, 22];
      const h = ((a - b) / (a + b)) ** 2;
      const round = Math.PI * (a + b) * (1 + (3 * h) / (10 + Math.sqrt(4 - 3 * h)));
      near(Number(said), round, 0.1);
      return `length ${off(Number(said), round)} of ${round.toFixed(3)} mm, two holes of 4.000`;
    },
  },
  {
    name: 'T10 carton as a drawn die line, folded',
    before: null,
    async run(hand) {
      const carton = demoJobs.find((d) => d.name === 'Lantern box die line')?.scene as Scene;
      const of = scan(carton);
      await hand.open();
      await hand.drop('carton.png', 'image/png', await pngOf(of.picture, 300));
      await hand.press('Next: trace');
      await hand.traced();
      await hand.press('Middle of lines');
      await hand.press('Next: prove');
      await settled(hand.page);
      await hand.click(hand.page.getByRole('button', { name: /^Make ready/ }).first());
      await hand.press('Fold');
      const panels = await hand.page
        .getByText('Panels', { exact: true })
        .locator('xpath=following-sibling::*')
        .textContent({ timeout: 8000 });
      return `${panels} panels`;
    },
  },
  {
    name: 'T11 six halves from one scanner: one scale, all traced, each mirrored, printed full size',
    before: null,
    async run(hand) {
      const halves = Array.from({ length: 6 }, (_, k) => scan(scenes.halfLeaf(k), { seed: 410 + k, dpi: 200 }));
      await hand.open();
      const [first, ...rest] = halves as [Scan, ...Scan[]];
      await hand.drop('leaf 1.png', 'image/png', await pngOf(first.picture, null));
      for (const place of scenes.halfLeaf(0).marks?.size ?? []) await hand.clickPicture(first.at(place));
      await hand.type('Its true length', '90 mm');
      for (const [k, of] of rest.entries()) await hand.drop(`leaf ${k + 2}.png`, 'image/png', await pngOf(of.picture, null));
      for (let k = 1; k < 6; k++) {
        await hand.click(hand.page.getByRole('button', { name: /^Bring in/ }).first());
        await hand.click(hand.page.getByText(`leaf ${k + 1}.png`).first());
        await hand.click(hand.page.getByRole('button', { name: /^True up/ }).first());
        await settled(hand.page);
        await hand.press(/leaf 1\.png/);
      }
      await hand.press('Next: trace');
      await hand.traced();
      await hand.press('Trace all pictures with these settings');
      await hand.page.waitForFunction(() => !document.querySelector('#docket')?.textContent?.includes('Tracing the other pictures'));
      await settled(hand.page);
      const { traces, pictures } = await hand.job();
      if (traces.length !== 6) throw new Error(`${traces.length} of ${pictures.length} pictures are traced`);
      const scales = traces.map((t) => t.mmPerPx);
      near(Math.max(...scales) / Math.min(...scales), 1, 1e-9);
      await hand.click(hand.page.getByRole('button', { name: /^Make ready/ }).first());
      await hand.press('Print');
      await hand.page.getByText('Pages used').waitFor();
      const file = await hand.download('Download the pages');
      const pages = (await PDFDocument.load(readFileSync(file))).getPageCount();
      return `six traces at one scale of ${scales[0]?.toFixed(5)} mm per px, ${pages} pages printed`;
    },
  },
  {
    name: 'T12 forty scans by the command',
    before: 1,
    async run(hand) {
      const folder = mkdtempSync(join(tmpdir(), 'nuvet-tasks-'));
      const many = 40;
      for (let k = 0; k < many; k++)
        writeFileSync(join(folder, `scan ${k}.png`), await pngOf(scan(scenes.emblem, { dpi: 200, seed: 500 + (k % 8) }).picture, 200));
      hand.actions++;
      const began = performance.now();
      const out = join(folder, 'out');
      execFileSync('node', ['packages/cli/bin/nuvet.mjs', 'trace', ...readdirSync(folder).filter((f) => f.endsWith('.png')).map((f) => join(folder, f)), '--out-dir', out, '--to', 'dxf'], { stdio: 'pipe' }); // biome-ignore format: one command
      const seconds = (performance.now() - began) / 1000;
      const files = readdirSync(out).filter((f) => f.endsWith('.dxf'));
      const seen = files.flatMap((f) => dxfSeenByEzdxf(join(out, f)));
      if (seen.length !== many || seen.some((d) => d.outlines.length !== 2 || d.errors.length > 0))
        throw new Error('a file is not as it should be');
      return `${many} of ${many} with two closed outlines each, ${(seconds / many).toFixed(2)} s a picture`;
    },
  },
  {
    name: 'T13 the first DXF, from the list of jobs, resolution trusted',
    before: 14,
    async run(hand) {
      const of = scan(scenes.emblem);
      await hand.open();
      await hand.drop('emblem.png', 'image/png', await pngOf(of.picture, 300));
      const dxf = read(await hand.download(finish));
      isClosed(dxf, 2);
      const [w, h] = sizeOf(dxf);
      near(w, 124, 0.08);
      return `${off(w, 124)} / ${off(h, 100)} mm`;
    },
  },
  {
    name: 'T14 by keyboard alone, from the list of jobs to the file (key presses)',
    before: 232,
    async run(hand) {
      const of = scan(scenes.emblem);
      await hand.open();
      await hand.drop('emblem.png', 'image/png', await pngOf(of.picture, 300));
      const { page } = hand;
      const waiting = page.waitForEvent('download', { timeout: 90_000 });
      waiting.catch(() => {});
      let found = false;
      for (let k = 0; k < 120 && !found; k++) {
        await page.keyboard.press('Tab');
        hand.actions++;
        found = await page.evaluate((word) => document.activeElement?.textContent === word, finish);
      }
      if (!found) throw new Error('the button is not reached');
      await page.keyboard.press('Enter');
      hand.actions++;
      const dxf = read((await (await waiting).path()) as string);
      isClosed(dxf, 2);
      return `${off(sizeOf(dxf)[0], 124)} mm`;
    },
  },
  {
    name: 'T15 tablet of 820 px and a window of 1920 px: nothing runs out of the page, the same two actions',
    before: null,
    async run(hand) {
      const of = scan(scenes.emblem);
      for (const width of [820, 1920]) {
        await hand.page.setViewportSize({ width, height: 1100 });
        await hand.open();
        await hand.drop('emblem.png', 'image/png', await pngOf(of.picture, 300));
        const over = await hand.page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
        if (over > 0) throw new Error(`${over} px too wide at ${width}`);
        isClosed(read(await hand.download(finish)), 2);
      }
      await hand.page.setViewportSize({ width: 1280, height: 800 });
      return 'both';
    },
  },
];

interface Size {
  readonly w: number;
  readonly h: number;
}

function boxOf(points: readonly (readonly [number, number])[]): Size {
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  return { w: Math.max(...xs) - Math.min(...xs), h: Math.max(...ys) - Math.min(...ys) };
}

async function optionsOf(hand: Hand, label: string): Promise<string[]> {
  await hand.page.getByRole('combobox', { name: label }).last().click();
  const all = await hand.page.getByRole('option').allTextContents();
  await hand.page.keyboard.press('Escape');
  return all;
}

const address = process.env.NUVET_ADDRESS ?? 'http://127.0.0.1:3000';
const wanted = process.argv.slice(2);
const browser: Browser = await startBrowser();
let working = 0;
console.log('task | works | actions (scrolls), before | s | off');
for (const task of tasks.filter(({ name }) => wanted.length === 0 || wanted.some((w) => name.startsWith(`${w} `)))) {
  const page = await freshPage(browser);
  const hand = new Hand(page, address);
  const began = performance.now();
  const told = await task.run(hand).then(
    (error) => ['yes', error],
    (error: Error) => ['NO', error.message.split('\n').slice(0, 2).join(' ').slice(0, 200)],
  );
  if (told[0] === 'yes') working++;
  const seconds = ((performance.now() - began) / 1000).toFixed(0);
  console.log(`${task.name} | ${told[0]} | ${hand.actions} (${hand.scrolls}), ${task.before ?? '-'} | ${seconds} | ${told[1]}`);
  const shots = process.env.NUVET_SHOTS;
  if (told[0] === 'NO' && shots)
    await page.screenshot({ path: join(shots, `${task.name.split(' ')[0]}.png`), timeout: 10_000 }).catch(() => {});
  await page.context().close();
}
await browser.close();
console.log(`${working} of ${wanted.length || tasks.length} tasks work`);
