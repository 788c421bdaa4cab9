import { gunSchema, type StoredGun } from '@steady-gleam/contracts';
import type { Gun } from '@steady-gleam/core/products';
import { and, asc, eq, isNull } from 'drizzle-orm';
import type { Db } from '../../db/open';
import { rowReader, UNTOLD, type TellDamage } from '../../db/rows';
import { batches, guns } from '../../db/schema';
import { ApiError } from '../../errors';
import { jobsThatMix } from '../jobs/checkMixing';

const toGun = (row: typeof guns.$inferSelect): StoredGun => ({
  version: row.version,
  gun: gunSchema.validateSync(row.gun),
});

/** The shop's guns. */
export function createGunsRepo(db: Db, tell: TellDamage = UNTOLD) {
  const gunRows = rowReader('gun', toGun, (row) => ({ id: row.id, name: row.name }), tell);
  return {
    list: async () => gunRows.many(await db.select().from(guns).orderBy(asc(guns.createdAt), asc(guns.id))),

    put: (id: string, version: number, gun: Gun): Promise<StoredGun> =>
      db.transaction(async (tx) => {
        if (gun.id !== id) throw new ApiError('badRequest', { id: 'The id does not match.' });
        if (version === 0) {
          const [existing] = await tx.select({ id: guns.id }).from(guns).where(eq(guns.id, id));
          if (existing) throw new ApiError('stale');
          const [row] = await tx.insert(guns).values({ id, name: gun.name, gun }).returning();
          return gunRows.one(row!);
        }
        const [row] = await tx
          .update(guns)
          .set({ name: gun.name, gun, version: version + 1, updatedAt: new Date() })
          .where(and(eq(guns.id, id), eq(guns.version, version)))
          .returning();
        if (!row) throw new ApiError('stale');
        return gunRows.one(row);
      }),

    /** Refused while a job's mixing or an open batch names it. */
    remove: (id: string, version: number): Promise<void> =>
      db.transaction(async (tx) => {
        const [existing] = await tx.select().from(guns).where(eq(guns.id, id));
        if (!existing) throw new ApiError('notFound');
        if (existing.version !== version) throw new ApiError('stale');
        const users = await jobsThatMix(tx, (m) => m.gunId === id);
        const [open] = await tx
          .select({ id: batches.id })
          .from(batches)
          .where(and(eq(batches.gunId, id), isNull(batches.endedAt), isNull(batches.removedAt)));
        if (open) users.push('a batch that is still open');
        if (users.length)
          throw new ApiError(
            'inUse',
            undefined,
            `${existing.name} sprays ${users.join(', ')}. Choose another gun there first; it was kept.`,
          );
        await tx.delete(guns).where(eq(guns.id, id));
      }),

    damaged: async () => gunRows.damaged(await db.select().from(guns)),
  };
}
