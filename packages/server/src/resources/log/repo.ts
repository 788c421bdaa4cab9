import { jobEventSchema, type Damaged } from '@steady-gleam/contracts';
import type { JobEvent } from '@steady-gleam/core/jobs';
import { and, asc, inArray, isNull } from 'drizzle-orm';
import type { Db } from '../../db/open';
import { groupBy, rowReader, UNTOLD, type TellDamage } from '../../db/rows';
import { jobEvents } from '../../db/schema';
import { ApiError } from '../../errors';
import { pinFinishes } from '../finishes/pin';
import { checkOwner, whereOwner, type Owner } from '../readings/repo';

type EventRow = typeof jobEvents.$inferSelect;

const toEvent = ({ id, at, kind, cells, layerId, checkId, coats, look, mend, text }: EventRow): JobEvent =>
  jobEventSchema.validateSync({ id, at, kind, cells, layerId, checkId, coats, look, mend, text });

/** The log of every job, and that of the run of every finish's card. */
export function createLogRepo(db: Db, tell: TellDamage = UNTOLD) {
  const rowsRead = rowReader('event', toEvent, (row) => ({ id: row.id, name: 'an entry of a job’s log' }), tell);
  const list = async (handle: Db, owner: Owner): Promise<JobEvent[]> => {
    const rows = await handle
      .select()
      .from(jobEvents)
      .where(and(whereOwner(jobEvents, owner), isNull(jobEvents.cardId)))
      .orderBy(asc(jobEvents.sequence));
    return rowsRead.many(rows);
  };
  return {
    /** In the order they came in; of a finish those of the card in force. */
    list: (owner: Owner): Promise<JobEvent[]> => list(db, owner),

    /** Of some jobs, by job. */
    ofJobs: async (jobIds: readonly string[]): Promise<ReadonlyMap<string, readonly JobEvent[]>> => {
      if (!jobIds.length) return new Map();
      const rows = await db
        .select()
        .from(jobEvents)
        .where(inArray(jobEvents.jobId, [...jobIds]))
        .orderBy(asc(jobEvents.sequence));
      const byJob = groupBy(rows, (event) => event.jobId!);
      return new Map([...byJob].map(([id, own]) => [id, rowsRead.many(own)]));
    },

    /** Stores what is not there yet, all or none; answers with the whole log. */
    add: (owner: Owner, events: readonly JobEvent[]): Promise<JobEvent[]> =>
      db.transaction(async (tx) => {
        await checkOwner(tx, owner);
        const ids = events.map((e) => e.id);
        const known = await tx
          .select({ id: jobEvents.id, jobId: jobEvents.jobId, finishId: jobEvents.finishId })
          .from(jobEvents)
          .where(inArray(jobEvents.id, ids));
        const its = (k: (typeof known)[number]) =>
          'jobId' in owner ? k.jobId === owner.jobId : k.finishId === owner.finishId;
        if (!known.every(its)) throw new ApiError('conflict');
        const fresh = [...new Map(events.map((e) => [e.id, e])).values()];
        // Two requests with the same event at once: the second finds it there.
        await tx
          .insert(jobEvents)
          .values(fresh.map((e) => ({ ...e, ...owner })))
          .onConflictDoNothing();
        if ('jobId' in owner && fresh.some((e) => e.kind === 'sprayed')) await pinFinishes(tx, owner.jobId);
        return list(tx, owner);
      }),

    damaged: async (): Promise<Damaged[]> => rowsRead.damaged(await db.select().from(jobEvents)),
  };
}
export type LogRepo = ReturnType<typeof createLogRepo>;
