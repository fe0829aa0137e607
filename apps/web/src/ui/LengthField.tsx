'use client';
/**
 * A field that takes a length as people say it, and shows at its place what is wrong with it.
 */
import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import { type LengthRange, parseLength, printBoth } from '@nuvet/core/length';
import type { Said } from '@nuvet/core/messages';
import { useEffect, useRef, useState } from 'react';
import { told } from '@/words/told';

interface Props {
  readonly label: string;
  /** What was typed, or a printed value. */
  readonly text: string;
  readonly unit: 'mm' | 'in';
  readonly onLength: (mm: number, text: string) => void;
  readonly range?: LengthRange;
  readonly takesFocus?: boolean;
  readonly placeholder?: string;
  /** Shown where there is no fault, in place of what the length comes to. */
  readonly hint?: string;
}

export function LengthField({ label, text, unit, onLength, range = 'positive', takesFocus = false, placeholder, hint }: Props) {
  const [typed, setTyped] = useState(text);
  const [touched, setTouched] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => setTyped(text), [text]);
  useEffect(() => {
    if (takesFocus) field.current?.focus();
  }, [takesFocus]);
  const parsed = parseLength(typed, unit, range);
  const isNew = typed !== text;
  const fault = !parsed.ok && touched && (typed !== '' || isNew) ? parsed : null;
  const settle = () => {
    setTouched(true);
    if (parsed.ok && isNew) onLength(parsed.mm, typed);
  };
  return (
    <TextField
      fullWidth
      label={label}
      value={typed}
      placeholder={placeholder}
      inputRef={field}
      error={fault !== null}
      onChange={(event) => {
        setTyped(event.target.value);
        setTouched(false);
      }}
      onBlur={settle}
      onKeyDown={(event) => {
        if (event.key === 'Enter') settle();
        if (event.key === 'Escape') setTyped(text);
        event.stopPropagation();
      }}
      helperText={
        fault ? <Fault typed={typed} {...fault} /> : parsed.ok && typed !== '' ? (hint ?? `= ${printBoth(parsed.mm, unit)}`) : hint
      }
      slotProps={{
        htmlInput: { inputMode: 'decimal', autoComplete: 'off', spellCheck: false },
        formHelperText: { role: fault ? 'alert' : undefined },
      }}
    />
  );
}

function Fault({ typed, said, at, end }: { typed: string; said: Said; at: number; end: number }) {
  return (
    <>
      {typed.slice(0, at)}
      <Box component="span" sx={{ textDecoration: 'underline wavy', fontWeight: 700 }}>
        {typed.slice(at, end)}
      </Box>
      {typed.slice(end)}
      {typed.trim() === '' ? '' : ' · '}
      {told(said)}
    </>
  );
}
