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
import { maker } from '@/workers/making';
import { Reading, Section } from '../Docket';
import { useJob } from '../job-store';
import { Measure, Pick, Row } from '../trace/hand/Rows';
import { nameFor } from './FilesPanel';
import { underlayFor } from './underlay';

const paperWords = Object.fromEntries([
  ...Object.entries(papers).map(([name, [w, h]]) => [name, `${name}, ${w} x ${h} mm`]),
  [ownPaper, 'Own size'],
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
      setMessage(`The print could not be made: ${(error as Error).message}`);
    }
    setWorking(false);
  };
  return (
    <>
      <Section title="Paper">
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Pick
            label="Paper"
            value={papers[printing.paper] ? printing.paper : ownPaper}
            words={paperWords}
            onPick={(paper) => set({ paper, place: null })}
          />
          {!papers[printing.paper] && (
            <Row>
              <Measure label="Wide" mm={printing.widthMm} unit={job.unit} onMm={(widthMm) => set({ widthMm, place: null })} />
              <Measure label="High" mm={printing.heightMm} unit={job.unit} onMm={(heightMm) => set({ heightMm, place: null })} />
            </Row>
          )}
          <Row>
            <Measure
              label="Margin"
              mm={printing.marginMm}
              unit={job.unit}
              range="any"
              onMm={(v) => set({ marginMm: Math.max(0, v), place: null })}
            />
            <Measure
              label="Overlap"
              mm={printing.overlapMm}
              unit={job.unit}
              range="any"
              onMm={(v) => set({ overlapMm: Math.max(0, v), place: null })}
            />
          </Row>
          <FormControlLabel
            control={<Switch checked={printing.landscape} onChange={(_, landscape) => set({ landscape, place: null })} />}
            label="Landscape"
          />
          <FormControlLabel
            disabled={!source}
            control={<Switch checked={printing.withPicture && source !== null} onChange={(_, withPicture) => set({ withPicture })} />}
            label="The picture in grey underneath"
          />
        </Box>
      </Section>
      <Section title="Pages">
        {message && (
          <Alert severity="warning" variant="outlined">
            {message}
          </Alert>
        )}
        {tiling && (
          <>
            <Reading name="Pages with lines">{tiling.pages.length}</Reading>
            <Reading name="Rows and columns">
              {tiling.rows} x {tiling.columns}
            </Reading>
            <Typography variant="caption" color="textSecondary" sx={{ display: 'block' }}>
              {printing.place ? 'Laid by hand.' : 'Laid so that they are fewest.'} Drag them on the table to lay them otherwise. A map of
              the pages comes first.
            </Typography>
            {printing.place && (
              <Button size="small" onClick={() => set({ place: null })}>
                Use the fewest pages
              </Button>
            )}
          </>
        )}
      </Section>
      <Alert severity="info" variant="outlined">
        Print at 100 %, that is: actual size, no fitting to the page. Then measure the 100 mm bar.
      </Alert>
      <Button
        variant="contained"
        size="large"
        startIcon={<PrintOutlined />}
        disabled={isStopped || isWorking || !tiling || tiling.pages.length === 0}
        onClick={() => void download()}
      >
        Download the pages
      </Button>
    </>
  );
}
