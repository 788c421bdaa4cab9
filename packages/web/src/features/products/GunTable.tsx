import { type ReactNode, Fragment, type Dispatch, type SetStateAction } from 'react';
import { type StoredGun, type Batch } from '@steady-gleam/contracts';
import { type Gun } from '@steady-gleam/core/products';
import { batchesOf, transferOf } from '../../shared/useShop';
import { GunLessons } from './GunLessons';
import { GunRow } from './GunRow';

interface GunTableProps {
  readonly th: {
    borderTop: number;
    fontWeight: number;
    fontSize: number;
    verticalAlign: 'bottom';
    textAlign: 'right';
    whiteSpace: 'nowrap';
    padding: '7px 10px 7px 0';
  };
  readonly guns: readonly StoredGun[];
  readonly batches: Batch[];
  readonly td: {
    readonly padding: '7px 10px 7px 0';
    readonly borderTop: `1px solid ${string}`;
    readonly verticalAlign: 'middle';
  };
  readonly figure: {
    textAlign: 'right';
    whiteSpace: 'nowrap';
    padding: '7px 10px 7px 0';
    borderTop: `1px solid ${string}`;
    verticalAlign: 'middle';
  };
  readonly lessons: string | null;
  readonly setLessons: Dispatch<SetStateAction<string | null>>;
  readonly changeCell: (name: string, onClick: () => void) => ReactNode;
  readonly editGun: (stored: StoredGun | null, start: Gun) => void;
}

/** The shop's guns, a row each. */
export function GunTable({ th, guns, batches, td, figure, lessons, setLessons, changeCell, editGun }: GunTableProps) {
  return (
    <table aria-label="Guns" style={{ borderCollapse: 'collapse', width: '100%', fontSize: 15 }}>
      <thead>
        <tr>
          {['gun', 'at the gun', 'fan', 'distance', 'speed', 'flow', 'lands'].map((h, i) => (
            <th key={h} scope="col" style={{ ...th, textAlign: i ? 'right' : 'left' }}>
              {h}
            </th>
          ))}
          <td style={{ ...th, padding: 0 }} />
        </tr>
      </thead>
      <tbody>
        {guns.map((stored) => {
          const g = stored.gun;
          const learned = transferOf(g, batches);
          const taught = batchesOf(g, batches);
          return (
            <Fragment key={g.id}>
              <GunRow
                td={td}
                g={g}
                figure={figure}
                learned={learned}
                taught={taught}
                lessons={lessons}
                setLessons={setLessons}
                changeCell={changeCell}
                editGun={editGun}
                stored={stored}
              />
              {lessons === g.id ? (
                <tr>
                  <td colSpan={8} style={{ padding: 0 }}>
                    <GunLessons gun={g} batches={batches} />
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
