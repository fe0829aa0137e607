/**
 * Fifteen makers' tasks through the real interface: whether each works, in how many actions, how long it takes and how far the outcome
 * is off. Actions before are those of the interface of October 2026, counted by hand.
 */
import { join } from 'node:path';
import type { Browser } from 'playwright-core';
import { freshPage, startBrowser } from '../../tests/e2e/browser.ts';
import { drawnByHand } from './drawn-by-hand.ts';
import { fromAPicture } from './from-a-picture.ts';
import { Hand } from './hand.ts';
import { manyAndFolded } from './many-and-folded.ts';

const tasks = [...fromAPicture, ...drawnByHand, ...manyAndFolded].sort((a, b) => numberOf(a.name) - numberOf(b.name));

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

/** A task's name begins with T and its number. */
function numberOf(name: string): number {
  return Number.parseInt(name.slice(1), 10);
}
