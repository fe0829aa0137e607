'use client';
/**
 * The size that a folded box must have, compared with the panels of its die line.
 */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { boxChecked, panelsOf } from '@nuvet/core/folding';
import { piecesToProve } from '@nuvet/core/job';
import { useMemo } from 'react';
import { Measure, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { useJob } from '../../job/job-store';

const plainToleranceMm = 0.5;

export function BoxSize() {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const { box } = job.proof;
  const pieces = useMemo(() => piecesToProve(job), [job]);
  const hasCreases = pieces.some((p) => p.purpose === 'score');
  const panels = useMemo(() => (hasCreases ? panelsOf(pieces).panels : []), [hasCreases, pieces]);
  if (!hasCreases || panels.length < 3) return null;
  const set = (change: Partial<NonNullable<typeof box>>) => {
    const before = box ?? { widthMm: 100, depthMm: 100, heightMm: 100, toleranceMm: plainToleranceMm };
    run({ do: 'prove-by', change: { box: { ...before, ...change } } });
  };
  const differences = box ? boxChecked(panels, box, job.making.stock.thicknessMm ?? 0, job.proof.creaseAllowance) : [];
  return (
    <Section title={words.prove.theFoldedBox}>
      <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1 }}>
        {words.prove.panelsBetweenCutsAndCreases(panels.length)}
      </Typography>
      {box ? (
        <>
          <Row>
            <Measure label={words.prove.width} mm={box.widthMm} unit={job.unit} onMm={(widthMm) => set({ widthMm })} />
            <Measure label={words.prove.depth} mm={box.depthMm} unit={job.unit} onMm={(depthMm) => set({ depthMm })} />
            <Measure label={words.prove.height} mm={box.heightMm} unit={job.unit} onMm={(heightMm) => set({ heightMm })} />
          </Row>
          <Box sx={{ mt: 1, display: 'grid', gap: 1 }}>
            {differences.length === 0 ? (
              <Alert severity="success" variant="outlined">
                {words.prove.thePanelsMakeThisBox}
              </Alert>
            ) : (
              differences.map((text) => (
                <Alert key={text} severity="warning" variant="outlined">
                  {text}
                </Alert>
              ))
            )}
          </Box>
        </>
      ) : (
        <Button size="small" onClick={() => set({})}>
          {words.prove.enterTheInsideSizeOfThe}
        </Button>
      )}
    </Section>
  );
}
