import { Box, useTheme } from '@mui/material';
import { FIGURES } from '../../app/theme';
import { sayAngle } from '../../shared/angles';
import type { AveragedAngle } from '@steady-gleam/core/formats';
import type { TargetAngle } from '@steady-gleam/core/matching';

/** Spots further from their average than this, CIEDE2000, are worth a second look; ours. */
export const SPREAD_WORTH_A_LOOK = 1;

interface TargetTableProps {
  readonly averaged: AveragedAngle[];
  readonly target: TargetAngle[];
}

/** The target as it was read, angle by angle. */
export function TargetTable({ averaged, target }: TargetTableProps) {
  const { tones } = useTheme();
  return (
    <Box
      component="table"
      sx={{
        borderCollapse: 'collapse',
        width: '100%',
        maxWidth: 720,
        '& th': { fontWeight: 400, textAlign: 'right', fontSize: 14, py: 0.75 },
        '& td': { textAlign: 'right', fontFamily: FIGURES, py: 1.1, borderTop: `1px solid ${tones.hairline}` },
        '& th:first-of-type, & td:first-of-type': { textAlign: 'left' },
      }}
    >
      <thead>
        <tr>
          <th scope="col">angle</th>
          <th scope="col">L*</th>
          <th scope="col">a*</th>
          <th scope="col">b*</th>
          <th scope="col">spots</th>
          <th scope="col">spread, dE00</th>
          <th scope="col">limit, dE00</th>
        </tr>
      </thead>
      <tbody>
        {averaged.map((a, i) => (
          <tr key={`${a.incidence}/${a.aspecular}`}>
            <td>{sayAngle(a)}</td>
            <td>{a.lab[0].toFixed(1)}</td>
            <td>{a.lab[1].toFixed(1)}</td>
            <td>{a.lab[2].toFixed(1)}</td>
            <td>{a.spots}</td>
            <td>
              {a.spots > 1 ? a.spread.toFixed(2) : '–'}
              {a.spread > SPREAD_WORTH_A_LOOK ? ' ◂ look' : ''}
            </td>
            <td>{target[i]!.tolerance.toFixed(1)}</td>
          </tr>
        ))}
      </tbody>
    </Box>
  );
}
