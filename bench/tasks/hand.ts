/**
 * A maker at the interface: every click, drag, typed field, key and needed scroll is counted as one action.
 */
import { fitOf, type Job, jobSchema, sheetBoxOf, workBoxOf } from '@nuvet/core/job';
import type { Box, Point } from '@nuvet/core/plane';
import type { Download, Locator, Page } from 'playwright-core';
import { clickInPicture, clickOnSheet, dropFile } from '../../tests/e2e/bench-hand.ts';
import { settled } from '../../tests/e2e/browser.ts';

export class Hand {
  actions = 0;
  scrolls = 0;

  constructor(
    readonly page: Page,
    readonly address: string,
  ) {}

  async open(path = ''): Promise<void> {
    await this.page.goto(`${this.address}${path}`);
    await settledOrListed(this.page);
  }

  /** Drops a file on the page; on the list of jobs that starts one. */
  async drop(name: string, type: string, bytes: Buffer): Promise<void> {
    const isList = !this.page.url().includes('/jobs/');
    await dropFile(this.page, name, type, bytes);
    this.actions++;
    if (isList) await this.page.waitForURL(/\/jobs\/[0-9a-f-]+/, { timeout: 60_000 });
    await this.page.getByRole('application', { name: 'Light table' }).waitFor();
    await settled(this.page);
  }

  /** Presses a button by its word. */
  async press(word: string | RegExp, rest = true): Promise<void> {
    const button = this.page.getByRole('button', { name: word, exact: typeof word === 'string' }).first();
    await this.click(button);
    if (rest) await settled(this.page);
  }

  async click(target: Locator): Promise<void> {
    await target.waitFor({ timeout: 20_000 });
    await this.bringIntoSight(target);
    await target.click({ timeout: 20_000 });
    this.actions++;
  }

  /** Types into a field by its label and presses Enter. */
  async type(label: string | RegExp, text: string): Promise<void> {
    const field = this.page.getByLabel(label, { exact: typeof label === 'string' }).last();
    await field.waitFor({ timeout: 20_000 });
    await this.bringIntoSight(field);
    await field.fill(text);
    await field.press('Enter');
    this.actions++;
    await settled(this.page);
  }

  /** Opens a list of words and chooses one. */
  async choose(label: string | RegExp, option: string): Promise<void> {
    await this.click(this.page.getByRole('combobox', { name: label, exact: typeof label === 'string' }).last());
    await this.page.getByRole('option', { name: option, exact: true }).click();
    this.actions++;
    await settled(this.page);
  }

  /** Clicks on a place of the picture, in its pixels. */
  async clickPicture(place: Point, k = 0): Promise<void> {
    const job = await this.job();
    const picture = job.pictures[k];
    if (!picture) throw new Error('there is no such picture');
    await clickInPicture(this.page, fitOf(picture), place, sheetBoxOf(job));
    this.actions++;
  }

  /** Clicks on a place of the sheet, mm. */
  async clickSheet(place: Point, box?: Box): Promise<void> {
    await clickOnSheet(this.page, box ?? workBoxOf(await this.job()), place);
    this.actions++;
  }

  /** Until the picture is traced. */
  async traced(): Promise<void> {
    await this.page.getByRole('table', { name: 'Pieces' }).waitFor({ timeout: 60_000 });
    await settled(this.page);
  }

  /** Presses a button that hands a file over; where it was saved. */
  async download(word: string | RegExp): Promise<string> {
    const waiting = this.page.waitForEvent('download', { timeout: 90_000 }) as Promise<Download>;
    waiting.catch(() => {});
    await this.press(word, false);
    return (await (await waiting).path()) as string;
  }

  async job(): Promise<Job> {
    // What was just done is saved in a moment.
    await this.page.waitForTimeout(500);
    await settled(this.page);
    const id = /jobs\/([0-9a-f-]+)/.exec(this.page.url())?.[1];
    const answer = (await (await fetch(`${this.address}/api/jobs/${id}`)).json()) as { job: unknown };
    return jobSchema.parse(answer.job);
  }

  private async bringIntoSight(target: Locator): Promise<void> {
    const box = await target.boundingBox();
    const foot = await this.page.locator('#docket > :last-child').boundingBox();
    if (!box || (box.y >= 0 && box.y + Math.min(box.height, 20) <= (foot && box.x < 340 ? Math.max(foot.y, 0) + foot.height : 800))) return;
    await target.scrollIntoViewIfNeeded();
    this.scrolls++;
  }
}

async function settledOrListed(page: Page): Promise<void> {
  if (page.url().includes('/jobs/')) {
    await page.getByRole('application', { name: 'Light table' }).waitFor();
    await settled(page);
  } else await page.waitForLoadState('networkidle');
}
