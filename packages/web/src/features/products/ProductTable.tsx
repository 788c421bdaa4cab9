import type { StoredProduct } from '@steady-gleam/contracts';
import { useWide } from '../../shared/useWide';
import { ProductRow } from './ProductRow';
import { ShelfHead, TABLE } from './shelfTable';

interface ProductTableProps {
  readonly products: readonly StoredProduct[];
  readonly onSheet: (id: string, file: File) => void;
  readonly onChange: (product: StoredProduct) => void;
}

/** Products by their sheets, a row each. */
export function ProductTable({ products, onSheet, onChange }: ProductTableProps) {
  const names = [
    'product',
    'ratio',
    'solids',
    'film a coat',
    'flash',
    ...(useWide() ? ['pot life', 'VOC'] : []),
    'sheet',
  ];
  return (
    <table aria-label="Products" style={TABLE}>
      <ShelfHead names={names} text={['product', 'sheet']} />
      <tbody>
        {products.map((stored) => (
          <ProductRow
            key={stored.product.id}
            stored={stored}
            onSheet={(file) => onSheet(stored.product.id, file)}
            onChange={() => onChange(stored)}
          />
        ))}
      </tbody>
    </table>
  );
}
