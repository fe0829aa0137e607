/** Tasks of several pictures at once, and of a carton that is folded. */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { demoJobs, pngOf, type Scan, type Scene } from '@nuvet/truth';
import { PDFDocument } from 'pdf-lib';
import { settled } from '../../tests/e2e/browser.ts';
import { dxfSeenByEzdxf } from '../../tests/unit/outside-readers.ts';
import * as scenes from './scenes.ts';
import { brought, near, scan, type Task } from './task.ts';

export const manyAndFolded: readonly Task[] = [
  {
    name: 'T10 carton as a drawn die line, folded',
    before: null,
    async run(hand) {
      const carton = demoJobs.find((d) => d.name === 'Lantern box die line')?.scene as Scene;
      const of = scan(carton);
      await brought(hand, 'carton', of);
      await hand.press('Next: trace');
      await hand.traced();
      await hand.press('Middle of lines');
      await hand.press('Next: prove');
      await settled(hand.page);
      await hand.click(hand.page.getByRole('button', { name: /^Make ready/ }).first());
      await hand.press('Add a process');
      await hand.press('Add Paper');
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
      await hand.press('Add a process');
      await hand.press('Add Paper');
      await hand.page.getByText('Pages used').waitFor();
      const file = await hand.download('Download Pages');
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
];
