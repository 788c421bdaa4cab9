import { PGlite } from '@electric-sql/pglite';
import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';
import { drizzle as drizzlePglite } from 'drizzle-orm/pglite';
import { migrate as migratePglite } from 'drizzle-orm/pglite/migrator';
import { drizzle as drizzlePg } from 'drizzle-orm/node-postgres';
import { migrate as migratePg } from 'drizzle-orm/node-postgres/migrator';
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

/** Opens and migrates an embedded database. @param folder data folder; in memory when missing (for tests). */
export async function openEmbedded(migrations: string, folder?: string): Promise<OpenDb> {
  const release = folder ? await lockFolder(folder) : async () => {};
  try {
    const client = await PGlite.create(folder ? join(folder, 'database') : undefined);
    const db = drizzlePglite(client, { schema });
    await migratePglite(db, { migrationsFolder: migrations });
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
