'use client';
/**
 * One mark in the docket: its stated length, its error and its weight in the fit.
 */
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import { isWaiting, type Job, type Mark, measuredBy, type Picture } from '@nuvet/core/job';
import { printBoth } from '@nuvet/core/length';
import { type BoxFit, isCheck, markKinds, type Residual, type TrueUpFit, type UnitMistake } from '@nuvet/core/trueup';
import { useShallow } from 'zustand/react/shallow';
import { setTable, useTable } from '@/table/table-store';
import { colours } from '@/ui/colours';
import { LengthField } from '@/ui/LengthField';
import { NumberField } from '@/ui/NumberField';
import { Reading } from '@/ui/Section';
import { words } from '@/words';
import { useJob } from '../../job/job-store';
import { measuredText } from '../../job/mark-readings';
import { markViews } from '../../job/mark-views';
import { CommonLength } from './CommonLength';

const boxFits: Record<BoxFit, string> = {
  contained: words.trueUp.wholeInside,
  covering: words.trueUp.coveringIt,
  'each-side': words.trueUp.eachSideToItsOwn,
};

export function MarkRow({ picture, mark, fit }: { picture: Picture; mark: Mark; fit: TrueUpFit }) {
  const { run, unit } = { run: useJob((s) => s.run), unit: useJob((s) => s.job.unit) };
  const { asked, selected } = useTable(useShallow((s) => ({ asked: s.asked, selected: s.selected })));
  const residual = fit.residuals.find((l) => l.id === mark.id);
  const unitMistake = fit.unitMistakes.find((s) => s.id === mark.id);
  const isOutlier = fit.outliers.some((s) => s.id === mark.id);
  const isSelected = selected?.markId === mark.id;
  const isChecking = isCheck(mark);
  const ids = { pictureId: picture.id, markId: mark.id };
  const labels = markViews[mark.kind].stated;
  return (
    <Box
      data-mark={mark.kind}
      onFocus={() => !isSelected && setTable({ selected: { markId: mark.id, index: mark.points.length - 1 } })}
      sx={{
        py: 1,
        px: 1,
        mx: -1,
        borderRadius: 1,
        bgcolor: isSelected ? 'rgba(30, 123, 107, 0.08)' : undefined,
        '& + &': { borderTop: `1px solid ${colours.line}` },
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <Typography variant="body2" sx={{ flex: 1, fontWeight: 600 }}>
          {markViews[mark.kind].word}
        </Typography>
        <Typography variant="body2" sx={{ fontWeight: 550 }}>
          {isChecking ? checkText(mark, fit, unit) : residual ? <Direction residual={residual} /> : null}
        </Typography>
        <Tooltip title={words.trueUp.takeThisMarkAwayDelete}>
          <IconButton
            size="small"
            aria-label={words.trueUp.remove(markViews[mark.kind].word)}
            onClick={() => run({ do: 'remove-mark', ...ids })}
          >
            <DeleteOutlined fontSize="small" />
          </IconButton>
        </Tooltip>
      </Box>
      {labels.length > 0 && (
        <Box sx={{ mt: 1, display: 'grid', gap: 1, gridTemplateColumns: labels.length > 1 ? '1fr 1fr' : '1fr' }}>
          {labels.map((label, index) => (
            <LengthField
              key={label}
              label={label}
              text={mark.stated[index]?.text ?? ''}
              unit={unit}
              range={markKinds[mark.kind].stated[index] === 'play' ? 'any' : 'positive'}
              placeholder={labels.length > 1 ? words.trueUp.shortLengthExample : words.trueUp.lengthExample}
              takesFocus={asked === mark.id && index === 0}
              hint={residual || isChecking || labels.length > 1 ? undefined : words.trueUp.lengthExamples}
              onLength={(value, text) => {
                run({ do: 'state', ...ids, index, text, value: Math.max(0, value) });
                setTable({ asked: null });
              }}
            />
          ))}
        </Box>
      )}
      {mark.kind === 'known-length' && isWaiting(mark) && (
        <CommonLength
          picture={picture}
          onLength={(value, text) => {
            run({ do: 'state', ...ids, index: 0, text, value });
            setTable({ asked: null });
          }}
        />
      )}
      {mark.kind === 'check-angle' && (
        <Box sx={{ mt: 1 }}>
          <NumberField
            label={words.trueUp.statedAngleIfAny}
            unit="°"
            digits={3}
            value={mark.stated[0]?.value ?? null}
            onNumber={(value) => run({ do: 'state', ...ids, index: 0, text: `${value}°`, value: Math.abs(value) })}
          />
        </Box>
      )}
      {isSelected && <TypedPlace picture={picture} mark={mark} index={selected?.index ?? 0} />}
      {mark.kind === 'box' && (
        <TextField
          select
          fullWidth
          label={words.trueUp.howTheSizeFitsTheBox}
          value={mark.boxFit ?? 'contained'}
          onChange={(event) => run({ do: 'set-box-fit', ...ids, boxFit: event.target.value as BoxFit })}
          sx={{ mt: 1.25 }}
        >
          {Object.entries(boxFits).map(([fit, word]) => (
            <MenuItem key={fit} value={fit}>
              {word}
            </MenuItem>
          ))}
        </TextField>
      )}
      {/* Marks that are met exactly whatever they say have no error. */}
      {residual && fit.noisePx !== null && <ResidualReadings residual={residual} isOutlier={isOutlier} />}
      {unitMistake && <UnitMistakeAlert unitMistake={unitMistake} mark={mark} ids={ids} />}
      {fit.crossedFrames.includes(mark.id) && (
        <Alert severity="info" variant="outlined" sx={{ mt: 1 }}>
          {words.trueUp.theCornersWereMarkedCrosswiseThey}
        </Alert>
      )}
      {isOutlier && !unitMistake && (
        <Alert severity="warning" variant="outlined" sx={{ mt: 1 }}>
          {words.trueUp.markDisagrees}
        </Alert>
      )}
    </Box>
  );
}

/** Where the selected point of a mark lies, to be typed. */
function TypedPlace({ picture, mark, index }: { picture: Picture; mark: Mark; index: number }) {
  const run = useJob((s) => s.run);
  const point = mark.points[index];
  if (!point || markViews[mark.kind].look.isFound) return null;
  const move = (to: Partial<typeof point>) =>
    run({
      do: 'move-mark',
      pictureId: picture.id,
      markId: mark.id,
      points: mark.points.map((p, k) => (k === index ? { ...p, ...to } : p)),
    });
  return (
    <Box sx={{ mt: 1.25, display: 'grid', gap: 1, gridTemplateColumns: '1fr 1fr' }}>
      <NumberField label={words.trueUp.pointX(index + 1)} unit={words.trueUp.px} digits={2} value={point.x} onNumber={(x) => move({ x })} />
      <NumberField label={words.trueUp.pointY(index + 1)} unit={words.trueUp.px} digits={2} value={point.y} onNumber={(y) => move({ y })} />
    </Box>
  );
}

function checkText(mark: Mark, fit: TrueUpFit, unit: Job['unit']): string {
  const measured = measuredBy(mark, fit);
  const text = measured?.what === 'length' && fit.model !== 'unsized' ? printBoth(measured.value, unit) : measuredText(mark, fit, unit);
  const stated = mark.stated[0]?.value;
  if (!measured || stated === null || stated === undefined || fit.model === 'unsized') return text;
  return `${text} (${signed(measured.value - stated)})`;
}

function ResidualReadings({ residual, isOutlier }: { residual: Residual; isOutlier: boolean }) {
  if (residual.isSetAside) return null;
  const isOff = (part: Residual['parts'][number]) => isOutlier || Math.abs(part.offPercent) > 0.5;
  return (
    <Box sx={{ mt: 0.5 }}>
      {residual.parts.map((part) => (
        <Reading
          key={part.name}
          name={residual.parts.length > 1 ? words.trueUp.error(part.name) : words.trueUp.errorOf}
          tone={isOff(part) ? 'error' : undefined}
        >
          {words.trueUp.mmPercent(signed(part.offMm), signed(part.offPercent))}
        </Reading>
      ))}
      <Reading name={words.trueUp.weight}>{Math.round(100 * residual.leverage)} %</Reading>
    </Box>
  );
}

const shortUnits: Readonly<Record<string, string>> = { millimetres: 'mm', centimetres: 'cm', metres: 'm', inches: 'in', feet: 'ft' };

/** What was typed with another unit behind it; where it was no plain number, the length in mm. */
function mendedText(typed: string, unitMistake: UnitMistake): string {
  const unit = shortUnits[unitMistake.looksLike.split(/[ ,]/)[0] as string] ?? 'mm';
  const number = /^\s*([\d.,]+(?:\s+\d+\/\d+)?|\d+\/\d+)\s*(mm|cm|m|in|ft|"|')?\s*$/.exec(typed);
  return number ? `${number[1]} ${unit}` : words.trueUp.mendedLength(Number(unitMistake.mendedMm.toPrecision(6)));
}

function UnitMistakeAlert({
  unitMistake,
  mark,
  ids,
}: {
  unitMistake: UnitMistake;
  mark: Mark;
  ids: { pictureId: string; markId: string };
}) {
  const run = useJob((s) => s.run);
  const typed = mark.stated[unitMistake.index]?.text ?? '';
  const mended = mendedText(typed, unitMistake);
  return (
    <Alert
      severity="warning"
      variant="outlined"
      sx={{ mt: 1 }}
      action={
        <Button
          color="inherit"
          size="small"
          onClick={() => run({ do: 'state', ...ids, index: unitMistake.index, text: mended, value: unitMistake.mendedMm })}
        >
          {words.trueUp.makeIt(mended)}
        </Button>
      }
    >
      {unitMistake.isEither ? words.trueUp.contradicts(typed, unitMistake.looksLike) : words.trueUp.disagrees(typed, unitMistake.looksLike)}
    </Alert>
  );
}

export const signed = (value: number): string => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(2)}`;

function Direction({ residual }: { residual: Residual }) {
  if (residual.offAngle === null) return null;
  return <>{words.trueUp.offByMm(Math.abs(residual.offMm).toFixed(2))}</>;
}
