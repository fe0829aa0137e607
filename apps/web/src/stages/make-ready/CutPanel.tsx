'use client';
/**
 * How it is cut: kerf, where outlines start, bridges that hold, lines that fill areas, power and speed; with how far and how
 * long it is.
 */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import type { Cutting, Piece, Purpose } from '@nuvet/core/job';
import { strengthOf } from '@nuvet/core/job';
import { NumberField } from '@/ui/NumberField';
import { Reading, Section } from '../Docket';
import { useJob } from '../job-store';
import { Measure, Pick, Row } from '../trace/hand/Rows';
import { KerfGauge } from './KerfGauge';
import { StockSection } from './StockSection';
import { stopPlanning, usePlanned } from './use-plan';

const purposeWords: Record<Purpose, string> = {
  cut: 'Cut',
  score: 'Score',
  perforate: 'Perforate',
  engrave: 'Engrave',
  pocket: 'Fill (pocket)',
  stitch: 'Stitch',
  guide: 'Guide',
};

/** Seconds as people say them. */
export function inTime(seconds: number): string {
  const whole = Math.round(seconds);
  const [h, m, s] = [Math.floor(whole / 3600), Math.floor((whole % 3600) / 60), whole % 60];
  return h > 0 ? `${h} h ${m} min` : m > 0 ? `${m} min ${s} s` : `${seconds < 10 ? seconds.toFixed(1) : s} s`;
}

export function CutPanel({ pieces }: { pieces: readonly Piece[] }) {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const { cutting } = job.setup;
  const set = (change: Partial<Cutting>) => run({ do: 'set-up', change: { cutting: { ...cutting, ...change } } });
  const purposes = [...new Set(pieces.map((p) => p.purpose))];
  return (
    <>
      <PlanSection />
      <StockSection />
      <Section title="Kerf">
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Row>
            <Measure label="Kerf" mm={cutting.kerfMm} unit={job.unit} range="any" onMm={(kerfMm) => set({ kerfMm: Math.max(0, kerfMm) })} />
            <Pick
              label="Corners"
              value={cutting.corners}
              words={{ round: 'Round', mitre: 'Mitred' }}
              onPick={(corners) => set({ corners })}
            />
          </Row>
          <KerfGauge />
        </Box>
      </Section>
      <Section title="Leads and tabs">
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Pick
            label="Lead"
            value={cutting.lead.kind}
            words={{ none: 'No lead', line: 'Straight lead', arc: 'Arc lead' }}
            onPick={(kind) => set({ lead: { ...cutting.lead, kind } })}
          />
          {cutting.lead.kind !== 'none' && (
            <Row>
              <Measure
                label="Lead in"
                mm={cutting.lead.inMm}
                unit={job.unit}
                range="any"
                onMm={(v) => set({ lead: { ...cutting.lead, inMm: Math.max(0, v) } })}
              />
              <Measure
                label="Lead out"
                mm={cutting.lead.outMm}
                unit={job.unit}
                range="any"
                onMm={(v) => set({ lead: { ...cutting.lead, outMm: Math.max(0, v) } })}
              />
            </Row>
          )}
          <Row>
            <Measure label="Overcut" mm={cutting.overcutMm} unit={job.unit} range="any" onMm={(v) => set({ overcutMm: Math.max(0, v) })} />
            <NumberField
              label="Bridges"
              value={cutting.tabs.count}
              digits={0}
              unit="a piece"
              onNumber={(n) => set({ tabs: { ...cutting.tabs, count: Math.max(0, Math.min(200, Math.round(n))) } })}
            />
          </Row>
          <Row>
            <Measure
              label="Or one tab every"
              mm={cutting.tabs.spacingMm || null}
              unit={job.unit}
              onMm={(spacingMm) => set({ tabs: { ...cutting.tabs, spacingMm } })}
              onEmpty={() => set({ tabs: { ...cutting.tabs, spacingMm: 0 } })}
              placeholder="no"
            />
            <Measure
              label="Tab width"
              mm={cutting.tabs.widthMm}
              unit={job.unit}
              onMm={(widthMm) => set({ tabs: { ...cutting.tabs, widthMm } })}
            />
          </Row>
          <StartPlace cutting={cutting} onCutting={set} />
        </Box>
      </Section>
      {purposes.includes('perforate') && (
        <Section title="Perforation">
          <Box sx={{ mt: 1 }}>
            <Row>
              <Measure
                label="Cut"
                mm={cutting.perforation.cutMm}
                unit={job.unit}
                onMm={(cutMm) => set({ perforation: { ...cutting.perforation, cutMm } })}
              />
              <Measure
                label="Gap between cuts"
                mm={cutting.perforation.leftMm}
                unit={job.unit}
                onMm={(leftMm) => set({ perforation: { ...cutting.perforation, leftMm } })}
              />
            </Row>
          </Box>
        </Section>
      )}
      {purposes.includes('pocket') && (
        <Section title="Fill (hatch)">
          <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
            <Row>
              <NumberField
                label="Angle"
                value={(cutting.hatch.angle * 180) / Math.PI}
                digits={2}
                unit="°"
                onNumber={(d) => set({ hatch: { ...cutting.hatch, angle: (d * Math.PI) / 180 } })}
              />
              <Measure
                label="Line spacing"
                mm={cutting.hatch.spacingMm}
                unit={job.unit}
                onMm={(spacingMm) => set({ hatch: { ...cutting.hatch, spacingMm } })}
              />
            </Row>
            <Measure
              label="Overscan"
              mm={cutting.hatch.airMm}
              unit={job.unit}
              range="any"
              onMm={(v) => set({ hatch: { ...cutting.hatch, airMm: Math.max(0, v) } })}
            />
          </Box>
        </Section>
      )}
      {purposes.length > 0 && (
        <Section title="Power and speed">
          {purposes.map((purpose) => (
            <StrengthRow key={purpose} purpose={purpose} cutting={cutting} onCutting={set} />
          ))}
        </Section>
      )}
    </>
  );
}

function PlanSection() {
  const { plan, planning } = usePlanned();
  const { kerfMm } = useJob((s) => s.job.setup.cutting);
  const seconds = plan ? plan.travelSeconds + plan.purposes.reduce((sum, p) => sum + p.seconds, 0) : 0;
  return (
    <Section title="The cut">
      {planning !== null && (
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
          <LinearProgress variant="determinate" value={100 * planning} sx={{ flex: 1 }} aria-label="Planning the cut" />
          <Button size="small" onClick={stopPlanning}>
            Stop
          </Button>
        </Box>
      )}
      {plan && (
        <>
          {plan.lost.map(({ message }) => (
            <Alert key={message} severity="warning" variant="outlined" sx={{ my: 0.5 }}>
              {message}
            </Alert>
          ))}
          {plan.purposes.map(({ purpose, lengthMm, seconds: s }) => (
            <Reading key={purpose} name={purposeWords[purpose]}>
              {(lengthMm / 1000).toFixed(2)} m · {inTime(s)}
            </Reading>
          ))}
          <Reading name="Between">
            {(plan.travelMm / 1000).toFixed(2)} m · {inTime(plan.travelSeconds)}
          </Reading>
          <Reading name="In all, about">{inTime(seconds)}</Reading>
          <Typography variant="caption" color="textSecondary" sx={{ display: 'block' }}>
            {plan.runs.length} {plan.runs.length === 1 ? 'toolpath' : 'toolpaths'}, inside first. In drawing order it would be{' '}
            {(plan.travelBeforeMm / 1000).toFixed(2)} m between them.
            {kerfMm > 0 ? ` Outer outlines lie ${kerfMm / 2} mm out, holes as much in.` : ' No kerf is taken off.'}
          </Typography>
        </>
      )}
    </Section>
  );
}

function StartPlace({ cutting, onCutting }: { cutting: Cutting; onCutting: (change: Partial<Cutting>) => void }) {
  const unit = useJob((s) => s.job.unit);
  const { start } = cutting;
  return (
    <>
      <Pick
        label="Outlines start"
        value={start === 'corner' ? 'corner' : 'place'}
        words={{ corner: 'At a corner, where it shows least', place: 'Nearest to a place' }}
        onPick={(kind) => onCutting({ start: kind === 'corner' ? 'corner' : { x: 0, y: 0 } })}
      />
      {start !== 'corner' && (
        <Row>
          <Measure label="x" mm={start.x} unit={unit} range="any" onMm={(x) => onCutting({ start: { ...start, x } })} />
          <Measure label="y" mm={start.y} unit={unit} range="any" onMm={(y) => onCutting({ start: { ...start, y } })} />
        </Row>
      )}
    </>
  );
}

function StrengthRow({
  purpose,
  cutting,
  onCutting,
}: {
  purpose: Purpose;
  cutting: Cutting;
  onCutting: (change: Partial<Cutting>) => void;
}) {
  const own = strengthOf(cutting, purpose);
  const set = (change: Partial<typeof own>) => onCutting({ strengths: { ...cutting.strengths, [purpose]: { ...own, ...change } } });
  return (
    <Box role="group" aria-label={purposeWords[purpose]} sx={{ my: 1 }}>
      <Typography variant="body2" sx={{ fontWeight: 600, mb: 0.75 }}>
        {purposeWords[purpose]}
      </Typography>
      <Row>
        <NumberField
          label="Power"
          value={100 * own.strength}
          digits={1}
          unit="%"
          onNumber={(n) => set({ strength: Math.min(1, Math.max(0, n / 100)) })}
        />
        <NumberField
          label="Speed"
          value={own.speedMmPerMin}
          digits={0}
          unit="mm/min"
          onNumber={(n) => n > 0 && set({ speedMmPerMin: Math.min(200_000, n) })}
        />
        <NumberField
          label="Passes"
          value={own.passes}
          digits={0}
          unit="no."
          onNumber={(n) => set({ passes: Math.min(100, Math.max(1, Math.round(n))) })}
        />
      </Row>
    </Box>
  );
}
