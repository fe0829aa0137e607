'use client';
/**
 * Measures that the chosen outline keeps: each typed anew or let go; how far one is off where they contradict one another.
 */
import CloseOutlined from '@mui/icons-material/CloseOutlined';
import LockOpenOutlined from '@mui/icons-material/LockOpenOutlined';
import LockOutlined from '@mui/icons-material/LockOutlined';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import ToggleButton from '@mui/material/ToggleButton';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import { canHold, type Drawn, masterOf } from '@nuvet/core/job';
import type { Dimension } from '@nuvet/core/shape';
import { NumberField } from '@/ui/NumberField';
import { Measure, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { useChosen } from './use-chosen';

type Held = NonNullable<Drawn['held']>;

const sameKind = (a: Dimension, b: Dimension): boolean =>
  (a.kind === 'length' && b.kind === 'length' && a.segment === b.segment) ||
  (a.kind === 'radius' && b.kind === 'radius' && a.segment === b.segment) ||
  (a.kind === 'turn' && b.kind === 'turn' && a.point === b.point) ||
  (a.kind === 'gap' && b.kind === 'gap' && Math.min(a.a, a.b) === Math.min(b.a, b.b) && Math.max(a.a, a.b) === Math.max(b.a, b.b));

/** The measures that the chosen outline keeps, and how they are changed; a traced piece becomes a drawn one first. */
export function useHeld() {
  const { drawn, target, run, remade, job } = useChosen();
  const held = (drawn?.held ?? []) as readonly Dimension[];
  const write = (next: readonly Dimension[]) => {
    if (drawn) run({ do: 'change-drawn', drawnId: drawn.id, change: { held: next as Held } });
    else remade(words.byHand.aMeasureThatIsKept, (made) => ({ ...made, held: next as Held }));
  };
  return {
    job,
    drawn,
    held,
    /** Only one outline, drawn freely or traced, can keep measures. */
    isPossible: target !== null && target.paths.length === 1 && (!drawn || canHold(drawn.source)),
    of: (measure: Dimension): Dimension | undefined => held.find((m) => sameKind(m, measure)),
    keep: (measure: Dimension) => write([...held.filter((m) => !sameKind(m, measure)), measure]),
    release: (measure: Dimension) => write(held.filter((m) => !sameKind(m, measure))),
  };
}

/** Beside a measure: whether it is kept. */
export function KeepButton({ measure, word }: { measure: Dimension; word: string }) {
  const { isPossible, of, keep, release } = useHeld();
  if (!isPossible) return null;
  const kept = of(measure);
  return (
    <Tooltip title={kept ? words.byHand.thisIsLockedClickToUnlock(word) : words.byHand.lockThis(word)}>
      <ToggleButton
        value="kept"
        size="small"
        color="primary"
        selected={kept !== undefined}
        aria-label={words.byHand.keepThe(word)}
        sx={{ width: 40, height: 40 }}
        onChange={() => (kept ? release(kept) : keep(measure))}
      >
        {kept ? <LockOutlined fontSize="small" /> : <LockOpenOutlined fontSize="small" />}
      </ToggleButton>
    </Tooltip>
  );
}

/** A field with the button that keeps its measure. */
export const Kept = ({ children, measure, word }: { children: React.ReactNode; measure: Dimension; word: string }) => (
  <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) auto', gap: 0.75, alignItems: 'start' }}>
    {children}
    <KeepButton measure={measure} word={word} />
  </Box>
);

const nameOf = (measure: Dimension): string => {
  if (measure.kind === 'gap') return words.byHand.pointsAndApart(measure.a + 1, measure.b + 1);
  if (measure.kind === 'turn') return words.byHand.angleAtPoint(measure.point + 1);
  return words.byHand.ofSegment(measure.kind, measure.segment + 1);
};

/** The angle between both sides that a turn leaves, degrees. */
export const angleOfTurn = (turn: number): number => 180 - (Math.abs(turn) * 180) / Math.PI;
/** The turn to the same side that leaves an angle. */
export const turnOfAngle = (degrees: number, before: number): number => (Math.sign(before) || 1) * (Math.PI - (degrees * Math.PI) / 180);

const minOff = 0.0005;

export function LockedDimensions() {
  const { job, drawn, held, keep, release } = useHeld();
  if (!drawn || held.length === 0) return null;
  const { off } = masterOf(drawn, job.making.stock.thicknessMm);
  return (
    <Section title={`${held.length} ${held.length === 1 ? words.byHand.lockedDimension : words.byHand.lockedDimensions}`}>
      <Box
        component="ul"
        aria-label={words.byHand.keptMeasures}
        sx={{ listStyle: 'none', m: 0, mt: 1.25, p: 0, display: 'grid', gap: 1.25 }}
      >
        {held.map((measure, k) => (
          <Box component="li" key={nameOf(measure)}>
            <Box sx={{ display: 'grid', gridTemplateColumns: 'minmax(0, 1fr) auto', alignItems: 'start', gap: 0.5 }}>
              <HeldField measure={measure} onKeep={keep} unit={job.unit} />
              <IconButton aria-label={words.byHand.unlock(nameOf(measure))} onClick={() => release(measure)} sx={{ width: 40, height: 40 }}>
                <CloseOutlined fontSize="small" />
              </IconButton>
            </Box>
            <Standing
              off={off[k] ?? 0}
              isTurn={measure.kind === 'turn'}
              follows={measure.kind !== 'turn' && measure.mm === null}
              thickness={job.making.stock.thicknessMm}
            />
          </Box>
        ))}
      </Box>
    </Section>
  );
}

function HeldField({ measure, unit, onKeep }: { measure: Dimension; unit: 'mm' | 'in'; onKeep: (measure: Dimension) => void }) {
  const name = nameOf(measure);
  if (measure.kind === 'turn')
    return (
      <NumberField
        label={name}
        value={angleOfTurn(measure.turn)}
        digits={3}
        unit="°"
        least={0.01}
        most={180}
        onNumber={(degrees) => onKeep({ ...measure, turn: turnOfAngle(degrees, measure.turn) })}
      />
    );
  return (
    <Row>
      <Measure
        label={name}
        mm={measure.mm}
        unit={unit}
        placeholder={words.byHand.stockThickness}
        onEmpty={() => onKeep({ ...measure, mm: null, play: commonPlayMm })}
        onMm={(mm) => onKeep({ ...measure, mm, play: 0 })}
      />
      {measure.mm === null && (
        <Measure label={words.byHand.clearance} mm={measure.play} unit={unit} range="any" onMm={(play) => onKeep({ ...measure, play })} />
      )}
    </Row>
  );
}

/** Common practice: half a millimetre in all for a push-together joint in 4 mm stock. */
const commonPlayMm = 0.5;

function Standing({ off, isTurn, follows, thickness }: { off: number; isTurn: boolean; follows: boolean; thickness: number | null }) {
  if (Number.isNaN(off)) return <Typography variant="caption" color="error">{words.byHand.thePartThatItMeasuredNo}</Typography>; // biome-ignore format: one line
  if (follows && thickness === null)
    return (
      <Typography variant="caption" color="warning.main">
        {words.byHand.stockThicknessUnknown}
      </Typography>
    );
  const size = isTurn ? (Math.abs(off) * 180) / Math.PI : Math.abs(off);
  if (size < minOff) return null;
  return (
    <Typography variant="caption" color="error" role="alert">
      {words.byHand.offByItContradictsAnotherMeasure(size.toFixed(3), isTurn)}
    </Typography>
  );
}
