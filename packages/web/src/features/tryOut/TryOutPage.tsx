import { Box, Button, Typography, useTheme } from '@mui/material';
import { tryOutApi } from '@steady-gleam/contracts';
import { FAMILIES, TRY_OUT_FAMILIES, type FinishFamily } from '@steady-gleam/core/finishes';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { Answer } from '../../shared/Answer';
import { call } from '../../shared/apiClient';
import { Simulated } from '../../shared/devices/Simulated';
import { newId } from '../../shared/newId';

/** What is done in a try-out, in its order. */
const WALK: readonly (readonly [string, string])[] = [
  ['Read what has to be matched', 'with the simulated instrument, three spots at five angles'],
  ['Pick ground, strength and coats', 'on the match map'],
  ['Spray a let-down card and read its rungs', 'your hidden hand lays more or less than a nominal one'],
  ['Mix on the scale', 'pour, drip, and what to do when too much went in'],
  ['Spray, look, and stop', 'as the card and your looks advise'],
  ['Lift the curtain', 'the true hand, the true film, and where counting alone would have ended'],
];

/** The quickest way to see what the program is for: a whole job whose paint, hand and devices are simulated. */
export function TryOutPage() {
  const { tones } = useTheme();
  const navigate = useNavigate();
  const client = useQueryClient();
  const [id] = useState(newId);
  const [family, setFamily] = useState<FinishFamily>(TRY_OUT_FAMILIES[0]!);
  const begin = useMutation({
    mutationFn: () => call(tryOutApi.begin, { body: { id, family } }),
    onSuccess: async (job) => {
      await client.invalidateQueries({ queryKey: ['jobs'] });
      await navigate(`/jobs/${job.id}/target`);
    },
  });
  return (
    <Box sx={{ p: '18px 28px 28px', maxWidth: 1040 }}>
      <Answer why="Somebody else made a panel; you match it with your own hand and your own pot. Both are hidden, from you and from the program, till you lift the curtain. A quarter of an hour, and no figure to type.">
        A job behind a curtain: walk it once and you know what this is for.
      </Answer>
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '1fr 1fr' }, gap: 4, mt: 1 }}>
        <Box>
          <Typography variant="h2" sx={{ mb: 1 }} id="try-family">
            What to try
          </Typography>
          <Box role="radiogroup" aria-labelledby="try-family" sx={{ border: `1px solid ${tones.hairline}` }}>
            {TRY_OUT_FAMILIES.map((f, i) => (
              <Button
                key={f}
                role="radio"
                aria-checked={family === f}
                color="inherit"
                onClick={() => setFamily(f)}
                sx={{
                  ...{ display: 'block', width: '100%', textAlign: 'left', borderRadius: 0, minHeight: 56, px: 1.5 },
                  borderTop: i ? `1px solid ${tones.hairline}` : 'none',
                  borderLeft: `6px solid ${family === f ? tones.pick : 'transparent'}`,
                  background: family === f ? tones.raised : 'none',
                }}
              >
                {FAMILIES[f].name}
                <Box
                  component="span"
                  sx={{ display: 'block', fontSize: 14, fontWeight: 400, fontFamily: 'body1.fontFamily' }}
                >
                  {FAMILIES[f].what}
                </Box>
              </Button>
            ))}
          </Box>
          <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', mt: 2 }}>
            <Button
              variant="contained"
              disabled={begin.isPending}
              onClick={() => begin.mutate()}
              sx={{ minHeight: 56 }}
            >
              Begin the try-out
            </Button>
            <Simulated />
          </Box>
          {begin.error ? (
            <Typography role="alert" sx={{ mt: 1, color: 'error.main' }}>
              {begin.error.message}
            </Typography>
          ) : null}
        </Box>
        <Box>
          <Typography variant="h2" sx={{ mb: 1 }}>
            The walk
          </Typography>
          <Box component="ol" sx={{ m: 0, pl: 2.5, '& li': { mb: 1 } }}>
            {WALK.map(([what, how]) => (
              <li key={what}>
                <b>{what}</b>
                <br />
                {how}
              </li>
            ))}
          </Box>
          <Typography variant="body2" sx={{ color: 'text.secondary', mt: 1.5 }}>
            Everything of it is marked simulated. Nothing of it goes into the bank, teaches a gun or a hand, or can be
            used for a job of the shop’s own.
          </Typography>
        </Box>
      </Box>
    </Box>
  );
}
