import { Box, Button, Typography } from '@mui/material';
import type { ReadingSet, Job } from '@steady-gleam/contracts';

import { type FamilyRow } from '@steady-gleam/core/finishes';
import { fileName } from '@steady-gleam/core/formats';
import { type Dispatch, type SetStateAction } from 'react';
import { Link } from 'react-router';
import { download } from '../../shared/download';
import { toCgats, toColourXml, toReadingsCsv } from '@steady-gleam/core/formats';

const EXPORTS = [
  ['CSV', 'csv', toReadingsCsv],
  ['CGATS', 'txt', toCgats],
  ['XML', 'cxf', toColourXml],
] as const;

interface OtherWaysProps {
  readonly row: FamilyRow;
  readonly setBy: Dispatch<SetStateAction<'chip' | 'photo' | null>>;
  readonly job: Job;
}

/** Ways to a target without an instrument. */
export function OtherWays({ row, setBy, job }: OtherWaysProps) {
  return (
    <Typography sx={{ mt: 2.5 }}>
      What is matched: {row.matched}. No instrument? Read a{' '}
      <Button
        variant="text"
        color="inherit"
        sx={{ px: 0.5, textDecoration: 'underline' }}
        onClick={() => setBy('photo')}
      >
        photo with a grey card
      </Button>{' '}
      in it,{' '}
      <Button
        variant="text"
        color="inherit"
        sx={{ px: 0.5, textDecoration: 'underline' }}
        onClick={() => setBy('chip')}
      >
        pick a colour on this screen
      </Button>
      ,{' '}
      <Link to={`/jobs/${job.id}/map?design=1`} style={{ color: 'inherit' }}>
        design the look
      </Link>{' '}
      on the map, or go{' '}
      <Link to={`/jobs/${job.id}/card`} style={{ color: 'inherit' }}>
        by eye
      </Link>
      : spray a card and say how each rung looks.
    </Typography>
  );
}

interface TargetAgainProps {
  readonly setReading: Dispatch<SetStateAction<false | 'again' | 'correct'>>;
  readonly set: ReadingSet;
  readonly job: Job;
}

/** Reading the target again, and what was read before. */
export function TargetAgain({ setReading, set, job }: TargetAgainProps) {
  return (
    <Box sx={{ mt: 2 }}>
      <Button variant="outlined" onClick={() => setReading('again')}>
        Read it again
      </Button>
      <Button variant="text" color="inherit" onClick={() => setReading('correct')}>
        Correct a figure
      </Button>
      {EXPORTS.map(([name, extension, write]) => (
        <Button
          key={name}
          variant="text"
          color="inherit"
          onClick={() =>
            download(
              new Blob([write(set.readings)], { type: 'text/plain' }),
              `${fileName(job.piece, 'target')}.${extension}`,
            )
          }
        >
          {name}
        </Button>
      ))}
    </Box>
  );
}
