'use client';
/**
 * What the fit comes to: its model and why, the true size, and how far it can be relied on.
 */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { Picture } from '@nuvet/core/job';
import { printInches, printMm } from '@nuvet/core/length';
import { type ShapeModel, sizeInWords, type TrueUpFit } from '@nuvet/core/trueup';
import { makeAgain, useCopyState } from '@/table/rectified-images';
import { setTable, useTable } from '@/table/table-store';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { useJob } from '../../job/job-store';
import { signed } from './MarkRow';

const modelWords: Record<ShapeModel, string> = {
  uniform: words.trueUp.uniformScaleAndRotation,
  stretch: words.trueUp.twoScalesStretch,
  affine: words.trueUp.twoScalesAndASlantAffine,
  perspective: words.trueUp.perspective,
};

export function FitSection({ picture, fit }: { picture: Picture; fit: TrueUpFit }) {
  return (
    <>
      {fit.carried.length > 0 && <Model picture={picture} fit={fit} />}
      <Rectifying picture={picture} />
      <Size fit={fit} />
    </>
  );
}

function Model({ picture, fit }: { picture: Picture; fit: TrueUpFit }) {
  const run = useJob((s) => s.run);
  if (fit.carried.length === 1) return null;
  return (
    <Section title={words.trueUp.fit}>
      <TextField
        select
        fullWidth
        label={words.trueUp.model}
        value={picture.pinned && fit.carried.includes(picture.pinned) ? picture.pinned : 'auto'}
        onChange={(event) => {
          const pinned = event.target.value === 'auto' ? null : (event.target.value as ShapeModel);
          run({ do: 'change-picture', pictureId: picture.id, change: { pinned } });
        }}
        sx={{ mt: 1 }}
      >
        <MenuItem value="auto">{words.trueUp.recommended(fit.recommended ? modelWords[fit.recommended] : '')}</MenuItem>
        {fit.carried.map((model) => (
          <MenuItem key={model} value={model}>
            {modelWords[model]}
          </MenuItem>
        ))}
      </TextField>
      <Typography variant="caption" color="textSecondary" component="p" sx={{ mt: 0.75 }}>
        {fit.reason}
      </Typography>
    </Section>
  );
}

/** Under perspective: how the flattened copy stands, and the photograph as it was. */
function Rectifying({ picture }: { picture: Picture }) {
  const copy = useCopyState(picture);
  const asPhotographed = useTable((s) => s.asPhotographed);
  if (!copy) return null;
  return (
    <Section title={words.trueUp.rectified}>
      {copy.state === 'making' || copy.state === 'waiting' ? (
        <Box role="status" sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
          <Typography variant="body2">{words.trueUp.layingThePictureFlat}</Typography>
          <LinearProgress variant={copy.state === 'making' ? 'determinate' : 'indeterminate'} value={copy.share * 100} sx={{ flex: 1 }} />
          <Button size="small" onClick={copy.stop}>
            {words.trueUp.stop}
          </Button>
        </Box>
      ) : copy.state === 'failed' ? (
        <Alert severity="warning" variant="outlined" action={<Button onClick={() => makeAgain(picture)}>{words.trueUp.tryAgain}</Button>}>
          {copy.message}
        </Alert>
      ) : (
        <Box sx={{ display: 'flex', alignItems: 'center', justifyContent: 'space-between' }}>
          <Typography variant="body2">{words.trueUp.showItAsItWasPhotographed}</Typography>
          <Switch
            size="small"
            checked={asPhotographed}
            onChange={(_, on) => setTable({ asPhotographed: on, snap: null })}
            slotProps={{ input: { 'aria-label': words.trueUp.showItAsItWasPhotographed } }}
          />
        </Box>
      )}
    </Section>
  );
}

function Size({ fit }: { fit: TrueUpFit }) {
  const isKnown = fit.model !== 'unsized';
  const sizing = fit.residuals.filter((l) => l.parts.length > 0 && !l.isSetAside);
  const isStretched = Math.abs(Math.log(fit.mmPerPxAlong.x / fit.mmPerPxAlong.y)) > 2e-5;
  const wide = fit.sheetWidthMm >= fit.sheetHeightMm;
  const longest = wide ? fit.sheetWidthMm : fit.sheetHeightMm;
  return (
    <Section title={words.trueUp.trueSize}>
      {isKnown && sizing.length === 1 && (
        <Typography variant="body2" sx={{ mb: 0.5 }}>
          {words.trueUp.pictureComesOut(inWords(longest), wide, sizeInWords(longest))}
        </Typography>
      )}
      <Reading name={words.trueUp.scale}>{isKnown ? words.trueUp.mmPerPx(fit.mmPerPx.toFixed(5)) : words.trueUp.notKnownYet}</Reading>
      {isKnown && isStretched && (
        <Reading name={words.trueUp.alongAcross}>
          {fit.mmPerPxAlong.x.toFixed(5)}, {fit.mmPerPxAlong.y.toFixed(5)}
        </Reading>
      )}
      <Reading name={words.trueUp.resolution}>
        {isKnown ? words.trueUp.dpi((25.4 / fit.mmPerPx).toFixed(2)) : words.trueUp.notKnownYet}
      </Reading>
      <Reading name={words.trueUp.rotation}>{signed((fit.turn * 180) / Math.PI)}°</Reading>
      {fit.expect && (
        <Reading name={words.trueUp.expectedAccuracy}>{words.trueUp.mmOverMm(precise(fit.expect.plusMinusMm), fit.expect.overMm)}</Reading>
      )}
      {isKnown && (
        <Reading name={words.trueUp.wholePicture}>
          {words.trueUp.sizes(fit.sheetWidthMm.toFixed(2), printMm(fit.sheetHeightMm))}
          <br />
          {words.trueUp.paperSizes(printInches(fit.sheetWidthMm).replace(' in', ''), printInches(fit.sheetHeightMm))}
        </Reading>
      )}
    </Section>
  );
}

const precise = (mm: number): string => (mm < 0.1 ? mm.toFixed(3) : mm < 10 ? mm.toFixed(2) : mm.toFixed(0));
const inWords = (mm: number): string =>
  mm >= 1000
    ? `${(mm / 1000).toPrecision(3)} m`
    : mm >= 100
      ? words.trueUp.cm((mm / 10).toPrecision(3))
      : words.trueUp.length(mm.toPrecision(3));
