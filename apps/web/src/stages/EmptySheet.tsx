'use client';
/**
 * A new job that begins with an empty sheet of a typed size, to draw on.
 */
import NoteAddOutlined from '@mui/icons-material/NoteAddOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Popover from '@mui/material/Popover';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { z } from 'zod';
import { LengthField } from '@/ui/LengthField';
import { ask } from '@/ui/requests';

const madeSchema = z.object({ id: z.uuid() });

interface Props {
  readonly onMade: (id: string) => void;
  readonly onFault: (message: string) => void;
}

export function EmptySheet({ onMade, onFault }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [size, setSize] = useState({ stockWidthMm: 300, stockHeightMm: 200 });
  const make = async () => {
    try {
      const { id } = await ask('POST', '/api/jobs', madeSchema, { name: 'New job', pictureIds: [] });
      const steps = [{ step: 'do', command: { do: 'set-up', change: size } }];
      await ask('POST', `/api/jobs/${id}/edits`, z.unknown(), { base: 1, steps, wanted: false });
      onMade(id);
    } catch (error) {
      setAnchor(null);
      onFault((error as Error).message);
    }
  };
  return (
    <>
      <Button variant="outlined" size="large" startIcon={<NoteAddOutlined />} onClick={(event) => setAnchor(event.currentTarget)}>
        Empty sheet
      </Button>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
      >
        <Box sx={{ p: 2, display: 'grid', gap: 1.5, width: 280 }}>
          <Typography variant="body2" color="textSecondary">
            Start with an empty sheet of this size and draw on it.
          </Typography>
          <LengthField
            label="Sheet width"
            text={`${size.stockWidthMm} mm`}
            unit="mm"
            onLength={(stockWidthMm) => setSize((now) => ({ ...now, stockWidthMm }))}
          />
          <LengthField
            label="Sheet height"
            text={`${size.stockHeightMm} mm`}
            unit="mm"
            onLength={(stockHeightMm) => setSize((now) => ({ ...now, stockHeightMm }))}
          />
          <Button variant="contained" onClick={() => void make()}>
            Start drawing
          </Button>
        </Box>
      </Popover>
    </>
  );
}
