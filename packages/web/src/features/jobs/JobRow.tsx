import { Box, Typography, useTheme } from '@mui/material';
import type { JobSummary } from '@steady-gleam/contracts';
import { FAMILIES } from '@steady-gleam/core/finishes';
import { Link } from 'react-router';
import { Simulated } from '../../shared/devices/Simulated';
import { FilmLine } from '../../shared/film/FilmSection';
import { JobMenu } from '../../shared/JobMenu';
import { isPicked, openPoints, pickOf, sayMatching, sayMix, type NextStep } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import type { Done } from '../../shared/UndoBar';

/** px; of a row of the list. */
export const ROW = 96;

/** A row whose page is on its way. */
export function Waiting() {
  const { tones } = useTheme();
  return <Box sx={{ borderBottom: `1px solid ${tones.hairline}`, height: ROW }} aria-hidden />;
}

/** One job: what it is, its film section, where it stands and what is next. */
export function JobRow({
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
          <FilmLine job={job} pick={pickOf(job)} film={job.film} planned={!isPicked(job)} told={job.colours} />
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
