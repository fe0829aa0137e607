'use client';
/**
 * Full-size print on sheets of paper: which paper, and how many pages.
 */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import Typography from '@mui/material/Typography';
import { ownPaper, papers, type Tiling } from '@nuvet/core/make';
import type { PaperSettings } from '@nuvet/core/processes';
import { useJob } from '@/job/job-store';
import { useMaking } from '@/table/making-store';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import type { PanelProps } from '../process-view';
import { underlayFor } from '../underlay';

const paperWords = Object.fromEntries([
  ...Object.entries(papers).map(([name, [w, h]]) => [name, words.makeReady.paperSize(name, w, h)]),
  [ownPaper, words.makeReady.ownSize],
]);

export function PrintPanel({ open: { settings: printing, plan: tiling, set } }: PanelProps<PaperSettings, Tiling>) {
  const job = useJob((s) => s.job);
  const message = useMaking((s) => s.planFault);
  const source = underlayFor(job);
  return (
    <>
      <Section title={words.makeReady.paper}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Pick
            label={words.makeReady.paper}
            value={papers[printing.paper] ? printing.paper : ownPaper}
            words={paperWords}
            onPick={(paper) => set({ paper, place: null })}
          />
          {!papers[printing.paper] && (
            <Row>
              <Measure
                label={words.makeReady.wide}
                mm={printing.widthMm}
                unit={job.unit}
                onMm={(widthMm) => set({ widthMm, place: null })}
              />
              <Measure
                label={words.makeReady.high}
                mm={printing.heightMm}
                unit={job.unit}
                onMm={(heightMm) => set({ heightMm, place: null })}
              />
            </Row>
          )}
          <Row>
            <Measure
              label={words.makeReady.margin}
              mm={printing.marginMm}
              unit={job.unit}
              range="from zero"
              onMm={(v) => set({ marginMm: v, place: null })}
            />
            <Measure
              label={words.makeReady.overlap}
              mm={printing.overlapMm}
              unit={job.unit}
              range="from zero"
              onMm={(v) => set({ overlapMm: v, place: null })}
            />
          </Row>
          <FormControlLabel
            control={<Switch checked={printing.landscape} onChange={(_, landscape) => set({ landscape, place: null })} />}
            label={words.makeReady.landscape}
          />
          <FormControlLabel
            disabled={!source}
            control={<Switch checked={printing.withPicture && source !== null} onChange={(_, withPicture) => set({ withPicture })} />}
            label={words.makeReady.thePictureInGreyUnderneath}
          />
        </Box>
      </Section>
      <Section title={words.makeReady.pages}>
        {message && (
          <Alert severity="warning" variant="outlined">
            {message}
          </Alert>
        )}
        {tiling && (
          <>
            <Reading name={words.makeReady.pagesWithLines}>{tiling.pages.length}</Reading>
            <Reading name={words.makeReady.rowsAndColumns}>{words.makeReady.rowsByColumns(tiling.rows, tiling.columns)}</Reading>
            <Typography variant="caption" color="textSecondary" sx={{ display: 'block' }}>
              {printing.place ? words.makeReady.laidByHand : words.makeReady.laidSoThatTheyAreFewest} {words.makeReady.dragThePages}
            </Typography>
            {printing.place && (
              <Button size="small" onClick={() => set({ place: null })}>
                {words.makeReady.useTheFewestPages}
              </Button>
            )}
          </>
        )}
      </Section>
      <Alert severity="info" variant="outlined">
        {words.makeReady.printAtFullSize}
      </Alert>
    </>
  );
}
