'use client';
/** The body: which outlines are its views, the rule of its sections, and what it comes to. */
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { type FoamPlan, type FoamSettings, noView } from '@nuvet/core/foam';
import { printBoth } from '@nuvet/core/length';
import { useJob } from '@/job/job-store';
import { NumberField } from '@/ui/NumberField';
import { Pick, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { OutlinePick } from '../OutlinePick';
import { PlanFault } from '../PlanFault';
import { PlanNotes } from '../PlanNotes';
import type { PanelProps } from '../process-view';

const say = words.foam;
const typedAxis = 'typed';

export function BodyPanel({ open: { settings, set, plan }, pieces }: PanelProps<FoamSettings, FoamPlan>) {
  const unit = useJob((s) => s.job.unit);
  const lines = pieces.filter(({ outer }) => !outer.closed);
  const views = pieces.filter(({ outer }) => outer.closed);
  /** A line that is gone counts as none. */
  const axisLine = (id: string | null): string => lines.find((line) => line.id === id)?.id ?? typedAxis;
  return (
    <>
      <Section title={say.views}>
        <Typography variant="caption" color="textSecondary">
          {say.viewsAbout}
        </Typography>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <OutlinePick
            label={say.side}
            pieces={views}
            value={settings.sideId ?? plan?.sideId ?? null}
            onPick={(sideId) => set({ sideId })}
          />
          <OutlinePick
            label={say.above}
            pieces={views}
            value={settings.aboveId ?? plan?.aboveId ?? noView}
            also={{ [noView]: settings.frontId ? say.noneAsFront : say.noneAsHigh }}
            onPick={(aboveId) => set({ aboveId })}
          />
          <OutlinePick
            label={say.front}
            pieces={views}
            value={settings.frontId ?? noView}
            also={{ [noView]: say.noneByRule }}
            onPick={(id) => set({ frontId: id === noView ? null : id })}
          />
          <Row>
            <NumberField
              label={say.sideAxis}
              value={settings.sideAxis}
              digits={2}
              unit="°"
              least={-90}
              most={90}
              onNumber={(n) => set({ sideAxis: n })}
            />
            <NumberField
              label={say.aboveAxis}
              value={settings.aboveAxis}
              digits={2}
              unit="°"
              least={-90}
              most={90}
              onNumber={(n) => set({ aboveAxis: n })}
            />
          </Row>
          {lines.length > 0 && (
            <Row>
              <OutlinePick
                label={say.sideAxisLine}
                pieces={lines}
                value={axisLine(settings.sideAxisId)}
                also={{ [typedAxis]: say.byDegrees }}
                onPick={(id) => set({ sideAxisId: id === typedAxis ? null : id })}
              />
              <OutlinePick
                label={say.aboveAxisLine}
                pieces={lines}
                value={axisLine(settings.aboveAxisId)}
                also={{ [typedAxis]: say.byDegrees }}
                onPick={(id) => set({ aboveAxisId: id === typedAxis ? null : id })}
              />
            </Row>
          )}
          <Pick label={say.nose} value={settings.nose} words={say.noses} onPick={(nose) => set({ nose })} />
        </Box>
      </Section>
      {settings.frontId ? (
        <Section title={say.sections}>
          <Typography variant="caption" color="textSecondary">
            {say.ofTheFront}
          </Typography>
        </Section>
      ) : (
        <Rule settings={settings} set={set} />
      )}
      <PlanFault />
      {plan && (
        <Section title={say.measures}>
          <Reading name={say.length}>{printBoth(plan.lengthMm, unit)}</Reading>
          <Reading name={words.makeReady.wide}>{printBoth(plan.widthMm, unit)}</Reading>
          <Reading name={words.makeReady.high}>{printBoth(plan.heightMm, unit)}</Reading>
          <Reading name={say.volume}>{say.litres((plan.bodyMm3 / 1e6).toFixed(2))}</Reading>
          <PlanNotes notes={plan.notes} />
        </Section>
      )}
    </>
  );
}

/** The rule that all sections follow. */
function Rule({ settings, set }: Pick<PanelProps<FoamSettings, FoamPlan>['open'], 'settings' | 'set'>) {
  return (
    <Section title={say.sections}>
      <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
        <Row>
          <NumberField
            label={say.topExponent}
            value={settings.topExponent}
            digits={2}
            unit={say.twoIsEllipse}
            least={1}
            most={8}
            onNumber={(n) => set({ topExponent: n })}
          />
          <NumberField
            label={say.bottomExponent}
            value={settings.bottomExponent}
            digits={2}
            unit={say.twoIsEllipse}
            least={1}
            most={8}
            onNumber={(n) => set({ bottomExponent: n })}
          />
        </Row>
        <NumberField
          label={say.widestAt}
          value={100 * settings.widestAt}
          digits={0}
          unit="%"
          least={0}
          most={95}
          onNumber={(n) => set({ widestAt: n / 100 })}
        />
      </Box>
    </Section>
  );
}
