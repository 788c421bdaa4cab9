import { sql } from 'drizzle-orm';
import { readMigrationFiles } from 'drizzle-orm/migrator';
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Db } from './handle';
import { StartError } from './startFaults';

/** Where the built program and its tests find the steps its tables were made in. */
export interface Step {
  readonly tag: string;
  readonly when: number;
}

/** The steps this program knows, oldest first. */
export function knownSteps(folder: string): readonly Step[] {
  const journal = JSON.parse(readFileSync(join(folder, 'meta/_journal.json'), 'utf8')) as { entries: Step[] };
  return journal.entries.map(({ tag, when }) => ({ tag, when }));
}

/** When the newest step a database has gone through was made; 0 for one without tables. */
export async function lastStep(db: Db): Promise<number> {
  const there = await rowsOf<{ there: boolean }>(
    db,
    sql`select to_regclass('drizzle.__drizzle_migrations') is not null as there`,
  );
  if (!there[0]?.there) return 0;
  const [row] = await rowsOf<{ last: string | null }>(
    db,
    sql`select max(created_at)::text as last from drizzle.__drizzle_migrations`,
  );
  return Number(row?.last ?? 0);
}

/** Rows of a query that is written by hand. */
export async function rowsOf<Row>(db: Pick<Db, 'execute'>, query: ReturnType<typeof sql>): Promise<Row[]> {
  const answer: unknown = await db.execute(query);
  return (answer as { rows: Row[] }).rows;
}

/** Whether a database that has tables has to be brought up to today's. */
export async function isPending(db: Db, folder: string): Promise<boolean> {
  const last = await lastStep(db);
  return last > 0 && last < Math.max(...readMigrationFiles({ migrationsFolder: folder }).map((m) => m.folderMillis));
}

/** @throws StartError where a newer program has made the tables */
export async function checkKnown(db: Db, folder: string): Promise<void> {
  const newest = knownSteps(folder).at(-1)!;
  if ((await lastStep(db)) > newest.when)
    throw new StartError(
      'This data was last used by a newer Steady Gleam, and an older one would spoil it. Start the newer one. Nothing was changed.',
    );
}

/** A folder with the steps up to one of them, for as long as the work takes. */
export async function withStepsUpTo<T>(folder: string, tag: string, work: (steps: string) => Promise<T>): Promise<T> {
  const part = mkdtempSync(join(tmpdir(), 'steady-gleam-steps-'));
  try {
    cpSync(folder, part, { recursive: true });
    const path = join(part, 'meta/_journal.json');
    const journal = JSON.parse(readFileSync(path, 'utf8')) as { entries: Step[] };
    const end = journal.entries.findIndex((e) => e.tag === tag);
    writeFileSync(path, JSON.stringify({ ...journal, entries: journal.entries.slice(0, end + 1) }));
    return await work(part);
  } finally {
    rmSync(part, { recursive: true, force: true });
  }
}
