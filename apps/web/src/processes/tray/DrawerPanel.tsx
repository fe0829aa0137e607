'use client';
/** The drawer: its size, how things lie in it, what pockets are like, and the sheets that they are cut from. */
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { printBoth } from '@nuvet/core/length';
import { papers } from '@nuvet/core/make';
import { mostLayers, type TrayPlan, type TraySettings } from '@nuvet/core/tray';
import { useJob } from '@/job/job-store';
import { FieldRows } from '@/ui/FieldRows';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { PlanFault } from '../PlanFault';
import { PlanNotes } from '../PlanNotes';
import type { PanelProps } from '../process-view';
import { ChosenObject } from './ChosenObject';
import { useChosenObject } from './chosen-object';
import { DrawPockets } from './DrawPockets';
import { objectOf } from './tray-objects';

const say = words.tray;
type Props = PanelProps<TraySettings, TrayPlan>['open'];
const paperWords = Object.fromEntries(Object.entries(papers).map(([name, [w, h]]) => [name, words.makeReady.paperSize(name, w, h)]));

export function DrawerPanel({ open }: PanelProps<TraySettings, TrayPlan>) {
  const unit = useJob((s) => s.job.unit);
  const chosenId = useChosenObject((s) => s.pieceId);
  const { settings, set, plan } = open;
  const chosen = plan?.pockets.find(({ pieceId }) => pieceId === chosenId);
  return (
    <>
      <Section title={say.size}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Row>
            <Measure label={say.width} mm={settings.widthMm} unit={unit} least={10} most={5000} onMm={(mm) => set({ widthMm: mm })} />
            <Measure label={say.length} mm={settings.lengthMm} unit={unit} least={10} most={5000} onMm={(mm) => set({ lengthMm: mm })} />
          </Row>
          <Row>
            <Measure
              label={say.margin}
              mm={settings.marginMm}
              unit={unit}
              range="from zero"
              most={500}
              onMm={(mm) => set({ marginMm: mm })}
            />
            <Measure
              label={say.corner}
              mm={settings.cornerMm}
              unit={unit}
              range="from zero"
              most={200}
              onMm={(mm) => set({ cornerMm: mm })}
            />
          </Row>
          <Row>
            <Pick label={say.layout} value={settings.layout} words={say.layouts} onPick={(layout) => set({ layout })} />
            <Measure label={say.wall} mm={settings.wallMm} unit={unit} range="from zero" most={200} onMm={(mm) => set({ wallMm: mm })} />
          </Row>
        </Box>
      </Section>
      <PlanFault />
      {plan && <PlanNotes notes={plan.notes} />}
      {chosen && <ChosenObject pocket={chosen} own={objectOf(settings, chosen.pieceId)} open={open} />}
      <Section title={say.pockets}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Row>
            <Measure
              label={say.clearance}
              mm={settings.clearanceMm}
              unit={unit}
              range="from zero"
              most={20}
              onMm={(mm) => set({ clearanceMm: mm })}
            />
            <Measure
              label={say.cutter}
              mm={settings.cutterMm}
              unit={unit}
              range="from zero"
              most={50}
              onMm={(mm) => set({ cutterMm: mm })}
            />
          </Row>
          <Row>
            <Measure label={say.notch} mm={settings.notchMm} unit={unit} range="from zero" most={100} onMm={(mm) => set({ notchMm: mm })} />
            <NumberField
              label={say.depthShare}
              value={100 * settings.depthShare}
              digits={0}
              unit="%"
              least={5}
              most={100}
              onNumber={(n) => set({ depthShare: n / 100 })}
            />
          </Row>
          <Pick
            label={say.numbered}
            value={settings.numbered ? 'yes' : 'no'}
            words={say.yesNo}
            onPick={(word) => set({ numbered: word === 'yes' })}
          />
        </Box>
      </Section>
      <Sheets open={open} unit={unit} />
      {plan && <DrawPockets plan={plan} />}
    </>
  );
}

function Sheets({ open: { settings, set, plan }, unit }: { open: Props; unit: 'mm' | 'in' }) {
  const { layersMm } = settings;
  const cuts = (k: number): string => (plan ? say.cuts(plan.layers[k]?.pockets.length ?? 0) : '');
  return (
    <Section title={say.sheets}>
      <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1 }}>
        {layersMm.length > 0 ? say.sheetsAbout : say.oneOfStock(printBoth(plan?.layers[0]?.thicknessMm ?? 20, unit))}
      </Typography>
      <FieldRows
        list={layersMm}
        most={mostLayers}
        fields={2}
        onList={(to) => set({ layersMm: to })}
        onAdd={() => set({ layersMm: [...layersMm, layersMm.at(-1) ?? plan?.layers[0]?.thicknessMm ?? 20] })}
        addWord={say.addSheet}
        removeWord={say.removeSheet}
      >
        {(mm, onChange, k) => (
          <>
            <Measure label={say.sheet(k + 1)} mm={mm} unit={unit} least={0.5} most={500} onMm={onChange} />
            <Typography variant="body2" color="textSecondary">
              {cuts(k)}
            </Typography>
          </>
        )}
      </FieldRows>
      <Box sx={{ mt: 1 }}>
        <Pick
          label={say.paper}
          value={papers[settings.paper] ? settings.paper : 'A4'}
          words={paperWords}
          onPick={(paper) => set({ paper })}
        />
      </Box>
    </Section>
  );
}
