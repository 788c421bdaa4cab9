import { isOfJob, readingSetSchema, type ReadingSet } from '@steady-gleam/contracts';
import { and, asc, desc, eq, gt, inArray, isNotNull, isNull, lte, sql, type SQL } from 'drizzle-orm';
import type { AnyPgColumn } from 'drizzle-orm/pg-core';
import { randomUUID } from 'node:crypto';
import type { Db } from '../../db/open';
import { insertMany } from '../../db/insertMany';
import { groupBy, without } from '../../db/rows';
import { cards, finishes, jobs, readings, readingSets } from '../../db/schema';
import { ApiError } from '../../errors';
import { takeFile } from '../inbox/repo';

export type SetRow = typeof readingSets.$inferSelect;

/** Whose readings: a finish's targets, rungs and chips, or a job's spots and targets of single objects. */
export type Owner = { readonly finishId: string } | { readonly jobId: string };

export const whereOwner = (
  columns: { readonly finishId: AnyPgColumn; readonly jobId: AnyPgColumn },
  owner: Owner,
): SQL => ('jobId' in owner ? eq(columns.jobId, owner.jobId) : eq(columns.finishId, owner.finishId));

/** @throws ApiError where there is no such job or finish */
export async function checkOwner(handle: Db, owner: Owner): Promise<void> {
  await isTryOut(handle, owner);
}

/** Whether what is read of it may be simulated. @throws ApiError where there is no such job or finish */
async function isTryOut(handle: Db, owner: Owner): Promise<boolean> {
  if ('jobId' in owner) {
    const [job] = await handle.select({ tryOut: jobs.tryOut }).from(jobs).where(eq(jobs.id, owner.jobId));
    if (!job) throw new ApiError('notFound');
    return job.tryOut !== null;
  }
  const [finish] = await handle
    .select({ tryOut: finishes.tryOut })
    .from(finishes)
    .where(eq(finishes.id, owner.finishId));
  if (!finish) throw new ApiError('notFound');
  return finish.tryOut;
}

/** Holds a job or a finish until the transaction ends: its log is written by one at a time. @throws ApiError where there is none */
export async function lockOwner(handle: Db, owner: Owner): Promise<void> {
  const [found] =
    'jobId' in owner
      ? await handle.select({ id: jobs.id }).from(jobs).where(eq(jobs.id, owner.jobId)).for('no key update')
      : await handle
          .select({ id: finishes.id })
          .from(finishes)
          .where(eq(finishes.id, owner.finishId))
          .for('no key update');
  if (!found) throw new ApiError('notFound');
}

/** What was changed is the latest among its kind. */
export async function touchOwner(handle: Db, owner: Owner): Promise<void> {
  const updatedAt = new Date();
  if ('jobId' in owner) await handle.update(jobs).set({ updatedAt }).where(eq(jobs.id, owner.jobId));
  else await handle.update(finishes).set({ updatedAt }).where(eq(finishes.id, owner.finishId));
}

/** The newest set of each kind, rung and name. @param rows of one owner, newest first */
export function setsInForce(rows: readonly SetRow[]): SetRow[] {
  const seen = new Set<string>();
  return rows.filter((r) => {
    const key = JSON.stringify([r.kind, r.rungCoats, r.label, r.objectId]);
    return seen.has(key) ? false : (seen.add(key), true);
  });
}

const head = readingSetSchema.omit(['readings']);

/** Readings of targets, rungs, chips and places on the job. */
export function createReadingsRepo(db: Db) {
  const load = async (handle: Db, rows: readonly SetRow[]): Promise<ReadingSet[]> => {
    if (!rows.length) return [];
    const ids = rows.map((r) => r.id);
    const all = await handle.select().from(readings).where(inArray(readings.setId, ids)).orderBy(asc(readings.place));
    const bySet = groupBy(all, (r) => r.setId);
    return rows.map((row) => {
      const { id, kind, rungCoats, source, label, objectId, state, doubt } = row;
      const read = { id, kind, rungCoats, source, label, objectId, state, doubt, takenAt: row.takenAt.toISOString() };
      return {
        ...head.validateSync(read),
        readings: (bySet.get(row.id) ?? []).map(({ spot, incidence, aspecular, l, a, b }) => ({
          ...{ spot, incidence, aspecular },
          ...{ l, a, b },
        })),
      };
    });
  };
  /** Of a job or a finish, newest first; not those of earlier cards, nor what was taken out. */
  const rowsOf = (handle: Db, owner: Owner): Promise<SetRow[]> =>
    handle
      .select()
      .from(readingSets)
      .where(and(whereOwner(readingSets, owner), isNull(readingSets.removedAt), isNull(readingSets.cardId)))
      .orderBy(desc(readingSets.sequence));

  /** Stores a set of readings under its owner; sent twice it is there once. */
  const store = async (tx: Db, owner: Owner, set: ReadingSet): Promise<ReadingSet> => {
    if (isOfJob(set) !== 'jobId' in owner)
      throw new ApiError('badRequest', {
        kind: isOfJob(set) ? 'This belongs to a job, not to a finish.' : 'This belongs to a finish, not to a job.',
      });
    const simulated = await isTryOut(tx, owner);
    if (set.source === 'simulated' && !simulated)
      throw new ApiError('badRequest', {
        source: 'This reading is simulated: it goes into a try-out, never into a job of the shop’s own.',
      });
    const [existing] = await tx.select().from(readingSets).where(eq(readingSets.id, set.id));
    if (existing) {
      const same = 'jobId' in owner ? existing.jobId === owner.jobId : existing.finishId === owner.finishId;
      if (!same || existing.kind !== set.kind) throw new ApiError('conflict');
      return (await load(tx, [existing]))[0]!;
    }
    const { readings: read, takenAt, inboxId, ...rest } = set;
    if (inboxId !== undefined) await takeFile(tx, inboxId);
    await tx.insert(readingSets).values({ ...rest, ...owner, takenAt: new Date(takenAt) });
    await insertMany(
      tx,
      readings,
      read.map((r, place) => ({ setId: set.id, place, ...r })),
    );
    await touchOwner(tx, owner);
    return without(set, 'inboxId');
  };

  return {
    load,
    rowsOf,

    /** Sets in force of some finishes, without their readings; and how many angles each has. */
    inForceOf: async (
      finishIds: readonly string[],
    ): Promise<ReadonlyMap<string, readonly (SetRow & { readonly angles: number })[]>> => {
      if (!finishIds.length) return new Map();
      const rows = await db
        .select()
        .from(readingSets)
        .where(
          and(inArray(readingSets.finishId, [...finishIds]), isNull(readingSets.removedAt), isNull(readingSets.cardId)),
        )
        .orderBy(desc(readingSets.sequence));
      const own = [...groupBy(rows, (r) => r.finishId!)].map(([id, sets]) => [id, setsInForce(sets)] as const);
      const ids = own.flatMap(([, sets]) => sets.map((s) => s.id));
      const counted = ids.length
        ? await db
            .select({
              setId: readings.setId,
              n: sql<number>`count(distinct (${readings.incidence}, ${readings.aspecular}))::int`,
            })
            .from(readings)
            .where(inArray(readings.setId, ids))
            .groupBy(readings.setId)
        : [];
      const angles = new Map(counted.map((c) => [c.setId, c.n]));
      return new Map(own.map(([id, sets]) => [id, sets.map((s) => ({ ...s, angles: angles.get(s.id) ?? 0 }))]));
    },

    /** Every set of a finish, those that were replaced, taken out or are of earlier cards too; newest first. */
    everyOf: (finishId: string): Promise<SetRow[]> =>
      db.select().from(readingSets).where(eq(readingSets.finishId, finishId)).orderBy(desc(readingSets.sequence)),

    /** What changes whenever the bank's readings do. */
    bankStamp: async (): Promise<string> => {
      const [row] = await db
        .select({
          sets: sql<number>`count(*)::int`,
          removed: sql<number>`count(${readingSets.removedAt})::int`,
          cards: sql<number>`count(${readingSets.cardId})::int`,
          last: sql<number>`coalesce(max(${readingSets.sequence}), 0)::int`,
          changed: sql<string>`coalesce(max(${readingSets.updatedAt})::text, '')`,
        })
        .from(readingSets)
        .where(isNotNull(readingSets.finishId));
      return JSON.stringify(row);
    },

    /** Rungs of every card and targets of every finish, in force and cleared, so many at a time in their order. */
    bankSets: async (after: number, most: number) => {
      const rows = await db
        .select({
          id: readingSets.id,
          finishId: readingSets.finishId,
          ownCard: readingSets.cardId,
          cardInForce: cards.id,
          kind: readingSets.kind,
          coats: readingSets.rungCoats,
          state: readingSets.state,
          sequence: readingSets.sequence,
        })
        .from(readingSets)
        .innerJoin(finishes, eq(finishes.id, readingSets.finishId))
        .leftJoin(cards, and(eq(cards.finishId, readingSets.finishId), isNull(cards.retiredAt)))
        .where(
          and(
            isNotNull(readingSets.finishId),
            isNull(readingSets.removedAt),
            inArray(readingSets.kind, ['rung', 'target']),
            // The bank holds what was really sprayed.
            eq(finishes.tryOut, false),
            gt(readingSets.sequence, after),
          ),
        )
        .orderBy(asc(readingSets.sequence))
        .limit(most);
      const ids = rows.map((r) => r.id);
      const all = ids.length
        ? await db
            .select({
              setId: readings.setId,
              incidence: readings.incidence,
              aspecular: readings.aspecular,
              l: sql<number>`avg(${readings.l})`,
              a: sql<number>`avg(${readings.a})`,
              b: sql<number>`avg(${readings.b})`,
            })
            .from(readings)
            .where(inArray(readings.setId, ids))
            .groupBy(readings.setId, readings.incidence, readings.aspecular)
            .orderBy(asc(readings.incidence), asc(readings.aspecular))
        : [];
      const bySet = groupBy(all, (r) => r.setId);
      return rows.map((r) => ({ ...r, angles: bySet.get(r.id) ?? [] }));
    },

    add: (owner: Owner, set: ReadingSet): Promise<ReadingSet> => db.transaction((tx) => store(tx, owner, set)),

    store,

    /** Takes a set of readings, and what it replaced, out of force; false puts them back. */
    remove: (setId: string, removed: boolean): Promise<void> =>
      db.transaction(async (tx) => {
        const [set] = await tx.select().from(readingSets).where(eq(readingSets.id, setId));
        if (!set) throw new ApiError('notFound');
        const owner: Owner = set.jobId === null ? { finishId: set.finishId! } : { jobId: set.jobId };
        // What it replaced goes with it, or an older mistake would be in force again.
        const same = and(
          whereOwner(readingSets, owner),
          eq(readingSets.kind, set.kind),
          eq(readingSets.label, set.label),
          set.rungCoats === null ? isNull(readingSets.rungCoats) : eq(readingSets.rungCoats, set.rungCoats),
          set.objectId === null ? isNull(readingSets.objectId) : eq(readingSets.objectId, set.objectId),
          set.cardId === null ? isNull(readingSets.cardId) : eq(readingSets.cardId, set.cardId),
          lte(readingSets.sequence, set.sequence),
        );
        const state = removed
          ? isNull(readingSets.removedAt)
          : set.removedAt
            ? eq(readingSets.removedAt, set.removedAt)
            : isNotNull(readingSets.removedAt);
        await tx
          .update(readingSets)
          .set({ removedAt: removed ? new Date() : null, updatedAt: new Date() })
          .where(and(same, state));
        await touchOwner(tx, owner);
      }),

    /** Copies what is in the log of one owner to another's; nothing of earlier cards. */
    copy: async (handle: Db, from: Owner, to: Owner): Promise<void> => {
      for (const set of (await rowsOf(handle, from)).reverse()) {
        if (set.kind === 'spot') continue;
        const id = randomUUID();
        const owner = { finishId: null, jobId: null, ...to };
        await handle.insert(readingSets).values({ ...without(set, 'sequence'), ...owner, id });
        const own = await handle.select().from(readings).where(eq(readings.setId, set.id));
        if (own.length) await handle.insert(readings).values(own.map((r) => ({ ...r, setId: id })));
      }
    },
  };
}

export type ReadingsRepo = ReturnType<typeof createReadingsRepo>;
