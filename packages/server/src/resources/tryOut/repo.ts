import { START_PLAN, type Job } from '@steady-gleam/contracts';
import { START_AREAS } from '@steady-gleam/core/jobs';
import type { FinishFamily } from '@steady-gleam/core/finishes';
import { deviceSeed, simulatedClimate } from '@steady-gleam/core/devices';
import { eq, sql } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { Db } from '../../db/open';
import { finishes, jobs, type TryOutRow } from '../../db/schema';
import { ApiError } from '../../errors';
import type { JobsRepo } from '../jobs/repo';

/** A practice panel, m. */
const PANEL = { width: 1.2, height: 0.8 } as const;
const MATCHING = 'a panel another hand made, behind the curtain';

/** Jobs behind a curtain. */
export function createTryOutRepo(db: Db, jobsRepo: Pick<JobsRepo, 'read'>) {
  return {
    /** @param mixId what it is sprayed with. @param now ms since 1970 */
    begin: async (
      id: string,
      family: FinishFamily,
      { seed, mixId, now }: { readonly seed: number; readonly mixId: string; readonly now: number },
    ): Promise<Job> => {
      await db.transaction(async (tx) => {
        const [existing] = await tx.select({ tryOut: jobs.tryOut }).from(jobs).where(eq(jobs.id, id));
        if (existing && existing.tryOut === null) throw new ApiError('conflict');
        if (existing) return;
        const [{ n } = { n: 0 }] = await tx
          .select({ n: sql<number>`count(*)::int` })
          .from(jobs)
          .where(sql`${jobs.tryOut} is not null`);
        const finishId = randomUUID();
        const name = `Try-out ${n + 1}`;
        await tx.insert(finishes).values({ id: finishId, name, matching: MATCHING, family, mixId, tryOut: true });
        const climate = simulatedClimate(deviceSeed(id), now);
        await tx.insert(jobs).values({
          id,
          piece: name,
          finishes: [{ key: 'main', name: 'whole piece', finishId }],
          tryOut: { seed, asked: 0, white: null, lifted: false },
          areas: START_AREAS.map((a) => ({ ...a, name: 'Practice panel', shape: 'panel' as const, measures: PANEL })),
          // Nobody waits half an hour for an oven that is not there.
          plan: { ...START_PLAN, bake: false },
          mixing: {
            ...{ products: {}, reducers: {}, flake: null, added: {}, gunId: null },
            ...{ temperatureC: climate.airC, humidity: climate.humidity },
          },
        });
      });
      return (await jobsRepo.read(id)).job;
    },

    /** What is hidden of a job. @throws ApiError where it is the shop's own */
    of: async (id: string): Promise<TryOutRow> => {
      const [row] = await db.select({ tryOut: jobs.tryOut }).from(jobs).where(eq(jobs.id, id));
      if (!row) throw new ApiError('notFound');
      if (!row.tryOut) throw new ApiError('notWorkable', undefined, NOT_OWN);
      return row.tryOut;
    },

    /** Counts a reading that is asked for, and says which it is. @param change what else becomes of it */
    change: (id: string, change: (was: TryOutRow) => TryOutRow): Promise<TryOutRow> =>
      db.transaction(async (tx) => {
        const [row] = await tx.select({ tryOut: jobs.tryOut }).from(jobs).where(eq(jobs.id, id)).for('update');
        if (!row) throw new ApiError('notFound');
        if (!row.tryOut) throw new ApiError('notWorkable', undefined, NOT_OWN);
        await tx
          .update(jobs)
          .set({ tryOut: change(row.tryOut) })
          .where(eq(jobs.id, id));
        return row.tryOut;
      }),
  };
}

export type TryOutRepo = ReturnType<typeof createTryOutRepo>;

const NOT_OWN =
  'The simulated instrument reads try-outs only: this is a job of the shop’s own, and nothing simulated is mixed with it.';
