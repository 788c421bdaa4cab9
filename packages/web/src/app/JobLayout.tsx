import { Box, Button, Typography, useTheme } from '@mui/material';
import type { JobDetail } from '@steady-gleam/contracts';
import { filmOf, objectsOf, runOf } from '@steady-gleam/core/jobs';
import { FAMILIES } from '@steady-gleam/core/finishes';
import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useState } from 'react';
import { Link, Outlet, useLocation, useNavigate, useParams } from 'react-router';
import { Simulated } from '../shared/devices/Simulated';
import { FinishPicker } from '../shared/FinishPicker';
import { FilmSection } from '../shared/film/FilmSection';
import { JobMenu } from '../shared/JobMenu';
import { pickOf, isPicked, openPoints, sayMatching, sayMix } from '../shared/jobModel';
import { useLog } from '../shared/log/useLog';
import { ObjectPicker } from '../shared/ObjectPicker';
import { UndoBar, type Done } from '../shared/UndoBar';
import { ApiFailure } from '../shared/apiClient';
import { Notice } from '../shared/Notice';
import { useLibrary } from '../shared/library';
import { JOB_LIST, jobKey, ofObject, useFinishDetail, useJobDetail, useJobSummary, usePicked } from '../shared/useJob';
import { JobLogContext, useJobWork } from '../shared/useJobWork';
import { HEADER, NARROW } from './layout';

/** Places that are about one finish of a job. */
const COLOUR_PLACES = ['target', 'find', 'map', 'recipes', 'sample', 'card'];

/** A job: its log for every page of it, its header, and the place below. */
export function JobLayout() {
  const { id = '' } = useParams();
  const client = useQueryClient();
  const { data, error, isPending, refetch } = useJobDetail(id);
  const log = useLog(
    id,
    false,
    useCallback(() => {
      void client.invalidateQueries({ queryKey: JOB_LIST });
      void client.invalidateQueries({ queryKey: [...jobKey(id), 'stands'] });
    }, [client, id]),
  );
  if (isPending) return <Notice title="Opening the job …" />;
  const gone = error instanceof ApiFailure && error.code === 'notFound';
  // What this device knew stands while the server is away; not what the server says is gone.
  if (!data || gone) {
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
  const [object, pickObject] = usePicked('object', job.id, objects);
  const [finish, pickFinish] = usePicked('finish', job.id, detail.finishes);
  // The first is what the job is about by itself; and only the pages of the colour are about one finish.
  const place = useLocation().pathname.split('/').at(-1)!;
  const ofColour = COLOUR_PLACES.includes(place);
  const about = ofColour && finish !== null && finish !== job.finishId ? finish : null;
  const { data: shown, error: gone } = useFinishDetail(job.id, about);
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
          [NARROW]: { height: 'auto', minHeight: HEADER, flexWrap: 'wrap', columnGap: 1.5, rowGap: 1, py: 1 },
        }}
      >
        <Box sx={{ width: { xs: 200, lg: 290 }, flex: 'none', minWidth: 0, [NARROW]: { flex: '1 1 120px' } }}>
          <Typography variant="h2" component="div" noWrap title={job.piece}>
            {job.piece}
          </Typography>
          <Typography
            variant="body2"
            noWrap
            title={`${sayMix(job, library)}, ${FAMILIES[job.family].name}, ${sayMatching(job)}`}
            sx={{ color: 'text.secondary' }}
          >
            {sayMatching(job)}
          </Typography>
        </Box>
        {job.tryOut ? <Simulated>try-out, simulated</Simulated> : null}
        {ofColour && detail.finishes.length > 1 ? (
          <FinishPicker finishes={detail.finishes} picked={finish ?? job.finishId} onPick={pickFinish} />
        ) : null}
        {about === null && objects.length > 1 ? (
          <ObjectPicker objects={objects} picked={object} onPick={pickObject} />
        ) : null}
        <Box sx={{ display: 'flex', flex: 1, minWidth: 0, [NARROW]: { order: 1, flexBasis: '100%' } }}>
          <FilmSection
            job={job}
            pick={pickOf(job)}
            film={isPicked(job) ? filmOf(plan, state) : null}
            planned={!isPicked(job)}
            told={detail.colours}
          />
        </Box>
        <Box sx={{ flex: 'none', [NARROW]: { ml: 'auto' } }}>
          <JobMenu
            job={job}
            open={summary && openPoints({ ...summary, run: runOf(plan, state) })}
            onDone={(said, undo) => {
              setUndoable({ jobId: job.id, said, undo });
              if (undo.removed === false) void navigate('/');
            }}
          />
        </Box>
      </Box>
      {job.removedAt ? (
        <Typography role="status" sx={{ px: 2.75, py: 1, borderBottom: `1px solid ${tones.hairline}` }}>
          This job was taken out of the list. Under “Jobs” it can be put back.
        </Typography>
      ) : null}
      {log.refused.length ? (
        <Typography role="alert" sx={{ px: 2.75, py: 1, borderBottom: `1px solid ${tones.hairline}` }}>
          {log.refused.length === 1 ? 'One entry was' : `${log.refused.length} entries were`} refused and{' '}
          {log.refused.length === 1 ? 'counts' : 'count'} for nothing: {log.refused[0]!.reason}{' '}
          <Link to="/shop#here" style={{ color: 'inherit' }}>
            See what it was
          </Link>
        </Typography>
      ) : null}
      <UndoBar done={undoable} onGone={() => setUndoable(null)} />
      {about === null ? (
        <Outlet context={ofObject(detail, object)} />
      ) : shown ? (
        <Outlet key={about} context={ofObject(shown, null, about)} />
      ) : (
        <Notice title={gone ? 'This finish could not be opened.' : 'Opening the finish …'} text={gone?.message} />
      )}
    </Box>
  );
}
