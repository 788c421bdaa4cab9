import { Box, Button, Typography } from '@mui/material';
import { jobsApi, readingsApi, type ReadingSet } from '@steady-gleam/contracts';
import type { FinishFamily } from '@steady-gleam/core/finishes';
import type { Pourable } from '@steady-gleam/core/formulate';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { call, faultOf } from '../../shared/apiClient';
import { Field } from '../../ui/Field';
import { useLibrary } from '../../shared/library';
import { newId } from '../../shared/newId';
import { changeJob } from '../../shared/useJob';
import { withFound } from './keepFound';

/** A job begun with a mix that was found, and its map. */
export function BeginJob({ mix, family, read }: { mix: Pourable; family: FinishFamily; read: ReadingSet }) {
  const { library } = useLibrary();
  const navigate = useNavigate();
  const client = useQueryClient();
  const [piece, setPiece] = useState<string | null>(null);
  const begin = useMutation({
    mutationFn: (called: string) =>
      withFound({ family, mix, library, piece: called }, async ({ mixId, pick }) => {
        const job = await call(jobsApi.create, {
          body: {
            ...{ id: newId(), piece: called, matching: 'what was read', family, mixId },
            ...{ finishId: null, coats: null, target: null },
          },
        });
        await call(readingsApi.addToFinish, { params: { id: job.finishId }, body: read });
        await changeJob(job.id, { version: job.version, pick });
        return job;
      }),
    onSuccess: async (job) => {
      await client.invalidateQueries();
      await navigate(`/jobs/${job.id}/map`);
    },
  });
  return piece === null ? (
    <Button variant="outlined" onClick={() => setPiece('')}>
      Begin a job with it
    </Button>
  ) : (
    <Box sx={{ width: 230 }}>
      <Field label="Piece" autoFocus value={piece} onChange={(e) => setPiece(e.target.value)} />
      <Button
        variant="contained"
        sx={{ mt: 1 }}
        disabled={!piece.trim() || begin.isPending}
        onClick={() => begin.mutate(piece.trim())}
      >
        To the map
      </Button>
      {begin.error ? <Typography role="alert">{faultOf(begin.error)}</Typography> : null}
    </Box>
  );
}
