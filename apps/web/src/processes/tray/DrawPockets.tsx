'use client';
/** The pockets as outlines of the job, so that any of its processes can cut them: through the uppermost sheet, or as pockets. */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import type { Drawn } from '@nuvet/core/job';
import { boxAroundBoxes, type Path, pathBox, shift, transformedPath } from '@nuvet/core/plane';
import { drawnByTray, type TrayPlan } from '@nuvet/core/tray';
import { useState } from 'react';
import { useJob } from '@/job/job-store';
import { Pick } from '@/ui/Rows';
import { Section } from '@/ui/Section';
import { words } from '@/words';

const say = words.tray;
const apartMm = 20;

export function DrawPockets({ plan }: { plan: TrayPlan }) {
  const job = useJob((s) => s.job);
  const run = useJob((s) => s.run);
  const [purpose, setPurpose] = useState<'cut' | 'pocket'>('cut');
  const [count, setCount] = useState<number | null>(null);
  const draw = () => {
    const by = outlinesOf(plan, purpose);
    run({ do: 'replace-drawn', word: say.draw, ids: job.drawn.filter(({ id }) => id.startsWith(drawnByTray)).map(({ id }) => id), by });
    setCount(by.reduce((sum, { source }) => sum + (source.kind === 'paths' ? source.paths.length : 0), 0));
  };
  return (
    <Section title={say.draw}>
      <Typography variant="caption" color="textSecondary" sx={{ display: 'block', mb: 1 }}>
        {say.drawAbout}
      </Typography>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr auto', gap: 1, alignItems: 'center' }}>
        <Pick label={say.drawAs} value={purpose} words={say.drawnAs} onPick={setPurpose} />
        <Button variant="outlined" onClick={draw}>
          {say.drawNow}
        </Button>
      </Box>
      {count !== null && (
        <Alert severity="success" variant="outlined" sx={{ mt: 1 }}>
          {say.drawn(count)}
        </Alert>
      )}
    </Section>
  );
}

/** Above all that was photographed: the sheet with its pockets, and the numbers. */
function outlinesOf({ layers, pockets }: TrayPlan, purpose: 'cut' | 'pocket'): Drawn[] {
  const box = boxAroundBoxes(pockets.map(({ seen }) => pathBox(seen)));
  const to = shift(box?.minX ?? 0, (box?.maxY ?? 0) + apartMm);
  const [sheet] = layers;
  const drawn = (what: string, name: string, of: Drawn['purpose'], paths: readonly Path[]): Drawn[] =>
    paths.length === 0
      ? []
      : [{ id: `${drawnByTray}${what}-${crypto.randomUUID().slice(0, 8)}`, name, purpose: of, leftOut: false, source: { kind: 'paths', paths: paths.map((path) => transformedPath(path, to)) }, live: [] }]; // biome-ignore format: one line
  if (!sheet) return [];
  const numerals = pockets.flatMap(({ numeral }) => numeral);
  const whole = purpose === 'cut' ? [sheet.outer, ...sheet.pockets] : [sheet.outer];
  return [
    ...drawn('sheet', say.drawer, 'cut', whole),
    ...(purpose === 'pocket' ? drawn('pockets', say.pockets, 'pocket', sheet.pockets) : []),
    ...drawn('numbers', say.numbersName, 'engrave', numerals),
  ];
}
