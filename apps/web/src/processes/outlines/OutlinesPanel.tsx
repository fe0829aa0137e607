'use client';
/**
 * What the outlines are set out by for a tool, if at all, and what closes up by that.
 */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { CutPlan } from '@nuvet/core/make';
import type { OutlinesSettings } from '@nuvet/core/processes';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { told } from '@/words/told';
import { KerfFields } from '../cut/KerfFields';
import type { PanelProps } from '../process-view';

export function OutlinesPanel({ open: { settings, set, notes } }: PanelProps<OutlinesSettings, CutPlan>) {
  return (
    <Section title={words.makeReady.allowanceForTheTool}>
      <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
        <KerfFields word={words.makeReady.toolWidth} settings={settings} onSettings={set} />
        <Typography variant="caption" color="textSecondary">
          {settings.kerfMm > 0 ? words.makeReady.setOutByHalf(settings.kerfMm / 2) : words.makeReady.asDrawn}
        </Typography>
        {notes.map(({ message, said }) => (
          <Alert key={message} severity="warning" variant="outlined">
            {told(said)}
          </Alert>
        ))}
      </Box>
    </Section>
  );
}
