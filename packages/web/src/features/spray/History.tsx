import { Box, Typography, useTheme } from '@mui/material';
import type { Photo } from '@steady-gleam/contracts';
import { sayEvent, type JobPlan, type JobState } from '@steady-gleam/core/jobs';
import { FIGURES } from '../../app/theme';
import { timeSaid } from '../../shared/timeOfDay';
import { useNow } from '../../shared/useNow';

/** Everything seen, noted and photographed on the job, newest first, each with its time and place. */
export function History({
  plan,
  state,
  photos,
}: {
  plan: JobPlan;
  state: Pick<JobState, 'history'>;
  photos: readonly Photo[];
}) {
  const { tones } = useTheme();
  const now = useNow(60_000);
  const lines = state.history.flatMap((e) => {
    const said = sayEvent(plan, e);
    return said ? [{ e, said }] : [];
  });
  if (!lines.length) return null;
  return (
    <Box component="section" aria-label="History" sx={{ mt: 2, maxWidth: 720 }}>
      <Typography variant="h2">What was seen and noted</Typography>
      <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {[...lines].reverse().map(({ e, said }) => (
          <Box
            component="li"
            key={e.id}
            sx={{ display: 'flex', gap: 1.5, borderTop: `1px solid ${tones.hairline}`, py: 0.5 }}
          >
            <Box component="time" sx={{ fontFamily: FIGURES, flex: 'none', minWidth: 120 }}>
              {timeSaid(e.at, now)}
            </Box>
            <span style={{ flex: 1, overflowWrap: 'anywhere' }}>{said}</span>
            {e.kind === 'photo' && photos.some((p) => p.id === e.text) ? (
              <a href={`/api/photos/${e.text}`} target="_blank" rel="noreferrer">
                <img src={`/api/photos/${e.text}`} alt={said} style={{ height: 72, display: 'block' }} />
              </a>
            ) : null}
          </Box>
        ))}
      </Box>
    </Box>
  );
}
