'use client';
/**
 * The selection: its sizes, and the dimensions of a figure, which can be typed.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import InputBase from '@mui/material/InputBase';
import Typography from '@mui/material/Typography';
import { type Command, type Drawn, type Job, masterOf, measuresOf, outlinesFrom, type Piece, piecesOf } from '@nuvet/core/job';
import { printBoth } from '@nuvet/core/length';
import { boxAroundBoxes, centreOf } from '@nuvet/core/plane';
import { useEffect, useState } from 'react';
import { useHand } from '@/table/hand-store';
import { newDrawn, sourceOf } from '@/table/hand-target';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Reading } from '@/ui/Section';
import { words } from '@/words';
import { useJob } from '../../../job/job-store';
import { PurposeField } from '../PurposeField';
import { OutlinePurposes } from './OutlinePurposes';

export function ChosenPanel() {
  const chosen = useHand((s) => s.chosen);
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  if (chosen.length === 0) return null;
  const pieces = piecesOf(job).filter(({ id }) => chosen.includes(id.split('/')[0] as string));
  const drawn = chosen.length === 1 ? job.drawn.find(({ id }) => id === chosen[0]) : undefined;
  const fault = drawn && masterOf(drawn, job.making.stock.thicknessMm).fault;
  const { gaps = [], unrounded = 0 } = drawn ? outlinesFrom(drawn, job) : {};
  const [one, ...rest] = pieces;
  // What was chosen may be gone by now.
  if (!drawn && !one) return null;
  return (
    <Box
      aria-label={words.byHand.whatIsChosen}
      role="group"
      sx={{ p: 1.25, borderRadius: 1, bgcolor: 'rgba(30, 123, 107, 0.08)', display: 'grid', gap: 1 }}
    >
      {drawn ? (
        <Name drawn={drawn} />
      ) : (
        <Typography variant="h3">
          {chosen.length > 1 ? words.byHand.thingsChosen(chosen.length) : (one?.name ?? words.byHand.chosen)}
        </Typography>
      )}
      <div>
        <Measured pieces={pieces} unit={job.unit} />
      </div>
      {drawn?.source.kind === 'figure' && <FigureFields drawn={drawn} />}
      {fault && (
        <Typography variant="body2" color="error" role="alert">
          {fault}
        </Typography>
      )}
      {gaps.length > 0 && (
        <Typography variant="body2" color="error" role="alert">
          {words.byHand.endsDoNotMeet(gaps.length / 2, gaps.length, Math.min(...gaps.map((g) => g.gapMm)).toFixed(2))}
        </Typography>
      )}
      {unrounded > 0 && (
        <Typography variant="body2" color="warning.main">
          {words.byHand.cornersTooTight(unrounded)}
        </Typography>
      )}
      {one && <PurposeField pieces={[one, ...rest]} />}
      <OutlinePurposes />
      {one && (
        <Button size="small" sx={{ justifySelf: 'start' }} onClick={() => markCentre(run, job, pieces)}>
          {words.byHand.markItsCentre}
        </Button>
      )}
    </Box>
  );
}

/** Half the length of a centre mark's lines, mm. */
const centreMarkMm = 4;

/** Two short guides that cross in the middle of what is chosen; other things snap to them. */
function markCentre(run: (command: Command) => void, job: Job, pieces: readonly Piece[]): void {
  const box = boxAroundBoxes(pieces.map((piece) => measuresOf(piece).box));
  if (!box) return;
  const { x, y } = centreOf(box);
  const line = (dx: number, dy: number) => ({ start: { x: x - dx, y: y - dy }, segments: [{ kind: 'line' as const, to: { x: x + dx, y: y + dy } }], closed: false }); // biome-ignore format: one line
  const source = sourceOf([line(centreMarkMm, 0), line(0, centreMarkMm)]);
  run({ do: 'draw', drawn: newDrawn(job, words.byHand.centreMark, source, { purpose: 'guide' }) });
}

function Name({ drawn }: { drawn: Drawn }) {
  const run = useJob((s) => s.run);
  const [typed, setTyped] = useState(drawn.name);
  useEffect(() => setTyped(drawn.name), [drawn.name]);
  return (
    <InputBase
      value={typed}
      inputProps={{ 'aria-label': words.byHand.name, style: { padding: 0 } }}
      sx={{ fontWeight: 650, fontSize: 14 }}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() =>
        typed.trim() ? run({ do: 'change-drawn', drawnId: drawn.id, change: { name: typed.trim().slice(0, 100) } }) : setTyped(drawn.name)
      }
      onKeyDown={(event) => {
        if (event.key === 'Enter') (event.target as HTMLInputElement).blur();
        event.stopPropagation();
      }}
    />
  );
}

function Measured({ pieces, unit }: { pieces: readonly Piece[]; unit: 'mm' | 'in' }) {
  const box = boxAroundBoxes(pieces.map((piece) => measuresOf(piece).box));
  if (!box) return null;
  const sum = (of: (piece: Piece) => number): number => pieces.reduce((total, piece) => total + of(piece), 0);
  const open = pieces.filter(({ outer }) => !outer.closed).length;
  const centre = centreOf(box);
  return (
    <>
      <Reading name={words.byHand.wideXHigh}>
        {words.byHand.widthByHeight((box.maxX - box.minX).toFixed(2), (box.maxY - box.minY).toFixed(2))}
      </Reading>
      <Reading name={words.byHand.lengthOfAllLines}>
        {printBoth(
          sum((p) => measuresOf(p).perimeterMm),
          unit,
        )}
      </Reading>
      {open < pieces.length && (
        <Reading name={words.byHand.area}>{words.byHand.squareCentimetres((sum((p) => measuresOf(p).areaMm2) / 100).toFixed(2))}</Reading>
      )}
      <Reading name={words.byHand.centre}>{words.byHand.place(centre.x.toFixed(2), centre.y.toFixed(2))}</Reading>
      <Reading name={words.byHand.closed} tone={open > 0 ? 'error' : undefined}>
        {open === 0 ? words.byHand.yes : words.byHand.openCount(open)}
      </Reading>
    </>
  );
}

type Figure = Extract<Drawn['source'], { kind: 'figure' }>['figure'];

/** The measures of a figure; what is typed changes it at once. */
function FigureFields({ drawn }: { drawn: Drawn }) {
  const run = useJob((s) => s.run);
  const unit = useJob((s) => s.job.unit);
  const thickness = useJob((s) => s.job.making.stock.thicknessMm);
  if (drawn.source.kind !== 'figure') return null;
  const { figure } = drawn.source;
  const change = (next: Figure) => run({ do: 'redraw', drawnId: drawn.id, source: { kind: 'figure', figure: next } });
  const measure = (label: string, mm: number, make: (mm: number) => Figure) => (
    <Measure label={label} mm={mm} unit={unit} onMm={(value) => change(make(value))} />
  );
  const angle = (radians: number, make: (angle: number) => Figure) => (
    <NumberField
      label={words.byHand.turned}
      value={(radians * 180) / Math.PI}
      digits={3}
      unit="°"
      onNumber={(degrees) => change(make((degrees * Math.PI) / 180))}
    />
  );
  switch (figure.kind) {
    case 'rectangle':
      return (
        <>
          <Row>
            {measure(words.byHand.width, figure.width, (width) => ({ ...figure, width }))}
            {measure(words.byHand.height, figure.height, (height) => ({ ...figure, height }))}
          </Row>
          <Row>
            <Measure
              label={words.byHand.cornerRadius}
              mm={figure.radius}
              unit={unit}
              range="from zero"
              onMm={(mm) => change({ ...figure, radius: mm })}
            />
            {angle(figure.angle, (turned) => ({ ...figure, angle: turned }))}
          </Row>
        </>
      );
    case 'circle':
      return (
        <Row>
          {measure(words.byHand.radius, figure.radius, (radius) => ({ ...figure, radius }))}
          {measure(words.byHand.diameter, 2 * figure.radius, (diameter) => ({ ...figure, radius: diameter / 2 }))}
        </Row>
      );
    case 'ellipse':
      return (
        <Row>
          {measure(words.byHand.width, 2 * figure.rx, (width) => ({ ...figure, rx: width / 2 }))}
          {measure(words.byHand.height, 2 * figure.ry, (height) => ({ ...figure, ry: height / 2 }))}
          {angle(figure.angle, (turned) => ({ ...figure, angle: turned }))}
        </Row>
      );
    case 'polygon':
      return (
        <Row>
          <NumberField
            label={words.byHand.sides}
            value={figure.sides}
            digits={0}
            unit={words.byHand.threeOrMore}
            least={3}
            most={360}
            onNumber={(n) => change({ ...figure, sides: Math.round(n) })}
          />
          {measure(words.byHand.radius, figure.radius, (radius) => ({ ...figure, radius }))}
          {angle(figure.angle, (turned) => ({ ...figure, angle: turned }))}
        </Row>
      );
    case 'slot':
      return (
        <>
          <Row>
            {measure(words.byHand.length, Math.hypot(figure.to.x - figure.from.x, figure.to.y - figure.from.y), (length) => ({
              ...figure,
              to: along(figure.from, figure.to, length),
            }))}
            <Measure
              label={words.byHand.width}
              mm={figure.width}
              unit={unit}
              placeholder={words.byHand.stockThickness}
              onEmpty={() => change({ ...figure, width: null })}
              onMm={(width) => change({ ...figure, width })}
            />
            <Measure label={words.byHand.clearance} mm={figure.play} unit={unit} range="any" onMm={(play) => change({ ...figure, play })} />
          </Row>
          {figure.width === null && <Stock thickness={thickness} unit={unit} />}
          <Pick
            label={words.byHand.ends}
            value={figure.ends}
            words={{ flat: words.byHand.flat, round: words.byHand.round }}
            onPick={(ends) => change({ ...figure, ends })}
          />
        </>
      );
    case 'line':
      return (
        <Row>
          {measure(words.byHand.length, Math.hypot(figure.to.x - figure.from.x, figure.to.y - figure.from.y), (length) => ({
            ...figure,
            to: along(figure.from, figure.to, length),
          }))}
          {angle(Math.atan2(figure.to.y - figure.from.y, figure.to.x - figure.from.x), (turned) => ({
            ...figure,
            to: polar(figure.from, Math.hypot(figure.to.x - figure.from.x, figure.to.y - figure.from.y), turned),
          }))}
        </Row>
      );
    case 'arc':
      return angle(figure.sweep, (sweep) => ({ ...figure, sweep }));
  }
}

type Place = { readonly x: number; readonly y: number };
const polar = (from: Place, length: number, angle: number): Place => ({
  x: from.x + length * Math.cos(angle),
  y: from.y + length * Math.sin(angle),
});
const along = (from: Place, to: Place, length: number): Place => polar(from, length, Math.atan2(to.y - from.y, to.x - from.x));

/** The stock's thickness, which all slots that follow it share. */
function Stock({ thickness, unit }: { thickness: number | null; unit: 'mm' | 'in' }) {
  const run = useJob((s) => s.run);
  return (
    <Measure
      label={words.byHand.stockThicknessOfSlots}
      mm={thickness}
      unit={unit}
      placeholder={words.byHand.notKnownYet}
      onMm={(thicknessMm) => run({ do: 'set-stock', change: { thicknessMm } })}
    />
  );
}
