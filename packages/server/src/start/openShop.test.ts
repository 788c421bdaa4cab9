import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { sql } from 'drizzle-orm';
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  truncateSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { listCopies, writeCopy } from '../copies/copies';
import { FolderInUseError, lockByKernel } from '../db/folderLock';
import { openEmbedded } from '../db/open';
import { fillWithDemo, fillWithNothing } from '../demo/seed';
import { copyFromRunning, openControl } from './control';
import { openShop } from './openShop';

const migrations = resolve('packages/server/migrations');
const COPY = 'shop-2026-11-28T02-10-00Z.tar.gz';
let whole: string;
let folder: string;

const settings = (data: string) => ({ data, databaseUrl: undefined });
/** What a start on a folder says; empty when it comes up. */
async function said(data: string): Promise<string> {
  try {
    const { open } = await openShop(settings(data), fillWithNothing, () => undefined);
    await open.close();
    return '';
  } catch (error) {
    return (error as Error).message;
  }
}

/** Files in which the rows stand; the engine sets marks and makes lists of its own beside them while it tries. */
const filesOf = (data: string): string[] =>
  existsSync(join(data, 'database/base'))
    ? (readdirSync(join(data, 'database/base'), { recursive: true }) as string[]).filter((f) => /\d$/.test(f)).sort()
    : [];
/** A copy of a shop's data folder, to be damaged. */
function anew(): string {
  rmSync(folder, { recursive: true, force: true });
  cpSync(whole, folder, { recursive: true });
  return folder;
}

beforeAll(async () => {
  const base = mkdtempSync(join(tmpdir(), 'steady-gleam-start-'));
  [whole, folder] = [join(base, 'whole'), join(base, 'damaged')];
  const { open } = await openShop(settings(whole), fillWithDemo, () => undefined);
  mkdirSync(join(whole, 'copies'), { recursive: true });
  await writeCopy(open, migrations, join(whole, 'copies', COPY));
  await open.close();
}, 120_000);
afterAll(() => rmSync(join(whole, '..'), { recursive: true, force: true }));

describe('a start on a data folder', () => {
  const offer = 'The last good copy is of 2026-11-28 02:10 UTC.';

  it('comes up on one that is whole', async () => {
    expect(await said(anew())).toBe('');
  });

  it.each<[string, (database: string) => void, string]>([
    ['without its version file', (d) => rmSync(join(d, 'PG_VERSION')), 'files of it are missing'],
    ['that was emptied', (d) => readdirSync(d).forEach((f) => rmSync(join(d, f), { recursive: true })), 'it is empty'],
    ['that is gone', (d) => rmSync(d, { recursive: true }), 'it is gone'],
    ['without its base', (d) => rmSync(join(d, 'base'), { recursive: true }), 'missing or damaged'],
    ['with a control file of nothing', (d) => truncateSync(join(d, 'global/pg_control'), 0), 'missing or damaged'],
  ])(
    'with a database %s says so, offers the last good copy and throws nothing away',
    async (_, damage, reason) => {
      const data = anew();
      damage(join(data, 'database'));
      const before = filesOf(data);
      const words = await said(data);
      expect(words).toContain(reason);
      expect(words).toContain(offer);
      expect(words).toContain(`npm run restore -- --from ${join(data, 'copies', COPY)} --data ${data}`);
      expect(filesOf(data)).toEqual(before);
    },
    60_000,
  );

  it('whose rows are gone, some or all, does not begin as if there had been none', async () => {
    const damaged = async (query: ReturnType<typeof sql>): Promise<string> => {
      const open = await openEmbedded(migrations, anew());
      // As lost files leave it: without what the database itself would see to.
      await open.db.execute(sql`set session_replication_role = replica`);
      await open.db.execute(query);
      await open.close();
      return said(folder);
    };
    const some = await damaged(sql`delete from finishes`);
    expect(some).toContain('are gone');
    expect(some).toContain(offer);
    const all = await damaged(
      sql`truncate finishes, jobs, cards, reading_sets, readings, job_events, photos, batches, verdicts, finish_versions`,
    );
    expect(all).toContain('opens without any job and finish');
    expect(all).toContain(offer);
  }, 60_000);

  it('that a newer program has used is left to that one', async () => {
    const open = await openEmbedded(migrations, anew());
    await open.db.execute(
      sql`insert into drizzle.__drizzle_migrations (hash, created_at) values ('later', 9000000000000)`,
    );
    await open.close();
    expect(await said(folder)).toMatch(/last used by a newer Steady Gleam/);
  }, 60_000);

  it('that is no folder says so', async () => {
    const file = join(whole, '..', 'file');
    writeFileSync(file, 'x');
    expect(await said(file)).toContain('is a file, not a folder');
    expect(await said(join(file, 'below'))).toContain('is a file, not a folder');
  });

  it('makes a copy before its tables are brought up', async () => {
    // As the program before the last step left it.
    const before = mkdtempSync(join(tmpdir(), 'steady-gleam-before-'));
    cpSync(migrations, before, { recursive: true });
    const journal = join(before, 'meta/_journal.json');
    const { entries, ...rest } = JSON.parse(readFileSync(journal, 'utf8')) as { entries: { tag: string }[] };
    writeFileSync(journal, JSON.stringify({ ...rest, entries: entries.slice(0, -1) }));
    const folder = mkdtempSync(join(tmpdir(), 'steady-gleam-old-'));
    const open = await openEmbedded(before, folder);
    await open.close();
    expect(await said(folder)).toBe('');
    expect(listCopies(folder).map((c) => c.name.replace(/.*Z/, ''))).toEqual([
      `-before-${entries.at(-1)!.tag.replace('_', '-')}.tar.gz`,
    ]);
    for (const made of [before, folder]) rmSync(made, { recursive: true });
  }, 60_000);

  it('is one program’s alone, by the kernel’s word', () => {
    const data = anew();
    const release = lockByKernel(data);
    expect(release).not.toBeNull();
    expect(() => lockByKernel(data)).toThrow(FolderInUseError);
    release!();
    lockByKernel(data)!();
  });

  it('gives a command of this machine a copy while it runs, to who has its word alone', async () => {
    const { open } = await openShop(settings(anew()), undefined, () => undefined);
    const control = await openControl(folder, open, migrations);
    const to = join(folder, 'copy.tar.gz');
    expect(await copyFromRunning(folder, to)).toBe(true);
    expect(existsSync(to)).toBe(true);
    const own = JSON.parse((await import('node:fs')).readFileSync(join(folder, 'control.json'), 'utf8')) as {
      port: number;
    };
    const stranger = await fetch(`http://127.0.0.1:${own.port}/copy`, { headers: { 'X-Word': 'x' } });
    expect(stranger.status).toBe(404);
    control.close();
    expect(await copyFromRunning(folder, to)).toBe(false);
    await open.close();
  }, 60_000);
});
