import { sql } from 'drizzle-orm';
import type { Writable } from 'node:stream';
import { knownSteps, lastStep, rowsOf } from '../db/migrations';
import type { Db, OpenDb } from '../db/open';
import { columnsOf, shopTables } from '../db/tables';
import { archiveWriter, type Manifest } from './archive';

/** Of no copy: a copy that is brought back signs nobody in. */
export const LEFT_OUT: readonly string[] = ['sessions'];

/** Blocks of a table (8 kB each) read at once: others get their turn in between. */
const [BLOCKS, BLOCKS_OF_FILES] = [32, 2] as const;
/** Tries to read a database nobody writes to meanwhile, before it is held. */
const QUIET_TRIES = 3;

type Handle = Pick<Db, 'execute'>;

/** Number of the next change of a database: the same before and after, nothing was written in between. */
const nextChange = async (db: Handle): Promise<string> =>
  (await rowsOf<{ next: string }>(db, sql`select pg_snapshot_xmax(pg_current_snapshot())::text as next`))[0]!.next;

/**
 * Writes everything a shop keeps as one archive, as it is at one moment. @param open a server is read in one snapshot; an embedded database piece
 * by piece as long as nothing is written to it meanwhile, else in one transaction. @param makeTarget where it goes; called again
 * when it has to be begun anew
 */
export async function dump(
  open: Pick<OpenDb, 'db' | 'isServer'>,
  migrations: string,
  makeTarget: () => Writable,
  quietTries = QUIET_TRIES,
): Promise<Manifest['tables']> {
  const { db, isServer } = open;
  const write = async (handle: Handle, isWhole: () => Promise<boolean>): Promise<Manifest['tables'] | null> => {
    const writer = archiveWriter(makeTarget());
    try {
      const tables = await writeAll(handle, writer.add);
      if (await isWhole()) {
        await writer.end({ step: await stepOf(handle, migrations), madeAt: new Date().toISOString(), tables });
        return tables;
      }
    } catch (error) {
      writer.drop();
      throw error;
    }
    writer.drop();
    return null;
  };
  for (let left = isServer ? 0 : quietTries; left > 0; left--) {
    const before = await nextChange(db);
    const tables = await write(db, async () => (await nextChange(db)) === before);
    if (tables) return tables;
  }
  const held = await db.transaction((tx) => write(tx, async () => true), {
    isolationLevel: 'repeatable read',
    accessMode: 'read only',
  });
  return held!;
}

async function stepOf(db: Handle, migrations: string): Promise<string> {
  const last = await lastStep(db as Db);
  return knownSteps(migrations).findLast((s) => s.when <= last)?.tag ?? '';
}

async function writeAll(db: Handle, add: (path: string, bytes: Buffer) => Promise<void>): Promise<Manifest['tables']> {
  const tables: Manifest['tables'] = [];
  for (const name of (await shopTables(db)).filter((t) => !LEFT_OUT.includes(t)))
    tables.push({ name, rows: await writeTable(db, name, add) });
  return tables;
}

/** @returns rows written */
async function writeTable(
  db: Handle,
  name: string,
  add: (path: string, bytes: Buffer) => Promise<void>,
): Promise<number> {
  const table = sql.identifier(name);
  const files = (await columnsOf(db, name)).filter((c) => c.isBytes).map((c) => c.name);
  const step = files.length ? BLOCKS_OF_FILES : BLOCKS;
  const [size] = await rowsOf<{ blocks: number }>(
    db,
    sql`select (pg_relation_size(${`"${name}"`}::regclass) / current_setting('block_size')::int)::int as blocks`,
  );
  // What is stored as bytes stands beside the rows, as files.
  const slim = files.reduce((row, file) => sql`${row} - ${file}::text`, sql`to_jsonb(t)`);
  let rows = 0;
  for (let from = 0, part = 1; from < size!.blocks; from += step) {
    const page = await rowsOf<{ at: string; row: string }>(
      db,
      sql`select t.ctid::text as at, (${slim})::text as row from ${table} t
          where t.ctid >= ${`(${from},0)`}::tid and t.ctid < ${`(${from + step},0)`}::tid`,
    );
    if (!page.length) continue;
    for (const file of files)
      for (const [i, { at }] of page.entries()) {
        const [kept] = await rowsOf<{ bytes: Uint8Array | null }>(
          db,
          sql`select ${sql.identifier(file)} as bytes from ${table} where ctid = ${at}::tid`,
        );
        if (kept?.bytes) await add(filePath(name, part, i, file), Buffer.from(kept.bytes));
      }
    await add(partPath(name, part), Buffer.from(page.map((r) => `${r.row}\n`).join(''), 'utf8'));
    rows += page.length;
    part++;
  }
  return rows;
}

/** Rows of a table, a line of JSON each. */
const partPath = (table: string, part: number) => `tables/${table}/${String(part).padStart(5, '0')}.ndjson`;
/** Bytes of a row of a part that follows. */
const filePath = (table: string, part: number, row: number, column: string) =>
  `files/${table}/${String(part).padStart(5, '0')}-${row}.${column}`;

/** What an entry's path says of it; null for what is neither. */
export function pathSays(
  path: string,
): { readonly table: string; readonly file: null | { readonly row: number; readonly column: string } } | null {
  const part = /^tables\/([a-z_]+)\/\d+\.ndjson$/.exec(path);
  if (part) return { table: part[1]!, file: null };
  const file = /^files\/([a-z_]+)\/\d+-(\d+)\.([a-z_]+)$/.exec(path);
  return file ? { table: file[1]!, file: { row: Number(file[2]), column: file[3]! } } : null;
}
