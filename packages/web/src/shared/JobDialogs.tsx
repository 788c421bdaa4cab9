import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle, Typography } from '@mui/material';
import { changeJobSchema, jobsApi } from '@steady-gleam/contracts';
import { useQueryClient } from '@tanstack/react-query';
import { useId, useState, type FormEvent, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { Field } from '../ui/Field';
import { checkWith } from './checkWith';
import { useTypedForm } from '../ui/useTypedForm';
import { call } from './apiClient';
import type { JobMenuProps } from './jobMenuProps';
import { newId } from './newId';
import { useChangeJob } from './useJob';

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
  onSubmit: (e: FormEvent<HTMLElement>) => void;
  children: ReactNode;
}) {
  const id = useId();
  return (
    <Dialog open onClose={onClose} aria-labelledby={id} fullWidth maxWidth="xs">
      <Box component="form" noValidate onSubmit={onSubmit}>
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

/** Another name for a job, and for what it has to match. */
export function RenameDialog({ job, onClose }: { job: JobMenuProps['job']; onClose: () => void }) {
  const change = useChangeJob(job.id);
  const form = useTypedForm({
    start: { piece: job.piece, matching: job.matching },
    check: (typed) => checkWith(changeJobSchema, { version: job.version, ...typed }),
    keep: async (body) => {
      await change.mutateAsync(body);
      onClose();
    },
  });
  return (
    <FormDialog title="Rename" act="Keep the name" busy={form.busy} onClose={onClose} onSubmit={form.onSubmit}>
      <Field label="Piece" {...form.text('piece')} />
      <Field label="Has to match" {...form.text('matching')} />
      <Refused said={form.failure} />
    </FormDialog>
  );
}

/** What was refused and belongs to no field. */
const Refused = ({ said }: { said: string | null }) =>
  said ? (
    <Typography role="alert" sx={{ color: 'error.main' }}>
      {said}
    </Typography>
  ) : null;

/** A job like another, under a name of its own: what was matched and its card come with it, its log stays where it was. */
export function CopyDialog({ job, onClose }: { job: JobMenuProps['job']; onClose: () => void }) {
  const client = useQueryClient();
  const navigate = useNavigate();
  const [id] = useState(newId);
  const form = useTypedForm({
    start: { piece: `${job.piece}, again`.slice(0, 80) },
    check: ({ piece }) => checkWith(jobsApi.copy.body, { id, piece }),
    keep: async (body) => {
      await call(jobsApi.copy, { params: { id: job.id }, body });
      await client.invalidateQueries({ queryKey: ['jobs'] });
      onClose();
      await navigate(`/jobs/${id}/pieces`);
    },
  });
  return (
    <FormDialog title={`Copy ${job.piece}`} act="Copy it" busy={form.busy} onClose={onClose} onSubmit={form.onSubmit}>
      <Typography>Target, card, pick, areas and plan come with it; what was sprayed and mixed does not.</Typography>
      <Field label="Name of the copy" {...form.text('piece')} />
      <Refused said={form.failure} />
    </FormDialog>
  );
}
