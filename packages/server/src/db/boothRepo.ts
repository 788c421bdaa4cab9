import { boothEventSchema, type Damaged } from '@steady-gleam/contracts';
import type { BoothEvent } from '@steady-gleam/core';
import { and, asc, eq, inArray, isNull } from 'drizzle-orm';
import { ApiError } from '../http/apiError';
import type { Db } from './open';
import { rowReader, UNTOLD, type TellDamage } from './rows';
import { boothEvents, jobs } from './schema';

/** The log of the booth. */
export interface BoothRepo {
  /** In the order they came in. */
  readonly list: (jobId: string) => Promise<BoothEvent[]>;
  /** Events of jobs that are still open, by job. */
  readonly ofOpenJobs: () => Promise<ReadonlyMap<string, readonly BoothEvent[]>>;
  /** Stores what is not there yet, all or none; answers with the whole log. */
  readonly add: (jobId: string, events: readonly BoothEvent[]) => Promise<BoothEvent[]>;
  readonly damaged: () => Promise<Damaged[]>;
}

const toEvent = ({ id, at, kind, coatId, pieceId, text }: typeof boothEvents.$inferSelect): BoothEvent =>
  boothEventSchema.validateSync({ id, at, kind, coatId, pieceId, text });

export function createBoothRepo(db: Db, tell: TellDamage = UNTOLD): BoothRepo {
  const taps = rowReader('booth', toEvent, (row) => ({ id: row.id, name: 'a tap in the booth' }), tell);
  const list = async (handle: Db, jobId: string): Promise<BoothEvent[]> => {
    const rows = await handle
      .select()
      .from(boothEvents)
      .where(eq(boothEvents.jobId, jobId))
      .orderBy(asc(boothEvents.sequence));
    return taps.many(rows);
  };
  return {
    list: (jobId) => list(db, jobId),
    ofOpenJobs: async () => {
      const rows = await db
        .select({ event: boothEvents })
        .from(boothEvents)
        .innerJoin(jobs, eq(jobs.id, boothEvents.jobId))
        .where(and(eq(jobs.status, 'open'), isNull(jobs.removedAt)))
        .orderBy(asc(boothEvents.sequence));
      const byJob = new Map<string, BoothEvent[]>();
      for (const { event } of rows) {
        const own = byJob.get(event.jobId) ?? [];
        own.push(...taps.many([event]));
        byJob.set(event.jobId, own);
      }
      return byJob;
    },
    add: (jobId, events) =>
      db.transaction(async (tx) => {
        const [job] = await tx.select({ id: jobs.id }).from(jobs).where(eq(jobs.id, jobId));
        if (!job) throw new ApiError('notFound');
        const ids = events.map((e) => e.id);
        const known = await tx
          .select({ id: boothEvents.id, jobId: boothEvents.jobId })
          .from(boothEvents)
          .where(inArray(boothEvents.id, ids));
        if (known.some((k) => k.jobId !== jobId)) throw new ApiError('conflict');
        const fresh = [...new Map(events.map((e) => [e.id, e])).values()];
        // Two requests with the same event at once: the second finds it there.
        await tx
          .insert(boothEvents)
          .values(fresh.map((e) => ({ ...e, jobId })))
          .onConflictDoNothing();
        return list(tx, jobId);
      }),
    damaged: async () => taps.damaged(await db.select().from(boothEvents)),
  };
}
