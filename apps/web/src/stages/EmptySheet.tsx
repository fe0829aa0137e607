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
import { words } from '@/words';

const madeSchema = z.object({ id: z.uuid() });

interface Props {
  readonly onMade: (id: string) => void;
  readonly onFault: (message: string) => void;
}

export function EmptySheet({ onMade, onFault }: Props) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [size, setSize] = useState({ widthMm: 300, heightMm: 200 });
  const make = async () => {
    try {
      const { id } = await ask('POST', '/api/jobs', madeSchema, { name: words.job.newJob, pictureIds: [] });
      const steps = [{ step: 'do', command: { do: 'set-stock', change: size } }];
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
        {words.job.emptySheet}
      </Button>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        onClose={() => setAnchor(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
      >
        <Box sx={{ p: 2, display: 'grid', gap: 1.5, width: 280 }}>
          <Typography variant="body2" color="textSecondary">
            {words.job.emptySheetExplanation}
          </Typography>
          <LengthField
            label={words.job.sheetWidth}
            text={words.job.stockWidth(size.widthMm)}
            unit="mm"
            onLength={(widthMm) => setSize((now) => ({ ...now, widthMm }))}
          />
          <LengthField
            label={words.job.sheetHeight}
            text={words.job.stockHeight(size.heightMm)}
            unit="mm"
            onLength={(heightMm) => setSize((now) => ({ ...now, heightMm }))}
          />
          <Button variant="contained" onClick={() => void make()}>
            {words.job.startDrawing}
          </Button>
        </Box>
      </Popover>
    </>
  );
}
