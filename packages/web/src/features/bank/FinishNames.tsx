import { Box, Button, Typography } from '@mui/material';
import { finishesApi, type FinishSummary } from '@steady-gleam/contracts';
import { useState } from 'react';
import { ValidationError } from 'yup';
import { ApiFailure } from '../../shared/apiClient';
import { Field } from '../../ui/Field';
import { useRenameFinish } from '../../shared/useFinishes';

/** Codes as they are typed: one after the other, parted by commas. */
const codesIn = (typed: string): string[] =>
  typed
    .split(',')
    .map((c) => c.trim())
    .filter(Boolean);

/** Name and codes, kept by a button; what is wrong with them is said at the field. */
export function Names({ finish }: { finish: FinishSummary }) {
  const rename = useRenameFinish(finish.id);
  const [typed, setTyped] = useState({ name: finish.name, codes: finish.codes.join(', ') });
  const [faults, setFaults] = useState<Record<string, string>>({});
  const changed = typed.name !== finish.name || codesIn(typed.codes).join() !== finish.codes.join();
  const save = () => {
    try {
      const body = finishesApi.rename.body.validateSync(
        { version: finish.version, name: typed.name, codes: codesIn(typed.codes) },
        { abortEarly: false },
      );
      setFaults({});
      rename.mutate(body, { onError: (e) => setFaults(e instanceof ApiFailure ? e.fields : {}) });
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      setFaults(Object.fromEntries(error.inner.map((e) => [e.path ?? '', e.message])));
    }
  };
  return (
    <Box
      component="form"
      noValidate
      onSubmit={(e) => {
        e.preventDefault();
        save();
      }}
      sx={{ display: 'grid', gap: 1.5 }}
    >
      <Field
        label="Name"
        value={typed.name}
        error={faults['name']}
        onChange={(e) => setTyped({ ...typed, name: e.target.value })}
      />
      <Field
        label="Codes"
        value={typed.codes}
        error={Object.entries(faults).find(([k]) => k.startsWith('codes'))?.[1]}
        hint="The shop’s own and others, parted by commas: C-12, rack 4"
        onChange={(e) => setTyped({ ...typed, codes: e.target.value })}
      />
      {rename.error && !Object.keys(faults).length ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {rename.error.message}
        </Typography>
      ) : null}
      <Box>
        <Button type="submit" variant="outlined" disabled={!changed || rename.isPending}>
          Keep name and codes
        </Button>
      </Box>
    </Box>
  );
}
