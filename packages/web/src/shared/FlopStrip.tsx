import { Box, Typography } from '@mui/material';
import type { Lab } from '@steady-gleam/core';
import { FIGURES } from '../app/theme';
import { cssOf, exposuresByAngle, fitsScreen, inkOn } from './screenColour';

interface FlopStripProps {
  readonly angles: readonly number[];
  /** What is to be matched; upper half. */
  readonly target: readonly Lab[];
  /** Lower half, touching; left out when there is nothing to compare. */
  readonly sample?: readonly Lab[];
  readonly height?: number;
  readonly label: string;
}

/** Colours from face to flop, target over sample, sharing an edge: no gap, no border. */
export function FlopStrip({ angles, target, sample, height = 116, label }: FlopStripProps) {
  const exposures = exposuresByAngle(sample ? [target, sample] : [target]);
  const beyond = [...target, ...(sample ?? [])].some((lab, i) => !fitsScreen(lab, exposures[i % target.length]));
  // A colour the screen cannot show carries a notch in its corner.
  const mark = (lab: Lab, g: number) =>
    fitsScreen(lab, exposures[g])
      ? {}
      : {
          position: 'relative',
          '&::after': {
            content: '""',
            position: 'absolute',
            top: 0,
            right: 0,
            borderStyle: 'solid',
            borderWidth: '0 9px 9px 0',
            borderColor: `transparent ${inkOn(lab, exposures[g])} transparent transparent`,
          },
        };
  return (
    <Box>
      <Box role="img" aria-label={label} sx={{ display: 'flex', height }}>
        {angles.map((angle, g) => (
          <Box key={angle} sx={{ flex: 1, display: 'flex', flexDirection: 'column' }}>
            <Box sx={{ flex: 1, background: cssOf(target[g]!, exposures[g]), ...mark(target[g]!, g) }} />
            {sample ? (
              <Box sx={{ flex: 1, background: cssOf(sample[g]!, exposures[g]), ...mark(sample[g]!, g) }} />
            ) : null}
          </Box>
        ))}
      </Box>
      <Box sx={{ display: 'flex', fontFamily: FIGURES, fontSize: 13, mt: 0.5 }} aria-hidden>
        {angles.map((angle) => (
          <Box key={angle} sx={{ flex: 1, textAlign: 'center' }}>
            {angle}°
          </Box>
        ))}
      </Box>
      {beyond ? (
        <Typography variant="body2" sx={{ color: 'text.secondary' }}>
          ◥ more colour than this screen can show
        </Typography>
      ) : null}
    </Box>
  );
}
