import { Box, useTheme } from '@mui/material';
import type { ReactNode } from 'react';

/** A line of a list of this place: what it is, and what can be done with it. */
export function Row({ children }: { children: ReactNode }) {
  const { tones } = useTheme();
  return (
    <Box
      component="li"
      sx={{
        borderTop: `1px solid ${tones.hairline}`,
        display: 'flex',
        columnGap: 2,
        alignItems: 'center',
        minHeight: 48,
        flexWrap: 'wrap',
      }}
    >
      {children}
    </Box>
  );
}
