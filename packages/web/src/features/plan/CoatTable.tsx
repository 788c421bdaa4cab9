import type { CSSProperties } from 'react';
import type { ReactNode } from 'react';
import type { JobWorked } from '../../shared/useJobWork';
import { type PlannedCoat, type GunSettings } from '@steady-gleam/core/spraying';
import { useUnits } from '../../shared/units';
import { useWide } from '../../shared/useWide';
import { COLUMNS, CoatRow } from './CoatRow';
import type { SprayArea, JobPlan } from '@steady-gleam/core/jobs';

interface CoatTableProps {
  readonly th: CSSProperties;
  readonly rows: JobPlan['rows'];
  readonly td: CSSProperties;
  readonly order: readonly SprayArea[];
  readonly work: JobWorked;
  readonly laid: (coat: PlannedCoat) => ReactNode;
  readonly edit: (coat: PlannedCoat, key: 'flashMinutes' | keyof GunSettings, value: number) => void;
}

/** Every coat of the plan and how it is laid. */
export function CoatTable({ th, rows, td, order, work, laid, edit }: CoatTableProps) {
  const units = useUnits();
  const wide = useWide();
  return (
    <table aria-label="Coats" style={{ borderCollapse: 'collapse', width: '100%', fontSize: 15 }}>
      <thead>
        <tr>
          <th scope="col" style={th}>
            coat
          </th>
          {COLUMNS.map((c) => (
            <th key={c.key} scope="col" style={th}>
              {c.measure ? `${c.label}, ${units.name(c.measure)}` : units.sentence(c.label)}
            </th>
          ))}
          {wide ? (
            <th scope="col" style={{ ...th, textAlign: 'right', paddingRight: 0 }}>
              film
            </th>
          ) : null}
        </tr>
      </thead>
      <tbody>
        {rows.map(({ coat, cells, waitMinutes }) => (
          <CoatRow
            key={`${coat.id} ${coat.style}`}
            coat={coat}
            td={td}
            cells={cells}
            order={order}
            work={work}
            laid={laid}
            waitMinutes={waitMinutes}
            edit={edit}
          />
        ))}
      </tbody>
    </table>
  );
}
