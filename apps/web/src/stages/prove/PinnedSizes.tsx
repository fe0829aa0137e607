'use client';
/**
 * Required sizes: what each must be, by how much it may be off, and what it is.
 */
import CheckOutlined from '@mui/icons-material/CheckOutlined';
import CloseOutlined from '@mui/icons-material/CloseOutlined';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import InputBase from '@mui/material/InputBase';
import Typography from '@mui/material/Typography';
import type { Piece, PinnedSize } from '@nuvet/core/job';
import { printBoth } from '@nuvet/core/length';
import { boxAround } from '@nuvet/core/plane';
import { provedSizes } from '@nuvet/core/proof';
import { useState } from 'react';
import { setTable, useTable } from '@/table/table-store';
import { boxInView } from '@/table/view';
import { colours } from '@/ui/colours';
import { Measure, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { useJob } from '../../job/job-store';

export function PinnedSizes({ pieces }: { pieces: readonly Piece[] }) {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const sizes = provedSizes(pieces, job.proof.pinned);
  if (sizes.length === 0) return null;
  const change = (id: string, by: Partial<PinnedSize> | null) =>
    run({ do: 'prove-by', change: { pinned: job.proof.pinned.flatMap((p) => (p.id === id ? (by ? [{ ...p, ...by }] : []) : [p])) } });
  return (
    <Section title={words.prove.requiredSizes}>
      {sizes.map(({ pinned, isMm, holds, ends }) => (
        <Box key={pinned.id} role="group" aria-label={pinned.name} sx={{ py: 1, borderBottom: `1px solid ${colours.line}` }}>
          <Box sx={{ display: 'flex', alignItems: 'center', gap: 0.5 }}>
            <Box sx={{ display: 'grid', color: holds ? colours.verdigris : colours.madder }}>
              {holds ? <CheckOutlined fontSize="small" /> : <CloseOutlined fontSize="small" />}
            </Box>
            <SizeName name={pinned.name} onName={(name) => change(pinned.id, { name })} />
            <Typography
              component="button"
              variant="body2"
              aria-label={words.prove.goToSize(pinned.name)}
              onClick={() => {
                const box = boxAround(ends);
                if (box)
                  setTable({
                    view: boxInView(
                      { minX: box.minX - 5, minY: box.minY - 5, maxX: box.maxX + 5, maxY: box.maxY + 5 },
                      useTable.getState().screen,
                    ),
                  });
              }}
              sx={{
                border: 0,
                bgcolor: 'transparent',
                cursor: 'zoom-in',
                fontWeight: 600,
                color: holds ? 'text.primary' : 'error.main',
                p: 0,
                whiteSpace: 'nowrap',
              }}
            >
              {isMm === null ? words.prove.gone : printBoth(isMm, job.unit)}
            </Typography>
            <IconButton size="small" aria-label={words.prove.removeSize(pinned.name)} onClick={() => change(pinned.id, null)}>
              <DeleteOutlined fontSize="small" />
            </IconButton>
          </Box>
          <Box sx={{ mt: 0.75 }}>
            <Row>
              <Measure label={words.prove.mustBe} mm={pinned.mm} unit={job.unit} onMm={(mm) => change(pinned.id, { mm })} />
              <Measure
                label={words.prove.tolerance}
                mm={pinned.toleranceMm}
                unit={job.unit}
                range="from zero"
                onMm={(toleranceMm) => change(pinned.id, { toleranceMm })}
              />
            </Row>
          </Box>
        </Box>
      ))}
    </Section>
  );
}

function SizeName({ name, onName }: { name: string; onName: (name: string) => void }) {
  const [typed, setTyped] = useState(name);
  return (
    <InputBase
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={() => (typed.trim() ? typed.trim() !== name && onName(typed.trim().slice(0, 100)) : setTyped(name))}
      onKeyDown={(event) => {
        if (event.key === 'Enter') (event.target as HTMLInputElement).blur();
        event.stopPropagation();
      }}
      inputProps={{ 'aria-label': words.prove.nameOfTheSize, style: { padding: 0 } }}
      sx={{ flex: 1, fontSize: 13.5, minWidth: 0 }}
    />
  );
}
