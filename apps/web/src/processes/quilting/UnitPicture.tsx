'use client';
/** A unit of a block as it looks once it is sewn: its patches in their fabrics, the last seam marked. */
import { boxAroundBoxes, type Path, type Point, pathBox, polygonOf } from '@nuvet/core/plane';
import type { QuiltingSettings, QuiltPlan, Unit } from '@nuvet/core/quilting';
import { useMemo } from 'react';
import { colours } from '@/ui/colours';

/** Curves are drawn in chords as fine as this, mm. */
const chordMm = 0.3;

const asText = (points: readonly Point[]): string => points.map(({ x, y }) => `${x.toFixed(2)},${(-y).toFixed(2)}`).join(' ');

export function UnitPicture({
  plan,
  unit,
  settings,
  name,
  sizePx,
}: {
  plan: QuiltPlan;
  unit: Unit;
  settings: QuiltingSettings;
  name: string;
  sizePx: number;
}) {
  const { map } = plan.block;
  const fabricOf = useMemo(() => new Map(plan.sets.flatMap(({ faces, fabric }) => faces.map((face) => [face, fabric] as const))), [plan]);
  const outers = unit.faces.map((face) => ({ face, outer: map.faces[face]?.outer as Path }));
  const box = boxAroundBoxes(outers.map(({ outer }) => pathBox(outer)));
  if (!box) return null;
  const [w, h] = [box.maxX - box.minX, box.maxY - box.minY];
  const rim = 0.03 * Math.max(w, h);
  const px = Math.max(w, h) / sizePx;
  return (
    <svg
      role="img"
      aria-label={name}
      width={sizePx}
      height={sizePx}
      viewBox={`${box.minX - rim} ${-box.maxY - rim} ${w + 2 * rim} ${h + 2 * rim}`}
      style={{ display: 'block' }}
    >
      {outers.map(({ face, outer }) => (
        <polygon
          key={face}
          points={asText(polygonOf(outer, chordMm))}
          fill={settings.fabrics[fabricOf.get(face) ?? 0]?.colour}
          stroke={colours.ink}
          strokeWidth={0.8 * px}
          strokeLinejoin="round"
        />
      ))}
      {unit.seam?.edges.map((edge) => {
        const { from, segment } = map.edges[edge] as (typeof map.edges)[0];
        return (
          <polyline
            key={edge}
            points={asText(polygonOf({ start: map.nodes[from] as Point, segments: [segment], closed: false }, chordMm))}
            fill="none"
            stroke={colours.madder}
            strokeWidth={2 * px}
          />
        );
      })}
    </svg>
  );
}
