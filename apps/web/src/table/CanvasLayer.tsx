'use client';
/**
 * A canvas over the whole table, as sharp as the screen; it is drawn in the next frame after what it shows has changed.
 */
import { type CSSProperties, type RefObject, useLayoutEffect, useRef } from 'react';
import type { Size } from './view';

interface CanvasLayerProps {
  /** In screen pixels. The same function draws the same: it is not called again. */
  readonly draw: (canvas: CanvasRenderingContext2D) => void;
  readonly screen: Size;
  readonly style?: CSSProperties;
  /** Draws again what has not changed, as where what it shows lies outside React. */
  readonly redraw?: RefObject<(() => void) | null>;
}

export function CanvasLayer({ draw, screen: { width, height }, style, redraw }: CanvasLayerProps) {
  const element = useRef<HTMLCanvasElement>(null);
  useLayoutEffect(() => {
    let frame = 0;
    const paint = () => {
      frame = 0;
      const canvas = element.current;
      const context = canvas?.getContext('2d');
      if (!canvas || !context) return;
      const ratio = window.devicePixelRatio;
      const [wide, high] = [Math.round(width * ratio), Math.round(height * ratio)];
      // Set anew only where it differs: that alone clears a canvas, and takes its time.
      if (canvas.width !== wide || canvas.height !== high) Object.assign(canvas, { width: wide, height: high });
      context.setTransform(ratio, 0, 0, ratio, 0, 0);
      context.clearRect(0, 0, width, height);
      draw(context);
    };
    const ask = () => {
      frame ||= requestAnimationFrame(paint);
    };
    ask();
    if (redraw) redraw.current = ask;
    return () => cancelAnimationFrame(frame);
  }, [draw, width, height, redraw]);
  return <canvas ref={element} style={{ position: 'absolute', inset: 0, width, height, pointerEvents: 'none', ...style }} />;
}
