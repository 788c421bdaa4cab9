import type { RatedRecipe, TargetAngle } from '@steady-gleam/core/matching';
import { Button } from '@mui/material';
import { andControl } from '@steady-gleam/core/finishes';
import { findGround } from '@steady-gleam/core/materials';
import { Link } from 'react-router';
import { Strips } from '../../shared/Strips';
import { Table } from '../../ui/Table';
import { Unseen } from '../../ui/Unseen';
import { sayCoats } from '../../shared/jobModel';
import { useLibrary } from '../../shared/library';
import { cssOf } from '../../shared/screenColour';

interface RecipeTableProps {
  readonly found: readonly RatedRecipe[];
  readonly target: TargetAngle[];
  readonly exposures: number[];
  readonly to: (r: RatedRecipe) => string;
}

/** How high strips stand: what is compared shares what the window has below the heads, within what an eye needs and what is a strip still. */
const stripHeight = (rows: number): string => `clamp(55px, calc((100vh - 350px) / ${rows}), 84px)`;

/** Recipes no other beats, the nearest first. */
export function RecipeTable({ found, target, exposures, to }: RecipeTableProps) {
  const { library } = useLibrary();
  const groundOf = (r: RatedRecipe) => findGround(r.groundId, library.grounds).name;
  return (
    <Table
      label="Recipes no other beats"
      rows={found}
      keyOf={(r) => JSON.stringify([r.groundId, r.strength, r.coats, r.controlCoats])}
      columns={[
        {
          ...{ head: 'target over prediction', style: { width: '22%', padding: '0 14px 0 0' } },
          draw: (r) => (
            <Strips
              height={stripHeight(found.length)}
              pairs={target.map((t, g) => [cssOf(t.lab, exposures[g]), cssOf(r.labs[g]!, exposures[g])])}
            />
          ),
        },
        {
          head: 'ground',
          draw: (r) => (
            <>
              {groundOf(r)}
              {r.controlCoats ? <div style={{ fontSize: 14 }}>{andControl(r.controlCoats).trim()}</div> : null}
            </>
          ),
        },
        { head: 'strength', figure: true, draw: (r) => `${Number(r.strength.toFixed(3))}×` },
        { head: 'coats', figure: true, draw: (r) => sayCoats(r.coats) },
        {
          ...{ head: 'dE00', figure: true },
          draw: (r) => `${r.toleranceRatio <= 1 ? '' : '✕ '}${r.rmsDe.toFixed(2)}`,
        },
        { head: 'ends inside', figure: true, draw: (r) => `${Math.round((1 - r.risk) * 100)} %` },
        {
          ...{ id: 'open', head: <Unseen>Open</Unseen>, style: { textAlign: 'right' } },
          draw: (r) => (
            <Button
              component={Link}
              to={to(r)}
              variant="outlined"
              aria-label={`Put on the map: ${groundOf(r)}, ${sayCoats(r.coats)} coats at ${r.strength}×`}
              sx={{ px: 1.25, whiteSpace: 'nowrap' }}
            >
              On the map
            </Button>
          ),
        },
      ]}
    />
  );
}
