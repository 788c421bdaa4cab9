import { sql } from 'drizzle-orm';
import { existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { checkArchive, fileSource } from '../copies/archive';
import { copiesOf, listCopies, type Copies } from '../copies/copies';
import { knownSteps, rowsOf } from '../db/migrations';
import { DATABASE, openEmbedded, type FirstFill, type OpenDb } from '../db/open';
import { openServer } from '../db/postgres';
import { DamagedDataError, ofFileSystem, StartError } from '../db/startFaults';
import { MIGRATIONS, type Settings } from './settings';

/** Left in a data folder once there was a database in it: one that is gone is not taken for a new shop. */
const MARK = 'made';

export interface OpenShop {
  readonly open: OpenDb;
  readonly copies: Copies;
}

/**
 * Opens what the settings name, makes a copy before tables are changed, and fills what is new.
 * @throws StartError with what to do, the last good copy among it
 */
export async function openShop(
  settings: Pick<Settings, 'data' | 'databaseUrl'>,
  fill: FirstFill | undefined,
  tell: (error: unknown) => void,
): Promise<OpenShop> {
  const { data, databaseUrl } = settings;
  let db: OpenDb['db'] | null = null;
  const copies = copiesOf(() => ({ db: db!, isServer: databaseUrl !== undefined }), MIGRATIONS, data, tell);
  const beforeMigration = async (old: OpenDb['db']) => {
    db = old;
    try {
      await copies.make(`before-${knownSteps(MIGRATIONS).at(-1)!.tag.replaceAll('_', '-')}`);
    } catch {
      throw new StartError(
        `The data has to be brought up to this version, and the copy before it could not be made: ${copies.fault()!} Nothing was changed.`,
      );
    }
  };
  const opening = { beforeMigration, ...(fill ? { fill } : {}) };
  try {
    if (!databaseUrl) checkGone(data);
    const open = databaseUrl
      ? await openServer(MIGRATIONS, databaseUrl, opening, tell)
      : await openEmbedded(MIGRATIONS, data, opening);
    db = open.db;
    if (!databaseUrl) await checkEmpty(open, data);
    if (!databaseUrl) writeFileSync(join(data, MARK), 'A shop’s data is kept here.\n', { mode: 0o600 });
    else makeFolder(data);
    return { open, copies };
  } catch (error) {
    throw error instanceof DamagedDataError ? withCopy(error, data) : error;
  }
}

/** Copies and certificates stand in the data folder also where a server keeps the data. */
function makeFolder(data: string): void {
  try {
    mkdirSync(data, { recursive: true, mode: 0o700 });
  } catch (error) {
    throw ofFileSystem(error, data) ?? error;
  }
}

function checkGone(data: string): void {
  const there = existsSync(join(data, DATABASE));
  if (!there && (existsSync(join(data, MARK)) || listCopies(data).length))
    throw new DamagedDataError(join(data, DATABASE), 'it is gone, though there was a shop’s data in it.');
}

/** A database that opens empty beside a copy that is not has lost its files. @throws DamagedDataError, with the database closed */
async function checkEmpty(open: OpenDb, data: string): Promise<void> {
  const [there] = await rowsOf<{ n: number }>(
    open.db,
    sql`select (select count(*) from jobs)::int + (select count(*) from finishes)::int as n`,
  );
  const [last] = listCopies(data);
  if (there!.n > 0 || !last) return;
  const { manifest } = await checkArchive(fileSource(last.path)).catch(() => ({ manifest: null }));
  const had = (manifest?.tables ?? []).filter((t) => t.name === 'jobs' || t.name === 'finishes');
  if (!had.some((t) => t.rows > 0)) return;
  await open.close();
  throw new DamagedDataError(
    join(data, DATABASE),
    'it opens without any job and finish, though its last copy has some.',
  );
}

/** The fault with the way back: the last good copy. */
function withCopy(error: DamagedDataError, data: string): StartError {
  const [last] = listCopies(data);
  return new StartError(
    last
      ? `${error.message}\nThe last good copy is of ${last.madeAt.slice(0, 16).replace('T', ' ')} UTC. To go on from it, with what is there now kept aside:\n  npm run restore -- --from ${last.path} --data ${data}`
      : `${error.message}\nThere is no copy beside it. If you keep one elsewhere: npm run restore -- --from FILE --data ${data}`,
  );
}
