'use client';
/** How thin is thin enough: the largest step to sand by the number of slices, with today's stock on it; a click takes a number. */
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { FoamPlan, FoamSettings, SliceCount } from '@nuvet/core/foam';
import { printBoth } from '@nuvet/core/length';
import { scaleLinear, scaleLog } from 'd3-scale';
import { line } from 'd3-shape';
import { useState } from 'react';
import { colours } from '@/ui/colours';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import type { OpenProcess } from '../process-view';

const say = words.foam;
const [width, height] = [308, 150];
const inset = { left: 34, right: 34, top: 22, bottom: 28 };

export function SliceChart({ open: { set, plan }, unit }: { open: OpenProcess<FoamSettings, FoamPlan>; unit: 'mm' | 'in' }) {
  const [over, setOver] = useState<SliceCount | null>(null);
  if (!plan || plan.counts.length < 2) return null;
  const { counts, bodyMm3, slices, largestStepMm } = plan;
  const [first, last] = [counts[0], counts.at(-1)] as [SliceCount, SliceCount];
  const x = scaleLog([first.slices, last.slices], [inset.left, width - inset.right]);
  const y = scaleLinear([0, Math.max(first.stepMm, largestStepMm)], [height - inset.bottom, inset.top]).nice(4);
  const foam = scaleLinear(
    [0, Math.max(...counts.map(({ foamMm3 }) => foamMm3 / bodyMm3 - 1), 0.01)],
    [height - inset.bottom, inset.top],
  ).nice(4);
  const step = line<SliceCount>().x((one) => x(one.slices)).y((one) => y(one.stepMm))(counts); // biome-ignore format: one line
  const waste = line<SliceCount>().x((one) => x(one.slices)).y((one) => foam(one.foamMm3 / bodyMm3 - 1))(counts); // biome-ignore format: one line
  const now = Math.max(first.slices, Math.min(last.slices, slices.length));
  const take = ({ thicknessMm }: SliceCount) => set({ boards: [{ thicknessMm: Math.round(thicknessMm * 100) / 100, count: null }] });
  const shown = over ?? { slices: slices.length, thicknessMm: slices[0]?.thicknessMm ?? 0, stepMm: largestStepMm };
  return (
    <Section title={say.thinEnough}>
      <Typography variant="caption" color="textSecondary" sx={{ display: 'block' }}>
        {say.thinEnoughAbout}
      </Typography>
      <Box sx={{ my: 0.5 }}>
        {/* biome-ignore lint/a11y/useSemanticElements: a chart is no field set */}
        <svg role="group" aria-label={say.chartInView} width="100%" viewBox={`0 0 ${width} ${height}`} style={{ display: 'block' }}>
          {y.ticks(4).map((tick) => (
            <g key={tick}>
              <line x1={inset.left} x2={width - inset.right} y1={y(tick)} y2={y(tick)} stroke={colours.line} />
              <text x={inset.left - 4} y={y(tick) + 3.5} fontSize={10} textAnchor="end" fill={colours.quietInk}>
                {tick}
              </text>
            </g>
          ))}
          {foam.ticks(3).map((tick) => (
            <text key={tick} x={width - inset.right + 4} y={foam(tick) + 3.5} fontSize={10} fill={colours.brass}>
              {`+${Math.round(100 * tick)}%`}
            </text>
          ))}
          {counts
            .filter((_, k) => k % 3 === 0)
            .map((one) => (
              <text key={one.slices} x={x(one.slices)} y={height - 14} fontSize={10} textAnchor="middle" fill={colours.quietInk}>
                {one.slices}
              </text>
            ))}
          <text x={width / 2} y={height - 2} fontSize={10} textAnchor="middle" fill={colours.quietInk}>
            {say.slicesAxis}
          </text>
          <text x={2} y={9} fontSize={10} fill={colours.quietInk}>
            {say.stepAxis}
          </text>
          <path d={waste ?? ''} fill="none" stroke={colours.brass} strokeWidth={1.5} strokeDasharray="5 3" />
          <path d={step ?? ''} fill="none" stroke={colours.verdigris} strokeWidth={2} />
          <line x1={x(now)} x2={x(now)} y1={inset.top} y2={height - inset.bottom} stroke={colours.ink} strokeDasharray="2 3" />
          <text x={x(now) + 4} y={inset.top + 10} fontSize={10} fill={colours.ink}>
            {say.now}
          </text>
          {counts.map((one) => (
            // biome-ignore lint/a11y/useSemanticElements: a point of a chart is no HTML button
            <circle
              key={one.slices}
              role="button"
              tabIndex={0}
              aria-label={say.slicesOf(one.slices, printBoth(one.thicknessMm, unit), printBoth(one.stepMm, unit))}
              cx={x(one.slices)}
              cy={y(one.stepMm)}
              r={over === one ? 6 : 4}
              fill={colours.sheet}
              stroke={colours.verdigris}
              strokeWidth={2}
              style={{ cursor: 'pointer' }}
              onPointerEnter={() => setOver(one)}
              onPointerLeave={() => setOver(null)}
              onFocus={() => setOver(one)}
              onBlur={() => setOver(null)}
              onClick={() => take(one)}
              onKeyDown={(event) => event.key === 'Enter' && take(one)}
            />
          ))}
        </svg>
      </Box>
      <Typography variant="body2">
        {say.slicesOf(shown.slices, printBoth(shown.thicknessMm, unit), printBoth(shown.stepMm, unit))}
      </Typography>
      <Typography variant="caption" sx={{ color: colours.brass }}>
        {say.foamOver}
      </Typography>
    </Section>
  );
}
