'use client';
/** All that can be set of one object: its sides, how deep it lies, its notch, and where it lies in the drawer. */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { TrayObject, TrayPlan, TrayPocket, TraySettings } from '@nuvet/core/tray';
import { useJob } from '@/job/job-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import type { OpenProcess } from '../process-view';
import { withObject } from './tray-objects';

const say = words.tray;
const degrees = 180 / Math.PI;

interface Props {
  readonly pocket: TrayPocket;
  readonly own: TrayObject;
  readonly open: OpenProcess<TraySettings, TrayPlan>;
}

export function ChosenObject({ pocket, own, open: { settings, set } }: Props) {
  const unit = useJob((s) => s.job.unit);
  const { pieceId, number, name, depthMm, notchAt, at, turn } = pocket;
  const change = (by: Partial<TrayObject>) => set(withObject(settings, pieceId, by));
  return (
    <Section title={say.chosen(number, name)}>
      <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
        <Row>
          <Pick
            label={say.edge}
            value={own.edge ?? 'all'}
            words={{ all: say.asForAll(say.edges[settings.edge]), ...say.edges }}
            onPick={(edge) => change({ edge: edge === 'all' ? null : edge })}
          />
          <Measure
            label={say.depth}
            mm={own.depthMm === null ? null : depthMm}
            unit={unit}
            range="from zero"
            placeholder={say.byShare}
            onEmpty={() => change({ depthMm: null })}
            most={1000}
            onMm={(mm) => change({ depthMm: mm })}
          />
        </Row>
        {settings.notchMm > 0 && (
          <NumberField
            label={say.notchAt}
            value={notchAt === null ? null : 100 * notchAt}
            digits={0}
            unit={notchAt === null ? say.noNotch : '%'}
            onEmpty={() => change({ notchAt: null })}
            least={0}
            most={100}
            onNumber={(n) => change({ notchAt: n / 100 })}
          />
        )}
        <Row>
          <Measure label={say.across} mm={at.x} unit={unit} range="any" onMm={(x) => change({ place: { at: { ...at, x }, turn } })} />
          <Measure label={say.up} mm={at.y} unit={unit} range="any" onMm={(y) => change({ place: { at: { ...at, y }, turn } })} />
          <NumberField
            label={say.turn}
            value={turn * degrees}
            digits={1}
            unit="°"
            onNumber={(n) => change({ place: { at, turn: n / degrees } })}
          />
        </Row>
        {own.place && (
          <Button size="small" onClick={() => change({ place: null })} sx={{ justifySelf: 'start' }}>
            {say.layBack}
          </Button>
        )}
      </Box>
    </Section>
  );
}
