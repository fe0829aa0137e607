'use client';
/**
 * One picture on the light table: its tiles in their place, cropped, as opaque and in the tone that is wished.
 */
import type { Picture, Surface, Tone } from '@nuvet/core/job';
import type Konva from 'konva';
import { useLayoutEffect, useMemo, useRef } from 'react';
import { Layer, Shape } from 'react-konva';
import { groundOf } from './ground';
import type { PictureTiles } from './picture-tiles';
import { placementOf } from './view';

/** The canvas that a shape is drawn on. */
export const nativeOf = (context: Konva.Context): CanvasRenderingContext2D =>
  (context as unknown as { _context: CanvasRenderingContext2D })._context;

interface PictureLayerProps {
  readonly tiles: PictureTiles;
  readonly tick: number;
  readonly surface: Surface;
  readonly view: { scale: number; x: number; y: number };
  readonly picture: Picture;
  readonly screen: { width: number; height: number };
  /** While a crop is drawn, what lies outside the old one is shown too. */
  readonly showsAll: boolean;
  readonly opacity: number;
  /** Right of this, screen pixels, the picture is not shown. */
  readonly splitAt: number | null;
}

/** A layer whose whole canvas is as opaque as the picture, so that overlapping tiles do not show; its tone is the canvas's. */
export function PictureLayer({ tiles, tick, surface, view, picture, screen, showsAll, opacity, splitAt }: PictureLayerProps) {
  const layer = useRef<Konva.Layer>(null);
  useLayoutEffect(() => {
    const element = layer.current?.getNativeCanvasElement();
    if (!element) return;
    element.style.opacity = String(opacity);
    element.style.filter = toneFilter(picture.tone);
    element.style.clipPath = splitAt === null ? '' : `inset(0 ${Math.max(0, screen.width - splitAt)}px 0 0)`;
  });
  // biome-ignore lint/correctness/useExhaustiveDependencies: the tick tells that a tile has come in
  const shape = useMemo(() => {
    const placement = placementOf(view, surface);
    const crop = showsAll ? null : picture.crop;
    const ground = groundOf(picture, surface, view);
    return (
      <Shape
        sceneFunc={(context) => {
          const canvas = nativeOf(context);
          canvas.save();
          if (crop) {
            canvas.beginPath();
            crop.forEach((p, k) => {
              const q = ground.toScreen(p);
              if (k === 0) canvas.moveTo(q.x, q.y);
              else canvas.lineTo(q.x, q.y);
            });
            canvas.closePath();
            canvas.clip();
          }
          tiles.draw(canvas, placement, screen, window.devicePixelRatio);
          canvas.restore();
        }}
      />
    );
  }, [tiles, tick, surface, view, picture, screen, showsAll]);
  return (
    <Layer ref={layer} listening={false}>
      {shape}
    </Layer>
  );
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
