'use client';
/**
 * Outlines brought in from drawing files: their size, their unit, what was left aside.
 */
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import VisibilityOffOutlined from '@mui/icons-material/VisibilityOffOutlined';
import VisibilityOutlined from '@mui/icons-material/VisibilityOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { cssPxMm } from '@nuvet/core/formats';
import { type Drawing, overallBox } from '@nuvet/core/job';
import { printBoth } from '@nuvet/core/length';
import { heightOf, widthOf } from '@nuvet/core/plane';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { useJob } from '../../job/job-store';

const units: readonly (readonly [word: string, mm: number])[] = [
  ['millimetres', 1],
  ['inches', 25.4],
  ['centimetres', 10],
  ['points (1/72 in)', 25.4 / 72],
  [words.bringIn.cssPixels196In, cssPxMm],
  ['feet', 304.8],
  ['metres', 1000],
];

export function DrawingList() {
  const drawings = useJob((s) => s.job.drawings);
  return drawings.map((drawing) => <DrawingCard key={drawing.id} drawing={drawing} />);
}

function DrawingCard({ drawing }: { drawing: Drawing }) {
  const { run, unit } = { run: useJob((s) => s.run), unit: useJob((s) => s.job.unit) };
  const box = overallBox(drawing.pieces);
  const wide = drawing.pieces.filter(({ strokeShape }) => strokeShape !== undefined);
  const open = drawing.pieces.filter((p) => !p.outer.closed).length;
  const known = units.findIndex(([, mm]) => Math.abs(Math.log(mm / drawing.mmPerUnit)) < 1e-6);
  return (
    <Section title={drawing.name}>
      <Box data-drawing={drawing.name}>
        <Box sx={{ display: 'flex', alignItems: 'center' }}>
          <Typography variant="body2" color="textSecondary" sx={{ flex: 1 }}>
            {drawing.pieces.length} {drawing.pieces.length === 1 ? words.bringIn.outline : words.bringIn.outlines}
            {open > 0 ? words.bringIn.openOutlines(open) : words.bringIn.allClosedOutlines}
          </Typography>
          <IconButton
            size="small"
            aria-label={`${drawing.hidden ? words.bringIn.show : words.bringIn.hide}: ${drawing.name}`}
            onClick={() => run({ do: 'hide-drawing', drawingId: drawing.id, hidden: !drawing.hidden })}
          >
            {drawing.hidden ? <VisibilityOffOutlined fontSize="small" /> : <VisibilityOutlined fontSize="small" />}
          </IconButton>
          <IconButton
            size="small"
            aria-label={words.bringIn.remove(drawing.name)}
            onClick={() => run({ do: 'take-out-drawing', drawingId: drawing.id })}
          >
            <DeleteOutlined fontSize="small" />
          </IconButton>
        </Box>
        {box && (
          <>
            <Reading name={words.bringIn.wide}>{printBoth(widthOf(box), unit)}</Reading>
            <Reading name={words.bringIn.high}>{printBoth(heightOf(box), unit)}</Reading>
          </>
        )}
        {drawing.unitIsStated ? (
          <Reading name={words.bringIn.unitInTheFile}>
            {known >= 0 ? units[known]?.[0] : words.bringIn.millimetres(drawing.mmPerUnit.toPrecision(6))}
          </Reading>
        ) : (
          <Alert severity="warning" variant="outlined" sx={{ mt: 1 }}>
            {words.bringIn.unitNotStated}
            <TextField
              select
              fullWidth
              label={words.bringIn.itsUnit}
              value={known >= 0 ? known : ''}
              onChange={(event) =>
                run({ do: 'set-drawing-unit', drawingId: drawing.id, mmPerUnit: units[Number(event.target.value)]?.[1] ?? 1 })
              }
              sx={{ mt: 1.25 }}
            >
              {units.map(([word], k) => (
                <MenuItem key={word} value={k}>
                  {word}
                </MenuItem>
              ))}
            </TextField>
          </Alert>
        )}
        {wide.length > 0 && (
          <Alert severity="info" variant="outlined" sx={{ mt: 1 }}>
            {words.bringIn.wideLines(wide.length, printBoth(Math.max(...wide.map(({ strokeMm }) => strokeMm ?? 0)), unit))}
            <Button sx={{ mt: 1 }} onClick={() => run({ do: 'take-line-outlines', drawingId: drawing.id, pieceIds: null })}>
              {words.bringIn.takeTheirOutline}
            </Button>
          </Alert>
        )}
        {drawing.notes.map((note) => (
          <Typography key={note} variant="caption" color="textSecondary" component="p" sx={{ mt: 0.5 }}>
            {note}
          </Typography>
        ))}
      </Box>
    </Section>
  );
}
