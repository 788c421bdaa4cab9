import { sayAngle } from '../../shared/angles';
import type { AveragedAngle } from '@steady-gleam/core/formats';
import type { TargetAngle } from '@steady-gleam/core/matching';
import { Table, type Column } from '../../ui/Table';

/** Spots further from their average than this, CIEDE2000, are worth a second look; ours. */
export const SPREAD_WORTH_A_LOOK = 1;

interface TargetTableProps {
  readonly averaged: AveragedAngle[];
  readonly target: TargetAngle[];
}

/** The target as it was read, angle by angle. */
export function TargetTable({ averaged, target }: TargetTableProps) {
  const figure = (head: string, draw: (a: AveragedAngle, at: number) => string): Column<AveragedAngle> => ({
    ...{ head, figure: true, draw },
  });
  return (
    <Table
      label="The target, angle by angle"
      maxWidth={720}
      rows={averaged}
      keyOf={(a) => `${a.incidence}/${a.aspecular}`}
      columns={[
        { head: 'angle', draw: sayAngle },
        ...['L*', 'a*', 'b*'].map((axis, i) => figure(axis, (a) => a.lab[i]!.toFixed(1))),
        figure('spots', (a) => String(a.spots)),
        figure(
          'spread, dE00',
          (a) => `${a.spots > 1 ? a.spread.toFixed(2) : '–'}${a.spread > SPREAD_WORTH_A_LOOK ? ' ◂ look' : ''}`,
        ),
        figure('limit, dE00', (_, at) => target[at]!.tolerance.toFixed(1)),
      ]}
    />
  );
}
