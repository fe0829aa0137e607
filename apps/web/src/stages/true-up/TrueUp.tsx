'use client';
import DeleteOutlined from '@mui/icons-material/DeleteOutlined';
import HeightOutlined from '@mui/icons-material/HeightOutlined';
import HorizontalRuleOutlined from '@mui/icons-material/HorizontalRuleOutlined';
import SquareFootOutlined from '@mui/icons-material/SquareFootOutlined';
import StraightenOutlined from '@mui/icons-material/StraightenOutlined';
import Box from '@mui/material/Box';
import IconButton from '@mui/material/IconButton';
import Tooltip from '@mui/material/Tooltip';
import Typography from '@mui/material/Typography';
import { fitOf, type Mark, type Picture } from '@nuvet/core/job';
import { printBoth, printInches, printMm } from '@nuvet/core/length';
import { distance } from '@nuvet/core/plane';
import type { LeftOver, TrueUpFit } from '@nuvet/core/trueup';
import { useHotkeys } from 'react-hotkeys-hook';
import { setTable, type Tool, takeTool, useTable } from '@/table/table-store';
import { LengthField } from '@/ui/LengthField';
import { colours } from '@/ui/theme';
import { Docket, Reading, Section, ToolCard } from '../Docket';
import { useJob } from '../job-store';
import type { StageName } from '../stage';

const tools: { tool: Tool; word: string; hotkey: string; explanation: string; icon: React.ReactNode }[] = [
  {
    tool: 'known-length',
    word: 'Known length',
    hotkey: 'K',
    explanation: 'Mark two points whose distance you know',
    icon: <StraightenOutlined />,
  },
  {
    tool: 'level',
    word: 'Level line',
    hotkey: 'L',
    explanation: 'Mark a line that must come out horizontal',
    icon: <HorizontalRuleOutlined />,
  },
  { tool: 'plumb', word: 'Plumb line', hotkey: 'P', explanation: 'Mark a line that must come out vertical', icon: <HeightOutlined /> },
  { tool: 'check', word: 'Measure', hotkey: 'M', explanation: 'Measure anything to check; it pulls nothing', icon: <SquareFootOutlined /> },
];

const markWords: Record<Mark['kind'], string> = {
  'known-length': 'Known length',
  level: 'Level line',
  plumb: 'Plumb line',
  check: 'Measured',
};

export function TrueUp({ picture, onStage }: { picture: Picture; onStage: (stage: StageName) => void }) {
  const { tool, firstEnd, dragged } = useTable();
  useHotkeys('k,l,p,m', (_, { keys }) => {
    const found = tools.find((t) => t.hotkey.toLowerCase() === keys?.join(''));
    if (found) takeTool(found.tool);
  });
  useHotkeys('escape', () => {
    const state = useTable.getState();
    if (state.firstEnd) setTable({ firstEnd: null });
    else if (state.tool) takeTool(null);
    else setTable({ selectedEnd: null });
  });
  // While a mark is dragged the docket already reads as it will be.
  const shown: Picture = dragged
    ? { ...picture, marks: picture.marks.map((m) => (m.id === dragged.markId ? { ...m, a: dragged.a, b: dragged.b } : m)) }
    : picture;
  const fit = distanceIsEnough(shown) ? fitOf(shown) : fitOf(picture);
  return (
    <Docket
      tray={tools.map((t) => (
        <ToolCard key={t.tool} {...t} isInHand={tool === t.tool} onClick={() => takeTool(tool === t.tool ? null : t.tool)} />
      ))}
      next={nextStep(picture, fit, tool, onStage)}
    >
      <Prompt text={promptFor(picture, tool, firstEnd !== null, fit)} />
      {picture.marks.length > 0 && (
        <Section title="Marks">
          {shown.marks.map((mark) => (
            <MarkRow key={mark.id} picture={picture} mark={mark} fit={fit} />
          ))}
        </Section>
      )}
      <Size fit={fit} />
    </Docket>
  );
}

const distanceIsEnough = (picture: Picture): boolean => picture.marks.every((m) => distance(m.a, m.b) >= 0.5);

/** A picture without a size wants a known length first; Trace can still be entered from the top. */
function nextStep(picture: Picture, fit: TrueUpFit, tool: Tool | null, onStage: (stage: StageName) => void) {
  const isWaiting = picture.marks.some((m) => m.kind === 'known-length' && m.mm === null);
  if (fit.model !== 'unsized' || isWaiting)
    return { word: 'Next: trace', onClick: () => onStage('trace'), disabled: fit.model === 'unsized' };
  return { word: 'Mark a known length', onClick: () => takeTool('known-length'), disabled: tool === 'known-length' };
}

const firstClick: Record<Tool, string> = {
  'known-length': 'Click one end of a length that you know.',
  level: 'Click one end of a line that must be level.',
  plumb: 'Click one end of a line that must be upright.',
  check: 'Click one end of what you want to measure.',
};

function promptFor(picture: Picture, tool: Tool | null, hasFirst: boolean, fit: TrueUpFit): string | null {
  if (tool) return hasFirst ? 'Click the other end. Escape takes the first one back.' : firstClick[tool];
  if (picture.marks.some((m) => m.kind === 'known-length' && m.mm === null)) return 'Now type how long it truly is, as you would say it.';
  if (fit.model === 'resolution') return 'The size comes from the resolution in the file. Mark one length that you know to be sure of it.';
  if (fit.model === 'unsized')
    return 'How large is it really? Take “Known length”, click the two ends of something you can measure, and type its length.';
  return null;
}

function Prompt({ text }: { text: string | null }) {
  return text ? (
    <Typography role="status" sx={{ borderLeft: `3px solid ${colours.verdigris}`, pl: 1.5 }}>
      {text}
    </Typography>
  ) : null;
}

function MarkRow({ picture, mark, fit }: { picture: Picture; mark: Mark; fit: TrueUpFit }) {
  const { run, unit } = { run: useJob((s) => s.run), unit: useJob((s) => s.job.unit) };
  const { asked, selectedEnd } = useTable();
  const leftOver = fit.leftOvers.find((l) => l.id === mark.id);
  const isSelected = selectedEnd?.markId === mark.id;
  return (
    <Box
      data-mark={mark.kind}
      onFocus={() => !isSelected && setTable({ selectedEnd: { markId: mark.id, end: 'b' } })}
      sx={{
        py: 1,
        px: 1,
        mx: -1,
        borderRadius: 1,
        bgcolor: isSelected ? 'rgba(30, 123, 107, 0.08)' : undefined,
        '& + &': { borderTop: `1px solid ${colours.line}` },
      }}
    >
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
        <Typography variant="body2" sx={{ flex: 1, fontWeight: 600 }}>
          {markWords[mark.kind]}
        </Typography>
        {mark.kind !== 'known-length' && (
          <Typography variant="body2" sx={{ fontWeight: 550 }}>
            {mark.kind === 'check' ? measuredText(mark, fit, unit) : <Direction leftOver={leftOver} />}
          </Typography>
        )}
        <Tooltip title="Take this mark away (Delete)">
          <IconButton
            size="small"
            aria-label={`Take away: ${markWords[mark.kind]}`}
            onClick={() => run({ do: 'remove-mark', pictureId: picture.id, markId: mark.id })}
          >
            <DeleteOutlined fontSize="small" />
          </IconButton>
        </Tooltip>
      </Box>
      {mark.kind === 'known-length' && (
        <Box sx={{ mt: 1 }}>
          <LengthField
            label="Its true length"
            text={mark.text}
            unit={unit}
            placeholder="such as 74 mm or 6in"
            takesFocus={asked === mark.id}
            hint={leftOver ? undefined : 'such as 74.06, 6in, 2,5 cm or 4\' 5 1/2"'}
            onLength={(mm, text) => {
              run({ do: 'set-length', pictureId: picture.id, markId: mark.id, text, mm });
              setTable({ asked: null });
            }}
          />
          {leftOver?.kind === 'known-length' && fit.leftOvers.filter((l) => l.kind === 'known-length').length > 1 && (
            <Reading name="Left over" tone={Math.abs(leftOver.offPercent) > 0.5 ? 'error' : undefined}>
              {signed(leftOver.offMm)} mm · {signed(leftOver.offPercent)} %
            </Reading>
          )}
        </Box>
      )}
    </Box>
  );
}

/** Before the true size is known a distance is only so many pixels. */
function measuredText({ a, b }: Mark, fit: TrueUpFit, unit: 'mm' | 'in'): string {
  return fit.model === 'unsized' ? `${distance(a, b).toFixed(1)} px` : printBoth(distance(a, b) * fit.mmPerPx, unit);
}

const signed = (value: number): string => `${value < 0 ? '−' : '+'}${Math.abs(value).toFixed(2)}`;

function Direction({ leftOver }: { leftOver: LeftOver | undefined }) {
  if (!leftOver || leftOver.kind === 'known-length') return null;
  return <>off by {Math.abs(leftOver.offMm).toFixed(2)} mm</>;
}

function Size({ fit }: { fit: TrueUpFit }) {
  const isKnown = fit.model !== 'unsized';
  return (
    <Section title="True size">
      <Reading name="Scale">{isKnown ? `${fit.mmPerPx.toFixed(5)} mm per px` : 'not known yet'}</Reading>
      <Reading name="Resolution">{isKnown ? `${(25.4 / fit.mmPerPx).toFixed(2)} dpi` : 'not known yet'}</Reading>
      <Reading name="Turned by">{signed((fit.turn * 180) / Math.PI)}°</Reading>
      {isKnown && (
        <Reading name="Whole picture">
          {fit.sheetWidthMm.toFixed(2)} x {printMm(fit.sheetHeightMm)}
          <br />
          {printInches(fit.sheetWidthMm).replace(' in', '')} x {printInches(fit.sheetHeightMm)}
        </Reading>
      )}
    </Section>
  );
}
