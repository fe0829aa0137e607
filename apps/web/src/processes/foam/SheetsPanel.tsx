'use client';
/** The sheets at hand, how formers lie on them, and what is left of them for the shelf. */
import Alert from '@mui/material/Alert';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { type FoamPlan, type FoamSettings, mostSheetKinds } from '@nuvet/core/foam';
import { printBoth } from '@nuvet/core/length';
import { pathArea } from '@nuvet/core/plane';
import type { LaidSheet } from '@nuvet/core/processes';
import { proxy } from 'comlink';
import { useEffect, useMemo } from 'react';
import { useJob } from '@/job/job-store';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { maker } from '@/workers/maker.client';
import { PlanFault } from '../PlanFault';
import type { PanelProps } from '../process-view';
import { LeftoverStock } from '../sheets/LeftoverStock';
import { SheetsSection } from '../sheets/SheetsSection';
import { setSheets, useSheets } from '../sheets/sheets-store';

const say = words.foam;

/** Sheets of one thickness. */
interface SheetGroup {
  readonly thicknessMm: number;
  readonly sheets: readonly LaidSheet[];
}

export function SheetsPanel({ open, pieces }: PanelProps<FoamSettings, FoamPlan>) {
  const unit = useJob((s) => s.job.unit);
  const title = useJob((s) => s.job.name);
  const { plan, settings, stock, entry } = open;
  const { laid, share } = useSheets();
  useEffect(() => {
    setSheets({ laid: null, share: plan ? 0 : null });
    if (!plan) return;
    let isWanted = true;
    const work = { title, pieces, settings, machine: entry.machine, stock };
    const onShare = proxy((done: number) => {
      if (isWanted) setSheets({ share: done });
    });
    void maker()
      .laidOut(entry.process, work, plan, onShare)
      .then((found) => {
        if (isWanted && found) setSheets({ laid: found, share: null });
      });
    return () => {
      isWanted = false;
    };
  }, [plan, settings, stock, entry, pieces, title]);
  // The same groups as long as the layout is: what was kept of one is kept once.
  const groups = useMemo(() => (laid ? groupsOf(laid.sheets) : []), [laid]);
  return (
    <>
      <SheetsSection
        sheets={settings.sheets}
        most={mostSheetKinds}
        onSheets={(sheets) => open.set({ sheets })}
        about={say.sheetsAbout}
        stock={stock}
        unit={unit}
        thicknesses={[...new Set(settings.boards.map(({ thicknessMm }) => thicknessMm))]}
      />
      <PlanFault />
      <Section title={words.sheets.layout}>
        {share !== null && <LinearProgress variant="determinate" value={100 * share} aria-label={say.isLayingOut} sx={{ my: 1 }} />}
        {groups.map(({ thicknessMm, sheets }) => (
          <Reading key={thicknessMm} name={printBoth(thicknessMm, unit)}>
            {words.sheets.sheetsUsed(countOf(sheets), usedOf(sheets))}
          </Reading>
        ))}
        {laid && laid.unplaced.length > 0 && (
          <Alert severity="warning" variant="outlined" sx={{ mt: 1 }}>
            {say.unplaced(laid.unplaced.length)}
          </Alert>
        )}
        {!plan && (
          <Typography variant="caption" color="textSecondary">
            {say.planFirst}
          </Typography>
        )}
      </Section>
      {(plan?.boards ?? []).map(({ thicknessMm }, k, all) =>
        all.findIndex((one) => one.thicknessMm === thicknessMm) === k ? (
          <LeftoverStock
            key={thicknessMm}
            sheets={settings.sheets}
            most={mostSheetKinds}
            onSheets={(sheets) => open.set({ sheets })}
            stock={stock}
            unit={unit}
            title={title}
            thicknessMm={thicknessMm}
            laid={groups.find((group) => group.thicknessMm === thicknessMm)?.sheets ?? []}
          />
        ) : null,
      )}
    </>
  );
}

function groupsOf(sheets: readonly LaidSheet[]): SheetGroup[] {
  const thicknesses = [...new Set(sheets.map(({ thicknessMm }) => thicknessMm))];
  return thicknesses.map((thicknessMm) => ({ thicknessMm, sheets: sheets.filter((sheet) => sheet.thicknessMm === thicknessMm) }));
}

const countOf = (sheets: readonly LaidSheet[]): number => sheets.reduce((sum, { layers }) => sum + layers, 0);

/** How much of the sheets is formers. */
function usedOf(sheets: readonly LaidSheet[]): string {
  const area = sheets.reduce((sum, { outline }) => sum + Math.abs(pathArea(outline)), 0);
  const used = sheets.reduce((sum, { parts }) => sum + parts.reduce((own, { outer }) => own + Math.abs(pathArea(outer)), 0), 0);
  return `${((100 * used) / Math.max(area, 1e-9)).toFixed(0)} %`;
}
