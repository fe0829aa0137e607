'use client';
/**
 * Prove: what would spoil the cut, each with its place and what mends it; sizes that must come out; the proof sheet.
 */
import CheckCircleOutlined from '@mui/icons-material/CheckCircleOutlined';
import DescriptionOutlined from '@mui/icons-material/DescriptionOutlined';
import LinkOutlined from '@mui/icons-material/LinkOutlined';
import StraightenOutlined from '@mui/icons-material/StraightenOutlined';
import ZoomOutMapOutlined from '@mui/icons-material/ZoomOutMapOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { measuresOf, overallBox, piecesToProve } from '@nuvet/core/job';
import { printBoth } from '@nuvet/core/length';
import { heightOf, widthOf } from '@nuvet/core/plane';
import { limitsOf } from '@nuvet/core/processes';
import { nanoid } from 'nanoid';
import { Suspense, useMemo, useState } from 'react';
import { openProcess, useProcesses } from '@/processes/open-process';
import { processViews } from '@/processes/registry';
import { usePiecesToMake } from '@/processes/use-pieces-to-make';
import { letMakingGo, setMaking, useMaking } from '@/table/making-store';
import { Measure } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { useJob } from '../../job/job-store';
import { Docket, ToolCard } from '../Docket';
import type { StageName } from '../stage';
import { BoxSize } from './BoxSize';
import { Bridges } from './Bridges';
import { FindingGroups } from './FindingGroups';
import { Narrowest } from './Narrowest';
import { OverallSize } from './OverallSize';
import { PinnedSizes } from './PinnedSizes';
import { useProofSheet } from './proof-sheet';
import { useFindings } from './use-proof';

export function Prove({ onStage }: { onStage: (stage: StageName) => void }) {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const asking = useMaking((s) => s.asking);
  const isLooking = useMaking((s) => s.isProving);
  const findings = useFindings();
  const processes = useProcesses();
  const toMake = usePiecesToMake();
  const show = (processId: string, panel: string) => {
    openProcess(processId, panel);
    onStage('make-ready');
  };
  const kerfMm = Math.max(...limitsOf(job).map(({ limits }) => limits.kerfMm));
  const pieces = useMemo(() => piecesToProve(job), [job]);
  const box = overallBox(pieces);
  const stops = findings.some((f) => f.weight === 'stops');
  const [message, setMessage] = useState<string | null>(null);
  const sheet = useProofSheet(findings, setMessage);
  const sum = (of: (m: ReturnType<typeof measuresOf>) => number) => pieces.reduce((total, piece) => total + of(measuresOf(piece)), 0);
  const ask = (what: 'size' | 'bridge') => {
    const isOff = asking === what;
    letMakingGo();
    if (!isOff) setMaking({ asking: what });
  };
  const pinOverall = () => {
    if (!box) return;
    const pin = (name: string, kind: 'width' | 'height', mm: number) => ({
      id: nanoid(10),
      name,
      of: { kind, pieceId: null },
      mm: Number(mm.toFixed(2)),
      toleranceMm: 0.2,
    });
    run({
      do: 'prove-by',
      change: {
        pinned: [
          ...job.proof.pinned,
          pin(words.prove.overallWidth, 'width', widthOf(box)),
          pin(words.prove.overallHeight, 'height', heightOf(box)),
        ],
      },
    });
  };
  const tray = (
    <>
      <ToolCard
        icon={<StraightenOutlined />}
        word={words.prove.requiredSize}
        explanation={words.prove.requiredSizeExplanation}
        isInHand={asking === 'size'}
        disabled={!box}
        onClick={() => ask('size')}
      />
      <ToolCard
        icon={<ZoomOutMapOutlined />}
        word={words.prove.requiredOverall}
        explanation={words.prove.requiredOverallExplanation}
        disabled={!box}
        onClick={pinOverall}
      />
      <ToolCard
        icon={<LinkOutlined />}
        word={words.prove.bridge}
        explanation={words.prove.bridgeExplanation}
        isInHand={asking === 'bridge'}
        disabled={!box}
        onClick={() => ask('bridge')}
      />
      <ToolCard
        icon={<DescriptionOutlined />}
        word={words.prove.proofSheet}
        explanation={words.prove.proofSheetExplanation}
        disabled={!box}
        onClick={() => void sheet()}
      />
    </>
  );
  return (
    <Docket tray={tray} next={{ word: words.prove.nextMakeReady, onClick: () => onStage('make-ready'), disabled: stops || isLooking }}>
      {asking && (
        <Alert severity="info" variant="outlined">
          {asking === 'size' ? words.prove.requiredSizePrompt : words.prove.bridgePrompt}
        </Alert>
      )}
      {message && (
        <Alert severity="error" onClose={() => setMessage(null)}>
          {message}
        </Alert>
      )}
      <Section
        title={isLooking ? words.prove.checking : findings.length === 0 ? words.prove.proved : words.prove.toLookAt(findings.length)}
      >
        {findings.length === 0 ? (
          <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', color: isLooking ? 'text.secondary' : 'primary.main', mt: 0.5 }}>
            {!isLooking && <CheckCircleOutlined />}
            <Typography>{isLooking ? words.prove.checkingTheOutlines : words.prove.provedExplanation}</Typography>
          </Box>
        ) : (
          <FindingGroups findings={findings} pieces={pieces} onStage={onStage} />
        )}
      </Section>
      {processes.map((process) => {
        const { Proof } = processViews[process.entry.process] ?? {};
        return (
          Proof && (
            <Suspense key={process.entry.id} fallback={null}>
              <Proof process={process} pieces={toMake} onShow={(panel) => show(process.entry.id, panel)} />
            </Suspense>
          )
        );
      })}
      <PinnedSizes pieces={pieces} />
      <Bridges />
      {box && (
        <Section title={words.prove.totals}>
          <Reading name={words.prove.pieces}>{pieces.length}</Reading>
          <Reading name={words.prove.holes}>{sum((m) => m.holes)}</Reading>
          <Reading name={words.prove.allOutlines}>
            {printBoth(
              sum((m) => m.perimeterMm),
              job.unit,
            )}
          </Reading>
          <Reading name={words.prove.materialLeft}>{words.prove.squareCentimetres((sum((m) => m.areaMm2) / 100).toFixed(2))}</Reading>
          <Box sx={{ mt: 1.75 }}>
            <OverallSize box={box} onMessage={setMessage} />
          </Box>
        </Section>
      )}
      <Section title={words.prove.limits}>
        <Box sx={{ mt: 1 }}>
          <Measure
            label={words.prove.thinnestWeb}
            mm={job.proof.thinnestMm}
            unit={job.unit}
            onMm={(thinnestMm) => run({ do: 'prove-by', change: { thinnestMm } })}
          />
        </Box>
        <Box sx={{ mt: 1.25 }}>
          <Measure
            label={words.prove.clearancePassagesAtLeast}
            mm={job.proof.clearanceMm}
            unit={job.unit}
            range="from zero"
            onMm={(clearanceMm) => run({ do: 'prove-by', change: { clearanceMm } })}
          />
        </Box>
        <Narrowest pieces={pieces} />
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mt: 0.5 }}>
          {kerfMm > 0 ? words.prove.kerfChecked(printBoth(kerfMm, job.unit)) : words.prove.kerfNotSet}
        </Typography>
      </Section>
      <BoxSize />
      {job.proof.accepted.length > 0 && (
        <Section title={words.prove.ignoredFindings}>
          <Reading name={words.prove.findings}>
            <Typography
              component="button"
              variant="body2"
              onClick={() => run({ do: 'prove-by', change: { accepted: [] } })}
              sx={{ border: 0, bgcolor: 'transparent', color: 'primary.main', cursor: 'pointer', fontWeight: 600, p: 0 }}
            >
              {words.prove.showAgain(job.proof.accepted.length)}
            </Typography>
          </Reading>
        </Section>
      )}
    </Docket>
  );
}
