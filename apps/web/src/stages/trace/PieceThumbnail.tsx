/**
 * A piece as a small drawing, for its row in the list: filled, in the colour that it was traced from where there is one.
 */
import type { Piece } from '@nuvet/core/job';
import { heightOf, pathBox, polygonOf, widthOf } from '@nuvet/core/plane';
import { memo } from 'react';
import { colours } from '@/ui/theme';

const side = 22;
const margin = 1.5;

export const PieceThumbnail = memo(function PieceThumbnail({ piece }: { piece: Piece }) {
  const { outer, holes, colour } = piece;
  const box = pathBox(outer);
  const scale = (side - 2 * margin) / Math.max(widthOf(box), heightOf(box), 1e-6);
  const [left, top] = [(side - scale * widthOf(box)) / 2, (side - scale * heightOf(box)) / 2];
  const line = [outer, ...holes]
    .map((path) => {
      const points = polygonOf(path, 0.25 / scale).map(
        ({ x, y }) => `${(left + scale * (x - box.minX)).toFixed(1)} ${(top + scale * (box.maxY - y)).toFixed(1)}`,
      );
      return `M${points.join('L')}${path.closed ? 'Z' : ''}`;
    })
    .join('');
  return (
    <svg
      width={side}
      height={side}
      viewBox={`0 0 ${side} ${side}`}
      aria-hidden="true"
      style={{ verticalAlign: 'middle', marginRight: 8, opacity: piece.leftOut ? 0.4 : 1 }}
    >
      <path
        d={line}
        fill={outer.closed ? (colour ?? 'rgba(30, 123, 107, 0.22)') : 'none'}
        fillRule="evenodd"
        stroke={colour ? colours.ink : colours.verdigris}
        strokeWidth={colour ? 0.5 : 1}
      />
    </svg>
  );
});
