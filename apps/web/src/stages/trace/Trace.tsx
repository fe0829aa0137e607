'use client';
import RefreshOutlined from '@mui/icons-material/RefreshOutlined';
import VisibilityOutlined from '@mui/icons-material/VisibilityOutlined';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import {
  defaultTraceSettings,
  fitOf,
  fromOriginal,
  type JobTraceSettings,
  keptPieces,
  type Picture,
  type Piece,
  type RasterSource,
  traceOf,
} from '@nuvet/core/job';
import { project } from '@nuvet/core/plane';
import type { Take } from '@nuvet/core/trace';
import { memo, useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { useHand } from '@/table/hand-store';
import { useRasterSource } from '@/table/rectified-images';
import { setTable, takeTool, useTable } from '@/table/table-store';
import { useKeptList } from '@/ui/stable-array';
import { words } from '@/words';
import { tracer } from '@/workers/tracer.client';
import { useJob } from '../../job/job-store';
import { Docket, ToolCard } from '../Docket';
import { finish, useFinishWord } from '../finishing';
import type { StageName } from '../stage';
import { AlongEdge } from './AlongEdge';
import { Annotations } from './Annotations';
import { Closeness } from './Closeness';
import { ByHand } from './hand/ByHand';
import { TraySwitch } from './hand/TraySwitch';
import { InkSettings, isDrawnLine } from './InkSettings';
import { FrameLimit, Limit } from './Limit';
import { isSame } from './MeantColours';
import { OtherPictures } from './OtherPictures';
import { PictureFound } from './PictureFound';
import { PieceList, SelectedPiece } from './PieceList';
import { Relations } from './Relations';
import { ScanBorder } from './ScanBorder';
import { AlongEdgeIcon, DrawnLineIcon, FilledShapeIcon, LimitIcon, MiddlesIcon, ThisOneIcon } from './TakeIcons';
import { useAutomaticTrace } from './use-automatic-trace';

/** The stage with the tray that is out. */
export function Trace(props: { picture: Picture; onStage: (stage: StageName) => void }) {
  const tray = useHand((s) => s.tray);
  return tray === 'find' ? <Find {...props} /> : <ByHand hasPicture onStage={props.onStage} />;
}

function Find({ picture, onStage }: { picture: Picture; onStage: (stage: StageName) => void }) {
  const job = useJob((s) => s.job);
  const finishWord = useFinishWord('trace');
  const run = useJob((s) => s.run);
  const trace = traceOf(job, picture.id);
  const [moving, setMoving] = useState<JobTraceSettings | null>(null);
  const asked = moving ?? trace?.settings ?? job.traces.at(-1)?.settings ?? defaultTraceSettings;
  // What the job takes in is what was asked for: nothing that shows the settings need follow that.
  const same = useRef(asked);
  if (JSON.stringify(asked) !== JSON.stringify(same.current)) same.current = asked;
  const settings = same.current;
  const raster = useRasterSource(picture);
  const { progress, message, look, stop, again } = useAutomaticTrace(picture, raster, settings, moving !== null, () => setMoving(null));
  const move = useLatest((next: JobTraceSettings) => {
    look(next);
    setMoving(next);
  });
  // What stands below the sliders follows them in what time is left.
  const followed = useDeferredValue(settings);
  const tool = useTable((s) => s.tool);
  const isLimiting = tool === 'limit-box' || tool === 'limit-outline';
  const onTake = useLatest((take: Take) => move({ ...settings, take }));
  const onTolerance = useLatest((toleranceMm: number) => move({ ...settings, toleranceMm }));
  const preview = useTable((s) => s.preview);
  // The table shows outlines at once; the list of them comes after, in what time is left.
  const shown = useDeferredValue(preview ?? trace);
  const pieces = useKeptList(shown?.pieces ?? noPieces);
  const kept = useMemo(() => pieces.filter((p) => !p.leftOut), [pieces]);
  const selectedId = useTable((s) => s.selectedPiece);
  const selected = pieces.find((p) => p.id === selectedId);
  const leaveOut = useCallback((pieceIds: string[], leftOut: boolean) => run({ do: 'leave-out', pieceIds, leftOut }), [run]);
  const onTakeIn = useLatest(() =>
    leaveOut(
      pieces.filter((p) => p.leftOut).map((p) => p.id),
      false,
    ),
  );
  useHandedOver(raster, settings, move);
  useAcceptByEnter(kept.length > 0 && !progress, () => onStage('prove'));
  const canProve = useCanProve(kept.length);
  const isEmpty = shown !== null && pieces.length === 0 && !progress;
  const isSized = fitOf(picture).model !== 'unsized';
  return (
    <Docket
      tray={
        <>
          <TraySwitch />
          <FindTools take={settings.take} hasLeftOut={kept.length < pieces.length} onTake={onTake} onAgain={again} onTakeIn={onTakeIn} />
        </>
      }
      next={{ word: words.trace.nextProve, onClick: () => onStage('prove'), disabled: !canProve }}
      rest={{ word: finishWord, onClick: finish, disabled: !canProve }}
    >
      {!isSized && (
        <Alert severity="warning" variant="outlined">
          {words.trace.noTrueSize}
        </Alert>
      )}
      {tool === 'along-edge' && <AlongEdge picture={picture} raster={raster} />}
      {(isLimiting || settings.within) && <Limit within={settings.within} onAll={() => move({ ...settings, within: null })} />}
      <FrameLimit trace={shown} settings={settings} onChange={move} />
      {!progress && !preview && <PictureFound trace={trace} settings={settings} unit={job.unit} onChange={move} />}
      {!progress && !preview && <ScanBorder pieces={pieces} onLeaveOut={leaveOut} />}
      {!progress && !preview && <Annotations pieces={pieces} onLeaveOut={leaveOut} />}
      {selected && <SelectedPiece piece={selected} unit={job.unit} />}
      <InkSettings picture={picture} raster={raster} settings={settings} found={shown?.threshold ?? null} unit={job.unit} onMove={move} />
      <Standing message={message ?? (isEmpty ? words.trace.noShape : null)} progress={progress} onStop={stop} />
      {trace && <Closeness picture={picture} trace={trace} raster={raster} settings={followed} unit={job.unit} onTolerance={onTolerance} />}
      {job.pictures.length > 1 && <OtherPictures picture={picture} settings={settings} />}
      {kept.length > 0 && !preview && <Relations pieces={kept} toleranceMm={followed.toleranceMm} unit={job.unit} />}
      <PieceList unit={job.unit} pieces={pieces} dropped={shown?.dropped ?? 0} onLeaveOut={leaveOut} />
    </Docket>
  );
}

/** What was drawn, brought in, or traced from another picture can be proved, too. */
function useCanProve(traced: number): boolean {
  const job = useJob((s) => s.job);
  return useMemo(() => traced > 0 || keptPieces(job).length > 0, [traced, job]);
}

/** A notice, or how far the trace is. */
function Standing({
  message,
  progress,
  onStop,
}: {
  message: string | null;
  progress: { word: string; share: number } | null;
  onStop: () => void;
}) {
  if (message) return <Alert severity="warning">{message}</Alert>;
  if (!progress) return null;
  return (
    <Box role="status">
      <Typography variant="body2">{progress.word === 'reading' ? words.trace.readingThePicture : words.trace.findingOutlines}</Typography>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <LinearProgress aria-label={words.trace.shareTraced} variant="determinate" value={progress.share * 100} sx={{ flex: 1 }} />
        <Button size="small" onClick={onStop}>
          {words.trace.stop}
        </Button>
      </Box>
    </Box>
  );
}

interface FindToolsProps {
  readonly take: Take;
  readonly hasLeftOut: boolean;
  readonly onTake: (take: Take) => void;
  readonly onAgain: () => void;
  readonly onTakeIn: () => void;
}

/** The tray's cards: they stay as they are while sliders move. */
const FindTools = memo(function FindTools({ take, hasLeftOut, onTake, onAgain, onTakeIn }: FindToolsProps) {
  const tool = useTable((s) => s.tool);
  const isLimiting = tool === 'limit-box' || tool === 'limit-outline';
  return (
    <>
      <ToolCard
        icon={<FilledShapeIcon isInHand={take === 'shape'} />}
        word={words.trace.filledShape}
        explanation={words.trace.filledShapeExplanation}
        isInHand={take === 'shape'}
        onClick={() => onTake('shape')}
      />
      <ToolCard
        icon={<DrawnLineIcon isInHand={isDrawnLine(take)} />}
        word={words.trace.drawnLine}
        explanation={words.trace.drawnLineExplanation}
        isInHand={isDrawnLine(take)}
        onClick={() => onTake('line-outer')}
      />
      <ToolCard
        icon={<MiddlesIcon isInHand={take === 'network'} />}
        word={words.trace.middleOfLines}
        explanation={words.trace.middleOfLinesExplanation}
        isInHand={take === 'network'}
        onClick={() => onTake('network')}
      />
      <ToolCard
        icon={<ThisOneIcon isInHand={tool === 'this-one'} />}
        word={words.trace.pickPieces}
        explanation={words.trace.pickPiecesExplanation}
        isInHand={tool === 'this-one'}
        onClick={() => takeTool(tool === 'this-one' ? null : 'this-one')}
      />
      <ToolCard
        icon={<AlongEdgeIcon isInHand={tool === 'along-edge'} />}
        word={words.trace.alongTheEdge}
        explanation={words.trace.alongEdgeExplanation}
        isInHand={tool === 'along-edge'}
        onClick={() => takeTool(tool === 'along-edge' ? null : 'along-edge')}
      />
      <ToolCard
        icon={<LimitIcon isInHand={isLimiting} />}
        word={words.trace.limitTheArea}
        explanation={words.trace.limitExplanation}
        isInHand={isLimiting}
        onClick={() => takeTool(isLimiting ? null : 'limit-box')}
      />
      <ToolCard icon={<RefreshOutlined />} word={words.trace.retrace} explanation={words.trace.retraceExplanation} onClick={onAgain} />
      <ToolCard
        icon={<VisibilityOutlined />}
        word={words.trace.includeAll}
        explanation={words.trace.includeThePiecesThatWereExcluded}
        disabled={!hasLeftOut}
        onClick={onTakeIn}
      />
    </>
  );
});

const noPieces: readonly Piece[] = [];

/** A function that stays the same while what it does follows what was rendered last. */
function useLatest<Of extends unknown[]>(doing: (...of: Of) => void): (...of: Of) => void {
  const latest = useRef(doing);
  latest.current = doing;
  return useCallback((...of: Of) => latest.current(...of), []);
}

/** What a tool took on the table goes into the settings. */
function useHandedOver(raster: RasterSource, settings: JobTraceSettings, onMove: (settings: JobTraceSettings) => void): void {
  const handedOver = useTable((s) => s.handedOver);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only what is newly handed over counts
  useEffect(() => {
    if (!handedOver) return;
    setTable({ handedOver: null });
    const [at] = handedOver.points;
    if (handedOver.tool === 'limit') onMove({ ...settings, within: [...handedOver.points] });
    else if (at) {
      const back = fromOriginal(raster);
      void tracer()
        .colourAt(raster, back ? project(back, at) : at)
        .then((hex) => {
          if (hex && settings.colours.length < 12 && !settings.colours.some((m) => isSame(m.hex, hex)))
            onMove({ ...settings, colours: [...settings.colours, { hex, purpose: 'cut' }] });
        });
    }
  }, [handedOver]);
}

/** Enter accepts the outlines and goes on, unless something else has it. */
function useAcceptByEnter(isReady: boolean, onAccept: () => void): void {
  const accept = useRef(onAccept);
  accept.current = onAccept;
  useEffect(() => {
    if (!isReady) return;
    const hear = (event: KeyboardEvent) => {
      const isElsewhere =
        event.target instanceof Element && event.target.closest('button, input, textarea, select, a, tr, [role=slider], [role=dialog]');
      if (event.key !== 'Enter' || event.defaultPrevented || isElsewhere || useTable.getState().tool) return;
      accept.current();
    };
    window.addEventListener('keydown', hear);
    return () => window.removeEventListener('keydown', hear);
  }, [isReady]);
}
