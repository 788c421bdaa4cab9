import { ownMaterialSchema, type Damaged, type StoredMaterial } from '@steady-gleam/contracts';
import { materialsOf } from '@steady-gleam/core/finishes';
import { REFERENCE_LIBRARY, usedByMaterials, type OwnMaterial } from '@steady-gleam/core/materials';
import { and, asc, eq } from 'drizzle-orm';
import { ApiError } from '../../errors';
import type { Db } from '../../db/open';
import { rowReader, UNTOLD, type TellDamage } from '../../db/rows';
import { finishes, jobs, materials } from '../../db/schema';

const toStored = (row: typeof materials.$inferSelect): StoredMaterial => ({
  version: row.version,
  material: ownMaterialSchema.validateSync(row.material),
});

/** Ids a material of this kind may be referred to by: the reference library and the shop's own. */
export async function knownMaterial(db: Db, kind: 'ground' | 'system', id: string): Promise<boolean> {
  const reference = kind === 'ground' ? REFERENCE_LIBRARY.grounds : REFERENCE_LIBRARY.systems;
  if (reference.some((m) => m.id === id)) return true;
  const own = await db.select({ id: materials.id }).from(materials).where(eq(materials.kind, kind));
  return own.some((m) => m.id === id);
}

/** The shop's own materials. */
export function createMaterialsRepo(db: Db, tell: TellDamage = UNTOLD) {
  const rows = rowReader('material', toStored, (row) => ({ id: row.id, name: row.name }), tell);
  const listOwn = async (handle: Db) =>
    rows.many(await handle.select().from(materials).orderBy(asc(materials.createdAt)));

  const checkParts = async (handle: Db, material: OwnMaterial): Promise<void> => {
    if (material.kind !== 'system' && material.kind !== 'ground') return;
    const own = await listOwn(handle);
    const has = (kind: OwnMaterial['kind'], reference: readonly { id: string }[], id: string | null) =>
      id === null ||
      reference.some((m) => m.id === id) ||
      own.some((m) => m.material.kind === kind && m.material.id === id);
    if (material.kind === 'ground') {
      if (!has('pigment', REFERENCE_LIBRARY.pigments, material.pigmentId))
        throw new ApiError('badRequest', { pigmentId: 'This pigment is not here any more.' });
      material.solids.forEach(({ solidId }, i) => {
        if (!REFERENCE_LIBRARY.solids.some((s) => s.id === solidId))
          throw new ApiError('badRequest', { [`solids[${i}].solidId`]: 'This base colour is not here any more.' });
      });
      if (!has('dye', REFERENCE_LIBRARY.dyes, material.tintId))
        throw new ApiError('badRequest', { tintId: 'This dye is not here any more.' });
      return;
    }
    const shelf = {
      flake: (colour: string) => has('pigment', REFERENCE_LIBRARY.pigments, colour),
      dye: (colour: string) => has('dye', REFERENCE_LIBRARY.dyes, colour),
      solid: (colour: string) => REFERENCE_LIBRARY.solids.some((s) => s.id === colour),
    };
    material.colours.forEach(({ kind, id }, i) => {
      if (!shelf[kind](id))
        throw new ApiError('badRequest', { [`colours[${i}].id`]: 'This colour is not here any more.' });
    });
    if (!has('carrier', REFERENCE_LIBRARY.carriers, material.carrierId))
      throw new ApiError('badRequest', { carrierId: 'This carrier is not here any more.' });
  };

  return {
    list: (): Promise<StoredMaterial[]> => listOwn(db),

    put: (id: string, version: number, material: OwnMaterial): Promise<StoredMaterial> =>
      db.transaction(async (tx) => {
        if (material.id !== id) throw new ApiError('badRequest', { id: 'The id does not match.' });
        await checkParts(tx, material);
        const values = { kind: material.kind, name: material.name, material };
        const [existing] = await tx.select().from(materials).where(eq(materials.id, id));
        if (!existing) {
          if (version !== 0) throw new ApiError('notFound');
          const [row] = await tx
            .insert(materials)
            .values({ id, ...values })
            .returning();
          return rows.one(row!);
        }
        if (existing.kind !== material.kind) throw new ApiError('conflict');
        const [row] = await tx
          .update(materials)
          .set({ ...values, version: version + 1, updatedAt: new Date() })
          .where(and(eq(materials.id, id), eq(materials.version, version)))
          .returning();
        if (!row) throw new ApiError('stale');
        return rows.one(row);
      }),

    /** Refused while a finish or a mix uses it; the message says where. */
    remove: (id: string, version: number): Promise<void> =>
      db.transaction(async (tx) => {
        const [existing] = await tx.select().from(materials).where(eq(materials.id, id));
        if (!existing) throw new ApiError('notFound');
        if (existing.version !== version) throw new ApiError('stale');
        const own = await listOwn(tx);
        const users = usedByMaterials(
          id,
          own.map((m) => m.material),
        );
        const inJobs = await tx.select({ piece: jobs.piece, finishes: jobs.finishes }).from(jobs);
        for (const f of await tx.select().from(finishes)) {
          const laid = materialsOf([{ id: f.id, name: f.name, layers: f.layers ?? [] }]).some((m) => m.id === id);
          if (f.mixId !== id && f.pick?.groundId !== id && !laid) continue;
          const pieces = inJobs.filter((j) => j.finishes.some((u) => u.finishId === f.id)).map((j) => j.piece);
          users.push(...(pieces.length ? pieces : [`the finish ${f.name}`]));
        }
        if (users.length) {
          throw new ApiError(
            'inUse',
            undefined,
            `${existing.name} is used by ${[...new Set(users)].join(', ')}. Change that first; it was kept.`,
          );
        }
        await tx.delete(materials).where(eq(materials.id, id));
      }),

    damaged: async (): Promise<Damaged[]> => rows.damaged(await db.select().from(materials)),
  };
}
