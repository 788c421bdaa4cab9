import { Box, Button, Typography, useTheme } from '@mui/material';
import { potState } from '@steady-gleam/core/mixing';
import { useSyncExternalStore, type ReactNode } from 'react';
import { Link } from 'react-router';
import { sayClock } from '../../app/PotClocks';
import { Simulated } from '../../shared/devices/Simulated';
import { HereNotes } from '../../shared/HereNotes';
import { onPost, postNow } from '../../shared/log/post';
import type { JobLog } from '../../shared/log/useLog';
import { useReach } from '../../shared/reach';
import { useNow } from '../../shared/useNow';
import { useBatches } from '../../shared/useShop';
import { TALL } from './boothStyles';

/** Cups of this job that are setting. */
function BoothPots({ jobId }: { jobId: string }) {
  const { tones } = useTheme();
  const now = useNow();
  const { data = [] } = useBatches(jobId);
  return data
    .filter((b) => b.jobId === jobId && b.endedAt === null && b.potMinutes !== null)
    .map((b) => {
      const pot = potState(new Date(b.mixedAt).getTime(), b.potMinutes, now);
      return (
        <Typography
          key={b.id}
          role={pot.state === 'fresh' ? undefined : 'status'}
          sx={{ fontSize: 20, color: pot.state === 'over' ? tones.danger : 'inherit', whiteSpace: 'nowrap' }}
        >
          {b.name}: {pot.state === 'over' ? 'pot life over, do not spray' : `${sayClock(pot.minutesLeft!)} left`}
        </Typography>
      );
    });
}

/** Where every tap of this run is: being written, here, on its way, or with the server. */
export function sayQueue(log: Pick<JobLog, 'away' | 'unsent' | 'writing'>, isLocked: boolean): string {
  if (log.writing) return 'Keeping your tap …';
  if (!log.away && !log.unsent && !isLocked) return 'Everything is kept';
  const where = isLocked ? 'Signed out' : log.away ? 'Server away' : 'Sending';
  return `${where}: ${log.unsent} ${log.unsent === 1 ? 'tap' : 'taps'} kept here`;
}

/** What is sprayed, the cups that set, and whether every tap is kept. */
export function BoothHeader({
  jobId,
  name,
  back,
  leave = 'Leave the booth',
  log,
  simulated = false,
  children,
}: {
  jobId: string;
  name: string;
  /** Where one goes on leaving. */
  back: string;
  leave?: string;
  /** Of a try-out. */
  simulated?: boolean;
  children?: ReactNode;
  log: Pick<JobLog, 'away' | 'unsent' | 'writing'>;
}) {
  const { isLocked, newBuild } = useReach();
  const post = useSyncExternalStore(onPost, postNow);
  const parcels = post.parcels.filter((p) => p.jobId === jobId && p.refusal === null).length;
  return (
    <>
      <Box component="header" sx={{ display: 'flex', alignItems: 'center', gap: 2, px: 3, pt: 1 }}>
        <Typography variant="h2" component="div" sx={{ flex: 1 }} noWrap>
          {name} {simulated ? <Simulated>try-out, simulated</Simulated> : null}
        </Typography>
        {children}
        <BoothPots jobId={jobId} />
        <Typography role="status" data-testid="queue" sx={{ fontSize: 17 }}>
          {sayQueue(log, isLocked)}
          {parcels ? `, ${parcels === 1 ? 'one more entry' : `${parcels} more entries`} kept here` : ''}
        </Typography>
        {isLocked ? (
          <Button component={Link} to="/" variant="contained" sx={{ ...TALL, fontSize: 18 }}>
            Sign in
          </Button>
        ) : null}
        <Button component={Link} to={back} variant="outlined" sx={{ ...TALL, fontSize: 18 }}>
          {leave}
        </Button>
      </Box>
      <HereNotes sx={{ fontSize: 17, px: 3, pt: 0.5 }} />
      {newBuild ? (
        <Typography role="note" sx={{ fontSize: 17, px: 3, pt: 0.5 }}>
          A new version is here. It is taken when you leave the booth.
        </Typography>
      ) : null}
    </>
  );
}
