'use client';
/**
 * Where a picture lies on the screen: from the pixels of the original to the screen and back, through whatever raster
 * is shown of it.
 */
import { fromOriginal, type Picture, type RasterSource } from '@nuvet/core/job';
import { apply, inverse, type Point, project, type Transform } from '@nuvet/core/plane';
import { placementOf, type View } from './view';

export interface Coordinates {
  readonly raster: RasterSource;
  /** From the raster's pixels to the screen. */
  readonly placement: Transform;
  /** Screen pixels for one of the raster. */
  readonly scale: number;
  toScreen(original: Point): Point;
  toRaster(screen: Point): Point;
  /** Held within the picture. */
  toOriginal(screen: Point): Point;
  originalOf(rasterPoint: Point): Point;
}

export function coordinatesOf(picture: Picture, raster: RasterSource, view: View): Coordinates {
  const placement = placementOf(view, raster);
  const back = inverse(placement);
  const onRaster = fromOriginal(raster);
  const originalOf = (p: Point): Point => {
    const { x, y } = raster.toOriginal ? project(raster.toOriginal, p) : p;
    return { x: Math.min(picture.widthPx, Math.max(0, x)), y: Math.min(picture.heightPx, Math.max(0, y)) };
  };
  return {
    raster,
    placement,
    scale: Math.sqrt(Math.abs(placement.a * placement.d - placement.b * placement.c)),
    toScreen: (p) => apply(placement, onRaster ? project(onRaster, p) : p),
    toRaster: (p) => apply(back, p),
    toOriginal: (p) => originalOf(apply(back, p)),
    originalOf,
  };
}
