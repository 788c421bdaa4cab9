import { isPlainEvent, jobEventSchema, type Damaged, type StoredEvent } from '@steady-gleam/contracts';
import { plainEvent, type JobEvent } from '@steady-gleam/core/jobs';
import { and, asc, eq, gt, inArray, isNull, max, sql } from 'drizzle-orm';
import { insertMany } from '../../db/insertMany';
import type { Db } from '../../db/open';
import { groupBy, rowReader, UNTOLD, type TellDamage } from '../../db/rows';
import { jobEvents, jobs } from '../../db/schema';
import { ApiError } from '../../errors';
import { pinFinishes } from '../finishes/pin';
import { lockOwner, whereOwner, type Owner } from '../readings/repo';

type EventRow = typeof jobEvents.$inferSelect;

const toEvent = (row: EventRow): StoredEvent => {
  const event = { ...plainEvent(row), mend: row.mend ?? null };
  return { ...(isPlainEvent(event) ? event : jobEventSchema.validateSync(event)), sequence: row.sequence };
};

/** Events read at once. */
const PAGE = 800;
/** Cells a log holds when many are told at once: some five times those of the largest job. A tap is always taken. */
const [MOST_CELLS, A_TAP] = [6_000, 50] as const;

/** @throws ApiError where a log gets more at once than any job's */
async function checkRoom(tx: Db, owner: Owner, fresh: readonly JobEvent[]): Promise<void> {
  const more = fresh.reduce((sum, e) => sum + e.cells.length, 0);
  if (more <= A_TAP) return;
  const [there] = await tx
    .select({ n: sql<number>`coalesce(sum(jsonb_array_length(${jobEvents.cells})), 0)::int` })
    .from(jobEvents)
    .where(whereOwner(jobEvents, owner));
  if (there!.n + more > MOST_CELLS)
    throw new ApiError('badRequest', { events: 'This log holds more than any job’s; nothing was added to it.' });
}

/** The log of every job, and that of the run of every finish's card. */
export function createLogRepo(db: Db, tell: TellDamage = UNTOLD) {
  const rowsRead = rowReader('event', toEvent, (row) => ({ id: row.id, name: 'an entry of a job’s log' }), tell, null);
  /** A page after the other, so that a long log holds nobody up. */
  const rowsOf = async (handle: Db, owner: Owner, since: number): Promise<EventRow[]> => {
    const all: EventRow[] = [];
    for (let after = since; ; after = all.at(-1)!.sequence!) {
      const page = await handle
        .select()
        .from(jobEvents)
        .where(and(whereOwner(jobEvents, owner), isNull(jobEvents.cardId), gt(jobEvents.sequence, after)))
        .orderBy(asc(jobEvents.sequence))
        .limit(PAGE);
      all.push(...page);
      if (page.length < PAGE) return all;
    }
  };
  return {
    /**
     * In the order they came in; of a finish those of the card in force.
     * @param since only what came in after that; one the log has not reached is of another log: then all of it
     */
    list: async (owner: Owner, since = 0): Promise<StoredEvent[]> => {
      const rows = await rowsOf(db, owner, since);
      if (rows.length || since === 0) return rowsRead.many(rows);
      const [newest] = await db
        .select({ sequence: max(jobEvents.sequence) })
        .from(jobEvents)
        .where(and(whereOwner(jobEvents, owner), isNull(jobEvents.cardId)));
      return (newest?.sequence ?? 0) < since ? rowsRead.many(await rowsOf(db, owner, 0)) : [];
    },

    /** How far the logs of some jobs have come, by job: what was worked out of one holds as long as that is the same. */
    marksOf: async (jobIds: readonly string[]): Promise<ReadonlyMap<string, string>> => {
      if (!jobIds.length) return new Map();
      const rows = await db
        .select({ jobId: jobEvents.jobId, last: max(jobEvents.sequence), n: sql<number>`count(*)::int` })
        .from(jobEvents)
        .where(inArray(jobEvents.jobId, [...jobIds]))
        .groupBy(jobEvents.jobId);
      return new Map(rows.map((r) => [r.jobId!, `${r.last} ${r.n}`]));
    },

    /** Of some jobs, by job. */
    ofJobs: async (jobIds: readonly string[]): Promise<ReadonlyMap<string, readonly JobEvent[]>> => {
      if (!jobIds.length) return new Map();
      const rows: EventRow[] = [];
      for (let after = -1; ; after = rows.at(-1)!.sequence!) {
        const page = await db
          .select()
          .from(jobEvents)
          .where(and(inArray(jobEvents.jobId, [...jobIds]), gt(jobEvents.sequence, after)))
          .orderBy(asc(jobEvents.sequence))
          .limit(PAGE);
        rows.push(...page);
        if (page.length < PAGE) break;
      }
      const byJob = groupBy(rows, (event) => event.jobId!);
      return new Map([...byJob].map(([id, own]) => [id, rowsRead.many(own)]));
    },

    /**
     * Stores what is not there yet, all or none. @param since answers with what came in after that; null answers with what was sent
     */
    add: (owner: Owner, events: readonly JobEvent[], since: number | null = null): Promise<StoredEvent[]> =>
      db.transaction(async (tx) => {
        // One request of an owner after the other: its events come to be seen in the order of their sequence.
        await lockOwner(tx, owner);
        const ids = events.map((e) => e.id);
        const known = await tx
          .select({ id: jobEvents.id, jobId: jobEvents.jobId, finishId: jobEvents.finishId })
          .from(jobEvents)
          .where(inArray(jobEvents.id, ids));
        const its = (k: (typeof known)[number]) =>
          'jobId' in owner ? k.jobId === owner.jobId : k.finishId === owner.finishId;
        if (!known.every(its)) throw new ApiError('conflict');
        const there = new Set(known.map((k) => k.id));
        const fresh = [...new Map(events.map((e) => [e.id, e])).values()].filter((e) => !there.has(e.id));
        await checkRoom(tx, owner, fresh);
        await insertMany(
          tx,
          jobEvents,
          fresh.map((e) => ({ ...e, mend: e.mend ?? null, ...owner })),
        );
        if ('jobId' in owner && fresh.length)
          await tx
            .update(jobs)
            .set({ begun: true })
            .where(and(eq(jobs.id, owner.jobId), eq(jobs.begun, false)));
        if ('jobId' in owner && fresh.some((e) => e.kind === 'sprayed')) await pinFinishes(tx, owner.jobId);
        if (since !== null) return rowsRead.many(await rowsOf(tx, owner, since));
        return rowsRead.many(
          await tx.select().from(jobEvents).where(inArray(jobEvents.id, ids)).orderBy(asc(jobEvents.sequence)),
        );
      }),

    damaged: async (): Promise<Damaged[]> => rowsRead.damaged(await db.select().from(jobEvents)),
  };
}

export type LogRepo = ReturnType<typeof createLogRepo>;
