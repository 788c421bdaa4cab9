import type { Damaged } from '@steady-gleam/contracts';
import { ValidationError } from 'yup';
import { ApiError } from '../errors';

/** What becomes of a row that can't be read: told once for each row and fault. */
export type TellDamage = (damaged: Damaged, faults: Readonly<Record<string, string>>) => void;

/** Rows of a kind that are kept as they were read. */
const MOST_KEPT = 4_000;

/** For tests and scripts that have no log. */
export const UNTOLD: TellDamage = () => {};

/** Rows of one kind read one by one, so that one that can't be read costs no other. */
export interface RowReader<Row, T> {
  /** @throws ApiError `damaged` */
  readonly one: (row: Row) => T;
  /** Those that can be read, in their order. */
  readonly many: (rows: readonly Row[]) => T[];
  /** Those that can't. */
  readonly damaged: (rows: readonly Row[]) => Damaged[];
}

/**
 * @param read makes a row into what the contract says, or throws a yup error
 * @param nameOf whose row it is, for the log and the list of damaged ones
 * @param textOf all a row says, as a text: what was read is kept for as long as that is the same, since checking takes a hundred
 * times as long as comparing. Null for what is read once
 */
export function rowReader<Row, T>(
  what: Damaged['what'],
  read: (row: Row) => T,
  nameOf: (row: Row) => { readonly id: string; readonly name: string },
  tell: TellDamage,
  textOf: ((row: Row) => string) | null = (row) => JSON.stringify(row),
): RowReader<Row, T> {
  const told = new Set<string>();
  const known = new Map<string, { readonly text: string; readonly value: T }>();
  const attempt = (
    row: Row,
  ): { readonly ok: true; readonly value: T } | { readonly ok: false; readonly damaged: Damaged } => {
    const { id } = nameOf(row);
    const text = textOf ? textOf(row) : '';
    const before = known.get(id);
    if (textOf && before?.text === text) return { ok: true, value: before.value };
    try {
      const value = read(row);
      if (textOf) {
        if (known.size > MOST_KEPT) known.clear();
        known.set(id, { text, value });
      }
      return { ok: true, value };
    } catch (error) {
      if (!(error instanceof ValidationError)) throw error;
      const damaged: Damaged = { what, ...nameOf(row) };
      const key = `${damaged.id} ${error.message}`;
      if (!told.has(key)) tell(damaged, { [error.path ?? '']: error.message });
      told.add(key);
      return { ok: false, damaged };
    }
  };
  return {
    one: (row) => {
      const read = attempt(row);
      if (read.ok) return read.value;
      const { id, name } = read.damaged;
      throw new ApiError(
        'damaged',
        undefined,
        `What is stored of ${name || `this ${what}`} (${id}) can’t be read any more. Nothing was changed; the program’s log names what is wrong.`,
      );
    },
    many: (rows) =>
      rows.flatMap((row) => {
        const read = attempt(row);
        return read.ok ? [read.value] : [];
      }),
    damaged: (rows) =>
      rows.flatMap((row) => {
        const read = attempt(row);
        return read.ok ? [] : [read.damaged];
      }),
  };
}

/** A row without some of its columns. */
export function without<Row extends object, K extends keyof Row>(row: Row, ...columns: readonly K[]): Omit<Row, K> {
  return Object.fromEntries(Object.entries(row).filter(([k]) => !columns.includes(k as K))) as Omit<Row, K>;
}

/** Rows by a key of theirs, each group in their order. */
export function groupBy<Row, K>(rows: readonly Row[], keyOf: (row: Row) => K): Map<K, Row[]> {
  const groups = new Map<K, Row[]>();
  for (const row of rows) {
    const key = keyOf(row);
    const own = groups.get(key);
    if (own) own.push(row);
    else groups.set(key, [row]);
  }
  return groups;
}
