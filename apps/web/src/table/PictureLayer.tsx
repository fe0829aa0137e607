'use client';
/**
 * One picture on the light table: its tiles in their place, cropped, as opaque and in the tone that is wished.
 */
import type { Picture, RasterSource, Tone } from '@nuvet/core/job';
import { type CSSProperties, useCallback } from 'react';
import { CanvasLayer } from './CanvasLayer';
import { coordinatesOf } from './coordinates';
import type { PictureTiles } from './picture-tiles';
import { placementOf } from './view';

interface PictureLayerProps {
  readonly tiles: PictureTiles;
  readonly tick: number;
  readonly raster: RasterSource;
  readonly view: { scale: number; x: number; y: number };
  readonly picture: Picture;
  readonly screen: { width: number; height: number };
  /** While a crop is drawn, what lies outside the old one is shown too. */
  readonly showsAll: boolean;
  readonly opacity: number;
  /** Right of this, screen pixels, the picture is not shown. */
  readonly splitAt: number | null;
}

/** A canvas of its own, as opaque as a whole as the picture, so that overlapping tiles do not show; its tone is the canvas's. */
export function PictureLayer({ tiles, tick, raster, view, picture, screen, showsAll, opacity, splitAt }: PictureLayerProps) {
  // biome-ignore lint/correctness/useExhaustiveDependencies: the tick tells that a tile has come in
  const draw = useCallback(
    (canvas: CanvasRenderingContext2D) => {
      const crop = showsAll ? null : picture.crop;
      const coordinates = coordinatesOf(picture, raster, view);
      canvas.save();
      if (crop) {
        canvas.beginPath();
        crop.forEach((p, k) => {
          const q = coordinates.toScreen(p);
          if (k === 0) canvas.moveTo(q.x, q.y);
          else canvas.lineTo(q.x, q.y);
        });
        canvas.closePath();
        canvas.clip();
      }
      tiles.draw(canvas, placementOf(view, raster), screen, window.devicePixelRatio);
      canvas.restore();
    },
    [tiles, tick, raster, view, picture, screen, showsAll],
  );
  const style: CSSProperties = {
    opacity,
    filter: toneFilter(picture.tone),
    ...(splitAt === null ? {} : { clipPath: `inset(0 ${Math.max(0, screen.width - splitAt)}px 0 0)` }),
  };
  return <CanvasLayer draw={draw} screen={screen} style={style} />;
}

/** A tone as a CSS filter: applied to the canvas as it is shown, never to the pixels. */
function toneFilter({ lighten, contrast, invert, singleInk }: Tone): string {
  const parts = [
    singleInk ? 'grayscale(1) contrast(3)' : '',
    invert ? 'invert(1)' : '',
    contrast !== 0 ? `contrast(${contrast > 0 ? 1 + 4 * contrast : 1 + contrast})` : '',
    // Towards white: all greys halved in depth, then lifted.
    lighten > 0 ? `opacity(${1 - 0.9 * lighten})` : '',
  ];
  return parts.filter(Boolean).join(' ') || 'none';
}
