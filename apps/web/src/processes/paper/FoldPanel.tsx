'use client';
/**
 * The die line folded up: an angle for all creases and one for each, what runs into what, and the bleed for the printer.
 */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Slider from '@mui/material/Slider';
import Typography from '@mui/material/Typography';
import { collisions, foldedPanels, foldTree, panelsOf } from '@nuvet/core/folding';
import { printBoth } from '@nuvet/core/length';
import type { Tiling } from '@nuvet/core/make';
import type { PaperSettings } from '@nuvet/core/processes';
import { useMemo } from 'react';
import { useJob } from '@/job/job-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import type { PanelProps } from '../process-view';
import { setFold, useFold } from './fold-store';

const degrees = (angle: number): number => Math.round((angle * 180) / Math.PI);

export function FoldPanel({ open: { settings, set }, pieces }: PanelProps<PaperSettings, Tiling>) {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const { own, all } = useFold();
  const panels = useMemo(() => panelsOf(pieces), [pieces]);
  const tree = useMemo(() => foldTree(panels), [panels]);
  const angles = panels.hinges.map((_, k) => own[k] ?? all);
  const found = useMemo(() => collisions(panels, foldedPanels(panels, tree, panels.hinges.map((_, k) => -(own[k] ?? all)))), [panels, tree, own, all]); // biome-ignore format: one line
  if (panels.hinges.length === 0)
    return (
      <Alert severity="info" variant="outlined">
        {words.makeReady.nothingToFold}
      </Alert>
    );
  return (
    <>
      <Section title={words.makeReady.folded}>
        <Reading name={words.makeReady.panels}>{panels.panels.length}</Reading>
        <Reading name={words.makeReady.creases}>{panels.hinges.length}</Reading>
        <FoldSlider label={words.makeReady.allCreases} angle={all} onAngle={(angle) => setFold({ all: angle, own: {} })} />
        {found.length > 0 ? (
          <Alert severity="warning" variant="outlined">
            {found
              .slice(0, 3)
              .map(([a, b]) => words.makeReady.collidesWith(panels.panels[a]?.name, panels.panels[b]?.name))
              .join(' ')}
            {found.length > 3 ? words.makeReady.andMore(found.length - 3) : ''}
          </Alert>
        ) : (
          <Typography variant="caption" color="textSecondary">
            {words.makeReady.noPanelCollidesWithAnother}
          </Typography>
        )}
      </Section>
      <Section title={words.makeReady.creaseByCrease}>
        {panels.hinges.map((hinge, k) => (
          <FoldSlider
            key={`${hinge.left} ${hinge.right} ${hinge.from.x}`}
            label={words.makeReady.creaseBetween(
              panels.panels[hinge.left]?.name,
              panels.panels[hinge.right]?.name,
              printBoth(Math.hypot(hinge.to.x - hinge.from.x, hinge.to.y - hinge.from.y), job.unit),
            )}
            angle={angles[k] as number}
            onAngle={(angle) => setFold((s) => ({ own: { ...s.own, [k]: angle } }))}
          />
        ))}
      </Section>
      <Section title={words.makeReady.boardAndBleed}>
        <Box sx={{ display: 'grid', gap: 1, mt: 1 }}>
          <Row>
            <NumberField
              label={words.makeReady.allowancePerCreaseThickness}
              value={job.proof.creaseAllowance}
              digits={2}
              unit={words.makeReady.thicknesses}
              least={0}
              most={3}
              onNumber={(n) => run({ do: 'prove-by', change: { creaseAllowance: n } })}
            />
            <Measure
              label={words.makeReady.bleed}
              mm={settings.bleedMm}
              unit={job.unit}
              range="from zero"
              onMm={(v) => set({ bleedMm: v })}
            />
          </Row>
          <Typography variant="caption" color="textSecondary">
            {words.makeReady.bleedIsAFile}
          </Typography>
        </Box>
      </Section>
    </>
  );
}

function FoldSlider({ label, angle, onAngle }: { label: string; angle: number; onAngle: (angle: number) => void }) {
  return (
    <Box sx={{ px: 0.5 }}>
      <Box sx={{ display: 'flex', justifyContent: 'space-between' }}>
        <Typography variant="caption">{label}</Typography>
        <Typography variant="caption" sx={{ fontWeight: 600 }}>
          {degrees(angle)}°
        </Typography>
      </Box>
      <Slider
        size="small"
        min={-180}
        max={180}
        step={1}
        value={degrees(angle)}
        aria-label={label}
        onChange={(_, value) => onAngle(((value as number) * Math.PI) / 180)}
      />
    </Box>
  );
}
