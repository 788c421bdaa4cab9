import { batchSchema, type Batch, type CorrectBatch, type NewBatch } from '@steady-gleam/contracts';
import { and, asc, desc, eq, inArray, isNull, or, sql } from 'drizzle-orm';
import { isDeepStrictEqual } from 'node:util';
import type { Db } from '../../db/open';
import { rowReader, UNTOLD, type TellDamage } from '../../db/rows';
import { batches, jobs } from '../../db/schema';
import { ApiError } from '../../errors';
import { checkGun, checkProduct } from '../jobs/checkMixing';

/** Newest batches told of any job; of each gun those it is taught by; and of all of them together. */
const [MOST_BATCHES, LESSONS, MOST_AT_ONCE] = [300, 60, 2_000] as const;

const toBatch = (row: { batches: typeof batches.$inferSelect; jobs: { piece: string } }): Batch => ({
  ...batchSchema.validateSync(row.batches.batch),
  version: row.batches.version,
  piece: row.jobs.piece,
  leftMl: row.batches.leftMl,
  teaches: row.batches.teaches,
  corrections: [...row.batches.corrections],
  removedAt: row.batches.removedAt?.toISOString() ?? null,
  endedAt: row.batches.endedAt?.toISOString() ?? null,
});

/** Batches as they were mixed. */
export function createBatchesRepo(db: Db, tell: TellDamage = UNTOLD) {
  const batchRowsOf = rowReader(
    'batch',
    toBatch,
    (row) => ({ id: row.batches.id, name: `a batch for ${row.jobs.piece}` }),
    tell,
  );
  const batchRows = (handle: Db) =>
    handle
      .select({ batches, jobs: { piece: jobs.piece } })
      .from(batches)
      .innerJoin(jobs, eq(jobs.id, batches.jobId));
  const readBatch = async (handle: Db, id: string): Promise<Batch> => {
    const [row] = await batchRows(handle).where(eq(batches.id, id));
    if (!row) throw new ApiError('notFound');
    return batchRowsOf.one(row);
  };
  return {
    /**
     * Newest first: all that are in use, the newest of the rest, and of every gun the newest it is taught by. A gun is the same on
     * every screen however many batches there were.
     */
    list: async () => {
      const newest = db
        .select({ id: batches.id })
        .from(batches)
        .where(isNull(batches.removedAt))
        .orderBy(desc(batches.mixedAt))
        .limit(MOST_BATCHES);
      const teaching = sql`select id from (
        select id, row_number() over (partition by gun_id order by mixed_at desc) as place from batches
        where removed_at is null and gun_id is not null and left_ml is not null and teaches) as lessons where place <= ${LESSONS}`;
      return batchRowsOf.many(
        await batchRows(db)
          .where(
            and(
              isNull(batches.removedAt),
              or(isNull(batches.endedAt), inArray(batches.id, newest), sql`${batches.id} in (${teaching})`),
            ),
          )
          .orderBy(desc(batches.mixedAt))
          .limit(MOST_AT_ONCE),
      );
    },

    /** Of one job, in the order they were mixed. */
    ofJob: async (jobId: string) =>
      batchRowsOf.many(
        await batchRows(db)
          .where(and(eq(batches.jobId, jobId), isNull(batches.removedAt)))
          .orderBy(asc(batches.mixedAt)),
      ),

    read: (id: string) => readBatch(db, id),

    add: (batch: NewBatch): Promise<Batch> =>
      db.transaction(async (tx) => {
        const [existing] = await tx
          .select({ batch: batches.batch, corrections: batches.corrections })
          .from(batches)
          .where(eq(batches.id, batch.id));
        // The same sent twice is stored once; another under the same id would be lost, so it is refused.
        const was = existing && batchSchema.validateSync(existing.batch);
        const isSame = existing?.corrections.length ? was?.jobId === batch.jobId : isDeepStrictEqual(was, batch);
        if (existing && !isSame) throw new ApiError('conflict');
        if (!existing) {
          const [job] = await tx.select({ tryOut: jobs.tryOut }).from(jobs).where(eq(jobs.id, batch.jobId));
          if (!job) throw new ApiError('notFound');
          await checkGun(tx, batch.gunId, 'gunId');
          await checkProduct(tx, batch.productId, 'productId');
          await tx.insert(batches).values({
            id: batch.id,
            jobId: batch.jobId,
            gunId: batch.gunId,
            productId: batch.productId,
            mixedAt: new Date(batch.mixedAt),
            batch,
            // No gun learns from what is simulated.
            teaches: job.tryOut === null,
          });
        }
        return readBatch(tx, batch.id);
      }),

    end: (id: string, version: number, leftMl: number): Promise<Batch> =>
      db.transaction(async (tx) => {
        const batch = await readBatch(tx, id);
        if (leftMl > batch.ml) throw new ApiError('badRequest', { leftMl: 'More can’t be left than was mixed.' });
        const changed = await tx
          .update(batches)
          .set({ leftMl, endedAt: new Date(), version: version + 1, updatedAt: new Date() })
          .where(and(eq(batches.id, id), eq(batches.version, version)))
          .returning({ id: batches.id });
        if (!changed.length) throw new ApiError('stale');
        return readBatch(tx, id);
      }),

    /** Puts a wrong entry right; what it said before goes to its history. */
    correct: (id: string, { version, ...to }: CorrectBatch): Promise<Batch> =>
      db.transaction(async (tx) => {
        const was = await readBatch(tx, id);
        const ml = to.ml ?? was.ml;
        const leftMl = to.leftMl === undefined ? was.leftMl : to.leftMl;
        const gunId = to.gunId === undefined ? was.gunId : to.gunId;
        if (leftMl !== null && leftMl > ml)
          throw new ApiError('badRequest', { leftMl: 'More can’t be left than was mixed.' });
        if (to.gunId !== undefined) await checkGun(tx, to.gunId, 'gunId');
        const [row] = await tx.select().from(batches).where(eq(batches.id, id));
        const [job] = await tx.select({ tryOut: jobs.tryOut }).from(jobs).where(eq(jobs.id, row!.jobId));
        if (to.teaches && job!.tryOut) throw new ApiError('badRequest', { teaches: 'No gun is taught by a try-out.' });
        const isOther = ml !== was.ml || leftMl !== was.leftMl || gunId !== was.gunId;
        const before = { at: new Date().toISOString(), ml: was.ml, leftMl: was.leftMl, gunId: was.gunId };
        // What was poured of each part goes with the whole.
        const parts = row!.batch.parts.map((p) => ({
          ...p,
          ml: (p.ml * ml) / was.ml,
          grams: p.grams === null ? null : (p.grams * ml) / was.ml,
        }));
        const changed = await tx
          .update(batches)
          .set({
            ...{ gunId, leftMl, batch: { ...row!.batch, gunId, ml, parts } },
            ...(to.teaches === undefined ? {} : { teaches: to.teaches }),
            ...(isOther ? { corrections: [...was.corrections, before] } : {}),
            ...(leftMl === null ? { endedAt: null } : was.endedAt ? {} : { endedAt: new Date() }),
            ...{ version: version + 1, updatedAt: new Date() },
          })
          .where(and(eq(batches.id, id), eq(batches.version, version)))
          .returning({ id: batches.id });
        if (!changed.length) throw new ApiError('stale');
        return readBatch(tx, id);
      }),

    /** Takes a batch out as entered wrongly, so that it counts for nothing; false puts it back. */
    remove: (id: string, version: number, removed: boolean): Promise<Batch> =>
      db.transaction(async (tx) => {
        const changed = await tx
          .update(batches)
          .set({ removedAt: removed ? new Date() : null, version: version + 1, updatedAt: new Date() })
          .where(and(eq(batches.id, id), eq(batches.version, version)))
          .returning({ id: batches.id });
        if (!changed.length) throw new ApiError('stale');
        return readBatch(tx, id);
      }),

    /** Cups mixed for some jobs, by job. */
    countByJob: async (jobIds: readonly string[]): Promise<ReadonlyMap<string, number>> => {
      if (!jobIds.length) return new Map();
      const rows = await db
        .select({ jobId: batches.jobId, n: sql<number>`count(*)::int` })
        .from(batches)
        .where(and(isNull(batches.removedAt), inArray(batches.jobId, [...jobIds])))
        .groupBy(batches.jobId);
      return new Map(rows.map((r) => [r.jobId, r.n]));
    },

    damaged: async () => batchRowsOf.damaged(await batchRows(db)),
  };
}
