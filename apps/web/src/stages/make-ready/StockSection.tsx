'use client';
/**
 * What it is made from: a material of the shelf, or one that is named here and put there.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { materialCommand, materialFrom } from '@nuvet/core/shelf';
import { useState } from 'react';
import { ShelfName } from '@/shelf/ShelfName';
import { ofKind, putOnShelf, readShelf, useShelf } from '@/shelf/shelf-store';
import { Measure, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { useJob } from '../../job/job-store';
import { NewerOnShelf } from './NewerOnShelf';

const nameLength = 100;

export function StockSection({ onShelf }: { onShelf: () => void }) {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const { items, fault } = useShelf();
  const [message, setMessage] = useState<string | null>(null);
  const materials = ofKind(items, 'material');
  const { stock } = job.making;
  const take = async (typed: string) => {
    const name = typed.trim().slice(0, nameLength) || null;
    if (name === stock.name) return;
    // One that is named before the shelf has come is waited for.
    const known = name ? ofKind(await readShelf(), 'material').find(({ value }) => value.name === name) : undefined;
    if (known) run(materialCommand(known, job));
    else run({ do: 'set-stock', change: { name, shelf: null } });
  };
  const put = async (name: string) => {
    try {
      const shelf = await putOnShelf('material', name, (before) => materialFrom(job, name, before));
      run({ do: 'set-stock', change: { shelf } });
      setMessage(words.makeReady.onTheShelf(name));
    } catch (error) {
      setMessage((error as Error).message);
    }
  };
  return (
    <Section title={words.makeReady.stock}>
      <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
        <NewerOnShelf of="stock" />
        <ShelfName
          label={words.makeReady.stock}
          name={stock.name ?? ''}
          known={materials.map(({ value }) => value.name)}
          longest={nameLength}
          onName={(next) => void take(next)}
        />
        <Measure
          label={words.makeReady.measuredThickness}
          mm={stock.thicknessMm}
          unit={job.unit}
          onMm={(thicknessMm) => run({ do: 'set-stock', change: { thicknessMm } })}
          onEmpty={() => run({ do: 'set-stock', change: { thicknessMm: null } })}
        />
        <Row>
          <Measure
            label={words.makeReady.sheetWidth}
            mm={stock.widthMm}
            unit={job.unit}
            onMm={(widthMm) => run({ do: 'set-stock', change: { widthMm } })}
            onEmpty={() => run({ do: 'set-stock', change: { widthMm: null } })}
          />
          <Measure
            label={words.makeReady.sheetHeight}
            mm={stock.heightMm}
            unit={job.unit}
            onMm={(heightMm) => run({ do: 'set-stock', change: { heightMm } })}
            onEmpty={() => run({ do: 'set-stock', change: { heightMm: null } })}
          />
        </Row>
        <Button size="small" disabled={!stock.name} onClick={() => stock.name && void put(stock.name)}>
          {words.makeReady.putStockOnTheShelf}
        </Button>
        <Button size="small" color="inherit" onClick={onShelf}>
          {words.makeReady.openTheShelf}
        </Button>
        {(message ?? fault) && (
          <Typography variant="caption" role="status" color="textSecondary">
            {message ?? fault}
          </Typography>
        )}
      </Box>
    </Section>
  );
}
