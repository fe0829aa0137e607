'use client';
/**
 * How the next thing is drawn: its kind of point, set directions, typed length and angle, a figure's own measures.
 */
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { closeOutline, growing, isGuideLine, takePointBack } from '@/table/hand-drawing';
import { type DrawTool, setHand, useHand } from '@/table/hand-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { words } from '@/words';
import { purposeWords } from '@/words/purposes';
import { useJob } from '../../../job/job-store';

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
          label={words.byHand.eachClickAdds}
          value={hand.pointKind}
          words={{ corner: words.byHand.aCorner, curve: words.byHand.aPointThatACurveRuns }}
          onPick={(pointKind) => setHand({ pointKind })}
        />
      )}
      {tool === 'outline' && now && (
        <Row>
          <Button variant="outlined" disabled={now.points.length < 3} onClick={() => closeOutline(run, job, hand.through)}>
            {words.byHand.closeIt}
          </Button>
          <Button variant="outlined" onClick={() => takePointBack(run, job)}>
            {words.byHand.takePointBack}
          </Button>
        </Row>
      )}
      {tool === 'line' && (
        <Pick
          label={words.byHand.curvePasses}
          value={hand.lineBy}
          words={{
            ends: words.byHand.fromOnePlaceToAnother,
            across: words.byHand.rightAcrossAtAnAngle,
            midway: words.byHand.midwayBetweenTwoStraightLines,
          }}
          onPick={(lineBy) => setHand({ lineBy, places: [] })}
        />
      )}
      {tool === 'circle' && (
        <Pick
          label={words.byHand.definedBy}
          value={hand.circleBy}
          words={{
            centre: words.byHand.centreAndRim,
            two: words.byHand.twoEndsOfADiameter,
            three: words.byHand.threePlacesOnIt,
            touching: words.byHand.twoLinesThatItTouches,
          }}
          onPick={(circleBy) => setHand({ circleBy, places: [] })}
        />
      )}
      {tool === 'circle' && hand.circleBy === 'touching' && (
        <Measure label={words.byHand.radius} mm={hand.radius} unit={unit} onMm={(radius) => setHand({ radius })} />
      )}
      {tool === 'arc' && (
        <Pick
          label={words.byHand.definedBy}
          value={hand.arcBy}
          words={{ three: words.byHand.startAPlaceOnItEnd, leaving: words.byHand.startLeavingAnOutlineSmoothlyEnd }}
          onPick={(arcBy) => setHand({ arcBy, places: [] })}
        />
      )}
      {tool === 'polygon' && (
        <NumberField
          label={words.byHand.sides}
          value={hand.sides}
          digits={0}
          unit={words.byHand.sidesRange}
          least={3}
          most={360}
          onNumber={(n) => setHand({ sides: Math.round(n) })}
        />
      )}
      {tool === 'rectangle' && (
        <Measure
          label={words.byHand.cornerRadius}
          mm={hand.cornerRadius}
          unit={unit}
          range="from zero"
          onMm={(mm) => setHand({ cornerRadius: mm })}
        />
      )}
      {tool === 'slot' && (
        <>
          <Row>
            <Measure
              label={words.byHand.width}
              mm={hand.slot.width}
              unit={unit}
              placeholder={words.byHand.stockThickness}
              onEmpty={() => setHand({ slot: { ...hand.slot, width: null } })}
              onMm={(width) => setHand({ slot: { ...hand.slot, width, play: 0 } })}
            />
            <Measure
              label={words.byHand.clearance}
              mm={hand.slot.play}
              unit={unit}
              range="any"
              onMm={(play) => setHand({ slot: { ...hand.slot, play } })}
            />
          </Row>
          <Pick
            label={words.byHand.ends}
            value={hand.slot.ends}
            words={{ flat: words.byHand.flat, round: words.byHand.round }}
            onPick={(ends) => setHand({ slot: { ...hand.slot, ends } })}
          />
        </>
      )}
      {(tool === 'outline' || tool === 'line') && (
        <Row>
          <Measure
            label={words.byHand.length}
            mm={hand.typedLength}
            unit={unit}
            placeholder={words.byHand.free}
            onEmpty={() => setHand({ typedLength: null })}
            onMm={(typedLength) => setHand({ typedLength })}
          />
          <Angle />
        </Row>
      )}
      {isGuideLine(tool, hand.lineBy) ? (
        <Typography variant="caption" color="textSecondary">
          {words.byHand.drawnAsAGuideItIs}
        </Typography>
      ) : (
        <Pick label={words.byHand.purpose} value={hand.purpose} words={purposeWords} onPick={(purpose) => setHand({ purpose })} />
      )}
      <Row>
        <Pick
          label={words.byHand.angleSnap}
          value={hand.lockDegrees === null ? 'free' : String(hand.lockDegrees)}
          words={{
            free: words.byHand.free,
            '90': words.byHand.square,
            '45': words.byHand.every45Degrees,
            '30': words.byHand.every30Degrees,
            '15': words.byHand.every15Degrees,
          }}
          onPick={(word) => setHand({ lockDegrees: word === 'free' ? null : Number(word) })}
        />
        <Measure
          label={words.byHand.grid}
          mm={hand.gridMm}
          unit={unit}
          placeholder={words.byHand.none}
          onEmpty={() => setHand({ gridMm: null })}
          onMm={(gridMm) => setHand({ gridMm })}
        />
      </Row>
    </>
  );
}

function Angle() {
  const typedAngle = useHand((s) => s.typedAngle);
  return (
    <NumberField
      label={words.byHand.angle}
      value={typedAngle}
      digits={3}
      unit="°"
      onNumber={(angle) => setHand({ typedAngle: angle })}
      onEmpty={() => setHand({ typedAngle: null })}
    />
  );
}
