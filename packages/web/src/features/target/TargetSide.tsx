import { Box, Button, Typography, useTheme } from '@mui/material';
import type { Job } from '@steady-gleam/contracts';
import { flopIndex } from '@steady-gleam/core/colour';
import type { FAMILIES } from '@steady-gleam/core/finishes';
import type { AveragedAngle } from '@steady-gleam/core/formats';
import type { TargetAngle } from '@steady-gleam/core/matching';
import { Link } from 'react-router';
import { FIGURES } from '../../app/theme';
import { FlopStrip } from '../../shared/FlopStrip';

interface TargetSideProps {
  readonly job: Job;
  /** What stands of the job's family in the table. */
  readonly row: (typeof FAMILIES)[keyof typeof FAMILIES];
  readonly isRead: boolean;
  readonly averaged: readonly AveragedAngle[];
  readonly target: readonly TargetAngle[];
  /** What is said of colours beyond the screen. */
  readonly note: string | null;
}

/** Beside the target: how it looks and what comes next; before it is read, what a file of readings looks like. */
export function TargetSide({ job, row, isRead, averaged, target, note }: TargetSideProps) {
  const { tones } = useTheme();
  const l = (angle: number) => averaged.find((a) => a.incidence === 45 && a.aspecular === angle)?.lab[0];
  const [l15, l45, l110] = [l(15), l(45), l(110)];
  return isRead ? (
    <>
      <Typography variant="h2">The target, face to flop</Typography>
      <Box>
        <FlopStrip
          angles={target}
          target={target.map((t) => t.lab)}
          height={150}
          label="Target colours from face to flop"
        />
      </Box>
      {l15 !== undefined && l45 !== undefined && l110 !== undefined ? (
        <Box
          sx={{
            display: 'flex',
            justifyContent: 'space-between',
            borderBottom: `1px solid ${tones.hairline}`,
            pb: 0.75,
          }}
        >
          <Typography>flop index</Typography>
          <Box sx={{ fontFamily: FIGURES }}>{flopIndex(l15, l45, l110).toFixed(1)}</Box>
        </Box>
      ) : null}
      <Button component={Link} to={`/jobs/${job.id}/map`} variant="contained" sx={{ minHeight: 52 }}>
        Find the ground and coats
      </Button>
      {job.tryOut ? null : (
        <Button component={Link} to={`/jobs/${job.id}/find`} variant="outlined">
          Find another mix for it
        </Button>
      )}
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        A screen is not a proof. {note}
      </Typography>
    </>
  ) : job.tryOut ? (
    <>
      <Typography variant="h2">What is matched</Typography>
      <Typography>A panel that another hand made of the same mix: {row.matched}.</Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {row.keeps}
      </Typography>
    </>
  ) : (
    <>
      <Typography variant="h2">A file is read like this</Typography>
      <Box
        component="pre"
        sx={{ m: 0, p: 1.5, fontFamily: FIGURES, fontSize: 13.5, background: tones.raised, overflow: 'auto' }}
      >
        {'spot,aspecular,L,a,b\n1,15,76.2,-21.8,-36.1\n1,45,68.0,-19.2,-31.4\n2,15,75.9,-21.5,-35.8'}
      </Box>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        One row a spot and angle. Add a column “incidence” if the lamp is not at 45°. CGATS text and XML colour objects
        are read too, Lab or spectra; what a file leaves open is asked.
      </Typography>
    </>
  );
}
