import { Box, Button, LinearProgress, Typography, useTheme } from '@mui/material';
import { tryOutApi, type HeldAsk } from '@steady-gleam/contracts';
import type { Reading } from '@steady-gleam/core/formats';
import { useMutation } from '@tanstack/react-query';
import { call } from '../apiClient';
import { Simulated } from './Simulated';

/** The simulated instrument of a try-out: read, its white tile where it wants it, and what is wrong in a sentence. */
export function InstrumentRead({
  jobId,
  held,
  onRead,
}: {
  jobId: string;
  held: HeldAsk;
  onRead: (readings: readonly Reading[]) => void;
}) {
  const { tones } = useTheme();
  const params = { id: jobId };
  const read = useMutation({
    mutationFn: () => call(tryOutApi.read, { params, body: held }),
    onSuccess: (said) => {
      if (said.is === 'read') onRead(said.readings);
    },
  });
  const white = useMutation({
    mutationFn: () => call(tryOutApi.white, { params }),
    onSuccess: () => read.mutate(),
  });
  const busy = read.isPending || white.isPending;
  const said = read.data && read.data.is !== 'read' ? read.data : null;
  const fault = read.error?.message ?? white.error?.message ?? said?.said ?? '';
  return (
    <Box
      role="group"
      aria-label="The instrument"
      sx={{ border: `1px solid ${tones.hairline}`, background: tones.raised, p: 1.5, mb: 2, maxWidth: 720 }}
    >
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
        {said?.is === 'wants white' ? (
          <Button variant="contained" disabled={busy} onClick={() => white.mutate()} sx={{ minHeight: 52 }}>
            Read the white tile, then this
          </Button>
        ) : (
          <Button variant="contained" disabled={busy} onClick={() => read.mutate()} sx={{ minHeight: 52 }}>
            {said ? 'Read again' : 'Read'}
          </Button>
        )}
        <Simulated />
      </Box>
      {busy ? (
        <Box role="status" sx={{ mt: 1 }}>
          <Typography variant="body2">Reading …</Typography>
          <LinearProgress color="inherit" aria-label="The instrument reads" />
        </Box>
      ) : fault ? (
        <Typography role="alert" sx={{ mt: 1 }}>
          {fault}
        </Typography>
      ) : null}
    </Box>
  );
}
