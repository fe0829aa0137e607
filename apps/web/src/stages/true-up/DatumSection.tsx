'use client';
/**
 * The sheet's origin, which way is up, and the drawing scale.
 */
import RotateLeftOutlined from '@mui/icons-material/RotateLeftOutlined';
import RotateRightOutlined from '@mui/icons-material/RotateRightOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { fitOf, type Picture } from '@nuvet/core/job';
import { parsePlanScale, printBoth } from '@nuvet/core/length';
import { inverseProjection, type Point, project } from '@nuvet/core/plane';
import { useEffect, useState } from 'react';
import { rasterNow } from '@/table/rectified-images';
import { setTable, takeTool, useTable } from '@/table/table-store';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { told } from '@/words/told';
import { finder } from '@/workers/finder.client';
import { useJob } from '../../job/job-store';

export function DatumSection({ picture }: { picture: Picture }) {
  const run = useJob((s) => s.run);
  const tool = useTable((s) => s.tool);
  const selected = useTable((s) => s.selected);
  const [message, setMessage] = useState<string | null>(null);
  const change = (datum: Point | null) => run({ do: 'change-picture', pictureId: picture.id, change: { datum } });
  const turn = (by: number) =>
    run({ do: 'change-picture', pictureId: picture.id, change: { quarterTurns: (picture.quarterTurns + by + 4) % 4 } });
  const mark = picture.marks.find((m) => m.id === selected?.markId)?.points[selected?.index ?? 0];
  const toMiddle = async () => {
    const hull = await finder().drawnPart(rasterNow({ ...picture, pinned: 'uniform' }, true));
    if (!hull) return setMessage(words.trueUp.nothingDrawnWasFoundInThis);
    const fit = fitOf(picture);
    const onSheet = hull.map((p) => project(fit.projection, p));
    const [xs, ys] = [onSheet.map((p) => p.x), onSheet.map((p) => p.y)];
    const middle = { x: (Math.min(...xs) + Math.max(...xs)) / 2, y: (Math.min(...ys) + Math.max(...ys)) / 2 };
    setMessage(null);
    change(project(inverseProjection(fit.projection), middle));
  };
  return (
    <Section title={words.trueUp.originAndOrientation}>
      <Typography variant="caption" color="textSecondary" component="p" sx={{ mb: 0.75 }}>
        {picture.datum ? words.trueUp.theSheetsOriginLiesOnA : words.trueUp.theSheetsOriginIsThePictures}
      </Typography>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75 }}>
        <Small onClick={() => takeTool(tool === 'datum' ? null : 'datum')} isOn={tool === 'datum'}>
          {words.trueUp.clickAPlace}
        </Small>
        <Small onClick={() => mark && change(mark)} isOff={!mark}>
          {words.trueUp.selectedMark}
        </Small>
        <Small onClick={() => void toMiddle()}>{words.trueUp.middleOfTheDrawing}</Small>
        <Small onClick={() => change(null)} isOff={!picture.datum}>
          {words.trueUp.lowerLeftCorner}
        </Small>
        <Small onClick={() => turn(1)} icon={<RotateLeftOutlined />}>
          {words.trueUp.rotate90DegreesLeft}
        </Small>
        <Small onClick={() => turn(-1)} icon={<RotateRightOutlined />}>
          {words.trueUp.rotate90DegreesRight}
        </Small>
      </Box>
      {message && (
        <Typography variant="body2" role="alert" sx={{ color: 'error.main', mt: 0.5 }}>
          {message}
        </Typography>
      )}
    </Section>
  );
}

interface SmallProps {
  readonly children: string;
  readonly onClick: () => void;
  readonly isOn?: boolean;
  readonly isOff?: boolean;
  readonly icon?: React.ReactNode;
}

export function Small({ children, onClick, isOn = false, isOff = false, icon }: SmallProps) {
  return (
    <Button size="small" variant={isOn ? 'contained' : 'outlined'} disabled={isOff} startIcon={icon} onClick={onClick} aria-pressed={isOn}>
      {children}
    </Button>
  );
}

/** A plan's own scale: "1:76", "1 in to the foot". */
export function PlanScale({ picture, sheetWidthMm }: { picture: Picture; sheetWidthMm: number }) {
  const { run, planScale, unit } = {
    run: useJob((s) => s.run),
    planScale: useJob((s) => s.job.planScale),
    unit: useJob((s) => s.job.unit),
  };
  const [typed, setTyped] = useState(planScale?.text ?? '');
  const [isWrong, setWrong] = useState(false);
  useEffect(() => setTyped(planScale?.text ?? ''), [planScale]);
  const parsed = parsePlanScale(typed);
  const settle = () => {
    if (typed.trim() === '') {
      if (planScale) run({ do: 'set-plan-scale', planScale: null });
      return setWrong(false);
    }
    setWrong(!parsed.ok);
    if (parsed.ok && typed !== planScale?.text) {
      run({ do: 'set-plan-scale', planScale: { text: typed.trim(), factor: parsed.factor, atRealSize: planScale?.atRealSize ?? false } });
    }
  };
  return (
    <Section title={words.trueUp.drawingScale}>
      <TextField
        fullWidth
        label={words.trueUp.thisPlanIsDrawnAt}
        placeholder={words.trueUp.scaleExample}
        value={typed}
        error={isWrong}
        helperText={
          isWrong && !parsed.ok
            ? told(parsed.said)
            : planScale
              ? words.trueUp.theWholePictureIsReallyWide(printBoth(sheetWidthMm * planScale.factor, unit))
              : words.trueUp.leaveEmptyIfTheDrawingIs
        }
        slotProps={{ formHelperText: { role: isWrong ? 'alert' : undefined } }}
        onChange={(event) => setTyped(event.target.value)}
        onBlur={settle}
        onFocus={() => setTable({ selected: null })}
        onKeyDown={(event) => {
          if (event.key === 'Enter') settle();
          event.stopPropagation();
        }}
        sx={{ mt: 1 }}
      />
      {planScale && <WhoseLength picture={picture} factor={planScale.factor} />}
      {planScale && (
        <FormControlLabel
          label={words.trueUp.writeFilesAtTheRealSize}
          control={
            <Switch
              size="small"
              checked={planScale.atRealSize}
              onChange={(_, on) => run({ do: 'set-plan-scale', planScale: { ...planScale, atRealSize: on } })}
            />
          }
        />
      )}
    </Section>
  );
}

/** Where a drawing is to scale, a length that was typed may be of the paper or of the thing itself: taken for the wrong one, both double. */
function WhoseLength({ picture, factor }: { picture: Picture; factor: number }) {
  const run = useJob((s) => s.run);
  const unit = useJob((s) => s.job.unit);
  const ofThing = ` / ${Number(factor.toPrecision(9))}`;
  const typed = picture.marks.filter((m) => m.kind === 'known-length' && (m.stated[0]?.value ?? 0) > 0);
  const [first] = typed;
  if (!first || factor === 1) return null;
  const isOfThing = typed.every((m) => m.stated[0]?.text.endsWith(ofThing));
  const say = (wanted: boolean) => {
    for (const mark of typed) {
      const { text, value } = mark.stated[0] as { text: string; value: number };
      const was = text.endsWith(ofThing);
      if (was === wanted) continue;
      const next = wanted
        ? { text: `${text}${ofThing}`, value: value / factor }
        : { text: text.slice(0, -ofThing.length), value: value * factor };
      run({ do: 'state', pictureId: picture.id, markId: mark.id, index: 0, ...next });
    }
  };
  const real = (first.stated[0]?.value ?? 0) * factor;
  return (
    <Box sx={{ mt: 1 }} role="group" aria-label={words.trueUp.whatTheKnownLengthIsOf}>
      <Typography variant="body2">
        {words.trueUp.isMeasured}
        {first.stated[0]?.text.replace(ofThing, '')}
        {words.trueUp.onPaperOrThing(printBoth(real, unit))}
      </Typography>
      <Box sx={{ display: 'flex', gap: 0.75, mt: 0.5 }}>
        <Small onClick={() => say(false)} isOn={!isOfThing}>
          {words.trueUp.onThePaper}
        </Small>
        <Small onClick={() => say(true)} isOn={isOfThing}>
          {words.trueUp.onTheThingItself}
        </Small>
      </Box>
    </Box>
  );
}
