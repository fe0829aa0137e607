'use client';
/**
 * A round glass beside the pointer: the picture at full resolution around the point that a click would take.
 */
import Box from '@mui/material/Box';
import { chain, type Point, shift, stretch } from '@nuvet/core/plane';
import { useEffect, useRef } from 'react';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import type { Coordinates } from './coordinates';
import type { PictureTiles } from './picture-tiles';
import type { Size } from './view';

const sizePx = 168;

interface Props {
  readonly tiles: PictureTiles;
  readonly coordinates: Coordinates;
  readonly at: Point;
  readonly screen: Size;
}

export function Magnifier({ tiles, coordinates, at, screen }: Props) {
  const { placement } = coordinates;
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const draw = () => {
      const context = canvas.current?.getContext('2d');
      if (!context) return;
      const ratio = window.devicePixelRatio;
      const scale = Math.hypot(placement.a, placement.b);
      // Six screen pixels a picture pixel, or three times the table where that is nearer.
      const grow = Math.max(6, 3 * scale) / scale;
      const middle = sizePx / 2;
      const glass = chain(shift(middle, middle), chain(stretch(grow), chain(shift(-at.x, -at.y), placement)));
      context.setTransform(ratio, 0, 0, ratio, 0, 0);
      context.fillStyle = colours.ground;
      context.fillRect(0, 0, sizePx, sizePx);
      tiles.draw(context, glass, { width: sizePx, height: sizePx }, ratio);
      context.strokeStyle = colours.madder;
      context.lineWidth = 1;
      context.beginPath();
      for (const [x, y] of [
        [1, 0],
        [-1, 0],
        [0, 1],
        [0, -1],
      ] as const) {
        context.moveTo(middle + x * 5, middle + y * 5);
        context.lineTo(middle + x * 30, middle + y * 30);
      }
      context.stroke();
    };
    draw();
    return tiles.onTile(draw);
  }, [tiles, placement, at]);
  const picturePoint = coordinates.toOriginal(at);
  const isRight = at.x + 40 + sizePx > screen.width;
  const isLow = at.y + 40 + sizePx > screen.height;
  return (
    <Box
      aria-hidden
      sx={{
        position: 'absolute',
        left: isRight ? at.x - sizePx - 28 : at.x + 28,
        top: isLow ? at.y - sizePx - 28 : at.y + 28,
        width: sizePx,
        height: sizePx,
        borderRadius: '50%',
        overflow: 'hidden',
        border: `3px solid ${colours.sheet}`,
        boxShadow: '0 4px 18px rgba(40, 30, 10, 0.35)',
        pointerEvents: 'none',
      }}
    >
      <canvas
        ref={canvas}
        width={sizePx * (globalThis.devicePixelRatio ?? 1)}
        height={sizePx * (globalThis.devicePixelRatio ?? 1)}
        style={{ width: sizePx, height: sizePx }}
      />
      <Box
        sx={{
          position: 'absolute',
          bottom: 12,
          left: '50%',
          transform: 'translateX(-50%)',
          px: 1,
          borderRadius: 1,
          fontSize: 11.5,
          whiteSpace: 'nowrap',
          color: colours.ink,
          bgcolor: 'rgba(255, 253, 248, 0.9)',
        }}
      >
        {words.table.magnifiedPlace(picturePoint.x.toFixed(1), picturePoint.y.toFixed(1))}
      </Box>
    </Box>
  );
}
