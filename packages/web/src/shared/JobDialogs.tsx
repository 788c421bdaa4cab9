import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, Typography } from '@mui/material';
import { changeJobSchema, jobsApi } from '@steady-gleam/contracts';
import { useMutation, useQueryClient } from '@tanstack/react-query';
import { useId, useState, type ReactNode } from 'react';
import { ValidationError } from 'yup';
import { useNavigate } from 'react-router';
import { Field } from '../ui/Field';
import { ApiFailure, call } from './apiClient';
import type { JobMenuProps } from './jobMenuProps';
import { newId } from './newId';
import { useChangeJob } from './useJob';

/** Asks before a job is finished, and says what is still open on it. */
export function FinishDialog({
  job,
  open,
  onClose,
  onDone,
}: Pick<JobMenuProps, 'job' | 'open' | 'onDone'> & { onClose: () => void }) {
  const change = useChangeJob(job.id);
  return (
    <Question
      title={`Finish ${job.piece}?`}
      text={`${open === null ? '' : open.length ? `Still open: ${open.join('; ')}.` : 'Nothing is open.'} It can be opened again at any time.`}
      act="Finish it"
      busy={change.isPending}
      fault={change.error?.message ?? null}
      onClose={onClose}
      onAct={() =>
        change.mutate(
          { version: job.version, status: 'finished' },
          {
            onSuccess: () => {
              onClose();
              onDone(`${job.piece} is finished.`, { status: 'open' });
            },
          },
        )
      }
    />
  );
}

export function Question({
  title,
  text,
  act,
  busy,
  fault,
  onClose,
  onAct,
}: {
  title: string;
  text: string;
  act: string;
  busy: boolean;
  fault: string | null;
  onClose: () => void;
  onAct: () => void;
}) {
  return (
    <Dialog open onClose={onClose} aria-labelledby="question">
      <DialogTitle id="question" sx={{ typography: 'h1' }}>
        {title}
      </DialogTitle>
      <DialogContent>
        <Typography>{text}</Typography>
        {fault ? (
          <Typography role="alert" sx={{ color: 'error.main', mt: 1 }}>
            {fault}
          </Typography>
        ) : null}
      </DialogContent>
      <DialogActions>
        <Button variant="outlined" onClick={onClose}>
          Leave it
        </Button>
        <Button variant="contained" onClick={onAct} disabled={busy}>
          {act}
        </Button>
      </DialogActions>
    </Dialog>
  );
}

/** Asks for something that is typed. */
function FormDialog({
  title,
  act,
  busy,
  onClose,
  onSubmit,
  children,
}: {
  title: string;
  act: string;
  busy: boolean;
  onClose: () => void;
  onSubmit: () => void;
  children: ReactNode;
}) {
  const id = useId();
  return (
    <Dialog open onClose={onClose} aria-labelledby={id} fullWidth maxWidth="xs">
      <Box
        component="form"
        noValidate
        onSubmit={(e) => {
          e.preventDefault();
          onSubmit();
        }}
      >
        <DialogTitle id={id} sx={{ typography: 'h1' }}>
          {title}
        </DialogTitle>
        <DialogContent sx={{ display: 'flex', flexDirection: 'column', gap: 2 }}>{children}</DialogContent>
        <DialogActions>
          <Button variant="outlined" onClick={onClose}>
            Leave it
          </Button>
          <Button type="submit" variant="contained" disabled={busy}>
            {act}
          </Button>
        </DialogActions>
      </Box>
    </Dialog>
  );
}

export function RenameDialog({ job, onClose }: { job: JobMenuProps['job']; onClose: () => void }) {
  const change = useChangeJob(job.id);
  const [typed, setTyped] = useState({ piece: job.piece, matching: job.matching });
  const [faults, setFaults] = useState<Record<string, string>>({});
  const save = () => {
    try {
      const body = changeJobSchema.validateSync({ version: job.version, ...typed }, { abortEarly: false });
      setFaults({});
      change.mutate(body, {
        onSuccess: onClose,
        onError: (e) => setFaults(e instanceof ApiFailure ? { '': e.message, ...e.fields } : { '': e.message }),
      });
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      setFaults(Object.fromEntries(error.inner.map((e) => [e.path ?? '', e.message])));
    }
  };
  const field = (name: keyof typeof typed, label: string) => (
    <Field
      label={label}
      value={typed[name]}
      error={faults[name]}
      onChange={(e) => setTyped({ ...typed, [name]: e.target.value })}
    />
  );
  return (
    <FormDialog title="Rename" act="Keep the name" busy={change.isPending} onClose={onClose} onSubmit={save}>
      {field('piece', 'Piece')}
      {field('matching', 'Has to match')}
      {faults[''] ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {faults['']}
        </Typography>
      ) : null}
    </FormDialog>
  );
}

/** A job like another, under a name of its own: what was matched and its card come with it, its log stays where it was. */
export function CopyDialog({ job, onClose }: { job: JobMenuProps['job']; onClose: () => void }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [id] = useState(newId);
  const [piece, setPiece] = useState(`${job.piece}, again`.slice(0, 80));
  const copy = useMutation({
    mutationFn: () => call(jobsApi.copy, { params: { id: job.id }, body: { id, piece } }),
    onSuccess: async () => {
      await client.invalidateQueries({ queryKey: ['jobs'] });
      onClose();
      await navigate(`/jobs/${id}/pieces`);
    },
  });
  const fault = copy.error instanceof ApiFailure ? (copy.error.fields['piece'] ?? copy.error.message) : null;
  return (
    <FormDialog
      title={`Copy ${job.piece}`}
      act="Copy it"
      busy={copy.isPending}
      onClose={onClose}
      onSubmit={() => copy.mutate()}
    >
      <Typography>Target, card, pick, areas and plan come with it; what was sprayed and mixed does not.</Typography>
      <Field
        label="Name of the copy"
        value={piece}
        error={fault ?? undefined}
        onChange={(e) => setPiece(e.target.value)}
      />
    </FormDialog>
  );
}
