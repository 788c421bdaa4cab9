import { Box, Button, Typography } from '@mui/material';
import { sessionApi } from '@steady-gleam/contracts';
import { useSyncExternalStore } from 'react';
import { Field } from '../../ui/Field';
import { checkWith } from '../../shared/checkWith';
import { useTypedForm } from '../../ui/useTypedForm';
import { onPost, postNow, waitingIn } from '../../shared/log/post';
import { useSignIn } from '../../shared/useSession';

/** The shop's door: nothing is shown before the passcode. What waits on this device stays, and is sent afterwards. */
export function SignIn() {
  const signIn = useSignIn();
  const form = useTypedForm({
    start: { passcode: '' },
    check: ({ passcode }) => checkWith(sessionApi.open.body, { passcode }),
    keep: ({ passcode }) => signIn.mutateAsync(passcode),
  });
  const waiting = waitingIn(useSyncExternalStore(onPost, postNow));
  return (
    <Box
      component="form"
      noValidate
      onSubmit={form.onSubmit}
      sx={{ m: 'auto', pt: '14vh', width: 420, maxWidth: '100%', px: 2 }}
    >
      <Typography variant="h1">Sign in to the shop</Typography>
      <Typography sx={{ mt: 1, mb: 2 }}>
        This device is not signed in yet. The shop’s owner has the passcode, or a code for looking only.
      </Typography>
      <Field
        label="Passcode"
        type="password"
        autoComplete="current-password"
        autoFocus
        {...form.text('passcode')}
        error={form.fault('passcode') ?? form.failure ?? undefined}
      />
      <Button type="submit" variant="contained" disabled={form.busy || !form.values.passcode.trim()} sx={{ mt: 2 }}>
        Sign in
      </Button>
      {waiting ? (
        <Typography role="status" sx={{ mt: 2 }}>
          {waiting === 1 ? 'One entry is' : `${waiting} entries are`} kept on this device and sent as soon as it is
          signed in.
        </Typography>
      ) : null}
    </Box>
  );
}
