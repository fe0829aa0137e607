'use client';
/**
 * How a laser cuts: kerf, leads, tabs, lines that fill areas, power and speed; with how far and how long it is.
 */
import Box from '@mui/material/Box';
import type { CutPlan } from '@nuvet/core/make';
import type { LaserSettings } from '@nuvet/core/processes';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { HatchSection, LeadFields, OvercutAndTabs, PerforationSection, PlanSection, PowerSection } from '../cut/cut-sections';
import { KerfFields } from '../cut/KerfFields';
import { KerfGauge } from '../cut/KerfGauge';
import type { PanelProps } from '../process-view';

export function LaserPanel({ open, pieces }: PanelProps<LaserSettings, CutPlan>) {
  const { settings, set, kind } = open;
  const has = (purpose: string): boolean => pieces.some((p) => p.purpose === purpose);
  return (
    <>
      <PlanSection open={open} kerfMm={settings.kerfMm} />
      <Section title={words.makeReady.kerf}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <KerfFields word={words.makeReady.kerf} settings={settings} onSettings={set} />
          <KerfGauge open={open} />
        </Box>
      </Section>
      <Section title={words.makeReady.leadsAndTabs}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <LeadFields cutting={settings} onCutting={set} />
          <OvercutAndTabs cutting={settings} onCutting={set} />
        </Box>
      </Section>
      {has('perforate') && <PerforationSection cutting={settings} onCutting={set} />}
      {has('pocket') && <HatchSection cutting={settings} onCutting={set} />}
      <PowerSection
        title={words.makeReady.powerAndSpeed}
        powerWord={words.makeReady.power}
        pieces={pieces}
        kind={kind}
        cutting={settings}
        onCutting={set}
      />
    </>
  );
}
