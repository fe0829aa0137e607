'use client';
/**
 * Where a picture lies on the screen: from the pixels of the original to the screen and back, through whatever surface
 * is shown of it.
 */
import { fromOriginal, type Picture, type Surface } from '@nuvet/core/job';
import { apply, inverse, type Point, project, type Transform } from '@nuvet/core/plane';
import { placementOf, type View } from './view';

export interface Ground {
  readonly surface: Surface;
  /** From the surface's pixels to the screen. */
  readonly placement: Transform;
  /** Screen pixels for one of the surface. */
  readonly scale: number;
  toScreen(original: Point): Point;
  toSurface(screen: Point): Point;
  /** Held within the picture. */
  toOriginal(screen: Point): Point;
  originalOf(surfacePoint: Point): Point;
}

export function groundOf(picture: Picture, surface: Surface, view: View): Ground {
  const placement = placementOf(view, surface);
  const back = inverse(placement);
  const onSurface = fromOriginal(surface);
  const originalOf = (p: Point): Point => {
    const { x, y } = surface.toOriginal ? project(surface.toOriginal, p) : p;
    return { x: Math.min(picture.widthPx, Math.max(0, x)), y: Math.min(picture.heightPx, Math.max(0, y)) };
  };
  return {
    surface,
    placement,
    scale: Math.sqrt(Math.abs(placement.a * placement.d - placement.b * placement.c)),
    toScreen: (p) => apply(placement, onSurface ? project(onSurface, p) : p),
    toSurface: (p) => apply(back, p),
    toOriginal: (p) => originalOf(apply(back, p)),
    originalOf,
  };
}
