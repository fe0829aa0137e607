'use client';
/** All formers side by side, from the nose aft, each with its number: what is cut, the smaller face, and the hollow. */
import Box from '@mui/material/Box';
import type { FoamPlan } from '@nuvet/core/foam';
import { chordsOf, type Path, pathBox } from '@nuvet/core/plane';
import { useMemo } from 'react';
import { useMaking } from '@/table/making-store';
import { colours } from '@/ui/colours';
import { words } from '@/words';

const chordMm = 0.4;
const asText = (path: Path, x: number, y: number): string => `M${chordsOf(path, chordMm).map((p) => `${(p.x + x).toFixed(1)} ${(y - p.y).toFixed(1)}`).join('L')}Z`; // biome-ignore format: one line

export default function FormerSheet() {
  const plan = useMaking((s) => s.planned)?.plan as FoamPlan | undefined;
  const laid = useMemo(() => (plan ? laidOut(plan) : null), [plan]);
  return (
    <Box role="img" aria-label={words.foam.formersInView} sx={{ overflow: 'auto', bgcolor: colours.ground, p: 3 }}>
      {laid && (
        <svg viewBox={`0 0 ${laid.width} ${laid.height}`} width="100%" aria-hidden style={{ display: 'block', maxHeight: '100%' }}>
          {laid.cells.map(({ number, x, y, outline, inner, marked, size }) => (
            <g key={number}>
              <path d={outline + inner} fillRule="evenodd" fill={colours.sheet} stroke={colours.verdigris} strokeWidth={size / 90} />
              {marked && (
                <path
                  d={marked}
                  fill="none"
                  stroke={colours.quietInk}
                  strokeWidth={size / 130}
                  strokeDasharray={`${size / 25} ${size / 40}`}
                />
              )}
              <text x={x} y={y} fontSize={size / 9} textAnchor="middle" fill={colours.ink}>
                {number}
              </text>
            </g>
          ))}
        </svg>
      )}
    </Box>
  );
}

/** Formers in rows, as near to the shape of the window as they come. */
function laidOut({ slices, widthMm, heightMm }: FoamPlan) {
  const [wide, high] = [1.15 * widthMm, 1.3 * heightMm];
  const columns = Math.max(1, Math.min(slices.length, Math.ceil(Math.sqrt((slices.length * high * 1.35) / wide))));
  const rows = Math.ceil(slices.length / columns);
  const size = Math.min(wide, high);
  const cells = slices.map(({ number, outline, holes, marked }, k) => {
    const [column, row] = [k % columns, Math.floor(k / columns)];
    const box = pathBox(outline);
    const [x, foot] = [(column + 0.5) * wide, (row + 0.86) * high];
    const path = (one: Path): string => asText(one, x - (box.minX + box.maxX) / 2, foot);
    return {
      number,
      x,
      y: foot + 0.11 * high,
      outline: path(outline),
      inner: holes.map(path).join(''),
      marked: marked && path(marked),
      size,
    };
  });
  return { cells, width: columns * wide, height: rows * high };
}
