import { createWriteStream, existsSync, readdirSync, statSync } from 'node:fs';
import { mkdir, rename, rm } from 'node:fs/promises';
import { join } from 'node:path';
import type { OpenDb } from '../db/open';
import { reasonOf } from '../db/startFaults';
import { checkArchive, fileSource, type Checked } from './archive';
import { dump } from './dump';

/** A copy that was verified when it was made. */
export interface Copy {
  readonly name: string;
  readonly path: string;
  /** When, as ISO 8601. */
  readonly madeAt: string;
  readonly bytes: number;
}

/** Copies that are kept: the newest of each of so many days, and of each of so many weeks; and the newest ones whatever their day. */
export const KEPT = { days: 14, weeks: 8, newest: 3 } as const;
const DAY_MS = 86_400_000;
const NAME = /^shop-(\d{4}-\d\d-\d\d)T(\d\d)-(\d\d)-(\d\d)Z(?:-[a-z0-9-]+)?\.tar\.gz$/;

export const copiesFolder = (data: string): string => join(data, 'copies');

/** What a copy of a moment is called. @param why what it was made for */
export const nameFor = (at: Date, why?: string): string =>
  `shop-${at.toISOString().slice(0, 19).replaceAll(':', '-')}Z${why ? `-${why}` : ''}.tar.gz`;

/** What a copy is called that came from elsewhere; only a person takes it away. */
export const BROUGHT = 'brought';
const isBrought = ({ name }: Copy): boolean => name.endsWith(`-${BROUGHT}.tar.gz`);

/** Copies of a data folder, newest first. */
export function listCopies(data: string): Copy[] {
  const folder = copiesFolder(data);
  if (!existsSync(folder)) return [];
  return readdirSync(folder)
    .flatMap((name) => {
      const said = NAME.exec(name);
      if (!said) return [];
      const path = join(folder, name);
      return [{ name, path, madeAt: `${said[1]}T${said[2]}:${said[3]}:${said[4]}.000Z`, bytes: statSync(path).size }];
    })
    .sort((a, b) => (a.name < b.name ? 1 : -1));
}

/** Which copies have had their time. @param copies newest first */
export function outlived(copies: readonly Copy[], now: number): Copy[] {
  const kept = new Set(copies.slice(0, KEPT.newest));
  const newestOf = (days: number, spans: number) => {
    const seen = new Set<number>();
    for (const copy of copies) {
      const span = Math.floor(Date.parse(copy.madeAt) / (days * DAY_MS));
      if (span > Math.floor(now / (days * DAY_MS)) - spans && !seen.has(span)) kept.add(copy);
      seen.add(span);
    }
  };
  newestOf(1, KEPT.days);
  newestOf(7, KEPT.weeks);
  return copies.filter((c) => !kept.has(c));
}

/**
 * Writes a copy of a shop to a file, reads it back and holds every part against its checksum; only then it gets its name.
 * @throws ArchiveError, or what the file system says
 */
export async function writeCopy(
  open: Pick<OpenDb, 'db' | 'isServer'>,
  migrations: string,
  path: string,
): Promise<Checked> {
  const making = `${path}.making`;
  try {
    await dump(open, migrations, () => createWriteStream(making, { mode: 0o600, flush: true }));
    const checked = await checkArchive(fileSource(making));
    await rename(making, path);
    return checked;
  } catch (error) {
    await rm(making, { force: true });
    throw error;
  }
}

/** Copies beside the data, and what became of the last try. */
export interface Copies {
  readonly list: () => Copy[];
  /** Makes one now. @param why part of its name: `before-0018` */
  readonly make: (why?: string) => Promise<Copy>;
  /** Why the last one could not be made; null when it could. */
  readonly fault: () => string | null;
  /** Makes one a while after the start, and one a day. */
  readonly schedule: () => () => void;
}

/** How long after a start the first copy is made: what a painter waits for comes first, ms. */
const AFTER_START_MS = 20_000;
const LOOK_MS = 10 * 60_000;

export function copiesOf(
  open: () => Pick<OpenDb, 'db' | 'isServer'>,
  migrations: string,
  data: string,
  tell: (error: unknown) => void,
): Copies {
  let fault: string | null = null;
  let making: Promise<Copy> | null = null;
  const list = () => listCopies(data);
  const makeOne = async (why?: string): Promise<Copy> => {
    const folder = copiesFolder(data);
    try {
      await mkdir(folder, { recursive: true, mode: 0o700 });
      const name = nameFor(new Date(), why);
      await writeCopy(open(), migrations, join(folder, name));
      fault = null;
      const all = list();
      // A copy that is made before something is done is no reason to lose the one it is done with; one that was brought stays.
      if (why === undefined)
        for (const old of outlived(
          all.filter((c) => !isBrought(c)),
          Date.now(),
        ))
          await rm(old.path, { force: true });
      return all.find((c) => c.name === name)!;
    } catch (error) {
      fault = reasonOf(error);
      tell(error);
      throw error;
    }
  };
  const make = (why?: string): Promise<Copy> => {
    making ??= makeOne(why).finally(() => {
      making = null;
    });
    return making;
  };
  return {
    list,
    make,
    fault: () => fault,
    schedule: () => {
      const due = () => Date.now() - Date.parse(list()[0]?.madeAt ?? '1970-01-01T00:00:00Z') > DAY_MS;
      const attempt = () => void make().catch(() => undefined);
      const first = setTimeout(attempt, AFTER_START_MS);
      const daily = setInterval(() => due() && attempt(), LOOK_MS);
      return () => {
        clearTimeout(first);
        clearInterval(daily);
      };
    },
  };
}
