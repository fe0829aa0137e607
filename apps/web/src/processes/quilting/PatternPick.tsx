'use client';
/** The choice of a pattern to quilt along; arrow keys step through them at the same place and size. */
import ChevronLeftOutlined from '@mui/icons-material/ChevronLeftOutlined';
import ChevronRightOutlined from '@mui/icons-material/ChevronRightOutlined';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { isLineMotif, isRowPattern, type LinePattern, lineMotifs, linePatterns, rowPatterns } from '@nuvet/core/quilting';
import { Pick } from '@/ui/Rows';
import { words } from '@/words';

const say = words.quilting;

const wordOf = (name: LinePattern): string => {
  if (isRowPattern(name)) return rowPatterns[name].word;
  return isLineMotif(name) ? lineMotifs[name].word : say.fillings[name];
};
export const patternWords = Object.fromEntries(linePatterns.map((name) => [name, wordOf(name)])) as Record<LinePattern, string>;

export function PatternPick({ pattern, onPattern }: { pattern: LinePattern; onPattern: (pattern: LinePattern) => void }) {
  const step = (by: number) =>
    onPattern(linePatterns[(linePatterns.indexOf(pattern) + by + linePatterns.length) % linePatterns.length] as LinePattern);
  return (
    <Box
      sx={{ display: 'grid', gridTemplateColumns: '1fr auto auto', gap: 0.5, alignItems: 'center' }}
      onKeyDownCapture={(event) => {
        if (event.key !== 'ArrowRight' && event.key !== 'ArrowLeft') return;
        event.stopPropagation();
        step(event.key === 'ArrowRight' ? 1 : -1);
      }}
    >
      <Pick label={say.pattern} value={pattern} words={patternWords} onPick={onPattern} />
      <Button size="small" sx={{ minWidth: 40 }} aria-label={say.patternBefore} onClick={() => step(-1)}>
        <ChevronLeftOutlined />
      </Button>
      <Button size="small" sx={{ minWidth: 40 }} aria-label={say.patternNext} onClick={() => step(1)}>
        <ChevronRightOutlined />
      </Button>
    </Box>
  );
}
