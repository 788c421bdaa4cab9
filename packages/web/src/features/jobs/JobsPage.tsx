import { Box, Button, Typography, useTheme } from '@mui/material';
import { jobsApi, type JobQuery, type JobSummary, REMOVED_DAYS } from '@steady-gleam/contracts';
import { FAMILIES } from '@steady-gleam/core/finishes';
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState, useSyncExternalStore } from 'react';
import { Link, useSearchParams } from 'react-router';
import { Answer } from '../../shared/Answer';
import { call } from '../../shared/apiClient';
import { shopNow } from '../../shared/clock';
import { Simulated } from '../../shared/devices/Simulated';
import { FilmSection } from '../../shared/FilmSection';
import { HereNotes } from '../../shared/HereNotes';
import { JobMenu } from '../../shared/JobMenu';
import { pickOf, isPicked, nextStep, openPoints, sayMatching, sayMix, type NextStep } from '../../shared/jobModel';
import { UndoBar, type Done } from '../../shared/UndoBar';
import { useLibrary } from '../../shared/library';
import { Notice } from '../../shared/Notice';
import { onPost, postNow } from '../../shared/log/post';
import { useReach } from '../../shared/reach';
import { timeSaid } from '../../shared/timeOfDay';
import { LongList } from '../../shared/LongList';
import { useDamaged } from '../../shared/useDamaged';
import { JOB_LIST, jobsPage } from '../../shared/useJob';
import { useNow } from '../../shared/useNow';
import { usePages } from '../../shared/usePages';
import { useRested } from '../../shared/useRested';
import { JobControls, jobQueryOf } from './JobControls';

/** px; of a row of the list. */
const ROW = 96;
/** Jobs move on in the booth, also from another device: the list is asked for again so often, ms. */
const REFETCH_MS = 30_000;

const useJobPages = (query: Omit<JobQuery, 'page'>) =>
  usePages([...JOB_LIST, query], (page) => jobsPage(query, page).queryFn(), REFETCH_MS);

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
        {isNew(lead.first?.rows) ? null : (
          <Button component={Link} to="/try-out" variant="outlined" sx={{ flex: 'none' }}>
            Try-out
          </Button>
        )}
        <Button component={Link} to="/jobs/new" variant="contained" sx={{ flex: 'none' }}>
          New job
        </Button>
      </Box>
      {isNew(lead.first?.rows) ? <FirstDoor /> : null}
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

/** Nothing was begun here by anybody yet: the shop is as its first start left it. */
const isNew = (rows: readonly JobSummary[] | undefined): boolean => rows !== undefined && rows.every((j) => j.invented);

/** The quickest way to see what the program is for. */
function FirstDoor() {
  const { tones } = useTheme();
  return (
    <Box
      role="note"
      sx={{ display: 'flex', gap: 2, alignItems: 'center', background: tones.raised, p: 2, mb: 1.5, flexWrap: 'wrap' }}
    >
      <Box sx={{ flex: 1, minWidth: 320 }}>
        <Typography variant="h2">New here? Try a job behind the curtain.</Typography>
        <Typography>
          Match a panel that another hand made, with simulated paint, instrument and scale: a quarter of an hour from
          the first reading to where counting alone would have ended.
        </Typography>
      </Box>
      <Button component={Link} to="/try-out" variant="contained" sx={{ minHeight: 52 }}>
        Begin a try-out
      </Button>
    </Box>
  );
}

/** A row whose page is on its way. */
function Waiting() {
  const { tones } = useTheme();
  return <Box sx={{ borderBottom: `1px solid ${tones.hairline}`, height: ROW }} aria-hidden />;
}

/** One job: what it is, its film section, where it stands and what is next. */
function JobRow({
  job,
  step,
  isNext,
  kept = 0,
  onDone,
}: {
  job: JobSummary;
  step: NextStep;
  /** The page leads with it. */
  isNext: boolean;
  /** Entries of it that wait on this device. */
  kept?: number;
  onDone: (done: Done) => void;
}) {
  const { tones } = useTheme();
  const { library } = useLibrary();
  const done = job.status === 'finished';
  return (
    <Box
      sx={{ borderBottom: `1px solid ${tones.hairline}`, display: 'flex', alignItems: 'center', gap: 1, height: ROW }}
    >
      <Box
        component={Link}
        to={`/jobs/${job.id}/${step.place}`}
        sx={{
          flex: 1,
          minWidth: 0,
          display: 'grid',
          // A tablet has room for all four, in less of each.
          gridTemplateColumns: {
            xs: 'minmax(150px, 1.1fr) minmax(180px, 1.3fr) 150px 150px',
            lg: 'minmax(240px, 1.1fr) minmax(260px, 1.4fr) 190px 200px',
          },
          gap: { xs: 2, lg: 3 },
          alignItems: 'center',
          height: ROW - 2,
          overflow: 'hidden',
          color: 'inherit',
          textDecoration: 'none',
          px: 1,
          '&:hover': { background: tones.panel },
          '&:focus-visible': { outlineOffset: -3 },
        }}
      >
        <Box sx={{ minWidth: 0 }}>
          <Typography variant="h2" component="div">
            {job.piece}
          </Typography>
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            {sayMatching(job)}
          </Typography>
        </Box>
        <Box sx={{ minWidth: 0 }}>
          <FilmSection job={job} pick={pickOf(job)} film={job.film} planned={!isPicked(job)} compact />
          <Typography variant="body2" sx={{ mt: 0.5, color: 'text.secondary' }}>
            {sayMix(job, library)} · {FAMILIES[job.family].name.toLowerCase()}
            {isPicked(job) ? '' : job.targetAngles ? ' · ground and count not picked yet' : ' · not read yet'}
          </Typography>
        </Box>
        <Typography variant="body2">
          {step.stands}
          {kept ? (
            <Box component="span" sx={{ display: 'block', fontWeight: 700 }}>
              {kept} kept here, not in this yet
            </Box>
          ) : null}
          {job.tryOut ? (
            <Box component="span" sx={{ display: 'block' }}>
              <Simulated>try-out, simulated</Simulated>
            </Box>
          ) : null}
          {job.invented ? (
            <Box component="span" sx={{ display: 'block', color: 'text.secondary' }}>
              demo, invented
            </Box>
          ) : null}
        </Typography>
        <Typography variant="h3" component="div" sx={{ textAlign: 'right' }}>
          {done ? (
            step.action
          ) : (
            <Box component="span" sx={{ borderBottom: `3px solid ${isNext ? tones.pick : tones.hairline}`, pb: 0.25 }}>
              {step.action}
            </Box>
          )}
        </Typography>
      </Box>
      <JobMenu job={job} open={openPoints(job)} onDone={(said, undo) => onDone({ jobId: job.id, said, undo })} />
    </Box>
  );
}

/** Jobs that were put away: out of the way, and a tap from being back. */
function Away({
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
      onLook={pages.look}
      draw={(at) => {
        const job = pages.row(at);
        return job ? <JobRow job={job} step={stepOf(job)} isNext={false} onDone={onDone} /> : <Waiting />;
      }}
    />
  );
}

/** Below the list: jobs that were taken out, and what can't be read any more. */
function Aside() {
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
