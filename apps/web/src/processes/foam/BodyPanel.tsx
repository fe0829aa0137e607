'use client';
/** The body: which outlines are its views, the rule of its sections, and what it comes to. */
import Box from '@mui/material/Box';
import { type FoamPlan, type FoamSettings, noView } from '@nuvet/core/foam';
import type { Piece } from '@nuvet/core/job';
import { printBoth } from '@nuvet/core/length';
import { useJob } from '@/job/job-store';
import { NumberField } from '@/ui/NumberField';
import { Pick, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { PlanFault } from '../PlanFault';
import { PlanNotes } from '../PlanNotes';
import type { PanelProps } from '../process-view';

const say = words.foam;
/** More outlines than this are no list to choose from. */
const mostListed = 60;

export function BodyPanel({ open: { settings, set, plan }, pieces }: PanelProps<FoamSettings, FoamPlan>) {
  const unit = useJob((s) => s.job.unit);
  const lines = pieces.filter(({ outer, leftOut }) => !outer.closed && !leftOut).slice(0, mostListed);
  const views = pieces.filter(({ outer, leftOut }) => outer.closed && !leftOut).slice(0, mostListed);
  return (
    <>
      <Section title={say.views}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <ViewPick label={say.side} views={views} value={settings.sideId ?? plan?.sideId ?? null} onView={(sideId) => set({ sideId })} />
          <ViewPick
            label={say.above}
            views={views}
            value={settings.aboveId ?? plan?.aboveId ?? noView}
            none={say.noneAsHigh}
            onView={(aboveId) => set({ aboveId })}
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
              <AxisPick label={say.sideAxisLine} lines={lines} value={settings.sideAxisId} onAxis={(sideAxisId) => set({ sideAxisId })} />
              <AxisPick
                label={say.aboveAxisLine}
                lines={lines}
                value={settings.aboveAxisId}
                onAxis={(aboveAxisId) => set({ aboveAxisId })}
              />
            </Row>
          )}
          <Pick label={say.nose} value={settings.nose} words={say.noses} onPick={(nose) => set({ nose })} />
        </Box>
      </Section>
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

interface AxisPickProps {
  readonly label: string;
  readonly lines: readonly Piece[];
  readonly value: string | null;
  readonly onAxis: (id: string | null) => void;
}

const typedAxis = 'typed';

function AxisPick({ label, lines, value, onAxis }: AxisPickProps) {
  const known = { [typedAxis]: say.byDegrees, ...Object.fromEntries(lines.map(({ id, name }) => [id, name])) };
  return (
    <Pick
      label={label}
      value={value !== null && value in known ? value : typedAxis}
      words={known}
      onPick={(id) => onAxis(id === typedAxis ? null : id)}
    />
  );
}

interface ViewPickProps {
  readonly label: string;
  readonly views: readonly Piece[];
  readonly value: string | null;
  /** The word for no view, where there need be none. */
  readonly none?: string;
  readonly onView: (id: string) => void;
}

function ViewPick({ label, views, value, none, onView }: ViewPickProps) {
  const known = { ...(none && { [noView]: none }), ...Object.fromEntries(views.map(({ id, name }) => [id, name])) };
  return (
    <Pick
      label={label}
      value={value !== null && value in known ? value : ''}
      words={value !== null && value in known ? known : { '': say.notYet, ...known }}
      onPick={onView}
    />
  );
}
