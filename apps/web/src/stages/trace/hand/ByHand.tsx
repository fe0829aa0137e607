'use client';
/**
 * The docket while something is drawn or corrected by hand: tray, what the tool asks, the chosen things, what is open.
 */
import Typography from '@mui/material/Typography';
import { keptPieces } from '@nuvet/core/job';
import { useEffect } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useShallow } from 'zustand/react/shallow';
import { correctTools, drawTools, isDrawTool, setHand, stepBack, takeHandTool, takeTray, useHand } from '@/table/hand-store';
import { words } from '@/words';
import { useJob } from '../../../job/job-store';
import { Docket, ToolCard } from '../../Docket';
import type { StageName } from '../../stage';
import { ArrangePanel } from './ArrangePanel';
import { ChosenPanel } from './ChosenPanel';
import { CombinePanel } from './CombinePanel';
import { CornersPanel } from './CornersPanel';
import { DrawnList } from './DrawnList';
import { DrawPanel } from './DrawPanel';
import { FollowPanel } from './FollowPanel';
import { HandIcon } from './HandIcons';
import { JoinPanel, OpenEnds } from './JoinPanel';
import { Motifs } from './Motifs';
import { OffsetPanel } from './OffsetPanel';
import { PointsPanel } from './PointsPanel';
import { Seeing } from './Seeing';
import { TraySwitch } from './TraySwitch';
import { toolWords } from './tool-words';

export function ByHand({ hasPicture, onStage }: { hasPicture: boolean; onStage: (stage: StageName) => void }) {
  const { tray, tool } = useHand(useShallow((s) => ({ tray: s.tray, tool: s.tool })));
  const job = useJob((s) => s.job);
  const tools = tray === 'draw' ? drawTools : correctTools;
  // Without a picture there is nothing to find.
  useEffect(() => {
    if (!hasPicture && tray === 'find') takeTray('draw');
  }, [hasPicture, tray]);
  useOnlyPieceChosen(tool !== null && !isDrawTool(tool));
  // Also while the docket has the keys.
  useHotkeys('escape', () => void stepBack());
  return (
    <Docket
      tray={
        <>
          <TraySwitch trays={hasPicture ? ['find', 'draw', 'correct'] : ['draw', 'correct']} />
          {tools.map((one) => (
            <ToolCard
              key={one}
              icon={<HandIcon tool={one} isInHand={tool === one} />}
              word={toolWords[one].word}
              explanation={toolWords[one].explanation}
              isInHand={tool === one}
              onClick={() => takeHandTool(tool === one ? null : one)}
            />
          ))}
        </>
      }
      next={{
        word: words.byHand.nextProve,
        onClick: () => onStage('prove'),
        disabled: job.drawn.length === 0 && job.traces.length === 0 && job.drawings.length === 0,
      }}
    >
      {tool && (
        <Typography variant="body2" role="note">
          {toolWords[tool].asks}
        </Typography>
      )}
      {isDrawTool(tool) && <DrawPanel tool={tool} />}
      {tool === 'points' && <PointsPanel />}
      {tool === 'join' && <JoinPanel />}
      {tool === 'corners' && <CornersPanel />}
      {tool === 'offset' && <OffsetPanel />}
      {tool === 'combine' && <CombinePanel />}
      {tool === 'arrange' && <ArrangePanel />}
      {tool === 'follow' && <FollowPanel />}
      <ChosenPanel />
      {tray === 'draw' && <Motifs />}
      <OpenEnds />
      <DrawnList />
      <Seeing />
      {job.drawn.length === 0 && tray === 'correct' && (
        <Typography variant="caption" color="textSecondary">
          {words.byHand.tracedPiecesCanBeCorrectedToo}
        </Typography>
      )}
    </Docket>
  );
}

/** With a tool to correct by in hand, the only piece that there is need not be chosen. */
function useOnlyPieceChosen(isCorrecting: boolean): void {
  const job = useJob((s) => s.job);
  // biome-ignore lint/correctness/useExhaustiveDependencies: only when a tool is taken
  useEffect(() => {
    if (!isCorrecting || useHand.getState().chosen.length > 0) return;
    const [only, ...others] = new Set(keptPieces(job).map(({ id }) => id.split('/')[0] as string));
    if (only !== undefined && others.length === 0) setHand({ chosen: [only] });
  }, [isCorrecting]);
}
