'use client';
/** A list that is typed: its things one below another, each with its fields and a button that removes it, and one that adds to them. */
import AddOutlined from '@mui/icons-material/AddOutlined';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import type { ReactNode } from 'react';

interface Props<T> {
  readonly list: readonly T[];
  readonly most: number;
  /** How many fields lie beside each other, left of the button that removes; further ones lie below. */
  readonly fields: number;
  readonly onList: (list: T[]) => void;
  /** None where there is nothing more to add. */
  readonly onAdd: (() => void) | null;
  readonly addWord: string;
  readonly removeWord: (number: number) => string;
  /** The fields of one. @param k its place in the list, from 0 */
  readonly children: (one: T, onChange: (to: T) => void, k: number) => ReactNode;
}

export function FieldRows<T>({ list, most, fields, onList, onAdd, addWord, removeWord, children }: Props<T>) {
  return (
    <>
      <Box sx={{ display: 'grid', gap: 1.5 }}>
        {list.map((one, k) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: they are told apart by their place in the list
          <Box key={k} sx={{ display: 'grid', gridTemplateColumns: `repeat(${fields}, minmax(0, 1fr)) auto`, gap: 1, alignItems: 'start' }}>
            {children(one, (to) => onList(list.map((other, n) => (n === k ? to : other))), k)}
            <IconButton
              aria-label={removeWord(k + 1)}
              size="small"
              onClick={() => onList(list.filter((_, n) => n !== k))}
              sx={{ gridColumn: fields + 1, gridRow: 1 }}
            >
              <DeleteOutlined fontSize="small" />
            </IconButton>
          </Box>
        ))}
      </Box>
      {onAdd && list.length < most && (
        <Button size="small" startIcon={<AddOutlined />} onClick={onAdd} sx={{ mt: 0.75 }}>
          {addWord}
        </Button>
      )}
    </>
  );
}
