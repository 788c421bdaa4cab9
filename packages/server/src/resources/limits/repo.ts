import { familyLimitsSchema, type FamilyLimits } from '@steady-gleam/contracts';
import { and, eq } from 'drizzle-orm';
import type { Db } from '../../db/open';
import { familyLimits } from '../../db/schema';
import { ApiError } from '../../errors';

const toLimits = ({ family, own, source, version }: typeof familyLimits.$inferSelect): FamilyLimits =>
  familyLimitsSchema.validateSync({ family, own, source, version });

/** Limits of a match by family, as the shop set them. */
export function createLimitsRepo(db: Db) {
  return {
    /** Null while the shop set none. */
    of: async (family: string): Promise<FamilyLimits | null> => {
      const [row] = await db.select().from(familyLimits).where(eq(familyLimits.family, family));
      return row ? toLimits(row) : null;
    },

    put: ({ family, version, own, source }: FamilyLimits): Promise<FamilyLimits> =>
      db.transaction(async (tx) => {
        const [row] =
          version === 0
            ? await tx.insert(familyLimits).values({ family, own, source }).onConflictDoNothing().returning()
            : await tx
                .update(familyLimits)
                .set({ own, source, version: version + 1, updatedAt: new Date() })
                .where(and(eq(familyLimits.family, family), eq(familyLimits.version, version)))
                .returning();
        if (!row) throw new ApiError('stale');
        return toLimits(row);
      }),
  };
}

export type LimitsRepo = ReturnType<typeof createLimitsRepo>;
