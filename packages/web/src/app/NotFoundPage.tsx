import { Button } from '@mui/material';
import { Link } from 'react-router';
import { Notice } from '../shared/Notice';

export function NotFoundPage() {
  return (
    <Notice title="There is nothing at this address.">
      <Button component={Link} to="/" variant="contained">
        Back to the jobs
      </Button>
    </Notice>
  );
}
