'use client';
/** How a section is given: by its four digits, by a file of coordinates, or as an outline of the job. */
import UploadFileOutlined from '@mui/icons-material/UploadFileOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { longestCoordinates, type WingSection } from '@nuvet/core/foam';
import type { Piece } from '@nuvet/core/job';
import { useEffect, useRef, useState } from 'react';
import { Pick } from '@/ui/Rows';
import { words } from '@/words';
import { OutlinePick } from '../OutlinePick';

const say = words.wing;

interface Props {
  readonly label: string;
  readonly section: WingSection | null;
  readonly pieces: readonly Piece[];
  /** Where there need be none. */
  readonly none?: string;
  readonly onSection: (section: WingSection | null) => void;
}

export function SectionPick({ label, section, pieces, none, onSection }: Props) {
  const input = useRef<HTMLInputElement>(null);
  const [isTooLong, setTooLong] = useState(false);
  const closed = pieces.filter(({ outer }) => outer.closed);
  const choose = (kind: string) => {
    if (kind === 'none') return onSection(null);
    if (kind === 'naca') return onSection({ kind, digits: '2412' });
    if (kind === 'outline') return onSection({ kind, pieceId: closed[0]?.id ?? '-' });
    return input.current?.click();
  };
  const take = async (file: File | undefined) => {
    if (!file) return;
    setTooLong(file.size > longestCoordinates);
    if (file.size <= longestCoordinates) onSection({ kind: 'coordinates', name: file.name.slice(0, 120) || '-', text: await file.text() });
  };
  return (
    <Box sx={{ display: 'grid', gap: 1 }}>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1, alignItems: 'start' }}>
        <Pick<string> label={label} value={section?.kind ?? 'none'} words={{ ...(none && { none }), ...say.kinds }} onPick={choose} />
        {section?.kind === 'naca' && <Digits digits={section.digits} onDigits={(digits) => onSection({ kind: 'naca', digits })} />}
        {section?.kind === 'outline' && (
          <OutlinePick
            label={say.outline}
            pieces={closed}
            value={section.pieceId}
            onPick={(pieceId) => onSection({ kind: 'outline', pieceId })}
          />
        )}
        {section?.kind === 'coordinates' && (
          <Button variant="outlined" startIcon={<UploadFileOutlined />} onClick={() => input.current?.click()} sx={{ minHeight: 40 }}>
            {say.fileChosen(section.name)}
          </Button>
        )}
      </Box>
      <input
        ref={input}
        type="file"
        accept=".dat,.txt,text/plain"
        hidden
        aria-label={`${label}: ${say.file}`}
        onChange={(event) => {
          void take(event.target.files?.[0]);
          event.target.value = '';
        }}
      />
      {isTooLong && (
        <Alert severity="error" variant="outlined" role="alert">
          {words.wing.fileTooLarge}
        </Alert>
      )}
    </Box>
  );
}

/** Counts with Enter or on leaving. */
function Digits({ digits, onDigits }: { digits: string; onDigits: (digits: string) => void }) {
  const [typed, setTyped] = useState(digits);
  useEffect(() => setTyped(digits), [digits]);
  const settle = () => typed.trim() !== '' && typed !== digits && onDigits(typed.trim().slice(0, 12));
  return (
    <TextField
      fullWidth
      label={say.digits}
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={settle}
      onKeyDown={(event) => {
        if (event.key === 'Enter') settle();
        if (event.key === 'Escape') setTyped(digits);
        event.stopPropagation();
      }}
      slotProps={{ htmlInput: { inputMode: 'numeric', autoComplete: 'off' } }}
    />
  );
}
