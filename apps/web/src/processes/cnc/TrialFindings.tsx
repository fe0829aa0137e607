'use client';
/** What a trial run found: gouges, what is left standing, what the tools run into; a click goes to each place in space. */
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import { Reading } from '@/ui/Section';
import { words } from '@/words';
import type { TrialMeasured } from '@/workers/maker.worker';
import { setTrial, useTrial } from './trial-store';

const say = words.cnc;

/** Halves that reach further into one another do not go together, mm: common practice. */
const tightMm = 0.05;

interface Props extends TrialMeasured {
  /** What else is done where a place is to be looked at. */
  readonly onShow?: () => void;
}

export function TrialFindings({ milled, runsInto, inlays, onShow }: Props) {
  const place = (v: number): string => v.toFixed(1);
  const look = ({ x, y }: { x: number; y: number }): void => {
    setTrial({ look: { x, y, count: (useTrial.getState().look?.count ?? 0) + 1 } });
    onShow?.();
  };
  const problems = [
    ...milled.gouges.map(({ name, beyondMm, at }) => ({ at, severity: 'error' as const, text: say.gougeAt(name, beyondMm.toFixed(2), place(at.x), place(at.y)) })),
    ...runsInto.map(({ what, tool, at }) => ({ at, severity: 'error' as const, text: (what === 'clamp' ? say.runsIntoClamp : say.runsIntoStock)(tool, place(at.x), place(at.y)) })),
    ...milled.left.map(({ name, areaMm2, widestMm, at }) => ({ at, severity: 'warning' as const, text: say.leftAt(name, areaMm2.toFixed(2), widestMm.toFixed(2)) })),
  ]; // biome-ignore format: one line
  return (
    <>
      <Reading name={say.gouges} tone={milled.gouges.length > 0 ? 'error' : undefined}>
        {milled.gouges.length === 0 ? say.none : milled.gouges.length}
      </Reading>
      <Reading name={say.runsInto} tone={runsInto.length > 0 ? 'error' : undefined}>
        {runsInto.length === 0 ? say.none : runsInto.length}
      </Reading>
      <Reading name={say.left} tone={milled.left.length > 0 ? 'warning' : undefined}>
        {milled.left.length === 0 ? say.none : `${milled.left.reduce((sum, { areaMm2 }) => sum + areaMm2, 0).toFixed(2)} mm²`}
      </Reading>
      <Reading name={say.floorOff}>{say.millimetres(milled.floorOffMm.toFixed(3))}</Reading>
      {milled.wallOffMm > 0 && <Reading name={say.wallOff}>{say.millimetres(milled.wallOffMm.toFixed(3))}</Reading>}
      {milled.tabs.length > 0 && (
        <Reading name={say.tabs}>
          {say.tabsStand(milled.tabs.length, Math.min(...milled.tabs.map(({ heightMm }) => heightMm)).toFixed(2))}
        </Reading>
      )}
      {inlays.map(({ pieceId, name, gapMm, overlapMm }) => (
        <Reading key={pieceId} name={say.inlayFits(name)} tone={overlapMm > tightMm ? 'warning' : undefined}>
          {say.gapAndOverlap(gapMm.toFixed(3), overlapMm.toFixed(3))}
        </Reading>
      ))}
      <Reading name={say.removed}>{say.cubicCm((milled.removedMm3 / 1000).toFixed(2))}</Reading>
      {problems.map(({ at, severity, text }) => (
        <Alert
          key={text}
          severity={severity}
          variant="outlined"
          sx={{ my: 0.5 }}
          action={
            <Button size="small" color="inherit" onClick={() => look(at)}>
              {say.show}
            </Button>
          }
        >
          {text}
        </Alert>
      ))}
    </>
  );
}
