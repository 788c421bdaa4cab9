import { Box, Button, useTheme } from '@mui/material';
import type { JobEvent } from '@steady-gleam/core/jobs';
import { countCoats } from '../../shared/jobModel';
import { TakeOut, useTakenOut } from '../../shared/TakeOut';
import type { PageDetail } from '../../shared/useJob';
import type { JobLog } from '../../shared/log/useLog';
import { saySpot } from './sprayModel';
import type { Live } from './useLive';

/** Every place that was looked at: where it stands, and what was said there to be taken back. */
export function SpotList({
  detail,
  live,
  history,
  log,
}: {
  detail: PageDetail;
  live: Live;
  history: readonly JobEvent[];
  log: Pick<JobLog, 'tell'>;
}) {
  const { tones } = useTheme();
  const { spots } = detail;
  const { took, note } = useTakenOut();
  // Everything said there at that count, or an earlier word of it would be in force again.
  const takeBack = (spot: string, coats: number) =>
    log.tell(
      ...history
        .filter((e) => e.kind === 'look' && e.look?.spot === spot && e.coats === coats)
        .map((e) => ({ kind: 'undo' as const, text: e.id })),
    );
  return (
    <>
      {live.state?.spots.length ? (
        <Box component="ul" aria-label="Spots" sx={{ listStyle: 'none', p: 0, mt: 2, maxWidth: 720 }}>
          {live.state.spots.map((s) => (
            <Box component="li" key={s.spot} sx={{ borderTop: `1px solid ${tones.hairline}`, py: 0.75 }}>
              <b>{s.spot}</b>, {saySpot(s)}{' '}
              {spots
                .filter((r) => r.label === s.spot)
                .map((r) => (
                  <TakeOut
                    key={r.id}
                    set={r}
                    what={`Take the reading at ${countCoats(r.rungCoats ?? 0)} out`}
                    onTaken={() => took(r, `The reading of ${s.spot}`)}
                  />
                ))}
              {[...new Set(live.seen.filter((v) => v.spot === s.spot).map((v) => v.coats))].map((coats) => (
                <Button
                  key={coats}
                  variant="text"
                  color="inherit"
                  sx={{ px: 0.5, minHeight: 44 }}
                  onClick={() => takeBack(s.spot, coats)}
                >
                  Take back what was said at {countCoats(coats)}
                </Button>
              ))}
            </Box>
          ))}
        </Box>
      ) : null}
      {note}
    </>
  );
}
