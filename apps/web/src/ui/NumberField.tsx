'use client';
/**
 * A small field for a plain number; a word that is none is refused at its place and the number before stays.
 */
import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import { words } from '@/words';
import { outOfRange } from './out-of-range';

interface Props {
  readonly label: string;
  readonly value: number | null;
  readonly digits: number;
  /** Said behind the label; none for what is only counted. */
  readonly unit?: string;
  readonly onNumber: (value: number) => void;
  /** What is less or more than these is refused at the field. */
  readonly least?: number;
  readonly most?: number;
  /** Called where the field is emptied, if that means something; the placeholder says what. */
  readonly onEmpty?: () => void;
  readonly placeholder?: string;
}

export function NumberField({ label, value, digits, unit, onNumber, least, most, onEmpty, placeholder }: Props) {
  const printed = value === null ? '' : String(Number(value.toFixed(digits)));
  const [typed, setTyped] = useState(printed);
  const [fault, setFault] = useState<string | null>(null);
  useEffect(() => setTyped(printed), [printed]);
  const settle = () => {
    setFault(null);
    if (typed === printed) return;
    if (typed.trim() === '' && onEmpty) return onEmpty();
    const number = Number(
      typed
        .trim()
        .replace(',', '.')
        .replace(/\s*(px|°)$/, ''),
    );
    const refused = typed.trim() === '' || !Number.isFinite(number) ? words.ui.aNumberIsNeeded : outOfRange(number, { least, most });
    if (refused) setFault(refused);
    else onNumber(number);
  };
  return (
    <TextField
      fullWidth
      label={unit ? `${label}, ${unit}` : label}
      value={typed}
      placeholder={placeholder}
      error={fault !== null}
      helperText={fault}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={settle}
      onKeyDown={(event) => {
        if (event.key === 'Enter') settle();
        if (event.key === 'Escape') {
          setTyped(printed);
          setFault(null);
        }
        event.stopPropagation();
      }}
      slotProps={{
        inputLabel: { shrink: placeholder ? true : undefined },
        htmlInput: { inputMode: 'decimal', autoComplete: 'off' },
        formHelperText: { role: fault ? 'alert' : undefined },
      }}
    />
  );
}
