'use client';
/**
 * The machine that a process is done on: a machine of the shelf, or one that is set up here and put there.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { Machine } from '@nuvet/core/job';
import { machineCommand, shelfMachineFrom } from '@nuvet/core/shelf';
import { useState } from 'react';
import { ShelfName } from '@/shelf/ShelfName';
import { ofKind, putOnShelf, readShelf, useShelf } from '@/shelf/shelf-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { useJob } from '../../job/job-store';
import type { OpenProcess } from '../../processes/process-view';
import { NewerOnShelf } from './NewerOnShelf';

const nameLength = 60;

/** Only what its process asks of a machine is shown. */
export function MachineSection({ open: { entry, kind, estimate } }: { open: OpenProcess }) {
  const { machine } = entry;
  const job = useJob((s) => s.job);
  const { unit } = job;
  const run = useJob((s) => s.run);
  const { items, fault } = useShelf();
  const [message, setMessage] = useState<string | null>(null);
  const set = (change: Partial<Machine>) => run({ do: 'set-machine', id: entry.id, machine: { ...machine, ...change } });
  const own = ofKind(items, 'machine').filter(({ value }) => value.process === entry.process);
  const call = async (next: string) => {
    const wanted = next.trim().slice(0, nameLength);
    if (!wanted || wanted === machine.name) return;
    const shelf = await readShelf();
    const known = ofKind(shelf, 'machine').find(({ value }) => value.name === wanted);
    if (known) run(machineCommand(known, entry, job, shelf));
    else set({ name: wanted, shelf: null });
  };
  const put = async () => {
    try {
      set({ shelf: await putOnShelf('machine', machine.name, (before) => shelfMachineFrom(entry, before)) });
      setMessage(words.makeReady.onTheShelf(machine.name));
    } catch (error) {
      setMessage((error as Error).message);
    }
  };
  return (
    <Section title={words.makeReady.machineSettings}>
      <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
        <NewerOnShelf of={entry.id} />
        <ShelfName
          label={words.makeReady.machine}
          name={machine.name}
          known={own.map(({ value }) => value.name)}
          longest={nameLength}
          onName={(next) => void call(next)}
        />
        <Row>
          <Measure
            label={words.makeReady.bedWidth}
            mm={machine.bedWidthMm}
            unit={unit}
            onMm={(bedWidthMm) => set({ bedWidthMm })}
            onEmpty={() => set({ bedWidthMm: null })}
          />
          <Measure
            label={words.makeReady.bedHeight}
            mm={machine.bedHeightMm}
            unit={unit}
            onMm={(bedHeightMm) => set({ bedHeightMm })}
            onEmpty={() => set({ bedHeightMm: null })}
          />
        </Row>
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
            least={0.0005}
            most={1}
            onMm={(mm) => set({ toleranceMm: mm })}
          />
        </Row>
        {'dxf' in kind.files && (
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
        )}
        {'powerSettings' in kind.plain && (
          <Row>
            <NumberField
              label={words.makeReady.sAtFullPower}
              value={machine.fullS}
              digits={0}
              unit={words.makeReady.spindleWord}
              least={1}
              most={100_000}
              onNumber={(n) => set({ fullS: n })}
            />
            <Pick
              label={words.makeReady.power}
              value={machine.followsSpeed ? 'follows' : 'stays'}
              words={{ follows: words.makeReady.scaledWithSpeedM4, stays: words.makeReady.constantM3 }}
              onPick={(v) => set({ followsSpeed: v === 'follows' })}
            />
          </Row>
        )}
        {estimate !== null && estimate.seconds !== null && (
          <Row>
            <NumberField
              label={words.makeReady.rapidSpeed}
              value={machine.travelMmPerMin}
              digits={0}
              unit="mm/min"
              least={1}
              most={500_000}
              onNumber={(n) => set({ travelMmPerMin: n })}
            />
            <NumberField
              label={words.makeReady.acceleration}
              value={machine.accelerationMmPerS2}
              digits={0}
              unit="mm/s²"
              least={1}
              most={100_000}
              onNumber={(n) => set({ accelerationMmPerS2: n })}
            />
          </Row>
        )}
        <Button size="small" onClick={() => void put()}>
          {words.makeReady.putMachineOnTheShelf}
        </Button>
        {(message ?? fault) && (
          <Typography variant="caption" role="status" color="textSecondary">
            {message ?? fault}
          </Typography>
        )}
      </Box>
    </Section>
  );
}
