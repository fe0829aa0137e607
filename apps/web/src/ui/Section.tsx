'use client';
/**
 * A part of a panel under its heading, and rows of readings in it.
 */
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';

/** A row of a small table: what, and how much. */
export function Reading({ name, children, tone }: { name: string; children: ReactNode; tone?: 'error' | 'warning' }) {
  return (
    <Box sx={{ display: 'flex', justifyContent: 'space-between', gap: 2, py: 0.35 }}>
      <Typography variant="body2" color="textSecondary">
        {name}
      </Typography>
      <Typography variant="body2" component="div" sx={{ textAlign: 'right', fontWeight: 550, color: tone ? `${tone}.main` : undefined }}>
        {children}
      </Typography>
    </Box>
  );
}

export function Section({ title, children }: { title: string; children: ReactNode }) {
  return (
    <Box component="section">
      <Typography variant="h3" component="h2" sx={{ mb: 0.5 }}>
        {title}
      </Typography>
      {children}
    </Box>
  );
}
