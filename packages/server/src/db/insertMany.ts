import { getTableColumns, sql } from 'drizzle-orm';
import type { PgTable } from 'drizzle-orm/pg-core';
import type { Db } from './handle';

/**
 * Inserts rows as one JSON text: a third of the time of as many parameters, and others wait as much less. What is there already
 * stays. @param rows all with the same columns, by the names the schema gives them
 */
export async function insertMany(
  tx: Pick<Db, 'execute'>,
  table: PgTable,
  rows: readonly Readonly<Record<string, unknown>>[],
): Promise<void> {
  if (!rows.length) return;
  const columns = getTableColumns(table);
  const keys = Object.keys(rows[0]!).filter((key) => columns[key] !== undefined);
  const named = rows.map((row) => Object.fromEntries(keys.map((key) => [columns[key]!.name, row[key] ?? null])));
  const names = sql.join(
    keys.map((key) => sql.identifier(columns[key]!.name)),
    sql`, `,
  );
  await tx.execute(
    sql`insert into ${table} (${names}) select ${names} from jsonb_populate_recordset(null::${table}, ${JSON.stringify(named)}::jsonb) on conflict do nothing`,
  );
}
