import { Button } from '@mui/material';
import { useEffect } from 'react';
import { useRouteError } from 'react-router';
import { Notice } from '../shared/Notice';

/** Shown in place of a screen that failed to draw. */
export function FaultPage() {
  const error = useRouteError();
  // For whoever is asked about it.
  useEffect(() => console.error(error), [error]);
  return (
    <Notice
      title="This screen could not be drawn."
      text="The program made a mistake. What was kept is safe on the server."
    >
      <Button variant="contained" onClick={() => location.assign('/')}>
        Back to the jobs
      </Button>
    </Notice>
  );
}
