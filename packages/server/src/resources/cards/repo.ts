import {
  cardSchema,
  knownHandSchema,
  storedCardSchema,
  type Card,
  type EarlierCard,
  type JobDetail,
  type StoredCard,
} from '@steady-gleam/contracts';
import type { KnownHand } from '@steady-gleam/core/letdown';
import { and, desc, eq, inArray, isNotNull, isNull, ne } from 'drizzle-orm';
import type { AnyPgColumn } from 'drizzle-orm/pg-core';
import { randomUUID } from 'node:crypto';
import type { Db } from '../../db/open';
import { groupBy, without } from '../../db/rows';
import { cards, finishes, jobEvents, photos, readingSets, verdicts } from '../../db/schema';
import { ApiError } from '../../errors';
import { checkGun } from '../jobs/checkMixing';
import { checkOwner } from '../readings/repo';

type CardRow = typeof cards.$inferSelect;

const toCard = ({ settings, ...row }: CardRow): StoredCard => {
  const { id, rungs, gun, gunId, pressureBar, onStand, firstStop, version } = row;
  return storedCardSchema.validateSync({
    ...{ id, rungs, gun, gunId, pressureBar, onStand, firstStop, version },
    settings: settings ?? undefined,
  });
};

/** The cards of finishes: any number of them, one in force. */
export function createCardsRepo(db: Db) {
  const inForce = async (handle: Db, finishId: string): Promise<CardRow | null> => {
    const [row] = await handle
      .select()
      .from(cards)
      .where(and(eq(cards.finishId, finishId), isNull(cards.retiredAt)));
    return row ?? null;
  };
  /** What was read, seen and done of the card in force is that card's; null gives it back. */
  const stamp = async (handle: Db, finishId: string, from: string | null, to: string | null): Promise<void> => {
    const set = { cardId: to };
    const its = (t: { readonly finishId: AnyPgColumn; readonly cardId: AnyPgColumn }) =>
      and(eq(t.finishId, finishId), from === null ? isNull(t.cardId) : eq(t.cardId, from));
    await handle
      .update(readingSets)
      .set(set)
      .where(and(its(readingSets), eq(readingSets.kind, 'rung')));
    await handle.update(verdicts).set(set).where(its(verdicts));
    await handle
      .update(photos)
      .set(set)
      .where(and(its(photos), eq(photos.kind, 'rung')));
    await handle.update(jobEvents).set(set).where(its(jobEvents));
  };
  const putAside = async (handle: Db, card: CardRow): Promise<CardRow> => {
    await stamp(handle, card.finishId, null, card.id);
    const [row] = await handle
      .update(cards)
      .set({ retiredAt: new Date(), version: card.version + 1, updatedAt: new Date() })
      .where(eq(cards.id, card.id))
      .returning();
    return row!;
  };
  const toEarlier = async (handle: Db, row: CardRow): Promise<EarlierCard> => {
    const read = await handle
      .select({ coats: readingSets.rungCoats })
      .from(readingSets)
      .where(and(eq(readingSets.cardId, row.id), isNull(readingSets.removedAt)));
    const seen = await handle.select({ coats: verdicts.coats }).from(verdicts).where(eq(verdicts.cardId, row.id));
    const { id, rungs, gun, pressureBar } = row;
    const rungsRead = new Set([...read, ...seen].map((r) => r.coats)).size;
    return { id, rungs: [...rungs], rungsRead, gun, pressureBar, retiredAt: row.retiredAt!.toISOString() };
  };

  return {
    inForce: async (finishId: string): Promise<StoredCard | null> => {
      const row = await inForce(db, finishId);
      return row && toCard(row);
    },

    /** Cards in force, by finish; of some finishes, or of all. */
    byFinish: async (finishIds?: readonly string[]): Promise<ReadonlyMap<string, StoredCard>> => {
      if (finishIds?.length === 0) return new Map();
      const of = finishIds && inArray(cards.finishId, [...finishIds]);
      const rows = await db
        .select()
        .from(cards)
        .where(and(isNull(cards.retiredAt), of));
      return new Map(rows.map((row) => [row.finishId, toCard(row)]));
    },

    /** Cards of some finishes that are not in force, the latest first, by finish. */
    earlierOf: async (finishIds: readonly string[]): Promise<ReadonlyMap<string, EarlierCard[]>> => {
      if (!finishIds.length) return new Map();
      const rows = await db
        .select()
        .from(cards)
        .where(and(inArray(cards.finishId, [...finishIds]), isNotNull(cards.retiredAt)))
        .orderBy(desc(cards.retiredAt));
      const all = await Promise.all(rows.map(async (row) => ({ of: row.finishId, card: await toEarlier(db, row) })));
      return new Map([...groupBy(all, (e) => e.of)].map(([id, own]) => [id, own.map((e) => e.card)]));
    },

    /** Every card of a finish, the one in force first; and whether others are told of its hand, null where it showed none. */
    everyOf: async (finishId: string) => {
      const rows = await db.select().from(cards).where(eq(cards.finishId, finishId)).orderBy(desc(cards.retiredAt));
      return rows.map((row) => ({
        card: toCard(row),
        retiredAt: row.retiredAt?.toISOString() ?? null,
        teaches: row.hand ? !row.handLeftOut : null,
      }));
    },

    /** Hands that other cards of the same gun, style and family showed; of a gun that is none of the shop's, none. */
    handsLike: async (card: StoredCard, style: string, family: string): Promise<JobDetail['earlier']> => {
      if (card.gunId === null) return [];
      const rows = await db
        .select({
          ...{ hand: cards.hand, cardId: cards.id, finishId: cards.finishId },
          ...{ finishName: finishes.name, at: cards.updatedAt },
        })
        .from(cards)
        .innerJoin(finishes, eq(finishes.id, cards.finishId))
        .where(
          and(
            eq(cards.gunId, card.gunId),
            eq(cards.handStyle, style),
            eq(finishes.family, family),
            ne(cards.id, card.id),
            isNotNull(cards.hand),
            eq(cards.handLeftOut, false),
            // What is simulated says nothing of a hand.
            eq(finishes.tryOut, false),
          ),
        )
        .orderBy(desc(cards.updatedAt));
      return rows.map(({ hand, at, ...of }) => ({
        ...knownHandSchema.validateSync(hand),
        ...of,
        at: at.toISOString(),
      }));
    },

    /** What the cards of a finish showed of the hand, by card. */
    handsOf: async (finishId: string) => {
      const rows = await db
        .select({ id: cards.id, hand: cards.hand, style: cards.handStyle })
        .from(cards)
        .where(and(eq(cards.finishId, finishId), isNotNull(cards.hand)));
      return new Map(rows.map((r) => [r.id, { style: r.style ?? '', mean: r.hand!.mean, sd: r.hand!.sd }]));
    },

    /** Leaves the hand a card showed out of what other cards are told, or takes it in again. */
    setHand: async (id: string, teaches: boolean): Promise<void> => {
      const changed = await db
        .update(cards)
        .set({ handLeftOut: !teaches })
        .where(eq(cards.id, id))
        .returning({ id: cards.id });
      if (!changed.length) throw new ApiError('notFound');
    },

    put: (finishId: string, { version, ...card }: Card & { version: number }): Promise<StoredCard> =>
      db.transaction(async (tx) => {
        await checkOwner(tx, { finishId });
        await checkGun(tx, card.gunId, 'gunId');
        const existing = await inForce(tx, finishId);
        if (!existing) {
          if (version !== 0) throw new ApiError('stale');
          const [row] = await tx
            .insert(cards)
            .values({ ...card, finishId })
            .returning();
          return toCard(row!);
        }
        const plan = without(cardSchema.cast(card), 'id');
        const [row] = await tx
          .update(cards)
          .set({ ...plan, version: version + 1, updatedAt: new Date() })
          .where(and(eq(cards.id, existing.id), eq(cards.version, version)))
          .returning();
        if (!row) throw new ApiError('stale');
        return toCard(row);
      }),

    putHand: async (
      finishId: string,
      { style, mean, sd, firstStop }: KnownHand & { style: string; firstStop: number | null },
    ): Promise<void> => {
      const changed = await db
        .update(cards)
        .set({ hand: { mean, sd }, handStyle: style, firstStop })
        .where(and(eq(cards.finishId, finishId), isNull(cards.retiredAt)))
        .returning({ id: cards.id });
      if (!changed.length) throw new ApiError('notFound');
    },

    /** Puts the card in force aside, so that a new one can be begun. */
    retire: (finishId: string, version: number): Promise<EarlierCard> =>
      db.transaction(async (tx) => {
        const card = await inForce(tx, finishId);
        if (!card) throw new ApiError('notFound');
        if (card.version !== version) throw new ApiError('stale');
        return toEarlier(tx, await putAside(tx, card));
      }),

    /** Puts an earlier card in force again; the one that was goes aside. */
    recall: (id: string): Promise<StoredCard> =>
      db.transaction(async (tx) => {
        const [card] = await tx.select().from(cards).where(eq(cards.id, id));
        if (!card) throw new ApiError('notFound');
        if (card.retiredAt === null) return toCard(card);
        const now = await inForce(tx, card.finishId);
        if (now) await putAside(tx, now);
        await stamp(tx, card.finishId, id, null);
        const [row] = await tx
          .update(cards)
          .set({ retiredAt: null, version: card.version + 1, updatedAt: new Date() })
          .where(eq(cards.id, id))
          .returning();
        return toCard(row!);
      }),

    copy: async (handle: Db, from: string, to: string): Promise<void> => {
      const card = await inForce(handle, from);
      if (card) await handle.insert(cards).values({ ...card, id: randomUUID(), finishId: to, version: 1 });
    },
  };
}

export type CardsRepo = ReturnType<typeof createCardsRepo>;
