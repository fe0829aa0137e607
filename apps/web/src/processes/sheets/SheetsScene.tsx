'use client';
/** Parts on their sheets, one sheet below another, and what is left of each. */
import Box from '@mui/material/Box';
import { chordsOf, type Path, pathBox } from '@nuvet/core/plane';
import type { LaidSheet } from '@nuvet/core/processes';
import { useMemo } from 'react';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { useSheets } from './sheets-store';

const say = words.sheets;
const chordMm = 0.5;
const between = 0.07;

export default function SheetsScene() {
  const laid = useSheets((s) => s.laid);
  const seen = useMemo(() => (laid && laid.sheets.length > 0 ? seenOf(laid.sheets) : null), [laid]);
  return (
    <Box role="img" aria-label={say.inView} sx={{ overflow: 'auto', bgcolor: colours.ground, p: 3 }}>
      {seen && (
        <svg viewBox={`0 0 ${seen.width} ${seen.height}`} width="100%" aria-hidden style={{ display: 'block', maxHeight: '100%' }}>
          <defs>
            <pattern id="leftover" width={8 * seen.line} height={8 * seen.line} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <line x1="0" y1="0" x2="0" y2={8 * seen.line} stroke={colours.brass} strokeWidth={seen.line} opacity={0.55} />
            </pattern>
          </defs>
          {seen.sheets.map(({ number, x, y, title, outline, leftovers, parts }) => (
            <g key={number}>
              <text x={x} y={y - 6 * seen.line} fontSize={13 * seen.line} fill={colours.quietInk}>
                {title}
              </text>
              <path d={outline} fill={colours.sheet} stroke={colours.quietInk} strokeWidth={seen.line} />
              <path d={leftovers} fill="url(#leftover)" stroke={colours.brass} strokeWidth={seen.line} />
              {parts.map((part) => (
                <g key={part.key}>
                  <path d={part.path} fill={colours.paleVerdigris} fillRule="evenodd" stroke={colours.verdigris} strokeWidth={seen.line} />
                  <text
                    x={part.x}
                    y={part.y}
                    fontSize={part.size}
                    textAnchor="middle"
                    dominantBaseline="central"
                    fill={colours.ink}
                    stroke={colours.sheet}
                    strokeWidth={part.size / 4}
                    paintOrder="stroke"
                  >
                    {part.name}
                  </text>
                </g>
              ))}
            </g>
          ))}
        </svg>
      )}
    </Box>
  );
}

/** Sheets in as many columns as fill the window best, each with its number above it. */
function seenOf(sheets: readonly LaidSheet[]) {
  const boxes = sheets.map(({ outline }) => pathBox(outline));
  const [wide, high] = [Math.max(...boxes.map(({ maxX }) => maxX)), Math.max(...boxes.map(({ maxY }) => maxY))];
  const [cellWide, cellHigh] = [wide * (1 + between), high * (1 + between) + 0.05 * wide];
  const columns = Math.max(1, Math.min(sheets.length, Math.round(Math.sqrt((sheets.length * cellHigh * 1.35) / cellWide))));
  const rows = Math.ceil(sheets.length / columns);
  const line = Math.max((columns * cellWide) / 900, (rows * cellHigh) / 640);
  return {
    width: columns * cellWide,
    height: rows * cellHigh,
    line,
    sheets: sheets.map(({ outline, parts, leftovers, layers }, k) => {
      const [column, row] = [k % columns, Math.floor(k / columns)];
      const x = column * cellWide + (between / 2) * wide;
      const foot = row * cellHigh + cellHigh - (between / 2) * high;
      const text = (path: Path): string => `M${chordsOf(path, chordMm).map((p) => `${(p.x + x).toFixed(1)} ${(foot - p.y).toFixed(1)}`).join('L')}Z`; // biome-ignore format: one line
      return {
        number: k + 1,
        x,
        y: foot - (boxes[k]?.maxY ?? 0),
        title: say.sheetTitle(k + 1, layers),
        outline: text(outline),
        leftovers: leftovers.map(text).join(''),
        parts: parts.map(({ name, outer, holes }, n) => {
          const { minX, maxX, minY, maxY } = pathBox(outer);
          const size = Math.min(14 * line, 0.4 * Math.min(maxX - minX, maxY - minY));
          return { key: n, name, path: [outer, ...holes].map(text).join(''), x: x + (minX + maxX) / 2, y: foot - (minY + maxY) / 2, size };
        }),
      };
    }),
  };
}
