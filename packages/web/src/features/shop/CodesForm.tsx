import { Box, Button, Typography } from '@mui/material';
import { CODE_LENGTH } from '@steady-gleam/contracts';
import { useState, type FormEvent } from 'react';
import { ApiFailure } from '../../shared/apiClient';
import { Field } from '../../ui/Field';
import { useSetCodes } from './useShopPlace';

/** The shop's passcode, and the code for a screen that only shows. */
export function CodesForm({ isPasscodeSet, isLookCodeSet }: { isPasscodeSet: boolean; isLookCodeSet: boolean }) {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', lg: '1fr 1fr' }, gap: 3 }}>
      <OneCode
        name="passcode"
        label={isPasscodeSet ? 'New passcode' : 'Passcode of the shop'}
        hint={isPasscodeSet ? 'It signs every other device out.' : `${CODE_LENGTH.least} signs or more.`}
        act={isPasscodeSet ? 'Change it' : 'Set it'}
      />
      <OneCode
        name="lookCode"
        label={isLookCodeSet ? 'New code for looking only' : 'Code for looking only'}
        hint="For the screen on the wall: it shows everything and changes nothing."
        act={isLookCodeSet ? 'Change it' : 'Set it'}
        canClear={isLookCodeSet}
      />
    </Box>
  );
}

function OneCode({
  name,
  label,
  hint,
  act,
  canClear = false,
}: {
  name: 'passcode' | 'lookCode';
  label: string;
  hint: string;
  act: string;
  canClear?: boolean;
}) {
  const [code, setCode] = useState('');
  const set = useSetCodes();
  const fault = set.error instanceof ApiFailure ? (set.error.fields[name] ?? set.error.message) : set.error?.message;
  const submit = (e: FormEvent) => {
    e.preventDefault();
    set.mutate({ [name]: code }, { onSuccess: () => setCode('') });
  };
  return (
    <Box component="form" onSubmit={submit}>
      <Field
        label={label}
        type="password"
        autoComplete="new-password"
        value={code}
        onChange={(e) => setCode(e.target.value)}
        error={fault}
        hint={hint}
      />
      <Box sx={{ display: 'flex', gap: 1, mt: 1, alignItems: 'center' }}>
        <Button type="submit" variant="outlined" disabled={!code || set.isPending}>
          {act}
        </Button>
        {canClear ? (
          <Button
            variant="text"
            color="inherit"
            disabled={set.isPending}
            onClick={() => set.mutate({ lookCode: null })}
          >
            Take it away
          </Button>
        ) : null}
        {set.isSuccess && !code ? <Typography role="status">It is set.</Typography> : null}
      </Box>
    </Box>
  );
}
