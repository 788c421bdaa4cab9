import { Box, Typography } from '@mui/material';
import type { ReactNode } from 'react';

/** A whole place that has only one thing to say: loading, empty, gone, offline. */
export function Notice({ title, text, children }: { title: string; text?: string | undefined; children?: ReactNode }) {
  return (
    <Box sx={{ p: 4, maxWidth: 620 }} role="status">
      <Typography variant="h1">{title}</Typography>
      {text ? <Typography sx={{ mt: 1, color: 'text.secondary' }}>{text}</Typography> : null}
      {children ? <Box sx={{ mt: 3, display: 'flex', gap: 1.5 }}>{children}</Box> : null}
    </Box>
  );
}
