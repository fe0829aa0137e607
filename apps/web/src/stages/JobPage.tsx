'use client';
/**
 * One job: top bar, docket, light table, rule bar.
 */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import CircularProgress from '@mui/material/CircularProgress';
import Typography from '@mui/material/Typography';
import { type Picture, piecesOf, piecesToProve, withTraceOf, workBoxOf } from '@nuvet/core/job';
import { pathBox } from '@nuvet/core/plane';
import dynamic from 'next/dynamic';
import { type ReactNode, Suspense, startTransition, useDeferredValue, useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useOpenProcess } from '@/processes/open-process';
import { panelOf, useTableProcess } from '@/processes/process-on-table';
import { useLayout, useSheetInHand, useSheetOutline } from '@/processes/sheets/use-layout';
import { usePiecesToMake } from '@/processes/use-pieces-to-make';
import type { OpenedJob } from '@/server/jobs';
import { useHalfPlaced } from '@/table/draft-points';
import { resetHand, takeHandTool, takeTray, useHand } from '@/table/hand-store';
import { jobWithShaped } from '@/table/job-with-shaped';
import { letMakingGo, resetMaking, useMaking } from '@/table/making-store';
import { RuleBar } from '@/table/RuleBar';
import { resetTable, setTable, takeTool, useTable } from '@/table/table-store';
import { wholeSheet } from '@/table/view';
import { colours } from '@/ui/colours';
import { Boundary } from '@/ui/Stumbled';
import { useKeptList } from '@/ui/stable-array';
import { narrow, wide } from '@/ui/widths';
import { words } from '@/words';
import { createJobStore, JobStoreContext, useJob } from '../job/job-store';
import { browserKeeper } from '../job/unsaved';
import { BringIn } from './bring-in/BringIn';
import { Incoming, type IncomingState } from './bring-in/Incoming';
import { Finisher, stopFinishing, useFinishing } from './finishing';
import { InBin } from './InBin';
import { MakeReady } from './make-ready/MakeReady';
import { Prove } from './prove/Prove';
import { useProving } from './prove/use-proof';
import { type StageName, stages } from './stage';
import { TopBar } from './TopBar';
import { ByHand } from './trace/hand/ByHand';
import { Trace } from './trace/Trace';
import { TrueUp } from './true-up/TrueUp';

// Loaded apart: the page stands before it is drawn.
const LightTable = dynamic(() => import('@/table/LightTable'), { ssr: false });

interface Props {
  readonly opened: OpenedJob;
  /** The stage that the address asks for. */
  readonly asked: StageName | null;
  readonly scannerService: string | null;
  readonly hasCutter: boolean;
}

export function JobPage({ opened, asked, scannerService, hasCutter }: Props) {
  const [store] = useState(() => createJobStore(opened, browserKeeper()));
  useEffect(() => {
    void store.getState().takeOver();
    const back = () => store.getState().retry();
    window.addEventListener('online', back);
    return () => window.removeEventListener('online', back);
  }, [store]);
  return (
    <JobStoreContext value={store}>
      <Bench asked={asked} scannerService={scannerService} hasCutter={hasCutter} jobId={opened.id} isInBin={opened.inBin} />
    </JobStoreContext>
  );
}

function useStage(picture: Picture | null, asked: StageName | null): [StageName, (stage: StageName) => void] {
  const [stage, setStage] = useState<StageName>(asked ?? (picture ? 'true-up' : 'bring-in'));
  // Before the stage that opens sets out its own, such as the tool that it puts in hand.
  useLayoutEffect(() => {
    resetTable();
    resetHand();
    resetMaking();
  }, []);
  const go = (next: StageName) => {
    // A stage that is opened for the first time is put together in steps, so that the page can still be used.
    startTransition(() => setStage(next));
    takeTool(null);
    takeHandTool(null);
    letMakingGo();
    setTable({ hoveredPiece: null, selectedPiece: null, selected: null, asPhotographed: false });
    // Kept in the address, so that a reload comes back to it.
    window.history.replaceState(null, '', `?stage=${next}`);
  };
  return [stage, go];
}

/** A key that is held this long only peeks. */
const holdMs = 350;

/** H hides or shows the picture that is worked on; held, only until it is let go. */
function useHidingKey(picture: Picture | null): void {
  const run = useJob((s) => s.run);
  const pressedAt = useRef<number | null>(null);
  useHotkeys(
    'h',
    (event) => {
      if (!picture || event.repeat || pressedAt.current !== null) return;
      pressedAt.current = performance.now();
      setTable({ peeked: picture.id });
    },
    { keydown: true, keyup: false },
  );
  useHotkeys(
    'h',
    () => {
      const since = pressedAt.current;
      pressedAt.current = null;
      setTable({ peeked: null });
      if (picture && since !== null && performance.now() - since < holdMs) {
        run({ do: 'change-picture', pictureId: picture.id, change: { hidden: !picture.hidden } });
      }
    },
    { keydown: false, keyup: true },
  );
}

function Bench({
  asked,
  scannerService,
  hasCutter,
  jobId,
  isInBin,
}: Pick<Props, 'asked' | 'scannerService' | 'hasCutter'> & { readonly jobId: string; readonly isInBin: boolean }) {
  const job = useJob((s) => s.job);
  const activeId = useTable((s) => s.activeId);
  const picture = job.pictures.find((p) => p.id === activeId) ?? job.pictures[0] ?? null;
  const { run, undo, redo } = { run: useJob((s) => s.run), undo: useJob((s) => s.undo), redo: useJob((s) => s.redo) };
  const [stage, onStage] = useStage(picture, asked);
  useHalfPlaced(jobId, stage === 'trace');
  const isAside = useTable((s) => s.isDocketAside);
  const isDrawing = stage === 'trace' && picture === null;
  const hasWork = picture !== null || job.drawings.length > 0 || job.drawn.length > 0 || isDrawing;
  useHotkeys('mod+z', undo, { preventDefault: true });
  useHotkeys('mod+shift+z, mod+y', redo, { preventDefault: true });
  useHotkeys('1,2,3,4,5', (_, { keys }) => {
    const wanted = stages[Number(keys?.join('')) - 1];
    if (wanted && (hasWork || wanted === 'bring-in')) onStage(wanted);
  });
  useHotkeys('0', () => hasWork && setTable({ view: wholeSheet(workBoxOf(job), useTable.getState().screen) }));
  useHidingKey(picture);
  useProving();
  return (
    <Incoming
      invitation={hasWork ? 'Drop to add it to this job' : 'Drop it on the table'}
      onBrought={({ pictures, drawings }) => {
        for (const brought of pictures) run({ do: 'bring-in', picture: brought });
        for (const drawing of drawings) run({ do: 'bring-in-drawing', drawing });
        const last = pictures.at(-1);
        setTable({ view: null, ...(last ? { activeId: last.id } : {}) });
        onStage('bring-in');
      }}
    >
      {(incoming) => (
        <Box
          sx={{
            display: 'grid',
            height: '100vh',
            gridTemplateColumns: '340px minmax(0, 1fr)',
            [narrow]: { gridTemplateColumns: isAside ? '0 minmax(0, 1fr)' : '340px minmax(0, 1fr)' },
            [wide]: { gridTemplateColumns: '640px minmax(0, 1fr)' },
            gridTemplateRows: 'auto auto minmax(0, 1fr) auto',
          }}
        >
          <SkipLinks />
          <TopBar stage={stage} onStage={onStage} />
          <Finisher picture={picture} stage={stage} onStage={onStage} />
          <Messages bin={isInBin ? <InBin jobId={jobId} /> : null} />
          <Boundary key={`${stage} docket`}>
            <StageDocket
              stage={stage}
              picture={picture}
              incoming={incoming}
              scannerService={scannerService}
              hasCutter={hasCutter}
              jobId={jobId}
              onStage={onStage}
            />
          </Boundary>
          <Boundary>
            <Work picture={picture} stage={stage} hasWork={hasWork} incoming={incoming} onStage={onStage} />
          </Boundary>
        </Box>
      )}
    </Incoming>
  );
}

/** The table and the rule bar. They alone follow what is dragged from frame to frame; the docket hears of it when it is let go. */
function Work({
  picture,
  stage,
  hasWork,
  incoming,
  onStage,
}: Pick<StageDocketProps, 'picture' | 'stage' | 'incoming' | 'onStage'> & { readonly hasWork: boolean }) {
  const job = useJob((s) => s.job);
  const preview = useTable((s) => s.preview);
  const panel = useMaking((s) => s.panel);
  const open = useOpenProcess();
  const Scene = stage === 'make-ready' && open ? panelOf(open, panel)?.Scene : undefined;
  const { drawings, making, proof } = job;
  // Live steps from a long outline may take longer than a frame: what is dragged itself is drawn at once.
  const shaped = useDeferredValue(useHand((s) => s.shaped));
  const { traces, drawn } = useMemo(() => jobWithShaped(job, shaped), [job, shaped]);
  const found = useMemo(() => {
    if (stage === 'bring-in' || stage === 'true-up') return piecesOf({ traces: [], drawings, drawn: [], making });
    const all = { traces: preview ? withTraceOf({ traces }, preview).traces : traces, drawings, drawn, making, proof };
    return stage === 'trace' ? piecesOf(all) : piecesToProve(all);
  }, [stage, preview, traces, drawings, drawn, making, proof]);
  const isOnSheets = stage === 'make-ready' && open?.kind.cutsSheets === true && job.making.layout?.laid != null;
  const drawnToMake = usePiecesToMake(isOnSheets);
  const layout = useLayout(isOnSheets ? open : null, drawnToMake);
  const laid = useSheetInHand(layout, drawnToMake);
  const sheet = useSheetOutline(layout);
  const tableProcess = useTableProcess(open, sheet);
  const stockBox = useMemo(() => sheet && pathBox(sheet), [sheet]);
  // A sheet is seen whole as it comes, and what was drawn once it is gone.
  useEffect(() => {
    if (!stockBox) return undefined;
    setTable({ view: null });
    return () => setTable({ view: null });
  }, [stockBox]);
  const pieces = useKeptList(layout ? laid : found);
  return (
    <>
      <Box component="main" id="table" tabIndex={-1} sx={{ minWidth: 0, minHeight: 0, display: 'grid', outline: 'none' }}>
        {Scene ? (
          <Suspense fallback={null}>
            <Scene pieces={pieces} />
          </Suspense>
        ) : hasWork ? (
          <LightTable active={picture} stage={stage} pieces={pieces} process={tableProcess} stockBox={stockBox} />
        ) : (
          <EmptyTable
            incoming={incoming}
            onDraw={() => {
              onStage('trace');
              takeTray('draw');
            }}
          />
        )}
      </Box>
      <RuleBar picture={picture} pieces={pieces} />
    </>
  );
}

interface StageDocketProps {
  readonly stage: StageName;
  readonly picture: Picture | null;
  readonly incoming: IncomingState;
  readonly scannerService: string | null;
  readonly hasCutter: boolean;
  readonly jobId: string;
  readonly onStage: (stage: StageName) => void;
}

function StageDocket({ stage, picture, incoming, scannerService, hasCutter, jobId, onStage }: StageDocketProps) {
  if (stage === 'prove') return <Prove onStage={onStage} />;
  if (stage === 'make-ready') return <MakeReady onStage={onStage} jobId={jobId} hasCutter={hasCutter} />;
  if (!picture && stage === 'trace') return <ByHand hasPicture={false} onStage={onStage} />;
  if (!picture || stage === 'bring-in')
    return <BringIn picture={picture} incoming={incoming} scannerService={scannerService} onStage={onStage} />;
  // Each picture has marks and suggestions of its own: the docket starts afresh with it.
  return stage === 'true-up' ? (
    <TrueUp key={picture.id} picture={picture} onStage={onStage} />
  ) : (
    <Trace key={picture.id} picture={picture} onStage={onStage} />
  );
}

/** What a keyboard comes to first: past the top bar, straight to the docket or the light table. */
function SkipLinks() {
  const name = useJob((s) => s.job.name);
  return (
    <>
      <Box component="h1" sx={hiddenUntilFocus}>
        {name}
      </Box>
      {[
        ['#docket', words.job.skipToTheDocket],
        ['#table', words.job.skipToTheLightTable],
      ].map(([href, word]) => (
        <Box key={href} component="a" href={href} sx={hiddenUntilFocus}>
          {word}
        </Box>
      ))}
    </>
  );
}

const hiddenUntilFocus = {
  position: 'absolute',
  left: -9999,
  m: 0,
  '&:focus': { left: 8, top: 8, zIndex: 2000, bgcolor: 'background.paper', p: 1, border: `2px solid ${colours.verdigris}` },
} as const;

function EmptyTable({ incoming, onDraw }: { incoming: IncomingState; onDraw: () => void }) {
  return (
    <Box sx={{ display: 'grid', placeItems: 'center', bgcolor: colours.ground }}>
      <Box sx={{ display: 'grid', gap: 2, justifyItems: 'center', border: `2px dashed ${colours.line}`, borderRadius: 3, p: 6 }}>
        <Typography variant="h2">{words.job.dropAScanOrPhotoHere}</Typography>
        <Typography color="textSecondary">{words.job.filesTaken}</Typography>
        <Button variant="outlined" onClick={incoming.choose} disabled={incoming.busy}>
          {words.job.chooseAPicture}
        </Button>
        <Button onClick={onDraw}>{words.job.drawWithoutAPicture}</Button>
      </Box>
    </Box>
  );
}

const finishingWords = { trace: words.job.tracingThePicture, prove: words.job.checkingTheOutlines, file: words.job.makingTheFile } as const;

/** What needs a word across the whole page: a change in another window, a refused edit. */
function Messages({ bin }: { bin: ReactNode }) {
  const { saving, message, dismiss, takeNewest, retry } = {
    saving: useJob((s) => s.saving),
    message: useJob((s) => s.message),
    dismiss: useJob((s) => s.dismiss),
    takeNewest: useJob((s) => s.takeNewest),
    retry: useJob((s) => s.retry),
  };
  const isElsewhere = saving === 'changed-elsewhere';
  const { phase, doubt } = useFinishing();
  return (
    <Box sx={{ gridColumn: '1 / -1' }}>
      {bin}
      {phase !== 'idle' && (
        <Alert
          severity="info"
          square
          icon={<CircularProgress size={18} />}
          action={
            <Button color="inherit" onClick={() => stopFinishing()}>
              {words.job.stop}
            </Button>
          }
        >
          {finishingWords[phase]}
        </Alert>
      )}
      {doubt && (
        <Alert severity="warning" square onClose={() => stopFinishing()}>
          {words.job.stoppedBeforeTheFileWasMade(doubt)}
        </Alert>
      )}
      {isElsewhere || saving === 'refused' ? (
        <Alert
          severity="error"
          square
          action={
            <>
              <Button color="inherit" onClick={() => void takeNewest(true)}>
                {words.job.reloadAndReapplyMyChanges}
              </Button>
              <Button color="inherit" onClick={() => void takeNewest(false)}>
                {words.job.reloadAndDiscardMyChanges}
              </Button>
            </>
          }
        >
          {isElsewhere ? words.job.changedElsewhere : words.job.lastChangeNotSaved(message)}
        </Alert>
      ) : saving === 'no-connection' ? (
        <Alert
          severity="warning"
          square
          action={
            <Button color="inherit" onClick={retry}>
              {words.job.tryNow}
            </Button>
          }
        >
          {words.job.noConnection}
        </Alert>
      ) : message ? (
        <Alert severity="warning" square onClose={dismiss}>
          {message}
        </Alert>
      ) : null}
    </Box>
  );
}
