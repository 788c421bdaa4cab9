import type { PgDatabase, PgQueryResultHKT } from 'drizzle-orm/pg-core';
import type * as schema from './schema';

/** Driver-neutral database handle. Inside `transaction(tx => ...)` use only `tx`. */
export type Db = PgDatabase<PgQueryResultHKT, typeof schema>;
