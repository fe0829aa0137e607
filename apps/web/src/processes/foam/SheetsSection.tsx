'use client';
/** The sheets that formers are laid out on. */
import Typography from '@mui/material/Typography';
import { type FoamPlan, type FoamSettings, mostSheetKinds } from '@nuvet/core/foam';
import { FieldRows } from '@/ui/FieldRows';
import { NumberField } from '@/ui/NumberField';
import { Measure } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import type { OpenProcess } from '../process-view';

const say = words.foam;

export function SheetsSection({ open: { settings, set, stock }, unit }: { open: OpenProcess<FoamSettings, FoamPlan>; unit: 'mm' | 'in' }) {
  const { sheets } = settings;
  return (
    <Section title={say.sheets}>
      <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1 }}>
        {say.sheetsAbout}
      </Typography>
      <FieldRows
        list={sheets}
        most={mostSheetKinds}
        fields={3}
        onList={(to) => set({ sheets: to })}
        onAdd={() => set({ sheets: [...sheets, { widthMm: stock.widthMm ?? 1250, heightMm: stock.heightMm ?? 600, count: 1 }] })}
        addWord={say.addSheet}
        removeWord={say.removeSheet}
      >
        {(sheet, onChange, k) => (
          <>
            <Measure
              label={say.sheetWide(k + 1)}
              mm={sheet.widthMm}
              unit={unit}
              least={10}
              most={20_000}
              onMm={(mm) => onChange({ ...sheet, widthMm: mm })}
            />
            <Measure
              label={say.sheetHigh}
              mm={sheet.heightMm}
              unit={unit}
              least={10}
              most={20_000}
              onMm={(mm) => onChange({ ...sheet, heightMm: mm })}
            />
            <NumberField
              label={say.sheetCount}
              value={sheet.count}
              digits={0}
              unit={say.pieces}
              least={1}
              most={400}
              onNumber={(n) => onChange({ ...sheet, count: Math.round(n) })}
            />
          </>
        )}
      </FieldRows>
    </Section>
  );
}
