import type { StoredProduct } from '@steady-gleam/contracts';
import type { Product } from '@steady-gleam/core/products';
import { and, asc, eq, isNull } from 'drizzle-orm';
import type { Db } from '../../db/open';
import { rowReader, UNTOLD, type TellDamage } from '../../db/rows';
import { batches, products } from '../../db/schema';
import { ApiError } from '../../errors';
import { fileType } from '../../http/files';
import { jobsThatMix } from '../jobs/checkMixing';
import { PRODUCT_COLUMNS, toProduct } from './rows';

/** The shop's products and their sheets. */
export function createProductsRepo(db: Db, tell: TellDamage = UNTOLD) {
  const productRows = rowReader(
    'product',
    toProduct,
    ({ product }) => ({ id: product.id, name: String(product.name) }),
    tell,
  );
  return {
    list: async (): Promise<StoredProduct[]> =>
      productRows.many(
        await db.select(PRODUCT_COLUMNS).from(products).orderBy(asc(products.createdAt), asc(products.id)),
      ),

    put: (id: string, version: number, product: Product): Promise<StoredProduct> =>
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

    /** All or none. */
    add: (list: readonly Product[]): Promise<StoredProduct[]> =>
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

    /** Refused while an open batch or a job's mixing names it. */
    remove: (id: string, version: number): Promise<void> =>
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

    putSheet: async (id: string, name: string, bytes: Uint8Array): Promise<StoredProduct> => {
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

    readSheet: async (id: string) => {
      const [row] = await db
        .select({ name: products.sheetName, type: products.sheetType, bytes: products.sheetBytes })
        .from(products)
        .where(eq(products.id, id));
      if (!row?.bytes || !row.name || !row.type) throw new ApiError('notFound');
      return { name: row.name, type: row.type, bytes: row.bytes };
    },

    damaged: async () => productRows.damaged(await db.select(PRODUCT_COLUMNS).from(products)),
  };
}
