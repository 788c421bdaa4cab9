import { Button, Typography } from '@mui/material';
import { logApi } from '@steady-gleam/contracts';
import { jobState, workOfCard } from '@steady-gleam/core/jobs';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { call } from '../../shared/apiClient';
import { pickOf } from '../../shared/jobModel';
import { timeSaid } from '../../shared/timeOfDay';
import { useNow } from '../../shared/useNow';
import type { PageDetail } from '../../shared/useJob';
import type { JobWorked } from '../../shared/useJobWork';

/** The way into the card's own run, and how far it is. */
export function CardRun({ detail, work }: { detail: PageDetail; work: JobWorked }) {
  const { job, card } = detail;
  const now = useNow(60_000);
  const { data: events = [] } = useQuery({
    queryKey: ['card log', job.finishId],
    queryFn: () => call(logApi.readCardLog, { params: { id: job.finishId } }),
    refetchInterval: 10_000,
  });
  const run = card && workOfCard({ ...work, job, card, pick: pickOf(job) });
  if (!run) return null;
  const state = jobState(run.plan, events);
  const last = Math.max(0, ...state.cells.map((c) => c.sprayedAt ?? 0));
  return (
    <>
      <Button
        component={Link}
        to={`/jobs/${job.id}/card/booth?finish=${job.finishId}`}
        variant="outlined"
        sx={{ flex: 'none' }}
      >
        {state.done === 0 ? 'Spray it in the booth' : 'Its booth run'}
      </Button>
      {state.done ? (
        <Typography variant="body2" data-testid="card-run">
          {state.done} of {state.total} sprays of the card on, the last {timeSaid(last, now)}.
        </Typography>
      ) : null}
    </>
  );
}
