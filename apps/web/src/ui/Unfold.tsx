'use client';
/** The head of a row that unfolds: its name, what is to be known of it at a glance, and the press that opens it. */
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';

interface Props {
  readonly name: string;
  readonly summary: string;
  readonly isOpen: boolean;
  readonly onOpen: (isOpen: boolean) => void;
  /** What the press does, where the name does not say it. */
  readonly label?: string;
}

export function Unfold({ name, summary, isOpen, onOpen, label }: Props) {
  return (
    <Box
      component="button"
      type="button"
      aria-expanded={isOpen}
      aria-label={label}
      onClick={() => onOpen(!isOpen)}
      sx={{
        flex: 1,
        minWidth: 0,
        border: 0,
        bgcolor: 'transparent',
        textAlign: 'left',
        cursor: 'pointer',
        font: 'inherit',
        color: 'inherit',
        py: 0.5,
        px: 0,
      }}
    >
      <Typography variant="body2" sx={{ fontWeight: 600 }}>
        {name}
      </Typography>
      <Typography variant="caption" color="textSecondary" sx={{ display: 'block' }}>
        {summary}
      </Typography>
    </Box>
  );
}
