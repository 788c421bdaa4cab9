import type { CSSProperties } from 'react';
import { Box, Typography } from '@mui/material';
import { type CurtainSaid } from '@steady-gleam/contracts';
import { limitAt } from '@steady-gleam/core/finishes';
import { FIVE_ANGLES } from '@steady-gleam/core/optics';
import { type PageDetail } from '../../shared/useJob';
import { sayEnd, sayFilm } from './curtainModel';

interface TrueDifferencesProps {
  readonly line: CSSProperties;
  readonly figure: CSSProperties;
  readonly said: CurtainSaid;
  readonly usual: Readonly<Record<number, number>>;
  readonly job: PageDetail['job'];
}

/** How far each object really is from what it had to match, angle by angle. */
export function TrueDifferences({ line, figure, said, usual, job }: TrueDifferencesProps) {
  return (
    <Box>
      <Typography variant="h2">True difference at each angle, dE00</Typography>
      <table style={{ borderCollapse: 'collapse', width: '100%', marginTop: 8 }} aria-label="True differences">
        <thead>
          <tr>
            <th scope="col" style={line}>
              where
            </th>
            {FIVE_ANGLES.map((g) => (
              <th key={g.aspecular} scope="col" style={{ ...figure, paddingRight: 18 }}>
                {g.aspecular}°
              </th>
            ))}
            <th scope="col" style={figure}>
              film
            </th>
            <th scope="col" style={{ ...line, paddingLeft: 20 }}>
              ended
            </th>
          </tr>
        </thead>
        <tbody>
          {[...said.objects, said.nominal].map((o) => (
            <tr key={o.name}>
              <td style={line}>{o.name}</td>
              {o.differences.map((d, g) => {
                const off = d > limitAt(FIVE_ANGLES[g]!.aspecular, usual, job.limits);
                return (
                  <td key={g} style={{ ...figure, fontWeight: off ? 700 : 400 }}>
                    {d.toFixed(1)}
                    <span style={{ display: 'inline-block', width: 18 }}>{off ? ' ×' : ''}</span>
                  </td>
                );
              })}
              <td style={figure}>{sayFilm(o.film)}</td>
              <td style={{ ...line, paddingLeft: 20, fontWeight: 640 }}>{sayEnd(o.end)}</td>
            </tr>
          ))}
          <tr>
            <td style={line}>limit</td>
            {FIVE_ANGLES.map((g) => (
              <td key={g.aspecular} style={{ ...figure, paddingRight: 18 }}>
                {limitAt(g.aspecular, usual, job.limits).toFixed(1)}
              </td>
            ))}
            <td style={line} colSpan={2} />
          </tr>
        </tbody>
      </table>
    </Box>
  );
}
