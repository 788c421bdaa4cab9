import { Box, Button, Typography, type Theme } from '@mui/material';
import { ThemeProvider } from '../../ui/ThemeProvider';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import type { BoothSnapshot } from '../../shared/log/device';
import { TALL } from './boothStyles';
import type { Booth } from './useBooth';

/** A screen of its own, without the rail: what is shown once the job is here, or why it can't be. */
export function FullScreen({
  theme,
  booth,
  name,
  children,
}: {
  theme: Theme;
  booth: Booth;
  /** What is opened, as in "The booth". */
  name: string;
  children: (snapshot: BoothSnapshot) => ReactNode;
}) {
  return (
    <ThemeProvider theme={theme}>
      <Box
        component="main"
        sx={{
          position: 'fixed',
          inset: 0,
          overflowY: 'auto',
          background: theme.tones.page,
          color: theme.tones.ink,
          display: 'flex',
          flexDirection: 'column',
        }}
      >
        {booth.snapshot ? (
          children(booth.snapshot)
        ) : (
          <Box sx={{ m: 'auto', p: 4, textAlign: 'center' }}>
            <Typography variant="h1">
              {booth.failure ? `${name} could not be opened.` : `Opening ${name.toLowerCase()} …`}
            </Typography>
            {booth.failure ? (
              <>
                <Typography sx={{ mt: 1, mb: 2 }}>
                  {booth.failure} A job that was open in the booth before opens without the server too.
                </Typography>
                <Button component={Link} to="/" variant="contained" sx={TALL}>
                  Back to the jobs
                </Button>
              </>
            ) : null}
          </Box>
        )}
      </Box>
    </ThemeProvider>
  );
}
