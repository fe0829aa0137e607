'use client';
/**
 * Which of the three trays of this stage is out: find outlines in the picture, draw them, correct them.
 */
import ToggleButton from '@mui/material/ToggleButton';
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup';
import { type Tray, takeTray, useHand } from '@/table/hand-store';
import { takeTool } from '@/table/table-store';
import { words } from '@/words';

const trayWords: Record<Tray, string> = { find: words.byHand.find, draw: words.byHand.draw, correct: words.byHand.correct };

export function TraySwitch({ trays = ['find', 'draw', 'correct'] }: { trays?: readonly Tray[] }) {
  const tray = useHand((s) => s.tray);
  return (
    <ToggleButtonGroup
      exclusive
      fullWidth
      size="small"
      color="primary"
      value={tray}
      aria-label={words.byHand.tray}
      onChange={(_, next: Tray | null) => {
        if (!next) return;
        takeTool(null);
        takeTray(next);
      }}
      sx={{ gridColumn: '1 / -1', '& button': { textTransform: 'none', py: 0.4, fontWeight: 650 } }}
    >
      {trays.map((one) => (
        <ToggleButton key={one} value={one}>
          {trayWords[one]}
        </ToggleButton>
      ))}
    </ToggleButtonGroup>
  );
}
