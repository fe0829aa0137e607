/**
 * What the page does while a script works on it: how long its frames are, how long it holds the main thread.
 */
import type { Page } from 'playwright-core';

export interface Frames {
  median: number;
  high: number;
  longestTask: number;
  /** The most script in one frame that took long, ms: what of a long task is ours and not painting. */
  longestScript: number;
  /** What the main thread does a frame in the mean, ms: all told, and script alone. Without a graphics card it also paints. */
  work: number;
  script: number;
}

/** Frame times while a script moves the wheel and drags, ms; and the longest task of the main thread. */
export async function framesWhile(page: Page, move: () => Promise<void>): Promise<Frames> {
  await page.evaluate(() => {
    const kept = window as unknown as { frames: number[]; tasks: number[]; scripts: number[]; run: boolean };
    Object.assign(kept, { frames: [], tasks: [], scripts: [], run: true });
    new PerformanceObserver((list) => kept.tasks.push(...list.getEntries().map((e) => e.duration))).observe({ type: 'longtask' });
    type LongFrame = PerformanceEntry & { readonly scripts: readonly PerformanceEntry[] };
    new PerformanceObserver((list) => {
      for (const { scripts } of list.getEntries() as LongFrame[]) kept.scripts.push(scripts.reduce((sum, s) => sum + s.duration, 0));
    }).observe({ type: 'long-animation-frame' });
    let last = performance.now();
    const tick = (now: number) => {
      kept.frames.push(now - last);
      last = now;
      if (kept.run) requestAnimationFrame(tick);
    };
    requestAnimationFrame(tick);
  });
  const session = await page.context().newCDPSession(page);
  await session.send('Performance.enable');
  const spent = async () => {
    const { metrics } = await session.send('Performance.getMetrics');
    const ms = (wanted: string): number => 1000 * (metrics.find(({ name }) => name === wanted)?.value ?? Number.NaN);
    return { work: ms('TaskDuration'), script: ms('ScriptDuration') };
  };
  const before = await spent();
  await move();
  const after = await spent();
  await session.detach();
  const frames = await page.evaluate(() => {
    const kept = window as unknown as { frames: number[]; tasks: number[]; scripts: number[]; run: boolean };
    kept.run = false;
    const sorted = kept.frames.slice(2).sort((a, b) => a - b);
    return {
      median: sorted[sorted.length >> 1] as number,
      high: sorted[Math.floor(sorted.length * 0.95)] as number,
      longestTask: Math.max(0, ...kept.tasks),
      longestScript: Math.max(0, ...kept.scripts),
      count: kept.frames.length,
    };
  });
  const each = Math.max(1, frames.count);
  return { ...frames, work: (after.work - before.work) / each, script: (after.script - before.script) / each };
}

export async function wander(page: Page): Promise<void> {
  const [x, y] = [800, 420];
  await page.mouse.move(x, y);
  for (let k = 0; k < 30; k++) {
    await page.mouse.wheel(0, k < 15 ? -120 : 120);
    await page.waitForTimeout(16);
  }
  await page.mouse.down();
  for (let k = 0; k < 40; k++) await page.mouse.move(x + 150 * Math.sin(k / 4), y + 100 * Math.cos(k / 4));
  await page.mouse.up();
}

export const row = (name: string, { median, high, longestTask, work, script }: Frames) =>
  console.log(
    `${name.padEnd(40)} median ${median.toFixed(1)} ms, 95 % under ${high.toFixed(1)} ms a frame; work ${work.toFixed(1)} ms a frame, of it script ${script.toFixed(1)}; longest task ${longestTask.toFixed(0)} ms`,
  );
