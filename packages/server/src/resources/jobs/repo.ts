import {
  PAGE_SIZE,
  type Damaged,
  type Job,
  type JobDetail,
  type JobQuery,
  type JobSummary,
  type NewJob,
} from '@steady-gleam/contracts';
import type { SQL } from 'drizzle-orm';
import { and, asc, desc, eq, inArray, isNotNull, isNull, lt, ne, sql } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { Db } from '../../db/open';
import { rowReader, UNTOLD, without, type TellDamage } from '../../db/rows';
import { finishes, jobs } from '../../db/schema';
import { ApiError } from '../../errors';
import type { CardsRepo } from '../cards/repo';
import { pinned } from '../finishes/pin';
import { refuseTryOut, type FinishesRepo } from '../finishes/repo';
import { anywhere, wordsOf } from '../finishes/search';
import type { LimitsRepo } from '../limits/repo';
import type { LogRepo } from '../log/repo';
import type { PhotosRepo } from '../photos/repo';
import { setsInForce, type ReadingsRepo } from '../readings/repo';
import type { VerdictsRepo } from '../verdicts/repo';
import { checkMixing } from './checkMixing';
import type { StackColours } from './stackColours';
import { finishNames, stacksOf, toJob, type JobRow, type JobRows } from './rows';
import { changeFinishes, ownOf, type JobChange } from './changeFinishes';
import { checkMix, checkAreas } from './checks';

/** Earlier readings of a target that are shown. */
const MOST_HISTORY = 10;

/** A job as the list has it, but for where it is in the booth. */
export type Listed = Omit<JobSummary, Standing>;
/** Where it is in the booth, and how its film looks. */
export type Standing = 'run' | 'film' | 'colours';
/** Cups mixed, by job. */
type CupsOf = (jobIds: readonly string[]) => Promise<ReadonlyMap<string, number>>;

/** A page of a list, and how many there are. */
interface Listing<T> {
  readonly rows: T[];
  readonly total: number;
  /** Of each state in all. */
  readonly states: { readonly open: number; readonly finished: number; readonly away: number };
}

interface Others {
  readonly finishes: FinishesRepo;
  readonly readings: ReadingsRepo;
  readonly verdicts: VerdictsRepo;
  readonly photos: PhotosRepo;
  readonly cards: CardsRepo;
  readonly log: LogRepo;
  readonly limits: LimitsRepo;
  readonly colours: StackColours;
}

export function createJobsRepo(db: Db, others: Others, tell: TellDamage = UNTOLD) {
  const { finishes: finishesRepo, readings, verdicts, photos, cards, log, limits, colours } = others;
  const jobRows = rowReader(
    'job',
    toJob,
    ({ job }) => ({ id: job.id, name: job.piece }),
    tell,
    // Of all the finishes at hand its own alone.
    ({ job, about, finishes: all }) => JSON.stringify([about, job, job.finishes.map((u) => all.get(u.finishId))]),
  );
  const findJob = async (handle: Db, id: string): Promise<JobRow> => {
    const [row] = await handle.select().from(jobs).where(eq(jobs.id, id));
    if (!row) throw new ApiError('notFound');
    return row;
  };
  /** Jobs with the finishes they use. */
  const withFinishes = async (handle: Db, rows: readonly JobRow[]): Promise<JobRows[]> => {
    const ids = [...new Set(rows.flatMap((j) => j.finishes.map((u) => u.finishId)))];
    const found = ids.length ? await handle.select().from(finishes).where(inArray(finishes.id, ids)) : [];
    const byId = new Map(found.map((f) => [f.id, f]));
    return rows.map((job) => ({ job, finishes: byId }));
  };
  const readRows = async (handle: Db, id: string): Promise<JobRows> =>
    (await withFinishes(handle, [await findJob(handle, id)]))[0]!;

  const summaries = async (listed: readonly Job[], cups: CupsOf): Promise<Listed[]> => {
    const ids = listed.map((j) => j.finishId);
    const [sets, judged, mixed] = await Promise.all([
      readings.inForceOf(ids),
      verdicts.rungsJudged(ids),
      cups(listed.map((j) => j.id)),
    ]);
    return listed.map((job) => {
      const own = sets.get(job.finishId) ?? [];
      const read = own.filter((s) => s.kind === 'rung').map((s) => s.rungCoats);
      return {
        ...job,
        targetAngles: own.find((s) => s.kind === 'target')?.angles ?? 0,
        rungsRead: new Set([...read, ...(judged.get(job.finishId) ?? [])]).size,
        batches: mixed.get(job.id) ?? 0,
      };
    });
  };

  return {
    count: async (): Promise<number> => (await db.select({ n: sql<number>`count(*)::int` }).from(jobs))[0]!.n,

    /** A page of what answers to a query; where they are in the booth is not among it. Those that were taken out are in no list. */
    list: async (q: JobQuery, cups: CupsOf): Promise<Listing<Listed>> => {
      const ofFinish = (said: SQL) =>
        sql`exists (select 1 from ${finishes} where ${jobs.finishes} @> jsonb_build_array(jsonb_build_object('finishId', ${finishes.id})) and ${said})`;
      const answers = wordsOf(q.words).map((word) => {
        const like = anywhere(word);
        const said = sql`(${finishes.name} ilike ${like} or ${finishes.matching} ilike ${like} or ${finishes.codes}::text ilike ${like} or ${finishes.family} ilike ${like})`;
        return sql`(${jobs.piece} ilike ${like} or to_char(${jobs.updatedAt}, 'YYYY-MM-DD') like ${like} or ${ofFinish(said)})`;
      });
      const inList = and(
        isNull(jobs.removedAt),
        q.status === 'listed' ? ne(jobs.status, 'away') : eq(jobs.status, q.status),
        q.family ? ofFinish(sql`${finishes.family} = ${q.family}`) : undefined,
        ...answers,
      );
      // What is being sprayed can't wait; what is finished can.
      const rank = sql`case when ${jobs.status} = 'finished' then 2 when ${jobs.begun} then 0 else 1 end`;
      const order = {
        next: [asc(rank), desc(jobs.updatedAt), asc(jobs.id)],
        latest: [desc(jobs.updatedAt), asc(jobs.id)],
        name: [asc(sql`lower(${jobs.piece})`), asc(jobs.id)],
      }[q.sort];
      const rows = await db
        .select()
        .from(jobs)
        .where(inList)
        .orderBy(...order)
        .limit(PAGE_SIZE)
        .offset(q.page * PAGE_SIZE);
      const [counted] = await db
        .select({ n: sql<number>`count(*)::int` })
        .from(jobs)
        .where(inList);
      const counts = await db
        .select({ status: jobs.status, n: sql<number>`count(*)::int` })
        .from(jobs)
        .where(isNull(jobs.removedAt))
        .groupBy(jobs.status);
      const of = (status: string) => counts.find((c) => c.status === status)?.n ?? 0;
      return {
        total: counted!.n,
        states: { open: of('open'), finished: of('finished'), away: of('away') },
        rows: await summaries(jobRows.many(await withFinishes(db, rows)), cups),
      };
    },

    /** One as the list has it. */
    listed: async (id: string, cups: CupsOf): Promise<Listed> =>
      (await summaries([jobRows.one(await readRows(db, id))], cups))[0]!,

    listRemoved: async (): Promise<Job[]> => {
      const rows = await db.select().from(jobs).where(isNotNull(jobs.removedAt)).orderBy(desc(jobs.removedAt));
      return jobRows.many(await withFinishes(db, rows));
    },

    damaged: async (): Promise<Damaged[]> => jobRows.damaged(await withFinishes(db, await db.select().from(jobs))),

    /** A job about a finish that is there, or about a new one. */
    create: (job: NewJob, invented = false): Promise<Job> =>
      db.transaction(async (tx) => {
        const { id, piece, matching, family, mixId } = job;
        const [existing] = await tx.select().from(jobs).where(eq(jobs.id, id));
        if (existing) {
          const there = jobRows.one(await readRows(tx, id));
          const isOwn = job.coats !== null || job.target !== null;
          const same = job.finishId
            ? isOwn || there.finishId === job.finishId
            : there.matching === matching && there.mixId === mixId;
          if (there.piece !== piece || !same) throw new ApiError('conflict');
          return there;
        }
        let { finishId } = job;
        if (finishId) {
          const used = await finishesRepo.find(tx, finishId);
          refuseTryOut(used);
          if (used.mixId === null)
            throw new ApiError('badRequest', { finishId: 'This finish lays no mix; choose another.' });
          if (job.coats !== null || job.target) finishId = await ownOf(tx, others, used, job);
        } else {
          await checkMix(tx, mixId);
          finishId = randomUUID();
          await tx
            .insert(finishes)
            .values({ id: finishId, name: (matching || piece).slice(0, 80), matching, family, mixId, invented });
        }
        await tx
          .insert(jobs)
          .values({ id, piece, finishes: [{ key: 'main', name: 'whole piece', finishId }], invented });
        return jobRows.one(await readRows(tx, id));
      }),

    /** @param about one of the job's finishes; its first when left out */
    read: async (id: string, about?: string): Promise<JobDetail> => {
      const rows = await readRows(db, id);
      if (about !== undefined && !rows.job.finishes.some((u) => u.finishId === about)) throw new ApiError('notFound');
      const first = jobRows.one(rows);
      const job = about === undefined ? first : jobRows.one({ ...rows, about });
      const { finishId } = job;
      const ofFinish = await readings.rowsOf(db, { finishId });
      const ofJob = await readings.rowsOf(db, { jobId: id });
      const sets = await readings.load(db, setsInForce([...ofFinish, ...ofJob]));
      const earlierTargets = ofFinish.filter((r) => r.kind === 'target').slice(1, 1 + MOST_HISTORY);
      const card = await cards.inForce(finishId);
      const finish = finishesRepo.toFinish(rows.finishes.get(finishId)!);
      const earlierCards = (await cards.earlierOf([finishId])).get(finishId) ?? [];
      return {
        job,
        finish: { ...finish, jobs: await finishesRepo.users(db, finishId), cards: earlierCards },
        finishes: finishNames(rows),
        target: sets.find((s) => s.kind === 'target' && s.objectId === null) ?? null,
        // Objects are looked at for the finish the job is about.
        objectTargets: sets.filter((s) => s.kind === 'target' && s.objectId !== null && finishId === first.finishId),
        card,
        rungs: sets.filter((s) => s.kind === 'rung').sort((a, b) => a.rungCoats! - b.rungCoats!),
        targetHistory: await readings.load(db, earlierTargets),
        chips: sets.filter((s) => s.kind === 'chip'),
        spots: sets.filter((s) => s.kind === 'spot'),
        verdicts: await verdicts.list(finishId),
        photos: await photos.list(id, finishId),
        events: await log.list({ jobId: id }),
        familyLimits: await limits.of(job.family),
        colours: await colours.ofJob(first),
        earlier: card && job.pick ? await cards.handsLike(card, job.pick.style, job.family) : [],
      };
    },

    change: (id: string, { version, removed, ...asked }: JobChange): Promise<Job> =>
      db.transaction(async (tx) => {
        const rows = await readRows(tx, id);
        if (rows.job.version !== version) throw new ApiError('stale');
        const { finishId, matching, pick, mixId, stacks, ...change } = asked;
        if (change.mixing) await checkMixing(tx, change.mixing, rows.job.mixing);
        // Under its own copy the finish has another id.
        const keyOf = rows.job.finishes.find((u) => u.finishId === finishId)?.key;
        const uses = await changeFinishes(tx, finishesRepo, rows, { finishId, matching, pick, mixId, stacks });
        checkAreas(stacks === undefined ? (stacksOf(rows) ?? []) : (stacks ?? []), change.areas ?? rows.job.areas);
        const changed = await tx
          .update(jobs)
          .set({
            ...change,
            // Opened again it is not done any more.
            ...(change.status === 'open' ? { done: null } : {}),
            ...(removed === undefined ? {} : { removedAt: removed ? new Date() : null }),
            finishes: change.status === 'finished' ? await pinned(tx, uses) : uses,
            version: version + 1,
            updatedAt: new Date(),
          })
          .where(and(eq(jobs.id, id), eq(jobs.version, version)))
          .returning({ id: jobs.id });
        if (!changed.length) throw new ApiError('stale');
        if (stacks !== undefined) await finishesRepo.sweep(tx);
        return jobRows.one({
          ...(await readRows(tx, id)),
          about: finishId && uses.find((u) => u.key === keyOf)?.finishId,
        });
      }),

    /** A job like another: its finishes, objects with their targets, areas and plan; nothing of its log. */
    copy: (from: string, id: string, piece: string): Promise<Job> =>
      db.transaction(async (tx) => {
        const source = await findJob(tx, from);
        refuseTryOut({ tryOut: source.tryOut !== null, name: source.piece });
        const [existing] = await tx.select().from(jobs).where(eq(jobs.id, id));
        if (!existing) {
          const uses = source.finishes.map(({ key, name, finishId }) => ({ key, name, finishId }));
          const fresh = {
            id,
            piece,
            finishes: uses,
            status: 'open',
            done: null,
            removedAt: null,
            invented: false,
            version: 1,
          };
          await tx.insert(jobs).values({ ...without(source, 'createdAt', 'updatedAt'), ...fresh });
          await readings.copy(tx, { jobId: from }, { jobId: id });
        }
        return jobRows.one(await readRows(tx, id));
      }),

    /** Deletes for good what was taken out before a moment; the finishes stay. @returns how many jobs */
    forgetRemoved: async (before: Date): Promise<number> => {
      const gone = await db.delete(jobs).where(lt(jobs.removedAt, before)).returning({ id: jobs.id });
      if (gone.length) await finishesRepo.sweep(db);
      return gone.length;
    },
  };
}

export type JobsRepo = ReturnType<typeof createJobsRepo>;
