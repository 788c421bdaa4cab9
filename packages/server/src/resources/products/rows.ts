import { productSchema, type StoredProduct } from '@steady-gleam/contracts';
import { products } from '../../db/schema';

export const PRODUCT_COLUMNS = {
  version: products.version,
  product: products.product,
  sheetName: products.sheetName,
  sheetType: products.sheetType,
};
/** Without the bytes of its sheet. */
export type ProductRow = Pick<typeof products.$inferSelect, 'version' | 'product' | 'sheetName' | 'sheetType'>;
export const toProduct = (row: ProductRow): StoredProduct => ({
  version: row.version,
  product: productSchema.validateSync(row.product),
  sheet: row.sheetName && row.sheetType ? { name: row.sheetName, type: row.sheetType } : null,
});
