'use client';
/** A base under all, drawn lines as bands, and part spheres on outlines. */
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { Piece } from '@nuvet/core/job';
import { mostPairs, mostSpheres, mostTurned, plainPlayMm, type SolidPlan, type SolidSettings } from '@nuvet/core/solid';
import { useJob } from '@/job/job-store';
import { FieldRows } from '@/ui/FieldRows';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { OutlinePick } from '../OutlinePick';
import { PlanFault } from '../PlanFault';
import { PlanNotes } from '../PlanNotes';
import type { PanelProps } from '../process-view';
import { ReliefSection } from './ReliefSection';
import { setSolidSpace, useSolidSpace } from './solid-space-store';

const say = words.solid;
/** In place of another outline. */
const again = 'the same';
type Open = PanelProps<SolidSettings, SolidPlan>['open'];
const plainBase: NonNullable<SolidSettings['base']> = { marginMm: 3, thicknessMm: 2, cornerMm: 3, holeMm: null };
const plainLines: NonNullable<SolidSettings['lines']> = { widthMm: 1, fromMm: 0, toMm: 3, how: 'join' };

export function MorePanel({ open, pieces }: PanelProps<SolidSettings, SolidPlan>) {
  const unit = useJob((s) => s.job.unit);
  const { settings, set, notes } = open;
  const outlines = pieces.filter(({ outer }) => outer.closed);
  return (
    <>
      <Base open={open} unit={unit} />
      <Lines open={open} unit={unit} />
      <Section title={say.spheres}>
        <FieldRows
          list={settings.spheres}
          most={mostSpheres}
          fields={1}
          onList={(to) => set({ spheres: to })}
          onAdd={
            outlines[0]
              ? () =>
                  set({
                    spheres: [
                      ...settings.spheres,
                      { pieceId: outlines[0]?.id ?? '', diameterMm: 8, faceMm: settings.body.toMm, depthMm: 2, how: 'boss' },
                    ],
                  })
              : null
          }
          addWord={say.addSphere}
          removeWord={say.removeSphere}
        >
          {(sphere, onChange, k) => (
            <>
              <OutlinePick
                label={say.sphereOn(k + 1)}
                pieces={outlines}
                value={sphere.pieceId}
                onPick={(pieceId) => onChange({ ...sphere, pieceId })}
              />
              <Box sx={{ gridColumn: 1, display: 'grid', gap: 1.25 }}>
                <Row>
                  <Pick
                    label={say.sphereHow(k + 1)}
                    value={sphere.how}
                    words={say.sphereHows}
                    onPick={(how) => onChange({ ...sphere, how })}
                  />
                  <Measure
                    label={say.diameter}
                    mm={sphere.diameterMm}
                    unit={unit}
                    least={0.2}
                    most={1000}
                    onMm={(mm) => onChange({ ...sphere, diameterMm: mm })}
                  />
                </Row>
                <Row>
                  <Measure
                    label={say.face}
                    mm={sphere.faceMm}
                    unit={unit}
                    range="any"
                    least={-500}
                    most={500}
                    onMm={(mm) => onChange({ ...sphere, faceMm: mm })}
                  />
                  <Measure
                    label={say.depth}
                    mm={sphere.depthMm}
                    unit={unit}
                    least={0.05}
                    most={1000}
                    onMm={(mm) => onChange({ ...sphere, depthMm: mm })}
                  />
                </Row>
              </Box>
            </>
          )}
        </FieldRows>
      </Section>
      <ReliefSection open={open} unit={unit} outlines={outlines} />
      <Pairs open={open} unit={unit} outlines={outlines} />
      <Section title={say.turned}>
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1.25 }}>
          {say.turnedAbout}
        </Typography>
        <FieldRows
          list={settings.turned}
          most={mostTurned}
          fields={1}
          onList={(to) => set({ turned: to })}
          onAdd={
            outlines[0] ? () => set({ turned: [...settings.turned, { pieceId: outlines[0]?.id ?? '', degrees: 360, wallMm: null }] }) : null
          }
          addWord={say.addTurned}
          removeWord={say.removeTurned}
        >
          {(one, onChange, k) => (
            <>
              <OutlinePick
                label={say.turnedOf(k + 1)}
                pieces={outlines}
                value={one.pieceId}
                onPick={(pieceId) => onChange({ ...one, pieceId })}
              />
              <Box sx={{ gridColumn: 1 }}>
                <Row>
                  <NumberField
                    label={say.degrees(k + 1)}
                    value={one.degrees}
                    digits={1}
                    unit="°"
                    least={1}
                    most={360}
                    onNumber={(degrees) => onChange({ ...one, degrees })}
                  />
                  <Measure
                    label={say.wall(k + 1)}
                    mm={one.wallMm}
                    unit={unit}
                    placeholder={say.noWall}
                    least={0.1}
                    most={500}
                    onEmpty={() => onChange({ ...one, wallMm: null })}
                    onMm={(wallMm) => onChange({ ...one, wallMm })}
                  />
                </Row>
              </Box>
            </>
          )}
        </FieldRows>
      </Section>
      <Section title={say.fineness}>
        <Measure label={say.chord} mm={settings.chordMm} unit={unit} least={0.001} most={1} onMm={(chordMm) => set({ chordMm })} />
      </Section>
      <PlanFault />
      <PlanNotes notes={notes} />
    </>
  );
}

function Pairs({ open: { settings, set, plan }, unit, outlines }: { open: Open; unit: 'mm' | 'in'; outlines: readonly Piece[] }) {
  const isAssembled = useSolidSpace((s) => s.isAssembled);
  const first = outlines[0]?.id;
  return (
    <Section title={say.pairs}>
      <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1.25 }}>
        {say.pairsAbout}
      </Typography>
      <FieldRows
        list={settings.pairs}
        most={mostPairs}
        fields={1}
        onList={(to) => set({ pairs: to })}
        onAdd={
          first
            ? () =>
                set({ pairs: [...settings.pairs, { pieceId: first, otherId: null, degrees: 90, playMm: plainPlayMm, asideMm: [0, 0] }] })
            : null
        }
        addWord={say.addPair}
        removeWord={say.removePair}
      >
        {(pair, onChange, k) => (
          <>
            <OutlinePick
              label={say.pairOf(k + 1)}
              pieces={outlines}
              value={pair.pieceId}
              onPick={(pieceId) => onChange({ ...pair, pieceId })}
            />
            <Box sx={{ gridColumn: 1, display: 'grid', gap: 1.25 }}>
              <OutlinePick
                label={say.pairWith}
                pieces={outlines.filter(({ id }) => id !== pair.pieceId)}
                value={pair.otherId ?? again}
                also={{ [again]: say.sameAgain }}
                onPick={(id) => onChange({ ...pair, otherId: id === again ? null : id })}
              />
              <Row>
                <NumberField
                  label={say.slotWay(k + 1)}
                  value={pair.degrees}
                  digits={1}
                  unit="°"
                  least={-360}
                  most={360}
                  onNumber={(degrees) => onChange({ ...pair, degrees })}
                />
                <Measure
                  label={say.play}
                  mm={pair.playMm}
                  unit={unit}
                  range="from zero"
                  most={20}
                  onMm={(playMm) => onChange({ ...pair, playMm })}
                />
              </Row>
              <Row>
                {([0, 1] as const).map((half) => (
                  <Measure
                    key={half}
                    label={half === 0 ? say.asideFirst : say.asideSecond}
                    mm={pair.asideMm[half]}
                    unit={unit}
                    range="any"
                    least={-2000}
                    most={2000}
                    onMm={(mm) => onChange({ ...pair, asideMm: half === 0 ? [mm, pair.asideMm[1]] : [pair.asideMm[0], mm] })}
                  />
                ))}
              </Row>
            </Box>
          </>
        )}
      </FieldRows>
      {plan !== null && plan.pairs.length > 0 && (
        <Box sx={{ mt: 1.25 }}>
          <Pick
            label={say.shown}
            value={isAssembled ? 'assembled' : 'apart'}
            words={say.shownKinds}
            onPick={(which) => setSolidSpace({ isAssembled: which === 'assembled' })}
          />
        </Box>
      )}
    </Section>
  );
}

function Base({ open: { settings, set }, unit }: { open: Open; unit: 'mm' | 'in' }) {
  const { base } = settings;
  const change = (to: Partial<typeof plainBase>): void => set({ base: { ...(base ?? plainBase), ...to } });
  return (
    <Section title={say.base}>
      <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
        <Pick
          label={say.base}
          value={base ? 'plate' : 'none'}
          words={say.bases}
          onPick={(kind) => set({ base: kind === 'plate' ? plainBase : null })}
        />
        {base && (
          <>
            <Row>
              <Measure
                label={say.margin}
                mm={base.marginMm}
                unit={unit}
                range="from zero"
                most={500}
                onMm={(mm) => change({ marginMm: mm })}
              />
              <Measure
                label={say.thick}
                mm={base.thicknessMm}
                unit={unit}
                least={0.1}
                most={500}
                onMm={(mm) => change({ thicknessMm: mm })}
              />
            </Row>
            <Row>
              <Measure
                label={say.corners}
                mm={base.cornerMm}
                unit={unit}
                range="from zero"
                most={500}
                onMm={(mm) => change({ cornerMm: mm })}
              />
              <Measure
                label={say.hole}
                mm={base.holeMm}
                unit={unit}
                placeholder={say.noHole}
                onEmpty={() => change({ holeMm: null })}
                least={0.5}
                most={100}
                onMm={(mm) => change({ holeMm: mm })}
              />
            </Row>
          </>
        )}
      </Box>
    </Section>
  );
}

function Lines({ open: { settings, set }, unit }: { open: Open; unit: 'mm' | 'in' }) {
  const { lines } = settings;
  const change = (to: Partial<typeof plainLines>): void => set({ lines: { ...(lines ?? plainLines), ...to } });
  return (
    <Section title={say.lines}>
      <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
        <Pick
          label={say.lines}
          value={lines ? 'bands' : 'none'}
          words={say.lineKinds}
          onPick={(kind) => set({ lines: kind === 'bands' ? plainLines : null })}
        />
        {lines && (
          <>
            <Row>
              <Measure label={say.wide} mm={lines.widthMm} unit={unit} least={0.05} most={200} onMm={(mm) => change({ widthMm: mm })} />
              <Pick label={say.how} value={lines.how} words={say.lineHows} onPick={(how) => change({ how })} />
            </Row>
            <Row>
              <Measure
                label={say.from}
                mm={lines.fromMm}
                unit={unit}
                range="any"
                least={-500}
                most={500}
                onMm={(mm) => change({ fromMm: mm })}
              />
              <Measure label={say.to} mm={lines.toMm} unit={unit} range="any" least={-500} most={500} onMm={(mm) => change({ toMm: mm })} />
            </Row>
          </>
        )}
      </Box>
    </Section>
  );
}
