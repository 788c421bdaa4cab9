import { eventOf } from '@steady-gleam/core/jobs';
import { sql } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { openEmbedded, type Db } from '../../../server/src/db/open';
import { makeFolder, removeFolder, root, startServer, type TestServer } from '../testServer';
import { FAMILY, compare } from './writing';

/** A long shop, and the short one it is held against: jobs; readings and events of the long one. */
export const SIZES = { jobs: 2_000, few: 20, readings: 50_000, events: 200_000 } as const;
const DEMO_JOBS = 12;

/** The demo's jobs again and again, each with finishes, cards and readings of its own. @param events of all jobs together */
async function multiply(db: Db, jobs: number, readings: number, events: number): Promise<void> {
  const times = Math.ceil(jobs / DEMO_JOBS) - 1;
  const again = (name: string, changes: ReturnType<typeof sql>) =>
    db.execute(
      sql`insert into ${sql.identifier(name)} overriding system value
          select (jsonb_populate_record(null::${sql.identifier(name)}, to_jsonb(t) || ${changes})).*
          from ${sql.identifier(name)} t, generate_series(1, ${times}::int) i where t.created_at < now()`,
    );
  const made = (text: string) =>
    sql.raw(`overlay(overlay(md5(${text}) placing '4' from 13) placing '8' from 17)::uuid`);
  const id = (column: string) => made(`t.${column}::text || i::text`);
  await again('finishes', sql`jsonb_build_object('id', ${id('id')}, 'name', t.name || ' ' || i)`);
  await again(
    'jobs',
    sql`jsonb_build_object('id', ${id('id')}, 'piece', t.piece || ' ' || i, 'updated_at', t.updated_at - i * interval '1 minute',
        'finishes', (select jsonb_agg(f || jsonb_build_object('finishId', ${made(`(f->>'finishId') || i::text`)})) from jsonb_array_elements(t.finishes) f))`,
  );
  await again('cards', sql`jsonb_build_object('id', ${id('id')}, 'finish_id', ${id('finish_id')})`);
  await again(
    'reading_sets',
    sql`jsonb_build_object('id', ${id('id')}, 'sequence', nextval('reading_sets_sequence_seq'),
        'finish_id', ${id('finish_id')}, 'job_id', ${id('job_id')})`,
  );
  await db.execute(
    sql`insert into readings (set_id, place, spot, incidence, aspecular, l, a, b)
        select s.id, p, 'spot ' || p, 45, 45, 40, 10, 10
        from (select id from reading_sets order by id) s, generate_series(100, 99 + ${Math.max(0, Math.ceil(readings / (jobs * 2)))}::int) p
        limit ${readings}`,
  );
  await db.execute(
    sql`insert into job_events (id, job_id, at, kind, cells, text)
        select gen_random_uuid(), j.id, 1764000000000 + n * 1000, 'note', '[]'::jsonb, 'seen at ' || n
        from jobs j, generate_series(1, ${Math.max(1, Math.round(events / jobs))}::int) n`,
  );
  await db.execute(sql`update jobs set begun = true`);
  await db.execute(sql`analyze`);
}

export async function shopOf(jobs: number, readings: number, events: number): Promise<string> {
  const folder = makeFolder();
  const open = await openEmbedded(join(root, 'packages/server/migrations'), folder);
  await multiply(open.db, jobs, readings, events);
  await open.close();
  return folder;
}

const medianOf = (times: readonly number[]): number => [...times].sort((a, b) => a - b)[times.length >> 1]!;
const at = (times: readonly number[], share: number): number =>
  [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * share))]!;

const timed = async (work: () => Promise<Response>): Promise<number> => {
  const began = performance.now();
  const response = await work();
  await response.arrayBuffer();
  if (!response.ok) throw new Error(`${response.url} was answered ${response.status}.`);
  return performance.now() - began;
};

const tap = (server: TestServer, job: string, since?: number) => {
  const event = eventOf({ id: randomUUID(), at: Date.now(), kind: 'note', text: 'a tap' });
  const sent = () =>
    fetch(`${server.address}/api/jobs/${job}/events`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ events: [event], ...(since === undefined ? {} : { since }) }),
    });
  return { event, sent };
};

export interface ScaleRun {
  /** A page of the list in the long shop against one in the short shop, ms and their ratio. */
  readonly page: { readonly many: number; readonly few: number; readonly ratio: number };
  /** A tap into a log of 5,000 events against one into a log of 50. */
  readonly tap: { readonly long: number; readonly short: number; readonly ratio: number };
  readonly plans: readonly string[];
}

/** @param jobs of the long shop; readings and events go with them */
export async function scale(port: number, asks = 40, jobs: number = SIZES.jobs): Promise<ScaleRun> {
  const share = jobs / SIZES.jobs;
  const folders = [
    await shopOf(jobs, SIZES.readings * share, SIZES.events * share),
    await shopOf(SIZES.few, 500, 2_000),
  ];
  const plans = await plansOf(folders[0]!);
  const servers = await Promise.all(folders.map((folder, i) => startServer(folder, port + i)));
  const times: [number[], number[]] = [[], []];
  for (let i = 0; i < asks + 5; i++)
    for (const [k, server] of servers.entries()) {
      const took = await timed(() => fetch(`${server.address}/api/jobs?page=0`));
      if (i >= 5) times[k]!.push(took);
    }
  const [many, few] = [medianOf(times[0]), medianOf(times[1])];
  // Two logs of the long shop: one is brought to 5,000 events, one to 50 or so.
  const rows = ((await (await fetch(`${servers[0]!.address}/api/jobs?page=1`)).json()) as { rows: { id: string }[] })
    .rows;
  const [longJob, shortJob] = [rows[0]!.id, await freshJob(servers[0]!)];
  await fillLog(servers[0]!, longJob, 5_000);
  await fillLog(servers[0]!, shortJob, 50);
  const taps: [number[], number[]] = [[], []];
  for (let i = 0; i < asks + 5; i++)
    for (const [k, job] of [longJob, shortJob].entries()) {
      const took = await timed(tap(servers[0]!, job).sent);
      if (i >= 5) taps[k]!.push(took);
    }
  const [long, short] = [medianOf(taps[0]), medianOf(taps[1])];
  for (const server of servers) await server.stop();
  folders.forEach(removeFolder);
  return {
    page: { many, few, ratio: many / few },
    tap: { long, short, ratio: long / short },
    plans,
  };
}

async function freshJob(server: TestServer): Promise<string> {
  const id = randomUUID();
  await timed(() =>
    fetch(`${server.address}/api/jobs`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ id, piece: 'Short log', matching: 'x', family: FAMILY, mixId: 'cinder-candy' }),
    }),
  );
  return id;
}

async function fillLog(server: TestServer, job: string, count: number): Promise<void> {
  for (let left = count; left > 0; left -= 200) {
    const events = Array.from({ length: Math.min(200, left) }, (_, i) =>
      eventOf({ id: randomUUID(), at: Date.now() + i, kind: 'note', text: `entry ${left - i}` }),
    );
    await timed(() =>
      fetch(`${server.address}/api/jobs/${job}/events`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ events }),
      }),
    );
  }
}

/** How the database finds what is asked most, by its own word: every one by an index. */
async function plansOf(folder: string): Promise<string[]> {
  const open = await openEmbedded(join(root, 'packages/server/migrations'), folder);
  const job = sql`(select id from jobs limit 1)`;
  const asked = [
    sql`select * from job_events where job_id = ${job} and card_id is null and sequence > 5 order by sequence limit 800`,
    sql`select * from jobs order by updated_at desc limit 50`,
    sql`select * from reading_sets where job_id = ${job}`,
    sql`select * from readings where set_id = (select id from reading_sets limit 1)`,
    sql`select * from batches where job_id = ${job}`,
    sql`select * from photos where job_id = ${job}`,
  ];
  const said: string[] = [];
  for (const query of asked) {
    const answer: unknown = await open.db.execute(sql`explain ${query}`);
    const rows = answer as { rows: Record<string, string>[] };
    const lines = rows.rows.map((r) => Object.values(r)[0]!.trim());
    said.push(
      lines
        .find((l) => /using|Bitmap Index Scan/.test(l))
        ?.replace(/\s+\(cost.*/, '')
        .replace(/^->\s+/, '') ?? `no index: ${lines[0]}`,
    );
  }
  await open.close();
  return said;
}

export interface BoothsRun {
  readonly booths: number;
  readonly taps: number;
  readonly lost: number;
  readonly doubled: number;
  /** Of one booth alone, ms. */
  readonly oneMedian: number;
  readonly p95: number;
  readonly ratio: number;
}

/** So many booths that tap at once, each on its own job, for a while; before it one alone. */
export async function booths(port: number, count = 50, seconds = 60): Promise<BoothsRun> {
  const folder = makeFolder();
  const server = await startServer(folder, port);
  const jobs = await Promise.all(Array.from({ length: count }, () => freshJob(server)));
  const one: number[] = [];
  for (let i = 0; i < 60; i++) {
    const took = await timed(tap(server, jobs[0]!, 0).sent);
    if (i >= 20) one.push(took);
  }
  const told = new Set<string>();
  const times: number[] = [];
  const until = Date.now() + seconds * 1000;
  await Promise.all(
    jobs.map(async (job, k) => {
      // Not all in the same moment: as hands are.
      await new Promise((done) => setTimeout(done, (1000 * k) / count));
      for (let since = 0; Date.now() < until;) {
        const { event, sent } = tap(server, job, since);
        const began = performance.now();
        const response = await sent();
        const log = (await response.json()) as { id: string; sequence: number }[];
        times.push(performance.now() - began);
        if (!response.ok) throw new Error(`A tap was answered ${response.status}.`);
        since = Math.max(since, ...log.map((e) => e.sequence));
        told.add(event.id);
        await new Promise((done) => setTimeout(done, 700 + Math.random() * 600));
      }
    }),
  );
  const stored: string[] = [];
  for (const job of jobs)
    stored.push(
      ...(
        (await (await fetch(`${server.address}/api/jobs/${job}/events`)).json()) as { id: string; text: string }[]
      ).map((e) => e.id),
    );
  await server.stop();
  removeFolder(folder);
  const { lost, doubled } = compare(told, stored);
  const [oneMedian, p95] = [medianOf(one), at(times, 0.95)];
  return { booths: count, taps: told.size, lost, doubled, oneMedian, p95, ratio: p95 / oneMedian };
}
