'use client';
/**
 * A bent line laid flat: the straight strip that bends into it follows the line and all that is drawn on it.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { type Drawn, outlinesFrom } from '@nuvet/core/job';
import { boxAroundBoxes, centreOf, type Path, type Point, pathBox, shift } from '@nuvet/core/plane';
import { layFlat, onCurve, stripOf } from '@nuvet/core/shape';
import { useState } from 'react';
import { setHand } from '@/table/hand-store';
import { movedDrawn, newDrawn, targetOf } from '@/table/hand-target';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { useChosen } from './use-chosen';

type StripSource = Extract<Drawn['source'], { kind: 'strip' }>;
type StripChoices = Pick<StripSource, 'k' | 'side' | 'widthMm'>;

/** How far below its line a new strip lies, mm. */
const roomMm = 20;

/** The chosen line as a strip. */
export function LayFlat() {
  const { job, run, target } = useChosen();
  const [choices, setChoices] = useState<StripChoices>({ k: 0.5, side: 'right', widthMm: 25 });
  const curve = target?.paths[0];
  if (!target || !curve) return null;
  const thicknessMm = job.making.stock.thicknessMm ?? 0;
  const lay = () => {
    const { minX, minY } = pathBox(curve);
    const at: Point = { x: minX, y: minY - choices.widthMm - roomMm };
    // A traced line stays as it was found: its strip is laid once.
    const others = job.drawn.flatMap((d) => (d.leftOut ? [] : outlinesFrom(d, job).paths));
    const source: Drawn['source'] = target.drawn
      ? { kind: 'strip', of: target.drawn.id, ...choices, at }
      : { kind: 'paths', paths: stripOf(curve, { ...choices, thicknessMm }, others, at) };
    const made = newDrawn(job, words.byHand.strip, source);
    run({ do: 'draw', drawn: made });
    setHand({ chosen: [made.id] });
  };
  return (
    <Section title={words.byHand.layFlat}>
      <StripFields choices={choices} onChoices={setChoices} curve={curve} />
      <Button fullWidth variant="outlined" sx={{ mt: 1.25 }} onClick={lay}>
        {words.byHand.unrollToAFlatStripWith}
      </Button>
    </Section>
  );
}

/** A strip that is chosen: what it is laid by, and the way back for what lies on it. */
export function Strip({ drawn, source }: { drawn: Drawn; source: StripSource }) {
  const { job, run } = useChosen();
  const line = job.drawn.find(({ id }) => id === source.of);
  const curve = line && outlinesFrom(line, job).paths[0];
  if (!curve)
    return (
      <Typography variant="body2" color="error" role="alert">
        {words.byHand.stripLineGone}
      </Typography>
    );
  const flat = layFlat(curve, { ...source, thicknessMm: job.making.stock.thicknessMm ?? 0 });
  const onStrip = job.drawn.flatMap((d) => {
    const middle = d.id === drawn.id || d.id === source.of || d.leftOut ? null : middleOf(outlinesFrom(d, job).paths);
    const along = middle && middle.x - source.at.x;
    const isOn = middle && along !== null && along >= 0 && along <= flat.lengthMm && middle.y >= source.at.y && middle.y <= source.at.y + source.widthMm; // biome-ignore format: one line
    return isOn ? [{ d, middle, along }] : [];
  });
  const bringBack = () => {
    const by = onStrip.flatMap(({ d, middle, along }) => {
      const target = targetOf(job, d.id);
      const to = onCurve(curve, flat, along);
      return target ? [movedDrawn(d, target, shift(to.x - middle.x, to.y - middle.y))] : [];
    });
    run({ do: 'replace-drawn', word: words.byHand.bringingMarksToTheLine, ids: by.map(({ id }) => id), by });
  };
  return (
    <Section title={words.byHand.laidFlat}>
      <StripFields
        choices={source}
        curve={curve}
        onChoices={({ k, side, widthMm }) => run({ do: 'redraw', drawnId: drawn.id, source: { ...source, k, side, widthMm } })}
      />
      <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mt: 0.5 }}>
        {words.byHand.stripFollows(line.name)}
      </Typography>
      <Button fullWidth variant="outlined" sx={{ mt: 1 }} disabled={onStrip.length === 0} onClick={bringBack}>
        {onStrip.length === 0 ? words.byHand.nothingElseIsDrawnOnThe : words.byHand.bringFromTheStripToThe(onStrip.length)}
      </Button>
    </Section>
  );
}

function middleOf(paths: readonly Path[]): Point | null {
  const box = boxAroundBoxes(paths.map(pathBox));
  return box && centreOf(box);
}

function StripFields({ choices, curve, onChoices }: { choices: StripChoices; curve: Path; onChoices: (choices: StripChoices) => void }) {
  const { job } = useChosen();
  const thickness = job.making.stock.thicknessMm;
  const flat = layFlat(curve, { ...choices, thicknessMm: thickness ?? 0 });
  return (
    <Box sx={{ display: 'grid', gap: 1.25, pt: 0.75 }}>
      <Row>
        <NumberField
          label={words.byHand.kFactor}
          value={choices.k}
          digits={3}
          unit={words.byHand.kFactorRange}
          least={0}
          most={1}
          onNumber={(n) => onChoices({ ...choices, k: n })}
        />
        <Measure
          label={words.byHand.stripsWidth}
          mm={choices.widthMm}
          unit={job.unit}
          onMm={(widthMm) => onChoices({ ...choices, widthMm })}
        />
      </Row>
      <Pick
        label={words.byHand.theStockLies}
        value={choices.side}
        words={{ right: words.byHand.toTheRightOfTheLine, left: words.byHand.toTheLeftOfTheLine }}
        onPick={(side) => onChoices({ ...choices, side })}
      />
      <Typography variant="body2">
        {thickness === null
          ? words.byHand.lengthAlongTheLine(flat.lengthMm.toFixed(2))
          : words.byHand.lengthAtStock(flat.lengthMm.toFixed(2), thickness.toFixed(2))}
      </Typography>
    </Box>
  );
}
