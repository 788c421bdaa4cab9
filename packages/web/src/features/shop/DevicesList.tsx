import { Box, Button, Typography } from '@mui/material';
import type { ShopDevice } from '@steady-gleam/contracts';
import { faultOf } from '../../shared/apiClient';
import { timeSaid } from '../../shared/timeOfDay';
import { useSignOut } from '../../shared/useSession';
import { useEndAll, useEndDevice } from './useShopPlace';
import { Row } from './Row';

/** Devices that are in; each can be signed out, or all of them. */
export function DevicesList({ devices, now }: { devices: readonly ShopDevice[]; now: number }) {
  const end = useEndDevice();
  const endAll = useEndAll();
  const leave = useSignOut();
  const fault = end.error ?? endAll.error ?? leave.error;
  return (
    <>
      <Box component="ul" aria-label="Devices" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {devices.map((d) => (
          <Row key={d.id}>
            <Typography sx={{ flex: '1 1 220px' }}>
              {d.device}
              {d.isThis ? ' (this one)' : ''}
              {d.lookOnly ? ', looking only' : ''}
            </Typography>
            <Typography variant="body2">seen {timeSaid(Date.parse(d.seenAt), now)}</Typography>
            <Button
              variant="text"
              color="inherit"
              disabled={end.isPending || leave.isPending}
              onClick={() => (d.isThis ? leave.mutate() : end.mutate(d.id))}
            >
              Sign out
            </Button>
          </Row>
        ))}
      </Box>
      {fault ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {faultOf(fault)}
        </Typography>
      ) : null}
      <Button variant="outlined" disabled={endAll.isPending} onClick={() => endAll.mutate()} sx={{ mt: 1 }}>
        Sign all devices out
      </Button>
    </>
  );
}
