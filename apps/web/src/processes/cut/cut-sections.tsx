'use client';
/**
 * Sections that processes share that cut along outlines: the plan, leads and tabs, perforation, hatch, power and speed.
 */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import type { Piece } from '@nuvet/core/job';
import { type CutPlan, type Cutting, powerSettingOf } from '@nuvet/core/make';
import { type AnyProcess, meaningOf } from '@nuvet/core/processes';
import { useJob } from '@/job/job-store';
import { useMaking } from '@/table/making-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { purposeHeadings } from '@/words/purposes';
import { told } from '@/words/told';
import type { OpenProcess } from '../process-view';
import { stopPlanning } from '../stop-planning';

const say = words.makeReady;

/** Seconds as people say them. */
export function inTime(seconds: number): string {
  const whole = Math.round(seconds);
  const [h, m, s] = [Math.floor(whole / 3600), Math.floor((whole % 3600) / 60), whole % 60];
  if (h > 0) return say.hoursAndMinutes(h, m);
  if (m > 0) return say.minutesAndSeconds(m, s);
  return `${seconds < 10 ? seconds.toFixed(1) : s} s`;
}

/** How far and how long the tool goes; @param kerfMm null where the process takes nothing away */
export function PlanSection({ open, kerfMm }: { open: OpenProcess<object, CutPlan>; kerfMm: number | null }) {
  const planning = useMaking((s) => s.planning);
  const { plan, notes, estimate } = open;
  return (
    <Section title={say.theCut}>
      {planning !== null && (
        <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
          <LinearProgress variant="determinate" value={100 * planning} sx={{ flex: 1 }} aria-label={say.planningTheCut} />
          <Button size="small" onClick={stopPlanning}>
            {say.stop}
          </Button>
        </Box>
      )}
      {plan && (
        <>
          {notes.map(({ message, said }) => (
            <Alert key={message} severity="warning" variant="outlined" sx={{ my: 0.5 }}>
              {told(said)}
            </Alert>
          ))}
          {plan.purposes.map(({ purpose, lengthMm, seconds: s }) => (
            <Reading key={purpose} name={purposeHeadings[purpose]}>
              {say.lengthAndTime((lengthMm / 1000).toFixed(2), inTime(s))}
            </Reading>
          ))}
          <Reading name={say.between}>{say.travelAndTime((plan.travelMm / 1000).toFixed(2), inTime(plan.travelSeconds))}</Reading>
          <Reading name={say.inAllAbout}>{inTime(estimate?.seconds ?? 0)}</Reading>
          <Typography variant="caption" color="textSecondary" sx={{ display: 'block' }}>
            {say.planNote(plan.runs.length, (plan.travelBeforeMm / 1000).toFixed(2))}
            {kerfMm === null ? '' : kerfMm > 0 ? say.kerfTaken(kerfMm / 2) : say.noKerfTaken}
          </Typography>
        </>
      )}
    </Section>
  );
}

interface Part<K extends keyof Cutting> {
  readonly cutting: globalThis.Pick<Cutting, K>;
  readonly onCutting: (change: Partial<globalThis.Pick<Cutting, K>>) => void;
}

export function LeadFields({ cutting: { lead }, onCutting }: Part<'lead'>) {
  const unit = useJob((s) => s.job.unit);
  return (
    <>
      <Pick
        label={say.lead}
        value={lead.kind}
        words={{ none: say.noLead, line: say.straightLead, arc: say.arcLead }}
        onPick={(kind) => onCutting({ lead: { ...lead, kind } })}
      />
      {lead.kind !== 'none' && (
        <Row>
          <Measure
            label={say.leadIn}
            mm={lead.inMm}
            unit={unit}
            range="from zero"
            onMm={(v) => onCutting({ lead: { ...lead, inMm: v } })}
          />
          <Measure
            label={say.leadOut}
            mm={lead.outMm}
            unit={unit}
            range="from zero"
            onMm={(v) => onCutting({ lead: { ...lead, outMm: v } })}
          />
        </Row>
      )}
    </>
  );
}

export function OvercutAndTabs({ cutting: { overcutMm, tabs, start }, onCutting }: Part<'overcutMm' | 'tabs' | 'start'>) {
  const unit = useJob((s) => s.job.unit);
  return (
    <>
      <Row>
        <Measure label={say.overcut} mm={overcutMm} unit={unit} range="from zero" onMm={(v) => onCutting({ overcutMm: v })} />
        <NumberField
          label={say.tabs}
          value={tabs.count}
          digits={0}
          unit={say.aPiece}
          least={0}
          most={200}
          onNumber={(n) => onCutting({ tabs: { ...tabs, count: Math.round(n) } })}
        />
      </Row>
      <Row>
        <Measure
          label={say.orOneTabEvery}
          mm={tabs.spacingMm || null}
          unit={unit}
          onMm={(spacingMm) => onCutting({ tabs: { ...tabs, spacingMm } })}
          onEmpty={() => onCutting({ tabs: { ...tabs, spacingMm: 0 } })}
          placeholder={say.noTabs}
        />
        <Measure label={say.tabWidth} mm={tabs.widthMm} unit={unit} onMm={(widthMm) => onCutting({ tabs: { ...tabs, widthMm } })} />
      </Row>
      <Pick
        label={say.outlinesStart}
        value={start === 'corner' ? 'corner' : 'place'}
        words={{ corner: say.atACorner, place: say.nearestToAPlace }}
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

export function PerforationSection({ cutting: { perforation }, onCutting }: Part<'perforation'>) {
  const unit = useJob((s) => s.job.unit);
  return (
    <Section title={say.perforation}>
      <Box sx={{ mt: 1 }}>
        <Row>
          <Measure
            label={say.cut}
            mm={perforation.cutMm}
            unit={unit}
            onMm={(cutMm) => onCutting({ perforation: { ...perforation, cutMm } })}
          />
          <Measure
            label={say.gapBetweenCuts}
            mm={perforation.leftMm}
            unit={unit}
            onMm={(leftMm) => onCutting({ perforation: { ...perforation, leftMm } })}
          />
        </Row>
      </Box>
    </Section>
  );
}

export function HatchSection({ cutting: { hatch }, onCutting }: Part<'hatch'>) {
  const unit = useJob((s) => s.job.unit);
  return (
    <Section title={say.fillHatch}>
      <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
        <Row>
          <NumberField
            label={say.angle}
            value={(hatch.angle * 180) / Math.PI}
            digits={2}
            unit="°"
            onNumber={(d) => onCutting({ hatch: { ...hatch, angle: (d * Math.PI) / 180 } })}
          />
          <Measure
            label={say.lineSpacing}
            mm={hatch.spacingMm}
            unit={unit}
            onMm={(spacingMm) => onCutting({ hatch: { ...hatch, spacingMm } })}
          />
        </Row>
        <Measure
          label={say.overscan}
          mm={hatch.overscanMm}
          unit={unit}
          range="from zero"
          onMm={(v) => onCutting({ hatch: { ...hatch, overscanMm: v } })}
        />
      </Box>
    </Section>
  );
}

/** Of each purpose that the process makes of these pieces; @param powerWord the beam's power, the blade's pressure */
export function PowerSection({
  title,
  powerWord,
  pieces,
  kind,
  cutting,
  onCutting,
}: Part<'powerSettings'> & {
  readonly title: string;
  readonly powerWord: string;
  readonly pieces: readonly Piece[];
  readonly kind: Pick<AnyProcess, 'makes' | 'purposes'>;
}) {
  const purposes = [...new Set(pieces.map((p) => p.purpose))].filter((purpose) => meaningOf(kind, purpose) !== null);
  if (purposes.length === 0) return null;
  return (
    <Section title={title}>
      {purposes.map((purpose) => {
        const own = powerSettingOf(cutting, purpose);
        const set = (change: Partial<typeof own>) =>
          onCutting({ powerSettings: { ...cutting.powerSettings, [purpose]: { ...own, ...change } } });
        return (
          <Box key={purpose} role="group" aria-label={purposeHeadings[purpose]} sx={{ my: 1 }}>
            <Typography variant="body2" sx={{ fontWeight: 600 }}>
              {purposeHeadings[purpose]}
            </Typography>
            <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 0.75 }}>
              {meaningOf(kind, purpose)}
            </Typography>
            <Row>
              <NumberField
                label={powerWord}
                value={100 * own.power}
                digits={1}
                unit="%"
                least={0}
                most={100}
                onNumber={(n) => set({ power: n / 100 })}
              />
              <NumberField
                label={say.speed}
                value={own.speedMmPerMin}
                digits={0}
                unit="mm/min"
                least={1}
                most={200_000}
                onNumber={(n) => set({ speedMmPerMin: n })}
              />
              <NumberField
                label={say.passes}
                value={own.passes}
                digits={0}
                unit={say.times}
                least={1}
                most={100}
                onNumber={(n) => set({ passes: Math.round(n) })}
              />
            </Row>
          </Box>
        );
      })}
    </Section>
  );
}
