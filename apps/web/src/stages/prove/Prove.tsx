'use client';
import CheckCircleOutlined from '@mui/icons-material/CheckCircleOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { keptPieces, measuresOf, overallBox, piecesOf } from '@nuvet/core/job';
import { printBoth } from '@nuvet/core/length';
import { boxAroundBoxes, heightOf, widthOf } from '@nuvet/core/plane';
import { type Finding, findingsOf } from '@nuvet/core/proof';
import { setTable, useTable } from '@/table/table-store';
import { boxInView } from '@/table/view';
import { Docket, Reading, Section } from '../Docket';
import { useJob } from '../job-store';
import type { StageName } from '../stage';

export function Prove({ onStage }: { onStage: (stage: StageName) => void }) {
  const job = useJob((s) => s.job);
  const findings = findingsOf(job);
  const kept = keptPieces(job);
  const box = overallBox(kept);
  const stops = findings.some((f) => f.weight === 'stops');
  const sum = (of: (m: ReturnType<typeof measuresOf>) => number) => kept.reduce((total, piece) => total + of(measuresOf(piece)), 0);
  return (
    <Docket next={{ word: 'Next: make ready', onClick: () => onStage('make-ready'), disabled: stops }}>
      <Section title={findings.length === 0 ? 'Proved' : `${findings.length} to look at`}>
        {findings.length === 0 ? (
          <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', color: 'primary.main', mt: 0.5 }}>
            <CheckCircleOutlined />
            <Typography>Every outline is closed and the size is known.</Typography>
          </Box>
        ) : (
          <Box sx={{ display: 'grid', gap: 1, mt: 1 }}>
            {findings.map((finding) => (
              <FindingRow key={finding.code} finding={finding} onStage={onStage} />
            ))}
          </Box>
        )}
      </Section>
      {box && (
        <Section title="The work as a whole">
          <Reading name="Pieces">{kept.length}</Reading>
          <Reading name="Holes">{sum((m) => m.holes)}</Reading>
          <Reading name="Wide">{printBoth(widthOf(box), job.unit)}</Reading>
          <Reading name="High">{printBoth(heightOf(box), job.unit)}</Reading>
          <Reading name="All outlines">
            {printBoth(
              sum((m) => m.perimeterMm),
              job.unit,
            )}
          </Reading>
          <Reading name="Material left">{(sum((m) => m.areaMm2) / 100).toFixed(2)} cm²</Reading>
        </Section>
      )}
    </Docket>
  );
}

const placeOf: Partial<Record<Finding['code'], { stage: StageName; word: string }>> = {
  'no-picture': { stage: 'bring-in', word: 'Bring in' },
  'size-unknown': { stage: 'true-up', word: 'True up' },
  'size-from-file': { stage: 'true-up', word: 'True up' },
  'marks-disagree': { stage: 'true-up', word: 'True up' },
  'unit-unknown': { stage: 'bring-in', word: 'Bring in' },
  'no-pieces': { stage: 'trace', word: 'Trace' },
  'all-left-out': { stage: 'trace', word: 'Trace' },
};

function FindingRow({ finding, onStage }: { finding: Finding; onStage: (stage: StageName) => void }) {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const show = () => {
    const pieces = piecesOf(job).filter((p) => finding.pieceIds.includes(p.id));
    const box = boxAroundBoxes(pieces.map((p) => measuresOf(p).box));
    const { screen } = useTable.getState();
    if (box) setTable({ view: boxInView(box, screen), hoveredPiece: finding.pieceIds[0] ?? null });
  };
  const place = placeOf[finding.code];
  return (
    <Alert severity={finding.weight === 'stops' ? 'error' : 'warning'} variant="outlined">
      {finding.message}
      <Box sx={{ display: 'flex', gap: 1, mt: 0.5 }}>
        {place && (
          <Button size="small" onClick={() => onStage(place.stage)}>
            {place.word}
          </Button>
        )}
        {finding.pieceIds.length > 0 && (
          <>
            <Button size="small" onClick={show}>
              Show
            </Button>
            <Button size="small" onClick={() => run({ do: 'leave-out', pieceIds: [...finding.pieceIds], leftOut: true })}>
              Leave out
            </Button>
          </>
        )}
      </Box>
    </Alert>
  );
}
