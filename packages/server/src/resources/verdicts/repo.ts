import { verdictEventSchema, type VerdictEvent } from '@steady-gleam/contracts';
import { and, asc, desc, eq, inArray, isNull } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import type { Db } from '../../db/open';
import { groupBy, without } from '../../db/rows';
import { verdicts } from '../../db/schema';
import { ApiError } from '../../errors';
import { checkOwner } from '../readings/repo';

type VerdictRow = typeof verdicts.$inferSelect;

const toVerdict = ({ id, coats, view, verdict, hue, takenAt }: VerdictRow): VerdictEvent =>
  verdictEventSchema.validateSync({ id, coats, view, verdict, hue, takenAt: takenAt.toISOString() });

/** The newest of each count and view, unless it withdraws what was said. @param rows newest first */
function inForce(rows: readonly VerdictRow[]): VerdictRow[] {
  const seen = new Set<string>();
  return rows.filter((r) => {
    const key = [r.finishId, r.coats, r.view].join('/');
    return seen.has(key) ? false : (seen.add(key), r.verdict !== null);
  });
}

/** Verdicts on rungs by eye. */
export function createVerdictsRepo(db: Db) {
  const rowsOf = (handle: Db, finishId: string) =>
    handle
      .select()
      .from(verdicts)
      .where(and(eq(verdicts.finishId, finishId), isNull(verdicts.cardId)));
  return {
    list: async (finishId: string): Promise<VerdictEvent[]> =>
      inForce(await rowsOf(db, finishId).orderBy(desc(verdicts.sequence))).map(toVerdict),

    /** Coats of the rungs of some finishes that were judged by eye, by finish. */
    rungsJudged: async (finishIds: readonly string[]): Promise<ReadonlyMap<string, readonly number[]>> => {
      if (!finishIds.length) return new Map();
      const rows = await db
        .select()
        .from(verdicts)
        .where(and(inArray(verdicts.finishId, [...finishIds]), isNull(verdicts.cardId)))
        .orderBy(desc(verdicts.sequence));
      const byFinish = groupBy(inForce(rows), (r) => r.finishId);
      return new Map([...byFinish].map(([id, own]) => [id, own.map((r) => r.coats)]));
    },

    /** Verdicts in force of an earlier card. */
    ofCard: async (cardId: string): Promise<VerdictEvent[]> =>
      inForce(await db.select().from(verdicts).where(eq(verdicts.cardId, cardId)).orderBy(desc(verdicts.sequence))).map(
        toVerdict,
      ),

    add: (finishId: string, event: VerdictEvent): Promise<VerdictEvent> =>
      db.transaction(async (tx) => {
        await checkOwner(tx, { finishId });
        const [existing] = await tx.select().from(verdicts).where(eq(verdicts.id, event.id));
        if (existing) {
          if (existing.finishId !== finishId) throw new ApiError('conflict');
          return toVerdict(existing);
        }
        await tx.insert(verdicts).values({ ...event, finishId, takenAt: new Date(event.takenAt) });
        return event;
      }),

    copy: async (handle: Db, from: string, to: string): Promise<void> => {
      for (const row of await rowsOf(handle, from).orderBy(asc(verdicts.sequence)))
        await handle.insert(verdicts).values({ ...without(row, 'sequence'), id: randomUUID(), finishId: to });
    },
  };
}

export type VerdictsRepo = ReturnType<typeof createVerdictsRepo>;
