'use client';
/**
 * A name that may be one of those on the shelf, or a new one.
 */
import Autocomplete from '@mui/material/Autocomplete';
import Box from '@mui/material/Box';
import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';

interface Props {
  readonly label: string;
  readonly name: string;
  readonly known: readonly string[];
  readonly longest: number;
  readonly onName: (name: string) => void;
}

export function ShelfName({ label, name, known, longest, onName }: Props) {
  const [typed, setTyped] = useState(name);
  useEffect(() => setTyped(name), [name]);
  return (
    // Keys typed here are no commands; the list of names needs them first.
    <Box onKeyDown={(event) => event.stopPropagation()}>
      <Autocomplete
        freeSolo
        options={[...known]}
        inputValue={typed}
        onInputChange={(_, value) => setTyped(value.slice(0, longest))}
        onChange={(_, value) => onName(value ?? '')}
        onBlur={() => onName(typed)}
        renderInput={(params) => <TextField {...params} label={label} />}
      />
    </Box>
  );
}
