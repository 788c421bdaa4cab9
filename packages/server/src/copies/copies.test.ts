import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { sql } from 'drizzle-orm';
import fc from 'fast-check';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { gunzipSync, gzipSync } from 'node:zlib';
import { rowsOf, withStepsUpTo } from '../db/migrations';
import { openScratch, type OpenDb } from '../db/open';
import { openTestDb } from '../testdata/testDb';
import { shopTables } from '../db/tables';
import { fillWithDemo } from '../demo/seed';
import { createRepos } from '../resources/repos';
import { ArchiveError, checkArchive, fileSource } from './archive';
import { copiesOf, KEPT, nameFor, outlived, writeCopy, type Copy } from './copies';
import { restore } from './restore';

const migrations = resolve('packages/server/migrations');
const JOB = '1a47e000-0000-4000-8000-000000000fa0';
let folder: string;
let shop: OpenDb;
let copy: string;

/** Every row of every table as text, in an order of its own; bytes as they are. */
async function everything(open: OpenDb): Promise<Record<string, string[]>> {
  const all: Record<string, string[]> = {};
  for (const table of await shopTables(open.db)) {
    if (table === 'sessions') continue;
    const rows = await rowsOf<{ row: string }>(
      open.db,
      sql`select to_jsonb(t)::text as row from ${sql.identifier(table)} t`,
    );
    all[table] = rows.map((r) => r.row).sort();
  }
  return all;
}

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'steady-gleam-copies-'));
  shop = await openTestDb();
  await fillWithDemo(shop.db);
  const repos = createRepos(shop.db);
  const bytes = Uint8Array.from({ length: 3000 }, (_, i) => (i * 37) % 256);
  const photo = { id: crypto.randomUUID(), kind: 'job' as const, coats: null, takenAt: '2026-11-20T09:00:00.123Z' };
  await repos.photos.add({ jobId: JOB }, photo, 'image/png', bytes);
  // Figures that lose something on the way through other number formats, and text that needs escaping.
  await shop.db.execute(
    sql`update readings set l = 0.1::float8 + 0.2::float8, a = 1e-7, b = 'NaN' where ctid = (select min(ctid) from readings)`,
  );
  await shop.db.execute(sql`update jobs set piece = ${'line\nbreak, "quote" \\ 🎠'} where id = ${JOB}`);
  await shop.db.execute(
    sql`insert into sessions (id, token_hash, look_only, device, expires_at) values (gen_random_uuid(), 'h', false, 'd', now())`,
  );
  copy = join(folder, 'copy.tar.gz');
  await writeCopy(shop, migrations, copy);
}, 120_000);
afterAll(async () => {
  await shop.close();
  rmSync(folder, { recursive: true, force: true });
});

describe('a copy of a shop', () => {
  it('brings back every row as it was, bytes and the last digit of figures, and goes on counting behind them', async () => {
    const other = await openTestDb();
    await restore(other.db, migrations, fileSource(copy));
    expect(await everything(other)).toEqual(await everything(shop));
    const [b] = await rowsOf<{ b: number }>(other.db, sql`select b::text as b from readings where b = 'NaN'`);
    expect(b).toEqual({ b: 'NaN' });
    const before = await rowsOf<{ n: number }>(other.db, sql`select max(sequence) as n from job_events`);
    const log = createRepos(other.db).log;
    const told = await log.add({ jobId: JOB }, [
      {
        id: crypto.randomUUID(),
        at: 1,
        kind: 'note',
        cells: [],
        layerId: null,
        checkId: null,
        coats: null,
        look: null,
        text: '',
      },
    ]);
    expect(told[0]!.sequence).toBeGreaterThan(before[0]!.n);
    await other.close();
  });

  it('signs nobody in, and signs nobody out where it is put', async () => {
    const { manifest } = await checkArchive(fileSource(copy));
    expect(manifest.tables.map((t) => t.name)).not.toContain('sessions');
    const other = await openTestDb();
    await other.db.execute(
      sql`insert into sessions (id, token_hash, look_only, device, expires_at) values (gen_random_uuid(), 'here', false, 'd', now())`,
    );
    await restore(other.db, migrations, fileSource(copy));
    expect(await rowsOf(other.db, sql`select token_hash from sessions`)).toEqual([{ token_hash: 'here' }]);
    await other.close();
  });

  it('of an earlier program is brought up to today’s tables', async () => {
    const old = join(folder, 'old.tar.gz');
    await withStepsUpTo(migrations, '0018_shop', async (steps) => {
      const past = await openScratch(steps);
      await past.db.execute(sql`insert into finishes (id, name, matching) values (${JOB}, 'f', 'm')`);
      await past.db.execute(
        sql`insert into jobs (id, piece, finishes) values (${JOB}, 'old one', ${JSON.stringify([{ key: 'main', name: 'f', finishId: JOB }])}::jsonb)`,
      );
      await past.db.execute(
        sql`insert into job_events (id, job_id, at, kind, text) values (gen_random_uuid(), ${JOB}, 1, 'start', '')`,
      );
      await writeCopy(past, steps, old);
      await past.close();
    });
    const today = await openTestDb();
    expect((await restore(today.db, migrations, fileSource(old))).step).not.toBe('0018_shop');
    // What the step after has made of it: a job with a log is begun.
    expect(await rowsOf(today.db, sql`select piece, begun from jobs`)).toEqual([{ piece: 'old one', begun: true }]);
    await today.close();
  });

  const refusal = async (bytes: Buffer): Promise<string> => {
    const path = join(folder, 'damaged.tar.gz');
    writeFileSync(path, bytes);
    try {
      await checkArchive(fileSource(path));
      return '';
    } catch (error) {
      if (!(error instanceof ArchiveError)) throw error;
      return error.message;
    }
  };

  it('that is damaged anywhere, cut off anywhere, or another thing is refused in a sentence', async () => {
    const whole = readFileSync(copy);
    expect(await refusal(whole)).toBe('');
    for (const share of [0, 0.001, 0.1, 0.5, 0.9, 0.999]) {
      const said = await refusal(whole.subarray(0, Math.floor(whole.length * share)));
      expect(said).toMatch(/not a copy|damaged|cut off/);
    }
    const inside = gunzipSync(whole);
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 0, max: inside.length - 1 }),
        fc.integer({ min: 1, max: 255 }),
        async (at, by) => {
          const bent = Buffer.from(inside);
          bent[at] = (bent[at]! + by) % 256;
          const said = await refusal(gzipSync(bent, { level: 1 }));
          // Filling between entries says nothing, and neither do owner and time of one: all that is read is guarded.
          if (said === '') {
            writeFileSync(join(folder, 'bent.tar.gz'), gzipSync(bent, { level: 1 }));
            const is = await checkArchive(fileSource(join(folder, 'bent.tar.gz')));
            expect(is.manifest).toEqual((await checkArchive(fileSource(copy))).manifest);
          }
        },
      ),
      { numRuns: 120 },
    );
    expect(await refusal(Buffer.from('hello'))).toBe('This file is not a copy of a shop.');
    expect(await refusal(gzipSync(Buffer.alloc(2048)))).toBe('This file is not a copy of a shop.');
  });

  it('leaves everything as it was where it can’t be brought back whole', async () => {
    const other = await openTestDb();
    await fillWithDemo(other.db);
    const before = await everything(other);
    const path = join(folder, 'half.tar.gz');
    writeFileSync(path, readFileSync(copy).subarray(0, 6000));
    await expect(restore(other.db, migrations, fileSource(path))).rejects.toBeInstanceOf(ArchiveError);
    expect(await everything(other)).toEqual(before);
    await other.close();
  });
});

describe('copies that are kept', () => {
  const day = 86_400_000;
  const now = Date.parse('2026-11-28T12:00:00Z');
  const copyAt = (at: number): Copy => ({
    ...{ name: nameFor(new Date(at)), path: '', bytes: 1 },
    madeAt: new Date(Math.floor(at / 1000) * 1000).toISOString(),
  });
  const keptOf = (all: readonly Copy[]) => all.filter((c) => !outlived(all, now).includes(c));

  it('are the newest of each of the last days and weeks, and the newest whatever their day', () => {
    // Two a day for a hundred days, newest first.
    const all = Array.from({ length: 200 }, (_, i) => copyAt(now - (i * day) / 2));
    const kept = keptOf(all);
    const days = new Set(kept.map((c) => c.madeAt.slice(0, 10)));
    for (let i = 0; i < KEPT.days; i++) expect(days).toContain(new Date(now - i * day).toISOString().slice(0, 10));
    expect(kept.length).toBeLessThanOrEqual(KEPT.days + KEPT.weeks + KEPT.newest);
    expect(Math.min(...kept.map((c) => Date.parse(c.madeAt)))).toBeLessThan(now - 6 * 7 * day);
    expect(kept.slice(0, KEPT.newest)).toEqual(all.slice(0, KEPT.newest));
  });

  it('are never all gone, however long none was made', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 3000 }), { minLength: 1, maxLength: 30 }), (ages) => {
        const all = [...ages].sort((a, b) => a - b).map((age) => copyAt(now - age * day));
        const kept = keptOf(all);
        expect(kept[0]).toBe(all[0]);
        expect(kept.length).toBeGreaterThanOrEqual(Math.min(all.length, KEPT.newest));
      }),
    );
  });
});

describe('copies beside the data', () => {
  it('are made, found again and thinned out; what is made before something is done thins nothing out', async () => {
    const data = mkdtempSync(join(tmpdir(), 'steady-gleam-beside-'));
    const told: unknown[] = [];
    const copies = copiesOf(
      () => shop,
      migrations,
      data,
      (e) => told.push(e),
    );
    const made = await copies.make();
    expect(copies.list()).toEqual([made]);
    // Old ones, one of them brought from elsewhere.
    const old = [
      '2020-01-01T01-00-00Z',
      '2020-01-01T02-00-00Z',
      '2020-01-01T03-00-00Z',
      '2020-01-02T01-00-00Z-brought',
    ];
    for (const stamp of old) writeFileSync(join(data, 'copies', `shop-${stamp}.tar.gz`), '');
    await copies.make('before-going-back');
    expect(copies.list()).toHaveLength(6);
    await new Promise((done) => setTimeout(done, 1100));
    await copies.make();
    const names = copies.list().map((c) => c.name);
    expect(names.some((n) => n.includes('brought'))).toBe(true);
    expect(names.filter((n) => n.includes('2020'))).toHaveLength(1);
    // One that can't be made says why, leaves nothing half, and those before it stay.
    const broken = copiesOf(
      // A database that is not there at all: no type has one.
      () => ({ ...shop, db: null as never }),
      migrations,
      data,
      (e) => told.push(e),
    );
    await expect(broken.make()).rejects.toBeDefined();
    expect(broken.fault()).not.toBeNull();
    expect(told).toHaveLength(1);
    expect(copies.list()).toHaveLength(names.length);
    expect(readdirSync(join(data, 'copies')).filter((f) => f.endsWith('.making'))).toEqual([]);
    rmSync(data, { recursive: true, force: true });
  });
});
