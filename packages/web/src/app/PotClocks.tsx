import { Box, useTheme } from '@mui/material';
import { potState } from '@steady-gleam/core/mixing';
import { Link } from 'react-router';
import { useBatches } from '../shared/useShop';
import { useNow } from '../shared/useNow';
import { FIGURES } from './theme';

/** Minutes as a clock shows them: 1:05. */
export function sayClock(minutes: number): string {
  const whole = Math.max(0, Math.ceil(minutes));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}

/** Cups that are setting, wherever the painter is in the application: time left, loud before it ends. */
export function PotClocks() {
  const { tones } = useTheme();
  const { data } = useBatches();
  // In the steps of the mix room, so that both say the same.
  const now = useNow(10_000);
  const setting = (data ?? [])
    .filter((b) => b.endedAt === null && b.potMinutes !== null)
    .map((b) => ({ ...b, ...potState(new Date(b.mixedAt).getTime(), b.potMinutes, now) }))
    .sort((a, b) => a.minutesLeft! - b.minutesLeft!)
    .slice(0, 4);
  if (!setting.length) return null;
  return (
    <Box component="ul" aria-label="Pot life" sx={{ listStyle: 'none', m: 0, p: 0 }}>
      {setting.map((b) => (
        <Box component="li" key={b.id}>
          <Box
            component={Link}
            to={`/jobs/${b.jobId}/mix?layer=${b.layerId}`}
            title={`${b.name}, ${b.piece}`}
            sx={{
              display: 'block',
              minHeight: 48,
              px: '14px',
              py: 0.5,
              borderTop: `1px solid ${tones.hairline}`,
              borderLeft: `5px solid ${b.state === 'over' ? tones.danger : 'transparent'}`,
              textDecoration: 'none',
              color: 'inherit',
              background: b.state === 'fresh' ? 'transparent' : tones.raised,
              '&:focus-visible': { outlineOffset: -3 },
            }}
          >
            <Box component="span" sx={{ display: 'block', fontSize: 13, lineHeight: 1.2 }}>
              {b.name}
            </Box>
            <Box
              component="span"
              role={b.state === 'fresh' ? undefined : 'status'}
              sx={{
                fontFamily: FIGURES,
                fontSize: 15,
                whiteSpace: 'nowrap',
                fontWeight: 600,
                color: b.state === 'over' ? tones.danger : 'inherit',
              }}
            >
              {b.state === 'over' ? 'life over' : `${sayClock(b.minutesLeft!)} left`}
            </Box>
          </Box>
        </Box>
      ))}
    </Box>
  );
}
