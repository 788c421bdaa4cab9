import { Box, Button, Typography, useTheme } from '@mui/material';
import { api, type JobSummary } from '@steady-gleam/contracts';
import { FAMILIES, findSystem } from '@steady-gleam/core';
import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { Answer } from '../../shared/Answer';
import { call } from '../../shared/apiClient';
import { FilmSection } from '../../shared/FilmSection';
import { choiceOf, nextStep } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { Notice } from '../../shared/Notice';
import { timeSaid } from '../../shared/timeOfDay';
import { useNow } from '../../shared/useNow';

/** What is being sprayed can't wait; what is finished can. */
const rank = (job: JobSummary): number => (job.status === 'finished' ? 2 : job.run && job.run.next ? 0 : 1);

/** The pieces to be finished, each with its film section and its next step. */
export function JobsPage() {
  const { tones } = useTheme();
  const { library } = useLibrary();
  const { data, error, isPending, refetch } = useQuery({
    queryKey: ['jobs'],
    queryFn: () => call(api.listJobs),
    // Jobs move on in the booth, also from another device.
    staleTime: 0,
    refetchInterval: 30_000,
  });
  const now = useNow(10_000);
  if (isPending) return <Notice title="Opening the jobs …" />;
  if (error) {
    return (
      <Notice title="The jobs could not be opened." text={error.message}>
        <Button variant="contained" onClick={() => void refetch()}>
          Try again
        </Button>
      </Notice>
    );
  }
  const stepOf = (job: JobSummary) => nextStep(job, now, (at) => timeSaid(at, now));
  const jobs = [...data].sort((a, b) => rank(a) - rank(b));
  const next = jobs.find((j) => j.status === 'open');
  const openCount = jobs.filter((j) => j.status === 'open').length;
  const withCard = jobs.filter((j) => j.status === 'open' && j.rungsRead > 0).length;
  return (
    <Box sx={{ p: '18px 28px 28px' }}>
      <Box sx={{ display: 'flex', alignItems: 'flex-start', gap: 3 }}>
        <Box sx={{ flex: 1 }}>
          <Answer
            why={
              next
                ? `${openCount} open, ${withCard} with a card already read. Open a job and it takes up at its next decision.`
                : undefined
            }
          >
            {next
              ? `${next.piece} ${stepOf(next).lead}.`
              : jobs.length
                ? 'Every job is finished.'
                : 'No jobs yet. Start with the piece you want to match.'}
          </Answer>
        </Box>
        <Button component={Link} to="/jobs/new" variant="contained" sx={{ flex: 'none' }}>
          New job
        </Button>
      </Box>
      <Box
        component="ul"
        sx={{ listStyle: 'none', m: 0, p: 0, borderTop: `1px solid ${tones.hairline}` }}
        aria-label="Jobs"
      >
        {jobs.map((job) => {
          const step = stepOf(job);
          const done = job.status === 'finished';
          return (
            <Box component="li" key={job.id} sx={{ borderBottom: `1px solid ${tones.hairline}` }}>
              <Box
                component={Link}
                to={`/jobs/${job.id}/${step.place}`}
                sx={{
                  display: 'grid',
                  // A tablet has room for all four, in less of each.
                  gridTemplateColumns: {
                    xs: 'minmax(150px, 1.1fr) minmax(180px, 1.3fr) 150px 150px',
                    lg: 'minmax(240px, 1.1fr) minmax(260px, 1.4fr) 190px 200px',
                  },
                  gap: { xs: 2, lg: 3 },
                  alignItems: 'center',
                  minHeight: 92,
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
                    matching {job.matching}
                  </Typography>
                </Box>
                <Box sx={{ minWidth: 0 }}>
                  <FilmSection job={job} choice={choiceOf(job)} planned={job.choice === null} compact />
                  <Typography variant="body2" sx={{ mt: 0.5, color: 'text.secondary' }}>
                    {findSystem(job.systemId, library.systems).name} · {FAMILIES[job.family].name.toLowerCase()}
                    {job.choice ? '' : ' · nothing picked yet'}
                  </Typography>
                </Box>
                <Typography variant="body2">
                  {step.stands}
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
                    <Box
                      component="span"
                      sx={{ borderBottom: `3px solid ${job.id === next?.id ? tones.pick : tones.hairline}`, pb: 0.25 }}
                    >
                      {step.action}
                    </Box>
                  )}
                </Typography>
              </Box>
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}
