'use client';
/**
 * How the next thing is drawn: its kind of point, set directions, typed length and angle, a figure's own measures.
 */
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { Purpose } from '@nuvet/core/job';
import { closeOutline, growing, isGuideLine, takePointBack } from '@/table/hand-drawing';
import { type DrawTool, setHand, useHand } from '@/table/hand-store';
import { NumberField } from '@/ui/NumberField';
import { useJob } from '../../job-store';
import { Measure, Pick, Row } from './Rows';

export function DrawPanel({ tool }: { tool: DrawTool }) {
  const hand = useHand();
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const now = growing(job);
  const { unit } = job;
  return (
    <>
      {tool === 'outline' && (
        <Pick
          label="Each click adds"
          value={hand.pointKind}
          words={{ corner: 'a corner', curve: 'a point that a curve runs through' }}
          onPick={(pointKind) => setHand({ pointKind })}
        />
      )}
      {tool === 'outline' && now && (
        <Row>
          <Button variant="outlined" disabled={now.points.length < 3} onClick={() => closeOutline(run, job, hand.through)}>
            Close it
          </Button>
          <Button variant="outlined" onClick={() => takePointBack(run, job)}>
            Take point back
          </Button>
        </Row>
      )}
      {tool === 'line' && (
        <Pick
          label="Curve passes"
          value={hand.lineBy}
          words={{
            ends: 'from one place to another',
            across: 'right across, at an angle',
            midway: 'midway between two straight lines',
          }}
          onPick={(lineBy) => setHand({ lineBy, places: [] })}
        />
      )}
      {tool === 'circle' && (
        <Pick
          label="Defined by"
          value={hand.circleBy}
          words={{
            centre: 'centre and rim',
            two: 'two ends of a diameter',
            three: 'three places on it',
            touching: 'two lines that it touches',
          }}
          onPick={(circleBy) => setHand({ circleBy, places: [] })}
        />
      )}
      {tool === 'circle' && hand.circleBy === 'touching' && (
        <Measure label="Radius" mm={hand.radius} unit={unit} onMm={(radius) => setHand({ radius })} />
      )}
      {tool === 'arc' && (
        <Pick
          label="Defined by"
          value={hand.arcBy}
          words={{ three: 'start, a place on it, end', leaving: 'start, leaving an outline smoothly, end' }}
          onPick={(arcBy) => setHand({ arcBy, places: [] })}
        />
      )}
      {tool === 'polygon' && (
        <NumberField
          label="Sides"
          value={hand.sides}
          digits={0}
          unit="3 to 360"
          onNumber={(n) => setHand({ sides: Math.max(3, Math.min(360, Math.round(n))) })}
        />
      )}
      {tool === 'rectangle' && (
        <Measure
          label="Corner radius"
          mm={hand.cornerRadius}
          unit={unit}
          range="any"
          onMm={(mm) => setHand({ cornerRadius: Math.max(0, mm) })}
        />
      )}
      {tool === 'slot' && (
        <>
          <Row>
            <Measure
              label="Width"
              mm={hand.slot.width}
              unit={unit}
              placeholder="stock thickness"
              onEmpty={() => setHand({ slot: { ...hand.slot, width: null } })}
              onMm={(width) => setHand({ slot: { ...hand.slot, width, play: 0 } })}
            />
            <Measure
              label="Clearance"
              mm={hand.slot.play}
              unit={unit}
              range="any"
              onMm={(play) => setHand({ slot: { ...hand.slot, play } })}
            />
          </Row>
          <Pick
            label="Ends"
            value={hand.slot.ends}
            words={{ flat: 'flat', round: 'round' }}
            onPick={(ends) => setHand({ slot: { ...hand.slot, ends } })}
          />
        </>
      )}
      {(tool === 'outline' || tool === 'line') && (
        <Row>
          <Measure
            label="Length"
            mm={hand.typedLength}
            unit={unit}
            placeholder="free"
            onEmpty={() => setHand({ typedLength: null })}
            onMm={(typedLength) => setHand({ typedLength })}
          />
          <Angle />
        </Row>
      )}
      {isGuideLine(tool, hand.lineBy) ? (
        <Typography variant="caption" color="textSecondary">
          Drawn as a guide: it is never cut.
        </Typography>
      ) : (
        <Pick label="Purpose" value={hand.purpose} words={purposeWords} onPick={(purpose) => setHand({ purpose })} />
      )}
      <Row>
        <Pick
          label="Angle snap"
          value={hand.lockDegrees === null ? 'free' : String(hand.lockDegrees)}
          words={{ free: 'free', '90': 'square', '45': 'every 45°', '30': 'every 30°', '15': 'every 15°' }}
          onPick={(word) => setHand({ lockDegrees: word === 'free' ? null : Number(word) })}
        />
        <Measure
          label="Grid"
          mm={hand.gridMm}
          unit={unit}
          placeholder="none"
          onEmpty={() => setHand({ gridMm: null })}
          onMm={(gridMm) => setHand({ gridMm })}
        />
      </Row>
    </>
  );
}

const purposeWords: Record<Purpose, string> = {
  cut: 'cut',
  score: 'score',
  perforate: 'perforate',
  engrave: 'engrave',
  pocket: 'pocket',
  stitch: 'stitch',
  guide: 'guide, to draw by',
};

function Angle() {
  const typedAngle = useHand((s) => s.typedAngle);
  return (
    <NumberField
      label="Angle"
      value={typedAngle}
      digits={3}
      unit="°"
      onNumber={(angle) => setHand({ typedAngle: angle })}
      onEmpty={() => setHand({ typedAngle: null })}
    />
  );
}
