'use client';
/**
 * Patterns tried out on the picture: each lies over the block where it is drawn, stepped through by arrow keys; those pinned stand beside
 * one another with how densely they are quilted.
 */
import CloseOutlined from '@mui/icons-material/CloseOutlined';
import PushPinOutlined from '@mui/icons-material/PushPinOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import ButtonBase from '@mui/material/ButtonBase';
import IconButton from '@mui/material/IconButton';
import Typography from '@mui/material/Typography';
import { printBoth } from '@nuvet/core/length';
import { chordsOf } from '@nuvet/core/plane';
import {
  isInBlock,
  type LinePattern,
  mostPinned,
  type QuiltingLineSettings,
  type QuiltingSettings,
  type QuiltPlan,
} from '@nuvet/core/quilting';
import { useMemo } from 'react';
import { useJob } from '@/job/job-store';
import { colours } from '@/ui/colours';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { PlanFault } from '../PlanFault';
import type { PanelProps } from '../process-view';
import { PatternFields, PlaceFields } from './LineFields';
import { OwnMotifs } from './OwnMotifs';
import { PatternPick, patternWords } from './PatternPick';

const say = words.quilting;
const tried: LinePattern = 'river-wave';

export function TryOutPanel({ open: { settings, set, plan }, pieces }: PanelProps<QuiltingSettings, QuiltPlan>) {
  const unit = useJob((s) => s.job.unit);
  const { line, pinned } = settings;
  const here = isInBlock(line.over) ? line : { ...line, over: 'block' as const };
  const change = (by: Partial<QuiltingLineSettings>) => set({ line: { ...here, isInEveryBlock: false, ...by } });
  const pinnable = line.pattern !== 'none' && line.pattern !== 'drawn' && line.pattern !== 'own motif' && !pinned.includes(line.pattern);
  const toPin = pinnable ? (line.pattern as (typeof pinned)[0]) : null;
  return (
    <>
      <Section title={say.tryOut}>
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1 }}>
          {say.tryOutAbout}
        </Typography>
        <Box sx={{ display: 'grid', gap: 1.25 }}>
          <PatternPick pattern={line.pattern} onPattern={(pattern) => change({ pattern: pattern === 'none' ? tried : pattern })} />
          {line.pattern === 'own motif' && <OwnMotifs settings={settings} set={set} pieces={pieces} />}
          <PlaceFields line={here} onChange={change} settings={settings} plan={plan} inBlockOnly />
          <PatternFields line={here} onChange={change} unit={unit} />
          {plan?.line?.isOnBlock && (
            <Box>
              <Reading name={say.lineLength}>{say.metres((plan.line.lengthMm / 1000).toFixed(2))}</Reading>
              <Reading name={say.largestGap}>{printBoth(2 * plan.line.gapMm, unit)}</Reading>
            </Box>
          )}
          <Button
            size="small"
            variant="outlined"
            startIcon={<PushPinOutlined />}
            disabled={!toPin || pinned.length >= mostPinned}
            onClick={() => toPin && set({ pinned: [...pinned, toPin] })}
          >
            {say.pin(patternWords[line.pattern])}
          </Button>
          {plan && plan.quilt.blocks.length > 1 && line.pattern !== 'none' && (
            <Button size="small" variant="contained" disabled={line.isInEveryBlock} onClick={() => change({ isInEveryBlock: true })}>
              {line.isInEveryBlock ? say.isInEveryBlock : say.inAllBlocks(plan.quilt.blocks.length)}
            </Button>
          )}
        </Box>
      </Section>
      <PlanFault />
      {plan && pinned.length > 0 && (
        <Section title={say.sideBySide}>
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1, mt: 0.5 }}>
            {pinned.map((pattern) => (
              <Pinned
                key={pattern}
                pattern={pattern}
                plan={plan}
                unit={unit}
                isTaken={pattern === line.pattern}
                onTake={() => change({ pattern })}
                onRemove={() => set({ pinned: pinned.filter((one) => one !== pattern) })}
              />
            ))}
          </Box>
        </Section>
      )}
    </>
  );
}

interface PinnedProps {
  readonly pattern: LinePattern;
  readonly plan: QuiltPlan;
  readonly unit: 'mm' | 'in';
  readonly isTaken: boolean;
  readonly onTake: () => void;
  readonly onRemove: () => void;
}

const chordMm = 1;

function Pinned({ pattern, plan, unit, isTaken, onTake, onRemove }: PinnedProps) {
  // Undefined until the plan knows of it.
  const line = plan.pinned.get(pattern);
  const { widthMm, heightMm } = plan.block;
  const lines = useMemo(
    () =>
      (line?.runs ?? []).map(({ path }) =>
        chordsOf(path, chordMm)
          .map(({ x, y }) => `${x.toFixed(0)},${(heightMm - y).toFixed(0)}`)
          .join(' '),
      ),
    [line, heightMm],
  );
  return (
    <Box sx={{ position: 'relative' }}>
      <ButtonBase
        aria-label={say.takePattern(patternWords[pattern])}
        aria-pressed={isTaken}
        onClick={onTake}
        sx={{
          display: 'block',
          width: '100%',
          border: `2px solid ${isTaken ? colours.verdigris : colours.line}`,
          borderRadius: 1,
          bgcolor: colours.sheet,
          p: 0.5,
        }}
      >
        <svg
          viewBox={`0 0 ${widthMm} ${heightMm}`}
          width="100%"
          style={{ display: 'block', aspectRatio: `${widthMm} / ${heightMm}`, maxHeight: 120 }}
          aria-hidden
        >
          {lines.map((points) => (
            <polyline key={points.slice(0, 40)} points={points} fill="none" stroke={colours.ink} strokeWidth={widthMm / 160} />
          ))}
        </svg>
        <Typography variant="caption" sx={{ display: 'block', fontWeight: 600 }}>
          {patternWords[pattern]}
        </Typography>
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block' }}>
          {line ? say.pinnedReading((line.lengthMm / 1000).toFixed(1), printBoth(2 * line.gapMm, unit)) : line === null ? say.noRoom : ' '}
        </Typography>
      </ButtonBase>
      <IconButton
        aria-label={say.unpin(patternWords[pattern])}
        size="small"
        onClick={onRemove}
        sx={{ position: 'absolute', top: 2, right: 2, p: 0.25, bgcolor: colours.sheet }}
      >
        <CloseOutlined sx={{ fontSize: 14 }} />
      </IconButton>
    </Box>
  );
}
