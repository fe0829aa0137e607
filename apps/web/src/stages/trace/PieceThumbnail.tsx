/**
 * A piece as a small drawing, for its row in the list: filled, in the colour that it was traced from where there is one.
 */
import type { Piece } from '@nuvet/core/job';
import { pathBox } from '@nuvet/core/plane';
import { memo } from 'react';
import { outlineData, placeIn } from '@/shared/outline-data';
import { colours } from '@/ui/colours';

const side = 22;
const margin = 1.5;

export const PieceThumbnail = memo(function PieceThumbnail({ piece }: { piece: Piece }) {
  const { outer, holes, colour } = piece;
  const box = pathBox(outer);
  const line = outlineData([outer, ...holes], box, placeIn(box, side, side, margin));
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
