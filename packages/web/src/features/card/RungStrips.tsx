import { Box, useTheme } from '@mui/material';
import type { Lab } from '@steady-gleam/core/colour';
import { scoreMatch, type TargetAngle } from '@steady-gleam/core/matching';
import { FIGURES } from '../../app/theme';
import { cssOf, inkOn } from '../../shared/screenColour';
import { angleKey } from '../../shared/angles';

interface RungStripsProps {
  readonly rungs: readonly number[];
  readonly target: readonly TargetAngle[];
  readonly shown: { lab: Lab; read: boolean }[][];
  readonly y: (n: number) => number;
  readonly edges: (readonly [number, number])[];
  readonly exposures: number[];
}

/** Every rung beside the target, angle by angle. */
export function RungStrips({ rungs, target, shown, y, edges, exposures }: RungStripsProps) {
  const { tones } = useTheme();
  return rungs.map((n, i) => {
    const score = scoreMatch(
      target,
      shown[i]!.map((c) => c.lab),
    );
    return (
      <Box
        key={n}
        sx={{
          position: 'absolute',
          left: 0,
          right: 0,
          top: `${y(edges[i]![0])}%`,
          height: `${y(edges[i]![1]) - y(edges[i]![0])}%`,
          display: 'flex',
          cursor: 'pointer',
          borderTop: i ? `1px solid ${tones.page}` : 0,
        }}
      >
        {target.map((t, g) => {
          const { lab, read } = shown[i]![g]!;
          return (
            <Box key={angleKey(t)} sx={{ flex: 1, display: 'flex', flexDirection: 'column', minWidth: 0 }}>
              <Box
                sx={{
                  flex: 1,
                  background: cssOf(lab, exposures[g]),
                  color: inkOn(lab, exposures[g]),
                  position: 'relative',
                  fontFamily: FIGURES,
                  fontSize: 14,
                  textAlign: 'right',
                  p: '3px 7px',
                }}
              >
                {read ? null : (
                  <svg width="100%" height="100%" style={{ position: 'absolute', inset: 0 }} aria-hidden>
                    <defs>
                      <pattern
                        id="unread"
                        width="9"
                        height="9"
                        patternUnits="userSpaceOnUse"
                        patternTransform="rotate(45)"
                      >
                        <path d="M0 0v9" stroke="currentColor" strokeOpacity=".22" />
                      </pattern>
                    </defs>
                    <rect width="100%" height="100%" fill="url(#unread)" />
                  </svg>
                )}
                <span style={{ position: 'relative' }}>{score.differences[g]!.toFixed(1)}</span>
              </Box>
              <Box sx={{ flex: 1, background: cssOf(t.lab, exposures[g]) }} />
            </Box>
          );
        })}
      </Box>
    );
  });
}
