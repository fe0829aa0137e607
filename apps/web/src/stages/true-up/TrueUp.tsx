'use client';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { applyCommand, CommandError, fitOf, isWaiting, type Job, type Picture } from '@nuvet/core/job';
import { isCheck, type MarkKind, type TrueUpFit } from '@nuvet/core/trueup';
import { useEffect, useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useShallow } from 'zustand/react/shallow';
import { coordinatesOf } from '@/table/coordinates';
import { addBox, isOpenEnded, placesOf } from '@/table/mark-making';
import { useRasterSource } from '@/table/rectified-images';
import { setTable, type Tool, takeTool, useTable } from '@/table/table-store';
import { colours } from '@/ui/colours';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { useJob } from '../../job/job-store';
import { markViews } from '../../job/mark-views';
import { Docket, ToolCard } from '../Docket';
import { finish, useFinishWord } from '../finishing';
import type { StageName } from '../stage';
import { DatumSection, PlanScale, Small } from './DatumSection';
import { FitSection } from './FitSection';
import { MarkRow } from './MarkRow';
import { SameScale } from './SameScale';
import { Suggestions } from './Suggestions';

const kinds = Object.keys(markViews) as Exclude<MarkKind, 'scale-card'>[];
const tools = kinds.flatMap((tool) => {
  const { word, card } = markViews[tool];
  return card ? [{ tool, word, ...card }] : [];
});
const checks = kinds.filter((kind) => isCheck({ kind })).map((tool) => ({ tool, word: markViews[tool].word }));

export function TrueUp({ picture, onStage }: { picture: Picture; onStage: (stage: StageName) => void }) {
  const { tool, taken, dragged } = useTable(useShallow((s) => ({ tool: s.tool, taken: s.taken, dragged: s.dragged })));
  const run = useJob((s) => s.run);
  const job = useJob((s) => s.job);
  const finishWord = useFinishWord('true-up');
  const raster = useRasterSource(picture);
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
    if (picture.locked) return setMessage(words.trueUp.thisPictureIsLockedUnlockIt);
    if (wanted !== 'box') return takeTool(tool === wanted && !isGiven.current ? null : wanted);
    isGiven.current = false;
    takeTool(null);
    const coordinates = coordinatesOf(picture, raster, { scale: 1, x: 0, y: 0 });
    void addBox(run, picture, coordinates).then(setMessage);
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
  const pulling = shown.marks.filter((m) => !isCheck(m));
  const checking = shown.marks.filter(isCheck);
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
        canEnd={tool !== null && isOpenEnded(tool) && taken.length >= placesOf(tool).min}
      />
      <Suggestions picture={picture} />
      <SameScale picture={picture} fit={fit} />
      {pulling.length > 0 && (
        <Section title={words.trueUp.marks}>
          {pulling.map((mark) => (
            <MarkRow key={mark.id} picture={picture} mark={mark} fit={fit} />
          ))}
        </Section>
      )}
      <FitSection picture={picture} fit={fit} />
      <Section title={words.trueUp.checkAMeasurement}>
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
    return { word: words.trueUp.nextTrace, onClick: () => onStage('trace'), disabled: fit.model === 'unsized' };
  if (tool === 'known-length') return { word: words.trueUp.clickBothEndsOfAKnown, onClick: () => {}, disabled: true };
  return { word: words.trueUp.markAKnownLength, onClick: () => takeTool('known-length') };
}

const clicksOf = (tool: Tool): readonly string[] =>
  tool === 'datum' ? [words.trueUp.datumPrompt] : tool in markViews ? markViews[tool as MarkKind].clicks : [];

function promptFor(picture: Picture, tool: Tool | null, count: number, fit: TrueUpFit): string | null {
  if (tool) {
    const prompts = clicksOf(tool);
    const text = prompts[Math.min(count, prompts.length - 1)] ?? '';
    return count > 0 ? words.trueUp.escapeTakesTheLastOneBack(text) : text;
  }
  if (picture.marks.some(isWaiting)) return words.trueUp.typeItsSize;
  if (fit.model === 'resolution') return words.trueUp.sizeFromResolution;
  if (fit.model === 'unsized') return words.trueUp.howLarge;
  return null;
}

function Prompt({ text, canEnd }: { text: string | null; canEnd: boolean }) {
  const endPlaces = useTable((s) => s.endPlaces);
  return text ? (
    <Box sx={{ borderLeft: `3px solid ${colours.verdigris}`, pl: 1.5 }}>
      <Typography role="status">{text}</Typography>
      {canEnd && (
        <Button size="small" variant="contained" sx={{ mt: 0.75 }} onClick={() => endPlaces?.()}>
          {words.trueUp.done}
        </Button>
      )}
    </Box>
  ) : null;
}
