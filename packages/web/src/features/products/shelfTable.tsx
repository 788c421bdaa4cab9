import { Button, Typography } from '@mui/material';
import type { Column } from '../../ui/Table';

/** Something on the shelf by its name, and what it is. */
export function Named({ name, what }: { name: string; what: string }) {
  return (
    <>
      <Typography variant="h3" component="div">
        {name}
      </Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary' }}>
        {what}
      </Typography>
    </>
  );
}

/** The last column of the shelf: the way to change what stands there. */
export const changeColumn = <R,>(nameOf: (row: R) => string, onChange: (row: R) => void): Column<R> => ({
  ...{ id: 'change', head: '', style: { textAlign: 'right' } },
  draw: (row) => (
    <Button variant="outlined" aria-label={`Change ${nameOf(row)}`} sx={{ px: 1 }} onClick={() => onChange(row)}>
      Change
    </Button>
  ),
});
