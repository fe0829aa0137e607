'use client';
/** The block: its finished size, the grid that it lies on, what is wrong with it, and how it is sewn, step by step. */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { printBoth } from '@nuvet/core/length';
import { blockEdges, blockGrids, isAboutLine, piecingSteps, type QuiltingSettings, type QuiltPlan } from '@nuvet/core/quilting';
import { useMemo } from 'react';
import { useJob } from '@/job/job-store';
import { showPlaces } from '@/table/show-places';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { told } from '@/words/told';
import { PlanFault } from '../PlanFault';
import type { PanelProps } from '../process-view';
import { FabricPick } from './FabricPick';
import { LayerOrder } from './LayerOrder';
import { usePrints } from './prints';
import { UnitPicture } from './UnitPicture';

const say = words.quilting;
type Open = PanelProps<QuiltingSettings, QuiltPlan>['open'];

const gridWords: Readonly<Record<string, string>> = {
  auto: say.gridFound,
  none: say.gridNone,
  ...Object.fromEntries(blockGrids.map(({ name }) => [name, say.gridName(name)])),
};

export function BlockPanel({ open }: PanelProps<QuiltingSettings, QuiltPlan>) {
  const unit = useJob((s) => s.job.unit);
  const { settings, set, plan } = open;
  usePrints(settings.fabrics);
  return (
    <>
      <Section title={say.block}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Pick label={say.technique} value={settings.technique} words={say.techniques} onPick={(technique) => set({ technique })} />
          {settings.technique === 'pieced' ? <Drafted open={open} unit={unit} /> : <Applied open={open} unit={unit} />}
        </Box>
      </Section>
      <PlanFault />
      {plan && <Found plan={plan} unit={unit} />}
      {plan && settings.technique === 'appliqué' && <LayerOrder plan={plan} set={set} />}
      {plan && settings.technique === 'pieced' && plan.block.map.faces.length > 1 && <Steps open={open} plan={plan} />}
    </>
  );
}

type Fields = { readonly open: Open; readonly unit: 'mm' | 'in' };

function Drafted({ open: { settings, set }, unit }: Fields) {
  return (
    <>
      <Row>
        <Measure label={say.finished} mm={settings.finishedMm} unit={unit} most={20_000} onMm={(mm) => set({ finishedMm: mm })} />
        <Pick label={say.grid} value={settings.grid} words={gridWords} onPick={(grid) => set({ grid: grid as QuiltingSettings['grid'] })} />
      </Row>
      <Row>
        <Pick
          label={say.edge}
          value={settings.edge}
          words={Object.fromEntries(blockEdges.map((edge) => [edge, say.edges[edge]])) as typeof say.edges}
          onPick={(edge) => set({ edge })}
        />
        <Measure
          label={say.join}
          mm={settings.joinMm}
          unit={unit}
          placeholder={say.found}
          onEmpty={() => set({ joinMm: null })}
          most={100}
          onMm={(mm) => set({ joinMm: mm })}
        />
      </Row>
    </>
  );
}

function Applied({ open: { settings, set }, unit }: Fields) {
  return (
    <>
      <Measure label={say.background} mm={settings.finishedMm} unit={unit} most={20_000} onMm={(mm) => set({ finishedMm: mm })} />
      <Row>
        <Measure
          label={say.turnUnder}
          mm={settings.turnUnderMm}
          unit={unit}
          range="from zero"
          most={50}
          onMm={(mm) => set({ turnUnderMm: mm })}
        />
        <Measure label={say.under} mm={settings.underMm} unit={unit} range="from zero" most={100} onMm={(mm) => set({ underMm: mm })} />
      </Row>
      <Row>
        <Measure label={say.stemWidth} mm={settings.stemMm} unit={unit} most={200} onMm={(mm) => set({ stemMm: mm })} />
        <FabricPick settings={settings} label={say.stemFabric} value={settings.stemFabric} onFabric={(stemFabric) => set({ stemFabric })} />
      </Row>
      {settings.turnUnderMm === 0 && (
        <Typography variant="caption" color="textSecondary">
          {say.fusedAbout}
        </Typography>
      )}
    </>
  );
}

function Found({ plan: { block, shapes, seams, notes }, unit }: { plan: QuiltPlan; unit: 'mm' | 'in' }) {
  const farthest = block.moved.reduce((most, { from, to }) => Math.max(most, Math.hypot(to.x - from.x, to.y - from.y)), 0);
  return (
    <Section title={say.whatItIs}>
      <Reading name={say.patches}>{say.patchesOf(block.map.faces.length, shapes.length)}</Reading>
      {block.map.edges.length > 0 && <Reading name={say.gridItLiesOn}>{block.grid === null ? say.none : say.gridName(block.grid)}</Reading>}
      {block.moved.length > 0 && <Reading name={say.cornersMoved(block.moved.length)}>{say.atMost(printBoth(farthest, unit))}</Reading>}
      {block.gapMm > 0 && <Reading name={say.drawnApartBy}>{printBoth(block.gapMm, unit)}</Reading>}
      {block.map.edges.length > 0 && <Reading name={say.seams}>{say.seamsOf(seams.straight, seams.curved, seams.setIn)}</Reading>}
      {shapes.some(({ patches, isSymmetric }) => !isSymmetric && patches.some(({ isReversed }) => isReversed)) && (
        <Typography variant="caption" color="textSecondary">
          {say.reversedMeans}
        </Typography>
      )}
      {notes
        .filter((note) => !isAboutLine(note))
        .map(({ said, message, at }) => (
          <Alert
            key={message}
            severity="warning"
            variant="outlined"
            sx={{ mt: 0.75 }}
            action={
              at && (
                <Button
                  size="small"
                  color="inherit"
                  aria-label={words.prove.goTo(told(said, unit))}
                  onClick={() => showPlaces([at], showRimMm)}
                >
                  {say.show}
                </Button>
              )
            }
          >
            {told(said, unit)}
          </Alert>
        ))}
    </Section>
  );
}

/** Shown about a place that is gone to, mm. */
const showRimMm = 25;

/** More steps than this are for a book, not for a docket. */
const mostSteps = 40;

function Steps({ open: { settings }, plan }: { open: Open; plan: QuiltPlan }) {
  const steps = useMemo(() => piecingSteps(plan.piecing, plan.shapes), [plan]);
  return (
    <Section title={say.sewing}>
      <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0, display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        {steps.slice(0, mostSteps).map(({ units, joined, isSetIn }, k) => (
          <Box component="li" key={String(k)} sx={{ display: 'flex', gap: 1, alignItems: 'center', minWidth: 0 }}>
            <UnitPicture plan={plan} unit={units[0] as (typeof units)[0]} settings={settings} name={say.stepPicture(k + 1)} sizePx={58} />
            <Box sx={{ minWidth: 0 }}>
              <Typography variant="body2" sx={{ fontWeight: 600 }}>
                {k + 1}
              </Typography>
              <Typography variant="caption" color="textSecondary" sx={{ display: 'block' }}>
                {isSetIn ? say.setIn(joined) : say.join2(joined)}
                {units.length > 1 ? ` ${say.make(units.length)}` : ''}
              </Typography>
            </Box>
          </Box>
        ))}
      </Box>
    </Section>
  );
}
