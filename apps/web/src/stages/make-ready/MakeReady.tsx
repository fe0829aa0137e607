'use client';
import DownloadOutlined from '@mui/icons-material/DownloadOutlined';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { dxfCurveToleranceMm } from '@nuvet/core/formats';
import { type Job, keptPieces, overallBox, type Piece, ways } from '@nuvet/core/job';
import { printBoth, printMm } from '@nuvet/core/length';
import { heightOf, stretch, transformedPath, widthOf } from '@nuvet/core/plane';
import { findingsOf } from '@nuvet/core/proof';
import { useMemo, useState } from 'react';
import { LengthField } from '@/ui/LengthField';
import { tracer } from '@/workers/tracing';
import { Docket, Reading, Section } from '../Docket';
import { useJob } from '../job-store';
import type { StageName } from '../stage';
import { waysOfMaking } from '../ways';

const kinds = {
  svg: { word: 'SVG', type: 'image/svg+xml', about: 'Millimetres, one path a piece with its holes, lines, arcs and curves as they are.' },
  dxf: {
    word: 'DXF',
    type: 'image/vnd.dxf',
    about: `Millimetres, one closed polyline an outline; curves as arcs within ${dxfCurveToleranceMm} mm.`,
  },
} as const;

export function MakeReady({ onStage }: { onStage: (stage: StageName) => void }) {
  const job = useJob((s) => s.job);
  const [message, setMessage] = useState<string | null>(null);
  const kept = useMemo(() => atOutputSize(keptPieces(job), job.planScale), [job]);
  const box = overallBox(kept);
  const stop = findingsOf(job).find((f) => f.weight === 'stops');
  const download = async (kind: keyof typeof kinds) => {
    setMessage(null);
    try {
      const text = await tracer().write(kind, kept, job.name);
      const link = document.createElement('a');
      link.href = URL.createObjectURL(new Blob([text], { type: kinds[kind].type }));
      link.download = `${fileName(job.name)}.${kind}`;
      link.click();
      setTimeout(() => URL.revokeObjectURL(link.href), 10_000);
    } catch (error) {
      setMessage(`The file could not be made: ${(error as Error).message}`);
    }
  };
  return (
    <Docket>
      <Making job={job} />
      {stop ? (
        <Alert severity="error" variant="outlined" action={<Button onClick={() => onStage('prove')}>Prove</Button>}>
          {stop.message}
        </Alert>
      ) : (
        box && (
          <>
            <Section title="At true size">
              <Reading name="Pieces">{kept.length}</Reading>
              <Reading name="Wide">{printBoth(widthOf(box), job.unit)}</Reading>
              <Reading name="High">{printBoth(heightOf(box), job.unit)}</Reading>
              <Typography variant="caption" color="textSecondary">
                {job.planScale
                  ? job.planScale.atRealSize
                    ? `At the real size: the plan is ${job.planScale.text}. `
                    : `As large as the plan, which is ${job.planScale.text}. `
                  : ''}
                The file’s origin is the lower left corner of all pieces.
              </Typography>
            </Section>
            {(Object.keys(kinds) as (keyof typeof kinds)[]).map((kind) => (
              <Section key={kind} title={kinds[kind].word}>
                <Typography variant="body2" color="textSecondary" sx={{ mb: 1 }}>
                  {kinds[kind].about}
                </Typography>
                <Button fullWidth variant="contained" startIcon={<DownloadOutlined />} onClick={() => void download(kind)}>
                  Download {kinds[kind].word}
                </Button>
              </Section>
            ))}
          </>
        )
      )}
      {message && <Alert severity="error">{message}</Alert>}
    </Docket>
  );
}

/** The pieces as large as the files shall have them: a plan's pieces may be written at the real size. */
function atOutputSize(pieces: Piece[], planScale: Job['planScale']): Piece[] {
  if (!planScale?.atRealSize) return pieces;
  const grow = stretch(planScale.factor);
  return pieces.map((p) => ({ ...p, outer: transformedPath(p.outer, grow), holes: p.holes.map((h) => transformedPath(h, grow)) }));
}

/** A file name from a job's name, without what file systems refuse. */
const fileName = (name: string): string =>
  name
    .replace(/[^\p{L}\p{N} ._-]+/gu, ' ')
    .trim()
    .replace(/\s+/g, '-') || 'job';

function Making({ job }: { job: Job }) {
  const run = useJob((s) => s.run);
  const { making } = job;
  const [stock, setStock] = useState(making.stock ?? '');
  return (
    <Section title="Made by">
      <TextField
        select
        fullWidth
        label="Way of making"
        value={making.way}
        onChange={(event) => run({ do: 'set-making', making: { ...making, way: event.target.value as Job['making']['way'] } })}
        sx={{ mt: 1 }}
      >
        {ways.map((way) => (
          <MenuItem key={way} value={way}>
            {waysOfMaking[way]}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        fullWidth
        label="Stock"
        value={stock}
        onChange={(event) => setStock(event.target.value.slice(0, 100))}
        onBlur={() => run({ do: 'set-making', making: { ...making, stock: stock.trim() || null } })}
        onKeyDown={(event) => event.stopPropagation()}
        sx={{ my: 1.5 }}
      />
      <LengthField
        label="Measured thickness"
        text={making.thicknessMm ? printMm(making.thicknessMm) : ''}
        unit={job.unit}
        onLength={(mm) => run({ do: 'set-making', making: { ...making, thicknessMm: mm } })}
      />
    </Section>
  );
}
