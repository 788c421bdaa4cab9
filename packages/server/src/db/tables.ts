import { sql } from 'drizzle-orm';
import { rowsOf } from './migrations';
import type { Db } from './handle';

/** A column whose values are keys of another table. */
export interface Pointer {
  readonly of: string;
  readonly column: string;
  readonly to: string;
  readonly key: string;
}

export async function pointers(db: Pick<Db, 'execute'>): Promise<Pointer[]> {
  return rowsOf<Pointer>(
    db,
    sql`select c.conrelid::regclass::text as of, a.attname as column, c.confrelid::regclass::text as to, k.attname as key
        from pg_constraint c
        join pg_attribute a on a.attrelid = c.conrelid and a.attnum = c.conkey[1]
        join pg_attribute k on k.attrelid = c.confrelid and k.attnum = c.confkey[1]
        where c.contype = 'f' and c.connamespace = 'public'::regnamespace`,
  );
}

/** Tables of the shop, those first which others point to. */
export async function shopTables(db: Pick<Db, 'execute'>): Promise<string[]> {
  const tables = await rowsOf<{ name: string }>(
    db,
    sql`select table_name as name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE' order by 1`,
  );
  const points = (await pointers(db)).filter((p) => p.of !== p.to);
  const left = new Set(tables.map((t) => t.name));
  const ordered: string[] = [];
  while (left.size) {
    const free = [...left].filter((t) => !points.some((p) => p.of === t && left.has(p.to)));
    // Tables that point at one another have no first one.
    if (!free.length) throw new Error(`The tables ${[...left].join(', ')} point at one another.`);
    for (const table of free) {
      ordered.push(table);
      left.delete(table);
    }
  }
  return ordered;
}

export interface Column {
  readonly name: string;
  /** Bytes, which an archive keeps as a file. */
  readonly isBytes: boolean;
  /** Numbered by the database itself. */
  readonly isNumbered: boolean;
}

export async function columnsOf(db: Pick<Db, 'execute'>, table: string): Promise<Column[]> {
  return rowsOf<Column>(
    db,
    sql`select column_name as name, data_type = 'bytea' as "isBytes", is_identity = 'YES' as "isNumbered"
        from information_schema.columns where table_schema = 'public' and table_name = ${table} order by ordinal_position`,
  );
}
