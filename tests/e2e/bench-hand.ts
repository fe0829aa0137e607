/**
 * A person at the light table, for tests: knows where a point of the picture lies on the screen, goes near with the
 * wheel, and clicks. The view is worked out beside the page, with the same rules.
 */
import { apply, inverse, type Point } from '@nuvet/core/plane';
import type { TrueUpFit } from '@nuvet/core/trueup';
import type { Page } from 'playwright-core';
import { placementOf, type Size, type View, wholeSheet, zoomed } from '../../apps/web/src/table/view.ts';

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
 * Clicks on a point of the picture: shows the whole sheet, goes near in three turns of the wheel, clicks.
 * @param fit the picture's fit as it is now
 */
export async function clickInPicture(page: Page, fit: TrueUpFit, point: Point): Promise<Point> {
  const table = await tableBox(page);
  await page.keyboard.press('0');
  let view: View = wholeSheet(fit.sheetBox, table);
  const at = (): Point => apply(placementOf(view, fit), point);
  for (let turn = 0; turn < 3; turn++) {
    const here = { x: Math.round(at().x), y: Math.round(at().y) };
    await page.mouse.move(table.left + here.x, table.top + here.y);
    await page.mouse.wheel(0, -600);
    view = zoomed(view, here, Math.exp(600 * 0.0016));
    await page.waitForTimeout(60);
  }
  const here = { x: Math.round(at().x), y: Math.round(at().y) };
  await page.mouse.move(table.left + here.x, table.top + here.y);
  await page.mouse.down();
  await page.mouse.up();
  return apply(inverse(placementOf(view, fit)), here);
}
