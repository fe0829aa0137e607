'use client';
/**
 * The docket's frame: tray at the head, what the stage knows in the middle, the one next thing to do at the foot.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Tooltip from '@mui/material/Tooltip';
import { type ReactNode, useEffect, useRef } from 'react';
import { useTable } from '@/table/table-store';
import { colours } from '@/ui/colours';
import { narrow, touch, wide } from '@/ui/widths';
import { words } from '@/words';

interface Props {
  readonly tray?: ReactNode;
  readonly children: ReactNode;
  readonly next?: NextStep;
  /** All the rest at once, where nothing is in doubt. */
  readonly rest?: NextStep;
}

export interface NextStep {
  readonly word: string;
  readonly onClick: () => void;
  readonly disabled?: boolean;
}

export function Docket({ tray, children, next, rest }: Props) {
  const frame = useRef<HTMLElement>(null);
  const isAside = useTable((s) => s.isDocketAside);
  // A new stage’s controls are the next that Tab comes to.
  useEffect(() => {
    if (document.activeElement === document.body || document.activeElement?.closest('nav')) frame.current?.focus({ preventScroll: true });
  }, []);
  return (
    <Box
      component="aside"
      id="docket"
      ref={frame}
      tabIndex={-1}
      aria-label={words.job.docket}
      sx={{
        display: 'flex',
        flexDirection: 'column',
        minHeight: 0,
        bgcolor: 'background.paper',
        borderRight: `1px solid ${colours.line}`,
        outline: 'none',
        [narrow]: isAside ? { visibility: 'hidden', minWidth: 0, overflow: 'hidden' } : {},
      }}
    >
      {tray && (
        <Box sx={{ p: 1.5, borderBottom: `1px solid ${colours.line}`, display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
          {tray}
        </Box>
      )}
      <Box
        sx={{
          flex: 1,
          overflowY: 'auto',
          overflowX: 'hidden',
          p: 2,
          display: 'flex',
          flexDirection: 'column',
          gap: 2,
          // What lies below the fold is announced by its edge.
          background: `linear-gradient(${colours.sheet} 30%, transparent) top / 100% 28px no-repeat local, linear-gradient(transparent, ${colours.sheet} 70%) bottom / 100% 28px no-repeat local, linear-gradient(rgba(32, 48, 58, 0.16), transparent) top / 100% 9px no-repeat scroll, linear-gradient(transparent, rgba(32, 48, 58, 0.16)) bottom / 100% 9px no-repeat scroll`,
          [wide]: { display: 'block', columnCount: 2, columnGap: 3, '& > *': { breakInside: 'avoid', mb: 2 } },
        }}
      >
        {children}
      </Box>
      {next && (
        <Box sx={{ p: 1.5, borderTop: `1px solid ${colours.line}`, display: 'grid', gap: 1 }}>
          <Button fullWidth variant="contained" size="large" onClick={next.onClick} disabled={next.disabled}>
            {next.word}
          </Button>
          {rest && (
            <Button fullWidth variant="outlined" onClick={rest.onClick} disabled={rest.disabled}>
              {rest.word}
            </Button>
          )}
        </Box>
      )}
    </Box>
  );
}

interface ToolCardProps {
  readonly icon: ReactNode;
  readonly word: string;
  readonly hotkey?: string;
  readonly explanation: string;
  readonly isInHand?: boolean;
  readonly disabled?: boolean;
  readonly onClick: () => void;
}

/** A tool of the tray: its drawing and its word, its key in the tooltip. */
export function ToolCard({ icon, word, hotkey, explanation, isInHand = false, disabled = false, onClick }: ToolCardProps) {
  return (
    <Tooltip title={hotkey ? `${explanation} (${hotkey})` : explanation} placement="right" disableInteractive>
      <Box component="span" sx={{ display: 'block' }}>
        <Button
          fullWidth
          variant={isInHand ? 'contained' : 'outlined'}
          color={isInHand ? 'primary' : 'inherit'}
          startIcon={icon}
          disabled={disabled}
          aria-pressed={isInHand}
          onClick={onClick}
          sx={{
            justifyContent: 'flex-start',
            px: 1.25,
            py: 0.9,
            borderColor: colours.line,
            lineHeight: 1.2,
            textAlign: 'left',
            [touch]: { minHeight: 44 },
          }}
        >
          {word}
        </Button>
      </Box>
    </Tooltip>
  );
}
