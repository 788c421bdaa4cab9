import { Box, Typography, useTheme } from '@mui/material';
import { de2000, type Lab } from '@steady-gleam/core/colour';
import { FIGURES } from '../../app/theme';
import { sayCoats } from '../../shared/jobModel';
import { cssOf, exposuresByAngle } from '../../shared/screenColour';
import type { Mix } from '@steady-gleam/core/looks';
import { useCompute } from '../../worker/useCompute';

/** A difference the eye still sees across an edge, dE00; ours. */
const STILL_SEEN = 1;

/** The film gauge of tinted clear: how much a black and a grey patch still show through after each rung. */
export function PatchGauge({ mix, groundId, rungs }: { mix: Mix; groundId: string; rungs: readonly number[] }) {
  const { tones } = useTheme();
  const { value } = useCompute(JSON.stringify(['patches', mix, groundId, rungs]), (c) =>
    c.patches(mix, groundId, rungs),
  );
  if (!value) return null;
  const exposure = exposuresByAngle(value.flatMap((v) => [[v.ground], [v.black], [v.grey]]))[0]!;
  const patch = (lab: Lab, name: string, d: number) => (
    <Box sx={{ width: '26%', height: 40, background: cssOf(lab, exposure) }} title={`${name}: dE00 ${d.toFixed(1)}`} />
  );
  return (
    <Box component="section" aria-label="Film gauge" sx={{ mt: 2 }}>
      <Typography variant="h2">Film gauge: black and grey patches under the tint</Typography>
      <Typography variant="body2" sx={{ color: 'text.secondary', mb: 1 }}>
        Stick the same two patches beside the repair, and spray till they look like the card’s. Figures: dE00 to the
        ground around.
      </Typography>
      <Box sx={{ display: 'flex' }}>
        {value.map((v) => {
          const [black, grey] = [de2000(v.ground, v.black), de2000(v.ground, v.grey)];
          return (
            <Box key={v.coats} sx={{ flex: 1, minWidth: 0 }}>
              <Box
                sx={{
                  height: 84,
                  background: cssOf(v.ground, exposure),
                  display: 'flex',
                  alignItems: 'center',
                  justifyContent: 'space-evenly',
                }}
                role="img"
                aria-label={`${sayCoats(v.coats)} coats: black patch ${black.toFixed(1)}, grey patch ${grey.toFixed(1)} dE00`}
              >
                {patch(v.black, 'black', black)}
                {patch(v.grey, 'grey', grey)}
              </Box>
              <Box sx={{ fontFamily: FIGURES, fontSize: 13.5, pt: 0.5, pr: 1, borderTop: `1px solid ${tones.page}` }}>
                <b>{sayCoats(v.coats)}</b> black {black.toFixed(1)}, grey {grey.toFixed(1)}
                {Math.max(black, grey) < STILL_SEEN ? ': gone' : ''}
              </Box>
            </Box>
          );
        })}
      </Box>
    </Box>
  );
}
