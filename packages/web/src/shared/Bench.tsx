import { Box, useTheme } from '@mui/material';
import type { ReactNode } from 'react';
import { HEADER, NARROW } from '../app/layout';

/** A place: the work on the left, what follows from it in a panel on the right, below it where there is no room. */
export function Bench({
  children,
  side,
  standalone = false,
}: {
  children: ReactNode;
  side: ReactNode;
  /** Without a job's header above it. */
  standalone?: boolean;
}) {
  const { tones } = useTheme();
  // As high as the window; where there is more in one of them, the page is as high: there is one scroll bar.
  const high = standalone ? '100vh' : `calc(100vh - ${HEADER}px)`;
  return (
    <Box sx={{ display: 'flex', flex: 1, [NARROW]: { flexDirection: 'column' } }}>
      <Box
        data-column
        sx={{
          ...{ flex: 1, minWidth: 0, minHeight: high, p: '18px 22px 16px', display: 'flex', flexDirection: 'column' },
          // What fills the window fills no more where the panel is higher.
          alignSelf: 'flex-start',
          [NARROW]: { alignSelf: 'stretch', minHeight: 0 },
        }}
      >
        {children}
      </Box>
      <Box
        component="aside"
        sx={{
          width: { xs: 300, lg: 332 },
          flex: 'none',
          background: tones.panel,
          borderLeft: `1px solid ${tones.hairline}`,
          [NARROW]: { width: 'auto', borderLeft: 0, borderTop: `1px solid ${tones.hairline}` },
        }}
      >
        <Box
          sx={{
            position: 'sticky',
            top: 0,
            minHeight: high,
            p: '18px 18px 16px',
            display: 'flex',
            flexDirection: 'column',
            gap: 1.5,
            [NARROW]: { position: 'static', minHeight: 0 },
          }}
        >
          {side}
        </Box>
      </Box>
    </Box>
  );
}
