import { Box, Button, ThemeProvider, Typography } from '@mui/material';
import { Link, useParams } from 'react-router';
import { createSteadyTheme } from '../../app/theme';
import { BoothRun } from './BoothRun';
import { TALL } from './boothStyles';
import { useBooth } from './useBooth';

const dim = createSteadyTheme('dim');

/** The run of a job's card: the same booth, for its rungs. */
export const CardBoothPage = () => <BoothPage ofCard />;

/** The booth: full screen, dim, one step and one clock; works while the server is away. */
export function BoothPage({ ofCard = false }: { ofCard?: boolean }) {
  const { id = '' } = useParams();
  const booth = useBooth(id, ofCard);
  return (
    <ThemeProvider theme={dim}>
      <Box
        component="main"
        sx={{
          position: 'fixed',
          inset: 0,
          overflowY: 'auto',
          background: dim.tones.page,
          color: dim.tones.ink,
          display: 'flex',
          flexDirection: 'column',
        }}
      >
        {booth.snapshot ? (
          <BoothRun jobId={id} ofCard={ofCard} log={booth.log} snapshot={booth.snapshot} failure={booth.failure} />
        ) : (
          <Box sx={{ m: 'auto', p: 4, textAlign: 'center' }}>
            <Typography variant="h1">
              {booth.failure ? 'The booth could not be opened.' : 'Opening the booth …'}
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
