import { Box, Button, Typography } from '@mui/material';
import { type Job, jobsApi } from '@steady-gleam/contracts';
import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useEffectEvent, useState } from 'react';
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
  return (
    <Box role="status">{done ? <Offer key={`${done.jobId} ${done.said}`} done={done} onGone={onGone} /> : null}</Box>
  );
}

/** What was just done; it goes by itself after a while, by Escape, or once it is taken back. Stays while a hand or the focus is on it. */
function Offer({ done, onGone }: { done: Done; onGone: () => void }) {
  const client = useQueryClient();
  const [fault, setFault] = useState<string | null>(null);
  const [held, setHeld] = useState(false);
  const gone = useEffectEvent(onGone);
  useEffect(() => {
    if (held) return;
    const timer = setTimeout(gone, OFFERED_MS);
    return () => clearTimeout(timer);
  }, [held]);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.key === 'Escape') gone();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, []);
  const undo = async () => {
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
    <Box
      onMouseEnter={() => setHeld(true)}
      onMouseLeave={() => setHeld(false)}
      onFocus={() => setHeld(true)}
      onBlur={() => setHeld(false)}
      sx={{
        ...{ position: 'fixed', bottom: 16, left: '50%', transform: 'translateX(-50%)', zIndex: 'snackbar' },
        ...{ display: 'flex', alignItems: 'center', gap: 2, minHeight: 48, pl: 2, pr: 1 },
        ...{ maxWidth: 'calc(100vw - 32px)', bgcolor: 'text.primary', color: 'background.default' },
      }}
    >
      <Typography>{fault ?? done.said}</Typography>
      <Button variant="text" color="inherit" onClick={() => void undo()} sx={{ textDecoration: 'underline' }}>
        Undo
      </Button>
    </Box>
  );
}
