'use client';
/**
 * Unit, thickness and kerf, to be read and changed from every stage.
 */
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import Popover from '@mui/material/Popover';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import { printToType } from '@nuvet/core/length';
import { useState } from 'react';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { useJob } from './job-store';
import { Measure, Pick, Row } from './trace/hand/Rows';

export function WorkSettings() {
  const unit = useJob((s) => s.job.unit);
  const making = useJob((s) => s.job.making);
  const cutting = useJob((s) => s.job.setup.cutting);
  const run = useJob((s) => s.run);
  const [at, setAt] = useState<HTMLElement | null>(null);
  const thickness = making.thicknessMm === null ? '–' : printToType(making.thicknessMm, unit);
  const settings = words.job.unitThicknessKerf(unit, thickness, printToType(cutting.kerfMm, unit));
  return (
    <>
      <Tooltip title={words.job.unitThicknessAndKerf}>
        <ButtonBase
          aria-label={words.job.changeSettings(settings)}
          aria-haspopup="dialog"
          onClick={(event) => setAt(event.currentTarget)}
          sx={{ px: 1, py: 0.25, mx: 0.5, borderRadius: 1, border: `1px solid ${colours.line}`, display: 'grid', minWidth: 38 }}
        >
          <Box component="span" sx={{ fontWeight: 650, fontSize: 13.5, lineHeight: 1.3 }}>
            {unit}
          </Box>
          <Box component="span" sx={{ fontSize: 11, lineHeight: 1.2, color: colours.quietInk, fontVariantNumeric: 'tabular-nums' }}>
            {thickness} / {printToType(cutting.kerfMm, unit)}
          </Box>
        </ButtonBase>
      </Tooltip>
      <Popover
        open={at !== null}
        anchorEl={at}
        onClose={() => setAt(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
        transformOrigin={{ vertical: 'top', horizontal: 'right' }}
        slotProps={{ paper: { role: 'dialog', 'aria-label': words.job.unitThicknessAndKerf } }}
      >
        <Box
          sx={{ p: 2, width: 300, display: 'grid', gap: 1.5 }}
          // A field keeps its keys to itself; Escape is for all of it.
          onKeyDownCapture={(event) => event.key === 'Escape' && setAt(null)}
          onKeyDown={(event) => event.stopPropagation()}
        >
          <Pick
            label={words.job.unitOfTheJob}
            value={unit}
            words={{ mm: words.job.millimetres, in: words.job.inches }}
            onPick={(next) => run({ do: 'set-unit', unit: next })}
          />
          <Row>
            <Measure
              label={words.job.thickness}
              mm={making.thicknessMm}
              unit={unit}
              onMm={(thicknessMm) => run({ do: 'set-making', making: { ...making, thicknessMm } })}
              onEmpty={() => run({ do: 'set-making', making: { ...making, thicknessMm: null } })}
            />
            <Measure
              label={words.job.kerf}
              mm={cutting.kerfMm}
              unit={unit}
              range="any"
              onMm={(kerfMm) => run({ do: 'set-up', change: { cutting: { ...cutting, kerfMm: Math.max(0, kerfMm) } } })}
            />
          </Row>
          <Typography variant="caption" color="textSecondary">
            {words.job.workSettingsExplanation}
          </Typography>
        </Box>
      </Popover>
    </>
  );
}
