import { PGlite } from '@electric-sql/pglite';
import { sql } from 'drizzle-orm';
import { drizzle as drizzlePglite } from 'drizzle-orm/pglite';
import { migrate } from 'drizzle-orm/pglite/migrator';
import { existsSync, readdirSync } from 'node:fs';
import { rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import { lockFolder } from './folderLock';
import type { Db } from './handle';
import { checkKnown, isPending, rowsOf } from './migrations';
import * as schema from './schema';
import { DamagedDataError, ofFileSystem, reasonOfEngine, StartError } from './startFaults';
import { pointers, shopTables } from './tables';

export type { Db } from './handle';

export interface OpenDb {
  readonly db: Db;
  /** Whether it is a server's, which more than one program can use. */
  readonly isServer: boolean;
  readonly close: () => Promise<void>;
}

/** What is done once with a database that is new; all of it is there afterwards, or nothing. */
export type FirstFill = (db: Db) => Promise<void>;

/** What is done at the stations of opening. */
export interface Opening {
  /** For a database that is new. */
  readonly fill?: FirstFill;
  /** Before what is stored is brought up to today's tables. */
  readonly beforeMigration?: (db: Db) => Promise<void>;
}

/** Where the embedded database stands in a data folder, and where it stands while it is made. */
export const DATABASE = 'database';
const MAKING = 'database.making';

async function openFolder(
  migrations: string,
  path: string | undefined,
  { before, from }: { before?: Opening['beforeMigration']; from?: Blob } = {},
) {
  const client = await PGlite.create({
    ...(path === undefined ? {} : { dataDir: path }),
    ...(from ? { loadDataDir: from } : {}),
    startParams: [...PGlite.defaultStartParams, ...SMALL],
  });
  const db = drizzlePglite(client, { schema });
  if (path && before && (await isPending(db, migrations))) await before(db);
  await migrate(db, { migrationsFolder: migrations });
  return { client, db };
}

/** A shop's data fits many times into this; the engine's own default of 128 MB would only be filled with what is on disk anyway. */
const SMALL = ['-c', 'shared_buffers=16MB'];

/**
 * Opens and migrates an embedded database. One that is new is made under another name and gets its own when it is whole: a first
 * start that was cut off leaves nothing the next one would trip over.
 * @param folder data folder; in memory when missing (for tests)
 * @throws StartError, FolderInUseError
 */
export async function openEmbedded(migrations: string, folder?: string, opening: Opening = {}): Promise<OpenDb> {
  if (!folder) return openScratch(migrations);
  const release = await lockFolder(folder).catch((error: unknown) => {
    throw ofFileSystem(error, folder) ?? error;
  });
  try {
    const path = join(folder, DATABASE);
    if (!existsSync(path)) await makeNew(migrations, folder, opening.fill);
    // Without its version file the engine would take it for new, and make an empty one in its place.
    else if (!existsSync(join(path, 'PG_VERSION')))
      throw new DamagedDataError(path, readdirSync(path).length ? 'files of it are missing.' : 'it is empty.');
    const { client, db } = await openWhole(migrations, path, opening.beforeMigration);
    return {
      db,
      isServer: false,
      close: async () => {
        await client.close();
        await release();
      },
    };
  } catch (error) {
    await release();
    throw error instanceof StartError ? error : (ofFileSystem(error, folder) ?? error);
  }
}

/** A database in memory that was brought up to some step. */
export interface Scratch extends OpenDb {
  readonly migrate: (to: string) => Promise<void>;
  /** Everything in it as one file, for another to begin with. */
  readonly dump: () => Promise<Blob>;
}

/** A database in memory: for tests, and to bring up what is older. @param from what another was dumped as */
export async function openScratch(migrations: string, from?: Blob): Promise<Scratch> {
  const { client, db } = await openFolder(migrations, undefined, from ? { from } : {});
  return {
    db,
    isServer: false,
    close: () => client.close(),
    migrate: (to) => migrate(db, { migrationsFolder: to }),
    dump: () => client.dumpDataDir('none'),
  };
}

async function makeNew(migrations: string, folder: string, fill?: FirstFill): Promise<void> {
  const making = join(folder, MAKING);
  await rm(making, { recursive: true, force: true });
  const made = await openFolder(migrations, making);
  await fill?.(made.db);
  await made.client.close();
  await rename(making, join(folder, DATABASE));
}

/** Opens one that is there, and reads through its tables once: damage is told now, not in the middle of a job. */
async function openWhole(migrations: string, path: string, before: Opening['beforeMigration']) {
  let client: PGlite | null = null;
  try {
    const opened = await openFolder(migrations, path, before ? { before } : {});
    client = opened.client;
    await checkKnown(opened.db, migrations);
    await readThrough(opened.db);
    return opened;
  } catch (error) {
    await client?.close().catch(() => undefined);
    throw error instanceof StartError
      ? error
      : (ofFileSystem(error, path) ?? new DamagedDataError(path, reasonOfEngine(error)));
  }
}

/**
 * Reads through every table, and holds what points at something against it: a file that lost its rows is found by those that are
 * missed. @throws what the engine says of a page it can't read
 */
async function readThrough(db: Db): Promise<void> {
  for (const table of await shopTables(db)) await db.execute(sql`select count(*) from ${sql.identifier(table)}`);
  for (const { of, column, to, key } of await pointers(db)) {
    const [lost] = await rowsOf(
      db,
      sql`select 1 from ${sql.identifier(of)} c where c.${sql.identifier(column)} is not null
          and not exists (select 1 from ${sql.identifier(to)} p where p.${sql.identifier(key)} = c.${sql.identifier(column)}) limit 1`,
    );
    if (lost) throw new Error(`rows of ${to} that ${of} belong to are gone`);
  }
}
