'use client';
/**
 * What it is made from, and what is remembered of that stock.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { type Job, ways } from '@nuvet/core/job';
import { words } from '@/words';
import { Section } from '../Docket';
import { useJob } from '../job-store';
import { Measure, Pick, Row } from '../trace/hand/Rows';
import { waysOfMaking } from '../ways';
import { PresetName } from './PresetName';
import { usePresets } from './use-presets';

export function StockSection() {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const { presets, keep, named, message } = usePresets();
  const { making, setup } = job;
  const stocks = presets.filter((p) => p.kind === 'stock');
  const name = async (next: string) => {
    const stockName = next.trim().slice(0, 100) || null;
    if (stockName === making.stock) return;
    run({ do: 'set-making', making: { ...making, stock: stockName } });
    const known = stockName ? await named('stock', stockName) : undefined;
    if (known?.kind !== 'stock') return;
    // A stock that is known brings its thickness, its kerf and its settings along.
    const { thicknessMm, widthMm, heightMm, kerfMm, strengths } = known.value;
    run({ do: 'set-making', making: { ...making, stock: stockName, thicknessMm } });
    run({ do: 'set-up', change: { stockWidthMm: widthMm, stockHeightMm: heightMm, cutting: { ...setup.cutting, kerfMm, strengths } } });
  };
  return (
    <Section title={words.makeReady.stock}>
      <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
        <Pick
          label={words.makeReady.process}
          value={making.way}
          words={Object.fromEntries(ways.map((w) => [w, waysOfMaking[w]])) as Record<Job['making']['way'], string>}
          onPick={(way) => run({ do: 'set-making', making: { ...making, way } })}
        />
        <PresetName
          label={words.makeReady.stock}
          name={making.stock ?? ''}
          known={stocks.map((p) => p.name)}
          longest={100}
          onName={(next) => void name(next)}
        />
        <Row>
          <Measure
            label={words.makeReady.measuredThickness}
            mm={making.thicknessMm}
            unit={job.unit}
            onMm={(thicknessMm) => run({ do: 'set-making', making: { ...making, thicknessMm } })}
            onEmpty={() => run({ do: 'set-making', making: { ...making, thicknessMm: null } })}
          />
        </Row>
        <Row>
          <Measure
            label={words.makeReady.sheetWidth}
            mm={setup.stockWidthMm}
            unit={job.unit}
            onMm={(stockWidthMm) => run({ do: 'set-up', change: { stockWidthMm } })}
            onEmpty={() => run({ do: 'set-up', change: { stockWidthMm: null } })}
          />
          <Measure
            label={words.makeReady.sheetHeight}
            mm={setup.stockHeightMm}
            unit={job.unit}
            onMm={(stockHeightMm) => run({ do: 'set-up', change: { stockHeightMm } })}
            onEmpty={() => run({ do: 'set-up', change: { stockHeightMm: null } })}
          />
        </Row>
        <Button
          size="small"
          disabled={!making.stock}
          onClick={() =>
            making.stock &&
            void keep({
              kind: 'stock',
              name: making.stock,
              value: {
                thicknessMm: making.thicknessMm,
                widthMm: setup.stockWidthMm,
                heightMm: setup.stockHeightMm,
                kerfMm: setup.cutting.kerfMm,
                strengths: setup.cutting.strengths,
              },
            })
          }
        >
          {words.makeReady.rememberKerfAndSettingsWithThis}
        </Button>
        {message && (
          <Typography variant="caption" role="status" color="textSecondary">
            {message}
          </Typography>
        )}
      </Box>
    </Section>
  );
}
