import { Box, Button, Typography } from '@mui/material';
import { finishesApi, type FinishSummary } from '@steady-gleam/contracts';
import { Field } from '../../ui/Field';
import { checkWith } from '../../shared/checkWith';
import { useTypedForm } from '../../ui/useTypedForm';
import { useRenameFinish } from '../../shared/useFinishes';

/** Codes as they are typed: one after the other, parted by commas. */
const codesIn = (typed: string): string[] =>
  typed
    .split(',')
    .map((c) => c.trim())
    .filter(Boolean);

/** All codes are typed in one field. */
const fieldOf = (path: string): string => (path.startsWith('codes') ? 'codes' : path);

/** Name and codes, kept by a button; what is wrong with them is said at the field. */
export function Names({ finish }: { finish: FinishSummary }) {
  const rename = useRenameFinish(finish.id);
  const form = useTypedForm({
    start: { name: finish.name, codes: finish.codes.join(', ') },
    check: (typed) =>
      checkWith(
        finishesApi.rename.body,
        { version: finish.version, name: typed.name, codes: codesIn(typed.codes) },
        fieldOf,
      ),
    keep: rename.mutateAsync,
    fieldOf,
  });
  const typed = form.values;
  const changed = typed.name !== finish.name || codesIn(typed.codes).join() !== finish.codes.join();
  return (
    <Box component="form" noValidate onSubmit={form.onSubmit} sx={{ display: 'grid', gap: 1.5 }}>
      <Field label="Name" {...form.text('name')} />
      <Field label="Codes" {...form.text('codes')} hint="The shop’s own and others, parted by commas: C-12, rack 4" />
      {form.failure ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {form.failure}
        </Typography>
      ) : null}
      <Box>
        <Button type="submit" variant="outlined" disabled={!changed || form.busy}>
          Keep name and codes
        </Button>
      </Box>
    </Box>
  );
}
