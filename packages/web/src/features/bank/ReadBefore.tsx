import { Box, Typography } from '@mui/material';
import type { EarlierReading, ReadingSet } from '@steady-gleam/contracts';
import { largestDifference } from '@steady-gleam/core/bank';
import { daySaid } from '../../shared/timeOfDay';
import { askedOf, sayRung } from './bankModel';

/** What was read before and is not in force: replaced, or taken out as entered wrongly; and how far it is from what is. */
export function ReadBefore({
  before,
  now,
  what,
}: {
  before: readonly EarlierReading[];
  /** What is in force; of a card its rungs. */
  now: readonly ReadingSet[];
  what: string;
}) {
  if (!before.length) return null;
  return (
    <Box component="section" aria-label={`${what}, read before`}>
      <Typography variant="h3" component="h2">
        Read before
      </Typography>
      <Box component="ul" sx={{ m: 0, pl: 2.25, lineHeight: 1.6 }}>
        {before.map(({ set, removed }) => {
          const inForce = now.find((s) => s.rungCoats === set.rungCoats);
          const off = inForce ? largestDifference(askedOf(inForce.readings), askedOf(set.readings)) : null;
          return (
            <Typography component="li" variant="body2" key={set.id}>
              {set.rungCoats === null ? what : `Rung ${sayRung(set.rungCoats)}`}, {daySaid(set.takenAt)},{' '}
              {removed ? 'taken out' : 'replaced'}
              {off === null ? '' : `; max ${off.toFixed(1)} dE00 from what is in force`}
            </Typography>
          );
        })}
      </Box>
    </Box>
  );
}
