import { Fragment, useState } from 'react';
import type { StoredGun, Batch } from '@steady-gleam/contracts';
import { GunLessons } from './GunLessons';
import { GunRow } from './GunRow';
import { ShelfHead, TABLE } from './shelfTable';

const COLUMNS = ['gun', 'at the gun', 'fan', 'distance', 'speed', 'flow', 'lands'] as const;

interface GunTableProps {
  readonly guns: readonly StoredGun[];
  readonly batches: Batch[];
  readonly onChange: (gun: StoredGun) => void;
}

/** The shop's guns, a row each. */
export function GunTable({ guns, batches, onChange }: GunTableProps) {
  /** The gun whose lessons are shown. */
  const [open, setOpen] = useState<string | null>(null);
  return (
    <table aria-label="Guns" style={TABLE}>
      <ShelfHead names={COLUMNS} text={['gun']} />
      <tbody>
        {guns.map((stored) => {
          const { gun } = stored;
          const isOpen = open === gun.id;
          return (
            <Fragment key={gun.id}>
              <GunRow
                stored={stored}
                batches={batches}
                isOpen={isOpen}
                onOpen={() => setOpen(isOpen ? null : gun.id)}
                onChange={() => onChange(stored)}
              />
              {isOpen ? (
                <tr>
                  <td colSpan={COLUMNS.length + 1} style={{ padding: 0 }}>
                    <GunLessons gun={gun} batches={batches} />
                  </td>
                </tr>
              ) : null}
            </Fragment>
          );
        })}
      </tbody>
    </table>
  );
}
