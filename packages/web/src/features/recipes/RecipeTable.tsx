import type { CSSProperties } from 'react';
import type { RatedRecipe, TargetAngle } from '@steady-gleam/core/matching';
import { Box, Button, useTheme } from '@mui/material';
import { andControl } from '@steady-gleam/core/finishes';
import { findGround } from '@steady-gleam/core/materials';
import { Link } from 'react-router';
import { angleKey } from '../../shared/angles';
import { Unseen } from '../../ui/Unseen';
import { sayCoats } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { cssOf } from '../../shared/screenColour';

interface RecipeTableProps {
  readonly figure: CSSProperties;
  readonly found: readonly RatedRecipe[];
  readonly target: TargetAngle[];
  readonly exposures: number[];
  readonly to: (r: RatedRecipe) => string;
}

/** Recipes no other beats, the nearest first. */
export function RecipeTable({ figure, found, target, exposures, to }: RecipeTableProps) {
  const { tones } = useTheme();
  const { library } = useLibrary();
  return (
    <Box
      component="table"
      aria-label="Recipes no other beats"
      sx={{
        borderCollapse: 'collapse',
        width: '100%',
        '& td, & th': {
          borderBottom: `1px solid ${tones.hairline}`,
          fontWeight: 400,
          textAlign: 'left',
          p: 0,
          height: 56,
        },
        '& th': { height: 34 },
      }}
    >
      <thead>
        <tr>
          <Box component="th" scope="col" sx={{ width: { xs: 112, lg: 168 }, fontSize: 14 }}>
            target over prediction
          </Box>
          <th scope="col" style={{ paddingLeft: 14 }}>
            ground
          </th>
          <th scope="col" style={figure}>
            strength
          </th>
          <th scope="col" style={figure}>
            coats
          </th>
          <th scope="col" style={figure}>
            dE00
          </th>
          <th scope="col" style={figure}>
            ends inside
          </th>
          <th scope="col">
            <Unseen>Open</Unseen>
          </th>
        </tr>
      </thead>
      <tbody>
        {found.map((r) => (
          <tr key={JSON.stringify([r.groundId, r.strength, r.coats, r.controlCoats])}>
            <td>
              <div style={{ display: 'flex', height: 55 }} aria-hidden>
                {target.map((t, g) => (
                  <div key={angleKey(t)} style={{ flex: 1, display: 'flex', flexDirection: 'column' }}>
                    <div style={{ flex: 1, background: cssOf(target[g]!.lab, exposures[g]) }} />
                    <div style={{ flex: 1, background: cssOf(r.labs[g]!, exposures[g]) }} />
                  </div>
                ))}
              </div>
            </td>
            <td style={{ paddingLeft: 14 }}>
              {findGround(r.groundId, library.grounds).name}
              {r.controlCoats ? <div style={{ fontSize: 14 }}>{andControl(r.controlCoats).trim()}</div> : null}
            </td>
            <td style={figure}>{Number(r.strength.toFixed(3))}×</td>
            <td style={figure}>{sayCoats(r.coats)}</td>
            <td style={figure}>
              {r.toleranceRatio <= 1 ? '' : '✕ '}
              {r.rmsDe.toFixed(2)}
            </td>
            <td style={figure}>{Math.round((1 - r.risk) * 100)} %</td>
            <td style={{ textAlign: 'right' }}>
              <Button
                component={Link}
                to={to(r)}
                variant="outlined"
                aria-label={`Put on the map: ${findGround(r.groundId, library.grounds).name}, ${sayCoats(r.coats)} coats at ${r.strength}×`}
                sx={{ px: 1.25, whiteSpace: 'nowrap' }}
              >
                On the map
              </Button>
            </td>
          </tr>
        ))}
      </tbody>
    </Box>
  );
}
