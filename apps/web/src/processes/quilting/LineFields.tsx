'use client';
/** What a pattern is quilted along with: where, how large, how far apart. */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import {
  isInBlock,
  isLineMotif,
  isRowPattern,
  lineMotifs,
  type QuiltedPlace,
  type QuiltingLineSettings,
  type QuiltingSettings,
  type QuiltPlan,
  quiltedPlaces,
} from '@nuvet/core/quilting';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { words } from '@/words';

const say = words.quilting;

interface Props {
  readonly line: QuiltingLineSettings;
  readonly onChange: (by: Partial<QuiltingLineSettings>) => void;
  readonly unit: 'mm' | 'in';
}

/** Where it is quilted: places that this quilt has. @param inBlockOnly where only the block is looked at */
export function PlaceFields({
  line,
  onChange,
  settings,
  plan,
  inBlockOnly = false,
}: Omit<Props, 'unit'> & { settings: QuiltingSettings; plan: QuiltPlan | null; inBlockOnly?: boolean }) {
  const has = (place: QuiltedPlace): boolean => place === line.over || (inBlockOnly ? isInBlock(place) : isInQuilt(place, settings));
  return (
    <>
      <Row>
        <Pick
          label={say.over}
          value={line.over}
          words={Object.fromEntries(quiltedPlaces.filter(has).map((place) => [place, say.overs[place]])) as Record<QuiltedPlace, string>}
          onPick={(over) => onChange({ over })}
        />
        {line.over === 'patches' && plan && (
          <Pick
            label={say.ofSet}
            value={plan.sets.some(({ name }) => name === line.ofSet) ? (line.ofSet as string) : everySet}
            words={{
              [everySet]: say.everyPatch,
              ...Object.fromEntries(plan.sets.map(({ name, faces }) => [name, say.patchesNamed(name, faces.length)])),
            }}
            onPick={(set) => onChange({ ofSet: set === everySet ? null : set })}
          />
        )}
      </Row>
      {!inBlockOnly && isInBlock(line.over) && (plan?.quilt.blocks.length ?? 1) > 1 && (
        <FormControlLabel
          control={<Switch checked={line.isInEveryBlock} onChange={(_, isInEveryBlock) => onChange({ isInEveryBlock })} />}
          label={say.inEveryBlock}
        />
      )}
    </>
  );
}
const everySet = ' ';

function isInQuilt(place: QuiltedPlace, { setting, sashingMm, hasPosts, alternate, borders }: QuiltingSettings): boolean {
  if (place === 'sashing') return sashingMm > 0 && (setting === 'straight' || setting === 'strips');
  if (place === 'posts') return sashingMm > 0 && setting === 'straight' && hasPosts;
  if (place === 'plain squares') return alternate && setting !== 'medallion';
  if (place === 'triangles') return setting === 'on point';
  return place !== 'borders' || borders.some(({ widthMm }) => widthMm > 0);
}

/** How large a pattern is, and how far apart its lines. */
export function PatternFields({ line, onChange, unit }: Props) {
  const { pattern } = line;
  const isFilling = pattern === 'cross-hatching' || pattern === 'echo' || pattern === 'stippling';
  const hasSize = isRowPattern(pattern) || (isLineMotif(pattern) && lineMotifs[pattern].fills === 'corner');
  return (
    <>
      {hasSize && (
        <Row>
          <Measure label={say.repeat} mm={line.repeatMm} unit={unit} least={5} most={5000} onMm={(mm) => onChange({ repeatMm: mm })} />
          {isRowPattern(pattern) && line.over !== 'borders' && (
            <Measure label={say.rowHeight} mm={line.rowMm} unit={unit} least={5} most={5000} onMm={(mm) => onChange({ rowMm: mm })} />
          )}
        </Row>
      )}
      {isRowPattern(pattern) && line.over !== 'borders' && (
        <Box>
          <Measure
            label={say.overlap}
            mm={line.overlapMm}
            unit={unit}
            range="from zero"
            most={5000}
            onMm={(mm) => onChange({ overlapMm: mm })}
          />
          <FormControlLabel
            control={<Switch checked={line.isStaggered} onChange={(_, isStaggered) => onChange({ isStaggered })} />}
            label={say.staggered}
          />
          <FormControlLabel
            control={<Switch checked={line.isMirrored} onChange={(_, isMirrored) => onChange({ isMirrored })} />}
            label={say.mirroredRows}
          />
        </Box>
      )}
      {isFilling && (
        <Row>
          <Measure label={say.spacing} mm={line.spacingMm} unit={unit} least={1} most={1000} onMm={(mm) => onChange({ spacingMm: mm })} />
          {pattern === 'cross-hatching' && (
            <NumberField
              label={say.angle}
              value={line.angle}
              digits={1}
              unit="°"
              least={-180}
              most={180}
              onNumber={(n) => onChange({ angle: n })}
            />
          )}
          {pattern === 'stippling' && <Button onClick={() => onChange({ seed: (line.seed + 1) % 1_000_000 })}>{say.anotherOne}</Button>}
        </Row>
      )}
      {pattern !== 'none' && pattern !== 'drawn' && (
        <Measure label={say.inset} mm={line.insetMm} unit={unit} range="from zero" most={1000} onMm={(mm) => onChange({ insetMm: mm })} />
      )}
    </>
  );
}
