'use client';
/** Where zero lies, how high the tool travels, what clamps the stock, and what the machine expects of its programs. */
import AddOutlined from '@mui/icons-material/AddOutlined';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import IconButton from '@mui/material/IconButton';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { Machine } from '@nuvet/core/job';
import type { Clamp, MillingSettings, MillPlan } from '@nuvet/core/milling';
import { useEffect, useState } from 'react';
import { useJob } from '@/job/job-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import type { PanelProps } from '../process-view';

const say = words.cnc;
type Open = PanelProps<MillingSettings, MillPlan>['open'];

export function SetUpPanel({ open }: PanelProps<MillingSettings, MillPlan>) {
  return (
    <>
      <Heights open={open} />
      <Plain open={open} />
      <Clamps open={open} />
      <MachineForm open={open} />
    </>
  );
}

function Heights({ open: { settings, set, plan } }: { open: Open }) {
  const unit = useJob((s) => s.job.unit);
  const corner = settings.stockAt ?? (plan ? { x: plan.stock.minX, y: plan.stock.minY } : { x: 0, y: 0 });
  const centred = { onEmpty: () => set({ stockAt: null }), placeholder: say.centred };
  return (
    <Section title={say.zero}>
      <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
        <Row>
          <Pick label={say.zeroZ} value={settings.zeroZ} words={say.zeroZs} onPick={(zeroZ) => set({ zeroZ })} />
          <Measure
            label={say.spoilBoard}
            mm={settings.spoilMm}
            unit={unit}
            range="from zero"
            most={20}
            onMm={(mm) => set({ spoilMm: mm })}
          />
        </Row>
        <Row>
          <Measure label={say.safeHeight} mm={settings.safeMm} unit={unit} most={500} onMm={(safeMm) => set({ safeMm })} />
          <Measure label={say.hopHeight} mm={settings.hopMm} unit={unit} most={500} onMm={(hopMm) => set({ hopMm })} />
        </Row>
        <Row>
          <Measure
            label={say.stockX}
            mm={settings.stockAt?.x ?? null}
            unit={unit}
            range="any"
            onMm={(x) => set({ stockAt: { ...corner, x } })}
            {...centred}
          />
          <Measure
            label={say.stockY}
            mm={settings.stockAt?.y ?? null}
            unit={unit}
            range="any"
            onMm={(y) => set({ stockAt: { ...corner, y } })}
            {...centred}
          />
        </Row>
      </Box>
    </Section>
  );
}

function Plain({ open: { settings, set } }: { open: Open }) {
  const unit = useJob((s) => s.job.unit);
  return (
    <Section title={say.plain}>
      <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
        <Row>
          <Measure
            label={say.pocketDepth}
            mm={settings.pocketDepthMm}
            unit={unit}
            placeholder={say.half}
            onMm={(pocketDepthMm) => set({ pocketDepthMm })}
            onEmpty={() => set({ pocketDepthMm: null })}
          />
          <Measure
            label={say.engraveDepth}
            mm={settings.engraveDepthMm}
            unit={unit}
            most={100}
            onMm={(engraveDepthMm) => set({ engraveDepthMm })}
          />
        </Row>
        <FormControlLabel
          control={<Switch checked={settings.slopedPockets} onChange={(event) => set({ slopedPockets: event.target.checked })} />}
          label={say.slopedPockets}
        />
      </Box>
    </Section>
  );
}

function Clamps({ open: { settings, set, plan } }: { open: Open }) {
  const unit = useJob((s) => s.job.unit);
  const change = (k: number, more: Partial<Clamp>): void =>
    set({ clamps: settings.clamps.map((clamp, j) => (j === k ? { ...clamp, ...more } : clamp)) });
  const add = (): void => {
    const { minX = 0, minY = 0 } = plan?.stock ?? {};
    set({ clamps: [...settings.clamps, { x: minX, y: minY, widthMm: 20, heightMm: 12, overMm: 15 }] });
  };
  return (
    <Section title={say.clamps}>
      <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
        {settings.clamps.map((clamp, k) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: clamps have no other name than their place
          <Box key={k} role="group" aria-label={say.clamp(k + 1)} sx={{ display: 'grid', gap: 1 }}>
            <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
              <Typography variant="body2" sx={{ fontWeight: 600 }}>
                {say.clamp(k + 1)}
              </Typography>
              <IconButton
                size="small"
                aria-label={say.removeClamp(k + 1)}
                onClick={() => set({ clamps: settings.clamps.filter((_, j) => j !== k) })}
              >
                <DeleteOutlined fontSize="small" />
              </IconButton>
            </Box>
            <Row>
              <Measure label={say.x} mm={clamp.x} unit={unit} range="any" onMm={(x) => change(k, { x })} />
              <Measure label={say.y} mm={clamp.y} unit={unit} range="any" onMm={(y) => change(k, { y })} />
            </Row>
            <Row>
              <Measure label={say.clampWidth} mm={clamp.widthMm} unit={unit} onMm={(widthMm) => change(k, { widthMm })} />
              <Measure label={say.clampHeight} mm={clamp.heightMm} unit={unit} onMm={(heightMm) => change(k, { heightMm })} />
              <Measure label={say.clampOver} mm={clamp.overMm} unit={unit} onMm={(overMm) => change(k, { overMm })} />
            </Row>
          </Box>
        ))}
        <Button size="small" startIcon={<AddOutlined />} disabled={settings.clamps.length >= 24} onClick={add}>
          {say.addClamp}
        </Button>
      </Box>
    </Section>
  );
}

function MachineForm({ open: { entry } }: { open: Open }) {
  const unit = useJob((s) => s.job.unit);
  const run = useJob((s) => s.run);
  const { machine } = entry;
  const set = (change: Partial<Machine>): void => run({ do: 'set-machine', id: entry.id, machine: { ...machine, ...change } });
  const optional = (label: string, field: 'spindleMinRpm' | 'spindleMaxRpm' | 'maxFeedMmPerMin', of: string) => (
    <NumberField
      label={label}
      value={machine[field]}
      digits={0}
      unit={of}
      least={1}
      most={500_000}
      onNumber={(n) => set({ [field]: n })}
      onEmpty={() => set({ [field]: null })}
    />
  );
  return (
    <Section title={say.machine}>
      <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
        <Pick label={say.toolChange} value={machine.toolChange} words={say.toolChanges} onPick={(toolChange) => set({ toolChange })} />
        <Row>
          <Pick label={say.arcs} value={machine.arcs} words={say.arcWords} onPick={(arcs) => set({ arcs })} />
          <Pick label={say.comments} value={machine.comments} words={say.commentWords} onPick={(comments) => set({ comments })} />
        </Row>
        <Row>
          <NumberField
            label={say.decimals}
            value={machine.decimals}
            digits={0}
            unit={say.digits}
            least={2}
            most={6}
            onNumber={(n) => set({ decimals: Math.round(n) })}
          />
          <NumberField
            label={say.warmUp}
            value={machine.warmUpSeconds}
            digits={1}
            unit="s"
            least={0}
            most={600}
            onNumber={(n) => set({ warmUpSeconds: n })}
          />
        </Row>
        <Row>
          {optional(say.slowestSpindle, 'spindleMinRpm', say.turns)}
          {optional(say.fastestSpindle, 'spindleMaxRpm', say.turns)}
        </Row>
        <Row>
          {optional(say.fastestCut, 'maxFeedMmPerMin', 'mm/min')}
          <Measure
            label={say.heightTravel}
            mm={machine.travelZMm}
            unit={unit}
            placeholder={say.notKnown}
            onMm={(travelZMm) => set({ travelZMm })}
            onEmpty={() => set({ travelZMm: null })}
          />
        </Row>
        <Pick label={say.retract} value={machine.retract} words={say.retracts} onPick={(retract) => set({ retract })} />
        <FormControlLabel
          control={<Switch checked={machine.keepsToolLengths} onChange={(event) => set({ keepsToolLengths: event.target.checked })} />}
          label={say.keepsToolLengths}
        />
        <FormControlLabel
          control={<Switch checked={machine.lineNumbers} onChange={(event) => set({ lineNumbers: event.target.checked })} />}
          label={say.lineNumbers}
        />
        <Lines label={say.before} lines={machine.textBefore} onLines={(textBefore) => set({ textBefore })} />
        <Lines label={say.after} lines={machine.textAfter} onLines={(textAfter) => set({ textAfter })} />
      </Box>
    </Section>
  );
}

function Lines({ label, lines, onLines }: { label: string; lines: readonly string[]; onLines: (lines: string[]) => void }) {
  const printed = lines.join('\n');
  const [typed, setTyped] = useState(printed);
  useEffect(() => setTyped(printed), [printed]);
  return (
    <TextField
      multiline
      fullWidth
      minRows={1}
      maxRows={6}
      label={label}
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() => {
        const next = typed.split('\n').map((line) => line.trim().slice(0, 200)).filter(Boolean).slice(0, 30); // biome-ignore format: one line
        if (next.join('\n') !== printed) onLines(next);
      }}
      onKeyDown={(event) => event.stopPropagation()}
    />
  );
}
