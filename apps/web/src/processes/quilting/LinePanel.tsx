'use client';
/** The quilting line: what is quilted along, how densely, and how the needle runs. */
import PauseOutlined from '@mui/icons-material/PauseOutlined';
import PlayArrowOutlined from '@mui/icons-material/PlayArrowOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import IconButton from '@mui/material/IconButton';
import Slider from '@mui/material/Slider';
import Switch from '@mui/material/Switch';
import { printBoth } from '@nuvet/core/length';
import {
  isAboutLine,
  type LinePattern,
  type QuiltingLineSettings,
  type QuiltingSettings,
  type QuiltPlan,
  rowPatternNames,
} from '@nuvet/core/quilting';
import { useEffect } from 'react';
import { useJob } from '@/job/job-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { told } from '@/words/told';
import { inTime } from '../cut/cut-sections';
import type { PanelProps } from '../process-view';
import { setNeedle, useNeedle } from './needle-store';
import { PatternPick } from './PatternPick';
import { PlanFault } from './PlanFault';

const say = words.quilting;

const isRows = (pattern: LinePattern): boolean => (rowPatternNames as readonly string[]).includes(pattern);

export function LinePanel({ open: { settings, set, plan } }: PanelProps<QuiltingSettings, QuiltPlan>) {
  const unit = useJob((s) => s.job.unit);
  const { line } = settings;
  const change = (by: Partial<QuiltingLineSettings>) => set({ line: { ...line, ...by } });
  return (
    <>
      <Section title={say.line}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <PatternPick pattern={line.pattern} onPattern={(pattern) => change({ pattern })} />
          {line.pattern !== 'none' && <Pick label={say.over} value={line.over} words={say.overs} onPick={(over) => change({ over })} />}
          {isRows(line.pattern) && (
            <>
              <Row>
                <Measure
                  label={say.repeat}
                  mm={line.repeatMm}
                  unit={unit}
                  onMm={(mm) => change({ repeatMm: Math.max(5, Math.min(5000, mm)) })}
                />
                <Measure
                  label={say.rowHeight}
                  mm={line.rowMm}
                  unit={unit}
                  onMm={(mm) => change({ rowMm: Math.max(5, Math.min(5000, mm)) })}
                />
              </Row>
              <FormControlLabel
                control={<Switch checked={line.isStaggered} onChange={(_, isStaggered) => change({ isStaggered })} />}
                label={say.staggered}
              />
              <FormControlLabel
                control={<Switch checked={line.isMirrored} onChange={(_, isMirrored) => change({ isMirrored })} />}
                label={say.mirroredRows}
              />
            </>
          )}
          {['cross-hatching', 'echo', 'stippling'].includes(line.pattern) && (
            <Row>
              <Measure
                label={say.spacing}
                mm={line.spacingMm}
                unit={unit}
                onMm={(mm) => change({ spacingMm: Math.max(1, Math.min(1000, mm)) })}
              />
              {line.pattern === 'cross-hatching' && (
                <NumberField
                  label={say.angle}
                  value={line.angle}
                  digits={1}
                  unit="°"
                  onNumber={(n) => change({ angle: Math.max(-180, Math.min(180, n)) })}
                />
              )}
              {line.pattern === 'stippling' && (
                <Button onClick={() => change({ seed: (line.seed + 1) % 1_000_000 })}>{say.anotherOne}</Button>
              )}
            </Row>
          )}
          {line.pattern === 'drawn' && (
            <FormControlLabel
              control={<Switch checked={line.isSewnTwice} onChange={(_, isSewnTwice) => change({ isSewnTwice })} />}
              label={say.mayBeSewnTwice}
            />
          )}
          {line.pattern === 'drawn' && line.isSewnTwice && (
            <FormControlLabel
              control={<Switch checked={line.comesBack} onChange={(_, comesBack) => change({ comesBack })} />}
              label={say.comesBack}
            />
          )}
          {line.pattern !== 'none' && (
            <Row>
              <Measure
                label={say.stitch}
                mm={line.stitchMm}
                unit="mm"
                onMm={(mm) => change({ stitchMm: Math.max(0.5, Math.min(20, mm)) })}
              />
              <NumberField
                label={say.stitchRate}
                value={line.stitchesPerMin}
                digits={0}
                unit={say.perMinute}
                onNumber={(n) => change({ stitchesPerMin: Math.max(10, Math.min(5000, n)) })}
              />
            </Row>
          )}
        </Box>
      </Section>
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

const secondsOf = (stitches: number, { stitchesPerMin }: QuiltingLineSettings): number => (stitches / stitchesPerMin) * 60;
/** Each stitch takes its length and goes down through the layers and up, about so much (common practice), mm. */
const throughLayersMm = 3;

function Measured({ line, settings, unit }: { line: NonNullable<QuiltPlan['line']>; settings: QuiltingLineSettings; unit: 'mm' | 'in' }) {
  const { area, lengthMm, againMm, jumpsMm, stitches, gapMm, stretched } = line;
  const cm2 = ((area.maxX - area.minX) * (area.maxY - area.minY)) / 100;
  const percent = (share: number): string => `${share >= 0 ? '+' : ''}${(100 * share).toFixed(1)} %`;
  return (
    <Section title={say.measured}>
      <Reading name={say.lineLength}>{say.metres((lengthMm / 1000).toFixed(2))}</Reading>
      {againMm > 0 && <Reading name={say.sewnTwice}>{printBoth(againMm, unit)}</Reading>}
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
