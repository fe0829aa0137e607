'use client';
/** How blocks are set into a quilt: columns and rows, straight or on point, sashing, borders; and its size over all. */
import AddOutlined from '@mui/icons-material/AddOutlined';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import IconButton from '@mui/material/IconButton';
import Switch from '@mui/material/Switch';
import Typography from '@mui/material/Typography';
import { printBoth } from '@nuvet/core/length';
import {
  type Border,
  blockSettings,
  borderPieces,
  borderUnits,
  fabricAt,
  inchMm,
  mostBorders,
  type QuiltingSettings,
  type QuiltPlan,
  type Ring,
  turnings,
} from '@nuvet/core/quilting';
import { useJob } from '@/job/job-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { PlanFault } from '../PlanFault';
import type { PanelProps } from '../process-view';
import { FabricPick } from './FabricPick';

const say = words.quilting;
type Props = PanelProps<QuiltingSettings, QuiltPlan>['open'];

export function QuiltPanel({ open }: PanelProps<QuiltingSettings, QuiltPlan>) {
  const unit = useJob((s) => s.job.unit);
  const { settings, set, plan } = open;
  const { setting } = settings;
  const hasSashing = setting === 'straight' || setting === 'strips';
  return (
    <>
      <Section title={say.quilt}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Row>
            <Pick
              label={say.setting}
              value={settings.setting}
              words={Object.fromEntries(blockSettings.map((s) => [s, say.settings[s]])) as typeof say.settings}
              onPick={(setting) => set({ setting })}
            />
            <Pick
              label={say.turning}
              value={settings.turning}
              words={Object.fromEntries(turnings.map((t) => [t, say.turnings[t]])) as typeof say.turnings}
              onPick={(turning) => set({ turning })}
            />
          </Row>
          {setting !== 'medallion' && (
            <Row>
              <NumberField
                label={say.columns}
                value={settings.columns}
                digits={0}
                unit={say.blocks}
                least={1}
                most={60}
                onNumber={(n) => set({ columns: Math.round(n) })}
              />
              <NumberField
                label={say.rows}
                value={settings.rows}
                digits={0}
                unit={say.blocks}
                least={1}
                most={60}
                onNumber={(n) => set({ rows: Math.round(n) })}
              />
            </Row>
          )}
          {setting === 'medallion' && (
            <Typography variant="caption" color="textSecondary">
              {say.medallionAbout}
            </Typography>
          )}
          {setting !== 'medallion' && (
            <FormControlLabel
              control={<Switch checked={settings.alternate} onChange={(_, alternate) => set({ alternate })} />}
              label={say.alternate}
            />
          )}
          {hasSashing && (
            <>
              <Measure
                label={setting === 'strips' ? say.strips : say.sashing}
                mm={settings.sashingMm}
                unit={unit}
                range="from zero"
                most={20_000}
                onMm={(mm) => set({ sashingMm: mm })}
              />
              {settings.sashingMm > 0 && (
                <>
                  {setting === 'straight' && (
                    <FormControlLabel
                      control={<Switch checked={settings.hasPosts} onChange={(_, hasPosts) => set({ hasPosts })} />}
                      label={say.posts}
                    />
                  )}
                  <Row>
                    <FabricPick
                      settings={settings}
                      label={say.sashingFabric}
                      value={settings.sashingFabric}
                      onFabric={(sashingFabric) => set({ sashingFabric })}
                    />
                    {setting === 'straight' && settings.hasPosts && (
                      <FabricPick
                        settings={settings}
                        label={say.postFabric}
                        value={settings.postFabric}
                        onFabric={(postFabric) => set({ postFabric })}
                      />
                    )}
                  </Row>
                </>
              )}
            </>
          )}
          {((settings.alternate && setting !== 'medallion') || setting === 'on point') && (
            <FabricPick
              settings={settings}
              label={say.plainFabric}
              value={settings.plainFabric}
              onFabric={(plainFabric) => set({ plainFabric })}
            />
          )}
        </Box>
      </Section>
      <PlanFault />
      <Borders open={open} unit={unit} />
      {plan && (
        <Section title={say.overAll}>
          <Reading name={say.blocksInAll}>{plan.quilt.blocks.length}</Reading>
          <Reading name={words.makeReady.wide}>{printBoth(plan.quilt.widthMm, unit)}</Reading>
          <Reading name={words.makeReady.high}>{printBoth(plan.quilt.heightMm, unit)}</Reading>
        </Section>
      )}
    </>
  );
}

/** Another fabric than that one, where there is another. */
const otherFabric = (fabric: number, settings: QuiltingSettings): number => fabricAt(settings, fabric === 0 ? 1 : 0);

/** Borders of no width have no ring. */
function ringsByBorder({ quilt }: QuiltPlan, borders: QuiltingSettings['borders']): (Ring | undefined)[] {
  const left = [...quilt.rings];
  return borders.map(({ widthMm }) => (widthMm > 0 ? left.shift() : undefined));
}

/** How many units a pieced border has, and how large they come out. */
function Units({ border: { pieces = 'plain' }, ring, unit }: { border: Border; ring: Ring | undefined; unit: 'mm' | 'in' }) {
  if (pieces === 'plain' || !ring) return null;
  const { across, up, acrossMm, upMm } = borderUnits(ring, pieces);
  return (
    <Typography variant="caption" color="textSecondary">
      {say.units(across, printBoth(acrossMm, unit), up, printBoth(upMm, unit))}
    </Typography>
  );
}

function Borders({ open, unit }: { open: Props; unit: 'mm' | 'in' }) {
  const { settings, set, plan } = open;
  const { borders } = settings;
  const change = (k: number, by: Partial<(typeof borders)[0]>) =>
    set({ borders: borders.map((border, n) => (n === k ? { ...border, ...by } : border)) });
  return (
    <Section title={say.borders}>
      <Box sx={{ display: 'grid', gap: 1.25, mt: borders.length > 0 ? 1 : 0 }}>
        {borders.map((border, k) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: borders are told apart by their place, from the inner one out
          <Box key={k} sx={{ display: 'grid', gap: 1 }}>
            <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr auto', gap: 1, alignItems: 'start' }}>
              <Measure
                label={say.borderWidth(k + 1)}
                mm={border.widthMm}
                unit={unit}
                range="from zero"
                most={20_000}
                onMm={(mm) => change(k, { widthMm: mm })}
              />
              <Pick
                label={say.borderPieces(k + 1)}
                value={border.pieces ?? 'plain'}
                words={Object.fromEntries(borderPieces.map((one) => [one, say.piecesWords[one]])) as typeof say.piecesWords}
                onPick={(pieces) => change(k, { pieces, second: border.second ?? otherFabric(border.fabric, settings) })}
              />
              <IconButton
                aria-label={say.removeBorder(k + 1)}
                size="small"
                onClick={() => set({ borders: borders.filter((_, n) => n !== k) })}
              >
                <DeleteOutlined fontSize="small" />
              </IconButton>
            </Box>
            <Row>
              <FabricPick
                settings={settings}
                label={say.borderFabric(k + 1)}
                value={border.fabric}
                onFabric={(fabric) => change(k, { fabric })}
              />
              {(border.pieces ?? 'plain') !== 'plain' && (
                <FabricPick
                  settings={settings}
                  label={say.secondFabric}
                  value={border.second ?? 0}
                  onFabric={(second) => change(k, { second })}
                />
              )}
            </Row>
            {(border.pieces ?? 'plain') !== 'plain' && (
              <FabricPick
                settings={settings}
                label={say.cornerFabric}
                value={border.corner ?? border.second ?? 0}
                onFabric={(corner) => change(k, { corner })}
              />
            )}
            {plan && <Units border={border} ring={ringsByBorder(plan, borders)[k]} unit={unit} />}
          </Box>
        ))}
        {borders.length > 0 && (
          <FormControlLabel
            control={<Switch checked={settings.isMitred} onChange={(_, isMitred) => set({ isMitred })} />}
            label={say.mitred}
          />
        )}
        <Row>
          <Measure label={say.binding} mm={settings.bindingMm} unit={unit} most={500} onMm={(mm) => set({ bindingMm: mm })} />
          <FabricPick
            settings={settings}
            label={say.bindingFabric}
            value={settings.bindingFabric}
            onFabric={(bindingFabric) => set({ bindingFabric })}
          />
        </Row>
      </Box>
      {borders.length < mostBorders && (
        <Button
          size="small"
          startIcon={<AddOutlined />}
          onClick={() => set({ borders: [...borders, { widthMm: 3 * inchMm, fabric: borders.length % 2 }] })}
          sx={{ mt: 0.75 }}
        >
          {say.addBorder}
        </Button>
      )}
    </Section>
  );
}
