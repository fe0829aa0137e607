'use client';
/** The quilting line: what is quilted along, how densely, and how the needle runs. */
import AddOutlined from '@mui/icons-material/AddOutlined';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import PauseOutlined from '@mui/icons-material/PauseOutlined';
import PlayArrowOutlined from '@mui/icons-material/PlayArrowOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import IconButton from '@mui/material/IconButton';
import Slider from '@mui/material/Slider';
import Switch from '@mui/material/Switch';
import Typography from '@mui/material/Typography';
import { printBoth } from '@nuvet/core/length';
import {
  isAboutLine,
  isInBlock,
  mostFurther,
  type QuiltingLineSettings,
  type QuiltingSettings,
  type QuiltPlan,
} from '@nuvet/core/quilting';
import { useEffect } from 'react';
import { useJob } from '@/job/job-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { told } from '@/words/told';
import { inTime } from '../cut/cut-sections';
import { PlanFault } from '../PlanFault';
import type { PanelProps } from '../process-view';
import { PatternFields, PlaceFields } from './LineFields';
import { askForEnd, type LineEnd, useLineEnds } from './line-ends-store';
import { setNeedle, useNeedle } from './needle-store';
import { OwnMotifs } from './OwnMotifs';
import { PatternPick, patternWords } from './PatternPick';

const say = words.quilting;

export function LinePanel({ open: { settings, set, plan }, pieces }: PanelProps<QuiltingSettings, QuiltPlan>) {
  const unit = useJob((s) => s.job.unit);
  const { line } = settings;
  const change = (by: Partial<QuiltingLineSettings>) => set({ line: { ...line, ...by } });
  return (
    <>
      <Section title={say.line}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <PatternPick pattern={line.pattern} onPattern={(pattern) => change({ pattern })} />
          {line.pattern === 'own motif' && <OwnMotifs settings={settings} set={set} pieces={pieces} />}
          {line.pattern !== 'none' && <PlaceFields line={line} onChange={change} settings={settings} plan={plan} />}
          <PatternFields line={line} onChange={change} unit={unit} />
          {line.pattern === 'drawn' && <DrawnFields line={line} onChange={change} unit={unit} />}
          {line.pattern !== 'none' && <StitchFields line={line} onChange={change} unit={unit} />}
        </Box>
      </Section>
      <Further settings={settings} set={set} />
      <PlanFault />
      {plan?.notes.filter(isAboutLine).map(({ said, message }) => (
        <Alert key={message} severity="warning" variant="outlined">
          {told(said, unit)}
        </Alert>
      ))}
      {plan?.line && <Measured line={plan.line} settings={line} unit={unit} />}
      {plan?.line && <Needle seconds={secondsOf(plan.line.stitches, line)} />}
    </>
  );
}

interface FieldProps {
  readonly line: QuiltingLineSettings;
  readonly onChange: (by: Partial<QuiltingLineSettings>) => void;
  readonly unit: 'mm' | 'in';
}

/** How drawn lines become one: what may be sewn twice, where it starts and ends, and whether it may travel along seams. */
function DrawnFields({ line, onChange, unit }: FieldProps) {
  return (
    <Box sx={{ display: 'grid', gap: 0.5 }}>
      <FormControlLabel
        control={<Switch checked={line.isSewnTwice} onChange={(_, isSewnTwice) => onChange({ isSewnTwice })} />}
        label={say.mayBeSewnTwice}
      />
      {line.isSewnTwice && (
        <>
          <FormControlLabel
            control={<Switch checked={line.comesBack} onChange={(_, comesBack) => onChange({ comesBack })} />}
            label={say.comesBack}
          />
          <FormControlLabel
            control={<Switch checked={line.alongSeams} onChange={(_, alongSeams) => onChange({ alongSeams })} />}
            label={say.alongSeams}
          />
          {line.alongSeams && (
            <NumberField
              label={say.seamCost}
              value={line.seamCost}
              digits={2}
              unit={say.timesLength}
              least={0.01}
              most={10}
              onNumber={(n) => onChange({ seamCost: n })}
            />
          )}
        </>
      )}
      {line.over === 'block' && !line.isInEveryBlock && (
        <>
          <EndFields end="startAt" line={line} onChange={onChange} unit={unit} />
          {!(line.isSewnTwice && line.comesBack) && <EndFields end="endAt" line={line} onChange={onChange} unit={unit} />}
        </>
      )}
    </Box>
  );
}

/** Where the line starts, or ends: free, typed, or clicked on. */
function EndFields({ end, line, onChange, unit }: FieldProps & { end: LineEnd }) {
  const asking = useLineEnds((s) => s.asking);
  const at = line[end];
  return (
    <Box sx={{ display: 'grid', gap: 0.75, mt: 0.5 }}>
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', justifyContent: 'space-between' }}>
        <Typography variant="body2">{at ? say.ends[end] : say.endsFree[end]}</Typography>
        <Box>
          {at && (
            <Button size="small" onClick={() => onChange({ [end]: null })}>
              {say.leaveFree}
            </Button>
          )}
          <Button size="small" variant={asking === end ? 'contained' : 'text'} onClick={() => askForEnd(asking === end ? null : end)}>
            {asking === end ? say.clickOnLine : say.choosePlace}
          </Button>
        </Box>
      </Box>
      {at && (
        <Row>
          <Measure label={say.fromLeft} mm={at.x} unit={unit} range="any" onMm={(x) => onChange({ [end]: { ...at, x } })} />
          <Measure label={say.fromBelow} mm={at.y} unit={unit} range="any" onMm={(y) => onChange({ [end]: { ...at, y } })} />
        </Row>
      )}
    </Box>
  );
}

/** Stitches, and what the machine and the thread allow. */
function StitchFields({ line, onChange, unit }: FieldProps) {
  return (
    <>
      <Row>
        <Measure label={say.stitch} mm={line.stitchMm} unit="mm" least={0.5} most={20} onMm={(mm) => onChange({ stitchMm: mm })} />
        <NumberField
          label={say.stitchRate}
          value={line.stitchesPerMin}
          digits={0}
          unit={say.perMinute}
          least={10}
          most={5000}
          onNumber={(n) => onChange({ stitchesPerMin: n })}
        />
      </Row>
      <Row>
        <NumberField
          label={say.mostLayers}
          value={line.mostLayers}
          digits={0}
          unit={say.times}
          least={1}
          most={20}
          onNumber={(n) => onChange({ mostLayers: Math.round(n) })}
        />
        <NumberField
          label={say.sharpest}
          value={line.sharpestDegrees}
          digits={0}
          unit="°"
          least={30}
          most={180}
          onNumber={(n) => onChange({ sharpestDegrees: n })}
        />
      </Row>
      <Row>
        <NumberField
          label={say.tieOffs}
          value={line.tieOffs}
          digits={0}
          unit={say.times}
          least={0}
          most={12}
          onNumber={(n) => onChange({ tieOffs: Math.round(n) })}
        />
        <Measure
          label={say.throat}
          mm={line.throatMm}
          unit={unit}
          placeholder={say.allOfIt}
          onEmpty={() => onChange({ throatMm: null })}
          least={50}
          most={20_000}
          onMm={(mm) => onChange({ throatMm: mm })}
        />
      </Row>
    </>
  );
}

/** Lines in other places: each can be taken up again. */
function Further({ settings, set }: { settings: QuiltingSettings; set: (change: Partial<QuiltingSettings>) => void }) {
  const { line, further } = settings;
  if (line.pattern === 'none' && further.length === 0) return null;
  const aside = line.pattern === 'none' ? [] : [line];
  return (
    <Section title={say.otherPlaces}>
      {further.map((one, k) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: lines are told apart by their place in the order of sewing
        <Box key={k} sx={{ display: 'flex', alignItems: 'center', gap: 0.5 }}>
          <Typography variant="body2" sx={{ flex: 1 }}>
            {say.patternIn(patternWords[one.pattern], say.overs[one.over], isInBlock(one.over))}
          </Typography>
          <Button size="small" onClick={() => set({ line: one, further: [...further.filter((_, n) => n !== k), ...aside] })}>
            {say.changeLine}
          </Button>
          <IconButton
            size="small"
            aria-label={say.removeLine(patternWords[one.pattern])}
            onClick={() => set({ further: further.filter((_, n) => n !== k) })}
          >
            <DeleteOutlined fontSize="small" />
          </IconButton>
        </Box>
      ))}
      {line.pattern !== 'none' && further.length < mostFurther && (
        <Button
          size="small"
          startIcon={<AddOutlined />}
          onClick={() => set({ further: [...further, line], line: { ...line, pattern: 'none' } })}
        >
          {say.quiltElsewhere}
        </Button>
      )}
    </Section>
  );
}

const secondsOf = (stitches: number, { stitchesPerMin }: QuiltingLineSettings): number => (stitches / stitchesPerMin) * 60;
/** Each stitch takes its length and goes down through the layers and up, about so much (common practice), mm. */
const throughLayersMm = 3;

function Measured({ line, settings, unit }: { line: NonNullable<QuiltPlan['line']>; settings: QuiltingLineSettings; unit: 'mm' | 'in' }) {
  const { areaMm2, lengthMm, againMm, alongSeamsMm, jumpsMm, stitches, gapMm, stretched, passes } = line;
  const cm2 = areaMm2 / 100;
  const percent = (share: number): string => `${share >= 0 ? '+' : ''}${(100 * share).toFixed(1)} %`;
  return (
    <Section title={say.measured}>
      <Reading name={say.lineLength}>{say.metres((lengthMm / 1000).toFixed(2))}</Reading>
      {againMm > 0 && <Reading name={say.sewnTwice}>{printBoth(againMm, unit)}</Reading>}
      {alongSeamsMm > 0 && <Reading name={say.onSeams}>{printBoth(alongSeamsMm, unit)}</Reading>}
      {passes && <Reading name={say.passes}>{passes.passes.length}</Reading>}
      <Reading name={say.inOneGo}>{say.runs(jumpsMm.length + 1)}</Reading>
      {stretched && <Reading name={say.stretched}>{say.byAcross(percent(stretched.x), percent(stretched.y))}</Reading>}
      <Reading name={say.density}>{say.perArea((lengthMm / 10 / cm2).toFixed(2))}</Reading>
      <Reading name={say.largestGap}>{printBoth(2 * gapMm, unit)}</Reading>
      <Reading name={say.stitches}>{stitches.toLocaleString('en')}</Reading>
      <Reading name={say.thread}>{say.metres(((lengthMm + stitches * throughLayersMm) / 1000).toFixed(1))}</Reading>
      <Reading name={say.time}>{inTime(secondsOf(stitches, settings))}</Reading>
    </Section>
  );
}

/** The whole line is shown in so many seconds at most. */
const longestShowS = 30;

function Needle({ seconds }: { seconds: number }) {
  const { share, isRunning } = useNeedle();
  useEffect(() => {
    if (!isRunning) return;
    let [last, frame] = [performance.now(), 0];
    const tick = (now: number) => {
      const by = (now - last) / 1000 / Math.min(longestShowS, Math.max(2, seconds));
      last = now;
      const next = Math.min(1, useNeedle.getState().share + by);
      setNeedle({ share: next, isRunning: next < 1 });
      if (next < 1) frame = requestAnimationFrame(tick);
    };
    frame = requestAnimationFrame(tick);
    return () => cancelAnimationFrame(frame);
  }, [isRunning, seconds]);
  return (
    <Section title={say.needle}>
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', pr: 1 }}>
        <IconButton
          color="primary"
          aria-label={isRunning ? say.needleStops : say.needleRuns}
          onClick={() => setNeedle(isRunning ? { isRunning: false } : { share: share >= 1 ? 0 : share, isRunning: true })}
        >
          {isRunning ? <PauseOutlined /> : <PlayArrowOutlined />}
        </IconButton>
        <Slider
          aria-label={say.needleAt}
          size="small"
          min={0}
          max={1}
          step={0.001}
          value={share}
          onChange={(_, value) => setNeedle({ share: value as number, isRunning: false })}
        />
      </Box>
    </Section>
  );
}
