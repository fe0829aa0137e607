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
import { settingsOf } from '@nuvet/core/processes';
import { useState } from 'react';
import { useProcesses } from '@/processes/open-process';
import { colours } from '@/ui/colours';
import { Measure, Pick } from '@/ui/Rows';
import { words } from '@/words';
import { useJob } from '../job/job-store';

export function WorkSettings() {
  const unit = useJob((s) => s.job.unit);
  const { thicknessMm: ownMm } = useJob((s) => s.job.making.stock);
  const processes = useProcesses();
  const kerfs = processes.flatMap((one) => {
    const { kerfMm } = settingsOf<{ kerfMm?: number }>(one);
    return kerfMm === undefined ? [] : [{ ...one, kerfMm }];
  });
  const kerf = kerfs[0] ? printToType(kerfs[0].kerfMm, unit) : '–';
  const run = useJob((s) => s.run);
  const [at, setAt] = useState<HTMLElement | null>(null);
  const thickness = ownMm === null ? '–' : printToType(ownMm, unit);
  const settings = words.job.unitThicknessKerf(unit, thickness, kerf);
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
            {thickness} / {kerf}
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
          <Measure
            label={words.job.thickness}
            mm={ownMm}
            unit={unit}
            onMm={(thicknessMm) => run({ do: 'set-stock', change: { thicknessMm } })}
            onEmpty={() => run({ do: 'set-stock', change: { thicknessMm: null } })}
          />
          {kerfs.map(({ entry, kind, kerfMm }) => (
            <Measure
              key={entry.id}
              label={kerfs.length > 1 ? words.job.kerfOf(kind.word) : words.job.kerf}
              mm={kerfMm}
              unit={unit}
              range="from zero"
              onMm={(mm) => run({ do: 'set-process', id: entry.id, process: entry.process, change: { kerfMm: mm } })}
            />
          ))}
          <Typography variant="caption" color="textSecondary">
            {words.job.workSettingsExplanation}
          </Typography>
        </Box>
      </Popover>
    </>
  );
}
