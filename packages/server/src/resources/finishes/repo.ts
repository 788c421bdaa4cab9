import type { Damaged, Finish, FinishSummary } from '@steady-gleam/contracts';
import { and, desc, eq, isNull, notExists, sql } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { Db } from '../../db/open';
import { rowReader, UNTOLD, without, type TellDamage } from '../../db/rows';
import { cards, finishes, jobs, readingSets } from '../../db/schema';
import { ApiError } from '../../errors';
import type { CardsRepo } from '../cards/repo';
import type { ReadingsRepo } from '../readings/repo';
import type { VerdictsRepo } from '../verdicts/repo';
import { toFinish, type FinishRow } from './rows';

/** What is matched and what makes it; finishes outlive the jobs that use them. */
export function createFinishesRepo(
  db: Db,
  { readings, verdicts, cards: cardsRepo }: { readings: ReadingsRepo; verdicts: VerdictsRepo; cards: CardsRepo },
  tell: TellDamage = UNTOLD,
) {
  const finishRows = rowReader('finish', toFinish, (row) => ({ id: row.id, name: row.name }), tell);
  const find = async (handle: Db, id: string): Promise<FinishRow> => {
    const [row] = await handle.select().from(finishes).where(eq(finishes.id, id));
    if (!row) throw new ApiError('notFound');
    return row;
  };
  /** Jobs that use a finish, those that were taken out too. */
  const users = async (handle: Db, id: string): Promise<FinishSummary['jobs']> => {
    const rows = await handle
      .select({ id: jobs.id, piece: jobs.piece, status: jobs.status, removedAt: jobs.removedAt })
      .from(jobs)
      .where(sql`${jobs.finishes} @> ${JSON.stringify([{ finishId: id }])}::jsonb`)
      .orderBy(desc(jobs.updatedAt));
    return rows.map(({ removedAt, ...job }) => ({ ...job, removed: removedAt !== null }));
  };
  const summaryOf = async (
    finish: Finish,
    sets: Awaited<ReturnType<ReadingsRepo['inForceByFinish']>>,
    judged: Awaited<ReturnType<VerdictsRepo['rungsJudged']>>,
  ): Promise<FinishSummary> => {
    const own = sets.get(finish.id) ?? [];
    const target = own.find((s) => s.kind === 'target');
    const read = own.filter((s) => s.kind === 'rung').map((s) => s.rungCoats);
    const [set] = target ? await readings.load(db, [target]) : [];
    const near = set?.readings.toSorted((a, b) => Math.abs(a.aspecular - 45) - Math.abs(b.aspecular - 45))[0];
    const using = await users(db, finish.id);
    return {
      ...finish,
      jobs: using,
      cards: await cardsRepo.earlier(finish.id),
      lab: near ? [near.l, near.a, near.b] : null,
      targetAngles: target?.angles ?? 0,
      rungsRead: new Set([...read, ...(judged.get(finish.id) ?? [])]).size,
      proven: using.filter((j) => j.status === 'finished').length,
    };
  };

  return {
    find,
    users,
    toFinish: (row: FinishRow): Finish => finishRows.one(row),

    list: async (): Promise<FinishSummary[]> => {
      const all = finishRows.many(await db.select().from(finishes).orderBy(desc(finishes.updatedAt)));
      const [sets, judged] = await Promise.all([readings.inForceByFinish(), verdicts.rungsJudged()]);
      return Promise.all(all.map((f) => summaryOf(f, sets, judged)));
    },

    read: async (id: string): Promise<FinishSummary> => {
      const finish = finishRows.one(await find(db, id));
      const [sets, judged] = await Promise.all([readings.inForceByFinish(), verdicts.rungsJudged()]);
      return summaryOf(finish, sets, judged);
    },

    rename: async (id: string, { version, ...names }: { version: number; name?: string; code?: string }) => {
      await find(db, id);
      const [row] = await db
        .update(finishes)
        .set({ ...names, version: version + 1, updatedAt: new Date() })
        .where(and(eq(finishes.id, id), eq(finishes.version, version)))
        .returning();
      if (!row) throw new ApiError('stale');
      return finishRows.one(row);
    },

    remove: (id: string, version: number): Promise<void> =>
      db.transaction(async (tx) => {
        const row = await find(tx, id);
        if (row.version !== version) throw new ApiError('stale');
        const using = await users(tx, id);
        if (using.length) {
          const said = using.map((j) => (j.removed ? `${j.piece} (taken out of the list)` : j.piece)).join(', ');
          throw new ApiError('inUse', undefined, `${row.name} is used by ${said}. Change that first; it was kept.`);
        }
        await tx.delete(finishes).where(eq(finishes.id, id));
      }),

    /** One like another, with its target, card in force, rungs and verdicts. @returns its id */
    copy: async (handle: Db, id: string): Promise<string> => {
      const to = randomUUID();
      const row = without(await find(handle, id), 'createdAt', 'updatedAt');
      await handle.insert(finishes).values({ ...row, id: to, version: 1, invented: false });
      await readings.copy(handle, { finishId: id }, { finishId: to });
      await cardsRepo.copy(handle, id, to);
      await verdicts.copy(handle, id, to);
      return to;
    },

    /** Takes away what no job uses and nobody read or sprayed anything for: it would only stand in the way. */
    sweep: async (handle: Db): Promise<void> => {
      await handle.delete(finishes).where(
        and(
          notExists(
            handle
              .select({ one: sql`1` })
              .from(jobs)
              .where(sql`${jobs.finishes} @> jsonb_build_array(jsonb_build_object('finishId', ${finishes.id}))`),
          ),
          notExists(
            handle
              .select({ one: sql`1` })
              .from(readingSets)
              .where(eq(readingSets.finishId, finishes.id)),
          ),
          notExists(
            handle
              .select({ one: sql`1` })
              .from(cards)
              .where(eq(cards.finishId, finishes.id)),
          ),
          isNull(finishes.pick),
        ),
      );
    },

    damaged: async (): Promise<Damaged[]> => finishRows.damaged(await db.select().from(finishes)),
  };
}
export type FinishesRepo = ReturnType<typeof createFinishesRepo>;
