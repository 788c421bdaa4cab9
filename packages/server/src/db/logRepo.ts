import { jobEventSchema, type Damaged } from '@steady-gleam/contracts';
import type { JobEvent } from '@steady-gleam/core';
import { and, asc, eq, inArray, isNull } from 'drizzle-orm';
import { ApiError } from '../http/apiError';
import type { Db } from './open';
import { rowReader, UNTOLD, type TellDamage } from './rows';
import { jobEvents, jobs } from './schema';

/** The log of every job, and that of its card's own run. */
export interface LogRepo {
  /** In the order they came in. */
  readonly list: (jobId: string, ofCard?: boolean) => Promise<JobEvent[]>;
  /** Of jobs that are in the list, by job. */
  readonly ofListedJobs: () => Promise<ReadonlyMap<string, readonly JobEvent[]>>;
  /** Stores what is not there yet, all or none; answers with the whole log. */
  readonly add: (jobId: string, events: readonly JobEvent[], ofCard?: boolean) => Promise<JobEvent[]>;
  readonly damaged: () => Promise<Damaged[]>;
}

const toEvent = ({
  id,
  at,
  kind,
  cells,
  layerId,
  checkId,
  coats,
  look,
  text,
}: typeof jobEvents.$inferSelect): JobEvent =>
  jobEventSchema.validateSync({ id, at, kind, cells, layerId, checkId, coats, look, text });

export function createLogRepo(db: Db, tell: TellDamage = UNTOLD): LogRepo {
  const rowsRead = rowReader('event', toEvent, (row) => ({ id: row.id, name: 'an entry of a job’s log' }), tell);
  const list = async (handle: Db, jobId: string, ofCard: boolean): Promise<JobEvent[]> => {
    const rows = await handle
      .select()
      .from(jobEvents)
      .where(and(eq(jobEvents.jobId, jobId), eq(jobEvents.ofCard, ofCard)))
      .orderBy(asc(jobEvents.sequence));
    return rowsRead.many(rows);
  };
  return {
    list: (jobId, ofCard = false) => list(db, jobId, ofCard),
    ofListedJobs: async () => {
      const rows = await db
        .select({ event: jobEvents })
        .from(jobEvents)
        .innerJoin(jobs, eq(jobs.id, jobEvents.jobId))
        .where(and(isNull(jobs.removedAt), eq(jobEvents.ofCard, false)))
        .orderBy(asc(jobEvents.sequence));
      const byJob = new Map<string, JobEvent[]>();
      for (const { event } of rows) {
        const own = byJob.get(event.jobId) ?? [];
        own.push(...rowsRead.many([event]));
        byJob.set(event.jobId, own);
      }
      return byJob;
    },
    add: (jobId, events, ofCard = false) =>
      db.transaction(async (tx) => {
        const [job] = await tx.select({ id: jobs.id }).from(jobs).where(eq(jobs.id, jobId));
        if (!job) throw new ApiError('notFound');
        const ids = events.map((e) => e.id);
        const known = await tx
          .select({ id: jobEvents.id, jobId: jobEvents.jobId })
          .from(jobEvents)
          .where(inArray(jobEvents.id, ids));
        if (known.some((k) => k.jobId !== jobId)) throw new ApiError('conflict');
        const fresh = [...new Map(events.map((e) => [e.id, e])).values()];
        // Two requests with the same event at once: the second finds it there.
        await tx
          .insert(jobEvents)
          .values(fresh.map((e) => ({ ...e, jobId, ofCard })))
          .onConflictDoNothing();
        return list(tx, jobId, ofCard);
      }),
    damaged: async () => rowsRead.damaged(await db.select().from(jobEvents)),
  };
}
