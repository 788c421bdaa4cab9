import { Box, Button, Typography } from '@mui/material';
import { useState, useSyncExternalStore, type FormEvent } from 'react';
import { faultOf } from '../../shared/apiClient';
import { Field } from '../../ui/Field';
import { onPost, postNow, waitingIn } from '../../shared/log/post';
import { useSignIn } from '../../shared/useSession';

/** The shop's door: nothing is shown before the passcode. What waits on this device stays, and is sent afterwards. */
export function SignIn() {
  const [passcode, setPasscode] = useState('');
  const signIn = useSignIn();
  const waiting = waitingIn(useSyncExternalStore(onPost, postNow));
  const submit = (e: FormEvent) => {
    e.preventDefault();
    if (passcode.trim()) signIn.mutate(passcode);
  };
  return (
    <Box component="form" onSubmit={submit} sx={{ m: 'auto', pt: '14vh', width: 420, maxWidth: '100%', px: 2 }}>
      <Typography variant="h1">Sign in to the shop</Typography>
      <Typography sx={{ mt: 1, mb: 2 }}>
        This device is not signed in yet. The shop’s owner has the passcode, or a code for looking only.
      </Typography>
      <Field
        label="Passcode"
        type="password"
        autoComplete="current-password"
        autoFocus
        value={passcode}
        onChange={(e) => setPasscode(e.target.value)}
        error={signIn.error ? faultOf(signIn.error) : undefined}
      />
      <Button type="submit" variant="contained" disabled={signIn.isPending || !passcode.trim()} sx={{ mt: 2 }}>
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
