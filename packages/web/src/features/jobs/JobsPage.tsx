import { Box, Button, Typography } from '@mui/material';
import type { JobSummary } from '@steady-gleam/contracts';
import { useState, useSyncExternalStore } from 'react';
import { Link, useSearchParams } from 'react-router';
import { Answer } from '../../shared/Answer';
import { HereNotes } from '../../shared/HereNotes';
import { nextStep } from '../../shared/jobModel';
import { LongList } from '../../shared/LongList';
import { onPost, postNow } from '../../shared/log/post';
import { Notice } from '../../shared/Notice';
import { useReach } from '../../shared/reach';
import { timeSaid } from '../../shared/timeOfDay';
import { UndoBar, type Done } from '../../shared/UndoBar';
import { useNow } from '../../shared/useNow';
import { useRested } from '../../shared/useRested';
import { Doors } from './Doors';
import { JobControls, jobQueryOf } from './JobControls';
import { JobRow, ROW, Waiting } from './JobRow';
import { Away, Aside } from './JobsAside';
import { useJobPages } from './useJobPages';

/** The pieces to be finished, each with its film section and its next step; found by words, state and family. */
export function JobsPage() {
  const [params, setParams] = useSearchParams();
  const asked = jobQueryOf(params);
  const query = { ...asked, words: useRested(asked.words, 150) };
  const pages = useJobPages(query);
  const isSearch = asked.words !== '' || asked.family !== null || asked.status !== 'listed';
  // The lead is about what is next, whatever is searched for and in whatever order.
  const isOther = isSearch || asked.sort !== 'next';
  const lead = useJobPages(isOther ? { words: '', family: null, status: 'open', sort: 'next' } : query);
  const now = useNow(10_000);
  const [undoable, setUndoable] = useState<Done | null>(null);
  const { isAway } = useReach();
  const post = useSyncExternalStore(onPost, postNow);
  const keptOf = (job: JobSummary) =>
    (post.waiting.get(job.id) ?? 0) + post.parcels.filter((p) => p.jobId === job.id && p.refusal === null).length;
  if (!pages.first && !pages.error) return <Notice title="Opening the jobs …" />;
  if (!pages.first) {
    return (
      <Notice title="The jobs could not be opened." text={pages.error?.message}>
        <Button variant="contained" onClick={pages.refetch}>
          Try again
        </Button>
      </Notice>
    );
  }
  // Nothing was begun here by anybody yet: the shop is as its first start left it.
  const isNew = lead.first !== undefined && lead.first.rows.every((j) => j.invented);
  const stepOf = (job: JobSummary) => nextStep(job, now, (at) => timeSaid(at, now));
  const { states } = pages.first;
  const next = lead.first?.rows.find((j) => j.status === 'open');
  const change = (to: Record<string, string>) => {
    const all = new URLSearchParams(params);
    for (const [k, v] of Object.entries(to)) {
      if (v) all.set(k, v);
      else all.delete(k);
    }
    setParams(all, { replace: true });
  };
  return (
    <Box sx={{ p: '18px 28px 28px' }}>
      <Box sx={{ display: 'flex', alignItems: 'flex-start', gap: 3 }}>
        <Box sx={{ flex: 1 }}>
          <Answer
            why={
              next
                ? `${states.open} open, ${states.finished} finished. Open a job and it takes up at its next decision.`
                : undefined
            }
          >
            {next
              ? `${next.piece} ${stepOf(next).lead}.`
              : states.finished
                ? 'Every job is finished.'
                : 'No jobs yet. Start with the piece you want to match.'}
          </Answer>
        </Box>
        {isNew ? null : (
          <Button component={Link} to="/try-out" variant="outlined" sx={{ flex: 'none' }}>
            Try-out
          </Button>
        )}
        <Button component={Link} to="/jobs/new" variant="contained" sx={{ flex: 'none' }}>
          New job
        </Button>
      </Box>
      {isNew ? <Doors demo={lead.first?.rows ?? []} /> : null}
      <HereNotes sx={{ mb: 1 }} />
      {isAway ? (
        <Typography role="status" sx={{ mb: 1 }}>
          The server does not answer. This is what this device knew {timeSaid(pages.knownAt, now)}; what was tapped in
          the booth meanwhile is kept on the device it was tapped on.
        </Typography>
      ) : null}
      <JobControls query={asked} states={states} onChange={change} />
      {pages.total === 0 && isSearch ? <Typography sx={{ py: 2 }}>No job answers to that.</Typography> : null}
      <LongList
        label="Jobs"
        total={pages.total}
        height={ROW}
        keyOf={(at) => pages.row(at)?.id ?? at}
        onLook={pages.look}
        draw={(at) => {
          const job = pages.row(at);
          return job ? (
            <JobRow job={job} step={stepOf(job)} isNext={job.id === next?.id} kept={keptOf(job)} onDone={setUndoable} />
          ) : (
            <Waiting />
          );
        }}
      />
      {asked.status === 'listed' && !isSearch ? (
        <Away count={states.away} stepOf={stepOf} onDone={setUndoable} />
      ) : null}
      <Aside />
      <UndoBar done={undoable} onGone={() => setUndoable(null)} />
    </Box>
  );
}
