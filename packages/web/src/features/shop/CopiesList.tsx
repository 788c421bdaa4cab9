import { Box, Button, Link as MuiLink, Typography, useTheme } from '@mui/material';
import { copyPath, type ShopCopy } from '@steady-gleam/contracts';
import { useState } from 'react';
import { FIGURES } from '../../app/theme';
import { faultOf } from '../../shared/apiClient';
import { FileButton } from '../../shared/FileButton';
import { timeSaid } from '../../shared/timeOfDay';
import { sayBytes, sayWhy } from './shopModel';
import { useBringCopy, useGoBack, useMakeCopy } from './useShopPlace';

/** Copies shown before the older ones are asked for. */
const FIRST = 4;

/** Copies of the shop: made, fetched, brought from elsewhere, and put in the place of what there is. */
export function CopiesList({ copies, now }: { copies: readonly ShopCopy[]; now: number }) {
  const { tones } = useTheme();
  const [asking, setAsking] = useState<string | null>(null);
  const [all, setAll] = useState(false);
  const make = useMakeCopy();
  const bring = useBringCopy();
  const back = useGoBack();
  const fault = make.error ?? bring.error ?? back.error;
  return (
    <>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mb: 1 }}>
        <Button variant="contained" disabled={make.isPending} onClick={() => make.mutate()}>
          {make.isPending ? 'Copying …' : 'Make a copy now'}
        </Button>
        <FileButton
          variant="outlined"
          label="A copy from elsewhere"
          accept=".gz,application/gzip"
          disabled={bring.isPending}
          onFile={(file) => bring.mutate(file)}
        >
          {bring.isPending ? 'Reading it through …' : 'Bring a copy from elsewhere'}
        </FileButton>
      </Box>
      {fault ? (
        <Typography role="alert" sx={{ color: 'error.main', mb: 1 }}>
          {faultOf(fault)}
        </Typography>
      ) : null}
      {back.data ? (
        <Typography role="status" sx={{ mb: 1 }}>
          The shop is as it was {timeSaid(Date.parse(back.data.from.madeAt), now)}. What it had before is the copy of{' '}
          {timeSaid(Date.parse(back.data.before.madeAt), now)}.
        </Typography>
      ) : null}
      <Box component="ul" aria-label="Copies" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {copies.slice(0, all ? copies.length : FIRST).map((c) => (
          <Box component="li" key={c.name} sx={{ borderTop: `1px solid ${tones.hairline}`, minHeight: 48, py: 0.25 }}>
            <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
              <Typography sx={{ flex: '1 1 220px' }}>
                {timeSaid(Date.parse(c.madeAt), now)}
                {sayWhy(c) ? `, ${sayWhy(c)}` : ''}
              </Typography>
              <Typography sx={{ fontFamily: FIGURES, minWidth: 80, textAlign: 'right' }}>
                {sayBytes(c.bytes)}
              </Typography>
              <MuiLink
                href={copyPath(c.name)}
                sx={{ color: 'inherit', display: 'inline-flex', minHeight: 44, alignItems: 'center' }}
              >
                Fetch it
              </MuiLink>
              <Button
                variant="text"
                color="inherit"
                aria-expanded={asking === c.name}
                onClick={() => setAsking(asking === c.name ? null : c.name)}
              >
                Go back to it
              </Button>
            </Box>
            {asking === c.name ? (
              <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center', flexWrap: 'wrap', pb: 1 }}>
                <Typography sx={{ flex: '1 1 300px' }}>
                  Everything entered since then goes out of the shop, on every device. A copy of what is there now is
                  made first.
                </Typography>
                <Button
                  variant="outlined"
                  disabled={back.isPending}
                  onClick={() => back.mutate(c, { onSettled: () => setAsking(null) })}
                >
                  {back.isPending ? 'Going back …' : 'Go back'}
                </Button>
                <Button variant="outlined" onClick={() => setAsking(null)}>
                  Leave it
                </Button>
              </Box>
            ) : null}
          </Box>
        ))}
      </Box>
      {copies.length > FIRST ? (
        <Button variant="text" color="inherit" aria-expanded={all} onClick={() => setAll(!all)} sx={{ px: 0.5 }}>
          {all ? 'The newest only' : `${copies.length - FIRST} older`}
        </Button>
      ) : null}
    </>
  );
}
