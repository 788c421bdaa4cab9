import {
  PAGE_SIZE,
  type CardOfFinish,
  type Damaged,
  type Finish,
  type FinishDetail,
  type FinishQuery,
  type FinishSummary,
} from '@steady-gleam/contracts';
import { and, asc, desc, eq, exists, inArray, isNull, notExists, sql } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import type { Db } from '../../db/open';
import { rowReader, UNTOLD, without, type TellDamage } from '../../db/rows';
import { cards, finishes, finishVersions, jobs, readingSets, type FinishWas } from '../../db/schema';
import { ApiError } from '../../errors';
import { setsInForce, type SetRow } from '../readings/repo';
import { toFinish, type FinishRow } from './rows';
import { answersTo, wordsOf } from './search';
import { finishSummaries, usersOf, usesIt, type Others } from './summaries';

/** What a finish was is kept when it stood so long, or when a job sprayed it, ms: not every step of a slider is a version. */
const STANDS_MS = 10 * 60_000;

const wasOf = ({ matching, mixId, pick, layers }: FinishRow): FinishWas => ({ matching, mixId, pick, layers });

/** What is matched and what makes it; finishes outlive the jobs that use them. */
export function createFinishesRepo(db: Db, others: Others, tell: TellDamage = UNTOLD) {
  const { readings, verdicts, cards: cardsRepo, photos } = others;
  const finishRows = rowReader('finish', toFinish, (row) => ({ id: row.id, name: row.name }), tell);
  const find = async (handle: Db, id: string): Promise<FinishRow> => {
    const [row] = await handle.select().from(finishes).where(eq(finishes.id, id));
    if (!row) throw new ApiError('notFound');
    return row;
  };
  const users = async (handle: Db, id: string): Promise<FinishSummary['jobs']> =>
    (await usersOf(handle, [id])).get(id)!;

  const hasFinished = exists(
    db
      .select({ one: sql`1` })
      .from(jobs)
      .where(and(usesIt(sql`${finishes.id}`), eq(jobs.status, 'finished'))),
  );
  return {
    find,
    users,
    toFinish: (row: FinishRow): Finish => finishRows.one(row),

    /** A page of what answers to a query. @param mixesNamed ids of mixes whose name has a word in it */
    list: async (
      q: FinishQuery,
      mixesNamed: (word: string) => readonly string[],
    ): Promise<{ rows: FinishSummary[]; total: number }> => {
      const where = and(
        // What was tried out stands in no bank.
        eq(finishes.tryOut, false),
        ...wordsOf(q.words).map((w) => answersTo(w, mixesNamed)),
        q.family ? eq(finishes.family, q.family) : undefined,
        q.proven ? hasFinished : undefined,
        q.ids.length ? inArray(finishes.id, q.ids) : undefined,
      );
      const proven = sql`(select count(*) from ${jobs} where ${usesIt(sql`${finishes.id}`)} and ${jobs.status} = 'finished')`;
      const order = {
        latest: [desc(finishes.updatedAt), asc(finishes.id)],
        name: [asc(sql`lower(${finishes.name})`), asc(finishes.id)],
        proven: [desc(proven), desc(finishes.updatedAt), asc(finishes.id)],
      }[q.sort];
      const [counted] = await db
        .select({ n: sql<number>`count(*)::int` })
        .from(finishes)
        .where(where);
      const rows = await db
        .select()
        .from(finishes)
        .where(where)
        .orderBy(...order)
        .limit(PAGE_SIZE)
        .offset(q.page * PAGE_SIZE);
      return { rows: await finishSummaries(db, others, finishRows.many(rows)), total: counted!.n };
    },

    /** Of the bank; none of try-outs. */
    ids: async (): Promise<ReadonlySet<string>> => {
      const rows = await db.select({ id: finishes.id }).from(finishes).where(eq(finishes.tryOut, false));
      return new Set(rows.map((r) => r.id));
    },

    names: async (ids: readonly string[]): Promise<ReadonlyMap<string, string>> => {
      if (!ids.length) return new Map();
      const of = inArray(finishes.id, [...ids]);
      const rows = await db.select({ id: finishes.id, name: finishes.name }).from(finishes).where(of);
      return new Map(rows.map((r) => [r.id, r.name]));
    },

    read: async (id: string): Promise<FinishDetail> => {
      const finish = finishRows.one(await find(db, id));
      const [summary] = await finishSummaries(db, others, [finish]);
      // Every reading once: what is in force, what it replaced, and what was taken out.
      const rows = await readings.everyOf(id);
      const read = new Map((await readings.load(db, rows)).map((set) => [set.id, set]));
      /** Of some rows what is in force, and the others. */
      const parted = (own: readonly SetRow[]) => {
        const inForce = setsInForce(own.filter((r) => r.removedAt === null));
        return {
          inForce: inForce.map((r) => read.get(r.id)!),
          before: own
            .filter((r) => !inForce.includes(r))
            .map((r) => ({ set: read.get(r.id)!, removed: r.removedAt !== null })),
        };
      };
      const target = parted(rows.filter((r) => r.kind === 'target'));
      const all: CardOfFinish[] = [];
      for (const { card, retiredAt, teaches } of await cardsRepo.everyOf(id)) {
        const of = retiredAt === null ? null : card.id;
        const rungs = parted(rows.filter((r) => r.kind === 'rung' && r.cardId === of));
        all.push({
          ...{ card, retiredAt, teaches },
          rungs: rungs.inForce.sort((p, q) => p.rungCoats! - q.rungCoats!),
          before: rungs.before,
          verdicts: of === null ? await verdicts.list(id) : await verdicts.ofCard(of),
          photos: (await photos.ofFinish(id, of)).filter((p) => p.kind === 'rung'),
        });
      }
      return {
        finish: summary!,
        target: target.inForce[0] ?? null,
        targetBefore: target.before,
        chips: parted(rows.filter((r) => r.kind === 'chip')).inForce,
        cards: all.sort((p, q) => Number(p.retiredAt !== null) - Number(q.retiredAt !== null)),
        versions: await versionsOf(id),
        photos: (await photos.ofFinish(id, null)).filter((p) => p.kind === 'target'),
      };
    },

    /**
     * Keeps what a finish was before it is changed: where a job sprayed it so, or it stood for a while.
     * @param to what it becomes
     */
    keepVersion: async (handle: Db, id: string, to: Partial<FinishRow>): Promise<void> => {
      const row = await find(handle, id);
      const was = wasOf(row);
      if (isDeepStrictEqual(wasOf({ ...row, ...to }), was)) return;
      // A name that was changed since is another version of the same.
      const [kept] = await handle
        .select({ last: sql<number>`coalesce(max(${finishVersions.version}), 0)::int` })
        .from(finishVersions)
        .where(eq(finishVersions.finishId, id));
      const sprayed = (await users(handle, id)).some((j) => j.sprayed !== null && j.sprayed > kept!.last);
      if (!sprayed && Date.now() - row.updatedAt.getTime() < STANDS_MS) return;
      await handle.insert(finishVersions).values({ finishId: id, version: row.version, was }).onConflictDoNothing();
    },

    rename: async (id: string, { version, ...names }: { version: number; name?: string; codes?: string[] }) => {
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

    /** One like it under a name of its own, as a start; sent twice it is made once. */
    copyAs: (from: string, id: string, name: string): Promise<Finish> =>
      db.transaction(async (tx) => {
        const [there] = await tx.select().from(finishes).where(eq(finishes.id, id));
        if (there && there.name !== name) throw new ApiError('conflict');
        if (!there) {
          refuseTryOut(await find(tx, from));
          await copy(tx, from, id);
          await tx.update(finishes).set({ name, codes: [], updatedAt: new Date() }).where(eq(finishes.id, id));
        }
        return finishRows.one(await find(tx, id));
      }),

    /** One like another, with its target, card in force, rungs and verdicts. @returns its id */
    copy: (handle: Db, id: string): Promise<string> => copy(handle, id, randomUUID()),

    /** Takes away what no job uses and nobody read or sprayed anything for: it would only stand in the way. */
    sweep: async (handle: Db): Promise<void> => {
      await handle.delete(finishes).where(
        and(
          notExists(
            handle
              .select({ one: sql`1` })
              .from(jobs)
              .where(usesIt(sql`${finishes.id}`)),
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

  async function copy(handle: Db, id: string, to: string): Promise<string> {
    const row = without(await find(handle, id), 'createdAt', 'updatedAt');
    await handle.insert(finishes).values({ ...row, id: to, version: 1, invented: false });
    await readings.copy(handle, { finishId: id }, { finishId: to });
    await cardsRepo.copy(handle, id, to);
    await verdicts.copy(handle, id, to);
    return to;
  }

  /** What it was, newest first; each from the version after the one before. */
  async function versionsOf(id: string): Promise<FinishDetail['versions']> {
    const rows = await db
      .select()
      .from(finishVersions)
      .where(eq(finishVersions.finishId, id))
      .orderBy(asc(finishVersions.version));
    return rows
      .map(({ version, was, createdAt }, i) => ({
        ...{ from: (rows[i - 1]?.version ?? 0) + 1, to: version, until: createdAt.toISOString() },
        ...{ matching: was.matching, mixId: was.mixId, pick: was.pick },
        layers: was.layers && [...was.layers],
      }))
      .reverse();
  }
}

/** What was tried out stays where it was: nothing of the shop's own is made of it. @throws ApiError */
export function refuseTryOut({ tryOut, name }: { readonly tryOut: boolean; readonly name: string }): void {
  if (tryOut)
    throw new ApiError('notWorkable', undefined, `${name} is a try-out, simulated: it stays with its own job.`);
}

export type FinishesRepo = ReturnType<typeof createFinishesRepo>;
