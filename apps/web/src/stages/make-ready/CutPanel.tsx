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
import { words } from '@/words';
import { told } from '@/words/told';
import { Reading, Section } from '../Docket';
import { useJob } from '../job-store';
import { Measure, Pick, Row } from '../trace/hand/Rows';
import { KerfGauge } from './KerfGauge';
import { StockSection } from './StockSection';
import { stopPlanning, usePlanned } from './use-plan';

const purposeWords: Record<Purpose, string> = {
  cut: words.makeReady.cut,
  score: words.makeReady.score,
  perforate: words.makeReady.perforate,
  engrave: words.makeReady.engrave,
  pocket: words.makeReady.fillPocket,
  stitch: words.makeReady.stitch,
  guide: words.makeReady.guide,
};

/** Seconds as people say them. */
export function inTime(seconds: number): string {
  const whole = Math.round(seconds);
  const [h, m, s] = [Math.floor(whole / 3600), Math.floor((whole % 3600) / 60), whole % 60];
  return h > 0
    ? words.makeReady.hoursAndMinutes(h, m)
    : m > 0
      ? words.makeReady.minutesAndSeconds(m, s)
      : `${seconds < 10 ? seconds.toFixed(1) : s} s`;
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
      <Section title={words.makeReady.kerf}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Row>
            <Measure
              label={words.makeReady.kerf}
              mm={cutting.kerfMm}
              unit={job.unit}
              range="any"
              onMm={(kerfMm) => set({ kerfMm: Math.max(0, kerfMm) })}
            />
            <Pick
              label={words.makeReady.corners}
              value={cutting.corners}
              words={{ round: words.makeReady.round, mitre: words.makeReady.mitred }}
              onPick={(corners) => set({ corners })}
            />
          </Row>
          <KerfGauge />
        </Box>
      </Section>
      <Section title={words.makeReady.leadsAndTabs}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Pick
            label={words.makeReady.lead}
            value={cutting.lead.kind}
            words={{ none: words.makeReady.noLead, line: words.makeReady.straightLead, arc: words.makeReady.arcLead }}
            onPick={(kind) => set({ lead: { ...cutting.lead, kind } })}
          />
          {cutting.lead.kind !== 'none' && (
            <Row>
              <Measure
                label={words.makeReady.leadIn}
                mm={cutting.lead.inMm}
                unit={job.unit}
                range="any"
                onMm={(v) => set({ lead: { ...cutting.lead, inMm: Math.max(0, v) } })}
              />
              <Measure
                label={words.makeReady.leadOut}
                mm={cutting.lead.outMm}
                unit={job.unit}
                range="any"
                onMm={(v) => set({ lead: { ...cutting.lead, outMm: Math.max(0, v) } })}
              />
            </Row>
          )}
          <Row>
            <Measure
              label={words.makeReady.overcut}
              mm={cutting.overcutMm}
              unit={job.unit}
              range="any"
              onMm={(v) => set({ overcutMm: Math.max(0, v) })}
            />
            <NumberField
              label={words.makeReady.bridges}
              value={cutting.tabs.count}
              digits={0}
              unit={words.makeReady.aPiece}
              onNumber={(n) => set({ tabs: { ...cutting.tabs, count: Math.max(0, Math.min(200, Math.round(n))) } })}
            />
          </Row>
          <Row>
            <Measure
              label={words.makeReady.orOneTabEvery}
              mm={cutting.tabs.spacingMm || null}
              unit={job.unit}
              onMm={(spacingMm) => set({ tabs: { ...cutting.tabs, spacingMm } })}
              onEmpty={() => set({ tabs: { ...cutting.tabs, spacingMm: 0 } })}
              placeholder={words.makeReady.noTabs}
            />
            <Measure
              label={words.makeReady.tabWidth}
              mm={cutting.tabs.widthMm}
              unit={job.unit}
              onMm={(widthMm) => set({ tabs: { ...cutting.tabs, widthMm } })}
            />
          </Row>
          <StartPlace cutting={cutting} onCutting={set} />
        </Box>
      </Section>
      {purposes.includes('perforate') && (
        <Section title={words.makeReady.perforation}>
          <Box sx={{ mt: 1 }}>
            <Row>
              <Measure
                label={words.makeReady.cut}
                mm={cutting.perforation.cutMm}
                unit={job.unit}
                onMm={(cutMm) => set({ perforation: { ...cutting.perforation, cutMm } })}
              />
              <Measure
                label={words.makeReady.gapBetweenCuts}
                mm={cutting.perforation.leftMm}
                unit={job.unit}
                onMm={(leftMm) => set({ perforation: { ...cutting.perforation, leftMm } })}
              />
            </Row>
          </Box>
        </Section>
      )}
      {purposes.includes('pocket') && (
        <Section title={words.makeReady.fillHatch}>
          <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
            <Row>
              <NumberField
                label={words.makeReady.angle}
                value={(cutting.hatch.angle * 180) / Math.PI}
                digits={2}
                unit="°"
                onNumber={(d) => set({ hatch: { ...cutting.hatch, angle: (d * Math.PI) / 180 } })}
              />
              <Measure
                label={words.makeReady.lineSpacing}
                mm={cutting.hatch.spacingMm}
                unit={job.unit}
                onMm={(spacingMm) => set({ hatch: { ...cutting.hatch, spacingMm } })}
              />
            </Row>
            <Measure
              label={words.makeReady.overscan}
              mm={cutting.hatch.airMm}
              unit={job.unit}
              range="any"
              onMm={(v) => set({ hatch: { ...cutting.hatch, airMm: Math.max(0, v) } })}
            />
          </Box>
        </Section>
      )}
      {purposes.length > 0 && (
        <Section title={words.makeReady.powerAndSpeed}>
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
    <Section title={words.makeReady.theCut}>
      {planning !== null && (
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
          <LinearProgress variant="determinate" value={100 * planning} sx={{ flex: 1 }} aria-label={words.makeReady.planningTheCut} />
          <Button size="small" onClick={stopPlanning}>
            {words.makeReady.stop}
          </Button>
        </Box>
      )}
      {plan && (
        <>
          {plan.lost.map(({ message, said }) => (
            <Alert key={message} severity="warning" variant="outlined" sx={{ my: 0.5 }}>
              {told(said)}
            </Alert>
          ))}
          {plan.purposes.map(({ purpose, lengthMm, seconds: s }) => (
            <Reading key={purpose} name={purposeWords[purpose]}>
              {words.makeReady.lengthAndTime((lengthMm / 1000).toFixed(2), inTime(s))}
            </Reading>
          ))}
          <Reading name={words.makeReady.between}>
            {words.makeReady.travelAndTime((plan.travelMm / 1000).toFixed(2), inTime(plan.travelSeconds))}
          </Reading>
          <Reading name={words.makeReady.inAllAbout}>{inTime(seconds)}</Reading>
          <Typography variant="caption" color="textSecondary" sx={{ display: 'block' }}>
            {words.makeReady.planNote(plan.runs.length, (plan.travelBeforeMm / 1000).toFixed(2), kerfMm, kerfMm / 2)}
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
        label={words.makeReady.outlinesStart}
        value={start === 'corner' ? 'corner' : 'place'}
        words={{ corner: words.makeReady.atACorner, place: words.makeReady.nearestToAPlace }}
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
          label={words.makeReady.power}
          value={100 * own.strength}
          digits={1}
          unit="%"
          onNumber={(n) => set({ strength: Math.min(1, Math.max(0, n / 100)) })}
        />
        <NumberField
          label={words.makeReady.speed}
          value={own.speedMmPerMin}
          digits={0}
          unit="mm/min"
          onNumber={(n) => n > 0 && set({ speedMmPerMin: Math.min(200_000, n) })}
        />
        <NumberField
          label={words.makeReady.passes}
          value={own.passes}
          digits={0}
          unit={words.makeReady.times}
          onNumber={(n) => set({ passes: Math.min(100, Math.max(1, Math.round(n))) })}
        />
      </Row>
    </Box>
  );
}
