'use client';
/** The slices: the boards that they are cut from, which face they are cut to, the shell, holes in line, and what it all weighs. */
import AddOutlined from '@mui/icons-material/AddOutlined';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Typography from '@mui/material/Typography';
import { type FoamPlan, type FoamSettings, mostBoards, mostDowels } from '@nuvet/core/foam';
import { printBoth } from '@nuvet/core/length';
import { papers } from '@nuvet/core/make';
import { useJob } from '@/job/job-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { PlanFault } from '../PlanFault';
import type { PanelProps } from '../process-view';
import { FrameSection } from './FrameSection';
import { OpeningsSection } from './OpeningsSection';
import { SheetsSection } from './SheetsSection';
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
            <Measure label={say.glue} mm={settings.glueMm} unit={unit} range="from zero" onMm={(mm) => set({ glueMm: Math.min(10, mm) })} />
            <Measure
              label={say.sanding}
              mm={settings.sandingMm}
              unit={unit}
              range="from zero"
              onMm={(mm) => set({ sandingMm: Math.min(50, mm) })}
            />
          </Row>
          <Measure
            label={say.shell}
            mm={settings.shellMm}
            unit={unit}
            placeholder={say.solid}
            onEmpty={() => set({ shellMm: null })}
            onMm={(mm) => set({ shellMm: Math.max(1, Math.min(1000, mm)) })}
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
      <SheetsSection open={open} unit={unit} />
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
            onNumber={(n) => set({ density: Math.max(5, Math.min(1000, n)) })}
          />
        </Section>
      )}
    </>
  );
}

function Boards({ open: { settings, set, plan }, unit }: { open: Props; unit: 'mm' | 'in' }) {
  const { boards } = settings;
  const change = (k: number, by: Partial<(typeof boards)[0]>) =>
    set({ boards: boards.map((board, n) => (n === k ? { ...board, ...by } : board)) });
  return (
    <Section title={say.boards}>
      <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1.5 }}>
        {boards.length > 0 ? say.boardsAbout : say.ofStock(printBoth(plan?.slices[0]?.thicknessMm ?? 50, unit))}
      </Typography>
      <Box sx={{ display: 'grid', gap: 1.5 }}>
        {boards.map((board, k) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: boards are told apart by their place, from the nose aft
          <Box key={k} sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr auto', gap: 1, alignItems: 'start' }}>
            <Measure
              label={say.board(k + 1)}
              mm={board.thicknessMm}
              unit={unit}
              onMm={(mm) => change(k, { thicknessMm: Math.max(0.5, Math.min(2000, mm)) })}
            />
            <NumberField
              label={say.layers(k + 1)}
              value={board.layers ?? 1}
              digits={0}
              onNumber={(n) => change(k, { layers: Math.max(1, Math.min(20, Math.round(n))) })}
            />
            <NumberField
              label={say.boardCount(k + 1)}
              value={board.count}
              digits={0}
              placeholder={say.toTheEnd}
              onEmpty={() => change(k, { count: null })}
              onNumber={(n) => change(k, { count: Math.max(1, Math.min(400, Math.round(n))) })}
            />
            <IconButton aria-label={say.removeBoard(k + 1)} size="small" onClick={() => set({ boards: boards.filter((_, n) => n !== k) })}>
              <DeleteOutlined fontSize="small" />
            </IconButton>
          </Box>
        ))}
      </Box>
      {boards.length < mostBoards && (
        <Button
          size="small"
          startIcon={<AddOutlined />}
          onClick={() => set({ boards: [...boards.map((board) => ({ ...board, count: board.count ?? 1 })), { thicknessMm: boards.at(-1)?.thicknessMm ?? plan?.slices[0]?.thicknessMm ?? 50, count: null }] })} // biome-ignore format: one line
          sx={{ mt: 0.75 }}
        >
          {say.addBoard}
        </Button>
      )}
    </Section>
  );
}

function Dowels({ open: { settings, set, plan }, unit }: { open: Props; unit: 'mm' | 'in' }) {
  const { dowels } = settings;
  const change = (k: number, by: Partial<(typeof dowels)[0]>) =>
    set({ dowels: dowels.map((dowel, n) => (n === k ? { ...dowel, ...by } : dowel)) });
  return (
    <Section title={say.dowels}>
      <Box sx={{ display: 'grid', gap: 1 }}>
        {dowels.map((dowel, k) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: dowels are told apart by their place in the list
          <Box key={k} sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr auto', gap: 1, alignItems: 'start' }}>
            <Measure label={say.across} mm={dowel.across} unit={unit} range="any" onMm={(across) => change(k, { across })} />
            <Measure label={say.up} mm={dowel.up} unit={unit} range="from zero" onMm={(up) => change(k, { up })} />
            <Measure
              label={say.wide}
              mm={dowel.diameterMm}
              unit={unit}
              onMm={(mm) => change(k, { diameterMm: Math.max(0.5, Math.min(500, mm)) })}
            />
            <IconButton aria-label={say.removeDowel(k + 1)} size="small" onClick={() => set({ dowels: dowels.filter((_, n) => n !== k) })}>
              <DeleteOutlined fontSize="small" />
            </IconButton>
          </Box>
        ))}
      </Box>
      {dowels.length < mostDowels && (
        <Button
          size="small"
          startIcon={<AddOutlined />}
          onClick={() => set({ dowels: [...dowels, { across: 0, up: (plan?.heightMm ?? 100) / 2, diameterMm: 8 }] })}
          sx={{ mt: 0.75 }}
        >
          {say.addDowel}
        </Button>
      )}
    </Section>
  );
}
