'use client';
/**
 * How a knife cuts: overcut, tabs, perforation, pressure and speed; with how far and how long it is.
 */
import Box from '@mui/material/Box';
import type { CutPlan } from '@nuvet/core/make';
import type { KnifeSettings } from '@nuvet/core/processes';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { OvercutAndTabs, PerforationSection, PlanSection, PowerSection } from '../cut/cut-sections';
import type { PanelProps } from '../process-view';

export function KnifePanel({ open, pieces }: PanelProps<KnifeSettings, CutPlan>) {
  const { settings, set, kind } = open;
  return (
    <>
      <PlanSection open={open} kerfMm={null} />
      <Section title={words.makeReady.overcutAndTabs}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <OvercutAndTabs cutting={settings} onCutting={set} />
        </Box>
      </Section>
      {pieces.some((p) => p.purpose === 'perforate') && <PerforationSection cutting={settings} onCutting={set} />}
      <PowerSection
        title={words.makeReady.pressureAndSpeed}
        powerWord={words.makeReady.pressure}
        pieces={pieces}
        kind={kind}
        cutting={settings}
        onCutting={set}
      />
    </>
  );
}
