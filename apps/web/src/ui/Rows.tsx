'use client';
/**
 * Small fields side by side, and a choice of a few words: what panels are made of.
 */
import Box from '@mui/material/Box';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { type LengthRange, parseLength, printToType } from '@nuvet/core/length';
import { type ReactNode, useEffect, useState } from 'react';
import { told } from '@/words/told';
import { outOfRange } from './out-of-range';

export function Row({ children }: { children: ReactNode }) {
  return (
    <Box sx={{ display: 'grid', gridAutoFlow: 'column', gridAutoColumns: 'minmax(0, 1fr)', gap: 1, alignItems: 'start' }}>{children}</Box>
  );
}

interface MeasureProps {
  readonly label: string;
  readonly mm: number | null;
  readonly unit: 'mm' | 'in';
  readonly onMm: (mm: number) => void;
  readonly range?: LengthRange;
  /** What is less or more than these, mm, is refused at the field. */
  readonly least?: number;
  readonly most?: number;
  /** Called where the field is emptied, if that means something. */
  readonly onEmpty?: () => void;
  readonly placeholder?: string;
  /** What a screen reader says, where the label alone does not tell which. */
  readonly spoken?: string;
}

/** A length in few letters; typed as people say it, it counts with Enter or on leaving. */
export function Measure({ label, mm, unit, onMm, range = 'positive', least, most, onEmpty, placeholder, spoken }: MeasureProps) {
  const printed = mm === null ? '' : printToType(mm, unit);
  const [typed, setTyped] = useState(printed);
  const [fault, setFault] = useState<string | null>(null);
  const [isTouched, setTouched] = useState(false);
  useEffect(() => setTyped(printed), [printed]);
  const settle = () => {
    setFault(null);
    // What is typed counts exactly, also where it looks like the rounded value before.
    if (!isTouched) return;
    setTouched(false);
    if (typed.trim() === '' && onEmpty) return onEmpty();
    const parsed = parseLength(typed, unit, range);
    if (!parsed.ok) return setFault(told(parsed.said, unit));
    const refused = outOfRange(parsed.mm, { least, most }, (mm) => `${printToType(mm, unit)} ${unit}`);
    if (refused) setFault(refused);
    else onMm(parsed.mm);
  };
  return (
    <TextField
      fullWidth
      label={`${label}, ${unit}`}
      value={typed}
      error={fault !== null}
      helperText={fault}
      placeholder={placeholder}
      onChange={(event) => {
        setTyped(event.target.value);
        setTouched(true);
      }}
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
        htmlInput: { autoComplete: 'off', spellCheck: false, ...(spoken && { 'aria-label': spoken }) },
        inputLabel: placeholder ? { shrink: true } : {},
        formHelperText: { role: fault ? 'alert' : undefined },
      }}
    />
  );
}

interface PickProps<T extends string> {
  readonly label: string;
  readonly value: T;
  readonly words: Readonly<Record<T, string>>;
  readonly onPick: (value: T) => void;
}

export function Pick<T extends string>({ label, value, words, onPick }: PickProps<T>) {
  return (
    <TextField select fullWidth label={label} value={value} onChange={(event) => onPick(event.target.value as T)}>
      {(Object.keys(words) as T[]).map((one) => (
        <MenuItem key={one} value={one}>
          {words[one]}
        </MenuItem>
      ))}
    </TextField>
  );
}
