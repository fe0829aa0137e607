'use client';
/**
 * Full-size print on sheets of paper: which paper, how many pages, and the PDF.
 */
import PrintOutlined from '@mui/icons-material/PrintOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import Typography from '@mui/material/Typography';
import type { Piece, Printing } from '@nuvet/core/job';
import { ownPaper, papers } from '@nuvet/core/make';
import { useEffect, useMemo, useState } from 'react';
import { setMaking, useMaking } from '@/table/making-store';
import { handOver } from '@/ui/hand-over';
import { words } from '@/words';
import { toldError } from '@/words/told';
import { maker } from '@/workers/making';
import { Reading, Section } from '../Docket';
import { useJob } from '../job-store';
import { Measure, Pick, Row } from '../trace/hand/Rows';
import { nameFor } from './FilesPanel';
import { underlayFor } from './underlay';

const paperWords = Object.fromEntries([
  ...Object.entries(papers).map(([name, [w, h]]) => [name, words.makeReady.paperSize(name, w, h)]),
  [ownPaper, words.makeReady.ownSize],
]);

export function PrintPanel({ pieces, isStopped }: { pieces: readonly Piece[]; isStopped: boolean }) {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const revision = useJob((s) => s.revision);
  const { printing } = job.setup;
  const tiling = useMaking((s) => s.tiling);
  const dragged = useMaking((s) => s.draggedPages);
  const [message, setMessage] = useState<string | null>(null);
  const [isWorking, setWorking] = useState(false);
  const set = (change: Partial<Printing>) => run({ do: 'set-up', change: { printing: { ...printing, ...change } } });
  const paths = useMemo(() => pieces.flatMap((p) => [p.outer, ...p.holes]), [pieces]);
  // While the pages are dragged their count follows.
  const shown = useMemo(() => (dragged ? { ...printing, place: dragged } : printing), [printing, dragged]);
  useEffect(() => {
    let isWanted = true;
    void maker()
      .tiling(paths, shown)
      .then(
        (found) => {
          if (!isWanted) return;
          setMaking({ tiling: found });
          setMessage(null);
        },
        (error: Error) => {
          if (!isWanted) return;
          setMaking({ tiling: null });
          setMessage(error.message);
        },
      );
    return () => {
      isWanted = false;
    };
  }, [paths, shown]);
  const source = underlayFor(job);
  const download = async () => {
    setWorking(true);
    try {
      const bytes = await maker().print(pieces, job.setup, job.name, printing.withPicture ? source : null);
      handOver(bytes, nameFor(job, 'print', revision(), 'pdf'), 'application/pdf');
    } catch (error) {
      setMessage(words.makeReady.thePrintCouldNotBeMade(toldError(error)));
    }
    setWorking(false);
  };
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
              range="any"
              onMm={(v) => set({ marginMm: Math.max(0, v), place: null })}
            />
            <Measure
              label={words.makeReady.overlap}
              mm={printing.overlapMm}
              unit={job.unit}
              range="any"
              onMm={(v) => set({ overlapMm: Math.max(0, v), place: null })}
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
      <Button
        variant="contained"
        size="large"
        startIcon={<PrintOutlined />}
        disabled={isStopped || isWorking || !tiling || tiling.pages.length === 0}
        onClick={() => void download()}
      >
        {words.makeReady.downloadThePages}
      </Button>
    </>
  );
}
