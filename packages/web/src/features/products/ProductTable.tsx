import { Link as MuiLink } from '@mui/material';
import { SHEET_TYPES, sheetPath, type StoredProduct } from '@steady-gleam/contracts';
import { FileButton } from '../../shared/FileButton';
import { useUnits } from '../../shared/units';
import { useWide } from '../../shared/useWide';
import { Table, type Column } from '../../ui/Table';
import { sayRatio } from './shelfForms';
import { changeColumn, Named } from './shelfTable';

interface ProductTableProps {
  readonly products: readonly StoredProduct[];
  readonly onSheet: (id: string, file: File) => void;
  readonly onChange: (product: StoredProduct) => void;
}

/** Products by their sheets, a row each. */
export function ProductTable({ products, onSheet, onChange }: ProductTableProps) {
  const units = useUnits();
  const wide = useWide();
  const figure = (head: string, draw: (p: StoredProduct['product']) => string): Column<StoredProduct> => ({
    ...{ head, figure: true },
    draw: ({ product }) => draw(product),
  });
  return (
    <Table
      label="Products"
      rows={products}
      keyOf={({ product }) => product.id}
      columns={[
        {
          head: 'product',
          draw: ({ product: p }) => <Named name={p.name} what={`${p.kind}, ${p.chemistry}`} />,
        },
        figure('ratio', sayRatio),
        figure('solids', (p) => `${Math.round(p.volumeSolids * 100)} %`),
        figure('film a coat', (p) => units.say('film', p.filmUm)),
        figure('flash', (p) => `${p.flashMinutes} min`),
        ...(wide
          ? [
              figure('pot life', (p) => (p.potLifeMinutes === null ? '–' : `${p.potLifeMinutes} min`)),
              figure('VOC', (p) => units.say('voc', p.vocGPerL)),
            ]
          : []),
        {
          head: 'sheet',
          draw: (stored) => <Sheet stored={stored} onSheet={(file) => onSheet(stored.product.id, file)} />,
        },
        changeColumn(({ product }) => product.name, onChange),
      ]}
    />
  );
}

/** The product's sheet, and the way to another. */
function Sheet({ stored: { product: p, sheet }, onSheet }: { stored: StoredProduct; onSheet: (file: File) => void }) {
  return (
    <>
      {sheet ? (
        <MuiLink
          href={sheetPath(p.id)}
          target="_blank"
          color="inherit"
          sx={{ display: 'inline-block', minHeight: 24, maxWidth: 90, overflowWrap: 'anywhere' }}
        >
          {sheet.name}
        </MuiLink>
      ) : null}
      <FileButton
        variant="text"
        color="inherit"
        sx={{ px: 0.5, fontSize: 14, display: 'block', textAlign: 'left' }}
        label={`Sheet of ${p.name}`}
        accept={SHEET_TYPES.join(',')}
        onFile={onSheet}
      >
        {sheet ? 'Replace' : 'Attach'}
      </FileButton>
    </>
  );
}
