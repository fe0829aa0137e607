'use client';
/**
 * The slim bar at the top: the job's name, the five stages as a stepped path with their state, save state, undo and
 * redo, unit with thickness and kerf, help.
 */
import CloudDoneOutlined from '@mui/icons-material/CloudDoneOutlined';
import CloudOffOutlined from '@mui/icons-material/CloudOffOutlined';
import CloudSyncOutlined from '@mui/icons-material/CloudSyncOutlined';
import HelpOutlineOutlined from '@mui/icons-material/HelpOutlineOutlined';
import RedoOutlined from '@mui/icons-material/RedoOutlined';
import UndoOutlined from '@mui/icons-material/UndoOutlined';
import ViewSidebarOutlined from '@mui/icons-material/ViewSidebarOutlined';
import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import IconButton from '@mui/material/IconButton';
import InputBase from '@mui/material/InputBase';
import Popover from '@mui/material/Popover';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import Link from 'next/link';
import { useEffect, useEffectEvent, useState } from 'react';
import { useMaking } from '@/table/making-store';
import { setTable, useTable } from '@/table/table-store';
import { colours } from '@/ui/colours';
import { narrow } from '@/ui/widths';
import { words } from '@/words';
import { useJob } from '../job/job-store';
import type { Saving } from '../job/save-queue';
import { type StageName, type StageState, stageStates, stages, stageWords } from './stage';
import { WorkSettings } from './WorkSettings';

export function TopBar({ stage, onStage }: { stage: StageName; onStage: (stage: StageName) => void }) {
  const job = useJob((s) => s.job);
  const activeId = useTable((s) => s.activeId);
  const states = stageStates(
    job,
    activeId,
    useMaking((s) => s.faults),
    useMaking((s) => s.isProving),
  );
  return (
    <Box
      component="header"
      sx={{
        gridColumn: '1 / -1',
        display: 'flex',
        alignItems: 'stretch',
        height: 58,
        bgcolor: 'background.paper',
        borderBottom: `1px solid ${colours.line}`,
      }}
    >
      <Box
        sx={{
          width: 218,
          [narrow]: { width: 150 },
          display: 'flex',
          flexDirection: 'column',
          justifyContent: 'center',
          pl: 2,
          pr: 1,
          minWidth: 0,
        }}
      >
        <Link href="/" style={{ color: colours.verdigris, fontSize: 12.5, lineHeight: '24px', fontWeight: 650, textDecoration: 'none' }}>
          {words.job.backToAllJobs}
        </Link>
        <JobName key={job.name} />
      </Box>
      <Box
        component="nav"
        aria-label={words.job.stages}
        sx={{
          flex: 1,
          display: 'grid',
          gridTemplateColumns: 'repeat(5, minmax(0, 1fr))',
          minWidth: 0,
          [narrow]: { gridTemplateColumns: stages.map((name) => (name === stage ? 'minmax(0, 1fr)' : '46px')).join(' ') },
        }}
      >
        {stages.map((name, k) => (
          <StageStep
            key={name}
            number={k + 1}
            word={stageWords[name]}
            state={states[name]}
            isHere={name === stage}
            onClick={() => onStage(name)}
          />
        ))}
      </Box>
      <Box sx={{ display: 'flex', alignItems: 'center', pl: 1, pr: 1 }}>
        <DocketSwitch />
        <SaveState />
        <Steps />
        <WorkSettings />
        <Help />
      </Box>
    </Box>
  );
}

/** Draws the docket aside, where a narrow window leaves the table little room. */
function DocketSwitch() {
  const isAside = useTable((s) => s.isDocketAside);
  const word = isAside ? words.job.showTheDocket : words.job.drawTheDocketAside;
  return (
    <Tooltip title={word}>
      <IconButton
        aria-label={word}
        aria-pressed={isAside}
        onClick={() => setTable({ isDocketAside: !isAside })}
        sx={{ display: 'none', [narrow]: { display: 'inline-flex' } }}
      >
        <ViewSidebarOutlined fontSize="small" sx={{ transform: 'scaleX(-1)' }} />
      </IconButton>
    </Tooltip>
  );
}

function JobName() {
  const name = useJob((s) => s.job.name);
  const run = useJob((s) => s.run);
  const [typed, setTyped] = useState(name);
  const rename = (to: string) => run({ do: 'rename', name: Array.from(to.trim()).slice(0, 60).join('') });
  const settle = () => (typed.trim() ? rename(typed) : setTyped(name));
  // What is typed and not settled when the window closes is not lost.
  const leave = useEffectEvent(() => {
    if (typed.trim() && typed.trim() !== name) rename(typed);
  });
  useEffect(() => {
    const onLeave = () => leave();
    window.addEventListener('pagehide', onLeave);
    return () => window.removeEventListener('pagehide', onLeave);
  }, []);
  return (
    <InputBase
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={settle}
      onKeyDown={(event) => {
        if (event.key === 'Enter') (event.target as HTMLInputElement).blur();
        if (event.key === 'Escape') setTyped(name);
        event.stopPropagation();
      }}
      inputProps={{ 'aria-label': words.job.nameOfTheJob, style: { padding: 0, height: 24, textOverflow: 'ellipsis' } }}
      sx={{ fontSize: 15.5, fontWeight: 650 }}
    />
  );
}

const statusColours: Record<StageState['status'], string> = { open: colours.quietInk, good: colours.verdigris, look: colours.brass };

function StageStep({
  number,
  word,
  state,
  isHere,
  onClick,
}: {
  number: number;
  word: string;
  state: StageState;
  isHere: boolean;
  onClick: () => void;
}) {
  return (
    <ButtonBase
      aria-current={isHere ? 'step' : undefined}
      aria-label={`${word}: ${state.text}`}
      onClick={onClick}
      sx={{
        position: 'relative',
        justifyContent: 'flex-start',
        gap: 1,
        px: 1.25,
        minWidth: 0,
        textAlign: 'left',
        borderBottom: `3px solid ${isHere ? colours.verdigris : 'transparent'}`,
        borderTop: '3px solid transparent',
        bgcolor: isHere ? 'rgba(30, 123, 107, 0.08)' : undefined,
        '&:hover': { bgcolor: 'rgba(30, 123, 107, 0.05)' },
      }}
    >
      <Box
        sx={{
          flex: 'none',
          width: 22,
          height: 22,
          borderRadius: '50%',
          display: 'grid',
          placeItems: 'center',
          fontSize: 12.5,
          fontWeight: 700,
          color: state.status === 'open' ? colours.quietInk : '#FFFFFF',
          bgcolor: state.status === 'open' ? 'transparent' : statusColours[state.status],
          border: `1.5px solid ${statusColours[state.status]}`,
        }}
      >
        {number}
      </Box>
      {/* In a narrow window only the current stage has its word. */}
      <Box sx={{ minWidth: 0, [narrow]: isHere ? {} : { display: 'none' } }}>
        <Typography noWrap sx={{ fontSize: 14, fontWeight: 650, lineHeight: 1.2 }}>
          {word}
        </Typography>
        <Typography sx={{ fontSize: 11.5, lineHeight: 1.15, color: statusColours[state.status] }}>{state.text}</Typography>
      </Box>
    </ButtonBase>
  );
}

const saveWords: Record<Saving, { text: string; icon: typeof CloudDoneOutlined; tone: string }> = {
  saved: { text: words.job.everythingIsSaved, icon: CloudDoneOutlined, tone: colours.verdigris },
  saving: { text: words.job.saving, icon: CloudSyncOutlined, tone: colours.quietInk },
  'no-connection': { text: words.job.keptUntilConnected, icon: CloudOffOutlined, tone: colours.madder },
  'changed-elsewhere': { text: words.job.notSavedChangedElsewhere, icon: CloudOffOutlined, tone: colours.madder },
  refused: { text: words.job.notSaved, icon: CloudOffOutlined, tone: colours.madder },
};

function SaveState() {
  const saving = useJob((s) => s.saving);
  const { text, icon: Icon, tone } = saveWords[saving];
  useEffect(() => {
    if (saving === 'saved') return;
    // What is kept in the browser outlasts a reload; in a window that keeps nothing it would be lost.
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    window.addEventListener('beforeunload', warn);
    return () => window.removeEventListener('beforeunload', warn);
  }, [saving]);
  return (
    <Tooltip title={text}>
      <Box role="status" aria-label={text} data-saving={saving} sx={{ display: 'grid', p: 0.75, color: tone }}>
        <Icon fontSize="small" />
      </Box>
    </Tooltip>
  );
}

function Steps() {
  const { undo, redo } = { undo: useJob((s) => s.undo), redo: useJob((s) => s.redo) };
  const [back, forth] = [useJob((s) => s.done.at(-1)?.label), useJob((s) => s.redoable[0]?.label)];
  return (
    <>
      <Tooltip title={back ? words.job.undoCtrlZ(back) : words.job.nothingToUndo}>
        <span>
          <IconButton aria-label={words.job.undo} disabled={!back} onClick={undo}>
            <UndoOutlined fontSize="small" />
          </IconButton>
        </span>
      </Tooltip>
      <Tooltip title={forth ? words.job.redoCtrlShiftZ(forth) : words.job.nothingToRedo}>
        <span>
          <IconButton aria-label={words.job.redo} disabled={!forth} onClick={redo}>
            <RedoOutlined fontSize="small" />
          </IconButton>
        </span>
      </Tooltip>
    </>
  );
}

const keys: [string, string][] = [
  [words.job.wheelKeys, words.job.zoomInAndOut],
  [words.job.dragArrows, words.job.moveTheSheet],
  ['0', words.job.theWholeSheet],
  ['K, F, C, B, G', words.job.knownLengthFrameCircleBoxClearance],
  ['L, P, R, M', words.job.levelPlumbRightAngleMeasure],
  [words.job.altWithAClick, words.job.ignoreSnapping],
  [words.job.arrowsOnAMark, words.job.moveItsPointByAPixel],
  [words.job.enterUnderTrace, words.job.acceptOutlines],
  [words.job.enterBackspaceAlongAnEdge, words.job.finishUndoTheLastSegment],
  [words.job.drawingClickDragHold, words.job.aCornerACurveAnArc],
  [words.job.drawingEnterShiftEnter, words.job.leaveTheOutlineOpenCloseIt],
  [words.job.drawingBackspace, words.job.takeTheLastPointBack],
  [words.job.correctingShiftTwiceDelete, words.job.selectMoreAddAPointRemove],
  [words.job.correctingArrows, words.job.nudgeAPoint],
  [words.job.arrowsEnterWithATool, words.job.placeAMarkWithoutTheMouse],
  ['Delete', words.job.takeTheChosenMarkAway],
  [words.job.keyH, words.job.hideOrShowThePictureOnly],
  ['Ctrl+V', words.job.pasteAPicture],
  ['1 to 5', words.job.theStages],
  [words.job.ctrlZCtrlShiftZ, words.job.undoRedo],
  ['Escape', words.job.stepBack],
];

function Help() {
  const [at, setAt] = useState<HTMLElement | null>(null);
  return (
    <>
      <Tooltip title={words.job.keysAndGestures}>
        <IconButton aria-label={words.job.help} onClick={(event) => setAt(event.currentTarget)}>
          <HelpOutlineOutlined fontSize="small" />
        </IconButton>
      </Tooltip>
      <Popover
        open={at !== null}
        anchorEl={at}
        onClose={() => setAt(null)}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'right' }}
        transformOrigin={{ vertical: 'top', horizontal: 'right' }}
      >
        <Box sx={{ p: 2, display: 'grid', gridTemplateColumns: 'auto auto', columnGap: 3, rowGap: 0.75 }}>
          {keys.map(([key, meaning]) => (
            <Box key={key} sx={{ display: 'contents' }}>
              <Typography variant="body2" sx={{ fontWeight: 650 }}>
                {key}
              </Typography>
              <Typography variant="body2">{meaning}</Typography>
            </Box>
          ))}
        </Box>
      </Popover>
    </>
  );
}
