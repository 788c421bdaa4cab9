import { Box, Button, Typography } from '@mui/material';
import type { JobDetail } from '@steady-gleam/contracts';
import { type JobState } from '@steady-gleam/core/jobs';
import { type EyeView } from '@steady-gleam/core/letdown';
import { type Dispatch, type SetStateAction } from 'react';
import type { useLive } from '../spray/useLive';
import { TALL } from './boothStyles';
import type { JobLog } from '../../shared/log/useLog';
import { UndoTap } from '../../shared/UndoTap';

const SMALL = { minHeight: 72, fontSize: 18, px: 1.25, lineHeight: 1.1 } as const;

interface PlaceChoiceProps {
  readonly spot: string;
  readonly open: 'spot' | 'note' | 'fault' | 'skip' | 'read' | null;
  readonly toggle: (what: 'spot' | 'note' | 'fault' | 'skip' | 'read' | null) => void;
  readonly view: EyeView;
  readonly setView: Dispatch<SetStateAction<EyeView>>;
  readonly views: readonly EyeView[];
  readonly live: ReturnType<typeof useLive>;
  readonly detail: JobDetail;
}

/** Which place is looked at. */
export function PlaceChoice({ spot, open, toggle, view, setView, views, live, detail }: PlaceChoiceProps) {
  return (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
      <Button
        variant="outlined"
        aria-label={`On ${spot}: another spot`}
        aria-expanded={open === 'spot'}
        sx={{ ...TALL, ...SMALL }}
        onClick={() => toggle('spot')}
      >
        {spot}
      </Button>
      <Button
        variant="outlined"
        aria-label={`Seen ${view}: another`}
        sx={{ ...TALL, ...SMALL }}
        onClick={() => setView(views[(views.indexOf(view) + 1) % views.length]!)}
      >
        {view}
      </Button>
      <Typography sx={{ fontSize: 19, flex: 1, lineHeight: 1.2 }}>against what has to be matched it is</Typography>
      {live.count.target.length ? (
        <Button
          variant={detail.job.tryOut && open !== 'read' ? 'contained' : 'outlined'}
          aria-expanded={open === 'read'}
          sx={{ ...TALL, ...SMALL }}
          onClick={() => toggle('read')}
        >
          Read it
        </Button>
      ) : null}
    </Box>
  );
}

interface MoreOrLessProps {
  readonly open: 'spot' | 'skip' | 'fault' | 'note' | 'read' | null;
  readonly toggle: (what: 'spot' | 'skip' | 'fault' | 'note' | 'read' | null) => void;
  readonly state: JobState;
  readonly log: JobLog;
}

/** A coat more, a half, or enough. */
export function MoreOrLess({ open, toggle, state, log }: MoreOrLessProps) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(4, 1fr)', gap: 1 }}>
      <Button
        variant="outlined"
        aria-expanded={open === 'note'}
        sx={{ ...TALL, ...SMALL }}
        onClick={() => toggle('note')}
      >
        Note, photo
      </Button>
      <Button
        variant="outlined"
        aria-expanded={open === 'fault'}
        sx={{ ...TALL, ...SMALL }}
        onClick={() => toggle('fault')}
      >
        A fault
      </Button>
      <Button
        variant="outlined"
        aria-expanded={open === 'skip'}
        sx={{ ...TALL, ...SMALL }}
        onClick={() => toggle('skip')}
      >
        Leave it out
      </Button>
      <UndoTap {...{ state, log }} label="Undo" sx={{ ...TALL, ...SMALL }} />
    </Box>
  );
}
