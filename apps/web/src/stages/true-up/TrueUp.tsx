'use client';
import AllOutOutlined from '@mui/icons-material/AllOutOutlined';
import CircleOutlined from '@mui/icons-material/CircleOutlined';
import CompareArrowsOutlined from '@mui/icons-material/CompareArrowsOutlined';
import CropSquareOutlined from '@mui/icons-material/CropSquareOutlined';
import HeightOutlined from '@mui/icons-material/HeightOutlined';
import HorizontalRuleOutlined from '@mui/icons-material/HorizontalRuleOutlined';
import SquareFootOutlined from '@mui/icons-material/SquareFootOutlined';
import StraightenOutlined from '@mui/icons-material/StraightenOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { applyCommand, CommandError, fitOf, isWaiting, type Job, type Picture } from '@nuvet/core/job';
import type { TrueUpFit } from '@nuvet/core/trueup';
import { useEffect, useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useShallow } from 'zustand/react/shallow';
import { groundOf } from '@/table/ground';
import { addBox, isOpenEnded, placesOf } from '@/table/mark-making';
import { setTable, type Tool, takeTool, useTable } from '@/table/table-store';
import { useSurface } from '@/table/working-copies';
import { colours } from '@/ui/colours';
import { Docket, Section, ToolCard } from '../Docket';
import { finish, useFinishWord } from '../finishing';
import { useJob } from '../job-store';
import type { StageName } from '../stage';
import { DatumSection, PlanScale, Small } from './DatumSection';
import { FitSection } from './FitSection';
import { MarkRow } from './MarkRow';
import { SameScale } from './SameScale';
import { Suggestions } from './Suggestions';

const tools: { tool: Tool; word: string; hotkey: string; explanation: string; icon: React.ReactNode }[] = [
  {
    tool: 'known-length',
    word: 'Known length',
    hotkey: 'K',
    explanation: 'Mark two points whose distance you know',
    icon: <StraightenOutlined />,
  },
  {
    tool: 'frame',
    word: 'Frame',
    hotkey: 'F',
    explanation: 'Mark the four corners of a rectangle of known size: a sheet, a door, a cutting mat',
    icon: <CropSquareOutlined />,
  },
  {
    tool: 'level',
    word: 'Level line',
    hotkey: 'L',
    explanation: 'Mark a line that must come out horizontal',
    icon: <HorizontalRuleOutlined />,
  },
  { tool: 'plumb', word: 'Plumb line', hotkey: 'P', explanation: 'Mark a line that must come out vertical', icon: <HeightOutlined /> },
  {
    tool: 'right-angle',
    word: 'Right angle',
    hotkey: 'R',
    explanation: 'Mark one leg, the corner, the other leg',
    icon: <SquareFootOutlined />,
  },
  {
    tool: 'circle',
    word: 'Circle',
    hotkey: 'C',
    explanation: 'Mark three or more points on the rim of a circle of known diameter',
    icon: <CircleOutlined />,
  },
  { tool: 'box', word: 'Box', hotkey: 'B', explanation: 'State how wide and high the drawn part must come out', icon: <AllOutOutlined /> },
  {
    tool: 'clearance',
    word: 'Clearance',
    hotkey: 'G',
    explanation: 'Click on both sides of a passage that a ball or tool must fit through',
    icon: <CompareArrowsOutlined />,
  },
];

const checks: { tool: Tool; word: string }[] = [
  { tool: 'check', word: 'Distance' },
  { tool: 'check-angle', word: 'Angle' },
  { tool: 'check-radius', word: 'Radius' },
  { tool: 'check-along', word: 'Length along' },
];

export function TrueUp({ picture, onStage }: { picture: Picture; onStage: (stage: StageName) => void }) {
  const { tool, taken, dragged } = useTable(useShallow((s) => ({ tool: s.tool, taken: s.taken, dragged: s.dragged })));
  const run = useJob((s) => s.run);
  const job = useJob((s) => s.job);
  const finishWord = useFinishWord(job.setup.machine.name, 'true-up');
  const surface = useSurface(picture);
  const [message, setMessage] = useState<string | null>(null);
  /** Whether the tool in hand was put there, and not taken: then a click on its card takes it. */
  const isGiven = useRef(false);
  // Where no size is known, what asks for it is in hand: two clicks and a typed length are enough.
  // biome-ignore lint/correctness/useExhaustiveDependencies: only when the stage is opened
  useEffect(() => {
    if (fitOf(picture).model !== 'unsized' || picture.marks.length > 0 || picture.locked || useTable.getState().tool) return;
    isGiven.current = true;
    takeTool('known-length');
  }, []);
  const take = (wanted: Tool) => {
    setMessage(null);
    if (picture.locked) return setMessage('This picture is locked. Unlock it under Bring in to mark it.');
    if (wanted !== 'box') return takeTool(tool === wanted && !isGiven.current ? null : wanted);
    isGiven.current = false;
    takeTool(null);
    const ground = groundOf(picture, surface, { scale: 1, x: 0, y: 0 });
    void addBox(run, picture, ground).then(setMessage);
  };
  useHotkeys('k,l,p,f,r,c,b,g', (_, { keys }) => {
    const found = tools.find((t) => t.hotkey.toLowerCase() === keys?.join(''));
    if (found) take(found.tool);
  });
  useHotkeys('m', () => take('check'));
  useHotkeys('escape', () => {
    const state = useTable.getState();
    if (state.taken.length > 0) setTable({ taken: state.taken.slice(0, -1) });
    else if (state.tool) takeTool(null);
    else setTable({ selected: null });
  });
  // While a mark is dragged the docket already reads as it will be.
  const shown = dragged ? asDragged(job, picture, dragged) : picture;
  const fit = fitOf(shown);
  const pulling = shown.marks.filter((m) => !m.kind.startsWith('check'));
  const checking = shown.marks.filter((m) => m.kind.startsWith('check'));
  return (
    <Docket
      tray={tools.map((t) => <ToolCard key={t.tool} {...t} isInHand={tool === t.tool} onClick={() => take(t.tool)} />)}
      next={nextStep(picture, fit, tool, onStage)}
      rest={fit.model === 'unsized' ? undefined : { word: finishWord, onClick: finish }}
    >
      {message && (
        <Typography role="alert" sx={{ borderLeft: `3px solid ${colours.madder}`, pl: 1.5 }}>
          {message}
        </Typography>
      )}
      <Prompt
        text={promptFor(picture, tool, taken.length, fit)}
        canEnd={tool !== null && isOpenEnded(tool) && taken.length >= placesOf(tool).least}
      />
      <Suggestions picture={picture} />
      <SameScale picture={picture} fit={fit} />
      {pulling.length > 0 && (
        <Section title="Marks">
          {pulling.map((mark) => (
            <MarkRow key={mark.id} picture={picture} mark={mark} fit={fit} />
          ))}
        </Section>
      )}
      <FitSection picture={picture} fit={fit} />
      <Section title="Check a measurement">
        <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.75, mb: checking.length > 0 ? 1 : 0 }}>
          {checks.map((c) => (
            <Small key={c.tool} onClick={() => take(c.tool)} isOn={tool === c.tool}>
              {c.word}
            </Small>
          ))}
        </Box>
        {checking.map((mark) => (
          <MarkRow key={mark.id} picture={picture} mark={mark} fit={fit} />
        ))}
      </Section>
      <DatumSection picture={picture} />
      <PlanScale picture={picture} sheetWidthMm={fit.sheetWidthMm} />
    </Docket>
  );
}

/** The picture with a mark as it is dragged; as it was where no fit can take it there. */
function asDragged(job: Job, picture: Picture, dragged: NonNullable<ReturnType<typeof useTable.getState>['dragged']>): Picture {
  try {
    const moved = applyCommand(job, { do: 'move-mark', pictureId: picture.id, markId: dragged.markId, points: [...dragged.points] });
    return moved.pictures.find((p) => p.id === picture.id) ?? picture;
  } catch (error) {
    if (error instanceof CommandError) return picture;
    throw error;
  }
}

/** A picture without a size wants a known length first; Trace can still be entered from the top. */
function nextStep(picture: Picture, fit: TrueUpFit, tool: Tool | null, onStage: (stage: StageName) => void) {
  if (fit.model !== 'unsized' || picture.marks.some(isWaiting))
    return { word: 'Next: trace', onClick: () => onStage('trace'), disabled: fit.model === 'unsized' };
  if (tool === 'known-length') return { word: 'Click both ends of a known length', onClick: () => {}, disabled: true };
  return { word: 'Mark a known length', onClick: () => takeTool('known-length') };
}

const clicks: Partial<Record<Tool, readonly string[]>> = {
  'known-length': ['Click one end of a length that you know.', 'Click the other end.'],
  level: ['Click one end of a line that must be level.', 'Click the other end.'],
  plumb: ['Click one end of a line that must be upright.', 'Click the other end.'],
  'right-angle': ['Click on one leg of a corner that is square.', 'Click on the corner itself.', 'Click on the other leg.'],
  frame: [
    'Click one corner of a rectangle that you know.',
    'Click the next corner: this side is its width.',
    'Click the third corner.',
    'Click the fourth corner.',
  ],
  circle: [
    'Click on the rim of a circle that you know.',
    'Click on the rim again, well apart.',
    'Click on the rim once more.',
    'More points improve accuracy; click the last point again to finish.',
  ],
  clearance: ['Click on one side of the passage.', 'Click on the other side.'],
  check: ['Click one end of what you want to measure.', 'Click the other end.'],
  'check-angle': ['Click on one leg of the angle.', 'Click on its corner.', 'Click on the other leg.'],
  'check-radius': ['Click on the arc.', 'Click on the arc again, well apart.', 'Click on the arc once more.'],
  'check-along': ['Click where the length begins.', 'Click along it; click the last point again to finish.'],
  datum: ['Click where the sheet’s origin shall lie.'],
};

function promptFor(picture: Picture, tool: Tool | null, count: number, fit: TrueUpFit): string | null {
  if (tool) {
    const prompts = clicks[tool] ?? [];
    const text = prompts[Math.min(count, prompts.length - 1)] ?? '';
    return count > 0 ? `${text} Escape takes the last one back.` : text;
  }
  if (picture.marks.some(isWaiting)) return 'Now type how large it truly is, as you would say it.';
  if (fit.model === 'resolution') return 'The size comes from the resolution in the file. Mark one length that you know to be sure of it.';
  if (fit.model === 'unsized')
    return 'How large is it really? Take “Known length”, click the two ends of something you can measure, and type its length.';
  return null;
}

function Prompt({ text, canEnd }: { text: string | null; canEnd: boolean }) {
  const endPlaces = useTable((s) => s.endPlaces);
  return text ? (
    <Box sx={{ borderLeft: `3px solid ${colours.verdigris}`, pl: 1.5 }}>
      <Typography role="status">{text}</Typography>
      {canEnd && (
        <Button size="small" variant="contained" sx={{ mt: 0.75 }} onClick={() => endPlaces?.()}>
          Done
        </Button>
      )}
    </Box>
  ) : null;
}
