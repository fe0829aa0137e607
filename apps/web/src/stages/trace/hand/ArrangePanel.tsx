'use client';
/**
 * Chosen things moved, turned, scaled, mirrored, aligned, spaced and copied by figures, about their middle or a datum.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import {
  boxAroundBoxes,
  centreOf,
  chain,
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
import { Section } from '../../Docket';
import { Measure, Pick, Row } from './Rows';
import { useChosen } from './use-chosen';

const about = (p: Point, map: Transform): Transform => chain(shift(p.x, p.y), chain(map, shift(-p.x, -p.y)));

export function ArrangePanel() {
  const { job, targets, moved, copied } = useChosen();
  const { datum, asking } = useHand(useShallow((s) => ({ datum: s.datum, asking: s.asking })));
  const boxes = targets.map(({ paths }) => boxAroundBoxes(paths.map(pathBox)));
  const all = boxAroundBoxes(boxes.filter((box) => box !== null));
  const [by, setBy] = useState<Point>({ x: 10, y: 0 });
  const [degrees, setDegrees] = useState(90);
  const [scale, setScale] = useState<Point>({ x: 1, y: 1 });
  const [alignment, setAlignment] = useState<Alignment>('left');
  if (!all) return <Typography variant="body2">Nothing is chosen yet.</Typography>;
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
          {asking === 'datum' ? 'Click the datum' : 'Set a datum'}
        </Button>
        <Button size="small" variant="outlined" color="inherit" disabled={!datum} onClick={() => setHand({ datum: null })}>
          About its middle
        </Button>
      </Row>
      <Typography variant="caption" color="textSecondary">
        About {pivot.x.toFixed(2)}, {pivot.y.toFixed(2)} mm.
      </Typography>
      <Row>
        <Measure label="Right" mm={by.x} unit={unit} range="any" onMm={(x) => setBy({ ...by, x })} />
        <Measure label="Up" mm={by.y} unit={unit} range="any" onMm={(y) => setBy({ ...by, y })} />
        <Button variant="outlined" sx={{ height: 40 }} onClick={() => moved('moving', shift(by.x, by.y))}>
          Move
        </Button>
      </Row>
      <Row>
        <NumberField label="Angle" value={degrees} digits={3} unit="°" onNumber={setDegrees} />
        <Button variant="outlined" sx={{ height: 40 }} onClick={() => moved('turning', about(pivot, turn((degrees * Math.PI) / 180)))}>
          Turn
        </Button>
      </Row>
      <Row>
        <NumberField label="Scale X" value={scale.x} digits={4} unit="times" onNumber={(x) => setScale({ ...scale, x })} />
        <NumberField label="Scale Y" value={scale.y} digits={4} unit="times" onNumber={(y) => setScale({ ...scale, y })} />
        <Button
          variant="outlined"
          sx={{ height: 40 }}
          disabled={!(scale.x > 0 && scale.y > 0)}
          onClick={() => moved('scaling', about(pivot, stretch(scale.x, scale.y)))}
        >
          Scale
        </Button>
      </Row>
      <Row>
        <Measure label="To width" mm={width} unit={unit} onMm={(mm) => width > 0 && moved('scaling', about(pivot, stretch(mm / width)))} />
        <Measure
          label="To height"
          mm={height}
          unit={unit}
          onMm={(mm) => height > 0 && moved('scaling', about(pivot, stretch(mm / height)))}
        />
      </Row>
      <Row>
        <Button variant="outlined" onClick={() => moved('mirroring', mirrorAbout(pivot, { x: pivot.x, y: pivot.y + 1 }))}>
          Left to right
        </Button>
        <Button variant="outlined" onClick={() => moved('mirroring', mirrorAbout(pivot, { x: pivot.x + 1, y: pivot.y }))}>
          Top to bottom
        </Button>
      </Row>
      {targets.length > 1 && (
        <Row>
          <Pick
            label="Align at"
            value={alignment}
            words={{
              left: 'the left',
              middle: 'the middle',
              right: 'the right',
              bottom: 'the bottom',
              centre: 'half the height',
              top: 'the top',
            }}
            onPick={setAlignment}
          />
          <Button
            variant="outlined"
            sx={{ height: 40 }}
            onClick={() => {
              const moves = aligned(known, alignment);
              moved('aligning', (_, k) => shift(moves[k]?.x ?? 0, moves[k]?.y ?? 0));
            }}
          >
            Align
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
                moved('spacing evenly', (_, k) => shift(moves[k]?.x ?? 0, moves[k]?.y ?? 0));
              }}
            >
              Space {axis === 'x' ? 'across' : 'upward'}
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
    if (how === 'grid') onCopy('copies in a grid', gridImages(columns, rows, width + gap, height + gap).slice(1));
    else if (how === 'circle') onCopy('copies on a circle', turnedImages(pivot, count, false).slice(1));
    else if (lastPath) onCopy('copies along a line', imagesAlong(lastPath, count, centre, true));
  };
  const whole = (n: number) => Math.max(1, Math.min(500, Math.round(n)));
  return (
    <Section title="Copies">
      <Box sx={{ display: 'grid', gap: 1.25, pt: 0.75 }}>
        <Pick
          label="Pattern"
          value={how}
          words={{ grid: 'in a row or grid', circle: 'on a circle about the datum', path: 'along the line chosen last' }}
          onPick={setHow}
        />
        <Row>
          {how === 'grid' ? (
            <>
              <NumberField label="Across" value={columns} digits={0} unit="" onNumber={(n) => setColumns(whole(n))} />
              <NumberField label="Up" value={rows} digits={0} unit="" onNumber={(n) => setRows(whole(n))} />
              <Measure label="Gap" mm={gap} unit={unit} range="any" onMm={setGap} />
            </>
          ) : (
            <NumberField label="Total copies" value={count} digits={0} unit="" onNumber={(n) => setCount(whole(n))} />
          )}
          <Button
            variant="outlined"
            sx={{ height: 40 }}
            disabled={how === 'path' && (!lastPath || pathLength(lastPath) === 0)}
            onClick={copy}
          >
            Copy
          </Button>
        </Row>
      </Box>
    </Section>
  );
}
