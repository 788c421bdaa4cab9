import { Box, Button, Typography, useTheme } from '@mui/material';
import type { JobDetail } from '@steady-gleam/contracts';
import type { TargetAngle } from '@steady-gleam/core/matching';
import { useAddReadings } from '../../shared/useJob';
import { rankChips } from './chipsModel';
import { newId } from '../../shared/newId';

const DAY = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  hour: '2-digit',
  minute: '2-digit',
});

/** Earlier readings of the same object, how far they are from those in force, and a way back to them. */
export function TargetHistory({ detail, target }: { detail: JobDetail; target: readonly TargetAngle[] }) {
  const { tones } = useTheme();
  const { job, targetHistory } = detail;
  const add = useAddReadings(job);
  if (!targetHistory.length) return null;
  return (
    <Box component="section" aria-label="Read before" sx={{ mt: 3, maxWidth: 720 }}>
      <Typography variant="h2">Read before</Typography>
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {targetHistory.map((set) => {
          const [ranked] = rankChips([{ ...set, label: set.id }], target);
          const spots = new Set(set.readings.map((r) => r.spot)).size;
          return (
            <Box
              component="li"
              key={set.id}
              sx={{
                display: 'flex',
                alignItems: 'center',
                gap: 2,
                borderBottom: `1px solid ${tones.hairline}`,
                minHeight: 48,
              }}
            >
              <span style={{ flex: 1 }}>
                {DAY.format(new Date(set.takenAt))}, {spots} {spots === 1 ? 'spot' : 'spots'}
                {ranked && Number.isFinite(ranked.rmsDe)
                  ? `, dE00 ${ranked.rmsDe.toFixed(1)} from what is in force`
                  : ''}
              </span>
              <Button
                variant="text"
                color="inherit"
                disabled={add.isPending}
                onClick={() => add.mutate({ ...set, id: newId() })}
              >
                Use these again
              </Button>
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}
