/**
 * A person at the light table, for tests: knows where a point of the picture lies on the screen, goes near with the
 * wheel, and clicks. The view is worked out beside the page, with the same rules.
 */
import { type Box, inverseProjection, type Point, project } from '@nuvet/core/plane';
import type { TrueUpFit } from '@nuvet/core/trueup';
import type { Page } from 'playwright-core';
import { type Size, toScreen, toSheet, type View, wholeSheet, zoomed } from '../../apps/web/src/table/view.ts';

/** Puts a file on the page as if it were dropped there. */
export async function dropFile(page: Page, name: string, type: string, bytes: Buffer): Promise<void> {
  const transfer = await page.evaluateHandle(
    ({ name, type, base64 }) => {
      const data = new DataTransfer();
      const binary = Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
      data.items.add(new File([binary], name, { type }));
      return data;
    },
    { name, type, base64: bytes.toString('base64') },
  );
  const target = page.locator('input[type=file]').locator('xpath=..').first();
  await target.dispatchEvent('dragenter', { dataTransfer: transfer });
  await target.dispatchEvent('drop', { dataTransfer: transfer });
}

/** The light table's place in the window. */
async function tableBox(page: Page): Promise<{ left: number; top: number } & Size> {
  const box = await page.getByRole('application', { name: 'Light table' }).boundingBox();
  if (!box) throw new Error('there is no light table');
  return { left: box.x, top: box.y, width: box.width, height: box.height };
}

/**
 * Clicks on a point of the sheet: shows all of it, goes near in three turns of the wheel, clicks.
 * @param box all that lies on the sheet
 * @returns the place of the sheet that was clicked, to a screen pixel
 */
export async function clickOnSheet(page: Page, box: Box, point: Point): Promise<Point> {
  const table = await tableBox(page);
  await page.getByRole('application', { name: 'Light table' }).focus();
  await page.keyboard.press('0');
  let view: View = wholeSheet(box, table);
  for (let turn = 0; turn < 3; turn++) {
    const at = toScreen(view, point);
    const here = { x: Math.round(at.x), y: Math.round(at.y) };
    await page.mouse.move(table.left + here.x, table.top + here.y);
    await page.mouse.wheel(0, -600);
    view = zoomed(view, here, Math.exp(600 * 0.0016));
    await page.waitForTimeout(60);
  }
  const at = toScreen(view, point);
  const here = { x: Math.round(at.x), y: Math.round(at.y) };
  await page.mouse.move(table.left + here.x, table.top + here.y);
  // Long enough for a feature near the pointer to be looked for.
  await page.waitForTimeout(150);
  await page.mouse.down();
  await page.mouse.up();
  return toSheet(view, here);
}

/** Clicks on a point of the picture, in its pixels; its fit as it is now. */
export async function clickInPicture(page: Page, fit: TrueUpFit, point: Point, box: Box = fit.sheetBox): Promise<Point> {
  const clicked = await clickOnSheet(page, box, project(fit.projection, point));
  return project(inverseProjection(fit.projection), clicked);
}

/** Measures from one point of the sheet to another with the docket's own tool; mm. */
export async function measured(page: Page, box: Box, a: Point, b: Point): Promise<number> {
  const rows = page.locator('[data-mark="check"]');
  const before = await rows.count();
  await page.getByRole('button', { name: 'Distance', exact: true }).click();
  await clickOnSheet(page, box, a);
  await clickOnSheet(page, box, b);
  await rows.nth(before).waitFor();
  return Number(/([\d.]+) mm/.exec((await rows.nth(before).textContent()) ?? '')?.[1]);
}
