'use client';
/** The drawer: its size, how things lie in it, what pockets are like, and the sheets that they are cut from. */
import AddOutlined from '@mui/icons-material/AddOutlined';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Typography from '@mui/material/Typography';
import { printBoth } from '@nuvet/core/length';
import { papers } from '@nuvet/core/make';
import { mostLayers, type TrayPlan, type TraySettings } from '@nuvet/core/tray';
import { useJob } from '@/job/job-store';
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
const within = (low: number, high: number, mm: number): number => Math.max(low, Math.min(high, mm));

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
            <Measure label={say.width} mm={settings.widthMm} unit={unit} onMm={(mm) => set({ widthMm: within(10, 5000, mm) })} />
            <Measure label={say.length} mm={settings.lengthMm} unit={unit} onMm={(mm) => set({ lengthMm: within(10, 5000, mm) })} />
          </Row>
          <Row>
            <Measure
              label={say.margin}
              mm={settings.marginMm}
              unit={unit}
              range="from zero"
              onMm={(mm) => set({ marginMm: within(0, 500, mm) })}
            />
            <Measure
              label={say.corner}
              mm={settings.cornerMm}
              unit={unit}
              range="from zero"
              onMm={(mm) => set({ cornerMm: within(0, 200, mm) })}
            />
          </Row>
          <Row>
            <Pick label={say.layout} value={settings.layout} words={say.layouts} onPick={(layout) => set({ layout })} />
            <Measure
              label={say.wall}
              mm={settings.wallMm}
              unit={unit}
              range="from zero"
              onMm={(mm) => set({ wallMm: within(0, 200, mm) })}
            />
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
              onMm={(mm) => set({ clearanceMm: within(0, 20, mm) })}
            />
            <Measure
              label={say.cutter}
              mm={settings.cutterMm}
              unit={unit}
              range="from zero"
              onMm={(mm) => set({ cutterMm: within(0, 50, mm) })}
            />
          </Row>
          <Row>
            <Measure
              label={say.notch}
              mm={settings.notchMm}
              unit={unit}
              range="from zero"
              onMm={(mm) => set({ notchMm: within(0, 100, mm) })}
            />
            <NumberField
              label={say.depthShare}
              value={100 * settings.depthShare}
              digits={0}
              unit="%"
              onNumber={(n) => set({ depthShare: within(0.05, 1, n / 100) })}
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
      <Box sx={{ display: 'grid', gap: 1 }}>
        {layersMm.map((mm, k) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: sheets are told apart by their place, from the top down
          <Box key={k} sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr auto', gap: 1, alignItems: 'center' }}>
            <Measure
              label={say.sheet(k + 1)}
              mm={mm}
              unit={unit}
              onMm={(to) => set({ layersMm: layersMm.map((one, n) => (n === k ? within(0.5, 500, to) : one)) })}
            />
            <Typography variant="body2" color="textSecondary">
              {cuts(k)}
            </Typography>
            <IconButton
              aria-label={say.removeSheet(k + 1)}
              size="small"
              onClick={() => set({ layersMm: layersMm.filter((_, n) => n !== k) })}
            >
              <DeleteOutlined fontSize="small" />
            </IconButton>
          </Box>
        ))}
      </Box>
      {layersMm.length < mostLayers && (
        <Button
          size="small"
          startIcon={<AddOutlined />}
          onClick={() => set({ layersMm: [...layersMm, layersMm.at(-1) ?? plan?.layers[0]?.thicknessMm ?? 20] })}
          sx={{ mt: 0.75 }}
        >
          {say.addSheet}
        </Button>
      )}
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
