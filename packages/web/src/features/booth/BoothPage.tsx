import { Box, Button, ThemeProvider, Typography } from '@mui/material';
import { Link, Navigate, useParams, useSearchParams } from 'react-router';
import { createSteadyTheme } from '../../app/theme';
import { Notice } from '../../shared/Notice';
import { useJobDetail } from '../../shared/useJob';
import { BoothRun } from './BoothRun';
import { TALL } from './boothStyles';
import { useBooth } from './useBooth';

const dim = createSteadyTheme('dim');

/** The run of a finish's card: the same booth, for its rungs. An address without the finish means the job's first. */
export function CardBoothPage() {
  const { id = '' } = useParams();
  const [params] = useSearchParams();
  const finishId = params.get('finish');
  const { data, error } = useJobDetail(id);
  if (finishId) return <BoothScreen id={id} finishId={finishId} />;
  if (data) return <Navigate to={`/jobs/${id}/card/booth?finish=${data.job.finishId}`} replace />;
  return <Notice title={error ? 'The booth could not be opened.' : 'Opening the booth …'} text={error?.message} />;
}

/** The booth of a job. */
export function BoothPage() {
  const { id = '' } = useParams();
  return <BoothScreen id={id} finishId={null} />;
}

/** The booth: full screen, dim, one step and one clock; works while the server is away. */
function BoothScreen({ id, finishId }: { id: string; finishId: string | null }) {
  const ofCard = finishId !== null;
  const booth = useBooth(id, finishId);
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
