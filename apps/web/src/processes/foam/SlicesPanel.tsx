'use client';
/** The slices: the boards that they are cut from, which face they are cut to, the shell, holes in line, and what it all weighs. */
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { type FoamPlan, type FoamSettings, mostBoards, mostDowels } from '@nuvet/core/foam';
import { printBoth } from '@nuvet/core/length';
import { papers } from '@nuvet/core/make';
import { useJob } from '@/job/job-store';
import { FieldRows } from '@/ui/FieldRows';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { PlanFault } from '../PlanFault';
import type { PanelProps } from '../process-view';
import { FrameSection } from './FrameSection';
import { OpeningsSection } from './OpeningsSection';
import { SliceChart } from './SliceChart';
import { SlotsSection } from './SlotsSection';

const say = words.foam;
type Props = PanelProps<FoamSettings, FoamPlan>['open'];
const paperWords = Object.fromEntries(Object.entries(papers).map(([name, [w, h]]) => [name, words.makeReady.paperSize(name, w, h)]));

export function SlicesPanel({ open, pieces }: PanelProps<FoamSettings, FoamPlan>) {
  const unit = useJob((s) => s.job.unit);
  const { settings, set, plan } = open;
  return (
    <>
      <Boards open={open} unit={unit} />
      {plan && <SliceChart open={open} unit={unit} />}
      <Section title={say.cut}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Pick label={say.cutTo} value={settings.cutTo} words={say.faces} onPick={(cutTo) => set({ cutTo })} />
          <Row>
            <Measure label={say.glue} mm={settings.glueMm} unit={unit} range="from zero" most={10} onMm={(mm) => set({ glueMm: mm })} />
            <Measure
              label={say.sanding}
              mm={settings.sandingMm}
              unit={unit}
              range="from zero"
              most={50}
              onMm={(mm) => set({ sandingMm: mm })}
            />
          </Row>
          <Measure
            label={say.shell}
            mm={settings.shellMm}
            unit={unit}
            placeholder={say.solid}
            onEmpty={() => set({ shellMm: null })}
            least={1}
            most={1000}
            onMm={(mm) => set({ shellMm: mm })}
          />
          <Pick
            label={say.paper}
            value={papers[settings.paper] ? settings.paper : 'A4'}
            words={paperWords}
            onPick={(paper) => set({ paper })}
          />
        </Box>
      </Section>
      <Dowels open={open} unit={unit} />
      <SlotsSection open={open} unit={unit} />
      <OpeningsSection open={open} unit={unit} pieces={pieces} />
      <FrameSection open={open} unit={unit} />
      <PlanFault />
      {plan && (
        <Section title={say.comesTo}>
          <Reading name={say.formers}>{plan.slices.length}</Reading>
          <Reading name={say.leftToSand}>{printBoth(plan.largestStepMm, unit)}</Reading>
          <Reading name={say.foamIn}>{say.litres((plan.foamMm3 / 1e6).toFixed(2))}</Reading>
          <Reading name={say.mass}>{say.grams(plan.massG.toFixed(0))}</Reading>
          <Reading name={say.balance}>{say.fromNose(printBoth(plan.middleMm, unit))}</Reading>
          <NumberField
            label={say.density}
            value={settings.density}
            digits={1}
            unit="kg/m³"
            least={5}
            most={1000}
            onNumber={(n) => set({ density: n })}
          />
        </Section>
      )}
    </>
  );
}

function Boards({ open: { settings, set, plan }, unit }: { open: Props; unit: 'mm' | 'in' }) {
  const { boards } = settings;
  return (
    <Section title={say.boards}>
      <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1.5 }}>
        {boards.length > 0 ? say.boardsAbout : say.ofStock(printBoth(plan?.slices[0]?.thicknessMm ?? 50, unit))}
      </Typography>
      <FieldRows
        list={boards}
        most={mostBoards}
        fields={3}
        onList={(to) => set({ boards: to })}
        onAdd={() =>
          set({
            boards: [
              ...boards.map((board) => ({ ...board, count: board.count ?? 1 })),
              { thicknessMm: boards.at(-1)?.thicknessMm ?? plan?.slices[0]?.thicknessMm ?? 50, count: null },
            ],
          })
        }
        addWord={say.addBoard}
        removeWord={say.removeBoard}
      >
        {(board, onChange, k) => (
          <>
            <Measure
              label={say.board(k + 1)}
              mm={board.thicknessMm}
              unit={unit}
              least={0.5}
              most={2000}
              onMm={(mm) => onChange({ ...board, thicknessMm: mm })}
            />
            <NumberField
              label={say.layers(k + 1)}
              value={board.layers ?? 1}
              digits={0}
              least={1}
              most={20}
              onNumber={(n) => onChange({ ...board, layers: Math.round(n) })}
            />
            <NumberField
              label={say.boardCount(k + 1)}
              value={board.count}
              digits={0}
              placeholder={say.toTheEnd}
              onEmpty={() => onChange({ ...board, count: null })}
              least={1}
              most={400}
              onNumber={(n) => onChange({ ...board, count: Math.round(n) })}
            />
          </>
        )}
      </FieldRows>
    </Section>
  );
}

function Dowels({ open: { settings, set, plan }, unit }: { open: Props; unit: 'mm' | 'in' }) {
  const { dowels } = settings;
  return (
    <Section title={say.dowels}>
      <FieldRows
        list={dowels}
        most={mostDowels}
        fields={3}
        onList={(to) => set({ dowels: to })}
        onAdd={() => set({ dowels: [...dowels, { across: 0, up: (plan?.heightMm ?? 100) / 2, diameterMm: 8 }] })}
        addWord={say.addDowel}
        removeWord={say.removeDowel}
      >
        {(dowel, onChange) => (
          <>
            <Measure label={say.across} mm={dowel.across} unit={unit} range="any" onMm={(across) => onChange({ ...dowel, across })} />
            <Measure label={say.up} mm={dowel.up} unit={unit} range="from zero" onMm={(up) => onChange({ ...dowel, up })} />
            <Measure
              label={say.wide}
              mm={dowel.diameterMm}
              unit={unit}
              least={0.5}
              most={500}
              onMm={(mm) => onChange({ ...dowel, diameterMm: mm })}
            />
          </>
        )}
      </FieldRows>
    </Section>
  );
}
