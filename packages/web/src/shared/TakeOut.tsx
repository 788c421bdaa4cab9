import { Box, Button, Typography } from '@mui/material';
import type { ReadingSet } from '@steady-gleam/contracts';
import { useState } from 'react';
import { useRemoveReadings } from './useJob';

/** Takes a set of readings out as entered wrongly; a moment later it can be put back here. */
export function TakeOut({ set, what, onTaken }: { set: ReadingSet; what: string; onTaken?: () => void }) {
  const remove = useRemoveReadings();
  return (
    <Box>
      <Button
        variant="text"
        color="inherit"
        disabled={remove.isPending}
        // The entry, and this button with it, is gone before the answer is told: the promise outlives both.
        onClick={() =>
          void remove.mutateAsync({ setId: set.id, removed: true }).then(
            () => onTaken?.(),
            () => undefined,
          )
        }
        sx={{ px: 0.5, minHeight: 44 }}
      >
        {what}
      </Button>
      {remove.error ? (
        <Typography role="alert" variant="body2" sx={{ color: 'error.main' }}>
          {remove.error.message}
        </Typography>
      ) : null}
    </Box>
  );
}

/** What was just taken out, to be put back: kept by the page, since the entry itself is gone. */
export function useTakenOut() {
  const [taken, setTaken] = useState<{ id: string; name: string } | null>(null);
  const back = useRemoveReadings();
  return {
    took: (set: ReadingSet, name: string) => setTaken({ id: set.id, name }),
    note: taken ? (
      <Typography role="status" sx={{ mt: 0.5 }}>
        {taken.name} was taken out.{' '}
        <Button
          variant="text"
          color="inherit"
          disabled={back.isPending}
          onClick={() => back.mutate({ setId: taken.id, removed: false }, { onSuccess: () => setTaken(null) })}
          sx={{ px: 0.5, textDecoration: 'underline' }}
        >
          Put it back
        </Button>
      </Typography>
    ) : null,
  };
}
