import { Button, type ButtonProps } from '@mui/material';
import { undoTold, type JobState } from '@steady-gleam/core/jobs';
import type { JobLog } from './log/useLog';

interface UndoTapProps extends Pick<ButtonProps, 'variant' | 'color' | 'sx'> {
  readonly state: Pick<JobState, 'undoable'>;
  readonly log: Pick<JobLog, 'tell'>;
  /** What stands on it. */
  readonly label?: string;
}

/** Takes the last tap of this device back, all that it told. */
export function UndoTap({ state, log, label = 'Undo last tap', variant = 'outlined', ...look }: UndoTapProps) {
  return (
    <Button {...look} variant={variant} disabled={!state.undoable.length} onClick={() => log.tell(...undoTold(state))}>
      {label}
    </Button>
  );
}
