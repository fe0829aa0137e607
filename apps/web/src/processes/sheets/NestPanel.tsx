'use client';
/** How often parts are cut, the sheets at hand, how parts may lie on them, and the layout that comes of it. */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { isLaid, longestNesting, mostCopies, mostKeptOff, plainLayout, type SheetLayout, sheetParts } from '@nuvet/core/job';
import { printBoth } from '@nuvet/core/length';
import type { PieceLayout } from '@nuvet/core/nesting';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useJob } from '@/job/job-store';
import { setMaking } from '@/table/making-store';
import { FieldRows } from '@/ui/FieldRows';
import { NumberField } from '@/ui/NumberField';
import { Measure, Pick, Row } from '@/ui/Rows';
import { Reading, Section } from '@/ui/Section';
import { words } from '@/words';
import { toldError } from '@/words/told';
import { type Nesting, nesting } from '@/workers/nester.client';
import type { PanelProps } from '../process-view';
import { usePiecesToMake } from '../use-pieces-to-make';
import { LeftoverStock } from './LeftoverStock';
import { laidOut } from './laid-out';
import { SheetsSection } from './SheetsSection';
import { setSheets } from './sheets-store';

const say = words.sheets;
const mostKinds = 20;
/** So many parts have a field of their own. */
const mostFields = 24;

export function NestPanel({ open }: PanelProps) {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const pieces = usePiecesToMake();
  const { stock, layout: kept } = job.making;
  const layout = useMemo((): SheetLayout => kept ?? { ...plainLayout, sheets: [{ ...sheetOf(stock), count: 10 }] }, [kept, stock]);
  const { shown, share, fault, start, stop } = useNesting();
  const set = (change: Partial<SheetLayout>): void => {
    stop();
    run({ do: 'lay-out', layout: { ...layout, laid: null, ...change } });
  };
  const isCurrent = useMemo(() => isLaid(pieces, layout), [pieces, layout]);
  const thicknessMm = stock.thicknessMm ?? 0;
  // While it is laid out the best so far is drawn, then what is kept.
  const drawn = useMemo(() => {
    const laid = shown ? { ...layout, laid: shown.laid } : layout;
    return laid.laid && isLaid(pieces, laid) ? laidOut(pieces, laid, thicknessMm) : null;
  }, [shown, layout, pieces, thicknessMm]);
  useEffect(() => setSheets({ laid: drawn, share: null }), [drawn]);
  const kerfMm = open.kind.limits(open.settings).kerfMm;
  const onCommon = (isOnce: boolean): void => {
    open.set({ commonLines: isOnce });
    set({ commonLines: isOnce, gapMm: isOnce ? kerfMm : Math.max(layout.gapMm, plainLayout.gapMm) });
  };
  // What was asked otherwise meanwhile is not laid out by what was asked before; what lies nowhere is no layout.
  const latest = useRef(layout);
  latest.current = layout;
  const layOut = async (): Promise<void> => {
    const found = await start(pieces, layout);
    if (found && found.laid.copies.length > 0 && latest.current === layout) {
      run({ do: 'lay-out', layout: { ...layout, laid: found.laid } });
      setMaking({ sheet: 0 });
    }
  };
  return (
    <>
      <Section title={say.layout}>
        <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
          {share === null ? (
            <>
              <Button variant="outlined" onClick={() => void layOut()} disabled={pieces.length === 0}>
                {isCurrent ? say.layOutAgain : say.layOut}
              </Button>
              {kept?.laid && !isCurrent && (
                <Alert severity="warning" variant="outlined">
                  {say.stale}
                </Alert>
              )}
              {!kept?.laid && <Typography variant="caption">{say.notYet}</Typography>}
            </>
          ) : (
            <>
              <LinearProgress variant="determinate" value={100 * share} aria-label={say.isNesting} />
              {shown && (
                <Typography variant="body2" role="status">
                  {say.bestSoFar(shown.laid.sheets.length, percent(shown.utilisation))}
                </Typography>
              )}
              <Button variant="outlined" onClick={stop}>
                {say.stop}
              </Button>
            </>
          )}
          {fault && (
            <Alert severity="error" variant="outlined">
              {fault}
            </Alert>
          )}
          {shown && share === null && <Found found={shown} unit={job.unit} />}
          {kept && share === null && (
            <Button size="small" color="inherit" onClick={() => run({ do: 'lay-out', layout: null })}>
              {say.asDrawn}
            </Button>
          )}
        </Box>
      </Section>
      <Copies layout={layout} pieces={pieces} onLayout={set} />
      <SheetsSection
        sheets={layout.sheets}
        most={mostKinds}
        onSheets={(sheets) => set({ sheets: sheets.length > 0 ? sheets : [{ ...sheetOf(stock), count: 1 }] })}
        about={say.atHand}
        stock={stock}
        unit={job.unit}
        thicknesses={[]}
      />
      <HowTheyLie
        layout={layout}
        unit={job.unit}
        kerfMm={kerfMm}
        onLayout={set}
        onCommon={'commonLines' in open.settings ? onCommon : null}
      />
      {isCurrent && stock.thicknessMm !== null && (
        <LeftoverStock
          sheets={layout.sheets}
          most={mostKinds}
          onSheets={(sheets) => set({ sheets })}
          stock={stock}
          unit={job.unit}
          title={job.name}
          thicknessMm={stock.thicknessMm}
          laid={drawn?.sheets ?? []}
        />
      )}
    </>
  );
}

const percent = (share: number): string => `${(100 * share).toFixed(0)} %`;
const sheetOf = ({ widthMm, heightMm }: { widthMm: number | null; heightMm: number | null }) => ({ widthMm: widthMm ?? 600, heightMm: heightMm ?? 400 }); // biome-ignore format: one line

/** A layout that is under way, and what it came to. */
function useNesting() {
  const [shown, setShown] = useState<PieceLayout | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const working = useRef<Nesting | null>(null);
  // Nothing goes on working for a panel that is gone.
  useEffect(() => () => working.current?.stop(), []);
  const start = async (pieces: Parameters<typeof nesting>[0], layout: SheetLayout): Promise<PieceLayout | null> => {
    setFault(null);
    setShown(null);
    setShare(0);
    try {
      working.current = nesting(pieces, layout, (done, best) => {
        setShare(done);
        setShown(best);
      });
      const found = await working.current.done;
      setShown(found);
      return found;
    } catch (error) {
      setFault(toldError(error));
      return null;
    } finally {
      working.current = null;
      setShare(null);
    }
  };
  return { shown, share, fault, start, stop: () => working.current?.stop() };
}

function Found({ found, unit }: { found: PieceLayout; unit: 'mm' | 'in' }) {
  return (
    <>
      <Reading name={say.sheets}>{String(found.laid.sheets.length)}</Reading>
      <Reading name={say.used}>{percent(found.utilisation)}</Reading>
      <Reading name={say.usedUp}>{printBoth(found.usedMm, unit)}</Reading>
      {found.tooLarge.length > 0 && (
        <Alert severity="warning" variant="outlined">
          {say.tooLarge(found.tooLarge.join(', '))}
        </Alert>
      )}
      {found.left.length > 0 && (
        <Alert severity="warning" variant="outlined">
          {say.left(found.left.map(({ name, count }) => say.leftOf(name, count)).join(', '))}
        </Alert>
      )}
    </>
  );
}

function Copies({
  layout,
  pieces,
  onLayout,
}: {
  layout: SheetLayout;
  pieces: Parameters<typeof sheetParts>[0];
  onLayout: (change: Partial<SheetLayout>) => void;
}) {
  const parts = useMemo(() => sheetParts(pieces).map(({ piece }) => piece), [pieces]);
  const countOf = (id: string): number => layout.copies[id] ?? 1;
  const counts = new Set(parts.map(({ id }) => countOf(id)));
  return (
    <Section title={say.copies}>
      <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
        {parts.length > 1 && (
          <NumberField
            label={say.copiesOfAll}
            value={counts.size === 1 ? ([...counts][0] as number) : 1}
            digits={0}
            least={0}
            most={mostCopies}
            onNumber={(n) => onLayout({ copies: Object.fromEntries(parts.map(({ id }) => [id, Math.round(n)])) })}
          />
        )}
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(2, minmax(0, 1fr))', gap: 1 }}>
          {parts.slice(0, mostFields).map(({ id, name }) => (
            <NumberField
              key={id}
              label={say.copiesOf(name)}
              value={countOf(id)}
              digits={0}
              least={0}
              most={mostCopies}
              onNumber={(n) => onLayout({ copies: { ...layout.copies, [id]: Math.round(n) } })}
            />
          ))}
        </Box>
        {parts.length > mostFields && <Typography variant="caption">{say.more(parts.length - mostFields)}</Typography>}
      </Box>
    </Section>
  );
}

type TurnKind = keyof typeof say.turnKinds;
const turnAngles: Readonly<Record<Exclude<TurnKind, 'angle'>, number>> = { none: 360, half: 180, quarter: 90, eighth: 45, any: 0 };
const turnKindOf = (turnsBy: number): TurnKind => (Object.keys(turnAngles) as (keyof typeof turnAngles)[]).find((kind) => turnAngles[kind] === turnsBy) ?? 'angle'; // biome-ignore format: one line

function HowTheyLie({
  layout,
  unit,
  kerfMm,
  onLayout,
  onCommon,
}: {
  layout: SheetLayout;
  unit: 'mm' | 'in';
  kerfMm: number;
  onLayout: (change: Partial<SheetLayout>) => void;
  /** Null where the process follows no shared lines. */
  onCommon: ((isOnce: boolean) => void) | null;
}) {
  const turnKind = turnKindOf(layout.turnsBy);
  return (
    <Section title={say.lie}>
      <Box sx={{ display: 'grid', gap: 1.25, mt: 1 }}>
        <Row>
          <Measure
            label={say.margin}
            mm={layout.marginMm}
            unit={unit}
            range="from zero"
            most={500}
            onMm={(marginMm) => onLayout({ marginMm })}
          />
          <Measure label={say.gap} mm={layout.gapMm} unit={unit} range="from zero" most={500} onMm={(gapMm) => onLayout({ gapMm })} />
        </Row>
        {layout.gapMm < kerfMm && (
          <Alert severity="warning" variant="outlined">
            {say.gapAbout(printBoth(kerfMm, unit))}
          </Alert>
        )}
        <Row>
          <Pick
            label={say.turns}
            value={turnKind}
            words={say.turnKinds}
            onPick={(kind) => onLayout({ turnsBy: kind === 'angle' ? 30 : turnAngles[kind as keyof typeof turnAngles] })}
          />
          {turnKind === 'angle' && (
            <NumberField
              label={say.angle}
              value={layout.turnsBy}
              digits={1}
              unit="°"
              least={5}
              most={359}
              onNumber={(turnsBy) => onLayout({ turnsBy })}
            />
          )}
        </Row>
        <Row>
          <Pick
            label={say.mirror}
            value={layout.canMirror ? 'yes' : 'no'}
            words={say.mirrorKinds}
            onPick={(which) => onLayout({ canMirror: which === 'yes' })}
          />
          <Pick
            label={say.inHoles}
            value={layout.inHoles ? 'yes' : 'no'}
            words={say.inHolesKinds}
            onPick={(which) => onLayout({ inHoles: which === 'yes' })}
          />
        </Row>
        {onCommon && (
          <Pick
            label={say.common}
            value={layout.commonLines ? 'once' : 'twice'}
            words={say.commonKinds}
            onPick={(which) => onCommon(which === 'once')}
          />
        )}
        {layout.commonLines && (
          <Typography variant="caption" color="textSecondary">
            {say.commonAbout}
          </Typography>
        )}
        <NumberField
          label={say.seconds}
          value={layout.seconds}
          digits={0}
          unit="s"
          least={1}
          most={longestNesting}
          onNumber={(seconds) => onLayout({ seconds })}
        />
        <Typography variant="body2">{say.keepOff}</Typography>
        <Typography variant="caption" color="textSecondary">
          {say.keepOffAbout}
        </Typography>
        <FieldRows
          list={layout.keepOff}
          most={mostKeptOff}
          fields={2}
          onList={(keepOff) => onLayout({ keepOff })}
          onAdd={() => onLayout({ keepOff: [...layout.keepOff, { x: 0, y: 0, widthMm: 40, heightMm: 40 }] })}
          addWord={say.addKeepOff}
          removeWord={say.removeKeepOff}
        >
          {(area, onChange, k) => (
            <>
              <Measure label={say.fromLeft(k + 1)} mm={area.x} unit={unit} range="from zero" onMm={(x) => onChange({ ...area, x })} />
              <Measure label={say.fromBelow} mm={area.y} unit={unit} range="from zero" onMm={(y) => onChange({ ...area, y })} />
              <Measure
                label={say.sheetWide(k + 1)}
                mm={area.widthMm}
                unit={unit}
                least={0.1}
                onMm={(widthMm) => onChange({ ...area, widthMm })}
              />
              <Measure
                label={say.sheetHigh}
                mm={area.heightMm}
                unit={unit}
                least={0.1}
                onMm={(heightMm) => onChange({ ...area, heightMm })}
              />
            </>
          )}
        </FieldRows>
      </Box>
    </Section>
  );
}
