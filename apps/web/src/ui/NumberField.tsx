'use client';
/**
 * A small field for a plain number; a word that is none is refused at its place and the number before stays.
 */
import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import { words } from '@/words';

interface Props {
  readonly label: string;
  readonly value: number | null;
  readonly digits: number;
  /** Said behind the label; none for what is only counted. */
  readonly unit?: string;
  readonly onNumber: (value: number) => void;
  /** Called where the field is emptied, if that means something; the placeholder says what. */
  readonly onEmpty?: () => void;
  readonly placeholder?: string;
}

export function NumberField({ label, value, digits, unit, onNumber, onEmpty, placeholder }: Props) {
  const printed = value === null ? '' : String(Number(value.toFixed(digits)));
  const [typed, setTyped] = useState(printed);
  const [isWrong, setWrong] = useState(false);
  useEffect(() => setTyped(printed), [printed]);
  const settle = () => {
    if (typed === printed) return setWrong(false);
    if (typed.trim() === '' && onEmpty) return onEmpty();
    const number = Number(
      typed
        .trim()
        .replace(',', '.')
        .replace(/\s*(px|°)$/, ''),
    );
    const isNumber = typed.trim() !== '' && Number.isFinite(number);
    setWrong(!isNumber);
    if (isNumber) onNumber(number);
  };
  return (
    <TextField
      fullWidth
      label={unit ? `${label}, ${unit}` : label}
      value={typed}
      placeholder={placeholder}
      error={isWrong}
      helperText={isWrong ? words.ui.aNumberIsNeeded : undefined}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={settle}
      onKeyDown={(event) => {
        if (event.key === 'Enter') settle();
        if (event.key === 'Escape') setTyped(printed);
        event.stopPropagation();
      }}
      slotProps={{
        inputLabel: { shrink: placeholder ? true : undefined },
        htmlInput: { inputMode: 'decimal', autoComplete: 'off' },
        formHelperText: { role: isWrong ? 'alert' : undefined },
      }}
    />
  );
}
