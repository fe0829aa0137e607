'use client';
/**
 * What of the picture is meant and how closely: which edge, what counts as ink, colours, walls, tolerance.
 */
import Box from '@mui/material/Box';
import FormControlLabel from '@mui/material/FormControlLabel';
import Slider from '@mui/material/Slider';
import Switch from '@mui/material/Switch';
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import Typography from '@mui/material/Typography';
import type { Job, JobTraceSettings, Picture, RasterSource } from '@nuvet/core/job';
import type { Take } from '@nuvet/core/trace';
import { memo } from 'react';
import { LengthField } from '@/ui/LengthField';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { MeantColours, useColoursOf } from './MeantColours';

interface SettingsProps {
  readonly picture: Picture;
  readonly raster: RasterSource;
  readonly settings: JobTraceSettings;
  readonly found: number | null;
  readonly unit: Job['unit'];
  readonly onMove: (settings: JobTraceSettings) => void;
}

/** Sliders run evenly in the logarithm, so that fine settings have as much room as coarse ones. */
const toSlider = (mm: number) => Math.round(Math.log10(Math.max(0.01, mm)) * 100);
const fromSlider = (value: number) => Number((10 ** (value / 100)).toPrecision(2));

export const InkSettings = memo(function InkSettings({ picture, raster, settings, found, unit, onMove }: SettingsProps) {
  const colours = useColoursOf(picture, raster, settings.colours.length > 0);
  const byColour = settings.colours.length > 0 || colours.isWanted;
  const threshold = typeof settings.threshold === 'number' ? settings.threshold : (found ?? 128);
  const lengths = [
    { key: 'toleranceMm', label: words.trace.tolerance, hint: words.trace.closerSmoother, min: 0.01, max: 2 },
    { key: 'smallestMm', label: words.trace.ignoreBelow, hint: words.trace.ignoreBelowExplanation, min: 0.1, max: 20 },
  ] as const;
  return (
    <>
      {isDrawnLine(settings.take) && (
        <Section title={words.trace.whichEdgeOfTheLine}>
          <Choice
            label={words.trace.whichEdgeOfTheLine}
            value={settings.take}
            of={[
              ['line-outer', words.trace.outerEdge],
              ['line-middle', words.trace.middle],
              ['line-inner', words.trace.innerEdge],
            ]}
            onChoice={(take) => onMove({ ...settings, take })}
          />
        </Section>
      )}
      {settings.take === 'network' && (
        <Section title={words.trace.walls}>
          <FormControlLabel
            label={words.trace.makeWallsOfEvenThickness}
            sx={{ ml: 0 }}
            control={
              <Switch
                size="small"
                checked={settings.wallMm !== null}
                onChange={(_, isWanted) => onMove({ ...settings, wallMm: isWanted ? usualWallMm : null })}
              />
            }
          />
          {settings.wallMm !== null && (
            <LengthField
              label={words.trace.thickness}
              text={words.trace.millimetres(settings.wallMm)}
              unit={unit}
              hint={words.trace.dashedLinesStayLines}
              onLength={(mm) => onMove({ ...settings, wallMm: Math.min(1000, Math.max(0.05, mm)) })}
            />
          )}
        </Section>
      )}
      <Section title={words.trace.whatCountsAsInk}>
        <Choice
          label={words.trace.howInkIsDetected}
          value={byColour ? 'colours' : typeof settings.threshold === 'number' ? 'hand' : settings.threshold}
          of={[
            ['auto', words.trace.automatic],
            ['local', words.trace.unevenLight],
            ['hand', words.trace.byHand],
            ['colours', words.trace.byColour],
          ]}
          onChoice={(way) => {
            if (way === 'colours') colours.want((first) => first.length > 0 && onMove({ ...settings, colours: first }));
            else onMove({ ...settings, colours: [], threshold: way === 'hand' ? Math.round(threshold) : way });
          }}
        />
        {!byColour && colours.found && colours.found.length < 2 && (
          <Typography variant="body2" color="warning.main" role="alert" sx={{ mt: 1 }}>
            {words.trace.onlyOneColourWasFoundIn}
          </Typography>
        )}
        {byColour && <MeantColours found={colours.found} settings={settings} onMove={onMove} />}
        {!byColour && settings.threshold !== 'local' && (
          <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 128px', columnGap: 2, alignItems: 'center', mt: 1 }}>
            <Slider
              aria-label={words.trace.threshold}
              size="small"
              min={1}
              max={254}
              value={threshold}
              onChange={(_, value) => onMove({ ...settings, threshold: value as number })}
            />
            <Typography variant="body2" color="textSecondary">
              {words.trace.thresholdAt(Math.round(threshold))}
            </Typography>
          </Box>
        )}
        {!byColour && (
          <FormControlLabel
            label={words.trace.traceLightAreas}
            sx={{ ml: 0 }}
            control={<Switch size="small" checked={settings.inverted} onChange={(_, inverted) => onMove({ ...settings, inverted })} />}
          />
        )}
        {lengths.map(({ key, label, hint, min, max }) => (
          <Box key={key} sx={{ display: 'grid', gridTemplateColumns: '1fr 128px', columnGap: 2, alignItems: 'start', mt: 1 }}>
            <Box>
              <Typography variant="caption" color="textSecondary">
                {hint}
              </Typography>
              <Slider
                aria-label={label}
                size="small"
                min={toSlider(min)}
                max={toSlider(max)}
                value={toSlider(settings[key])}
                onChange={(_, value) => onMove({ ...settings, [key]: fromSlider(value as number) })}
              />
            </Box>
            <LengthField
              label={label}
              text={words.trace.settingMm(settings[key])}
              unit={unit}
              hint=" "
              onLength={(mm) => onMove({ ...settings, [key]: Math.min(10, Math.max(min, mm)) })}
            />
          </Box>
        ))}
        <FormControlLabel
          label={words.trace.smoothForTheBlade}
          title={words.trace.smoothExplanation}
          sx={{ ml: 0, mt: 1 }}
          control={<Switch size="small" checked={settings.forBlade} onChange={(_, forBlade) => onMove({ ...settings, forBlade })} />}
        />
      </Section>
    </>
  );
});

/** A sheet that is often cut (common practice), mm. */
const usualWallMm = 3;

export const isDrawnLine = (take: Take): boolean => take !== 'shape' && take !== 'network';

interface ChoiceProps<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly of: readonly (readonly [T, string])[];
  readonly onChoice: (value: T) => void;
}

/** One of a few, side by side. */
export function Choice<T extends string>({ label, value, of, onChoice }: ChoiceProps<T>) {
  return (
    <ToggleButtonGroup
      exclusive
      fullWidth
      size="small"
      aria-label={label}
      value={value}
      onChange={(_, chosen: T | null) => chosen && onChoice(chosen)}
    >
      {of.map(([key, word]) => (
        <ToggleButton key={key} value={key} sx={{ textTransform: 'none', lineHeight: 1.3 }}>
          {word}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}
