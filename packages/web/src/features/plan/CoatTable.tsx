import type { ReactNode } from 'react';
import type { JobWorked } from '../../shared/useJobWork';
import { type PlannedCoat, type GunSettings } from '@steady-gleam/core/spraying';
import type { SprayArea, JobPlan } from '@steady-gleam/core/jobs';
import { useUnits } from '../../shared/units';
import { useWide } from '../../shared/useWide';
import { Table, type Column } from '../../ui/Table';
import { CoatField, CoatName, SETTINGS } from './CoatCells';

interface CoatTableProps {
  readonly rows: JobPlan['rows'];
  readonly order: readonly SprayArea[];
  readonly work: JobWorked;
  readonly laid: (coat: PlannedCoat) => ReactNode;
  readonly edit: (coat: PlannedCoat, key: 'flashMinutes' | keyof GunSettings, value: number) => void;
}

type Row = JobPlan['rows'][number];

/** Every coat of the plan and how it is laid. */
export function CoatTable({ rows, order, work, laid, edit }: CoatTableProps) {
  const units = useUnits();
  const wide = useWide();
  const settings = SETTINGS.map((s): Column<Row> => ({
    ...{ id: s.key, style: { paddingRight: 6 }, headStyle: { fontSize: 13.5, paddingRight: 6 } },
    head: s.measure ? `${s.label}, ${units.name(s.measure)}` : units.sentence(s.label),
    draw: ({ coat, waitMinutes }) => (
      <CoatField
        key={`${coat.id}/${units.system}/${String(coat[s.key])}/${String(coat.typedFlash)}`}
        coat={coat}
        value={s.key === 'flashMinutes' ? Math.ceil(waitMinutes * 10) / 10 : coat[s.key]}
        column={s}
        onKeep={(v) => edit(coat, s.key, v)}
      />
    ),
  }));
  return (
    <Table
      label="Coats"
      rows={rows}
      keyOf={({ coat }) => `${coat.id} ${coat.style}`}
      columns={[
        {
          ...{ head: 'coat', style: { minWidth: 128 } },
          draw: (row) => <CoatName row={row} order={order} work={work} laid={laid} />,
        },
        ...settings,
        ...(wide
          ? [
              {
                ...{ head: 'film', figure: true },
                draw: ({ coat }: Row) => (
                  <>
                    {units.say('film', coat.filmUm)}
                    {laid(coat)}
                  </>
                ),
              },
            ]
          : []),
      ]}
    />
  );
}
