import { PGlite } from '@electric-sql/pglite';
import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';
import { drizzle as drizzlePglite } from 'drizzle-orm/pglite';
import { migrate as migratePglite } from 'drizzle-orm/pglite/migrator';
import { drizzle as drizzlePg } from 'drizzle-orm/node-postgres';
import { migrate as migratePg } from 'drizzle-orm/node-postgres/migrator';
import { existsSync } from 'node:fs';
import { rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import pg from 'pg';
import { lockFolder } from './folderLock';
import * as schema from './schema';

/** Driver-neutral database handle. Inside `transaction(tx => ...)` use only `tx`. */
export type Db = PgDatabase<PgQueryResultHKT, typeof schema>;

export interface OpenDb {
  readonly db: Db;
  readonly close: () => Promise<void>;
}

/** What is done once with a database that is new; all of it is there afterwards, or nothing. */
export type FirstFill = (db: Db) => Promise<void>;

async function openFolder(migrations: string, path: string | undefined) {
  const client = await PGlite.create(path);
  const db = drizzlePglite(client, { schema });
  await migratePglite(db, { migrationsFolder: migrations });
  return { client, db };
}

/**
 * Opens and migrates an embedded database. One that is new is made under another name and gets its own when it is whole: a first
 * start that was cut off leaves nothing the next one would trip over.
 * @param folder data folder; in memory when missing (for tests). @param fill for a database that is new
 */
export async function openEmbedded(migrations: string, folder?: string, fill?: FirstFill): Promise<OpenDb> {
  const release = folder ? await lockFolder(folder) : async () => {};
  try {
    const path = folder ? join(folder, 'database') : undefined;
    if (folder && path && !existsSync(path)) {
      const making = join(folder, 'database.making');
      await rm(making, { recursive: true, force: true });
      const made = await openFolder(migrations, making);
      await fill?.(made.db);
      await made.client.close();
      await rename(making, path);
    }
    const { client, db } = await openFolder(migrations, path);
    return {
      db,
      close: async () => {
        await client.close();
        await release();
      },
    };
  } catch (error) {
    await release();
    throw error;
  }
}

/** Opens and migrates a PostgreSQL server's database. */
export async function openServer(migrations: string, url: string): Promise<OpenDb> {
  const pool = new pg.Pool({ connectionString: url });
  const db = drizzlePg(pool, { schema });
  await migratePg(db, { migrationsFolder: migrations });
  return { db, close: () => pool.end() };
}
