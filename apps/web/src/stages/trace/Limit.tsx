'use client';
/**
 * To what part of the picture the trace is limited: a box or an outline drawn on the table.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { JobTraceSettings } from '@nuvet/core/job';
import { useHotkeys } from 'react-hotkeys-hook';
import { takeTool, useTable } from '@/table/table-store';
import { Section } from '../Docket';
import { Choice } from './InkSettings';

export function Limit({ within, onAll }: { within: JobTraceSettings['within']; onAll: () => void }) {
  const tool = useTable((s) => s.tool);
  const isDrawing = tool === 'limit-box' || tool === 'limit-outline';
  useHotkeys('escape', () => {
    if (isDrawing) takeTool(null);
  });
  return (
    <Section title="Only here">
      {isDrawing ? (
        <>
          <Choice
            label="How the limit is drawn"
            value={tool}
            of={[
              ['limit-box', 'A box'],
              ['limit-outline', 'An outline'],
            ]}
            onChoice={takeTool}
          />
          <Typography variant="body2" color="textSecondary" sx={{ mt: 0.5 }}>
            {tool === 'limit-box' ? 'Click two corners.' : 'Click around the part to trace; Enter finishes.'}
          </Typography>
        </>
      ) : (
        <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
          <Typography variant="body2">Limited to {within?.length === 4 ? 'a box' : 'an outline'}.</Typography>
          <Button size="small" onClick={onAll}>
            Trace all again
          </Button>
        </Box>
      )}
    </Section>
  );
}
