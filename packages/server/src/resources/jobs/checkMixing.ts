import type { Mixing } from '@steady-gleam/contracts';
import { eq } from 'drizzle-orm';
import type { Db } from '../../db/open';
import { guns, jobs, products } from '../../db/schema';
import { ApiError } from '../../errors';

/** @throws ApiError where a gun or a product of a job's mixing is not the shop's */
export async function checkMixing(
  db: Db,
  mixing: Pick<Mixing, 'gunId' | 'products'>,
  before: Pick<Mixing, 'gunId' | 'products'> | null,
): Promise<void> {
  // What stood there before does not keep the painter from changing something else.
  if (mixing.gunId !== before?.gunId) await checkGun(db, mixing.gunId, 'mixing.gunId');
  for (const [layer, id] of Object.entries(mixing.products))
    if (before?.products[layer] !== id) await checkProduct(db, id, `mixing.products.${layer}`);
}

/** @throws ApiError at the field */
export async function checkGun(db: Db, id: string | null, field: string): Promise<void> {
  if (id === null) return;
  const [found] = await db.select({ id: guns.id }).from(guns).where(eq(guns.id, id));
  if (!found) throw new ApiError('badRequest', { [field]: 'This gun is not here any more; choose another.' });
}

/** @throws ApiError at the field */
export async function checkProduct(db: Db, id: string | null, field: string): Promise<void> {
  if (id === null) return;
  const [found] = await db.select({ id: products.id }).from(products).where(eq(products.id, id));
  if (!found) throw new ApiError('badRequest', { [field]: 'This product is not here any more; choose another.' });
}

/** Pieces whose mixing names something, said in a refusal; jobs that were taken out count, since they can be put back. */
export async function jobsThatMix(db: Db, names: (mixing: Mixing) => boolean): Promise<string[]> {
  const rows = await db.select({ piece: jobs.piece, mixing: jobs.mixing, removedAt: jobs.removedAt }).from(jobs);
  return rows
    .filter((j) => j.mixing && names(j.mixing))
    .map((j) => (j.removedAt ? `${j.piece} (taken out of the list)` : j.piece));
}
