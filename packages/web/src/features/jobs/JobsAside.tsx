import { Box, Button, Typography, useTheme } from '@mui/material';
import { jobsApi, REMOVED_DAYS, type JobSummary } from '@steady-gleam/contracts';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../shared/apiClient';
import { shopNow } from '../../shared/clock';
import { sayMatching, type NextStep } from '../../shared/jobModel';
import { LongList } from '../../shared/LongList';
import type { Done } from '../../shared/UndoBar';
import { useDamaged } from '../../shared/useDamaged';
import { JobRow, ROW, Waiting } from './JobRow';
import { useJobPages } from './useJobPages';

/** Jobs that were put away: out of the way, and a tap from being back. */
export function Away({
  count,
  stepOf,
  onDone,
}: {
  count: number;
  stepOf: (job: JobSummary) => NextStep;
  onDone: (done: Done) => void;
}) {
  const [shown, setShown] = useState(false);
  if (!count) return null;
  return (
    <Box sx={{ mt: 1.5 }}>
      <Button variant="text" color="inherit" aria-expanded={shown} onClick={() => setShown(!shown)} sx={{ px: 1 }}>
        Put away: {count}
      </Button>
      {shown ? <AwayList stepOf={stepOf} onDone={onDone} /> : null}
    </Box>
  );
}

function AwayList({ stepOf, onDone }: { stepOf: (job: JobSummary) => NextStep; onDone: (done: Done) => void }) {
  const pages = useJobPages({ words: '', family: null, status: 'away', sort: 'latest' });
  return (
    <LongList
      label="Put away"
      total={pages.total}
      height={ROW}
      keyOf={(at) => pages.row(at)?.id ?? at}
      onLook={pages.look}
      draw={(at) => {
        const job = pages.row(at);
        return job ? <JobRow job={job} step={stepOf(job)} isNext={false} onDone={onDone} /> : <Waiting />;
      }}
    />
  );
}

/** Below the list: jobs that were taken out, and what can't be read any more. */
export function Aside() {
  const { tones } = useTheme();
  const client = useQueryClient();
  const [shown, setShown] = useState(false);
  const { data: removed = [] } = useQuery({
    queryKey: ['jobs', 'removed'],
    queryFn: () => call(jobsApi.listRemoved),
  });
  const { data: damaged = [] } = useDamaged();
  const back = useMutation({
    mutationFn: ({ id, version }: { id: string; version: number }) =>
      call(jobsApi.change, { params: { id }, body: { version, removed: false } }),
    onSuccess: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });
  return (
    <Box sx={{ mt: 1.5 }}>
      {damaged.length ? (
        <Box role="alert" sx={{ borderLeft: `4px solid ${tones.danger}`, pl: 1.25, mb: 1 }}>
          {damaged.length === 1 ? 'One entry' : `${damaged.length} entries`} can’t be read any more and{' '}
          {damaged.length === 1 ? 'is' : 'are'} left out.{' '}
          <Link to="/shop#damaged" style={{ color: 'inherit' }}>
            See which
          </Link>
        </Box>
      ) : null}
      {removed.length ? (
        <>
          <Button variant="text" color="inherit" aria-expanded={shown} onClick={() => setShown(!shown)} sx={{ px: 1 }}>
            Taken out: {removed.length}
          </Button>
          {shown ? (
            <Box component="ul" aria-label="Taken out" sx={{ listStyle: 'none', m: 0, p: 0 }}>
              {removed.map((job) => (
                <Box component="li" key={job.id} sx={{ display: 'flex', alignItems: 'center', gap: 2, px: 1 }}>
                  <Typography sx={{ flex: 1, minWidth: 0 }} noWrap>
                    {job.piece}, {sayMatching(job)}; {daysLeft(job.removedAt)}
                  </Typography>
                  <Button variant="outlined" disabled={back.isPending} onClick={() => back.mutate(job)}>
                    Put back
                  </Button>
                </Box>
              ))}
            </Box>
          ) : null}
          {back.error ? (
            <Typography role="alert" sx={{ color: 'error.main' }}>
              {back.error.message}
            </Typography>
          ) : null}
        </>
      ) : null}
    </Box>
  );
}

/** How long a job that was taken out can still be put back. */
function daysLeft(removedAt: string | null): string {
  const gone = removedAt === null ? 0 : (shopNow() - new Date(removedAt).getTime()) / 86_400_000;
  const left = Math.max(0, Math.ceil(REMOVED_DAYS - gone));
  return left === 1 ? 'gone after today' : `gone in ${left} days`;
}
