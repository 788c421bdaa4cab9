import { Box, Button, Typography } from '@mui/material';
import { CODE_LENGTH, shopPlaceApi } from '@steady-gleam/contracts';
import { checkWith } from '../../shared/checkWith';
import { useTypedForm } from '../../ui/useTypedForm';
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
  const set = useSetCodes();
  const fieldOf = (path: string) => (path === name ? 'code' : path);
  const form = useTypedForm({
    start: { code: '' },
    check: ({ code }) => checkWith(shopPlaceApi.setCodes.body, { [name]: code }, fieldOf),
    keep: async (body) => {
      await set.mutateAsync(body);
      form.setAll({ code: '' });
    },
    fieldOf,
  });
  const { code } = form.values;
  return (
    <Box component="form" noValidate onSubmit={form.onSubmit}>
      <Field
        label={label}
        type="password"
        autoComplete="new-password"
        {...form.text('code')}
        error={form.fault('code') ?? form.failure ?? undefined}
        hint={hint}
      />
      <Box sx={{ display: 'flex', gap: 1, mt: 1, alignItems: 'center' }}>
        <Button type="submit" variant="outlined" disabled={!code || form.busy}>
          {act}
        </Button>
        {canClear ? (
          <Button
            variant="text"
            color="inherit"
            disabled={form.busy}
            onClick={() => void form.run(() => set.mutateAsync({ lookCode: null }))}
          >
            Take it away
          </Button>
        ) : null}
        {set.isSuccess && !code ? <Typography role="status">It is set.</Typography> : null}
      </Box>
    </Box>
  );
}
