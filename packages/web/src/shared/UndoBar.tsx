import { Button, Snackbar } from '@mui/material';
import { type Job, jobsApi } from '@steady-gleam/contracts';
import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { call } from './apiClient';

/** Something that was just done to a job, and how it is taken back. */
export interface Done {
  readonly jobId: string;
  readonly said: string;
  readonly undo: { readonly status?: Job['status']; readonly removed?: boolean };
}

/** How long an undo is offered, ms: gloves are slow. */
const OFFERED_MS = 12_000;

/** One line at the foot of the page: what was done, and a button that takes it back. */
export function UndoBar({ done, onGone }: { done: Done | null; onGone: () => void }) {
  const client = useQueryClient();
  const [fault, setFault] = useState<string | null>(null);
  const undo = async () => {
    if (!done) return;
    try {
      // The version as it stands now: another device may have changed the job meanwhile.
      const { job } = await call(jobsApi.read, { params: { id: done.jobId } });
      await call(jobsApi.change, { params: { id: done.jobId }, body: { version: job.version, ...done.undo } });
      await client.invalidateQueries({ queryKey: ['jobs'] });
      onGone();
    } catch (error) {
      setFault(error instanceof Error ? error.message : String(error));
    }
  };
  return (
    <Snackbar
      key={done ? `${done.jobId} ${done.said}` : 'none'}
      open={done !== null}
      // In the middle, where it covers no button of the rail.
      anchorOrigin={{ vertical: 'bottom', horizontal: 'center' }}
      autoHideDuration={OFFERED_MS}
      onClose={(_, reason) => {
        if (reason === 'clickaway') return;
        setFault(null);
        onGone();
      }}
      message={fault ?? done?.said ?? ''}
      action={
        <Button variant="text" color="inherit" onClick={() => void undo()} sx={{ textDecoration: 'underline' }}>
          Undo
        </Button>
      }
    />
  );
}
