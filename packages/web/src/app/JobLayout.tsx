import { Box, Button, Typography, useTheme } from '@mui/material';
import { FAMILIES } from '@steady-gleam/core';
import { useState } from 'react';
import { Link, Outlet, useNavigate, useParams } from 'react-router';
import { FilmSection } from '../shared/FilmSection';
import { JobMenu } from '../shared/JobMenu';
import { choiceOf, isPicked, openPoints, sayMix } from '../shared/jobModel';
import { UndoBar, type Done } from '../shared/UndoBar';
import { ApiFailure } from '../shared/apiClient';
import { Notice } from '../shared/Notice';
import { useLibrary } from '../shared/library';
import { useJobDetail, useJobSummary } from '../shared/useJob';
import { HEADER } from './layout';

/** Header of a job: what it is, and its film section; the place below. */
export function JobLayout() {
  const { id = '' } = useParams();
  const { tones } = useTheme();
  const { library } = useLibrary();
  const { data, error, isPending, refetch } = useJobDetail(id);
  const summary = useJobSummary(id);
  const navigate = useNavigate();
  const [undoable, setUndoable] = useState<Done | null>(null);
  if (isPending) return <Notice title="Opening the job …" />;
  if (error || !data) {
    const gone = error instanceof ApiFailure && error.code === 'notFound';
    return (
      <Notice title={gone ? 'This job is not here.' : 'The job could not be opened.'} text={error?.message}>
        {gone ? (
          <Button component={Link} to="/" variant="contained">
            Back to the jobs
          </Button>
        ) : (
          <Button onClick={() => void refetch()} variant="contained">
            Try again
          </Button>
        )}
      </Notice>
    );
  }
  const { job } = data;
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', minHeight: '100vh' }}>
      <Box
        component="header"
        sx={{
          height: HEADER,
          flex: 'none',
          borderBottom: `1px solid ${tones.hairline}`,
          display: 'flex',
          alignItems: 'center',
          gap: 3,
          px: 2.75,
        }}
      >
        <Box sx={{ width: { xs: 200, lg: 290 }, flex: 'none', minWidth: 0 }}>
          <Typography variant="h2" component="div" noWrap title={job.piece}>
            {job.piece}
          </Typography>
          <Typography
            variant="body2"
            noWrap
            title={`${sayMix(job, library)}, ${FAMILIES[job.family].name}, matching ${job.matching}`}
            sx={{ color: 'text.secondary' }}
          >
            matching {job.matching}
          </Typography>
        </Box>
        <FilmSection job={job} choice={choiceOf(job)} planned={!isPicked(job)} />
        <JobMenu
          job={job}
          open={summary && openPoints(summary)}
          onDone={(said, undo) => {
            setUndoable({ jobId: job.id, said, undo });
            if (undo.removed === false) void navigate('/');
          }}
        />
      </Box>
      {job.removedAt ? (
        <Typography role="status" sx={{ px: 2.75, py: 1, borderBottom: `1px solid ${tones.hairline}` }}>
          This job was taken out of the list. Under “Jobs” it can be put back.
        </Typography>
      ) : null}
      <UndoBar done={undoable} onGone={() => setUndoable(null)} />
      <Outlet context={data} />
    </Box>
  );
}
