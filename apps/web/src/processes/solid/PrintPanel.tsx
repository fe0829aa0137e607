'use client';
/** What the solid holds and weighs, and what printing it takes by figures that are typed. */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import LinearProgress from '@mui/material/LinearProgress';
import Slider from '@mui/material/Slider';
import Typography from '@mui/material/Typography';
import { printBoth } from '@nuvet/core/length';
import type { PrintChecks, SolidPlan, SolidSettings } from '@nuvet/core/solid';
import { proxy } from 'comlink';
import { useEffect } from 'react';
import { useJob } from '@/job/job-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { maker } from '@/workers/maker.client';
import { inTime } from '../cut/cut-sections';
import { PlanFault } from '../PlanFault';
import { PlanNotes } from '../PlanNotes';
import type { PanelProps } from '../process-view';
import { setSolidSpace, useSolidSpace } from './solid-space-store';

const say = words.solid;

export function PrintPanel({ open: { settings, set, plan, notes } }: PanelProps<SolidSettings, SolidPlan>) {
  const unit = useJob((s) => s.job.unit);
  useChecks(plan, settings);
  return (
    <>
      <PlanFault />
      {plan && (
        <Section title={say.comesTo}>
          <Reading name={say.size}>
            {say.sizeOf(
              ...([0, 1, 2].map((axis) => ((plan.max[axis] as number) - (plan.min[axis] as number)).toFixed(2)) as [
                string,
                string,
                string,
              ]),
            )}
          </Reading>
          <Reading name={say.volume}>{say.millilitres((plan.volumeMm3 / 1000).toFixed(2))}</Reading>
          <Reading name={say.mass}>{say.grams(plan.massG.toFixed(1))}</Reading>
          <Reading name={say.filament}>{say.metres(plan.filamentM.toFixed(2))}</Reading>
          <Reading name={say.time}>{inTime(plan.seconds)}</Reading>
          <Reading name={say.layers}>{plan.layers.toLocaleString('en')}</Reading>
          <Reading name={say.triangles}>
            {plan.parts.reduce((sum, { mesh }) => sum + mesh.triangles.length / 3, 0).toLocaleString('en')}
          </Reading>
          <Layers plan={plan} settings={settings} unit={unit} />
        </Section>
      )}
      {plan && <Checks settings={settings} unit={unit} />}
      <Section title={say.print}>
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1.5 }}>
          {say.commonPractice}
        </Typography>
        <Box sx={{ display: 'grid', gap: 1.25 }}>
          <Row>
            <NumberField
              label={say.density}
              value={settings.density}
              digits={2}
              unit="g/cm³"
              least={0.1}
              most={25}
              onNumber={(density) => set({ density })}
            />
            <Measure label={say.layer} mm={settings.layerMm} unit={unit} least={0.01} most={5} onMm={(layerMm) => set({ layerMm })} />
          </Row>
          <Row>
            <Measure
              label={say.filamentWide}
              mm={settings.filamentMm}
              unit={unit}
              least={0.1}
              most={10}
              onMm={(filamentMm) => set({ filamentMm })}
            />
            <NumberField
              label={say.flow}
              value={settings.flowMm3PerS}
              digits={2}
              unit="mm³/s"
              least={0.05}
              most={1000}
              onNumber={(flowMm3PerS) => set({ flowMm3PerS })}
            />
          </Row>
          <Row>
            <Measure label={say.nozzle} mm={settings.nozzleMm} unit={unit} least={0.01} most={10} onMm={(nozzleMm) => set({ nozzleMm })} />
            <NumberField
              label={say.overhang}
              value={settings.overhangDegrees}
              digits={0}
              unit="°"
              least={0}
              most={90}
              onNumber={(overhangDegrees) => set({ overhangDegrees })}
            />
          </Row>
          <Row>
            {(['widthMm', 'depthMm', 'heightMm'] as const).map((side) => (
              <Measure
                key={side}
                label={bedWords[side]}
                mm={settings.bed[side]}
                unit={unit}
                least={1}
                most={5000}
                onMm={(mm) => set({ bed: { ...settings.bed, [side]: mm } })}
              />
            ))}
          </Row>
          <Measure
            label={say.ball}
            mm={settings.ballMm}
            unit={unit}
            placeholder={say.noBall}
            least={0.1}
            most={500}
            onEmpty={() => set({ ballMm: null })}
            onMm={(ballMm) => set({ ballMm })}
          />
        </Box>
      </Section>
      <PlanNotes notes={notes} />
    </>
  );
}

const bedWords = { widthMm: say.bedWide, depthMm: say.bedDeep, heightMm: say.bedHigh } as const;

/** Looks anew for what would go wrong whenever the plan is another. */
function useChecks(plan: SolidPlan | null, settings: SolidSettings): void {
  useEffect(() => {
    setSolidSpace({ checks: null, layer: null, share: plan ? 0 : null });
    if (!plan) return undefined;
    let isWanted = true;
    const onShare = proxy((share: number) => {
      if (isWanted) setSolidSpace({ share });
    });
    void maker()
      .printChecks(plan, settings, onShare)
      .then((checks) => {
        if (isWanted && checks) setSolidSpace({ checks, share: null });
      });
    return () => {
      isWanted = false;
    };
  }, [plan, settings]);
  useEffect(() => {
    // Layers are those of bodies as they are made.
    setSolidSpace({ isAssembled: false });
    return () => setSolidSpace({ checks: null, share: null, layer: null, cutAtMm: null });
  }, []);
}

/** The solid cut open between two layers, with the contours that are laid there. */
function Layers({ plan, settings, unit }: { plan: SolidPlan; settings: SolidSettings; unit: 'mm' | 'in' }) {
  const { cutAtMm, layer } = useSolidSpace();
  const at = (number: number): number => plan.min[2] + Math.min(number - 0.5, plan.layers - 0.5) * settings.layerMm;
  const number = cutAtMm === null ? plan.layers : Math.round((cutAtMm - plan.min[2]) / settings.layerMm + 0.5);
  const show = async (wanted: number): Promise<void> => {
    if (wanted >= plan.layers) return setSolidSpace({ cutAtMm: null, layer: null });
    const height = at(wanted);
    setSolidSpace({ cutAtMm: height });
    const found = await maker().layerAt(height);
    // A slider that has gone on meanwhile is shown where it is.
    if (useSolidSpace.getState().cutAtMm === height) setSolidSpace({ layer: found });
  };
  return (
    <>
      <Typography variant="body2" sx={{ mt: 1 }}>
        {say.section}
      </Typography>
      <Slider
        aria-label={say.section}
        size="small"
        min={1}
        max={plan.layers}
        value={Math.min(plan.layers, Math.max(1, number))}
        onChange={(_, wanted) => void show(wanted as number)}
      />
      {layer && (
        <>
          <Reading name={say.layerOf(number, plan.layers)}>{printBoth(layer.height - plan.min[2], unit)}</Reading>
          <Reading name={say.layerArea}>{say.squareCm((layer.areaMm2 / 100).toFixed(2))}</Reading>
        </>
      )}
    </>
  );
}

/** Less than this it leans before it tips, degrees: that is told. */
const unsteady = 15;

function Checks({ settings, unit }: { settings: SolidSettings; unit: 'mm' | 'in' }) {
  const { checks, share } = useSolidSpace();
  const said = checks ? saidOf(checks, settings, unit) : [];
  return (
    <Section title={say.checks}>
      {share !== null && <LinearProgress variant="determinate" value={100 * share} aria-label={say.isChecking} sx={{ my: 1 }} />}
      {checks && (
        <Box sx={{ display: 'grid', gap: 1, mt: 1 }}>
          {said.length === 0 && (
            <Alert severity="success" variant="outlined">
              {say.fine}
            </Alert>
          )}
          {said.map(({ text, isFine }) => (
            <Alert key={text} severity={isFine ? 'success' : 'warning'} variant="outlined">
              {text}
            </Alert>
          ))}
          <Reading name={say.footprint}>{say.squareCm((checks.footprintMm2 / 100).toFixed(2))}</Reading>
        </Box>
      )}
    </Section>
  );
}

function saidOf(checks: PrintChecks, { ballMm }: SolidSettings, unit: 'mm' | 'in'): { text: string; isFine: boolean }[] {
  const { wall, gap, tight, overhangMm2, islands, tipsAtDegrees, isTooLarge, fits } = checks;
  const lowest = islands.reduce((least, [, , z]) => Math.min(least, z), Infinity);
  const length = (mm: number): string => printBoth(mm, unit);
  const found: (string | null | false)[] = [
    isTooLarge && say.tooLarge,
    wall && say.thinWall(length(wall.widthMm), length(wall.at[2])),
    gap && say.thinGap(length(gap.widthMm), length(gap.at[2])),
    tight && say.tight(length(tight.widthMm)),
    overhangMm2 > leastOverhangMm2 && say.hangsOver((overhangMm2 / 100).toFixed(1)),
    islands.length > 0 && say.islands(islands.length, length(lowest)),
    tipsAtDegrees !== null && tipsAtDegrees < 0 && say.falls,
    tipsAtDegrees !== null && tipsAtDegrees >= 0 && tipsAtDegrees < unsteady && say.tips(tipsAtDegrees.toFixed(0)),
    ...fits.map(({ commonMm3 }) => commonMm3 > 0.05 && say.clashes(commonMm3.toFixed(1))),
  ];
  const right: (string | false)[] = [
    ballMm !== null && !tight && say.passes,
    ...fits.map(({ commonMm3, playMm }) => commonMm3 <= 0.05 && say.goesTogether(length(playMm))),
  ];
  const told = (list: readonly (string | null | false)[], isFine: boolean) => list.flatMap((text) => (text ? [{ text, isFine }] : []));
  return [...told(found, false), ...told(right, true)];
}

/** Less that hangs over is not told. */
const leastOverhangMm2 = 5;
