import { Box, Typography } from '@mui/material';
import type { ReactNode } from 'react';

/** The sentence that answers a screen's question, and the reason below it. */
export function Answer({ children, why }: { children: ReactNode; why?: ReactNode }) {
  return (
    <Box sx={{ mb: 2 }} aria-live="polite">
      <Typography variant="h1" data-testid="answer">
        {children}
      </Typography>
      {why ? <Typography sx={{ mt: 0.5, color: 'text.secondary', maxWidth: '78ch' }}>{why}</Typography> : null}
    </Box>
  );
}
