/** Tasks from a picture to a file: true up, trace, prove, with next to nothing drawn. */
import { jpegOf, photographScene } from '@nuvet/truth';
import { settled } from '../../tests/e2e/browser.ts';
import * as scenes from './scenes.ts';
import { p } from './scenes.ts';
import { boxOf, brought, finish, isClosed, near, off, read, type Size, scan, sized, sizeOf, type Task } from './task.ts';

export const fromAPicture: readonly Task[] = [
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
      await brought(hand, 'maze', of);
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
    name: 'T13 the first DXF, from the list of jobs, resolution trusted',
    before: 14,
    async run(hand) {
      const of = scan(scenes.emblem);
      await brought(hand, 'emblem', of);
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
      await brought(hand, 'emblem', of);
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
        await brought(hand, 'emblem', of);
        const over = await hand.page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
        if (over > 0) throw new Error(`${over} px too wide at ${width}`);
        isClosed(read(await hand.download(finish)), 2);
      }
      await hand.page.setViewportSize({ width: 1280, height: 800 });
      return 'both';
    },
  },
];
