import { useTheme } from '@mui/material';
import { Fragment, type CSSProperties, type ReactNode } from 'react';
import { FIGURES } from '../app/theme';

/** A column: what stands over it, and what a row shows in it. */
export interface Column<R> {
  /** Told apart by it where the head is no text, or the same twice. */
  readonly id?: string;
  readonly head: ReactNode;
  /** Figures stand right, in the figures' face, on one line; a text and anything else stands left. */
  readonly figure?: boolean;
  readonly draw: (row: R, at: number) => ReactNode;
  /** Of its cells. */
  readonly style?: CSSProperties | ((row: R) => CSSProperties);
  /** Of its head alone. */
  readonly headStyle?: CSSProperties;
}

interface TableProps<R> {
  readonly label: string;
  readonly columns: readonly Column<R>[];
  readonly rows: readonly R[];
  readonly keyOf: (row: R, at: number) => string | number;
  /** What opens below a row, over its whole width. */
  readonly below?: (row: R) => ReactNode;
  /** Rows close together, beside a picture. */
  readonly dense?: boolean;
  readonly maxWidth?: number;
}

const idOf = <R,>(column: Column<R>, at: number): string | number =>
  column.id ?? (typeof column.head === 'string' && column.head ? column.head : at);

/**
 * The one look of a table: a line of names, hairlines between rows, figures in columns. Tables whose cells are themselves tapped (areas by
 * layers, places by views, the match map) are pictures of their own.
 */
export function Table<R>({ label, columns, rows, keyOf, below, dense = false, maxWidth }: TableProps<R>) {
  const { tones } = useTheme();
  const sides = (at: number) => ({ paddingRight: at < columns.length - 1 ? (dense ? 12 : 16) : 0, paddingLeft: 0 });
  const cell: CSSProperties = {
    ...{ paddingTop: dense ? 2 : 7, paddingBottom: dense ? 2 : 7 },
    ...{ borderTop: `1px solid ${tones.hairline}`, verticalAlign: 'middle', textAlign: 'left' },
  };
  const figure: CSSProperties = { textAlign: 'right', whiteSpace: 'nowrap' };
  return (
    <table aria-label={label} style={{ borderCollapse: 'collapse', width: '100%', maxWidth, fontSize: 15 }}>
      <thead>
        <tr>
          {columns.map((c, at) => {
            const style: CSSProperties = {
              ...{ fontWeight: 400, fontSize: 14, verticalAlign: 'bottom', padding: '4px 0', lineHeight: 1.2 },
              ...sides(at),
              textAlign: c.figure ? 'right' : 'left',
              ...c.headStyle,
            };
            // Nothing is no name of a column.
            return c.head === '' ? (
              <td key={idOf(c, at)} style={style} />
            ) : (
              <th key={idOf(c, at)} scope="col" style={style}>
                {c.head}
              </th>
            );
          })}
        </tr>
      </thead>
      <tbody>
        {rows.map((row, r) => {
          const opened = below?.(row) ?? null;
          return (
            <Fragment key={keyOf(row, r)}>
              <tr>
                {columns.map((c, at) => (
                  <td
                    key={idOf(c, at)}
                    style={{
                      ...cell,
                      ...sides(at),
                      ...(c.figure ? { ...figure, fontFamily: FIGURES } : {}),
                      ...(typeof c.style === 'function' ? c.style(row) : c.style),
                    }}
                  >
                    {c.draw(row, r)}
                  </td>
                ))}
              </tr>
              {opened ? (
                <tr>
                  <td colSpan={columns.length} style={{ padding: 0 }}>
                    {opened}
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
