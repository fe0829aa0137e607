'use client';
/** The hot wire: how it cuts, and formers sent to it, each cut out of a block of its own and measured. */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { FoamPlan, FoamSettings, Slice } from '@nuvet/core/foam';
import { identity, pathLength } from '@nuvet/core/plane';
import { useEffect } from 'react';
import { useJob } from '@/job/job-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { maker } from '@/workers/maker.client';
import { MachineRun } from '../machine/MachineRun';
import { useCutter } from '../machine/use-cutter';
import { PlanFault } from '../PlanFault';
import type { PanelProps } from '../process-view';
import { setWire, useWire } from './wire-store';

const say = words.foam;
const all = 'all';

export function WirePanel({ open, pieces, jobId, hasCutter, isStopped }: PanelProps<FoamSettings, FoamPlan>) {
  const unit = useJob((s) => s.job.unit);
  const { plan, settings, set } = open;
  return (
    <>
      <Section title={say.wire}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Row>
            <NumberField
              label={say.wireFeed}
              value={settings.wireFeedMmPerMin}
              digits={0}
              unit={say.mmPerMin}
              least={1}
              most={10_000}
              onNumber={(n) => set({ wireFeedMmPerMin: n })}
            />
            <Measure
              label={say.wireBurn}
              mm={settings.wireBurnMm}
              unit={unit}
              range="from zero"
              most={20}
              onMm={(mm) => set({ wireBurnMm: mm })}
            />
          </Row>
          <Measure label={say.towers} mm={settings.towersMm} unit={unit} least={10} most={20_000} onMm={(mm) => set({ towersMm: mm })} />
        </Box>
      </Section>
      <PlanFault />
      {hasCutter && plan ? (
        <Run open={open} plan={plan} pieces={pieces} jobId={jobId} isStopped={isStopped} />
      ) : (
        <Alert severity="info" variant="outlined">
          {hasCutter ? say.planFirst : say.noWire}
        </Alert>
      )}
    </>
  );
}

interface RunProps extends Omit<PanelProps<FoamSettings, FoamPlan>, 'hasCutter'> {
  readonly plan: FoamPlan;
}

function Run({ open, plan, pieces, jobId, isStopped }: RunProps) {
  const { settings, entry } = open;
  const title = useJob((s) => s.job.name);
  const cutter = useCutter(jobId, entry.id, identity);
  const chosen = useWire((s) => s.chosen);
  const begun = useWire((s) => s.begun);
  const isOne = plan.slices.some(({ number }) => number === chosen);
  const slices = isOne ? plan.slices.filter(({ number }) => number === chosen) : plan.slices;
  const { wired = [], program = 0 } = cutter.seen ?? {};
  const under = cutter.seen ? (begun[program] ?? null) : null;
  useEffect(() => setWire({ under }), [under]);
  const choices = { [all]: say.allFormers, ...Object.fromEntries(plan.slices.map(({ number }) => [number, say.formerNumber(number)])) };
  return (
    <>
      <MachineRun
        title={say.wirePanel}
        about={say.wireAbout}
        begin={say.cutThem}
        atWork={say.isCutting}
        onWhat={say.onTheBlock}
        seconds={(60 * slices.reduce((sum, slice) => sum + around(slice), 0)) / settings.wireFeedMmPerMin}
        canBegin={!isStopped}
        cutter={cutter}
        job={() =>
          maker().standIn(entry.process, { title, pieces, settings, machine: entry.machine, stock: open.stock }, { ...plan, slices })
        }
        onBegun={() => setWire({ begun: slices.map(({ number }) => number) })}
      >
        <Box sx={{ mt: 1.25 }}>
          <Pick
            label={say.which}
            value={isOne ? String(chosen) : all}
            words={choices}
            onPick={(which) => setWire({ chosen: which === all ? null : Number(which) })}
          />
        </Box>
      </MachineRun>
      {wired.length > 0 && (
        <Section title={say.leftOff}>
          <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1 }}>
            {say.leftOffAbout}
          </Typography>
          {wired.map((one, k) => (
            <Reading key={begun[k] ?? k} name={say.formerNumber(begun[k] ?? k + 1)}>
              {one ? say.millimetres(Math.max(one.leftOffMm, one.middleOffMm, one.rightOffMm).toFixed(3)) : say.notMeasured}
            </Reading>
          ))}
        </Section>
      )}
    </>
  );
}

/** About how far the wire goes round a former, mm. */
const around = ({ outline, holes }: Slice): number => [outline, ...holes].reduce((sum, path) => sum + pathLength(path), 0);
