'use client';
/** A seam allowance of its own for single sides of a template: the template is drawn, a side is clicked on, its allowance typed. */
import Box from '@mui/material/Box';
import { chordsOf, pathBox, pathLength, stepsOf } from '@nuvet/core/plane';
import { type QuiltingSettings, type QuiltPlan, sideName, sidePaths } from '@nuvet/core/quilting';
import { useState } from 'react';
import { colours } from '@/ui/colours';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';

const say = words.quilting;
const chordMm = 0.3;
const heightPx = 150;

interface Props {
  readonly plan: QuiltPlan;
  readonly settings: QuiltingSettings;
  readonly set: (change: Partial<QuiltingSettings>) => void;
  readonly unit: 'mm' | 'in';
}

export function EdgeAllowances({ plan: { templates }, settings, set, unit }: Props) {
  const [chosen, setChosen] = useState({ template: '', side: 0 });
  const template = templates.find(({ shape }) => shape.name === chosen.template) ?? templates[0];
  if (!template) return null;
  const { name, outline } = template.shape;
  const sides = sidePaths(outline);
  const side = Math.min(chosen.side, sides.length - 1);
  const { edgeAllowances, allowanceMm } = settings;
  const key = sideName(name, side);
  const { [key]: own, ...others } = edgeAllowances;
  const box = pathBox(template.cutting);
  const scale = (box.maxY - box.minY) / heightPx;
  const points = (path: Parameters<typeof chordsOf>[0]): string => chordsOf(path, chordMm).map(({ x, y }) => `${x.toFixed(2)},${(-y).toFixed(2)}`).join(' '); // biome-ignore format: one line
  return (
    <Section title={say.edgeAllowances}>
      <Row>
        <Pick
          label={say.template}
          value={name}
          words={Object.fromEntries(templates.map(({ shape }) => [shape.name, shape.name]))}
          onPick={(word) => setChosen({ template: word, side: 0 })}
        />
        <Pick
          label={say.side}
          value={String(side)}
          words={Object.fromEntries(sides.map((path, k) => [String(k), say.sideOf(k + 1, pathLength(path), unit)]))}
          onPick={(word) => setChosen({ template: name, side: Number(word) })}
        />
      </Row>
      <Box sx={{ my: 1 }}>
        <svg
          role="img"
          aria-label={say.templateInView(name)}
          height={heightPx}
          width="100%"
          viewBox={`${box.minX - 6 * scale} ${-box.maxY - 6 * scale} ${box.maxX - box.minX + 12 * scale} ${box.maxY - box.minY + 12 * scale}`}
        >
          <polygon points={points(template.cutting)} fill={colours.sheet} stroke={colours.ink} strokeWidth={1.2 * scale} />
          {sides.map((path, k) => {
            const { x, y } = stepsOf(path)[Math.floor(path.segments.length / 2)]?.from ?? path.start;
            return (
              // biome-ignore lint/a11y/noStaticElementInteractions: the field above chooses a side from the keyboard
              <polyline
                key={`${x} ${y}`}
                points={points(path)}
                fill="none"
                stroke={k === side ? colours.verdigris : colours.quietInk}
                strokeWidth={(k === side ? 4 : 2) * scale}
                strokeDasharray={k === side ? undefined : `${6 * scale} ${4 * scale}`}
                style={{ cursor: 'pointer' }}
                onClick={() => setChosen({ template: name, side: k })}
              />
            );
          })}
        </svg>
      </Box>
      <Measure
        label={say.sideAllowance(name, side + 1)}
        mm={own ?? null}
        unit={unit}
        range="from zero"
        placeholder={say.likeTheOthers(allowanceMm, unit)}
        onEmpty={() => set({ edgeAllowances: others })}
        most={100}
        onMm={(mm) => set({ edgeAllowances: { ...edgeAllowances, [key]: mm } })}
      />
    </Section>
  );
}
