'use client';
/** The fabrics, which patches are of which, and how much of each the quilt takes. */
import AddOutlined from '@mui/icons-material/AddOutlined';
import CloseOutlined from '@mui/icons-material/CloseOutlined';
import ColorizeOutlined from '@mui/icons-material/ColorizeOutlined';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import IconButton from '@mui/material/IconButton';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type Fabric, lengthToBuy, mostColourings, mostFabrics, type QuiltingSettings, type QuiltPlan } from '@nuvet/core/quilting';
import { useEffect, useState } from 'react';
import { useJob } from '@/job/job-store';
import { colours } from '@/ui/colours';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { toldError } from '@/words/told';
import { maker } from '@/workers/maker.client';
import { PlanFault } from '../PlanFault';
import type { PanelProps } from '../process-view';
import { underlayFor } from '../underlay';
import { BlockPicture } from './BlockPicture';
import { takeFabric, useFabricInHand } from './fabric-in-hand';
import { usePrints } from './prints';

const say = words.quilting;

export function FabricsPanel({ open: { settings, set, plan } }: PanelProps<QuiltingSettings, QuiltPlan>) {
  const { fabrics } = settings;
  usePrints(settings.fabrics);
  const change = (k: number, by: Partial<Fabric>) =>
    set({ fabrics: fabrics.map((fabric, n) => (n === k ? { ...fabric, ...by } : fabric)) });
  const add = () => set({ fabrics: [...fabrics, { name: say.newFabric(fabrics.length + 1), colour: nextColours[fabrics.length % nextColours.length] as string }] }); // biome-ignore format: one line
  return (
    <>
      <Section title={say.fabrics}>
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1 }}>
          {say.fabricsAbout}
        </Typography>
        <Box sx={{ display: 'grid', gap: 1 }}>
          {fabrics.map((fabric, k) => (
            <FabricRow
              // biome-ignore lint/suspicious/noArrayIndexKey: patches name fabrics by their position
              key={k}
              fabric={fabric}
              number={k}
              onChange={(by) => change(k, by)}
              onRemove={fabrics.length > 1 && k === fabrics.length - 1 ? () => set({ fabrics: fabrics.slice(0, -1) }) : null}
            />
          ))}
        </Box>
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5, mt: 0.75 }}>
          {fabrics.length < mostFabrics && (
            <Button size="small" startIcon={<AddOutlined />} onClick={add}>
              {say.addFabric}
            </Button>
          )}
          {plan && <FromPicture plan={plan} onFabrics={set} />}
        </Box>
      </Section>
      <PlanFault />
      {plan && (
        <Section title={say.ofWhichFabric}>
          <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
            {plan.sets.map(({ name, faces, fabric }) => (
              <Box key={name} sx={{ display: 'grid', gap: 1 }}>
                <Pick
                  label={say.patchesNamed(name, faces.length)}
                  value={String(fabric)}
                  words={Object.fromEntries(fabrics.map((one, k) => [String(k), one.name]))}
                  onPick={(word) => set({ fabricOf: { ...settings.fabricOf, [name]: Number(word) } })}
                />
                <Row>
                  <NumberField
                    label={say.grainTurned}
                    value={settings.grain[name] ?? 0}
                    digits={0}
                    unit="°"
                    least={-180}
                    most={180}
                    onNumber={(n) => set({ grain: { ...settings.grain, [name]: n } })}
                  />
                </Row>
                {fabrics[fabric]?.pictureId && (
                  <PrintShift
                    shift={settings.printShift[name] ?? { x: 0, y: 0 }}
                    onShift={(shift) => set({ printShift: { ...settings.printShift, [name]: shift } })}
                  />
                )}
              </Box>
            ))}
          </Box>
        </Section>
      )}
      {plan && <Colourings plan={plan} settings={settings} set={set} />}
      {plan && (
        <Section title={say.toBuy}>
          {plan.cutting.needs.map(({ fabric, lengthMm }) => (
            <Reading key={fabric} name={fabrics[fabric]?.name ?? ''}>
              {lengthToBuy(lengthMm)}
            </Reading>
          ))}
          <Reading name={say.backing(plan.cutting.backing.panels)}>{lengthToBuy(plan.cutting.backing.lengthMm)}</Reading>
        </Section>
      )}
    </>
  );
}

/** How far the print is moved within patches: for a motif to lie in the middle. */
function PrintShift({ shift, onShift }: { shift: { x: number; y: number }; onShift: (shift: { x: number; y: number }) => void }) {
  const unit = useJob((s) => s.job.unit);
  return (
    <Row>
      <Measure label={say.printRight} mm={shift.x} unit={unit} range="any" onMm={(x) => onShift({ ...shift, x })} />
      <Measure label={say.printUp} mm={shift.y} unit={unit} range="any" onMm={(y) => onShift({ ...shift, y })} />
    </Row>
  );
}

/** A picture of the job as the print of a fabric: it is as large as it was trued up. */
function PrintPick({ fabric, onChange }: { fabric: Fabric; onChange: (by: Partial<Fabric>) => void }) {
  const pictures = useJob((s) => s.job.pictures);
  if (pictures.length < 2 && !fabric.pictureId) return null;
  return (
    <Pick
      label={say.printOf(fabric.name)}
      value={fabric.pictureId ?? plainCloth}
      words={{ [plainCloth]: say.plainCloth, ...Object.fromEntries(pictures.map(({ id, name }) => [id, name])) }}
      onPick={(id) => onChange({ pictureId: id === plainCloth ? null : id })}
    />
  );
}
const plainCloth = 'plain';

/** Patches in the colours of the picture that they were traced from. */
function FromPicture({ plan, onFabrics }: { plan: QuiltPlan; onFabrics: (change: Partial<QuiltingSettings>) => void }) {
  const job = useJob((s) => s.job);
  const [isWorking, setWorking] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const source = underlayFor(job);
  if (!source) return null;
  const take = async () => {
    setWorking(true);
    setFault(null);
    try {
      const names = Array.from({ length: mostFabrics }, (_, k) => say.newFabric(k + 1));
      onFabrics(await maker().fabricsFrom(source, plan, names));
    } catch (error) {
      setFault(toldError(error));
    }
    setWorking(false);
  };
  return (
    <>
      <Button size="small" startIcon={<ColorizeOutlined />} disabled={isWorking} onClick={() => void take()}>
        {say.coloursFromPicture}
      </Button>
      {fault && (
        <Alert severity="error" variant="outlined">
          {fault}
        </Alert>
      )}
    </>
  );
}

/** Colourings kept beside each other, each as the block looks in it. */
function Colourings({
  plan,
  settings,
  set,
}: {
  plan: QuiltPlan;
  settings: QuiltingSettings;
  set: (change: Partial<QuiltingSettings>) => void;
}) {
  const { colourings, fabrics, fabricOf } = settings;
  return (
    <Section title={say.colourings}>
      <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 0.75 }}>
        {say.colouringsAbout}
      </Typography>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1 }}>
        {colourings.map((kept, k) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: they are told apart by their place alone
          <Box key={k} sx={{ position: 'relative' }}>
            <ButtonBase
              aria-label={say.takeColouring(k + 1)}
              onClick={() => set({ fabrics: kept.fabrics, fabricOf: kept.fabricOf })}
              sx={{ border: `1px solid ${colours.line}`, borderRadius: 1, p: 0.25 }}
            >
              <BlockPicture plan={plan} fabrics={kept.fabrics} fabricOf={kept.fabricOf} sizePx={84} />
            </ButtonBase>
            <IconButton
              aria-label={say.removeColouring(k + 1)}
              size="small"
              onClick={() => set({ colourings: colourings.filter((_, n) => n !== k) })}
              sx={{ position: 'absolute', top: -8, right: -8, bgcolor: colours.sheet, p: 0.25 }}
            >
              <CloseOutlined sx={{ fontSize: 14 }} />
            </IconButton>
          </Box>
        ))}
      </Box>
      {colourings.length < mostColourings && (
        <Button
          size="small"
          startIcon={<AddOutlined />}
          onClick={() => set({ colourings: [...colourings, { fabrics, fabricOf }] })}
          sx={{ mt: 0.75 }}
        >
          {say.keepColouring}
        </Button>
      )}
    </Section>
  );
}

/** Colours for new fabrics that go with ink on paper. */
const nextColours = ['#b1452e', '#1e7b6b', '#d9a441', '#7a4b86', '#8fa9a0', '#5b4636'];

function FabricRow({
  fabric,
  number,
  onChange,
  onRemove,
}: {
  fabric: Fabric;
  number: number;
  onChange: (by: Partial<Fabric>) => void;
  onRemove: (() => void) | null;
}) {
  const inHand = useFabricInHand((s) => s.fabric) === number;
  const [name, setName] = useState(fabric.name);
  const [colour, setColour] = useState(fabric.colour);
  useEffect(() => setName(fabric.name), [fabric.name]);
  useEffect(() => setColour(fabric.colour), [fabric.colour]);
  const settle = () => {
    const next = name.trim().slice(0, 60);
    if (next && next !== fabric.name) onChange({ name: next });
    else setName(fabric.name);
  };
  return (
    <Box sx={{ display: 'grid', gap: 0.75 }}>
      <Box sx={{ display: 'grid', gridTemplateColumns: '44px 1fr 44px auto', gap: 0.75, alignItems: 'center' }}>
        <ButtonBase
          aria-label={say.takeFabric(fabric.name)}
          aria-pressed={inHand}
          onClick={() => takeFabric(number)}
          sx={{ height: 40, borderRadius: 1, bgcolor: fabric.colour, border: `2px solid ${inHand ? colours.verdigris : colours.line}`, boxShadow: inHand ? `0 0 0 2px ${colours.verdigris}` : 'none' }} // biome-ignore format: one line
        />
        <TextField
          label={say.fabricName(number + 1)}
          value={name}
          onChange={(event) => setName(event.target.value)}
          onBlur={settle}
          onKeyDown={(event) => {
            if (event.key === 'Enter') settle();
            event.stopPropagation();
          }}
        />
        <Box
          component="input"
          type="color"
          aria-label={say.fabricColour(fabric.name)}
          value={colour}
          onChange={(event: React.ChangeEvent<HTMLInputElement>) => setColour(event.target.value)}
          onBlur={() => colour !== fabric.colour && onChange({ colour })}
          sx={{ width: 44, height: 40, p: 0.25, border: `1px solid ${colours.line}`, borderRadius: 1, bgcolor: 'transparent' }}
        />
        {onRemove && (
          <IconButton aria-label={say.removeFabric(fabric.name)} size="small" onClick={onRemove}>
            <DeleteOutlined fontSize="small" />
          </IconButton>
        )}
      </Box>
      <PrintPick fabric={fabric} onChange={onChange} />
    </Box>
  );
}
