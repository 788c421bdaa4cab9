import { Button, Dialog, DialogActions, DialogContent, DialogTitle, Typography } from '@mui/material';
import type { JobMenuProps } from './jobMenuProps';
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

/** Asks before something is done with a job, and says why it was refused. */
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
