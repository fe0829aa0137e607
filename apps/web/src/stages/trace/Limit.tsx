'use client';
/**
 * To what part of the picture the trace is limited: a box or an outline drawn on the table, or the sheet that was framed.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { JobTrace, JobTraceSettings } from '@nuvet/core/job';
import { useHotkeys } from 'react-hotkeys-hook';
import { takeTool, useTable } from '@/table/table-store';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { Choice } from './InkSettings';

export function Limit({ within, onAll }: { within: JobTraceSettings['within']; onAll: () => void }) {
  const tool = useTable((s) => s.tool);
  const isDrawing = tool === 'limit-box' || tool === 'limit-outline';
  useHotkeys('escape', () => {
    if (isDrawing) takeTool(null);
  });
  return (
    <Section title={words.trace.onlyHere}>
      {isDrawing ? (
        <>
          <Choice
            label={words.trace.howTheLimitIsDrawn}
            value={tool}
            of={[
              ['limit-box', words.trace.aBox],
              ['limit-outline', words.trace.anOutline],
            ]}
            onChoice={takeTool}
          />
          <Typography variant="body2" color="textSecondary" sx={{ mt: 0.5 }}>
            {tool === 'limit-box' ? words.trace.clickTwoCorners : words.trace.clickAroundThePartToTrace}
          </Typography>
        </>
      ) : (
        <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
          <Typography variant="body2">{words.trace.limitedTo(within?.length)}</Typography>
          <Button size="small" onClick={onAll}>
            {words.trace.traceAllAgain}
          </Button>
        </Box>
      )}
    </Section>
  );
}

/** Says that only the framed sheet was traced, and lets its surroundings be traced, too. */
export function FrameLimit({
  trace,
  settings,
  onChange,
}: {
  trace: JobTrace | null;
  settings: JobTraceSettings;
  onChange: (settings: JobTraceSettings) => void;
}) {
  const isInside = trace?.insideFrame === true;
  if (!isInside && !settings.aroundFrame) return null;
  return (
    <Box role="status" sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between', gap: 1 }}>
      <Typography variant="body2">{isInside ? words.trace.insideFrameOnly : words.trace.aroundFrameToo}</Typography>
      <Button size="small" sx={{ flexShrink: 0 }} onClick={() => onChange({ ...settings, aroundFrame: isInside })}>
        {isInside ? words.trace.traceAroundIt : words.trace.insideFrame}
      </Button>
    </Box>
  );
}
