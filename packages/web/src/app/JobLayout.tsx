import { Box, Button, Typography, useTheme } from '@mui/material';
import { filmOf, objectsOf, runOf, type JobDetail } from '@steady-gleam/contracts';
import { FAMILIES } from '@steady-gleam/core';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { Link, Outlet, useNavigate, useParams } from 'react-router';
import { FilmSection } from '../shared/FilmSection';
import { JobMenu } from '../shared/JobMenu';
import { choiceOf, isPicked, openPoints, sayMix } from '../shared/jobModel';
import { useLog } from '../shared/log/useLog';
import { ObjectPicker } from '../shared/ObjectPicker';
import { UndoBar, type Done } from '../shared/UndoBar';
import { ApiFailure } from '../shared/apiClient';
import { Notice } from '../shared/Notice';
import { useLibrary } from '../shared/library';
import { ofObject, useJobDetail, useJobSummary, usePickedObject } from '../shared/useJob';
import { JobLogContext, useJobWork } from '../shared/useJobWork';
import { HEADER } from './layout';

/** A job: its log for every page of it, its header, and the place below. */
export function JobLayout() {
  const { id = '' } = useParams();
  const client = useQueryClient();
  const { data, error, isPending, refetch } = useJobDetail(id);
  const log = useLog(
    id,
    false,
    useCallback(() => void client.invalidateQueries({ queryKey: ['jobs'], exact: true }), [client]),
  );
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
  return (
    <JobLogContext value={log}>
      <JobFrame detail={data} />
    </JobLogContext>
  );
}

/** Header of a job: what it is, its film section as its log has it, and which of its objects the pages are about. */
function JobFrame({ detail }: { detail: JobDetail }) {
  const { tones } = useTheme();
  const { library } = useLibrary();
  const { job } = detail;
  const summary = useJobSummary(job.id);
  const navigate = useNavigate();
  const [undoable, setUndoable] = useState<Done | null>(null);
  const { plan, state, log } = useJobWork(detail);
  const objects = objectsOf(job);
  const [picked, pick] = usePickedObject(job.id, objects);
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
        {objects.length > 1 ? <ObjectPicker objects={objects} picked={picked} onPick={pick} /> : null}
        <FilmSection
          job={job}
          choice={choiceOf(job)}
          film={isPicked(job) ? filmOf(plan, state) : null}
          planned={!isPicked(job)}
        />
        <JobMenu
          job={job}
          open={summary && openPoints({ ...summary, run: runOf(plan, state) })}
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
      {log.refused.length ? (
        <Typography role="alert" sx={{ px: 2.75, py: 1, borderBottom: `1px solid ${tones.hairline}` }}>
          {log.refused.length === 1 ? 'One entry was' : `${log.refused.length} entries were`} refused and{' '}
          {log.refused.length === 1 ? 'counts' : 'count'} for nothing: {log.refused[0]!.reason}
        </Typography>
      ) : null}
      <UndoBar done={undoable} onGone={() => setUndoable(null)} />
      <Outlet context={ofObject(detail, picked)} />
    </Box>
  );
}
