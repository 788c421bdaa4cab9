import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';
import type * as schema from './schema';

/** Driver-neutral database handle. Inside `transaction(tx => ...)` use only `tx`. */
export type Db = PgDatabase<PgQueryResultHKT, typeof schema>;

/** A driver's own handle as that of any: they differ in what a query by hand answers with, which only `rowsOf` looks at. */
export const ofAnyDriver = <H extends PgQueryResultHKT>(db: PgDatabase<H, typeof schema>): Db => db;
