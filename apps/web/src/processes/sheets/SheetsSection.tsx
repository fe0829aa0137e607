'use client';
/** The sheets that parts are laid out on. */
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { SheetStock, Stock } from '@nuvet/core/job';
import { printBoth, printToType } from '@nuvet/core/length';
import { FieldRows } from '@/ui/FieldRows';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';

const say = words.sheets;
const any = 'any';

interface Props {
  readonly sheets: readonly SheetStock[];
  readonly most: number;
  readonly onSheets: (sheets: SheetStock[]) => void;
  readonly about: string;
  readonly stock: Stock;
  readonly unit: 'mm' | 'in';
  /** Of boards of several thicknesses each sheet may be for one. */
  readonly thicknesses: readonly number[];
}

export function SheetsSection({ sheets, most, onSheets, about, stock, unit, thicknesses }: Props) {
  return (
    <Section title={say.sheets}>
      <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1 }}>
        {about}
      </Typography>
      <FieldRows
        list={sheets}
        most={most}
        fields={3}
        onList={onSheets}
        onAdd={() => onSheets([...sheets, { widthMm: stock.widthMm ?? 1250, heightMm: stock.heightMm ?? 600, count: 1 }])}
        addWord={say.addSheet}
        removeWord={say.removeSheet}
      >
        {(sheet, onChange, k) =>
          sheet.leftover ? (
            <Typography variant="body2" sx={{ gridColumn: '1 / span 3', alignSelf: 'center' }}>
              {say.leftoverAt(sheet.leftover.name, `${printToType(sheet.widthMm, unit)} x ${printToType(sheet.heightMm, unit)}`)}
            </Typography>
          ) : (
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
                least={1}
                most={400}
                onNumber={(n) => onChange({ ...sheet, count: Math.round(n) })}
              />
              {thicknesses.length > 1 && (
                <Box sx={{ gridColumn: '1 / span 3' }}>
                  <Pick
                    label={say.sheetBoard}
                    value={sheet.boardMm === undefined ? any : String(sheet.boardMm)}
                    words={{ [any]: say.anyBoard, ...Object.fromEntries(thicknesses.map((mm) => [String(mm), printBoth(mm, unit)])) }}
                    onPick={(which) => onChange({ ...sheet, boardMm: which === any ? undefined : Number(which) })}
                  />
                </Box>
              )}
            </>
          )
        }
      </FieldRows>
    </Section>
  );
}
