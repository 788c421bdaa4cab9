import { sql } from 'drizzle-orm';
import { PassThrough, type Readable } from 'node:stream';
import { knownSteps, rowsOf, withStepsUpTo } from '../db/migrations';
import { openScratch, type Db } from '../db/open';
import { columnsOf, shopTables } from '../db/tables';
import { ArchiveError, checkArchive, readEntries, type Manifest } from './archive';
import { dump, LEFT_OUT, pathSays } from './dump';

type Source = () => Readable;

/**
 * Puts everything of an archive in the place of everything a database holds, in one transaction: all of it or nothing. One of an
 * earlier program is brought up to today's tables first, beside it.
 * @throws ArchiveError where it is damaged, newer, or something else
 */
export async function restore(db: Db, migrations: string, from: Source): Promise<Manifest> {
  const { manifest } = await checkArchive(from);
  const steps = knownSteps(migrations);
  const at = steps.findIndex((s) => s.tag === manifest.step);
  if (at < 0)
    throw new ArchiveError(
      'This copy was made by a newer Steady Gleam, or by another program. Use that one to open it.',
    );
  if (at < steps.length - 1) return restore(db, migrations, await broughtUp(migrations, manifest.step, from));
  await db.transaction(async (tx) => {
    await tx.execute(sql`set local statement_timeout = 0`);
    await fill(tx, manifest, from);
  });
  return manifest;
}

/** The same archive by today's tables: loaded into a database of its time, which is then migrated. */
async function broughtUp(migrations: string, step: string, from: Source): Promise<Source> {
  return withStepsUpTo(migrations, step, async (old) => {
    const past = await openScratch(old);
    let dumped: Buffer[];
    try {
      const { manifest } = await checkArchive(from);
      await past.db.transaction((tx) => fill(tx, manifest, from));
      await past.migrate(migrations);
      dumped = await collect((to) => dump(past, migrations, () => to));
    } finally {
      await past.close();
    }
    return () => {
      const all = new PassThrough();
      all.end(Buffer.concat(dumped));
      return all;
    };
  });
}

async function collect(write: (to: PassThrough) => Promise<unknown>): Promise<Buffer[]> {
  const to = new PassThrough();
  const parts: Buffer[] = [];
  to.on('data', (part: Buffer) => parts.push(part));
  await write(to);
  return parts;
}

/** Empties every table and fills it from an archive that was checked. */
async function fill(tx: Pick<Db, 'execute'>, manifest: Manifest, from: Source): Promise<void> {
  // Who is signed in stays so.
  const tables = (await shopTables(tx)).filter((t) => !LEFT_OUT.includes(t));
  const strange = manifest.tables.find((t) => !tables.includes(t.name));
  if (strange) throw new ArchiveError(`It holds a table this program has none of: ${strange.name}.`);
  await tx.execute(
    sql`truncate ${sql.join(
      tables.map((t) => sql.identifier(t)),
      sql`, `,
    )}`,
  );
  const rows = new Map<string, number>();
  const waiting = new Map<number, Record<string, string>>();
  await readEntries(from, async (path, bytes) => {
    const says = pathSays(path);
    if (!says) return;
    if (says.file) {
      const { row, column } = says.file;
      waiting.set(row, { ...waiting.get(row), [column]: `\\x${bytes.toString('hex')}` });
      return;
    }
    if (!tables.includes(says.table))
      throw new ArchiveError(`It holds a table this program has none of: ${says.table}.`);
    const lines = bytes.toString('utf8').split('\n').filter(Boolean);
    await insert(tx, says.table, path, lines, waiting);
    waiting.clear();
    rows.set(says.table, (rows.get(says.table) ?? 0) + lines.length);
  });
  for (const { name, rows: wanted } of manifest.tables)
    if ((rows.get(name) ?? 0) !== wanted)
      throw new ArchiveError(`Of ${name} it holds ${rows.get(name) ?? 0} rows; its list says ${wanted}.`);
  for (const table of tables) await goOnCounting(tx, table);
}

async function insert(
  tx: Pick<Db, 'execute'>,
  table: string,
  path: string,
  lines: readonly string[],
  files: ReadonlyMap<number, Record<string, string>>,
): Promise<void> {
  const into = sql.identifier(table);
  try {
    if (!files.size) {
      await tx.execute(
        sql`insert into ${into} overriding system value select * from jsonb_populate_recordset(null::${into}, ${`[${lines.join(',')}]`}::jsonb)`,
      );
      return;
    }
    for (const [i, line] of lines.entries())
      await tx.execute(
        sql`insert into ${into} overriding system value
            select * from jsonb_populate_record(null::${into}, ${line}::jsonb || ${JSON.stringify(files.get(i) ?? {})}::jsonb)`,
      );
  } catch (error) {
    const code =
      (error as { cause?: { code?: string }; code?: string }).cause?.code ?? (error as { code?: string }).code;
    if (code?.startsWith('22') || code?.startsWith('23'))
      throw new ArchiveError(`Rows of ${path} in it can’t be stored: they are not what a shop keeps.`);
    throw error;
  }
}

/** So far behind everything given out before: a device that knows the newest number takes nothing new for one it has. */
const GAP = 100_000;

/** What the database numbers itself goes on behind what came in, and behind what was there before. */
async function goOnCounting(tx: Pick<Db, 'execute'>, table: string): Promise<void> {
  for (const { name } of (await columnsOf(tx, table)).filter((c) => c.isNumbered)) {
    const counter = sql`pg_get_serial_sequence(${`"${table}"`}, ${name})`;
    await rowsOf(
      tx,
      sql`select setval(${counter}, greatest(coalesce(max(${sql.identifier(name)}), 0), coalesce(pg_sequence_last_value(${counter}::regclass), 0)) + ${GAP}::int, false) from ${sql.identifier(table)}`,
    );
  }
}
