'use client';
/**
 * Live steps from the chosen drawn thing, step by step: changed by figures, taken away, or frozen into plain outlines.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { type Drawn, outlinesFrom } from '@nuvet/core/job';
import { sourceOf } from '@/table/hand-target';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { words } from '@/words';
import { halfWords } from '../axis-words';
import { endWords } from './tool-words';
import { useChosen } from './use-chosen';

type LiveStep = Drawn['live'][number];

const stepWords: Record<LiveStep['kind'], string> = {
  round: words.byHand.corners,
  offset: words.byHand.offset,
  band: words.byHand.band,
  mirror: words.byHand.mirror,
  turn: words.byHand.turnedCopiesStep,
  'cut-out': words.byHand.cutOuts,
};

export function LiveSteps({ kinds }: { kinds?: readonly LiveStep['kind'][] }) {
  const { drawn, job, run, withoutStep } = useChosen();
  if (!drawn || drawn.live.length === 0) return null;
  const change = (index: number, step: LiveStep) =>
    run({ do: 'change-drawn', drawnId: drawn.id, change: { live: drawn.live.map((s, k) => (k === index ? step : s)) } });
  const freeze = () => {
    const { paths } = outlinesFrom(drawn, job);
    if (paths.length > 0)
      run({
        do: 'replace-drawn',
        word: words.byHand.freezingWhatFollows,
        ids: [drawn.id],
        by: [{ ...drawn, source: sourceOf(paths), live: [] }],
      });
  };
  return (
    <Box role="group" aria-label={words.byHand.liveSteps} sx={{ display: 'grid', gap: 1.25, mt: 0.5 }}>
      {drawn.live.map((step, index) =>
        kinds && !kinds.includes(step.kind) ? null : (
          // biome-ignore lint/suspicious/noArrayIndexKey: steps have no other name than their place
          <Box key={index} sx={{ display: 'grid', gap: 1.5 }}>
            <Box sx={{ display: 'flex', alignItems: 'baseline' }}>
              <Typography variant="h3" sx={{ flex: 1 }}>
                {index + 1}. {stepWords[step.kind]}
              </Typography>
              <Button size="small" color="error" onClick={() => withoutStep(drawn, index)}>
                {words.byHand.remove}
              </Button>
            </Box>
            <StepFields step={step} unit={job.unit} onChange={(next) => change(index, next)} />
          </Box>
        ),
      )}
      <Button size="small" variant="outlined" color="inherit" onClick={freeze}>
        {words.byHand.convertToPlainOutlines}
      </Button>
    </Box>
  );
}

type MirrorStep = Extract<LiveStep, { kind: 'mirror' }>;

function MirrorFields({ step, unit, onChange }: { step: MirrorStep; unit: 'mm' | 'in'; onChange: (step: LiveStep) => void }) {
  const { keeps, ...rest } = step;
  const half = halfWords(step.b.x - step.a.x, step.b.y - step.a.y);
  return (
    <Row>
      <Pick
        label={words.byHand.mirrored}
        value={keeps ?? 'all'}
        words={{ all: words.byHand.allThatIsDrawn, left: words.byHand.leftHalf(half.left), right: words.byHand.rightHalf(half.right) }}
        onPick={(half) => onChange(half === 'all' ? rest : { ...rest, keeps: half })}
      />
      <Measure
        label={words.byHand.leadEndsToTheAxisWithin}
        mm={step.reach ?? 0}
        unit={unit}
        range="from zero"
        most={1000}
        onMm={(reach) => onChange({ ...step, reach })}
      />
    </Row>
  );
}

function StepFields({ step, unit, onChange }: { step: LiveStep; unit: 'mm' | 'in'; onChange: (step: LiveStep) => void }) {
  switch (step.kind) {
    case 'round':
      return <Measure label={words.byHand.size} mm={step.size} unit={unit} onMm={(size) => onChange({ ...step, size })} />;
    case 'offset':
      return (
        <Row>
          <Measure
            label={words.byHand.offsetNegativeInward}
            mm={step.by}
            unit={unit}
            range="any"
            onMm={(by) => onChange({ ...step, by })}
          />
          <NumberField
            label={words.byHand.rings}
            value={step.count}
            digits={0}
            unit={words.byHand.oneOrMore}
            least={1}
            most={100}
            onNumber={(n) => onChange({ ...step, count: Math.round(n) })}
          />
        </Row>
      );
    case 'band':
      return (
        <Row>
          <Measure label={words.byHand.width} mm={step.width} unit={unit} onMm={(width) => onChange({ ...step, width })} />
          <Pick label={words.byHand.ends} value={step.ends} words={endWords} onPick={(ends) => onChange({ ...step, ends })} />
        </Row>
      );
    case 'mirror':
      return <MirrorFields step={step} unit={unit} onChange={onChange} />;
    case 'turn':
      return (
        <>
          <Row>
            <NumberField
              label={words.byHand.howMany}
              value={step.count}
              digits={0}
              unit={words.byHand.copiesRange}
              least={2}
              most={60}
              onNumber={(n) => onChange({ ...step, count: Math.round(n) })}
            />
            <Pick
              label={words.byHand.eachCopy}
              value={step.mirrored ? 'mirrored' : 'plain'}
              words={{ plain: words.byHand.asDrawn, mirrored: words.byHand.withItsMirrorImage }}
              onPick={(how) => onChange({ ...step, mirrored: how === 'mirrored' })}
            />
          </Row>
          <Row>
            <Measure
              label={words.byHand.centreX}
              mm={step.centre.x}
              unit={unit}
              range="any"
              onMm={(x) => onChange({ ...step, centre: { ...step.centre, x } })}
            />
            <Measure
              label={words.byHand.centreY}
              mm={step.centre.y}
              unit={unit}
              range="any"
              onMm={(y) => onChange({ ...step, centre: { ...step.centre, y } })}
            />
          </Row>
        </>
      );
    case 'cut-out':
      return (
        <Typography variant="caption" color="textSecondary">
          {words.byHand.takenOutOfIt(step.ids.length)}
        </Typography>
      );
  }
}
