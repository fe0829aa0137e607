/**
 * The view of the light table: where on the screen the sheet lies. Screen x right, y down, in CSS pixels; sheet y up.
 */
import type { RasterSource } from '@nuvet/core/job';
import type { Box, Point, Transform } from '@nuvet/core/plane';
import { apply, chain, inverse } from '@nuvet/core/plane';
import type { TrueUpFit } from '@nuvet/core/trueup';

export interface View {
  /** Screen pixels a millimetre. */
  readonly scale: number;
  /** Where the sheet's origin lies on the screen. */
  readonly x: number;
  readonly y: number;
}

export interface Size {
  readonly width: number;
  readonly height: number;
}

export const sheetToScreen = ({ scale, x, y }: View): Transform => ({ a: scale, b: 0, c: 0, d: -scale, e: x, f: y });
export const toScreen = (view: View, p: Point): Point => apply(sheetToScreen(view), p);
export const toSheet = (view: View, p: Point): Point => apply(inverse(sheetToScreen(view)), p);
/** From a raster's pixels to the screen. */
export const placementOf = (view: View, raster: Pick<RasterSource, 'toSheet'>): Transform => chain(sheetToScreen(view), raster.toSheet);

/** A box of the sheet with a margin, such as all that lies on it. */
export function wholeSheet(box: Box, screen: Size): View {
  const margin = 40;
  const [w, h] = [box.maxX - box.minX, box.maxY - box.minY];
  const scale = Math.max(1e-4, Math.min((screen.width - 2 * margin) / w, (screen.height - 2 * margin) / h));
  return {
    scale,
    x: screen.width / 2 - ((box.minX + box.maxX) / 2) * scale,
    y: screen.height / 2 + ((box.minY + box.maxY) / 2) * scale,
  };
}

/** Nearer or farther by a factor, the point under the pointer staying where it is. */
export function zoomed(view: View, at: Point, factor: number): View {
  const scale = Math.min(5000, Math.max(1e-4, view.scale * factor));
  const k = scale / view.scale;
  return { scale, x: at.x + (view.x - at.x) * k, y: at.y + (view.y - at.y) * k };
}

export const moved = (view: View, dx: number, dy: number): View => ({ ...view, x: view.x + dx, y: view.y + dy });

/**
 * The view after the picture's fit has changed: the picture's middle stays where it is on the screen, and as large,
 * so that nothing flies away when a size is typed.
 */
export function keptUnder(view: View, before: TrueUpFit, after: TrueUpFit, size: { widthPx: number; heightPx: number }): View {
  const middle = { x: size.widthPx / 2, y: size.heightPx / 2 };
  const scale = (view.scale * before.mmPerPx) / after.mmPerPx;
  const at = apply(placementOf(view, before), middle);
  const there = apply(after.toSheet, middle);
  return { scale, x: at.x - there.x * scale, y: at.y + there.y * scale };
}

/** The view that shows a box of the sheet, with room around it. */
export function boxInView(box: { minX: number; minY: number; maxX: number; maxY: number }, screen: Size): View {
  const [w, h] = [Math.max(1e-3, box.maxX - box.minX), Math.max(1e-3, box.maxY - box.minY)];
  const scale = 0.7 * Math.min(screen.width / w, screen.height / h);
  return { scale, x: screen.width / 2 - ((box.minX + box.maxX) / 2) * scale, y: screen.height / 2 + ((box.minY + box.maxY) / 2) * scale };
}
