'use client';
/** The block, small, in some fabrics. */
import { type Path, type Point, polygonOf } from '@nuvet/core/plane';
import type { QuiltingSettings, QuiltPlan } from '@nuvet/core/quilting';
import { colours } from '@/ui/colours';

type Props = Pick<QuiltingSettings, 'fabrics' | 'fabricOf'> & { readonly plan: QuiltPlan; readonly sizePx: number };

const chordMm = 0.5;
const asText = (points: readonly Point[]): string => points.map(({ x, y }) => `${x.toFixed(1)},${(-y).toFixed(1)}`).join(' ');

export function BlockPicture({ plan: { block, sets }, fabrics, fabricOf, sizePx }: Props) {
  const of = new Map(
    sets.flatMap(({ name, faces }) => {
      // Drawn patches are of the first fabric until somebody says otherwise, those left between of the second.
      const fabric = fabricOf[name] ?? (faces.every((face) => block.isDrawn[face]) ? 0 : 1);
      return faces.map((face) => [face, Math.min(fabric, fabrics.length - 1)] as const);
    }),
  );
  return (
    <svg
      width={sizePx}
      height={(sizePx * block.heightMm) / block.widthMm}
      viewBox={`0 ${-block.heightMm} ${block.widthMm} ${block.heightMm}`}
      style={{ display: 'block' }}
      aria-hidden
    >
      {block.map.faces.map(({ outer }: { outer: Path }, face) => (
        <polygon
          // biome-ignore lint/suspicious/noArrayIndexKey: a face is its number
          key={face}
          points={asText(polygonOf(outer, chordMm))}
          fill={fabrics[of.get(face) ?? 0]?.colour}
          stroke={colours.ink}
          strokeWidth={block.widthMm / 250}
        />
      ))}
    </svg>
  );
}
