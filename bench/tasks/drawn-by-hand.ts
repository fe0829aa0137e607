/** Tasks where outlines are drawn, mirrored, set off or unrolled by hand. */
import { readFileSync } from 'node:fs';
import { keptPieces } from '@nuvet/core/job';
import { pathBox } from '@nuvet/core/plane';
import { PDFDocument } from 'pdf-lib';
import { settled } from '../../tests/e2e/browser.ts';
import type { Hand } from './hand.ts';
import * as scenes from './scenes.ts';
import { p } from './scenes.ts';
import { boxOf, brought, isClosed, near, off, read, type Size, scan, sized, sizeOf, type Task } from './task.ts';

export const drawnByHand: readonly Task[] = [
  {
    name: 'T6 six-fold star with a slot for stock of 4 mm, half a millimetre of play',
    before: 22,
    async run(hand) {
      const of = scan(scenes.sixFold);
      await brought(hand, 'star', of);
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
      await brought(hand, 'emblem', of, null);
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
      await brought(hand, 'ellipse', of);
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
];

async function optionsOf(hand: Hand, label: string): Promise<string[]> {
  await hand.page.getByRole('combobox', { name: label }).last().click();
  const all = await hand.page.getByRole('option').allTextContents();
  await hand.page.keyboard.press('Escape');
  return all;
}
