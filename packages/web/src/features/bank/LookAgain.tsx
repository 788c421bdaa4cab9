import { Box, Button, Typography, useTheme } from '@mui/material';
import { type FinishSummary } from '@steady-gleam/contracts';
import type { AngleLab } from '@steady-gleam/core/bank';
import { FIVE_ANGLES } from '@steady-gleam/core/optics';
import { useState } from 'react';
import { Link } from 'react-router';
import { sayAngle } from '../../shared/angles';
import { isCount, newJobLink } from '../../shared/newJobLink';
import { ReadingsForm } from '../../shared/ReadingsForm';
import { TouchingStrip } from '../../shared/TouchingStrip';
import { useNearest } from '../../shared/useFinishes';
import { askedAt, askedOf, sayRung } from './bankModel';

/** Another piece of the same finish came in, darker or lighter: what it reads, and which count of this card fits it. */
export function LookAgain({ finish }: { finish: FinishSummary }) {
  const { tones } = useTheme();
  const [asked, setAsked] = useState<readonly AngleLab[] | null>(null);
  const { value, error } = useNearest(asked, finish.id);
  const near = asked && value ? (value[0] ?? null) : null;
  return (
    <Box component="section" aria-label="Look again" sx={{ borderTop: `1px solid ${tones.hairline}`, pt: 1.5 }}>
      <Typography variant="h2">Look again</Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1 }}>
        One came in that is darker or lighter? Read it: which count of this card fits it.
      </Typography>
      {near ? (
        <Box sx={{ display: 'grid', gap: 1, mb: 1.5, maxWidth: 520 }} role="status">
          <Typography variant="h3" component="p">
            {near.coats === null ? 'By what it was matched to' : `This card, rung ${sayRung(near.coats)}`}: within{' '}
            {near.max.toFixed(1)} dE00 {near.shared === 1 ? 'there' : `at ${near.shared} angles`}.
          </Typography>
          <TouchingStrip
            over={near.angles.map((g) => g.lab)}
            under={askedAt(asked!, near.angles)}
            height={64}
            label="The card over what you read"
          />
          {isCount(near.coats) && finish.pick ? (
            <Box>
              <Button component={Link} variant="contained" {...newJobLink(finish.id, near.coats, asked)}>
                New job: this card, rung {sayRung(near.coats)}
              </Button>
            </Box>
          ) : null}
        </Box>
      ) : asked && value ? (
        <Typography role="status" sx={{ mb: 1 }}>
          This card was read at none of these angles: {asked.map(sayAngle).join(', ')}.
        </Typography>
      ) : null}
      {error ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {error}
        </Typography>
      ) : null}
      <ReadingsForm
        kind="target"
        rungCoats={null}
        angles={finish.strip.length ? finish.strip : FIVE_ANGLES}
        saveLabel="Which rung fits?"
        onSave={(set) => {
          setAsked(askedOf(set.readings));
          return Promise.resolve();
        }}
      />
    </Box>
  );
}
