'use client';
/**
 * What the machine expects: unit, direction of y, origin, tolerance; remembered by the machine's name.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { Machine } from '@nuvet/core/job';
import { NumberField } from '@/ui/NumberField';
import { words } from '@/words';
import { Section } from '../Docket';
import { useJob } from '../job-store';
import { Measure, Pick, Row } from '../trace/hand/Rows';
import { PresetName } from './PresetName';
import { usePresets } from './use-presets';

export function MachineSection() {
  const { machine } = useJob((s) => s.job.setup);
  const unit = useJob((s) => s.job.unit);
  const run = useJob((s) => s.run);
  const { presets, keep, named, message } = usePresets();
  const set = (change: Partial<Machine>) => run({ do: 'set-up', change: { machine: { ...machine, ...change } } });
  const machines = presets.filter((p) => p.kind === 'machine');
  const call = async (next: string) => {
    const wanted = next.trim().slice(0, 60);
    if (!wanted || wanted === machine.name) return;
    const known = await named('machine', wanted);
    if (known?.kind === 'machine') run({ do: 'set-up', change: { machine: known.value } });
    else set({ name: wanted });
  };
  return (
    <Section title={words.makeReady.machineSettings}>
      <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
        <PresetName
          label={words.makeReady.machine}
          name={machine.name}
          known={machines.map((p) => p.name)}
          longest={60}
          onName={(next) => void call(next)}
        />
        <Row>
          <Pick
            label={words.makeReady.unit}
            value={machine.unit}
            words={{ mm: words.makeReady.millimetres, in: words.makeReady.inches }}
            onPick={(u) => set({ unit: u })}
          />
          <Pick
            label={words.makeReady.yAxisPoints}
            value={machine.y}
            words={{ up: words.makeReady.up, down: words.makeReady.down }}
            onPick={(y) => set({ y })}
          />
        </Row>
        <Row>
          <Pick
            label={words.makeReady.originAt}
            value={machine.origin}
            words={{
              'lower-left': words.makeReady.lowerLeft,
              'upper-left': words.makeReady.upperLeft,
              centre: words.makeReady.theMiddle,
              sheet: words.makeReady.asOnTheSheet,
            }}
            onPick={(origin) => set({ origin })}
          />
          <Measure
            label={words.makeReady.curveTolerance}
            mm={machine.toleranceMm}
            unit={unit}
            onMm={(mm) => set({ toleranceMm: Math.min(1, Math.max(0.0005, mm)) })}
          />
        </Row>
        <Pick
          label={words.makeReady.curvesInDxf}
          value={machine.dxf}
          words={{
            arcs: words.makeReady.arcsInClosedPolylines,
            splines: words.makeReady.splines,
            plain: words.makeReady.plainFileForOldControllers,
          }}
          onPick={(dxf) => set({ dxf })}
        />
        <Row>
          <NumberField
            label={words.makeReady.sAtFullPower}
            value={machine.fullS}
            digits={0}
            unit={words.makeReady.spindleWord}
            onNumber={(n) => n > 0 && set({ fullS: Math.min(100_000, n) })}
          />
          <Pick
            label={words.makeReady.power}
            value={machine.followsSpeed ? 'follows' : 'stays'}
            words={{ follows: words.makeReady.scaledWithSpeedM4, stays: words.makeReady.constantM3 }}
            onPick={(v) => set({ followsSpeed: v === 'follows' })}
          />
        </Row>
        <Row>
          <NumberField
            label={words.makeReady.rapidSpeed}
            value={machine.travelMmPerMin}
            digits={0}
            unit="mm/min"
            onNumber={(n) => n > 0 && set({ travelMmPerMin: Math.min(500_000, n) })}
          />
          <NumberField
            label={words.makeReady.acceleration}
            value={machine.accelerationMmPerS2}
            digits={0}
            unit="mm/s²"
            onNumber={(n) => n > 0 && set({ accelerationMmPerS2: Math.min(100_000, n) })}
          />
        </Row>
        <Button size="small" onClick={() => void keep({ kind: 'machine', name: machine.name, value: machine })}>
          {words.makeReady.rememberThisMachine}
        </Button>
        {message && (
          <Typography variant="caption" role="status" color="textSecondary">
            {message}
          </Typography>
        )}
      </Box>
    </Section>
  );
}
