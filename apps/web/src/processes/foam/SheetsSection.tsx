'use client';
/** The sheets that formers are laid out on, and the wire that cuts them. */
import AddOutlined from '@mui/icons-material/AddOutlined';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import Typography from '@mui/material/Typography';
import { type FoamPlan, type FoamSettings, mostSheetKinds } from '@nuvet/core/foam';
import { NumberField } from '@/ui/NumberField';
import { Measure, Row } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import type { OpenProcess } from '../process-view';

const say = words.foam;
const within = (low: number, high: number, value: number): number => Math.max(low, Math.min(high, value));

export function SheetsSection({ open: { settings, set, stock }, unit }: { open: OpenProcess<FoamSettings, FoamPlan>; unit: 'mm' | 'in' }) {
  const { sheets } = settings;
  const change = (k: number, by: Partial<(typeof sheets)[0]>) =>
    set({ sheets: sheets.map((sheet, n) => (n === k ? { ...sheet, ...by } : sheet)) });
  return (
    <>
      <Section title={say.sheets}>
        <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1 }}>
          {say.sheetsAbout}
        </Typography>
        <Box sx={{ display: 'grid', gap: 1 }}>
          {sheets.map((sheet, k) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: sheets are told apart by their place in the list
            <Box key={k} sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr auto', gap: 1, alignItems: 'start' }}>
              <Measure
                label={say.sheetWide(k + 1)}
                mm={sheet.widthMm}
                unit={unit}
                onMm={(mm) => change(k, { widthMm: within(10, 20_000, mm) })}
              />
              <Measure
                label={say.sheetHigh}
                mm={sheet.heightMm}
                unit={unit}
                onMm={(mm) => change(k, { heightMm: within(10, 20_000, mm) })}
              />
              <NumberField
                label={say.sheetCount}
                value={sheet.count}
                digits={0}
                unit={say.pieces}
                onNumber={(n) => change(k, { count: within(1, 400, Math.round(n)) })}
              />
              <IconButton
                aria-label={say.removeSheet(k + 1)}
                size="small"
                onClick={() => set({ sheets: sheets.filter((_, n) => n !== k) })}
              >
                <DeleteOutlined fontSize="small" />
              </IconButton>
            </Box>
          ))}
        </Box>
        {sheets.length < mostSheetKinds && (
          <Button
            size="small"
            startIcon={<AddOutlined />}
            onClick={() => set({ sheets: [...sheets, { widthMm: stock.widthMm ?? 1250, heightMm: stock.heightMm ?? 600, count: 1 }] })}
            sx={{ mt: 0.75 }}
          >
            {say.addSheet}
          </Button>
        )}
      </Section>
      <Section title={say.wire}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          <Row>
            <NumberField
              label={say.wireFeed}
              value={settings.wireFeedMmPerMin}
              digits={0}
              unit={say.mmPerMin}
              onNumber={(n) => set({ wireFeedMmPerMin: within(1, 10_000, n) })}
            />
            <Measure
              label={say.wireBurn}
              mm={settings.wireBurnMm}
              unit={unit}
              range="from zero"
              onMm={(mm) => set({ wireBurnMm: within(0, 20, mm) })}
            />
          </Row>
          <Measure label={say.towers} mm={settings.towersMm} unit={unit} onMm={(mm) => set({ towersMm: within(10, 20_000, mm) })} />
        </Box>
      </Section>
    </>
  );
}
