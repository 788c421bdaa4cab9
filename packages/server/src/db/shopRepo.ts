import { isDeepStrictEqual } from 'node:util';
import {
  type Damaged,
  type Mixing,
  batchSchema,
  gunSchema,
  productSchema,
  type Batch,
  type NewBatch,
  type StoredGun,
  type StoredProduct,
} from '@steady-gleam/contracts';
import type { Gun, Product } from '@steady-gleam/core';
import { and, asc, desc, eq, isNull } from 'drizzle-orm';
import { ApiError } from '../http/apiError';
import { fileType } from './letdownRepo';
import type { Db } from './open';
import { rowReader, UNTOLD, type TellDamage } from './rows';
import { batches, guns, jobs, products } from './schema';

/** Products, guns and batches of the shop. */
export interface ShopRepo {
  readonly listProducts: () => Promise<StoredProduct[]>;
  readonly putProduct: (id: string, version: number, product: Product) => Promise<StoredProduct>;
  /** All or none. */
  readonly addProducts: (list: readonly Product[]) => Promise<StoredProduct[]>;
  /** Refused while an open batch or a job's mixing names it. */
  readonly removeProduct: (id: string, version: number) => Promise<void>;
  readonly putSheet: (id: string, name: string, bytes: Uint8Array) => Promise<StoredProduct>;
  readonly readSheet: (id: string) => Promise<{ name: string; type: string; bytes: Uint8Array }>;
  readonly listGuns: () => Promise<StoredGun[]>;
  readonly putGun: (id: string, version: number, gun: Gun) => Promise<StoredGun>;
  /** Refused while a job's mixing or an open batch names it. */
  readonly removeGun: (id: string, version: number) => Promise<void>;
  /** Newest first. */
  readonly listBatches: () => Promise<Batch[]>;
  readonly readBatch: (id: string) => Promise<Batch>;
  readonly addBatch: (batch: NewBatch) => Promise<Batch>;
  readonly endBatch: (id: string, version: number, leftMl: number) => Promise<Batch>;
  /** Takes a batch out as entered wrongly, so that it counts for nothing; false puts it back. */
  readonly removeBatch: (id: string, version: number, removed: boolean) => Promise<Batch>;
  readonly damaged: () => Promise<Damaged[]>;
}

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

async function checkGun(db: Db, id: string | null, field: string): Promise<void> {
  if (id === null) return;
  const [found] = await db.select({ id: guns.id }).from(guns).where(eq(guns.id, id));
  if (!found) throw new ApiError('badRequest', { [field]: 'This gun is not here any more; choose another.' });
}

async function checkProduct(db: Db, id: string | null, field: string): Promise<void> {
  if (id === null) return;
  const [found] = await db.select({ id: products.id }).from(products).where(eq(products.id, id));
  if (!found) throw new ApiError('badRequest', { [field]: 'This product is not here any more; choose another.' });
}

/** Pieces whose mixing names something, said in a refusal; jobs that were taken out count, since they can be put back. */
async function jobsThatMix(db: Db, names: (mixing: Mixing) => boolean): Promise<string[]> {
  const rows = await db.select({ piece: jobs.piece, mixing: jobs.mixing, removedAt: jobs.removedAt }).from(jobs);
  return rows
    .filter((j) => j.mixing && names(j.mixing))
    .map((j) => (j.removedAt ? `${j.piece} (taken out of the list)` : j.piece));
}

/** Batches told at once. */
const MOST_BATCHES = 300;

const PRODUCT_COLUMNS = {
  version: products.version,
  product: products.product,
  sheetName: products.sheetName,
  sheetType: products.sheetType,
};
type ProductRow = Pick<typeof products.$inferSelect, 'version' | 'product' | 'sheetName' | 'sheetType'>;
const toProduct = (row: ProductRow): StoredProduct => ({
  version: row.version,
  product: productSchema.validateSync(row.product),
  sheet: row.sheetName && row.sheetType ? { name: row.sheetName, type: row.sheetType } : null,
});
const toGun = (row: typeof guns.$inferSelect): StoredGun => ({
  version: row.version,
  gun: gunSchema.validateSync(row.gun),
});
const toBatch = (row: { batches: typeof batches.$inferSelect; jobs: { piece: string } }): Batch => ({
  ...batchSchema.validateSync(row.batches.batch),
  version: row.batches.version,
  piece: row.jobs.piece,
  leftMl: row.batches.leftMl,
  removedAt: row.batches.removedAt?.toISOString() ?? null,
  endedAt: row.batches.endedAt?.toISOString() ?? null,
});

export function createShopRepo(db: Db, tell: TellDamage = UNTOLD): ShopRepo {
  const productRows = rowReader(
    'product',
    toProduct,
    ({ product }) => ({ id: product.id, name: String(product.name) }),
    tell,
  );
  const gunRows = rowReader('gun', toGun, (row) => ({ id: row.id, name: row.name }), tell);
  const batchRowsOf = rowReader(
    'batch',
    toBatch,
    (row) => ({ id: row.batches.id, name: `a batch for ${row.jobs.piece}` }),
    tell,
  );
  const batchRows = (handle: Db) =>
    handle
      .select({ batches, jobs: { piece: jobs.piece } })
      .from(batches)
      .innerJoin(jobs, eq(jobs.id, batches.jobId));
  const readBatch = async (handle: Db, id: string): Promise<Batch> => {
    const [row] = await batchRows(handle).where(eq(batches.id, id));
    if (!row) throw new ApiError('notFound');
    return batchRowsOf.one(row);
  };
  return {
    listProducts: async () =>
      productRows.many(
        await db.select(PRODUCT_COLUMNS).from(products).orderBy(asc(products.createdAt), asc(products.id)),
      ),

    putProduct: (id, version, product) =>
      db.transaction(async (tx) => {
        if (product.id !== id) throw new ApiError('badRequest', { id: 'The id does not match.' });
        const values = { kind: product.kind, name: product.name, product };
        const [existing] = await tx.select({ id: products.id }).from(products).where(eq(products.id, id));
        if (!existing) {
          if (version !== 0) throw new ApiError('notFound');
          const [row] = await tx
            .insert(products)
            .values({ id, ...values })
            .returning(PRODUCT_COLUMNS);
          return productRows.one(row!);
        }
        const [row] = await tx
          .update(products)
          .set({ ...values, version: version + 1, updatedAt: new Date() })
          .where(and(eq(products.id, id), eq(products.version, version)))
          .returning(PRODUCT_COLUMNS);
        if (!row) throw new ApiError('stale');
        return productRows.one(row);
      }),

    addProducts: (list) =>
      db.transaction(async (tx) => {
        const ids = new Set((await tx.select({ id: products.id }).from(products)).map((r) => r.id));
        if (list.some((p) => ids.has(p.id)) || new Set(list.map((p) => p.id)).size < list.length)
          throw new ApiError('conflict');
        const rows = await tx
          .insert(products)
          .values(list.map((product) => ({ id: product.id, kind: product.kind, name: product.name, product })))
          .returning(PRODUCT_COLUMNS);
        return productRows.many(rows);
      }),

    removeProduct: (id, version) =>
      db.transaction(async (tx) => {
        const [existing] = await tx
          .select({ name: products.name, version: products.version })
          .from(products)
          .where(eq(products.id, id));
        if (!existing) throw new ApiError('notFound');
        if (existing.version !== version) throw new ApiError('stale');
        const users = await jobsThatMix(tx, (m) => Object.values(m.products).includes(id));
        const [open] = await tx
          .select({ id: batches.id })
          .from(batches)
          .where(and(eq(batches.productId, id), isNull(batches.endedAt), isNull(batches.removedAt)));
        if (open) users.push('a batch that is still open');
        if (users.length)
          throw new ApiError(
            'inUse',
            undefined,
            `${existing.name} is used by ${users.join(', ')}. Change that first; it was kept.`,
          );
        await tx.delete(products).where(eq(products.id, id));
      }),

    putSheet: async (id, name, bytes) => {
      const type = fileType(bytes);
      if (!type)
        throw new ApiError('badRequest', {
          sheet: 'This is not a PDF, JPEG, PNG or WebP file. Choose the sheet’s page.',
        });
      const [row] = await db
        .update(products)
        .set({ sheetName: name, sheetType: type, sheetBytes: bytes, updatedAt: new Date() })
        .where(eq(products.id, id))
        .returning(PRODUCT_COLUMNS);
      if (!row) throw new ApiError('notFound');
      return productRows.one(row);
    },

    readSheet: async (id) => {
      const [row] = await db
        .select({ name: products.sheetName, type: products.sheetType, bytes: products.sheetBytes })
        .from(products)
        .where(eq(products.id, id));
      if (!row?.bytes || !row.name || !row.type) throw new ApiError('notFound');
      return { name: row.name, type: row.type, bytes: row.bytes };
    },

    listGuns: async () => gunRows.many(await db.select().from(guns).orderBy(asc(guns.createdAt), asc(guns.id))),

    putGun: (id, version, gun) =>
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

    removeGun: (id, version) =>
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

    listBatches: async () =>
      batchRowsOf.many(
        await batchRows(db).where(isNull(batches.removedAt)).orderBy(desc(batches.mixedAt)).limit(MOST_BATCHES),
      ),

    readBatch: (id) => readBatch(db, id),

    addBatch: (batch) =>
      db.transaction(async (tx) => {
        const [existing] = await tx.select({ batch: batches.batch }).from(batches).where(eq(batches.id, batch.id));
        // The same sent twice is stored once; another under the same id would be lost, so it is refused.
        if (existing && !isDeepStrictEqual(batchSchema.validateSync(existing.batch), batch))
          throw new ApiError('conflict');
        if (!existing) {
          const [job] = await tx.select({ id: jobs.id }).from(jobs).where(eq(jobs.id, batch.jobId));
          if (!job) throw new ApiError('notFound');
          await checkGun(tx, batch.gunId, 'gunId');
          await checkProduct(tx, batch.productId, 'productId');
          await tx.insert(batches).values({
            id: batch.id,
            jobId: batch.jobId,
            gunId: batch.gunId,
            productId: batch.productId,
            mixedAt: new Date(batch.mixedAt),
            batch,
          });
        }
        return readBatch(tx, batch.id);
      }),

    endBatch: (id, version, leftMl) =>
      db.transaction(async (tx) => {
        const batch = await readBatch(tx, id);
        if (leftMl > batch.ml) throw new ApiError('badRequest', { leftMl: 'More can’t be left than was mixed.' });
        const changed = await tx
          .update(batches)
          .set({ leftMl, endedAt: new Date(), version: version + 1, updatedAt: new Date() })
          .where(and(eq(batches.id, id), eq(batches.version, version)))
          .returning({ id: batches.id });
        if (!changed.length) throw new ApiError('stale');
        return readBatch(tx, id);
      }),

    removeBatch: (id, version, removed) =>
      db.transaction(async (tx) => {
        const changed = await tx
          .update(batches)
          .set({ removedAt: removed ? new Date() : null, version: version + 1, updatedAt: new Date() })
          .where(and(eq(batches.id, id), eq(batches.version, version)))
          .returning({ id: batches.id });
        if (!changed.length) throw new ApiError('stale');
        return readBatch(tx, id);
      }),

    damaged: async () => [
      ...productRows.damaged(await db.select(PRODUCT_COLUMNS).from(products)),
      ...gunRows.damaged(await db.select().from(guns)),
      ...batchRowsOf.damaged(await batchRows(db)),
    ],
  };
}
