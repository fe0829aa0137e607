'use client';
/**
 * The picture that is worked on: what its file says, its place, how it is shown.
 */
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import FileDownloadOutlined from '@mui/icons-material/FileDownloadOutlined';
import FlipOutlined from '@mui/icons-material/FlipOutlined';
import RotateLeftOutlined from '@mui/icons-material/RotateLeftOutlined';
import RotateRightOutlined from '@mui/icons-material/RotateRightOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Slider from '@mui/material/Slider';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { fitOf, type Picture, plainTone, type Tone } from '@nuvet/core/job';
import { printBoth } from '@nuvet/core/length';
import { useEffect, useState } from 'react';
import { setTable, useTable } from '@/table/table-store';
import { LengthField } from '@/ui/LengthField';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { useJob } from '../../job/job-store';

type Source = NonNullable<Picture['resolution']>['source'];
const sources: Record<Source, string> = {
  png: words.bringIn.thePngFile,
  jfif: words.bringIn.theJpegFile,
  exif: words.bringIn.theCamerasData,
  tiff: words.bringIn.theTiffFile,
  bmp: words.bringIn.theBmpFile,
  webp: words.bringIn.theWebpFile,
  pdf: words.bringIn.thePdfPage,
  scanner: words.bringIn.theScanner,
  stated: 'you',
};

export function PictureCard({ picture }: { picture: Picture }) {
  const { run, unit } = { run: useJob((s) => s.run), unit: useJob((s) => s.job.unit) };
  const change = (what: Partial<Picture>) => run({ do: 'change-picture', pictureId: picture.id, change: what });
  return (
    <>
      <About picture={picture} onChange={change} unit={unit} />
      <Section title={words.bringIn.positionAndRotation}>
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, my: 1 }}>
          <Button
            size="small"
            variant="outlined"
            startIcon={<RotateLeftOutlined />}
            onClick={() => change({ quarterTurns: (picture.quarterTurns + 1) % 4 })}
          >
            {words.bringIn.rotate90DegreesLeft}
          </Button>
          <Button
            size="small"
            variant="outlined"
            startIcon={<RotateRightOutlined />}
            onClick={() => change({ quarterTurns: (picture.quarterTurns + 3) % 4 })}
          >
            {words.bringIn.rotate90DegreesRight}
          </Button>
          <Button
            size="small"
            variant={picture.flipped ? 'contained' : 'outlined'}
            startIcon={<FlipOutlined />}
            onClick={() => change({ flipped: !picture.flipped })}
          >
            {words.bringIn.flip}
          </Button>
          {picture.crop && (
            <Button size="small" variant="outlined" onClick={() => change({ crop: null })}>
              {words.bringIn.showAllAgain}
            </Button>
          )}
        </Box>
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
          {(['x', 'y'] as const).map((axis) => (
            <LengthField
              key={axis}
              label={axis === 'x' ? words.bringIn.originX : words.bringIn.originY}
              text={words.bringIn.coordinate(Number(picture.place[axis].toFixed(3)))}
              unit={unit}
              range="any"
              hint=" "
              onLength={(mm) => change({ place: { ...picture.place, [axis]: mm } })}
            />
          ))}
        </Box>
      </Section>
      <Showing picture={picture} onChange={change} />
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button size="small" startIcon={<FileDownloadOutlined />} onClick={() => window.open(`/api/pictures/${picture.id}`, '_blank')}>
          {words.bringIn.theOriginal}
        </Button>
        <Button size="small" color="error" startIcon={<DeleteOutlined />} onClick={() => run({ do: 'take-out', pictureId: picture.id })}>
          {words.bringIn.removeFromTheJob}
        </Button>
      </Box>
    </>
  );
}

interface PartProps {
  readonly picture: Picture;
  readonly onChange: (what: Partial<Picture>) => void;
}

function About({ picture, onChange, unit }: PartProps & { unit: 'mm' | 'in' }) {
  const [name, setName] = useState(picture.name);
  useEffect(() => setName(picture.name), [picture.name]);
  const { resolution } = picture;
  const fromFile = resolution?.trusted ? fitOf({ ...picture, marks: [] }) : null;
  return (
    <>
      <Section title={words.bringIn.whatTheFileSays}>
        <TextField
          fullWidth
          label={words.bringIn.name}
          value={name}
          onChange={(event) => setName(event.target.value)}
          onBlur={() => name.trim() && name !== picture.name && onChange({ name: name.trim() })}
          onKeyDown={(event) => event.stopPropagation()}
          slotProps={{ htmlInput: { maxLength: 200 } }}
          sx={{ my: 1 }}
        />
        <Reading name={words.bringIn.pixels}>{words.bringIn.pixelSize(picture.widthPx, picture.heightPx)}</Reading>
        <Reading name={words.bringIn.megapixels}>{((picture.widthPx * picture.heightPx) / 1e6).toFixed(1)}</Reading>
        <Reading name={words.bringIn.resolution} tone={resolution && !resolution.trusted ? 'warning' : undefined}>
          {resolution ? words.bringIn.resolutionStated(Number(resolution.dpi.toFixed(2)), resolution.trusted) : words.bringIn.notStated}
        </Reading>
      </Section>
      {fromFile && resolution ? (
        <Section title={words.bringIn.sizeFromTheFile}>
          <Typography variant="body2" color="textSecondary" sx={{ mb: 0.5 }}>
            {words.bringIn.byTheResolution(sources[resolution.source])}
          </Typography>
          <Reading name={words.bringIn.wide}>{printBoth(fromFile.sheetWidthMm, unit)}</Reading>
          <Reading name={words.bringIn.high}>{printBoth(fromFile.sheetHeightMm, unit)}</Reading>
        </Section>
      ) : (
        <Alert
          severity="warning"
          variant="outlined"
          action={
            resolution ? (
              <Button size="small" onClick={() => onChange({ resolution: { ...resolution, trusted: true } })}>
                {words.bringIn.useIt}
              </Button>
            ) : undefined
          }
        >
          {resolution ? words.bringIn.resolutionNotTrusted(Number(resolution.dpi.toFixed(2))) : words.bringIn.sizeNotStated}
        </Alert>
      )}
    </>
  );
}

const toneSliders = [
  { key: 'lighten', label: words.bringIn.lighten, min: 0 },
  { key: 'contrast', label: words.bringIn.contrast, min: -1 },
] as const;

function Showing({ picture, onChange }: PartProps) {
  const moving = useTable((s) => s.opacity);
  const [tone, setTone] = useState<Tone | null>(null);
  const shown = tone ?? picture.tone;
  return (
    <Section title={words.bringIn.howItIsShown}>
      <Labelled label={words.bringIn.opacity}>
        <Slider
          size="small"
          aria-label={words.bringIn.opacityOfThePicture}
          min={0}
          max={100}
          value={Math.round((moving ?? picture.opacity) * 100)}
          onChange={(_, value) => setTable({ opacity: (value as number) / 100 })}
          onChangeCommitted={(_, value) => {
            onChange({ opacity: (value as number) / 100 });
            setTable({ opacity: null });
          }}
          valueLabelDisplay="auto"
          valueLabelFormat={(value) => `${value} %`}
        />
      </Labelled>
      {toneSliders.map(({ key, label, min }) => (
        <Labelled key={key} label={label}>
          <Slider
            size="small"
            aria-label={label}
            min={min * 100}
            max={100}
            value={Math.round(shown[key] * 100)}
            onChange={(_, value) => setTone({ ...shown, [key]: (value as number) / 100 })}
            onChangeCommitted={(_, value) => {
              onChange({ tone: { ...shown, [key]: (value as number) / 100 } });
              setTone(null);
            }}
          />
        </Labelled>
      ))}
      <Box sx={{ display: 'flex', justifyContent: 'space-between' }}>
        {(
          [
            ['invert', words.bringIn.invert],
            ['singleInk', words.bringIn.singleInk],
          ] as const
        ).map(([key, label]) => (
          <FormControlLabel
            key={key}
            label={label}
            control={
              <Switch size="small" checked={picture.tone[key]} onChange={(_, on) => onChange({ tone: { ...picture.tone, [key]: on } })} />
            }
          />
        ))}
        <Button
          size="small"
          disabled={JSON.stringify(picture.tone) === JSON.stringify(plainTone)}
          onClick={() => onChange({ tone: plainTone })}
        >
          {words.bringIn.reset}
        </Button>
      </Box>
      <Typography variant="caption" color="textSecondary">
        {words.bringIn.displayOnlyTracingUsesTheOriginal}
      </Typography>
    </Section>
  );
}

function Labelled({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: '84px 1fr', alignItems: 'center', columnGap: 1.5, pr: 1 }}>
      <Typography variant="body2" color="textSecondary">
        {label}
      </Typography>
      {children}
    </Box>
  );
}
