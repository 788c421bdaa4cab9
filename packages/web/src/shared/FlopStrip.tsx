import { Box } from '@mui/material';
import type { Lab } from '@steady-gleam/core';
import { FIGURES } from '../app/theme';
import { cssOf, exposuresByAngle } from './screenColour';

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
  return (
    <Box>
      <Box role="img" aria-label={label} sx={{ display: 'flex', height }}>
        {angles.map((angle, g) => (
          <Box key={angle} sx={{ flex: 1, display: 'flex', flexDirection: 'column' }}>
            <Box sx={{ flex: 1, background: cssOf(target[g]!, exposures[g]) }} />
            {sample ? <Box sx={{ flex: 1, background: cssOf(sample[g]!, exposures[g]) }} /> : null}
          </Box>
        ))}
      </Box>
      <Box sx={{ display: 'flex', fontFamily: FIGURES, fontSize: 13, mt: 0.5 }} aria-hidden>
        {angles.map((angle) => (
          <Box key={angle} sx={{ flex: 1, textAlign: 'center' }}>{angle}°</Box>
        ))}
      </Box>
    </Box>
  );
}
