import { Button, type SxProps } from '@mui/material';
import type { Job } from '@steady-gleam/contracts';
import { type JobPlan, type JobState, runOf } from '@steady-gleam/core/jobs';
import { useState } from 'react';
import { FinishDialog } from './FinishDialog';
import { openPoints } from './jobModel';
import { UndoBar, type Done } from './UndoBar';
import { useJobSummary } from './useJob';

/** Finishes a job from the place it is seen at: asked first, and undone for a while after. */
export function FinishButton({
  job,
  run,
  sx,
}: {
  job: Job;
  /** Where it stands, as this page has it. */
  run: { readonly plan: JobPlan; readonly state: JobState };
  sx?: SxProps;
}) {
  const summary = useJobSummary(job.id);
  const [asking, setAsking] = useState(false);
  const [undoable, setUndoable] = useState<Done | null>(null);
  return (
    <>
      {job.status === 'finished' ? null : (
        <Button variant="outlined" onClick={() => setAsking(true)} {...(sx ? { sx } : {})}>
          Finish this job
        </Button>
      )}
      {asking ? (
        <FinishDialog
          job={job}
          open={summary && openPoints({ ...summary, run: runOf(run.plan, run.state) })}
          onClose={() => setAsking(false)}
          onDone={(said, undo) => setUndoable({ jobId: job.id, said, undo })}
        />
      ) : null}
      <UndoBar done={undoable} onGone={() => setUndoable(null)} />
    </>
  );
}
