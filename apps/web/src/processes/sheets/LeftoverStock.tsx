'use client';
/** What the shelf has of boards of a thickness, to lay parts out on, and what is left of them to be kept there. */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { SheetStock, Stock } from '@nuvet/core/job';
import { printBoth } from '@nuvet/core/length';
import type { LaidSheet } from '@nuvet/core/processes';
import { isAsThick, materialAfter, sheetsOf } from '@nuvet/core/shelf';
import { useState } from 'react';
import { changeItem, undoEdit, useShelfEdits } from '@/shelf/shelf-edits';
import { ofKind, useShelf } from '@/shelf/shelf-store';
import { Pick } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';

const say = words.sheets;

interface Props {
  readonly sheets: readonly SheetStock[];
  readonly most: number;
  readonly onSheets: (sheets: SheetStock[]) => void;
  readonly stock: Stock;
  readonly unit: 'mm' | 'in';
  readonly title: string;
  readonly thicknessMm: number;
  readonly laid: readonly LaidSheet[];
}

export function LeftoverStock({ sheets, most, onSheets, stock, unit, title, thicknessMm, laid }: Props) {
  const { items } = useShelf();
  const [id, setId] = useState<string | null>(null);
  /** The layout whose leftovers were kept: once is enough. */
  const [kept, setKept] = useState<{ laid: readonly LaidSheet[]; name: string } | null>(null);
  const { fault, isBusy } = useShelfEdits();
  const fitting = ofKind(items, 'material').filter(({ value }) => isAsThick(value, thicknessMm));
  const material = fitting.find((one) => one.id === (id ?? stock.shelf?.id)) ?? fitting[0];
  const left = laid.reduce((sum, { layers, leftovers }) => sum + layers * leftovers.length, 0);
  const isKept = kept?.laid === laid;
  if (items === null) return null;
  return (
    <Section title={say.onTheShelf(printBoth(thicknessMm, unit))}>
      {material ? (
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Pick
            label={words.shelf.material}
            value={material.id}
            words={Object.fromEntries(fitting.map((one) => [one.id, one.value.name]))}
            onPick={setId}
          />
          <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
            <Button
              size="small"
              variant="outlined"
              onClick={() => {
                const others = sheets.filter(({ boardMm }) => boardMm !== undefined && boardMm !== thicknessMm);
                onSheets([...others, ...sheetsOf(material.value, thicknessMm)].slice(0, most));
              }}
              disabled={sheetsOf(material.value, thicknessMm).length === 0}
            >
              {say.takeSheets}
            </Button>
            <Button
              size="small"
              variant="outlined"
              disabled={left === 0 || isKept || isBusy}
              onClick={() => {
                const after = materialAfter(material.value, laid, sheets, (number) => say.leftoverOf(title, number).slice(0, 100));
                void changeItem(material, after).then((isDone) => isDone && setKept({ laid, name: material.value.name }));
              }}
            >
              {say.keepLeftovers(left)}
            </Button>
          </Box>
          {fault && (
            <Alert severity="error" variant="outlined">
              {fault}
            </Alert>
          )}
          {isKept && (
            <Alert
              severity="success"
              variant="outlined"
              action={
                <Button size="small" color="inherit" onClick={() => void undoEdit().then((isDone) => isDone && setKept(null))}>
                  {say.undoKeeping}
                </Button>
              }
            >
              {say.leftoversKept(kept.name)}
            </Alert>
          )}
        </Box>
      ) : (
        <Typography variant="caption" color="textSecondary">
          {say.noMaterial}
        </Typography>
      )}
    </Section>
  );
}
