'use client';
/**
 * A part of the screen that has failed: it says so in its place, and the rest of the page goes on.
 */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { Component, type ReactNode } from 'react';
import { words } from '@/words';

export function Stumbled({ error, onAgain }: { error: Error; onAgain: () => void }) {
  return (
    <Box role="alert" sx={{ display: 'grid', placeItems: 'center', p: 3, minHeight: 160 }}>
      <Alert
        severity="error"
        action={
          <Button color="inherit" size="small" onClick={onAgain}>
            {words.ui.tryAgain}
          </Button>
        }
      >
        <Typography sx={{ fontWeight: 600 }}>{words.ui.thisPartOfThePageHas}</Typography>
        <Typography variant="body2">{words.ui.yourWorkIsKept(error.message)}</Typography>
      </Alert>
    </Box>
  );
}

/** Keeps a failure of what it holds to itself. */
export class Boundary extends Component<{ readonly children: ReactNode }, { readonly error: Error | null }> {
  override state: { readonly error: Error | null } = { error: null };

  static getDerivedStateFromError(error: Error) {
    return { error };
  }

  override render() {
    const { error } = this.state;
    return error ? <Stumbled error={error} onAgain={() => this.setState({ error: null })} /> : this.props.children;
  }
}
