import { Box, Button, Typography, useTheme } from '@mui/material';
import { batchesApi, type Batch } from '@steady-gleam/contracts';
import type { Gun } from '@steady-gleam/core/products';
import { Link } from 'react-router';
import { FIGURES } from '../../app/theme';
import { call } from '../../shared/apiClient';
import { timeSaid } from '../../shared/timeOfDay';
import { useUnits } from '../../shared/units';
import { useNow } from '../../shared/useNow';
import { batchesOf, transferOf, useShopChange } from '../../shared/useShop';

/** The batches a gun's share was learned from, each with what it says alone; one that is odd can be left out, and taken in again. */
export function GunLessons({ gun, batches }: { gun: Gun; batches: readonly Batch[] }) {
  const { tones } = useTheme();
  const units = useUnits();
  const now = useNow(60_000);
  const set = useShopChange('batches', ({ id, version, teaches }: Pick<Batch, 'id' | 'version' | 'teaches'>) =>
    call(batchesApi.correct, { params: { id }, body: { version, teaches } }),
  );
  const taught = batchesOf(gun, batches);
  const alone = (b: Batch): string => {
    const sprayed = b.ml - b.leftMl! - b.lossMl;
    return sprayed > 0 && b.solidMl > 0
      ? `${Math.round(Math.min(1, b.solidMl / b.volumeSolids / sprayed) * 100)} % alone`
      : 'says nothing';
  };
  return (
    <Box
      component="section"
      aria-label={`What ${gun.name} was taught by`}
      sx={{ px: 1, pb: 1, background: tones.panel }}
    >
      <Typography variant="body2" sx={{ py: 0.75 }}>
        Stated {Math.round(gun.transfer * 100)} %, {Math.round(transferOf(gun, batches).mean * 100)} % by these batches:
      </Typography>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {taught.map((b) => (
          <Box
            component="li"
            key={b.id}
            sx={{ display: 'flex', gap: 2, alignItems: 'center', borderTop: `1px solid ${tones.hairline}` }}
          >
            <Typography variant="body2" sx={{ flex: 1 }}>
              <Link to={`/jobs/${b.jobId}/mix`} style={{ color: 'inherit' }}>
                {b.name} for {b.piece}
              </Link>
              , {timeSaid(new Date(b.mixedAt).getTime(), now)}; used {units.say('volume', b.ml - b.leftMl!)}
            </Typography>
            <Typography variant="body2" sx={{ fontFamily: FIGURES }}>
              {alone(b)}
            </Typography>
            <Button
              variant="text"
              color="inherit"
              disabled={set.isPending}
              onClick={() => set.mutate({ id: b.id, version: b.version, teaches: !b.teaches })}
              sx={{ px: 0.5, textDecoration: 'underline', minWidth: 130 }}
            >
              {b.teaches ? 'Leave it out' : 'Take it in again'}
            </Button>
          </Box>
        ))}
      </Box>
      {set.error ? (
        <Typography role="alert" sx={{ color: 'error.main' }}>
          {set.error.message}
        </Typography>
      ) : null}
    </Box>
  );
}
