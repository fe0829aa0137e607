'use client';
/**
 * Chosen things moved, turned, scaled, mirrored, aligned, spaced and copied by figures, about their middle or a datum.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import {
  about,
  boxAroundBoxes,
  centreOf,
  type Path,
  type Point,
  pathBox,
  pathLength,
  shift,
  stretch,
  type Transform,
  turn,
} from '@nuvet/core/plane';
import { type Alignment, aligned, distributed, gridImages, imagesAlong, mirrorAbout, turnedImages } from '@nuvet/core/shape';
import { useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { setHand, useHand } from '@/table/hand-store';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { useChosen } from './use-chosen';

export function ArrangePanel() {
  const { job, targets, moved, copied } = useChosen();
  const { datum, asking } = useHand(useShallow((s) => ({ datum: s.datum, asking: s.asking })));
  const boxes = targets.map(({ paths }) => boxAroundBoxes(paths.map(pathBox)));
  const all = boxAroundBoxes(boxes.filter((box) => box !== null));
  const [by, setBy] = useState<Point>({ x: 10, y: 0 });
  const [degrees, setDegrees] = useState(90);
  const [scale, setScale] = useState<Point>({ x: 1, y: 1 });
  const [alignment, setAlignment] = useState<Alignment>('left');
  if (!all) return <Typography variant="body2">{words.byHand.nothingIsChosenYet}</Typography>;
  const pivot = datum ?? centreOf(all);
  const { unit } = job;
  const width = all.maxX - all.minX;
  const height = all.maxY - all.minY;
  const known = boxes.filter((box) => box !== null);
  return (
    <>
      <Row>
        <Button
          size="small"
          variant={asking === 'datum' ? 'contained' : 'outlined'}
          onClick={() => setHand({ asking: asking === 'datum' ? null : 'datum' })}
        >
          {asking === 'datum' ? words.byHand.clickTheDatum : words.byHand.setADatum}
        </Button>
        <Button size="small" variant="outlined" color="inherit" disabled={!datum} onClick={() => setHand({ datum: null })}>
          {words.byHand.aboutItsMiddle}
        </Button>
      </Row>
      <Typography variant="caption" color="textSecondary">
        {words.byHand.aboutMm(pivot.x.toFixed(2), pivot.y.toFixed(2))}
      </Typography>
      <Row>
        <Measure label={words.byHand.right} mm={by.x} unit={unit} range="any" onMm={(x) => setBy({ ...by, x })} />
        <Measure label={words.byHand.up} mm={by.y} unit={unit} range="any" onMm={(y) => setBy({ ...by, y })} />
        <Button variant="outlined" sx={{ height: 40 }} onClick={() => moved(words.byHand.moving, shift(by.x, by.y))}>
          {words.byHand.move}
        </Button>
      </Row>
      <Row>
        <NumberField label={words.byHand.angle} value={degrees} digits={3} unit="°" onNumber={setDegrees} />
        <Button
          variant="outlined"
          sx={{ height: 40 }}
          onClick={() => moved(words.byHand.turning, about(pivot, turn((degrees * Math.PI) / 180)))}
        >
          {words.byHand.turn}
        </Button>
      </Row>
      <Row>
        <NumberField
          label={words.byHand.scaleX}
          value={scale.x}
          digits={4}
          unit={words.byHand.times}
          onNumber={(x) => setScale({ ...scale, x })}
        />
        <NumberField
          label={words.byHand.scaleY}
          value={scale.y}
          digits={4}
          unit={words.byHand.times}
          onNumber={(y) => setScale({ ...scale, y })}
        />
        <Button
          variant="outlined"
          sx={{ height: 40 }}
          disabled={!(scale.x > 0 && scale.y > 0)}
          onClick={() => moved(words.byHand.scaling, about(pivot, stretch(scale.x, scale.y)))}
        >
          {words.byHand.scale}
        </Button>
      </Row>
      <Row>
        <Measure
          label={words.byHand.toWidth}
          mm={width}
          unit={unit}
          onMm={(mm) => width > 0 && moved(words.byHand.scaling, about(pivot, stretch(mm / width)))}
        />
        <Measure
          label={words.byHand.toHeight}
          mm={height}
          unit={unit}
          onMm={(mm) => height > 0 && moved(words.byHand.scaling, about(pivot, stretch(mm / height)))}
        />
      </Row>
      <Row>
        <Button variant="outlined" onClick={() => moved(words.byHand.mirroring, mirrorAbout(pivot, { x: pivot.x, y: pivot.y + 1 }))}>
          {words.byHand.leftToRight}
        </Button>
        <Button variant="outlined" onClick={() => moved(words.byHand.mirroring, mirrorAbout(pivot, { x: pivot.x + 1, y: pivot.y }))}>
          {words.byHand.topToBottom}
        </Button>
      </Row>
      {targets.length > 1 && (
        <Row>
          <Pick
            label={words.byHand.alignAt}
            value={alignment}
            words={{
              left: words.byHand.theLeft,
              middle: words.byHand.theMiddle,
              right: words.byHand.theRight,
              bottom: words.byHand.theBottom,
              centre: words.byHand.halfTheHeight,
              top: words.byHand.theTop,
            }}
            onPick={setAlignment}
          />
          <Button
            variant="outlined"
            sx={{ height: 40 }}
            onClick={() => {
              const moves = aligned(known, alignment);
              moved(words.byHand.aligning, (_, k) => shift(moves[k]?.x ?? 0, moves[k]?.y ?? 0));
            }}
          >
            {words.byHand.align}
          </Button>
        </Row>
      )}
      {targets.length > 2 && (
        <Row>
          {(['x', 'y'] as const).map((axis) => (
            <Button
              key={axis}
              variant="outlined"
              onClick={() => {
                const moves = distributed(known, axis);
                moved(words.byHand.spacingEvenly, (_, k) => shift(moves[k]?.x ?? 0, moves[k]?.y ?? 0));
              }}
            >
              {words.byHand.space(axis)}
            </Button>
          ))}
        </Row>
      )}
      <Copies
        unit={unit}
        width={width}
        height={height}
        pivot={pivot}
        centre={centreOf(all)}
        lastPath={targets.at(-1)?.paths[0] ?? null}
        onCopy={copied}
      />
    </>
  );
}

interface CopiesProps {
  readonly unit: 'mm' | 'in';
  readonly width: number;
  readonly height: number;
  readonly pivot: Point;
  readonly centre: Point;
  readonly lastPath: Path | null;
  readonly onCopy: (word: string, maps: readonly Transform[]) => void;
}

function Copies({ unit, width, height, pivot, centre, lastPath, onCopy }: CopiesProps) {
  const [how, setHow] = useState<'grid' | 'circle' | 'path'>('grid');
  const [columns, setColumns] = useState(3);
  const [rows, setRows] = useState(1);
  const [gap, setGap] = useState(5);
  const [count, setCount] = useState(6);
  const copy = () => {
    if (how === 'grid') onCopy(words.byHand.copiesInAGrid, gridImages(columns, rows, width + gap, height + gap).slice(1));
    else if (how === 'circle') onCopy(words.byHand.copiesOnACircle, turnedImages(pivot, count, false).slice(1));
    else if (lastPath) onCopy(words.byHand.copiesAlongALine, imagesAlong(lastPath, count, centre, true));
  };
  const whole = (n: number) => Math.max(1, Math.min(500, Math.round(n)));
  return (
    <Section title={words.byHand.copies}>
      <Box sx={{ display: 'grid', gap: 1.25, pt: 0.75 }}>
        <Pick
          label={words.byHand.pattern}
          value={how}
          words={{
            grid: words.byHand.inARowOrGrid,
            circle: words.byHand.onACircleAboutTheDatum,
            path: words.byHand.alongTheLineChosenLast,
          }}
          onPick={setHow}
        />
        <Row>
          {how === 'grid' ? (
            <>
              <NumberField label={words.byHand.across} value={columns} digits={0} unit="" onNumber={(n) => setColumns(whole(n))} />
              <NumberField label={words.byHand.up} value={rows} digits={0} unit="" onNumber={(n) => setRows(whole(n))} />
              <Measure label={words.byHand.gap} mm={gap} unit={unit} range="any" onMm={setGap} />
            </>
          ) : (
            <NumberField label={words.byHand.totalCopies} value={count} digits={0} unit="" onNumber={(n) => setCount(whole(n))} />
          )}
          <Button
            variant="outlined"
            sx={{ height: 40 }}
            disabled={how === 'path' && (!lastPath || pathLength(lastPath) === 0)}
            onClick={copy}
          >
            {words.byHand.copy}
          </Button>
        </Row>
      </Box>
    </Section>
  );
}
